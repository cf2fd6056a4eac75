/** The foot of the page: what is brought, and the one button that does it. */
import { many, size } from '../../app/words';
import { Button, Menu } from '../../ui';
import type { IntakeWork } from './intake-work';

export function IntakeLedger({ work }: { work: IntakeWork }) {
  const { plan, trouble, isReading, isReady, isBringing, carryOut, save } = work;
  return (
    <>
      <div className="min-w-0 flex-1" aria-live="polite">
        {isBringing ? (
          <p role="status">
            <strong className="font-semibold">Bringing them in…</strong>{' '}
            <span className="text-ink2">You may leave this page; it goes on.</span>
          </p>
        ) : trouble !== null ? (
          <p className="text-brick">{trouble}</p>
        ) : plan === undefined ? (
          <p className="text-ink2">{isReading ? 'Looking through the files…' : 'Looking at the disk…'}</p>
        ) : (
          <Summary work={work} plan={plan} />
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
        {isBringing ? 'Bringing them in…' : actWords(plan)}
      </Button>
    </>
  );
}

export const actWords = (plan: IntakeWork['plan']): string =>
  plan === undefined || plan.files === 0 ? 'Bring files in' : `Bring ${many(plan.files, 'file')} in`;

interface SummaryProps {
  readonly work: IntakeWork;
  readonly plan: NonNullable<IntakeWork['plan']>;
}

function Summary({ work: { project, said }, plan }: SummaryProps) {
  const [refused] = plan.refused;
  if (refused !== undefined)
    return (
      <p>
        <strong className="font-semibold">Nothing can be done yet.</strong> <span className="text-ink2">{refused}</span>
      </p>
    );
  const { files, bytes, counts, hindered, entries } = plan;
  const added = entries.length === 0 ? '' : `Adds ${[...new Set(entries.map((e) => e.entry))].join(', ')}, `;
  const verb = said.isMove ? 'moves' : 'copies';
  const does =
    files === 0
      ? 'Nothing comes in yet.'
      : `${added}${verb} ${many(files, 'file')} of ${size(bytes)} to ${project.folder}.`;
  const left = [
    ...(counts.orphan > 0 ? [`${counts.orphan} without a place`] : []),
    ...(counts.look > 0 ? [`${counts.look} to look at`] : []),
    ...(hindered > 0 ? [`${hindered} cannot come so`] : []),
  ].join('; ');
  return (
    <p>
      <strong className="font-semibold">{does.replace(/^./, (c) => c.toUpperCase())}</strong>{' '}
      <span className="text-ink2">
        {left === '' ? '' : `${left.replace(/^./, (c) => c.toUpperCase())}. `}
        {said.isMove ? 'What stays is left as it is.' : 'The originals are only read; each copy is proved by its hash.'}
      </span>
    </p>
  );
}
