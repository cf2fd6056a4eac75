import type { Me } from '@nesting/contract';
import { isShown, type Rest } from '@nesting/core/change';
import { projectFolderChange } from '@nesting/core/planners';
import { hindranceWords } from '@nesting/core/words';
import { DiskError, type Where } from '@nesting/disk';
import { transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import { endBatch, readBatchRow, runningBatches, type StoredBatch } from '../../db/queries/projects/batches';
import { readProject } from '../../db/queries/projects/projects';
import { checkProject } from '../checks/check-project';
import { freeNumber } from '../house/numbers';
import { isThere, stateOfVolume } from '../house/volumes';
import { takeUp, underLease } from '../once';
import { Refused, type World } from '../world';
import { othersOf } from './batch-roots';
import { conclude, found, unclaim, whereOfBatch } from './batches';

/** Somebody settles it at the command line. */
function underWay(error: unknown): never {
  if (!isAtWork(error)) throw error;
  throw new Refused(409, 'under-way', 'Somebody is at this change just now, at the command line of a machine.');
}

const isAtWork = (error: unknown): boolean => error instanceof DiskError && error.code === 'BATCH-OPEN';

type SettleWay = 'finish' | 'take-back' | 'close';

export async function settleBatch(world: World, me: Me, project: string, id: string, way: SettleWay): Promise<void> {
  const { batch, row } = await found(world, project, id);
  if (batch.state !== 'paused')
    throw new Refused(409, 'batch-not-paused', 'This change is not stopped half way. Nothing was changed.');
  const settled = await underLease(world, id, async () => {
    // Somebody else may have settled it before this one's turn came.
    const { batch: now } = await found(world, project, id);
    if (now.state !== 'paused')
      throw new Refused(409, 'batch-not-paused', 'Somebody settled this change just now. Nothing was changed.');
    return settle(world, now, row.volume, way, me.id).catch(underWay);
  });
  if (settled !== null) throw new Refused(409, 'batch-paused', settled);
}

/** What stands in the way, or `null` where it is settled. */
async function settle(
  world: World,
  batch: StoredBatch,
  volume: string,
  way: SettleWay,
  person: string | null,
): Promise<string | null> {
  const where = await whereOfBatch(world, volume, batch);
  if (where === null) return 'The project’s folder cannot be reached.';
  const { settled, journal } = await world.disks.run('settleBatch', {
    where,
    others: await othersOf(world, batch.id),
    id: batch.id,
    way,
    by: person ?? '',
    at: new Date().toISOString(),
    lockMs: lockMsOf(world),
  });
  if (settled?.state === 'paused') {
    const why = hindranceWords(settled.code, settled.at.path);
    await endBatch(world.db, batch.id, 'paused', null, why);
    return why;
  }
  // What was closed on the disk before a crash is closed here now.
  const rest = settled?.state === 'closed' ? settled.rest : (journal?.rest ?? null);
  if (rest !== null) {
    await closed(world, batch, rest, person);
    return null;
  }
  if (settled?.state === 'not-begun' || journal === null) {
    await unclaim(world, batch.id, batch.from, batch.to);
    return null;
  }
  if (journal.isTakenBack) {
    await takenBack(world, batch);
    await recordActivity(
      world.db,
      'batch-taken-back',
      person,
      batch.project,
      { batch: batch.id },
      `project:${batch.project}`,
    );
    return null;
  }
  // All of it is on the disk, and only the folder's name or the row is not.
  if (way === 'take-back') return undoWhole(world, batch, where);
  try {
    const shown = journal.changes.filter(isShown).length;
    // Whoever closes it leaves the folder the name it has.
    const to = way === 'close' ? { ...batch.to, folder: batch.from.folder } : batch.to;
    await conclude(world, { ...batch, to, person, shown }, volume);
    return null;
  } catch (error) {
    if (error instanceof Refused) return error.message;
    throw error;
  }
}

/**
 * Whoever was at it renewed the lock on the disk at least until it last renewed the lease: where that is over, so is
 * the lock. Somebody at the command line renews the lock alone.
 */
const lockMsOf = ({ config }: World): number => config.leaseMs / 2;

async function closed(
  world: World,
  { id, project, from, to }: StoredBatch,
  rest: readonly Rest[],
  person: string | null,
): Promise<void> {
  const [first] = rest;
  const why = first === undefined ? '' : hindranceWords(first.code, first.at.path);
  await transaction(world.db, async (client) => {
    await endBatch(client, id, 'closed', null, why);
    if (String(from.values.number) !== String(to.values.number))
      await freeNumber(client, String(to.values.number), 'its change was closed');
    await recordActivity(
      client,
      'batch-closed',
      person,
      project,
      { batch: id, left: rest.length },
      `project:${project}`,
    );
  });
  await checkProject(world, project, person);
}

async function undoWhole(world: World, batch: StoredBatch, where: Where): Promise<string | null> {
  const others = await othersOf(world, batch.id);
  const lines = (await world.disks.run('planUndo', { where, others, id: batch.id })) ?? [];
  const isRenamed = where.folder === batch.to.folder && batch.to.folder !== batch.from.folder;
  const renamed = isRenamed && others.length > 0 ? [projectFolderChange(batch.to.folder, batch.from.folder)] : [];
  const outcome = await world.disks.run('applyBatch', {
    where,
    others,
    id: `${batch.id}-back`,
    what: 'take-back',
    by: '',
    at: new Date().toISOString(),
    undoes: batch.id,
    changes: [...lines.map((l) => l.change), ...renamed],
    contents: new Map(),
  });
  if (outcome.state === 'paused') {
    // Whole or not at all: what was taken back of it is done again.
    const id = `${batch.id}-back`;
    const restore = { where, others, id, by: '', at: new Date().toISOString(), lockMs: lockMsOf(world) };
    const { settled } = await world.disks.run('settleBatch', { ...restore, way: 'take-back' });
    if (settled?.state === 'paused') await world.disks.run('settleBatch', { ...restore, way: 'close' });
    return hindranceWords(outcome.code, outcome.at.path);
  }
  if (outcome.state === 'refused')
    return hindranceWords(outcome.faults[0]?.code ?? '', outcome.faults[0]?.at.path ?? '');
  await takenBack(world, batch);
  return null;
}

async function takenBack(world: World, { id, from, to }: StoredBatch): Promise<void> {
  await transaction(world.db, async (client) => {
    await endBatch(client, id, 'taken-back', null);
    if (String(from.values.number) !== String(to.values.number))
      await freeNumber(client, String(to.values.number), 'its change was taken back');
  });
}

/** What became of a batch that was asked for by the same key; `null` where nothing is there of it. */
export async function askedBefore(
  world: World,
  project: string,
  key: string,
): Promise<{ readonly batch: string } | null> {
  const [batch, row] = [await readBatchRow(world.db, project, key), await readProject(world.db, project)];
  if (batch === null || row === null) return null;
  if (batch.state === 'running') {
    await underLease(world, key, () => settleLeft(world, batch));
    return askedBefore(world, project, key);
  }
  if (batch.state === 'paused') throw new Refused(409, 'batch-paused', batch.why);
  if (batch.state === 'taken-back' || batch.state === 'closed')
    throw new Refused(409, 'taken-back', 'This change was begun and taken back. Nothing of it is left.');
  return { batch: key };
}

/** Batches that nobody is at any more are finished; where that is hindered, they wait for a person. */
export async function settleBatches(world: World): Promise<void> {
  for (const batch of await runningBatches(world.db)) {
    await takeUp(world, batch.id, () => settleLeft(world, batch));
  }
}

async function settleLeft(world: World, listed: StoredBatch): Promise<void> {
  const batch = await readBatchRow(world.db, listed.project, listed.id);
  // It may have ended between the list and the lease.
  if (batch?.state !== 'running') return;
  const row = await readProject(world.db, batch.project);
  // A volume that is away tells nothing: it waits.
  const why =
    row === null || !isThere(await stateOfVolume(world, row.volume))
      ? 'The volume was away when this was to be settled.'
      : await settle(world, batch, row.volume, 'finish', null).catch(refusedByDisk);
  if (why === AT_WORK) return;
  if (why !== null) await endBatch(world.db, batch.id, 'paused', null, why);
}

/** It is looked at again later. */
const AT_WORK = Symbol('somebody is at it');

/** One folder that cannot be worked in keeps no server from starting. */
function refusedByDisk(error: unknown): string | typeof AT_WORK {
  if (isAtWork(error)) return AT_WORK;
  if (error instanceof DiskError) return hindranceWords(error.code, error.path);
  throw error;
}
