/**
 * A batch between database and disk. They share no transaction: the row says what is meant before the first step, the
 * journal in the project's folder what was done; the project's row follows when the disk is done.
 */

import { type BatchOutcome, isShown } from '@nesting/core/change';
import { type Told, told } from '@nesting/core/words';
import { DiskError } from '@nesting/disk';
import { sqlFault, transaction } from '../../db/client';
import {
  claimBatch,
  endBatch,
  insertBatchRoots,
  refuseBatch,
  removeBatch,
  type StoredBatch,
  setBatchProgress,
  unclaimBatch,
} from '../../db/queries/batches/batches';
import { heartbeat } from '../../jobs/heartbeat';
import { requestId } from '../../request-context';
import { claimNumber, freeNumber } from '../house/numbers';
import { Refused, type World } from '../world';
import { batchOpen } from './ask-batch';
import { conclude } from './conclude';
import type { ToRun } from './prepared';
import { rootsOf, whereOfRoots } from './roots';

/** What it makes of the project stands in the row before anything is touched; another number is its own from then on. */
export async function claim(world: World, run: ToRun): Promise<void> {
  const { id, project, what, person, from, to } = run;
  try {
    await transaction(world.db, async (client) => {
      await claimBatch(client, id, { what, from, to });
      await insertBatchRoots(client, id, rootsOf(run));
      const number = String(to.values.number);
      if (number !== String(from.values.number)) await claimNumber(client, person.id, number, to.folder, project.id);
    });
  } catch (error) {
    // A project's number is checked by its row at the end; here somebody else claimed it meanwhile.
    if (sqlFault(error)?.constraint === 'project_number_once')
      throw new Refused('number-taken', { number: String(to.values.number ?? '') });
    throw error;
  }
}

/** One that was claimed. Under the batch's lease, which `lost` tells the end of. */
export async function carryOut(world: World, run: ToRun, lost: AbortSignal): Promise<void> {
  const { id, changes, project, person } = run;
  const outcome = await doneOnDisk(world, run, lost);
  const shown = changes.filter(isShown).length;
  switch (outcome.state) {
    case 'not-begun':
      return refuseClaimed(world, run, outcome.refusal);
    case 'refused':
      return refuseClaimed(world, run, stale(outcome.faults));
    case 'unreachable':
      return endBatch(world.db, id, { state: 'paused', changes: null, because: outcome.because });
    case 'paused': {
      const { code: system, at, done } = outcome;
      const because = told('half-way', { system, path: at.path, done, all: changes.length });
      return endBatch(world.db, id, { state: 'paused', changes: shown, because });
    }
    case 'done':
      return conclude(world, { ...run, project: project.id, person: person.id }, project.volume);
  }
}

type Outcome =
  | BatchOutcome
  | { readonly state: 'not-begun'; readonly refusal: Refused }
  /** Nobody knows how far it came. */
  | { readonly state: 'unreachable'; readonly because: Told };

/** While its row says how far it is, and hears whether it is to stop. */
async function doneOnDisk(world: World, run: ToRun, lost: AbortSignal): Promise<Outcome> {
  const { id, where, what, person, undoes, changes, contents } = run;
  const others = whereOfRoots(world, rootsOf(run));
  const at = { done: 0, all: changes.length };
  const stop = new AbortController();
  const quiet = heartbeat(() => setBatchProgress(world.db, id, at.done, at.all), stop);
  try {
    return await world.disks.run(
      'applyBatch',
      {
        where,
        others,
        id,
        what,
        by: person.name,
        at: new Date().toISOString(),
        undoes,
        request: requestId() ?? undefined,
        changes,
        contents,
      },
      { signal: stop.signal, lost, told: (progress) => void Object.assign(at, progress) },
    );
  } catch (error) {
    if (lost.aborted) throw error;
    return whatBecame(world, run, error);
  } finally {
    quiet();
  }
}

/** Of a batch whose outcome is not known. */
async function whatBecame(world: World, run: ToRun, error: unknown): Promise<Outcome> {
  const { id, where } = run;
  const code = error instanceof DiskError ? error.code : '';
  if (code === 'BATCH-OPEN') return { state: 'not-begun', refusal: batchOpen() };
  // Where the folder cannot be reached nobody knows how far it came: it is looked at when the volume is there again.
  const begun = await world.disks.run('hasBegun', { where, id }).catch(() => true);
  if (begun) return { state: 'unreachable', because: told('folder-lost', { system: code }) };
  // What was laid ready goes, and the way is free. The process that was at it has ended.
  const others = whereOfRoots(world, rootsOf(run));
  const taking = { by: '', at: new Date().toISOString(), lockMs: 0 };
  await world.disks.run('settleBatch', { where, others, id, way: 'take-back', ...taking });
  const refusal = new Refused('could-not-begin', { system: code });
  return { state: 'not-begun', refusal };
}

function stale(faults: Extract<BatchOutcome, { state: 'refused' }>['faults']): Refused {
  const [fault] = faults;
  const code = fault !== undefined && 'detail' in fault ? (fault.detail ?? fault.code) : (fault?.code ?? '');
  return new Refused('plan-stale', { system: code, path: fault?.at.path ?? '', more: faults.length - 1 });
}

async function refuseClaimed(world: World, { id, from, to }: ToRun, refusal: Refused): Promise<void> {
  await transaction(world.db, async (client) => {
    await refuseBatch(client, id, refusal.told);
    await unclaimBatch(client, id);
    await freeClaimed(client, { from, to });
  });
}

const freeClaimed = async (
  client: Parameters<typeof freeNumber>[0],
  { from, to }: Pick<StoredBatch, 'from' | 'to'>,
): Promise<void> => {
  if (String(from.values.number) !== String(to.values.number))
    await freeNumber(client, String(to.values.number), 'its change came to nothing');
};

/** Nothing of it is on a disk. What is known of how it was asked for is planned again; else it was none. */
export async function unclaim(world: World, batch: StoredBatch): Promise<void> {
  await transaction(world.db, async (client) => {
    if (batch.job.asked === null || batch.job.settling !== null) await removeBatch(client, batch.id);
    else await unclaimBatch(client, batch.id);
    await freeClaimed(client, batch);
  });
}
