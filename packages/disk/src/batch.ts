/**
 * Batches on a disk: begun, gone on with after a crash, taken back, undone. What is journalled here is all that is
 * needed for it.
 */
import {
  type ApplyFault,
  type ApplyOptions,
  applyBatch,
  type BatchOutcome,
  type Change,
  checkExpectations,
  codeOf,
  doneAfter,
  endHalfMove,
  type Found,
  findEntries,
  home,
  type Intents,
  leftOf,
  type Place,
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
  homeOf,
  journalBeside,
  journalOf,
  openBatch,
  openIn,
  readBatch,
  takeOver,
  writtenRoots,
} from './journal';
import { LOCK_LOST, type Lock } from './roots/lock';
import { portOn, type Roots } from './roots/port';
import type { Root } from './roots/root';

export interface DiskBatch extends ApplyOptions {
  readonly roots: Roots;
  readonly id: string;
  readonly what: string;
  readonly by: string;
  readonly at: string;
  readonly undoes?: string | null;
  readonly request?: string | undefined;
  readonly changes: readonly Change[];
}

/**
 * Fails with `BatchOpen` where another batch is under way. Refused ones leave nothing; paused ones stay open until they
 * are settled.
 */
export async function applyOnDisk(batch: DiskBatch): Promise<BatchOutcome> {
  const { roots, id, what, by, at, changes } = batch;
  const written = writtenRoots(roots, changes);
  const { journal, lock } = openBatch(written, id);
  let outcome: BatchOutcome | null = null;
  let isOurs = true;
  try {
    outcome = await applyBatch(
      { id, what, by, at, undoes: batch.undoes ?? null, request: batch.request, changes, folder: batchFolder(id) },
      portOn(roots, () => lock.renew()),
      journal,
      options(batch, lock),
    );
    return outcome;
  } catch (error) {
    isOurs = codeOf(error) !== LOCK_LOST;
    throw error;
  } finally {
    if (isOurs) end(written, id, outcome, lock);
  }
}

/** What was paused, or cut short, waits for whoever settles it. */
function end(roots: Roots, id: string, outcome: BatchOutcome | null, lock: Lock): void {
  const hasBegun = outcome?.state !== 'refused' && readBatch(homeOf(roots), id) !== null;
  if (outcome?.state === 'done' || !hasBegun) closeBatch(roots, id);
  else lock.rest();
  if (!hasBegun) dropBatch(roots, id);
}

