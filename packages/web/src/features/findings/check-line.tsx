/** The ledger's sentence about a project's checks: under way, cut short, done; and what came and went with the last. */

import type { CheckRow, ChecksOfProject } from '@nesting/contract';
import { useEffect } from 'react';
import { api, troubleOf } from '../../app/api';
import { useAppDispatch } from '../../app/store';
import { ago, many } from '../../app/words';
import { Button } from '../../ui';
import { checksApi } from '../checks/checks-api';
import { Counts } from '../projects/counts';

export const isOpen = (check: CheckRow | null): boolean => check?.state === 'queued' || check?.state === 'running';

/** Milliseconds between two looks at a folder while its page is before somebody's eyes. */
const LOOK = 5000;

/**
 * Asked again quickly while a check runs, and now and then otherwise; lists follow when one is done, and while the page
 * is seen the disk is looked at.
 */
export function useChecks(project: string, live: boolean): ChecksOfProject | undefined {
  const dispatch = useAppDispatch();
  const quiet = checksApi.useChecksQuery(project, { pollingInterval: 20_000, skipPollingIfUnfocused: true });
  const running = isOpen(quiet.data?.newest ?? null);
  checksApi.useChecksQuery(project, { pollingInterval: 400, skip: !running });
  const [look] = checksApi.useLookAtMutation();
  const done = quiet.data?.done?.id;
  const refetch = quiet.refetch;
  useEffect(() => {
    if (done !== undefined) dispatch(api.util.invalidateTags(['projects', 'findings']));
  }, [done, dispatch]);
  useEffect(() => {
    if (!live || done === undefined) return;
    const timer = setInterval(() => {
      if (document.visibilityState !== 'visible') return;
      void look(project).then((answer) => {
        if (answer.data?.check != null) void refetch();
      });
    }, LOOK);
    return () => clearInterval(timer);
  }, [live, done === undefined, project, look, refetch]);
  return quiet.data;
}

export function CheckLine({
  checks: { newest, done },
  trouble,
  mayCheck,
}: {
  checks: ChecksOfProject;
  trouble: string | null;
  mayCheck: boolean;
}) {
  const [stop, stopping] = checksApi.useStopCheckMutation();
  const [goOn, going] = checksApi.useGoOnCheckMutation();
  const said =
    trouble ?? (stopping.isError ? troubleOf(stopping.error) : going.isError ? troubleOf(going.error) : null);
  if (said)
    return (
      <p role="alert" className="flex-1 text-brick">
        {said}
      </p>
    );
  // A quick look while the page is open is no event: what it finds is.
  if (newest && isOpen(newest) && newest.what === 'whole') {
    return (
      <p className="flex flex-1 items-center gap-3" role="status">
        <span className="flex-1">
          <strong className="font-semibold">
            {newest.stage === 'reading'
              ? 'Looking into files.'
              : newest.state === 'queued'
                ? 'Waiting for its turn.'
                : 'Checking.'}
          </strong>{' '}
          <span className="text-ink2">
            {many(newest.files, 'file')} in {many(newest.folders, 'folder')} so far. You may leave this page; it goes
            on.
          </span>
        </span>
        {mayCheck && (
          <Button disabled={stopping.isLoading} onClick={() => void stop(newest.id)}>
            Stop
          </Button>
        )}
      </p>
    );
  }
  if (newest?.state === 'cancelled') {
    return (
      <p className="flex flex-1 items-center gap-3" role="status">
        <span className="flex-1">
          The check was stopped after {many(newest.files, 'file')}.{' '}
          <span className="text-ink2">The findings of the one before still stand.</span>
        </span>
        {mayCheck && newest.canGoOn && (
          <Button disabled={going.isLoading} onClick={() => void goOn(newest.id)}>
            Go on with it
          </Button>
        )}
      </p>
    );
  }
  const failed = newest?.state === 'failed' ? newest.said[0] : undefined;
  if (failed)
    return (
      <p className="flex-1 text-brick" role="status">
        {failed}
      </p>
    );
  if (done === null) return <p className="flex-1 text-ink2">This project was never checked.</p>;
  const changes = [done.appeared > 0 ? `${done.appeared} new` : '', done.solved > 0 ? `${done.solved} solved` : '']
    .filter((w) => w !== '')
    .join(', ');
  return (
    <div className="flex min-w-0 flex-1 items-center gap-3">
      <strong className="font-semibold whitespace-nowrap">Checked {ago(done.endedAt ?? done.startedAt)}.</strong>
      <Counts counts={done.counts} />
      <span className="truncate text-ink2" title={done.said.join('\n')}>
        {done.said.length > 0
          ? `${many(done.said.length, 'place')} could not be seen: ${done.said[0]}`
          : changes !== ''
            ? `${changes}.`
            : 'A check changes nothing on the disk.'}
      </span>
    </div>
  );
}
