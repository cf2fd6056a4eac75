/** The foot of the page: what is brought, and the one button that does it. */
import type { HeapReading } from '@nesting/contract';
import { many, size } from '../../app/words';
import { PlanLedger, PlanSummary } from '../../changes/plan-ledger';
import { intakeApi } from './intake-api';
import type { IntakeWork } from './intake-work';

export function IntakeLedger({ work }: { work: IntakeWork }) {
  const { plan, trouble, isReading, isReady, isBringing, carryOut, save } = work;
  const asked = { id: work.project.id, query: work.place ?? NO_PLACE };
  const skip = !isReading || work.place === null;
  const { data: reading } = intakeApi.useHeapReadingQuery(asked, { skip, pollingInterval: 700 });
  return (
    <PlanLedger
      {...{ trouble, isReady, carryOut }}
      act={actWords(plan)}
      doing={isBringing ? 'Bringing them in…' : null}
      waiting={isReading ? (readingWords(reading) ?? 'Looking through the files…') : 'Looking at the disk…'}
      summary={
        plan && <PlanSummary refused={plan.refused[0]} does={doneWords(work, plan)} rest={restWords(work, plan)} />
      }
      save={plan !== undefined && plan.files > 0 ? save : undefined}
    />
  );
}

const NO_PLACE = { volume: '', folder: '' };

const readingWords = (reading: HeapReading | null | undefined): string | null =>
  reading == null
    ? null
    : `Looking through the files: ${many(reading.files, 'file')} of ${size(reading.bytes)} so far…`;

type Plan = NonNullable<IntakeWork['plan']>;

export const actWords = (plan: Plan | undefined): string =>
  plan === undefined || plan.files === 0 ? 'Bring files in' : `Bring ${many(plan.files, 'file')} in`;

export function doneWords(
  { project, said }: Pick<IntakeWork, 'project' | 'said'>,
  { files, bytes, entries, double }: Plan,
): string {
  if (files === 0) return 'Nothing comes in yet.';
  const added = entries.length === 0 ? '' : `adds ${[...new Set(entries.map((e) => e.entry))].join(', ')}, `;
  const words = `${added}${said.isMove ? 'moves' : 'copies'} ${many(files, 'file')} of ${size(bytes)} to ${project.folder}${double === null ? '' : `, and once more to ${double.volume}`}.`;
  return words.replace(/^./, (c) => c.toUpperCase());
}

export function restWords({ said }: Pick<IntakeWork, 'said'>, { counts, hindered }: Plan): string {
  const left = [
    ...(counts.orphan > 0 ? [`${counts.orphan} without a place`] : []),
    ...(counts.look > 0 ? [`${counts.look} to look at`] : []),
    ...(hindered > 0 ? [`${hindered} cannot come so`] : []),
  ].join('; ');
  const stays = said.isMove
    ? 'What stays is left as it is.'
    : 'The originals are only read; each copy is proved by its hash.';
  return left === '' ? stays : `${left.replace(/^./, (c) => c.toUpperCase())}. ${stays}`;
}
