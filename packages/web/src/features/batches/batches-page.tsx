/**
 * What was done to a project's folder, batch by batch and line by line; undone whole or in part, finished or taken back
 * where it stopped half way.
 */

import type { BatchPage, BatchRow, Me, ProjectPage } from '@nesting/contract';
import { HOME, isSamePlace } from '@nesting/core/change';
import { batchWords, changeLine, placeWords } from '@nesting/core/words';
import { useEffect, useMemo, useState } from 'react';
import { Link, useOutletContext, useParams } from 'react-router';
import { troubleOf } from '../../app/api';
import { fetchFor } from '../../app/endpoints';
import { useReaderPath } from '../../app/reader-path';
import { useAppDispatch } from '../../app/store';
import { useAddress } from '../../app/use-address';
import { usePageTitle } from '../../app/use-page-title';
import { moment } from '../../app/words';
import { saveReply } from '../../changes/save-plan';
import { Columns } from '../../columns/columns';
import { Button, CopyButton, Empty, Heading, Trouble } from '../../ui';
import { RelinkList } from '../carry-over/relink-list';
import { HeapCopies } from '../intake/heap-copies';
import { projectsApi } from '../projects/projects-api';
import { ChangeList, type ListedChange } from '../reshape/change-list';
import { BatchLedger } from './batch-ledger';
import { BatchList, STATE_WORDS } from './batch-list';
import { BATCH_TAGS, changesApi } from './changes-api';

const NONE: ReadonlySet<string> = new Set();

/** Changes that take files to other places, or to other names. */
const MOVING: ReadonlySet<string> = new Set(['repair', 'change', 'adopt']);

/** Milliseconds between two looks while one is under way, and while none is. */
const [SOON, LATER] = [700, 5000];

/** What a batch that ends here changed is read again, on whatever page it is shown. */
function useBatchRows(id: string) {
  const dispatch = useAppDispatch();
  const [isRunning, setRunning] = useState(false);
  const { data: rows, ...rest } = changesApi.useBatchesQuery(id, { pollingInterval: isRunning ? SOON : LATER });
  const now = rows?.some((b) => b.state === 'running') ?? false;
  useEffect(() => {
    setRunning(now);
    if (isRunning && !now) dispatch(changesApi.util.invalidateTags([...BATCH_TAGS]));
  }, [now]);
  return { rows, ...rest };
}

export function BatchesPage() {
  const { id = '' } = useParams();
  const me = useOutletContext<Me>();
  const [params, put] = useAddress();
  const project = projectsApi.useProjectQuery(id);
  const { rows, isError, error, refetch } = useBatchRows(id);
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
      <h1 className="text-xl font-semibold">Changes of {project.data.title || project.data.folder}</h1>
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
      // What was read of it before it ended says nothing any more.
      page={page.currentData?.state === batch.state ? page.currentData : null}
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
  const selected = page?.lines.find((l) => l.change.id === line) ?? page?.lines[0] ?? null;
  const mayAct = me.role === 'coordinator' || (me.role === 'artist' && batch.person === me.id);
  const isOpen = mayAct && batch.state === 'done';
  const toggle = (key: string) =>
    setChosen(chosen.has(key) ? new Set([...chosen].filter((k) => k !== key)) : new Set([...chosen, key]));
  return (
    <Columns
      id="batches"
      labels={['History of changes', 'Lines of this change', 'The selected line']}
      given={
        <div className="flex flex-col gap-4">
          {head}
          <BatchList rows={rows} chosen={batch.id} onBatch={onBatch} />
          {batch.state === 'done' && batch.heap !== null && me.role === 'coordinator' && (
            <HeapCopies key={batch.id} project={id} place={batch.heap} />
          )}
          {batch.state === 'done' && (batch.what === 'intake' || batch.what === 'carry') && (
            <WhatCame project={id} batch={batch.id} />
          )}
          {batch.state === 'done' && (batch.source !== null || MOVING.has(batch.what)) && (
            <RelinkList key={batch.id} project={id} batch={batch.id} isCarriedOver={batch.source !== null} />
          )}
        </div>
      }
      plan={
        <BatchLines
          batch={batch}
          page={page}
          trouble={trouble}
          selected={selected?.change.id ?? null}
          onSelect={onLine}
          {...(isOpen && { chosen, onChoose: toggle })}
        />
      }
      consequence={selected && <SelectedLine batch={batch} line={selected} path={pathOf(selected.change, wholePath)} />}
      ledger={
        <BatchLedger
          project={id}
          batch={batch}
          lines={page?.lines ?? null}
          chosen={chosen}
          mayAct={mayAct}
          onBatch={onBatch}
        />
      }
    />
  );
}

