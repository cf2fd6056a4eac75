/** The foot of the page: what the whole plan does, and the one button that does it. */
import { many, size } from '../../app/words';
import { Button, Menu } from '../../ui';
import type { CarryWork } from './carry-work';

export function CarryLedger({ work, act }: { work: CarryWork; act: string }) {
  const { plan, trouble, hindrance, isReady, isCarrying, carryOut, save } = work;
  return (
    <>
      <div className="min-w-0 flex-1" aria-live="polite">
        {isCarrying ? (
          <p role="status">
            <strong className="font-semibold">Making it…</strong>{' '}
            <span className="text-ink2">You may leave this page; it goes on.</span>
          </p>
        ) : trouble !== null ? (
          <p className="text-brick">{trouble}</p>
        ) : plan === undefined ? (
          <p className="text-ink2">{hindrance === null ? 'Looking at the disk…' : 'Nothing can be done yet.'}</p>
        ) : (
          <Summary plan={plan} />
        )}
      </div>
      {plan !== undefined && plan.files > 0 && (
        <Menu
          trigger={<Button>Save the plan…</Button>}
          lines={[
            { words: 'As a text', run: () => void save('text') },
            { words: 'As a table (CSV)', run: () => void save('csv') },
            { words: 'As JSON', run: () => void save('json') },
          ]}
        />
      )}
      <Button variant="main" disabled={!isReady} onClick={() => void carryOut()}>
        {isCarrying ? 'Carrying over…' : act}
      </Button>
    </>
  );
}

function Summary({ plan }: { plan: NonNullable<CarryWork['plan']> }) {
  const [refused] = plan.refused;
  if (refused !== undefined)
    return (
      <p>
        <strong className="font-semibold">Nothing can be done yet.</strong> <span className="text-ink2">{refused}</span>
      </p>
    );
  return (
    <p>
      <strong className="font-semibold">{doneWords(plan)}</strong> <span className="text-ink2">{restWords(plan)}</span>
    </p>
  );
}

function doneWords({ files, bytes, made, into, totals }: NonNullable<CarryWork['plan']>): string {
  if (files === 0) return 'Nothing comes along yet.';
  const begun = made === 0 ? '' : `Makes ${many(made, 'entry', 'folders and files')}, `;
  const rewritten = totals.documents === 0 ? '' : `, rewrites ${many(totals.documents, 'document')}`;
  return `${begun}${begun === '' ? 'Copies' : 'copies'} ${many(files, 'file')} of ${size(bytes)} to ${into.folder}${rewritten}.`;
}

function restWords({ hindered, totals, now }: NonNullable<CarryWork['plan']>): string {
  const rest = [
    ...(hindered > 0 ? [`${hindered} cannot come so`] : []),
    ...(totals.needed > 0 ? [`${many(totals.needed, 'reference')} would lead to what stays behind`] : []),
    ...(totals.byHand > 0 ? [`${many(totals.byHand, 'reference')} to put right by hand`] : []),
  ];
  const words = rest.length === 0 ? '' : `${rest.join('; ').replace(/^./, (c) => c.toUpperCase())}. `;
  return `${words}${now === null ? 'The old project is only read.' : 'What is there stays as it is.'}`;
}
