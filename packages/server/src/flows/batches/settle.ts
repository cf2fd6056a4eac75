/** A batch that is on a disk is settled by what the disk says: after a crash, or as somebody decided. */
import type { SettleWay } from '@nesting/contract';
import type { Rest } from '@nesting/core/change';
import { projectFolderChange } from '@nesting/core/planners';
import { type Told, told } from '@nesting/core/words';
import { DiskError, type Where } from '@nesting/disk';
import { transaction } from '../../db/client';
import { endBatch, type StoredBatch } from '../../db/queries/batches/batches';
import { recordActivity } from '../../db/queries/house/activity';
import { readProject } from '../../db/queries/projects/projects';
import { checkChanged } from '../checks/check-project';
import { freeNumber } from '../house/numbers';
import { isThere, stateOfVolume } from '../house/volumes';
import type { World } from '../world';
import { whereOfBatch } from './batch-page';
import { unclaim } from './carry-out';
import { conclude } from './conclude';
import { othersOf } from './roots';

/**
 * Under its lease. Where it cannot be settled it waits for a person; where somebody is at it at the command line, it is
 * looked at again later.
 */
export async function settleLeft(world: World, batch: StoredBatch): Promise<'settled' | 'at-work'> {
  const pause = (because: Told) => endBatch(world.db, batch.id, { state: 'paused', changes: null, because });
  const row = await readProject(world.db, batch.project);
  // A volume that is away tells nothing: it waits.
  if (row === null || !isThere(await stateOfVolume(world, row.volume))) {
    await pause(told('volume-was-away'));
    return 'settled';
  }
  try {
    const because = await settle(world, batch, row.volume);
    if (because !== null) await pause(because);
    return 'settled';
  } catch (error) {
    if (!(error instanceof DiskError)) throw error;
    const isAtWork = error.code === 'BATCH-OPEN';
    if (isAtWork && batch.job.settling === null) return 'at-work';
    // One folder that cannot be worked in keeps nobody from working.
    await pause(isAtWork ? told('at-command-line') : hindered(error.code, error.path));
    return 'settled';
  }
}

const hindered = (system: string, path: string): Told => told('hindered', { system, path });

/** What stands in the way, or `null` where nothing is left to be said: its row tells what became of it. */
async function settle(world: World, batch: StoredBatch, volume: string): Promise<Told | null> {
  const way: SettleWay = batch.job.settling?.way ?? 'finish';
  const person = batch.job.settling?.person ?? null;
  const where = await whereOfBatch(world, volume, batch);
  if (where === null) return told('folder-lost', { system: '' });
  const { settled, journal } = await world.disks.run('settleBatch', {
    where,
    others: await othersOf(world, batch.id),
    id: batch.id,
    way,
    by: person ?? '',
    at: new Date().toISOString(),
    lockMs: lockMsOf(world),
  });
  if (settled?.state === 'paused') return hindered(settled.code, settled.at.path);
  // What was closed on the disk before a crash is closed here now.
  const rest = settled?.state === 'closed' ? settled.rest : (journal?.rest ?? null);
  if (rest !== null) {
    await closed(world, batch, rest, person);
    return null;
  }
  if (settled?.state === 'not-begun' || journal === null) {
    await unclaim(world, batch);
    return null;
  }
  if (journal.isTakenBack) {
    await takenBack(world, batch);
    const { id, project } = batch;
    await recordActivity(world.db, 'batch-taken-back', person, project, { batch: id }, `project:${project}`);
    return null;
  }
  // All of it is on the disk, and only the folder's name or the row is not.
  if (way === 'take-back') return undoWhole(world, batch, where);
  // Whoever closes it leaves the folder the name it has.
  const to = way === 'close' ? { ...batch.to, folder: batch.from.folder } : batch.to;
  await conclude(world, { ...batch, to, person: person ?? batch.person, changes: journal.changes }, volume);
  return null;
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
  const because = first === undefined ? null : hindered(first.code, first.at.path);
  await transaction(world.db, async (client) => {
    await endBatch(client, id, { state: 'closed', changes: null, because });
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
  await checkChanged(world, project, person);
}

async function undoWhole(world: World, batch: StoredBatch, where: Where): Promise<Told | null> {
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
    return hindered(outcome.code, outcome.at.path);
  }
  if (outcome.state === 'refused') return hindered(outcome.faults[0]?.code ?? '', outcome.faults[0]?.at.path ?? '');
  await takenBack(world, batch);
  return null;
}

async function takenBack(world: World, { id, from, to }: StoredBatch): Promise<void> {
  await transaction(world.db, async (client) => {
    await endBatch(client, id, { state: 'taken-back', changes: null });
    if (String(from.values.number) !== String(to.values.number))
      await freeNumber(client, String(to.values.number), 'its change was taken back');
  });
}