function listed({ change, undone, hindrance }: BatchPage['lines'][number], isClosed: boolean): ListedChange {
  const { id, entry, before, after, content } = change;
  const sign = undone
    ? 'undone'
    : after === null
      ? 'taken-back'
      : before === null
        ? 'made'
        : isSamePlace(before, after)
          ? 'rewritten'
          : content === null
            ? 'renamed'
            : 'rewritten';
  return {
    key: id,
    what: entry,
    before: before && placeWords(before),
    after: after && placeWords(after),
    sign,
    count: 1,
    note: hindrance === null || undone ? undefined : isClosed ? 'stayed' : 'cannot be undone now',
  };
}

/** What files were called before, and proof of what they are. */
function WhatCame({ project, batch }: { project: string; batch: string }) {
  const save = async (as: 'names' | 'checksums') =>
    saveReply(await fetchFor('writeBatch', { id: project, batch, query: { as } }));
  return (
    <div className="flex flex-wrap gap-2">
      <Button onClick={() => void save('names')}>Save the names (CSV)</Button>
      <Button onClick={() => void save('checksums')}>Save checksums</Button>
    </div>
  );
}

/** The whole path of what a line is about, as the reader's system has it where it lies in the project. */
function pathOf({ before, after }: BatchPage['lines'][number]['change'], wholePath: (path: string) => string): string {
  const place = after ?? before;
  if (place === null) return '';
  return place.root === HOME ? wholePath(place.path) : placeWords(place);
}

interface SelectedProps {
  readonly batch: BatchRow;
  readonly line: BatchPage['lines'][number];
  readonly path: string;
}

function SelectedLine({ batch, line, path }: SelectedProps) {
  return (
    <div className="flex flex-col gap-3 text-sm">
      <Heading>Selected</Heading>
      <div className="flex items-start gap-1 rounded-tray border border-line bg-sheet p-2">
        <span className="min-w-0 flex-1 font-mono break-all">{changeLine(line.change)}</span>
        <CopyButton text={path} what="the path" />
      </div>
      <p className="text-ink2">
        {line.undone
          ? 'This line was undone.'
          : line.hindrance !== null
            ? `${batch.state === 'closed' ? 'It stayed as it is' : 'It cannot be undone now'}: ${line.hindrance}`
            : batch.state === 'done'
              ? 'It can be undone: what was made is taken back only where nobody changed it since, and what was renamed gets its name back.'
              : `This change is ${STATE_WORDS[batch.state]}.`}
      </p>
    </div>
  );
}

interface LinesProps {
  readonly batch: BatchRow;
  readonly page: BatchPage | null;
  readonly trouble: string | null;
  readonly selected: string | null;
  readonly onSelect: (key: string) => void;
  readonly chosen?: ReadonlySet<string>;
  readonly onChoose?: (key: string) => void;
}

function BatchLines({ batch, page, trouble, ...list }: LinesProps) {
  const lines = useMemo(() => (page?.lines ?? []).map((line) => listed(line, page?.state === 'closed')), [page]);
  return (
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
      ) : batch.state === 'running' && lines.length === 0 ? (
        <Empty title={batch.all === 0 ? 'It is being prepared' : 'It is being carried out'}>
          Its lines are shown here when it has ended.
        </Empty>
      ) : batch.state === 'refused' ? (
        <Empty title="Nothing was changed">{batch.why}</Empty>
      ) : page === null ? (
        <p className="text-ink2">Its lines are being read…</p>
      ) : page.unread !== null ? (
        <Empty title="Its lines cannot be shown">{page.unread}</Empty>
      ) : lines.length === 0 ? (
        <Empty title="Nothing changed on the disk">Only the project’s rules did.</Empty>
      ) : (
        <ChangeList label="Lines of this change" lines={lines} {...list} />
      )}
    </>
  );
}
