/** The foot of the page: how the selected package is, and what can be done with it. */
import type { Me, PackageRow } from '@nesting/contract';
import { troubleOf } from '../../app/api';
import { count, many, size } from '../../app/words';
import { Button, Confirm } from '../../ui';
import { isUnderWay, stateWords } from './package-words';
import { packagesApi } from './packages-api';

export function PackageLedger({ row, me }: { row: PackageRow; me: Me }) {
  const [stop, stopping] = packagesApi.useStopPackageMutation();
  const [goOn, going] = packagesApi.useGoOnPackageMutation();
  const [drop, dropping] = packagesApi.useDropPackageMutation();
  const [prove, proving] = packagesApi.useProvePackageMutation();
  const failed = stopping.error ?? going.error ?? dropping.error ?? proving.error;
  const mayAct = me.role === 'coordinator';
  const isHalf = row.state === 'waits' || row.state === 'stopped' || row.state === 'failed';
  return (
    <>
      <p className="min-w-0 flex-1" aria-live="polite">
        {failed !== undefined ? (
          <span className="text-brick">{troubleOf(failed)}</span>
        ) : (
          <>
            <strong className="font-semibold">{footWords(row)}</strong>{' '}
            <span className="text-ink2">{isUnderWay(row) ? 'You may leave this page; it goes on.' : ''}</span>
          </>
        )}
      </p>
      {mayAct && isUnderWay(row) && <Button onClick={() => void stop(row.id)}>Stop</Button>}
      {mayAct && isHalf && (
        <Confirm
          trigger={<Button>Take it back…</Button>}
          title="Take this package back"
          act="Take it back"
          run={() => void drop(row.id)}
        >
          What was written of it is removed. The project stays as it is.
        </Confirm>
      )}
      {mayAct && row.state === 'waits' && (
        <Button onClick={() => void goOn({ id: row.id, mayLeaveOut: true })}>
          Pack without {row.notPacked.length === 1 ? 'it' : 'them'}
        </Button>
      )}
      {mayAct && isHalf && (
        <Button variant="main" onClick={() => void goOn({ id: row.id, mayLeaveOut: false })}>
          {row.state === 'waits' ? 'Try again' : 'Go on'}
        </Button>
      )}
      {row.state === 'done' && me.role !== 'lead' && (
        <Button variant="main" disabled={row.act !== null} onClick={() => void prove(row.id)}>
          {row.act === 'prove' ? 'Being read…' : 'Read it again'}
        </Button>
      )}
    </>
  );
}

function footWords(row: PackageRow): string {
  switch (row.state) {
    case 'waits':
      return `${count(row.notPacked.length)} could not be read. The rest is packed and waits.`;
    case 'stopped':
      return 'Stopped. What is written waits.';
    case 'failed':
      return 'It could not be finished.';
    case 'done':
      return `${row.number} is packed: ${many(row.files, 'file')} of ${size(row.bytes)}.`;
    default:
      return `The package ${stateWords(row)}.`;
  }
}
