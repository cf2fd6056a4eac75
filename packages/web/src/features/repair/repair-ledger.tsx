/** The foot of the page: what the whole plan does, and the one button that does it. */
import type { RepairPlan } from '@nesting/contract';
import { useState } from 'react';
import { many, size } from '../../app/words';
import { PLAN_FORM_WORDS } from '../../changes/save-plan';
import { Button, Labelled, Menu, Popover, Refused, TextInput } from '../../ui';
import type { RepairWork } from './repair-work';

export function RepairLedger({ work }: { work: RepairWork }) {
  const { plan, trouble, isReady, running, save } = work;
  return (
    <>
      <div className="min-w-0 flex-1" aria-live="polite">
        {running !== null ? (
          running
        ) : trouble !== null ? (
          <p className="text-brick">{trouble}</p>
        ) : plan === undefined ? (
          <p className="text-ink2">Looking at the disk…</p>
        ) : (
          <Summary plan={plan} named={work.mentions?.found?.references.length ?? 0} />
        )}
      </div>
      {save !== null && plan !== undefined && plan.entries > 0 && (
        <Menu
          trigger={<Button>Save the plan…</Button>}
          lines={PLAN_FORM_WORDS.map(([as, words]) => ({ words, run: () => void save(as) }))}
        />
      )}
      {plan?.mayApply === true && work.later !== null && <Later work={work} later={work.later} />}
      {plan?.mayApply === false ? (
        <Propose work={work} />
      ) : (
        <Button variant="main" disabled={!isReady} onClick={() => void work.carryOut()}>
          {running !== null ? 'Putting it right…' : 'Put it right'}
        </Button>
      )}
    </>
  );
}

/** Files that somebody is at are put right when nobody is. */
function Later({ work, later }: { work: RepairWork; later: NonNullable<RepairWork['later']> }) {
  const [at, setAt] = useState(tonight);
  const [isOpen, setIsOpen] = useState(false);
  const begin = async () => {
    const when = new Date(at);
    if (Number.isNaN(when.getTime())) return;
    if (await later(when)) setIsOpen(false);
  };
  return (
    <Popover
      label="Begin later"
      trigger={<Button disabled={!work.isReady && !work.plan?.counts.held}>Later…</Button>}
      open={isOpen}
      onOpen={setIsOpen}
      width="w-72"
    >
      <form
        className="flex flex-col gap-3 p-3"
        onSubmit={(event) => {
          event.preventDefault();
          void begin();
        }}
      >
        <Labelled
          id="begins-at"
          label="When it begins"
          help="It is planned again then. What would come to be elsewhere than it is shown here stays."
        >
          <TextInput id="begins-at" type="datetime-local" value={at} onChange={(e) => setAt(e.target.value)} required />
        </Labelled>
        {work.trouble !== null && <Refused words={work.trouble} />}
        <Button type="submit" variant="main">
          Begin then
        </Button>
      </form>
    </Popover>
  );
}

/** Ten in the evening, today or, once that is past, tomorrow: as the reader's clock says it. */
function tonight(): string {
  const at = new Date();
  if (at.getHours() >= 22) at.setDate(at.getDate() + 1);
  const two = (n: number) => String(n).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T22:00`;
}

/** Whoever may not carry it out hands it in, with a word. */
function Propose({ work }: { work: RepairWork }) {
  const [note, setNote] = useState('');
  return (
    <form
      className="flex items-center gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void work.handIn(note);
      }}
    >
      <TextInput
        aria-label="A word for the coordinator"
        placeholder="A word for the coordinator"
        value={note}
        maxLength={2000}
        onChange={(e) => setNote(e.target.value)}
        className="w-56"
      />
      <Button type="submit" variant="main" disabled={!work.isReady}>
        Propose it
      </Button>
    </form>
  );
}

/** @param named - references that documents of other programs hold */
function Summary({ plan, named }: { plan: RepairPlan; named: number }) {
  if (plan.refused.length > 0)
    return (
      <p>
        <strong className="font-semibold">Nothing can be done yet.</strong>{' '}
        <span className="text-ink2">{plan.refused[0]}</span>
      </p>
    );
  return (
    <p>
      <strong className="font-semibold">{doneWords(plan)}</strong>{' '}
      <span className="text-ink2">{restWords(plan, named)}</span>
    </p>
  );
}

function doneWords({ counts, entries, documents, bytes }: RepairPlan): string {
  if (entries === 0) return 'Nothing is chosen yet.';
  const follow = documents.length === 0 ? '' : `, rewrites ${many(documents.length, 'document')}`;
  return `Puts ${many(counts.ready ?? 0, 'finding')} right: changes ${many(entries, 'file or folder', 'files and folders')} of ${size(bytes)}${follow}.`;
}

function restWords({ counts, byHand }: RepairPlan, named: number): string {
  const references = byHand.length + named;
  const open = (counts.ask ?? 0) + (counts.clash ?? 0);
  const rest = [
    ...(open > 0 ? [`${open} not answered yet stay as they are`] : []),
    ...(counts['by-hand'] ? [`${counts['by-hand']} are for a person`] : []),
    ...(counts.held ? [`${counts.held} wait until they are quiet`] : []),
    ...(references > 0 ? [`${many(references, 'reference')} to put right by hand`] : []),
  ];
  const words = rest.length === 0 ? '' : `${rest.join('; ').replace(/^./, (c) => c.toUpperCase())}. `;
  return `${words}All of it can be undone.`;
}
