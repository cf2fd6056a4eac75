/** Work that is done once, whoever asks and however often: under a lease, by the id that the request carried. */
import { isAway } from '../db/client';
import type { Lease } from '../jobs/leases';
import { notKnown, Refused, type World } from './world';

/**
 * What the database going away leaves open is settled later by whoever finds the lease over.
 *
 * @throws Refused 409 where somebody is at it, 503 where it is not known what became of it
 */
export async function underLease<T>(world: World, work: string, run: (lease: Lease) => Promise<T>): Promise<T> {
  const lease = await world.leases.take(work);
  if (lease === null) throw new Refused('under-way');
  try {
    return await run(lease);
  } catch (error) {
    throw isAway(error) || lease.lost.aborted ? notKnown() : error;
  } finally {
    await lease.release();
  }
}

/** The same for work that was left: passed over where somebody is at it. */
export async function takeUp(world: World, work: string, run: () => Promise<void>): Promise<void> {
  const lease = await world.leases.take(work);
  if (lease === null) return;
  try {
    await run();
  } finally {
    await lease.release();
  }
}