const options = ({ bytesOf, cancel, sure, progress, yieldNow }: ApplyOptions, lock: Lock): ApplyOptions => ({
  sure: () => {
    lock.renew();
    sure?.();
  },
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
      readonly at: Place;
      readonly code: string;
    };

/** A root of the batch is not there, so nothing can be said of it. */
const AWAY = 'ROOT-AWAY';

/** The first place of a batch in a root that is not there. What it reads from matters only to whoever goes on with it. */
function placeAway(roots: Roots, { changes, steps }: Intents, isReadFrom: boolean): Place | undefined {
  const isAway = (at: Place | null): boolean => at !== null && !roots.has(at.root);
  for (const { before, after } of changes) for (const at of [before, after]) if (at !== null && isAway(at)) return at;
  for (const step of steps) for (const at of placesOf(step, isReadFrom)) if (isAway(at)) return at;
  return undefined;
}

const placesOf = (step: Step, isReadFrom: boolean): readonly Place[] => {
  const from = 'from' in step ? [step.from] : [];
  const read = isReadFrom && 'content' in step && 'from' in step.content ? [step.content.from] : [];
  return [step.at, ...from, ...read];
};

export interface Taking {
  readonly by: string;
  readonly at: string;
  /** Milliseconds after which a batch that nobody renewed is nobody's. */
  readonly lockMs?: number | undefined;
}

/**
 * Finishes or takes back what is open, after looking at what really is there. `taking` says who takes it back.
 *
 * @throws BatchOpen where somebody is at it
 */
export async function settleOnDisk(roots: Roots, way: 'finish' | 'take-back', taking: Taking): Promise<Settled> {
  const root = homeOf(roots);
  const id = openIn(root);
  if (id === null) return { state: 'none' };
  const lock = takeOver(root, id, taking.lockMs);
  let isOurs = true;
  try {
    return await settleLocked({ roots, id, lock }, way, taking);
  } catch (error) {
    isOurs = codeOf(error) !== LOCK_LOST;
    throw error;
  } finally {
    if (isOurs && openIn(root) === id) lock.rest();
  }
}

interface Locked {
  readonly roots: Roots;
  readonly id: string;
  readonly lock: Lock;
}

async function settleLocked(locked: Locked, way: 'finish' | 'take-back', taking: Taking): Promise<Settled> {
  const { roots, id } = locked;
  const root = homeOf(roots);
  const record = readBatch(root, id);
  if (record === null) {
    closeBatch(roots, id);
    dropBatch(roots, id);
    return { state: 'not-begun', id };
  }
  const { intents } = record;
  const away = placeAway(roots, intents, way === 'finish');
  if (away !== undefined) return { state: 'paused', id, intents, at: away, code: AWAY };
  // A taking back that a crash cut short is itself finished; only then is its batch taken back.
  const backId = `${id}-back`;
  const back = readBatch(root, backId);
  if (back !== null && back.ended?.ended !== 'done') return finish(locked, back, intents, 'taken-back');
  if (record.ended?.ended === 'done') {
    closeBatch(roots, id);
    return { state: 'done', id, intents };
  }
  if (way === 'finish' && back === null) return finish(locked, record, intents, 'done');
  if (back === null) {
    dropBatch(roots, backId);
    const outcome = await takeBackNow(locked, record, backId, taking);
    if (outcome.state !== 'done')
      return {
        state: 'paused',
        id,
        intents,
        ...(outcome.state === 'paused'
          ? { at: outcome.at, code: outcome.code }
          : { at: outcome.faults[0]?.at ?? home(''), code: outcome.faults[0]?.code ?? '' }),
      };
  }
  await journalOf(root, id).outcome({ ended: 'taken-back' });
  closeBatch(roots, id);
  return { state: 'taken-back', id, intents };
}

async function finish(
  { roots, id, lock }: Locked,
  record: BatchRecord,
  intents: Intents,
  state: 'done' | 'taken-back',
): Promise<Settled> {
  const sure = () => lock.renew();
  const port = portOn(roots, sure);
  const root = homeOf(roots);
  const folder = batchFolder(record.id);
  const { steps } = record.intents;
  const far = await howFar(record, folder, port);
  const lacking = far.clear ? undefined : await lackingFrom(record, far.done, port);
  if (lacking !== undefined) return { state: 'paused', id, intents, at: lacking.at, code: lacking.code };
  const journal = journalOf(root, record.id);
  // From here on it may be cut short again.
  await journal.outcome({ done: far.done });
  const outcome = await runSteps({ steps, from: far.done, folder, port, journal }, { sure });
  if (outcome.state === 'paused') return { state: 'paused', id, intents, at: outcome.at, code: outcome.code };
  if (state === 'taken-back') await journalOf(root, id).outcome({ ended: 'taken-back' });
  closeBatch(roots, id);
  return { state, id, intents };
}

async function takeBackNow(
  { roots, lock }: Locked,
  record: BatchRecord,
  backId: string,
  { by, at }: Taking,
): Promise<BatchOutcome> {
  const folder = batchFolder(record.id);
  const sure = () => lock.renew();
  const port = portOn(roots, sure);
  const far = await howFar(record, folder, port);
  const left = leftOf(record.outcomes);
  const { done, gone } = far.clear
    ? { done: doneAfter(record.intents, far.done, left, folder), gone: [] }
    : await foundOf(record, port, far.done);
  const [first] = gone;
  if (first !== undefined) return { state: 'paused', done: far.done, at: first.at, code: first.code };
  const changes = reverseChanges(done);
  const journal = journalBeside(writtenRoots(roots, changes), backId);
  return applyBatch(
    { id: backId, what: 'take-back', by, at, undoes: record.id, changes, folder: batchFolder(backId) },
    port,
    journal,
    { ...withoutContents, sure },
  );
}

/** Where a batch's entries are, found one by one. */
export function foundOf(
  { id, intents, outcomes }: BatchRecord,
  port: Port,
  done: number,
  moreSteps: readonly Step[] = [],
): Promise<Found> {
  return findEntries({ intents, done, left: leftOf(outcomes), moreSteps, folder: batchFolder(id) }, port);
}

/** The first entry that a step still to be done would need, and that is nowhere. */
async function lackingFrom(record: BatchRecord, done: number, port: Port): Promise<Rest | undefined> {
  const needed = new Set(record.intents.steps.slice(done).map((step) => step.id));
  return (await foundOf(record, port, done)).gone.find(({ id }) => needed.has(id));
}

/** How far a batch came, after what a crash left half of was ended. One that stopped by itself left nothing half. */
export async function howFar({ intents, outcomes }: BatchRecord, folder: string, port: Port): Promise<Progress> {
  const last = outcomes.at(-1);
  const isStopped = last !== undefined && 'ended' in last && last.ended === 'paused';
  if (!isStopped) await endHalfMove(intents, outcomes, folder, port, GROUP);
  return stepsDone(intents, outcomes, folder, port, GROUP);
}

/** For changes that bring back what is kept. */
export const withoutContents: ApplyOptions = {
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

/**
 * What undoing a batch would do, line by line; lines that were undone by now are not among them. The name of the
 * project's own folder is none: whoever undoes it says what becomes of that.
 */
export async function undoPlan(roots: Roots, id: string): Promise<readonly UndoLine[] | null> {
  const root = homeOf(roots);
  const record = readBatch(root, id);
  if (record === null || record.ended?.ended !== 'done') return null;
  const undone = undoneIds(root, id);
  const changes = reversed(record).filter(({ id: key, subject }) => subject.kind !== 'project' && !undone.has(key));
  const there = changes.filter((change) => awayOf(roots, change) === undefined);
  const { faults } = await checkExpectations(there, portOn(roots));
  const byId = new Map(faults.map((fault) => [fault.id, fault]));
  return changes.map((change) => {
    const at = awayOf(roots, change);
    const hindrance = at === undefined ? (byId.get(change.id) ?? null) : awayFault(change, at);
    return { change, hindrance };
  });
}

const awayOf = (roots: Roots, { before, after }: Change): Place | undefined =>
  [before, after].find((at) => at !== null && !roots.has(at.root)) ?? undefined;

const awayFault = ({ id }: Change, at: Place): ApplyFault => ({ code: 'unseen', id, at, detail: AWAY });

const reversed = ({ id, intents, outcomes }: BatchRecord): Change[] =>
  reverseChanges(doneAfter(intents, intents.steps.length, leftOf(outcomes), batchFolder(id)));

/** Ids of a batch's changes that later batches took back, and that nobody brought again. */
export function undoneIds(root: Root, id: string): ReadonlySet<string> {
  const done = batchesIn(root).flatMap((other): BatchRecord[] => {
    const record = readBatch(root, other);
    return record?.ended?.ended === 'done' ? [record] : [];
  });
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
    for (const change of intents.changes) if (!again.has(change.id)) undone.add(change.id);
  }
  return undone;
}

export interface Undo {
  readonly roots: Roots;
  readonly batch: string;
  readonly id: string;
  readonly by: string;
  readonly at: string;
  /** Lines to take back, by their changes' ids; all that are left where `null`. */
  readonly ids: ReadonlySet<string> | null;
}

/** Takes a batch back as a batch of its own, which can be undone in its turn. */
export async function undoOnDisk({ roots, batch, id, by, at, ids }: Undo): Promise<BatchOutcome | null> {
  const lines = await undoPlan(roots, batch);
  if (lines === null) return null;
  const changes = lines.map((l) => l.change).filter((c) => ids === null || ids.has(c.id));
  return applyOnDisk({ roots, id, what: 'undo', by, at, undoes: batch, changes, ...withoutContents });
}
