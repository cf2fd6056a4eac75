/**
 * Where the entries of a batch are now, entry by entry: for a disk on which somebody changed what the batch had in hand,
 * so that no number of steps explains what is there.
 *
 * 1. An entry may be at each place that its change or its steps name.
 * 2. It is at the first of them that holds something of its kind, and of its identity where that is known.
 * 3. One that is at none of them is gone.
 * 4. What was written is the batch's as long as it is as it was left; a copy, where that was not written down any more,
 *    as long as it is as its original was.
 */

import type { Left } from './apply';
import { sizeAfter } from './bytes';
import type { Change, Content, Expected, Step } from './change';
import { type Intents, keptPlace, type Rest, readyPlace } from './journal';
import { home, isSamePlace, type Place, placeKey } from './place';
import { lookAt, type Port } from './port';
import { copyOf, ownValue } from './resume';
import type { Done } from './reverse';

export interface Found {
  /** Of the entries that were found, and of those that were not there before. */
  readonly done: readonly Done[];
  readonly gone: readonly Rest[];
}

export interface ToFind {
  readonly intents: Pick<Intents, 'changes' | 'ids' | 'steps'>;
  /** How many steps seem to be done: a folder that stands where one was to be made is the batch's only then. */
  readonly done: number;
  /** What written files were when they were left, as far as that was written down. */
  readonly left: Left;
  /** Of a taking back that stopped itself. */
  readonly moreSteps: readonly Step[];
  /** The batch's own, in each root. */
  readonly folder: string;
}

export async function findEntries({ intents, done, left, moreSteps, folder }: ToFind, port: Port): Promise<Found> {
  const { changes, ids, steps } = intents;
  const byId = new Map<string, Step[]>();
  for (const step of [...steps, ...moreSteps]) byId.set(step.id, [...(byId.get(step.id) ?? []), step]);
  const begun = new Set(steps.slice(0, done).map((step) => step.id));
  const found: Done[] = [];
  const gone: Rest[] = [];
  for (const change of changes) {
    const own = byId.get(change.id) ?? [];
    const known = { identity: ids[change.id] ?? '', left: ownValue(left, change.id) };
    const of = { change, steps: own, isBegun: begun.has(change.id), ...known, folder };
    const there = await (change.before === null ? findNew(of, port) : findOld(of, port));
    if (there.length > 0) found.push(...there);
    else gone.push({ id: change.id, at: change.after ?? change.before ?? home(''), code: 'gone' });
  }
  return { done: found, gone };
}

interface Wanted {
  readonly change: Change;
  readonly steps: readonly Step[];
  readonly isBegun: boolean;
  readonly identity: string;
  readonly left: Expected | undefined;
  readonly folder: string;
}

/** What was not there before is the batch's where it stands in its place, and nothing for it lies ready any more. */
async function findNew(of: Wanted, port: Port): Promise<Done[]> {
  const { change, steps, isBegun, folder } = of;
  const isFile = change.entry === 'file';
  const isRead = steps.some((step) => step.do === 'copy' || step.do === 'write');
  // A copy is only laid ready by a step of its own, and what is written in its place never lies ready.
  const isOurs = (isBegun || (isFile && !isRead)) && !(isFile && (await isReady(steps, folder, port)));
  const at = isOurs ? await whereIs(of, '', port) : null;
  const left = of.left ?? (change.content?.kind === 'copy' ? await copiedAs(change.content, at, port) : undefined);
  return [{ change, at, kept: null, isWritten: at !== null && (isFile || change.content !== null), left }];
}

async function findOld(of: Wanted, port: Port): Promise<Done[]> {
  const { change, steps, isBegun, identity, folder } = of;
  const { before, after } = change;
  const [ready, kept] = [await isReady(steps, folder, port), await keptAt(change, steps, folder, port)];
  const isCopied = steps.some((step) => step.do === 'remove' || step.do === 'copy');
  if (isCopied && before !== null && after !== null && !isSamePlace(before, after)) {
    const still = kept === null ? await whereIs({ ...of, places: [before] }, identity, port) : null;
    const copy = isBegun && !ready ? await whereIs({ ...of, places: [after] }, '', port) : null;
    const itself: Done[] = still === null ? [] : [{ change, at: still, kept: null, isWritten: false }];
    if (copy === null) return kept === null ? itself : [{ change, at: null, kept, isWritten: false }];
    const left = of.left ?? (change.content === null ? await asCopied(change.expects, copy, port) : undefined);
    return [...itself, { change: still === null ? change : copyOf(change), at: copy, kept, isWritten: true, left }];
  }
  const at = kept !== null && ready ? null : await whereIs(of, kept === null ? identity : '', port);
  if (at === null && kept === null) return [];
  return [{ change, at, kept, isWritten: kept !== null && after !== null && at !== null, left: of.left }];
}

/** A copy that was written anew on the way has a time of its own: its size tells. */
async function copiedAs(
  { expects, patches }: Extract<Content, { kind: 'copy' }>,
  at: Place | null,
  port: Port,
): Promise<Expected | undefined> {
  if (patches === undefined || expects === undefined) return asCopied(expects, at, port);
  const there = at === null ? null : await lookAt(port, at);
  const size = sizeAfter(expects.size, patches);
  return { size, modified: there !== null && there.size === size ? there.modified : 0 };
}

/** Milliseconds by which a copy's time may be off its original's: some file systems count in two seconds. */
const COARSE = 2000;

/** What a copy is held to: what it is, while that is what its original was. Else somebody has written there. */
async function asCopied(original: Expected | undefined, at: Place | null, port: Port): Promise<Expected | undefined> {
  const there = original === undefined || at === null ? null : await lookAt(port, at);
  if (original === undefined || there === null) return original;
  const isSame = there.size === original.size && Math.abs(there.modified - original.modified) <= COARSE;
  return isSame ? { size: there.size, modified: there.modified } : original;
}

/** Whether what a step would place still lies ready. */
async function isReady(steps: readonly Step[], folder: string, port: Port): Promise<boolean> {
  for (const step of steps) {
    if (step.do !== 'place') continue;
    if ((await lookAt(port, readyPlace(step.id, step.at, step.content, folder))) !== null) return true;
  }
  return false;
}

async function keptAt(
  { id, before, after }: Change,
  steps: readonly Step[],
  folder: string,
  port: Port,
): Promise<Place | null> {
  const asides = steps.flatMap((step) => (step.do === 'set-aside' ? [step.at] : []));
  for (const at of [...asides, after, before]) {
    if (at === null) continue;
    const kept = keptPlace(id, at, folder);
    if ((await lookAt(port, kept)) !== null) return kept;
  }
  return null;
}

async function whereIs(
  { change, steps, places }: Wanted & { readonly places?: readonly Place[] },
  identity: string,
  port: Port,
): Promise<Place | null> {
  const { before, after, entry } = change;
  const moves = steps.flatMap((step) => (step.do === 'move' ? [step.from, step.at] : []));
  const named = [...(places ?? [before, after]), ...moves].filter((place) => place !== null);
  const asked = new Set<string>();
  for (const place of named) {
    if (asked.has(placeKey(place))) continue;
    asked.add(placeKey(place));
    const there = await lookAt(port, place);
    if (there?.kind === entry && (identity === '' || there.id === '' || there.id === identity)) return place;
  }
  return null;
}
