/**
 * Batches between database and disk. They share no transaction: the row says what is meant before the first step, the
 * journal in the project's folder
 * what was done; the project's row follows when the disk is done. What a crash cut short is settled at the next boot by
 * what really is on the disk.
 */

import type { BatchPage, BatchRow, Me, ProjectShape } from '@nesting/contract';
import { type BatchOutcome, type Change, isShown } from '@nesting/core/change';
import { hindranceWords } from '@nesting/core/words';
import { type Contents, DiskError, type Where } from '@nesting/disk';
import { sqlFault, transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import {
  batchesOf,
  endBatch,
  insertBatch,
  insertBatchRoots,
  readBatchRow,
  removeBatch,
  type StoredBatch,
} from '../../db/queries/projects/batches';
import { readProject, writeShape } from '../../db/queries/projects/projects';
import { untilAskerLeaves } from '../../http/request-context';
import { checkProject } from '../checks/check-project';
import { claimNumber, freeNumber, renumber } from '../house/numbers';
import { reached, whereOf } from '../place';
import { Refused, type World } from '../world';
import { othersOf, rootsOf, whereOfRoots } from './batch-roots';

type Project = NonNullable<Awaited<ReturnType<typeof readProject>>>;

export interface ToRun {
  readonly id: string;
  readonly project: Project;
  readonly where: Where;
  readonly what: string;
  readonly person: Me;
  readonly undoes: string | null;
  readonly from: ProjectShape;
  readonly to: ProjectShape;
  readonly changes: readonly Change[];
  /** New contents by their key. */
  readonly contents: Contents;
}

/** Batches that run in this process: how far they are, and how they are stopped. */
const running = new Map<string, { done: number; all: number; readonly stop: AbortController }>();

export const stopBatch = (id: string): boolean => {
  running.get(id)?.stop.abort();
  return running.has(id);
};

const OPEN_WORDS =
  'Another change of this project is under way, or stopped half way. Nothing was changed; look at its changes.';

/** Under the batch's lease, which `lost` tells the end of. */
export async function runBatch(world: World, run: ToRun, lost: AbortSignal): Promise<void> {
  const { id, project, what, person, undoes, from, to, changes } = run;
  await claim(world, run);
  const outcome = await carriedOut(world, run, lost);
  if (outcome.state === 'refused') {
    await unclaim(world, id, from, to);
    throw stale(outcome.faults);
  }
  const shown = changes.filter(isShown).length;
  if (outcome.state === 'paused') {
    const why = hindranceWords(outcome.code, outcome.at.path);
    await endBatch(world.db, id, 'paused', shown, why);
    throw new Refused(
      409,
      'batch-paused',
      `${why} ${outcome.done} of ${changes.length} steps are done; finish the change, or take it back.`,
    );
  }
  await conclude(world, { id, project: project.id, what, from, to, person: person.id, undoes, shown }, project.volume);
}

/** On the disk, while this process can be asked how far it is, and told to stop. */
async function carriedOut(world: World, run: ToRun, lost: AbortSignal): Promise<BatchOutcome> {
  const { id, where, what, person, undoes, changes, contents } = run;
  const others = whereOfRoots(world, rootsOf(run.project, changes));
  const at = { done: 0, all: changes.length, stop: new AbortController() };
  running.set(id, at);
  try {
    return await world.disks.run(
      'applyBatch',
      { where, others, id, what, by: person.name, at: new Date().toISOString(), undoes, changes, contents },
      { signal: at.stop.signal, lost, told: (progress) => void Object.assign(at, progress) },
    );
  } catch (error) {
    throw lost.aborted ? error : await refusalAfter(world, run, error);
  } finally {
    running.delete(id);
  }
}

/** What became of a batch whose outcome is not known. */
async function refusalAfter(world: World, run: ToRun, error: unknown): Promise<unknown> {
  const { id, where, from, to } = run;
  const code = error instanceof DiskError ? error.code : '';
  if (code === 'BATCH-OPEN') {
    await unclaim(world, id, from, to);
    return new Refused(409, 'batch-open', OPEN_WORDS);
  }
  // Where the folder cannot be reached nobody knows how far it came: it is looked at when the volume is there again.
  const begun = await world.disks.run('hasBegun', { where, id }).catch(() => true);
  if (!begun) {
    // What was laid ready goes, and the way is free.
    const others = whereOfRoots(world, rootsOf(run.project, run.changes));
    // The process that was at it has ended.
    const taking = { by: '', at: new Date().toISOString(), lockMs: 0 };
    await world.disks.run('settleBatch', { where, others, id, way: 'take-back', ...taking });
    await unclaim(world, id, from, to);
    return new Refused(409, 'not-begun', `The change could not begin (${code}). Nothing was changed.`);
  }
  await endBatch(world.db, id, 'paused', null, 'It was cut short, or the project’s folder could not be reached.');
  return new Refused(
    409,
    'batch-paused',
    `The project’s folder cannot be reached any more (${code}). Once it is there again, finish the change or take it back.`,
  );
}

function stale(faults: Extract<BatchOutcome, { state: 'refused' }>['faults']): Refused {
  const [fault] = faults;
  const more = faults.length > 1 ? ` And ${faults.length - 1} more.` : '';
  const code = fault !== undefined && 'detail' in fault ? (fault.detail ?? fault.code) : (fault?.code ?? '');
  return new Refused(409, 'plan-stale', `${hindranceWords(code, fault?.at.path ?? '')}${more} Nothing was changed.`);
}

/** The row is there before anything is touched; another number is the project's from then on. */
async function claim(world: World, { id, project, what, person, undoes, from, to, changes }: ToRun): Promise<void> {
  try {
    await transaction(world.db, async (client) => {
      await insertBatch(client, { id, project: project.id, what, person: person.id, undoes, from, to });
      await insertBatchRoots(client, id, rootsOf(project, changes));
      const number = String(to.values.number);
      if (number !== String(from.values.number)) await claimNumber(client, person.id, number, to.folder, project.id);
    });
  } catch (error) {
    const constraint = sqlFault(error)?.constraint;
    if (constraint === 'batch_open_once') throw new Refused(409, 'batch-open', OPEN_WORDS);
    if (constraint === 'batch_pkey')
      throw new Refused(409, 'key-used', 'This key was used for another change. Nothing was changed.');
    throw error;
  }
}

export async function unclaim(world: World, id: string, from: ProjectShape, to: ProjectShape): Promise<void> {
  await transaction(world.db, async (client) => {
    await removeBatch(client, id);
    if (String(from.values.number) !== String(to.values.number))
      await freeNumber(client, String(to.values.number), 'its change came to nothing');
  });
}

interface ToConclude {
  readonly id: string;
  readonly project: string;
  readonly what: string;
  readonly from: ProjectShape;
  readonly to: ProjectShape;
  readonly person: string | null;
  readonly undoes: string | null;
  readonly shown: number;
}

/** The disk is done: the project's folder takes its name, and its row its shape. */
export async function conclude(
  world: World,
  { id, project, what, from, to, person, undoes, shown }: ToConclude,
  volume: string,
): Promise<void> {
  const hindered = from.folder === to.folder ? null : await renameFolder(world, volume, from.folder, to.folder);
  if (hindered !== null) {
    await endBatch(world.db, id, 'paused', shown, hindered);
    throw new Refused(
      409,
      'batch-paused',
      `${hindered} All else is done; finish the change once the way is free, or take it back.`,
    );
  }
  await transaction(world.db, async (client) => {
    await writeShape(client, project, to);
    const [was, now] = [String(from.values.number), String(to.values.number)];
    if (was !== now) await renumber(client, { project, person, volume, folder: from.folder, was, now });
    await endBatch(client, id, 'done', shown);
    await recordActivity(
      client,
      undoes === null ? 'project-reshaped' : 'batch-undone',
      person,
      project,
      {
        what,
        changes: shown,
        batch: id,
        ...(from.folder !== to.folder && { folder: `${from.folder} → ${to.folder}` }),
      },
      `project:${project}`,
    );
  });
  await checkProject(world, project, person);
}

/** Why not, or `null`. What has the name already is done. */
async function renameFolder(world: World, volume: string, from: string, to: string): Promise<string | null> {
  const where = whereOf(world, { volume, folder: '' });
  if (where === null) return hindranceWords('ENOENT', from);
  const renamed = await world.disks.run('renameFolder', { where, from, to });
  return renamed === 'done' || renamed === 'already' ? null : hindranceWords(renamed.code, renamed.path);
}

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

export async function listBatches(world: World, project: string): Promise<BatchRow[]> {
  return (await batchesOf(world.db, project, 200)).map(({ from: _from, to: _to, project: _project, ...row }) => ({
    ...row,
    ...(running.has(row.id) && { done: running.get(row.id)?.done ?? 0, all: running.get(row.id)?.all ?? 0 }),
  }));
}

export async function found(world: World, project: string, id: string): Promise<{ batch: StoredBatch; row: Project }> {
  const [batch, row] = [await readBatchRow(world.db, project, id), await readProject(world.db, project)];
  if (batch === null || row === null) throw new Refused(404, 'not-found', 'There is no such change.');
  return { batch, row };
}

/** Line by line, with what hinders undoing each. */
export async function readBatchPage(world: World, project: string, id: string): Promise<BatchPage> {
  const { batch, row } = await found(world, project, id);
  const { from, to, project: _project, ...rest } = batch;
  const folder = from.folder === to.folder ? null : { from: from.folder, to: to.folder };
  const where = await whereOfBatch(world, row.volume, batch);
  const journal =
    where === null
      ? null
      : await world.disks.run('journalPage', { where, others: await othersOf(world, id), id }, untilAskerLeaves());
  if (journal === null)
    return {
      ...rest,
      folder,
      lines: [],
      unread:
        batch.state === 'running'
          ? null
          : where === null
            ? 'The project’s folder cannot be reached: its lines stand in the journal there.'
            : 'The journal of this change is not in the project’s folder any more.',
    };
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
  return { ...rest, folder, lines, unread: null };
}
