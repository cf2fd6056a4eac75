/** What is shown of a project's batches. */
import type { BatchPage, BatchRow } from '@nesting/contract';
import { isShown } from '@nesting/core/change';
import { broughtCsv, checksumLines } from '@nesting/core/report';
import { hindranceWords } from '@nesting/core/words';
import type { Where } from '@nesting/disk';
import { batchesOf, readBatchRow, type StoredBatch } from '../../db/queries/batches/batches';
import { readProject } from '../../db/queries/projects/projects';
import { untilAskerLeaves } from '../../request-context';
import { reached } from '../place';
import { Refused, type World } from '../world';
import type { Project } from './prepared';
import { othersOf } from './roots';

/** Where a project's folder is while a batch may have renamed it. */
export async function whereOfBatch(
  world: World,
  volume: string,
  { from, to }: Pick<StoredBatch, 'from' | 'to'>,
): Promise<Where | null> {
  return (
    (await reached(world, { volume, folder: from.folder })) ?? (await reached(world, { volume, folder: to.folder }))
  );
}

const MOST_BATCHES = 200;

export const listBatches = async (world: World, project: string): Promise<BatchRow[]> =>
  (await batchesOf(world.db, project, MOST_BATCHES)).map(shownOf);

const shownOf = ({ from: _from, to: _to, project: _project, job, ...row }: StoredBatch): BatchRow => ({
  ...row,
  source: job.asked?.kind === 'carry' && job.asked.asked.revision === null ? job.asked.asked.source : null,
  heap: job.asked?.kind === 'intake' ? { volume: job.asked.asked.volume, folder: job.asked.asked.folder } : null,
});

export async function found(world: World, project: string, id: string): Promise<{ batch: StoredBatch; row: Project }> {
  const [batch, row] = [await readBatchRow(world.db, project, id), await readProject(world.db, project)];
  if (batch === null || row === null) throw new Refused('no-change');
  return { batch, row };
}

/** Line by line, with what hinders undoing each. */
export async function readBatchPage(world: World, project: string, id: string): Promise<BatchPage> {
  const { batch, row } = await found(world, project, id);
  const { from, to } = batch;
  const folder = from.folder === to.folder ? null : { from: from.folder, to: to.folder };
  const where = await whereOfBatch(world, row.volume, batch);
  const journal =
    where === null
      ? null
      : await world.disks.run(
          'journalPage',
          { where, others: await othersOf(world, id), id, withUndo: true },
          untilAskerLeaves(),
        );
  if (journal === null) return { ...shownOf(batch), folder, lines: [], unread: unreadWords(batch, where) };
  const hindered = new Map(
    (batch.state === 'done' ? (journal.undo ?? []) : []).map((l) => [
      l.change.id,
      l.hindrance === null
        ? null
        : hindranceWords(
            l.hindrance.code === 'unseen' && 'detail' in l.hindrance ? (l.hindrance.detail ?? '') : l.hindrance.code,
            l.hindrance.at.path,
          ),
    ]),
  );
  const stayed = new Map(journal.rest.map(({ id: line, at, code }) => [line, hindranceWords(code, at.path)]));
  const isBack = (line: string) =>
    batch.state === 'taken-back' || (batch.state === 'closed' && !stayed.has(line)) || journal.undone.has(line);
  const lines = journal.changes.filter(isShown).map((change) => ({
    change,
    undone: isBack(change.id),
    hindrance: hindered.get(change.id) ?? stayed.get(change.id) ?? null,
  }));
  return { ...shownOf(batch), folder, lines, unread: null };
}

/** What it copied, to be kept elsewhere. */
export async function printBatch(world: World, project: string, id: string, as: 'checksums' | 'names') {
  const { batch, row } = await found(world, project, id);
  const where = await whereOfBatch(world, row.volume, batch);
  const others = await othersOf(world, id);
  const journal =
    where === null
      ? null
      : await world.disks.run('journalPage', { where, others, id, withUndo: false }, untilAskerLeaves());
  if (journal === null) throw new Refused('no-journal');
  const { changes, proved } = journal;
  return as === 'names'
    ? { name: `${row.number}-names.csv`, type: 'text/csv', body: broughtCsv(changes, proved) }
    : { name: `${row.number}.sha256`, type: 'text/plain', body: checksumLines(changes, proved) };
}

/** Why a batch without a journal shows no lines; `null` where there are none to be shown. */
function unreadWords({ state, sweptAt }: StoredBatch, where: Where | null): string | null {
  if (state === 'running' || state === 'refused') return null;
  if (sweptAt !== null)
    return 'It was done so long ago that its journal and what it kept were cleared away. It cannot be undone any more.';
  return where === null
    ? 'The project’s folder cannot be reached: its lines stand in the journal there.'
    : 'The journal of this change is not in the project’s folder any more.';
}
