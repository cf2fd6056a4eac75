/**
 * Batches between database and disk. They share no transaction: the row says what is meant before the first step, the
 * journal in the project's folder
 * what was done; the project's row follows when the disk is done. What a crash cut short is settled at the next boot by
 * what really is on the disk.
 */

import { existsSync, renameSync } from 'node:fs';
import { join } from 'node:path';
import type { BatchPage, BatchRow, Me, ProjectShape } from '@nesting/contract';
import { type BatchOutcome, type Change, codeOf, type NewContent } from '@nesting/core/change';
import { hindranceWords } from '@nesting/core/words';
import { applyOnDisk, BatchOpen, openStale, readBatch, undoneKeys, undoPlan } from '@nesting/disk';
import { sqlFault, transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import {
  batchesOf,
  endBatch,
  insertBatch,
  readBatchRow,
  removeBatch,
  type StoredBatch,
} from '../../db/queries/projects/batches';
import { readProject, writeShape } from '../../db/queries/projects/projects';
import { checkProject } from '../checks/check-project';
import { claimNumber, freeNumber } from '../house/numbers';
import { folderAt, volumeRoot } from '../place';
import { Refused, type World } from '../world';
import { isOwnChange } from './project-rules';

type Project = NonNullable<Awaited<ReturnType<typeof readProject>>>;

export interface ToRun {
  readonly id: string;
  readonly project: Project;
  readonly root: string;
  readonly what: string;
  readonly person: Me;
  readonly undoes: string | null;
  readonly from: ProjectShape;
  readonly to: ProjectShape;
  readonly changes: readonly Change[];
  readonly bytesOf: (content: NewContent) => Uint8Array;
}

/** Batches that run in this process: how far they are, and how they are stopped. */
const running = new Map<string, { done: number; all: number; readonly stop: AbortController }>();

export const stopBatch = (id: string): boolean => {
  running.get(id)?.stop.abort();
  return running.has(id);
};

const OPEN_WORDS =
  'Another change of this project is under way, or stopped half way. Nothing was changed; look at its changes.';

export async function runBatch(world: World, run: ToRun): Promise<void> {
  const { id, project, root, what, person, undoes, from, to, changes, bytesOf } = run;
  await claim(world, run);
  const at = { done: 0, all: changes.length, stop: new AbortController() };
  running.set(id, at);
  const work = () =>
    applyOnDisk({
      root,
      id,
      what,
      by: person.name,
      at: new Date().toISOString(),
      undoes,
      changes,
      bytesOf,
      cancel: at.stop.signal,
      progress: (done, all) => Object.assign(at, { done, all }),
    });
  let outcome: BatchOutcome;
  try {
    outcome = await work().catch((error: unknown) => {
      // The row says that nobody else is at it: what lies there open is left from long ago.
      if (error instanceof BatchOpen && openStale(root, Date.now())) return work();
      throw error;
    });
  } catch (error) {
    if (error instanceof BatchOpen) {
      await giveUp(world, run, true);
      throw new Refused(409, 'batch-open', OPEN_WORDS);
    }
    // Where the folder cannot be reached nobody knows how far it came: it is looked at when the volume is there again.
    await giveUp(world, run, existsSync(root) && readBatch(root, id) === null);
    throw error instanceof Refused
      ? error
      : new Refused(
          409,
          'batch-paused',
          `The project’s folder cannot be reached any more (${codeOf(error)}). Once it is there again, finish the change or take it back.`,
        );
  } finally {
    running.delete(id);
  }
  if (outcome.state === 'refused') {
    await giveUp(world, run, true);
    const [fault] = outcome.faults;
    const more = outcome.faults.length > 1 ? ` And ${outcome.faults.length - 1} more.` : '';
    throw new Refused(
      409,
      'plan-stale',
      `${hindranceWords(fault?.code === 'not-ready' || fault?.code === 'unseen' ? (fault.detail ?? fault.code) : (fault?.code ?? ''), fault?.path ?? '')}${more} Nothing was changed.`,
    );
  }
  const shown = changes.filter((c) => !isOwnChange(c)).length;
  if (outcome.state === 'paused') {
    const why = hindranceWords(outcome.code, outcome.at);
    await endBatch(world.db, id, 'paused', shown, why);
    throw new Refused(
      409,
      'batch-paused',
      `${why} ${outcome.done} of ${changes.length} steps are done; finish the change, or take it back.`,
    );
  }
  await conclude(world, { id, project: project.id, what, from, to, person: person.id, undoes, shown }, project.volume);
}

/** The row is there before anything is touched; another number is the project's from then on. */
async function claim(world: World, { id, project, what, person, undoes, from, to }: ToRun): Promise<void> {
  try {
    await transaction(world.db, async (client) => {
      await insertBatch(client, { id, project: project.id, what, person: person.id, undoes, from, to });
      const number = String(to.values.number);
      if (number !== String(from.values.number)) await claimNumber(client, person.id, number, to.folder);
    });
  } catch (error) {
    if (sqlFault(error)?.constraint === 'batch_open_once') throw new Refused(409, 'batch-open', OPEN_WORDS);
    throw error;
  }
}

async function giveUp(world: World, { id, from, to }: ToRun, begunNothing: boolean): Promise<void> {
  if (begunNothing) await unclaim(world, id, from, to);
  else await endBatch(world.db, id, 'paused', null, 'The project’s folder could not be reached any more.');
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
  const hindered = from.folder === to.folder ? null : renameFolder(world, volume, from.folder, to.folder);
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
    if (String(from.values.number) !== String(to.values.number))
      await freeNumber(client, String(from.values.number), `its project is ${String(to.values.number)} now`);
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
function renameFolder(world: World, volume: string, from: string, to: string): string | null {
  const source = folderAt(world, { volume, folder: from });
  const target = folderAt(world, { volume, folder: to });
  if (!source.ok && target.ok) return null;
  if (!source.ok) return hindranceWords('ENOENT', from);
  if (target.ok && from.toLowerCase() !== to.toLowerCase()) return hindranceWords('EEXIST', to);
  try {
    renameSync(source.value, join(volumeRoot(world, volume) ?? '', to));
    return null;
  } catch (error) {
    return hindranceWords(codeOf(error), to);
  }
}

/** Where a project's folder is while a batch may have renamed it. */
export function rootOf(world: World, volume: string, { from, to }: Pick<StoredBatch, 'from' | 'to'>): string | null {
  for (const { folder } of [from, to]) {
    const at = folderAt(world, { volume, folder });
    if (at.ok) return at.value;
  }
  return null;
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
  const root = rootOf(world, row.volume, batch);
  const record = root === null ? null : readBatch(root, id);
  if (root === null || record === null)
    return {
      ...rest,
      folder,
      lines: [],
      unread:
        batch.state === 'running'
          ? null
          : root === null
            ? 'The project’s folder cannot be reached: its lines stand in the journal there.'
            : 'The journal of this change is not in the project’s folder any more.',
    };
  const undone = undoneKeys(root, id);
  const plan = batch.state === 'done' ? await undoPlan(root, id) : null;
  const hindered = new Map(
    (plan ?? []).map((l) => [
      l.change.key,
      l.hindrance === null
        ? null
        : hindranceWords(
            l.hindrance.code === 'unseen' && 'detail' in l.hindrance ? (l.hindrance.detail ?? '') : l.hindrance.code,
            l.hindrance.path,
          ),
    ]),
  );
  const lines = record.intents.changes
    .filter((c) => !isOwnChange(c))
    .map((change) => ({
      change,
      undone: undone.has(change.key) || batch.state === 'taken-back',
      hindrance: hindered.get(change.key) ?? null,
    }));
  return { ...rest, folder, lines, unread: null };
}
