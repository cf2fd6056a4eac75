/**
 * The way out of a batch that can neither be finished nor taken back whole, because somebody changed what it had in
 * hand: what can be taken back is, the rest stays where it is and is listed.
 */
import {
  applyBatch,
  type Change,
  checkExpectations,
  type Done,
  doneAfter,
  type Found,
  home,
  isSamePlace,
  leftOf,
  orderChanges,
  type Place,
  type Port,
  type Rest,
  reverseChanges,
} from '@nesting/core/change';
import { foundOf, howFar, type Settled, settleOnDisk, type Taking, withoutContents } from './batch';
import {
  batchFolder,
  closeBatch,
  dropBatch,
  homeOf,
  journalBeside,
  journalOf,
  openIn,
  readBatch,
  takeOver,
  writtenRoots,
} from './journal';
import { portOn, type Roots } from './roots/port';
import type { Root } from './roots/root';

export type Closed =
  | Exclude<Settled, { state: 'paused' }>
  | { readonly state: 'closed'; readonly id: string; readonly rest: readonly Rest[] };

export async function closeOnDisk(roots: Roots, taking: Taking): Promise<Closed> {
  const settled = await settleOnDisk(roots, 'take-back', taking);
  const root = homeOf(roots);
  const id = openIn(root);
  if (settled.state !== 'paused' || id === null) return settled as Exclude<Settled, { state: 'paused' }>;
  const lock = takeOver(root, id, taking.lockMs);
  const port = reachable(
    portOn(roots, () => lock.renew()),
    roots,
  );
  const { done, gone } = await entriesOf(root, id, port);
  const stayed = await takenBack({ roots, id, port, taking }, reverseChanges(done));
  const rest = [...gone, ...stayed];
  await journalOf(root, id).outcome({ ended: 'closed', rest });
  closeBatch(roots, id);
  return { state: 'closed', id, rest };
}

/** Where a root is not there, nothing is. */
const reachable = (port: Port, roots: Roots): Port => ({
  ...port,
  reach: (from, to) => (roots.has(from) && roots.has(to) ? port.reach(from, to) : 'nothing'),
  look: (place) => (roots.has(place.root) ? port.look(place) : null),
  list: (place) => (roots.has(place.root) ? port.list(place) : null),
});

/** Where everything is, whatever was done by the batch itself and by a taking back that stopped. */
async function entriesOf(root: Root, id: string, port: Port): Promise<Found> {
  const record = readBatch(root, id);
  if (record === null) return { done: [], gone: [] };
  const back = readBatch(root, `${id}-back`);
  if (back !== null) await howFar(back, batchFolder(back.id), port);
  const { done } = await howFar(record, batchFolder(id), port);
  return foundOf(record, port, done, back?.intents.steps ?? []);
}

/** What a change has still to do, from where its entry is. */
const pending = ({ change, at, isWritten }: Done): Change[] =>
  isAt(at, change.after) && (change.content === null || isWritten) ? [] : [{ ...change, before: at }];

const isAt = (at: Place | null, wanted: Place | null): boolean =>
  at === null || wanted === null ? at === wanted : isSamePlace(at, wanted);

/** Those that can be done together, and what stands in the way of the others. */
async function parted(
  changes: readonly Change[],
  port: Port,
): Promise<{ readonly can: readonly Change[]; readonly rest: readonly Rest[] }> {
  const rest: Rest[] = [];
  let can = changes;
  for (;;) {
    const { faults } = await checkExpectations(can, port);
    const hindrances = faults.length > 0 ? faults : orderChanges(can, port).faults;
    if (hindrances.length === 0) return { can, rest };
    const ids = new Set(hindrances.map((fault) => fault.id));
    for (const { id, at, code } of hindrances) if (!rest.some((r) => r.id === id)) rest.push({ id, at, code });
    const left = can.filter((change) => !ids.has(change.id));
    // A fault that names no change of these would be met for ever.
    if (left.length === can.length) return { can: [], rest };
    can = left;
  }
}

interface Closing {
  readonly roots: Roots;
  readonly id: string;
  readonly port: Port;
  readonly taking: Taking;
}

/** Where a whole volume refuses each round ends at its first step. */
const MOST_ROUNDS = 50;

const stayedAt = ({ id, before, after }: Change): Rest => ({ id, at: before ?? after ?? home(''), code: 'changed' });

/** Round by round, each without what stopped the one before; what stayed. */
async function takenBack(closing: Closing, changes: readonly Change[], round = 1): Promise<readonly Rest[]> {
  const { roots, id, port, taking } = closing;
  const { can, rest } = await parted(changes, port);
  if (can.length === 0) return rest;
  if (round > MOST_ROUNDS) return [...rest, ...can.map(stayedAt)];
  const own = `${id}-close-${round}`;
  const written = writtenRoots(roots, can);
  dropBatch(written, own);
  const outcome = await applyBatch(
    { id: own, what: 'take-back', by: taking.by, at: taking.at, undoes: id, changes: can, folder: batchFolder(own) },
    port,
    journalBeside(written, own),
    withoutContents,
  );
  if (outcome.state === 'done') return rest;
  const record = readBatch(homeOf(roots), own);
  if (outcome.state === 'refused' || record === null) return [...rest, ...can.map(stayedAt)];
  const done = doneAfter(record.intents, outcome.done, leftOf(record.outcomes), batchFolder(own));
  const left = done.flatMap(pending);
  const stopped = left.find(({ before, after }) => isAt(before, outcome.at) || isAt(after, outcome.at)) ?? left[0];
  if (stopped === undefined) return rest;
  const stays = { id: stopped.id, at: outcome.at, code: outcome.code };
  const others = left.filter((change) => change !== stopped);
  return [...rest, stays, ...(await takenBack(closing, others, round + 1))];
}
