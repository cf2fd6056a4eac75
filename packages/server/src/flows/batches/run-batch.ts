/**
 * What a batch's job does: it is planned as it was asked for, and carried out; or, where that was begun before, settled
 * by what the disk says. Called as often as one likes: under a lease, and by what stands in the row.
 */
import { DiskError } from '@nesting/disk';
import { isAway } from '../../db/client';
import { batchesLeft, countTry, readBatchJob, refuseBatch, type StoredBatch } from '../../db/queries/batches/batches';
import { releaseBytes, releaseLost } from '../../db/queries/batches/space';
import { readPerson } from '../../db/queries/people/access';
import type { Lease } from '../../jobs/leases';
import { onBehalfOf } from '../../request-context';
import { diskRefusal } from '../place';
import { prepareCarry } from '../projects/carry-project';
import { prepareChecksums } from '../projects/checksums';
import { prepareIntake } from '../projects/intake-project';
import { prepareRepair } from '../projects/repair-project';
import { prepareReshape } from '../projects/reshape-project';
import { Refused, type World } from '../world';
import { carryOut, claim } from './carry-out';
import type { Asker, Prepared, ToRun } from './prepared';
import { settleLeft } from './settle';
import { reserveSpace } from './space';
import { prepareUndo } from './undo';

/** A batch whose doing ended early so often is given up. */
const MOST_TRIES = 3;

export async function runBatch(world: World, id: string): Promise<void> {
  const lease = await world.leases.take(id);
  if (lease === null) return;
  try {
    // What had not begun when it was cut short is planned again.
    for (let batch = await toDo(world, id); batch !== null; batch = await toDo(world, id))
      if ((await step(world, batch, lease)) === 'at-work') return;
  } catch (error) {
    // A server that is stopped, or that could not renew: others go on with it.
    if (!lease.lost.aborted) throw error;
  } finally {
    await lease.release();
    world.endings.tell(id);
  }
}

/** Batches that are to be done and that nobody is at: a crash, or a database that went away, left them. */
export async function wakeBatches(world: World): Promise<void> {
  await releaseLost(world.db);
  for (const id of await batchesLeft(world.db)) await world.batches.add(id);
}

async function toDo(world: World, id: string): Promise<StoredBatch | null> {
  const batch = await readBatchJob(world.db, id);
  return batch?.state === 'running' ? batch : null;
}

const step = (world: World, batch: StoredBatch, lease: Lease): Promise<unknown> =>
  onBehalfOf<Promise<unknown>>(batch.job.request, () =>
    batch.job.isClaimed ? settleLeft(world, batch) : perform(world, batch, lease),
  );

async function perform(world: World, batch: StoredBatch, { lost }: Lease): Promise<void> {
  const run = await claimed(world, batch, lost);
  if (run === null) return;
  try {
    await carryOut(world, run, lost);
  } finally {
    // Once it is lost, what is reserved may be another's.
    if (!lost.aborted) await releaseBytes(world.db, batch.id);
  }
}

/** Planned, with its room on the disk and its number; `null` where it was refused. */
async function claimed(world: World, batch: StoredBatch, lost: AbortSignal): Promise<ToRun | null> {
  try {
    if ((await countTry(world.db, batch.id)) > MOST_TRIES) throw new Refused('gave-up');
    const person = await whoAsked(world, batch);
    const run = { ...(await prepare(world, person, batch)), id: batch.id, person, undoes: batch.undoes };
    await reserveSpace(world, run);
    await claim(world, run);
    return run;
  } catch (error) {
    if (isAway(error) || lost.aborted) throw error;
    const refusal = refusalOf(error);
    await refuseBatch(world.db, batch.id, (refusal ?? FAILED).told);
    if (refusal === null) throw error;
    return null;
  }
}

const FAILED = new Refused('not-begun');

const refusalOf = (error: unknown): Refused | null => {
  if (error instanceof DiskError) return diskRefusal(error);
  return error instanceof Refused ? error : null;
};

/** As they are now: what somebody may do may have changed since they asked. */
async function whoAsked(world: World, batch: StoredBatch): Promise<Asker> {
  const person = batch.person === null ? null : await readPerson(world.db, batch.person);
  if (person === null || person.state === 'left') throw new Refused('asker-left');
  return person;
}

async function prepare(
  world: World,
  person: Asker,
  { project, job: { asked, isStopAsked } }: StoredBatch,
): Promise<Prepared> {
  if (isStopAsked) throw new Refused('stopped');
  switch (asked?.kind) {
    case 'reshape':
      return prepareReshape(world, person, project, asked);
    case 'repair':
      return prepareRepair(world, person, project, asked);
    case 'carry':
      return prepareCarry(world, person, project, asked);
    case 'intake':
      return prepareIntake(world, person, project, asked);
    case 'checksums':
      return prepareChecksums(world, project, asked);
    case 'undo':
      return prepareUndo(world, project, asked);
    case undefined:
      throw new Refused('batch-forgotten');
  }
}
