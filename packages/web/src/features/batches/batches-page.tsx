/**
 * What was done to a project's folder, batch by batch and line by line; undone whole or in part, finished or taken back
 * where it stopped half way.
 */

import type { BatchPage, BatchRow, Me, ProjectPage } from '@nesting/contract';
import { batchWords, changeLine } from '@nesting/core/words';
import { useMemo, useState } from 'react';
import { Link, useOutletContext, useParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { useReaderPath } from '../../app/reader-path';
import { useAddress } from '../../app/use-address';
import { usePageTitle } from '../../app/use-page-title';
import { ago, many, moment } from '../../app/words';
import { Columns } from '../../columns/columns';
import { Button, Confirm, CopyButton, Empty, Heading, Trouble } from '../../ui';
import { projectsApi } from '../projects/projects-api';
import { ChangeList, type ListedChange } from '../reshape/change-list';
import { changesApi } from './changes-api';

const STATE_WORDS: Readonly<Record<BatchRow['state'], string>> = {
  running: 'under way',
  paused: 'stopped half way',
  done: 'done',
  'taken-back': 'taken back',
};
const NONE: ReadonlySet<string> = new Set();

export function BatchesPage() {
  const { id = '' } = useParams();
  const me = useOutletContext<Me>();
  const [params, put] = useAddress();
  const project = projectsApi.useProjectQuery(id);
  const { data: rows, isError, error, refetch } = changesApi.useBatchesQuery(id, { pollingInterval: 5000 });
  const batch = rows?.find((b) => b.id === params.get('batch')) ?? rows?.[0];
  const page = changesApi.useBatchQuery(
    { project: id, batch: batch?.id ?? '' },
    { skip: batch === undefined, refetchOnMountOrArgChange: true },
  );
  if (isError || project.isError)
    return <Trouble message={troubleOf(error ?? project.error)} again={() => void refetch()} />;
  if (rows === undefined || project.data === undefined) return null;
  const head = (
    <div>
      <p className="font-mono text-sm">
        <Link to={`/projects/${id}`} className="text-plum hover:underline">
          {project.data.number}
        </Link>
      </p>
      <h1 className="text-xl font-semibold">Batches of {project.data.title || project.data.folder}</h1>
    </div>
  );
  if (batch === undefined)
    return (
      <div className="px-8 py-6">
        {head}
        <Empty title="Nothing was done to it yet">
          <Link to={`/projects/${id}/change`} className="text-bottle underline">
            Grow or change it
          </Link>
          : every change is kept here, line by line, and can be undone.
        </Empty>
      </div>
    );
  return (
    <Shown
      key={batch.id}
      me={me}
      id={id}
      head={head}
      rows={rows}
      batch={batch}
      page={page.currentData ?? null}
      trouble={page.isError ? troubleOf(page.error) : null}
      line={params.get('line')}
      project={project.data}
      onBatch={(b) => put({ batch: b, line: null })}
      onLine={(line) => put({ line })}
    />
  );
}

interface Props {
  readonly me: Me;
  readonly id: string;
  readonly head: React.ReactNode;
  readonly rows: readonly BatchRow[];
  readonly batch: BatchRow;
  readonly page: BatchPage | null;
  readonly trouble: string | null;
  readonly line: string | null;
  readonly project: ProjectPage;
  readonly onBatch: (id: string) => void;
  readonly onLine: (key: string) => void;
}

function Shown({ me, id, head, rows, batch, page, trouble, line, project, onBatch, onLine }: Props) {
  const wholePath = useReaderPath(project);
  usePageTitle(`History of ${project.number} ${project.title}`);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(NONE);
  const lines = useMemo(() => (page?.lines ?? []).map(listed), [page]);
  const selected = page?.lines.find((l) => l.change.key === line) ?? page?.lines[0] ?? null;
  const [undo, undoing] = changesApi.useUndoBatchMutation();
  const [settle, settling] = changesApi.useSettleBatchMutation();
  const [stop] = changesApi.useStopBatchMutation();
  const left = (page?.lines ?? []).filter((l) => !l.undone);
  const can = left.filter((l) => l.hindrance === null);
  const keys = [...chosen].filter((k) => can.some((l) => l.change.key === k));
  const isHead = me.role === 'coordinator';
  const toggle = (key: string) =>
    setChosen(chosen.has(key) ? new Set([...chosen].filter((k) => k !== key)) : new Set([...chosen, key]));
  const run = async (which: readonly string[] | null) => {
    const done = await undo({ project: id, batch: batch.id, keys: which })
      .unwrap()
      .catch(() => null);
    if (done !== null) onBatch(done.batch);
  };
  const fault = undoing.error ?? settling.error;
  return (
    <Columns
      id="batches"
      labels={['The project’s batches', 'Lines of this batch', 'The selected line']}
      given={
        <div className="flex flex-col gap-4">
          {head}
          <ul aria-label="Batches" className="flex flex-col gap-1">
            {rows.map((b) => (
              <li key={b.id}>
                <button
                  type="button"
                  aria-pressed={b.id === batch.id}
                  onClick={() => onBatch(b.id)}
                  className={`w-full rounded-tray px-2 py-1.5 text-left text-sm ${b.id === batch.id ? 'bg-chosen ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`}
                >
                  <span className="flex justify-between gap-2">
                    <strong className="font-semibold">{batchWords(b.what)}</strong>
                    <span className={b.state === 'paused' ? 'font-semibold text-brick' : 'text-ink2'}>
                      {b.state === 'done' ? many(b.changes, 'change') : STATE_WORDS[b.state]}
                    </span>
                  </span>
                  <span className="block text-xs text-ink2" title={moment(b.at)}>
                    {b.by}, {ago(b.at)}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </div>
      }
      plan={
        <>
          <div className="flex items-baseline gap-3 pb-2">
            <Heading>
              {batchWords(batch.what)}, {moment(batch.at)}
            </Heading>
            {page?.folder && (
              <span className="truncate font-mono text-xs text-ink2">
                {page.folder.from} → {page.folder.to}
              </span>
            )}
          </div>
          {trouble ? (
            <Trouble message={trouble} />
          ) : page === null ? null : page.unread !== null ? (
            <Empty title="Its lines cannot be shown">{page.unread}</Empty>
          ) : lines.length === 0 ? (
            <Empty title="Nothing changed on the disk">Only the project’s rules did.</Empty>
          ) : (
            <ChangeList
              label="Lines of this batch"
              lines={lines}
              selected={selected?.change.key ?? null}
              onSelect={onLine}
              {...(isHead && batch.state === 'done' && { chosen, onChoose: toggle })}
            />
          )}
        </>
      }
      consequence={
        selected && (
          <div className="flex flex-col gap-3 text-sm">
            <Heading>Selected</Heading>
            <div className="flex items-start gap-1 rounded-tray border border-line bg-sheet p-2">
              <span className="min-w-0 flex-1 font-mono break-all">{changeLine(selected.change)}</span>
              <CopyButton text={wholePath(selected.change.after ?? selected.change.before ?? '')} what="the path" />
            </div>
            <p className="text-ink2">
              {selected.undone
                ? 'This line was undone.'
                : selected.hindrance !== null
                  ? `It cannot be undone now: ${selected.hindrance}`
                  : batch.state === 'done'
                    ? 'It can be undone: what was made is taken back only where nobody changed it since, and what was renamed gets its name back.'
                    : `This batch is ${STATE_WORDS[batch.state]}.`}
            </p>
          </div>
        )
      }
      ledger={
        <>
          <div className="min-w-0 flex-1" aria-live="polite">
            {fault ? (
              <p className="text-brick">{troubleOf(fault)}</p>
            ) : (
              <Words batch={batch} left={left.length} can={can.length} chosen={keys.length} />
            )}
          </div>
          {batch.state === 'running' && batch.all > 0 && (
            <Button onClick={() => void stop({ project: id, batch: batch.id })}>Stop it</Button>
          )}
          {isHead && batch.state === 'paused' && (
            <>
              <Button
                disabled={settling.isLoading}
                onClick={() => void settle({ project: id, batch: batch.id, way: 'take-back' })}
              >
                Take it back
              </Button>
              <Button
                look="main"
                disabled={settling.isLoading}
                onClick={() => void settle({ project: id, batch: batch.id, way: 'finish' })}
              >
                Finish it
              </Button>
            </>
          )}
          {isHead && batch.state === 'done' && left.length > 0 && keys.length > 0 && (
            <Button disabled={undoing.isLoading} onClick={() => void run(keys)}>
              Undo the {keys.length} chosen
            </Button>
          )}
          {isHead && batch.state === 'done' && (left.length > 0 || lines.length === 0) && (
            <Confirm
              title="Undo this batch"
              act="Undo it"
              run={() => void run(can.length < left.length ? can.map((l) => l.change.key) : null)}
              trigger={
                <Button look="main" disabled={undoing.isLoading || (lines.length > 0 && can.length === 0)}>
                  {undoing.isLoading
                    ? 'Undoing…'
                    : can.length < left.length
                      ? `Undo the ${can.length} that can be`
                      : 'Undo it'}
                </Button>
              }
            >
              {many(can.length, 'line')} {can.length === 1 ? 'goes' : 'go'} back to what{' '}
              {can.length === 1 ? 'it was' : 'they were'}
              {can.length < left.length ? `; ${left.length - can.length} cannot be undone now and stay` : ''}. This is a
              batch of its own, and can be undone in its turn.
            </Confirm>
          )}
        </>
      }
    />
  );
}

function listed({ change, undone, hindrance }: BatchPage['lines'][number]): ListedChange {
  const { key, what, before, after, content } = change;
  const sign = undone
    ? 'undone'
    : after === null
      ? 'taken-back'
      : before === null
        ? 'made'
        : before === after
          ? 'rewritten'
          : content === null
            ? 'renamed'
            : 'rewritten';
  return {
    key,
    what,
    before,
    after,
    sign,
    count: 1,
    note: hindrance !== null && !undone ? 'cannot be undone now' : undefined,
  };
}

function Words({ batch, left, can, chosen }: { batch: BatchRow; left: number; can: number; chosen: number }) {
  if (batch.state === 'running')
    return (
      <p role="status">
        <strong className="font-semibold">Under way.</strong>{' '}
        <span className="text-ink2">
          {batch.all > 0 ? `${batch.done} of ${batch.all} steps. ` : ''}You may leave this page; it goes on.
        </span>
      </p>
    );
  if (batch.state === 'paused')
    return (
      <p>
        <strong className="font-semibold text-brick">Stopped half way.</strong>{' '}
        <span className="text-ink2">{batch.why} Finish it once the way is free, or take it back whole.</span>
      </p>
    );
  if (batch.state === 'taken-back')
    return (
      <p>
        <strong className="font-semibold">Taken back.</strong>{' '}
        <span className="text-ink2">Everything is as it was before it.</span>
      </p>
    );
  if (left === 0)
    return (
      <p>
        <strong className="font-semibold">Done{batch.changes > 0 ? ', and undone since' : ''}.</strong>
      </p>
    );
  return (
    <p>
      <strong className="font-semibold">
        {many(left, 'line')} can {can < left ? 'in part ' : ''}be undone.
      </strong>{' '}
      <span className="text-ink2">
        {can < left ? `${left - can} not now: select one to see why. ` : ''}
        {chosen > 0 ? `${chosen} chosen.` : 'Space chooses single ones.'}
      </span>
    </p>
  );
}
