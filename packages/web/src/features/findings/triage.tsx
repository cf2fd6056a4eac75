/**
 * What one does about findings without touching a disk: accept them for a reason, give them to somebody, say something
 * of them.
 */
import type { KeptFinding } from '@nesting/contract';
import type { Person } from '@nesting/core/name';
import { troubleOf } from '../../app/api';
import { ago, day, many } from '../../app/words';
import { Button, Refused } from '../../ui';
import { AcceptForm, GiveForm, NoteForm } from './triage-forms';
import type { Triage } from './use-triage';

export function TriagePanel({ triage, people }: { triage: Triage; people: readonly Person[] }) {
  const { findings, form, may } = triage;
  const [first] = findings;
  if (!may.note || first === undefined) return null;
  const ids = findings.map((f) => f.id).join();
  return (
    <div className="flex flex-col gap-3 border-b border-line pb-4">
      {findings.length > 1 && (
        <p className="text-sm font-semibold text-plum">{many(findings.length, 'finding')} selected</p>
      )}
      <Acts triage={triage} />
      <Refused words={triage.error ? troubleOf(triage.error) : null} />
      {form === 'accept' && <AcceptForm triage={triage} />}
      {form === 'give' && <GiveForm triage={triage} people={people} />}
      {form === 'note' && <NoteForm key={ids} triage={triage} />}
      {form === null && findings.length === 1 && <Said finding={first} />}
    </div>
  );
}

function Acts({ triage }: { triage: Triage }) {
  const { form, may } = triage;
  const toggle = (which: NonNullable<typeof form>) => ({
    'aria-expanded': form === which,
    onClick: () => (form === which ? triage.close() : triage.open(which)),
  });
  return (
    <div className="flex flex-wrap gap-2">
      {may.accept && !triage.areAccepted && <Button {...toggle('accept')}>Accept…</Button>}
      {may.accept && triage.areAccepted && <Button onClick={() => void triage.countAgain()}>Let it count again</Button>}
      {may.accept ? (
        <Button {...toggle('give')}>Give to…</Button>
      ) : (
        <Button onClick={() => void triage.takeOrReturn()}>{triage.areMine ? 'Give back' : 'I’ll do it'}</Button>
      )}
      <Button {...toggle('note')}>Note…</Button>
    </div>
  );
}

function Said({ finding }: { finding: KeptFinding }) {
  const { accepted, note, to, given } = finding;
  if (accepted === null && note === '' && to === null) return null;
  return (
    <div className="flex flex-col gap-1 text-sm">
      {accepted && (
        <p>
          Accepted by <span className="font-mono">{accepted.by}</span> {ago(accepted.at)}
          {untilWords(accepted)}: “{accepted.reason}”
        </p>
      )}
      {to !== null && (
        <p>
          {given ? 'Given to ' : 'By its name: '}
          <span className="font-mono text-plum">{to}</span>
        </p>
      )}
      {note !== '' && <p className="whitespace-pre-wrap">{note}</p>}
    </div>
  );
}

function untilWords({ baseline, until }: NonNullable<KeptFinding['accepted']>): string {
  if (baseline) return ', as it was found; it counts once it is touched';
  return until === null ? ', without an end' : `, until ${day(until)}`;
}
