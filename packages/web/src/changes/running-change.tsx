/** How far the change is that is being carried out. */
import { changesApi } from '../features/batches/changes-api';
import { Button } from '../ui';

export function RunningChange({ project }: { project: string }) {
  const { data: batches } = changesApi.useBatchesQuery(project, { pollingInterval: 500 });
  const [stop] = changesApi.useStopBatchMutation();
  const running = batches?.find((b) => b.state === 'running');
  return (
    <p role="status">
      <strong className="font-semibold">
        {running && running.all > 0 ? `${running.done} of ${running.all} steps done.` : 'Making it ready…'}
      </strong>{' '}
      <span className="text-ink2">You may leave this page; it goes on.</span>{' '}
      {running && (
        <Button variant="quiet" className="h-6!" onClick={() => void stop({ project, batch: running.id })}>
          Stop it
        </Button>
      )}
    </p>
  );
}
