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
  leftOf,
  orderChanges,
  type Port,
  type Rest,
  reverseChanges,
} from '@nesting/core/change';
import { foundOf, howFar, type Settled, settleOnDisk, withoutContents } from './batch';
import { batchFolder, closeBatch, dropBatch, journalBeside, journalOf, openIn, readBatch } from './journal';
import { portOn } from './roots/port';
import type { Root } from './roots/root';

export type Closed =
  | Exclude<Settled, { state: 'paused' }>
  | { readonly state: 'closed'; readonly id: string; readonly rest: readonly Rest[] };

export async function closeOnDisk(root: Root, taking: { readonly by: string; readonly at: string }): Promise<Closed> {
  const settled = await settleOnDisk(root, 'take-back', taking);
  const id = openIn(root);
  if (settled.state !== 'paused' || id === null) return settled as Exclude<Settled, { state: 'paused' }>;
  const port = portOn(root);
  const { done, gone } = await entriesOf(root, id, port);
  const stayed = await takenBack({ root, id, taking }, reverseChanges(done, batchFolder(id)));
  const rest = [...gone, ...stayed];
  await journalOf(root, id).outcome({ ended: 'closed', rest });
  closeBatch(root);
  return { state: 'closed', id, rest };
}

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
const pending = ({ change, at, written }: Done): Change[] =>
  at === change.after && (change.content === null || written) ? [] : [{ ...change, before: at }];

/** Those that can be done together, and what stands in the way of the others. */
async function parted(
  changes: readonly Change[],
  port: Port,
): Promise<{ readonly can: readonly Change[]; readonly rest: readonly Rest[] }> {
  const rest: Rest[] = [];
  let can = changes;
  for (;;) {
    const { faults } = await checkExpectations(can, port);
    const hindrances = faults.length > 0 ? faults : orderChanges(can).faults;
    if (hindrances.length === 0) return { can, rest };
    const keys = new Set(hindrances.map((fault) => fault.key));
    for (const { key, path, code } of hindrances) if (!rest.some((r) => r.key === key)) rest.push({ key, path, code });
    const left = can.filter((change) => !keys.has(change.key));
    // A fault that names no change of these would be met for ever.
    if (left.length === can.length) return { can: [], rest };
    can = left;
  }
}

interface Closing {
  readonly root: Root;
  readonly id: string;
  readonly taking: { readonly by: string; readonly at: string };
}

/** Where a whole volume refuses each round ends at its first step. */
const MOST_ROUNDS = 50;

const stayedAt = (key: string, path: string | null): Rest => ({ key, path: path ?? '', code: 'changed' });

/** Round by round, each without what stopped the one before; what stayed. */
async function takenBack(closing: Closing, changes: readonly Change[], round = 1): Promise<readonly Rest[]> {
  const { root, id, taking } = closing;
  const { can, rest } = await parted(changes, portOn(root));
  if (can.length === 0) return rest;
  if (round > MOST_ROUNDS) return [...rest, ...can.map(({ key, before, after }) => stayedAt(key, before ?? after))];
  const own = `${id}-close-${round}`;
  dropBatch(root, own);
  const port = portOn(root);
  const outcome = await applyBatch(
    { id: own, what: 'take-back', ...taking, undoes: id, changes: can, folder: batchFolder(own) },
    port,
    journalBeside(root, own),
    withoutContents,
  );
  if (outcome.state === 'done') return rest;
  const record = readBatch(root, own);
  if (outcome.state === 'refused' || record === null)
    return [...rest, ...can.map(({ key, before, after }) => stayedAt(key, before ?? after))];
  const done = doneAfter(record.intents, outcome.done, leftOf(record.outcomes), batchFolder(own));
  const left = done.flatMap(pending);
  const stopped = left.find(({ before, after }) => before === outcome.at || after === outcome.at) ?? left[0];
  if (stopped === undefined) return rest;
  const stays = { key: stopped.key, path: outcome.at, code: outcome.code };
  const others = left.filter((change) => change !== stopped);
  return [...rest, stays, ...(await takenBack(closing, others, round + 1))];
}
