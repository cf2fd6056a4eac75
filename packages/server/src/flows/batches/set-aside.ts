/** What batches keep so that they can be undone: how much it is, and the one act that ends it. */
import type { SetAsideRow } from '@nesting/contract';
import { DiskError } from '@nesting/disk';
import { transaction } from '../../db/client';
import { batchesKeeping, batchesSwept, setKept } from '../../db/queries/batches/sweeping';
import { recordActivity } from '../../db/queries/house/activity';
import { Refused, type World } from '../world';
import { batchOpen } from './ask-batch';
import { found, whereOfBatch } from './batch-page';
import { othersOf } from './roots';

export const listSetAside = (world: World): Promise<SetAsideRow[]> =>
  batchesKeeping(world.db, world.config.keepBatchesDays);

/** After a change: what it keeps, and what the one that it takes back keeps still. */
export async function noteKept(world: World, project: string, batch: string, undoes: string | null): Promise<void> {
  const { batch: stored, row } = await found(world, project, batch);
  const where = await whereOfBatch(world, row.volume, stored);
  if (where === null) return;
  // What undoing keeps is what it took back: nobody's own, and there again when it is done once more.
  const ids = [undoes ?? batch];
  const others = await othersOf(world, batch);
  try {
    await setKept(world.db, await world.disks.run('keptBy', { where, others, ids }));
  } catch (error) {
    // The change is done: a volume that went away a moment later only keeps its size from being told.
    if (!(error instanceof DiskError)) throw error;
  }
}

/** For good. Who does it has written the project's number. */
export async function freeSetAside(
  world: World,
  me: string,
  { id: project, batch: id }: { readonly id: string; readonly batch: string },
  number: string,
): Promise<void> {
  const { batch, row } = await found(world, project, id);
  if (number.trim() !== row.number) throw new Refused('number-other', { number: number.trim() });
  if (batch.state !== 'done' && batch.state !== 'closed') throw batchOpen();
  const where = await whereOfBatch(world, row.volume, batch);
  if (where === null) throw new Refused('path-missing', { path: row.folder });
  const others = await othersOf(world, id);
  const [kept] = await world.disks.run('keptBy', { where, others, ids: [id] });
  const freed = await world.disks.run('freeKept', { where, others, ids: [id] });
  if (freed.length === 0) throw batchOpen();
  await transaction(world.db, async (client) => {
    await batchesSwept(client, project, freed);
    const params = { files: kept?.files ?? 0, bytes: kept?.bytes ?? 0, batch: id };
    await recordActivity(client, 'space-freed', me, project, params, `project:${project}`);
  });
}
