/** The ledger's sentence about a project's checks: under way, cut short, done; and what came and went with the last. */

import type { CheckRow, ChecksOfProject } from '@nesting/contract';
import { useEffect } from 'react';
import { api, troubleOf } from '../../app/api';
import { useAppDispatch } from '../../app/store';
import { ago, count, many } from '../../app/words';
import { Button, Refused } from '../../ui';
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

interface Props {
  readonly checks: ChecksOfProject;
  readonly trouble: string | null;
  readonly mayCheck: boolean;
}

export function CheckLine({ checks: { newest, done }, trouble, mayCheck }: Props) {
  if (trouble !== null) return <Refused className="flex-1" words={trouble} />;
  // A quick look while the page is open is no event: what it finds is.
  if (newest && isOpen(newest) && newest.what === 'whole') return <UnderWay check={newest} mayCheck={mayCheck} />;
  if (newest?.state === 'cancelled') return <Stopped check={newest} mayCheck={mayCheck} />;
  const failed = newest?.state === 'failed' ? newest.said[0] : undefined;
  if (failed)
    return (
      <p className="flex-1 text-brick" role="status">
        {failed}
      </p>
    );
  if (done === null) return <p className="flex-1 text-ink2">This project was never checked.</p>;
  return (
    <div className="flex min-w-0 flex-1 items-center gap-3">
      <strong className="font-semibold whitespace-nowrap">Checked {ago(done.endedAt ?? done.startedAt)}.</strong>
      <Counts counts={done.counts} />
      <span className="truncate text-ink2" title={done.said.join('\n')}>
        {outcomeWords(done)}
      </span>
    </div>
  );
}

interface CheckProps {
  readonly check: NonNullable<ChecksOfProject['newest']>;
  readonly mayCheck: boolean;
}

function UnderWay({ check, mayCheck }: CheckProps) {
  const [stop, stopping] = checksApi.useStopCheckMutation();
  if (stopping.isError) return <Refused className="flex-1" words={troubleOf(stopping.error)} />;
  const stage =
    check.stage === 'reading'
      ? 'Looking into files.'
      : check.state === 'queued'
        ? 'Waiting for its turn.'
        : 'Checking.';
  return (
    <p className="flex flex-1 items-center gap-3" role="status">
      <span className="flex-1">
        <strong className="font-semibold">{stage}</strong>{' '}
        <span className="text-ink2">
          {many(check.files, 'file')} in {many(check.folders, 'folder')} so far. You may leave this page; it goes on.
        </span>
      </span>
      {mayCheck && (
        <Button disabled={stopping.isLoading} onClick={() => void stop(check.id)}>
          Stop
        </Button>
      )}
    </p>
  );
}

function Stopped({ check, mayCheck }: CheckProps) {
  const [goOn, going] = checksApi.useGoOnCheckMutation();
  if (going.isError) return <Refused className="flex-1" words={troubleOf(going.error)} />;
  return (
    <p className="flex flex-1 items-center gap-3" role="status">
      <span className="flex-1">
        The check was stopped after {many(check.files, 'file')}.{' '}
        <span className="text-ink2">The findings of the one before still stand.</span>
      </span>
      {mayCheck && check.canGoOn && (
        <Button disabled={going.isLoading} onClick={() => void goOn(check.id)}>
          Go on with it
        </Button>
      )}
    </p>
  );
}

function outcomeWords({ said, appeared, solved }: NonNullable<ChecksOfProject['done']>): string {
  if (said.length > 0) return `${many(said.length, 'place')} could not be seen: ${said[0]}`;
  const changes = [
    ...(appeared > 0 ? [`${count(appeared)} new`] : []),
    ...(solved > 0 ? [`${count(solved)} solved`] : []),
  ];
  return changes.length > 0 ? `${changes.join(', ')}.` : 'A check changes nothing on the disk.';
}
