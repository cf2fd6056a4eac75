import type { Me } from '@nesting/contract';
import { hindranceWords } from '@nesting/core/words';
import { applyOnDisk, openIn, readBatch, settleOnDisk, undoPlan, volumeState } from '@nesting/disk';
import { transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import { endBatch, runningBatches, type StoredBatch } from '../../db/queries/projects/batches';
import { readProject } from '../../db/queries/projects/projects';
import { freeNumber } from '../house/numbers';
import { volumeRoot } from '../place';
import { Refused, type World } from '../world';
import { conclude, found, rootOf, unclaim } from './batches';
import { isOwnChange } from './project-rules';

export async function settleBatch(
  world: World,
  me: Me,
  project: string,
  id: string,
  way: 'finish' | 'take-back',
): Promise<void> {
  const { batch, row } = await found(world, project, id);
  if (batch.state !== 'paused')
    throw new Refused(409, 'batch-not-paused', 'This change is not stopped half way. Nothing was changed.');
  const settled = await settle(world, batch, row.volume, way, me.id);
  if (settled !== null) throw new Refused(409, 'batch-paused', settled);
}

/** What stands in the way, or `null` where it is settled. */
async function settle(
  world: World,
  batch: StoredBatch,
  volume: string,
  way: 'finish' | 'take-back',
  person: string | null,
): Promise<string | null> {
  const root = rootOf(world, volume, batch);
  if (root === null) return 'The project’s folder cannot be reached.';
  const isOpen = openIn(root) === batch.id;
  const settled = isOpen ? await settleOnDisk(root, way, { by: person ?? '', at: new Date().toISOString() }) : null;
  if (settled?.state === 'paused') {
    const why = hindranceWords(settled.code, settled.at);
    await endBatch(world.db, batch.id, 'paused', null, why);
    return why;
  }
  const record = readBatch(root, batch.id);
  if (settled?.state === 'not-begun' || record === null) {
    await unclaim(world, batch.id, batch.from, batch.to);
    return null;
  }
  if (record.ended?.ended === 'taken-back') {
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
  if (way === 'take-back') return undoWhole(world, batch, root);
  try {
    const shown = record.intents.changes.filter((c) => !isOwnChange(c)).length;
    await conclude(world, { ...batch, person, shown }, volume);
    return null;
  } catch (error) {
    if (error instanceof Refused) return error.message;
    throw error;
  }
}

async function undoWhole(world: World, batch: StoredBatch, root: string): Promise<string | null> {
  const lines = (await undoPlan(root, batch.id)) ?? [];
  const outcome = await applyOnDisk({
    root,
    id: `${batch.id}-back`,
    what: 'take-back',
    by: '',
    at: new Date().toISOString(),
    undoes: batch.id,
    changes: lines.map((l) => l.change),
    bytesOf: () => new Uint8Array(),
  });
  if (outcome.state !== 'done')
    return outcome.state === 'paused'
      ? hindranceWords(outcome.code, outcome.at)
      : hindranceWords(outcome.faults[0]?.code ?? '', outcome.faults[0]?.path ?? '');
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

/** At the server's start: batches a crash cut short are finished; where that is hindered, they wait for a person. */
export async function settleBatches(world: World): Promise<void> {
  for (const batch of await runningBatches(world.db)) {
    const row = await readProject(world.db, batch.project);
    const root = row === null ? undefined : volumeRoot(world, row.volume);
    // A volume that is away tells nothing: it waits.
    const why =
      row === null || root === undefined || volumeState(root).state === 'missing'
        ? 'The volume was away when the server started again.'
        : await settle(world, batch, row.volume, 'finish', null);
    if (why !== null) await endBatch(world.db, batch.id, 'paused', null, why);
  }
}
