/** Journals of batches that ended long ago are cleared away, a few projects at a time. */
import { DiskError } from '@nesting/disk';
import { batchesSwept, rootsOfProject, takeProjectsToSweep } from '../../db/queries/batches/sweeping';
import { reached } from '../place';
import type { World } from '../world';
import { whereOfRoots } from './roots';

const DAY_MS = 24 * 3600_000;
/** Projects that are looked at in one go: nobody waits for it. */
const AT_ONCE = 5;

/** A folder that cannot be worked in keeps no other from being swept. */
function none(error: unknown): string[] {
  if (error instanceof DiskError) return [];
  throw error;
}

/** @param now - milliseconds since 1970 */
export async function sweepBatches(world: World, now: number): Promise<void> {
  const { keepBatchesDays, worksBatches } = world.config;
  if (keepBatchesDays === 0 || !worksBatches) return;
  for (const project of await takeProjectsToSweep(world.db, keepBatchesDays, AT_ONCE)) {
    // A volume that is away is looked at tomorrow.
    const where = await reached(world, project);
    const others = whereOfRoots(world, await rootsOfProject(world.db, project.id));
    const before = now - keepBatchesDays * DAY_MS;
    const swept = where === null ? [] : await world.disks.run('sweepBatches', { where, others, before }).catch(none);
    await batchesSwept(world.db, project.id, swept);
  }
}
