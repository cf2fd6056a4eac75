/**
 * Batches on a disk: begun, gone on with after a crash, taken back, undone. What is journalled here is all that is
 * needed for it.
 */
import {
  type ApplyFault,
  applyBatch,
  type BatchOutcome,
  type Change,
  checkExpectations,
  type Done,
  doneAfter,
  endHalfMove,
  type Found,
  findEntries,
  type Intents,
  leftOf,
  type PerformOptions,
  type Port,
  type Progress,
  type Rest,
  reverseChanges,
  runSteps,
  type Step,
  stepsDone,
} from '@nesting/core/change';

import {
  type BatchRecord,
  batchesIn,
  batchFolder,
  closeBatch,
  dropBatch,
  GROUP,
  journalBeside,
  journalOf,
  openBatch,
  openIn,
  readBatch,
} from './journal';
import { portOn } from './roots/port';
import type { Root } from './roots/root';

export interface DiskBatch extends PerformOptions {
  /** The project's folder. */
  readonly root: Root;
  readonly id: string;
  readonly what: string;
  readonly by: string;
  readonly at: string;
  readonly undoes?: string | null;
  readonly changes: readonly Change[];
}

/**
 * Fails with `BatchOpen` where another batch is under way. Refused ones leave nothing; paused ones stay open until they
 * are settled.
 */
export async function applyOnDisk(batch: DiskBatch): Promise<BatchOutcome> {
  const { root, id, what, by, at, changes } = batch;
  const journal = openBatch(root, id);
  let outcome: BatchOutcome | null = null;
  try {
    outcome = await applyBatch(
      { id, what, by, at, undoes: batch.undoes ?? null, changes, folder: batchFolder(id) },
      portOn(root),
      journal,
      options(batch),
    );
    return outcome;
  } finally {
    if (outcome?.state === 'done') closeBatch(root);
    else if (outcome?.state === 'refused' || readBatch(root, id) === null) {
      closeBatch(root);
      dropBatch(root, id);
    }
  }
}

const options = ({ bytesOf, cancel, progress, yieldNow }: PerformOptions): PerformOptions => ({
  bytesOf,
  cancel,
  progress,
  yieldNow: yieldNow ?? (() => new Promise((resolve) => setImmediate(resolve))),
});

export type Settled =
  /** Nothing is open. */
  | { readonly state: 'none' }
  /** It had not begun, and what was laid ready for it is gone. */
  | { readonly state: 'not-begun'; readonly id: string }
  | { readonly state: 'done' | 'taken-back'; readonly id: string; readonly intents: Intents }
  /** It could not be settled: what stands in the way. */
  | {
      readonly state: 'paused';
      readonly id: string;
      readonly intents: Intents;
      readonly at: string;
      readonly code: string;
    };

/**
 * Finishes or takes back what is open, after looking at what really is there. `taking` names the batch that takes it
 * back.
 */
export async function settleOnDisk(
  root: Root,
  way: 'finish' | 'take-back',
  taking: { readonly by: string; readonly at: string },
): Promise<Settled> {
  const id = openIn(root);
  if (id === null) return { state: 'none' };
  const record = readBatch(root, id);
  if (record === null) {
    closeBatch(root);
    dropBatch(root, id);
    return { state: 'not-begun', id };
  }
  const { intents } = record;
  // A taking back that a crash cut short is itself finished; only then is its batch taken back.
  const backId = `${id}-back`;
  const back = readBatch(root, backId);
  if (back !== null && back.ended?.ended !== 'done') return finish(root, back, intents, id, 'taken-back');
  if (record.ended?.ended === 'done') {
    closeBatch(root);
    return { state: 'done', id, intents };
  }
  if (way === 'finish' && back === null) return finish(root, record, intents, id, 'done');
  if (back === null) {
    dropBatch(root, backId);
    const outcome = await takeBackNow(root, record, backId, taking);
    if (outcome.state !== 'done')
      return {
        state: 'paused',
        id,
        intents,
        ...(outcome.state === 'paused'
          ? { at: outcome.at, code: outcome.code }
          : { at: outcome.faults[0]?.path ?? '', code: outcome.faults[0]?.code ?? '' }),
      };
  }
  await journalOf(root, id).outcome({ ended: 'taken-back' });
  closeBatch(root);
  return { state: 'taken-back', id, intents };
}

async function finish(
  root: Root,
  record: BatchRecord,
  intents: Intents,
  id: string,
  state: 'done' | 'taken-back',
): Promise<Settled> {
  const port = portOn(root);
  const folder = batchFolder(record.id);
  const far = await howFar(record, folder, port);
  const lacking = far.clear ? undefined : await lackingFrom(record, far.done, port);
  if (lacking !== undefined) return { state: 'paused', id, intents, at: lacking.path, code: lacking.code };
  const outcome = await runSteps(record.intents.steps, far.done, folder, port, journalOf(root, record.id), {});
  if (outcome.state === 'paused') return { state: 'paused', id, intents, at: outcome.at, code: outcome.code };
  if (state === 'taken-back') await journalOf(root, id).outcome({ ended: 'taken-back' });
  closeBatch(root);
  return { state, id, intents };
}

