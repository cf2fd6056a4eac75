/**
 * A batch is asked for: its row is written, and whoever works is woken. Who asks waits for its end as long as was said;
 * it goes on without anybody who waits.
 */
import type { BatchAnswer, BatchAsked, Me, SettleWay } from '@nesting/contract';
import { isAway, sqlFault, transaction } from '../../db/client';
import {
  askToSettle,
  askToStop,
  insertBatch,
  isNobodyAt,
  readBatchRow,
  refusalTold,
  removeRefused,
  type StoredBatch,
} from '../../db/queries/batches/batches';
import { readShape } from '../../db/queries/projects/projects';
import { notKnown, Refused, retold, type World } from '../world';

/** Milliseconds between two looks at a batch that another server may be at. */
const LOOK_MS = 250;

export interface ToAsk {
  /** Made up by who asks, or for them: the same request asked again is done once. */
  readonly id: string;
  readonly project: string;
  readonly what: string;
  readonly undoes: string | null;
  readonly asked: BatchAsked;
}

/** @param wait - milliseconds. @throws Refused where it came to nothing, or stopped half way */
export async function askBatch(world: World, me: Pick<Me, 'id'>, to: ToAsk, wait: number): Promise<BatchAnswer> {
  try {
    const before = await readBatchRow(world.db, to.project, to.id);
    if (before === null || before.state === 'refused') await write(world, me, to);
    else if (before.job.asked !== null && JSON.stringify(before.job.asked) !== JSON.stringify(to.asked))
      throw keyUsed();
    const batch = await waitFor(world, to.project, to.id, wait);
    if (batch === null) throw new Refused('not-begun');
    if (batch.state === 'taken-back' || batch.state === 'closed') throw new Refused('taken-back');
    return { batch: to.id, isDone: batch.state === 'done' };
  } catch (error) {
    throw isAway(error) ? notKnown() : error;
  }
}

async function write(world: World, me: Pick<Me, 'id'>, { id, project, what, undoes, asked }: ToAsk): Promise<void> {
  const shape = await readShape(world.db, project);
  if (shape === null) throw new Refused('no-project');
  try {
    await transaction(world.db, async (client) => {
      await removeRefused(client, id);
      await insertBatch(client, { id, project, what, person: me.id, undoes, asked, shape });
      await world.batches.add(id, client);
    });
  } catch (error) {
    const constraint = sqlFault(error)?.constraint;
    // The same request, asked at the same moment.
    if (constraint === 'batch_pkey' && (await readBatchRow(world.db, project, id)) !== null) return;
    if (constraint === 'batch_pkey') throw keyUsed();
    if (constraint === 'batch_open_once') throw batchOpen();
    throw error;
  }
  // The job was not there before the transaction ended.
  world.batches.wake();
}

const keyUsed = (): Refused => new Refused('key-used');

export const batchOpen = (): Refused => new Refused('batch-open');

/** What it is when it has ended, or by then; `null` where it came to nothing. @throws Refused where it was refused, or paused */
async function waitFor(world: World, project: string, id: string, wait: number): Promise<StoredBatch | null> {
  const until = performance.now() + wait;
  for (;;) {
    const ending = world.endings.next(id, LOOK_MS);
    const batch = await readBatchRow(world.db, project, id);
    if (batch?.state !== 'running') return told(world, batch);
    if (performance.now() >= until) return batch;
    await ending;
    // A crash may have left it: then it is somebody's turn again.
    if (await isNobodyAt(world.db, id)) await world.batches.add(id);
  }
}

async function told(world: World, batch: StoredBatch | null): Promise<StoredBatch | null> {
  switch (batch?.state) {
    case 'refused':
      await refusalTold(world.db, batch.id);
      throw batch.job.refusal === null ? new Refused('not-begun') : retold(batch.job.refusal);
    case 'paused':
      throw new Refused('batch-paused', { why: batch.why });
    default:
      return batch;
  }
}

/** What stopped half way is settled as a job too. */
export async function settleBatch(
  world: World,
  me: Me,
  {
    project,
    id,
    way,
    wait,
  }: { readonly project: string; readonly id: string; readonly way: SettleWay; readonly wait: number },
): Promise<BatchAnswer> {
  const batch = await readBatchRow(world.db, project, id);
  if (batch === null) throw new Refused('no-change');
  const asked = await transaction(world.db, async (client) => {
    const isPaused = await askToSettle(client, id, way, me.id);
    if (isPaused) await world.batches.add(id, client);
    return isPaused;
  });
  if (!asked) throw new Refused('batch-not-paused');
  world.batches.wake();
  const settled = await waitFor(world, project, id, wait);
  return { batch: id, isDone: settled?.state !== 'running' };
}

/** Whether it was under way. It stops before its next step, wherever it is done. */
export const stopBatch = (world: World, project: string, id: string): Promise<boolean> =>
  askToStop(world.db, project, id);