async function takeBackNow(
  root: Root,
  record: BatchRecord,
  backId: string,
  { by, at }: { readonly by: string; readonly at: string },
): Promise<BatchOutcome> {
  const folder = batchFolder(record.id);
  const port = portOn(root);
  const far = await howFar(record, folder, port);
  const left = leftOf(record.outcomes);
  const { done, gone } = far.clear
    ? { done: doneAfter(record.intents, far.done, left, folder), gone: [] }
    : await foundOf(record, port, far.done);
  const [first] = gone;
  if (first !== undefined) return { state: 'paused', done: far.done, at: first.path, code: first.code };
  const changes = reverseChanges(done, folder);
  const journal = journalBeside(root, backId);
  return applyBatch(
    { id: backId, what: 'take-back', by, at, undoes: record.id, changes, folder: batchFolder(backId) },
    port,
    journal,
    withoutContents,
  );
}

/** Where a batch's entries are, found one by one. */
export async function foundOf(
  { id, intents, outcomes }: BatchRecord,
  port: Port,
  done: number,
  moreSteps: readonly Step[] = [],
): Promise<Found> {
  const left = leftOf(outcomes);
  const found = await findEntries({ intents, done, moreSteps, folder: batchFolder(id) }, port);
  const withLeft = (one: Done): Done => (one.change.key in left ? { ...one, left: left[one.change.key] } : one);
  return { ...found, done: found.done.map(withLeft) };
}

/** The first entry that a step still to be done would need, and that is nowhere. */
async function lackingFrom(record: BatchRecord, done: number, port: Port): Promise<Rest | undefined> {
  const needed = new Set(record.intents.steps.slice(done).map((step) => step.key));
  return (await foundOf(record, port, done)).gone.find(({ key }) => needed.has(key));
}

/** How far a batch came, after what a crash left half of was ended. */
export async function howFar({ intents, outcomes }: BatchRecord, folder: string, port: Port): Promise<Progress> {
  await endHalfMove(intents, outcomes, folder, port, GROUP);
  return stepsDone(intents, outcomes, folder, port, GROUP);
}

/** For changes that bring back what is kept. */
export const withoutContents: PerformOptions = {
  bytesOf: () => {
    throw new Error('a reversed change has no new content');
  },
  yieldNow: () => new Promise((resolve) => setImmediate(resolve)),
};

export interface UndoLine {
  readonly change: Change;
  /** Why this line cannot be undone now; `null` where it can. */
  readonly hindrance: ApplyFault | null;
}

/** What undoing a batch would do, line by line; lines that were undone by now are not among them. */
export async function undoPlan(root: Root, id: string): Promise<readonly UndoLine[] | null> {
  const record = readBatch(root, id);
  if (record === null || record.ended?.ended !== 'done') return null;
  const undone = undoneKeys(root, id);
  const changes = reversed(record).filter((c) => !undone.has(c.key));
  const { faults } = await checkExpectations(changes, portOn(root));
  const byKey = new Map(faults.map((f) => [f.key, f]));
  return changes.map((change) => ({ change, hindrance: byKey.get(change.key) ?? null }));
}

const reversed = ({ id, intents, outcomes }: BatchRecord): Change[] =>
  reverseChanges(doneAfter(intents, intents.steps.length, leftOf(outcomes), batchFolder(id)), batchFolder(id));

/** Keys of a batch that later batches took back, and that nobody brought again. */
export function undoneKeys(root: Root, id: string): ReadonlySet<string> {
  const done = batchesIn(root)
    .map((other) => readBatch(root, other))
    .filter((r) => r?.ended?.ended === 'done') as BatchRecord[];
  return undoneAmong(done, id, new Set());
}

/** `asked` ends circles, which only a forged journal has. */
function undoneAmong(done: readonly BatchRecord[], id: string, asked: Set<string>): Set<string> {
  const undone = new Set<string>();
  if (asked.has(id)) return undone;
  asked.add(id);
  for (const { id: other, intents } of done) {
    if (intents.undoes !== id) continue;
    const again = undoneAmong(done, other, asked);
    for (const change of intents.changes) if (!again.has(change.key)) undone.add(change.key);
  }
  return undone;
}

export interface Undo {
  readonly root: Root;
  readonly batch: string;
  readonly id: string;
  readonly by: string;
  readonly at: string;
  /** Lines to take back; all that are left where `null`. */
  readonly keys: ReadonlySet<string> | null;
}

/** Takes a batch back as a batch of its own, which can be undone in its turn. */
export async function undoOnDisk({ root, batch, id, by, at, keys }: Undo): Promise<BatchOutcome | null> {
  const lines = await undoPlan(root, batch);
  if (lines === null) return null;
  const changes = lines.map((l) => l.change).filter((c) => keys === null || keys.has(c.key));
  return applyOnDisk({ root, id, what: 'undo', by, at, undoes: batch, changes, ...withoutContents });
}
