/**
 * After a crash: how far a batch came, by what really is at both ends of its steps. Steps are done one after another,
 * so what is done is always the first so many; each number of them leaves another picture on the disks, and the picture
 * that is there tells the number.
 */
import { present, valueAt } from '../element';
import type { Left } from './apply';
import type { Change, Expected, Step } from './change';
import { type Intents, keptPlace, movement, type Outcome, readyPlace } from './journal';
import { MemoryDisk } from './memory-disk';
import { folderOf, type Place, placeKey, type RootId } from './place';
import { CLAIM_TIME, lookAt, type Port, type Standing } from './port';
import type { Done } from './reverse';

export interface Progress {
  readonly done: number;
  /** Whether the disk is in the state that so many steps leave; else somebody changed what the batch had in hand. */
  readonly clear: boolean;
}

type Written = Pick<Intents, 'changes' | 'steps' | 'ids' | 'others'>;

/** All roots as one file system: what crosses is said by the steps. */
function emptyDisk({ changes, steps }: Written): MemoryDisk {
  const roots = new Map<RootId, string>();
  const add = (place: Place | null) => place !== null && roots.set(place.root, '');
  for (const { before, after } of changes) [before, after].forEach(add);
  for (const step of steps) {
    add(step.at);
    if ('content' in step && step.content.kind === 'set-aside') add(step.content.from);
  }
  return new MemoryDisk(roots);
}

/** The batch's entries alone, on a disk in memory. */
class Rehearsal {
  readonly disk: MemoryDisk;
  /** What was there before, by the change's id. */
  readonly there = new Map<string, string>();
  /** What is made and what lies ready. */
  readonly fresh = new Map<string, string>();
  /** Identities on the real disk by those in memory. */
  private readonly real = new Map<string, string>();

  constructor(
    written: Written,
    private readonly folder: string,
  ) {
    const { changes, steps, ids, others } = written;
    this.disk = emptyDisk(written);
    for (const { at, entry, id } of others) this.real.set(this.disk.put(at, entry), id);
    const entries = new Map(changes.map(({ id, entry }) => [id, entry]));
    for (const { id, before, entry } of changes) {
      if (before === null) continue;
      this.there.set(id, this.disk.put(before, entry));
      if (Object.hasOwn(ids, id)) this.real.set(valueAt(this.there, id), present(ids[id]));
    }
    for (const { id, ...step } of steps) {
      if (step.do !== 'place' || isReadOnTheWay(step.content)) continue;
      const ready = readyPlace(id, step.at, step.content, folder);
      this.fresh.set(id, this.disk.put(ready, entries.get(id) ?? 'file'));
    }
  }

  do(step: Step): void {
    const { disk } = this;
    if (step.do === 'copy' || step.do === 'rewrite') {
      this.fresh.set(step.id, disk.put(readyPlace(step.id, step.at, step.content, this.folder), 'file'));
      return;
    }
    const above = folderOf(step.at);
    if (above.path !== '') disk.put(above, 'folder');
    switch (step.do) {
      case 'make':
      case 'write':
        this.fresh.set(step.id, disk.put(step.at, step.do === 'make' ? 'folder' : 'file'));
        return;
      case 'place':
        disk.move(readyPlace(step.id, step.at, step.content, this.folder), step.at);
        return;
      case 'move':
        disk.move(step.from, step.at);
        return;
      case 'set-aside': {
        const kept = keptPlace(step.id, step.at, this.folder);
        disk.put(folderOf(kept), 'folder');
        disk.move(step.at, kept);
        return;
      }
      case 'remove':
        disk.remove(step.at);
        return;
      case 'unmake':
        disk.unmake(step.at);
        return;
    }
  }

  /** Whether what is at a place on the real disk is what is there in memory. */
  agrees(place: Place, actual: Standing | null): boolean {
    const expected = this.disk.look(place);
    if (expected === null || actual === null) return (expected === null) === (actual === null);
    const id = this.real.get(expected.id);
    return expected.kind === actual.kind && (id === undefined || id === '' || actual.id === '' || id === actual.id);
  }
}

const isReadOnTheWay = ({ kind }: Extract<Step, { do: 'place' }>['content']): boolean =>
  kind === 'copy' || kind === 'rewritten';

/** Places whose picture a step changes. */
const touched = (step: Step, folder: string): readonly Place[] =>
  step.do === 'copy' || step.do === 'rewrite'
    ? [readyPlace(step.id, step.at, step.content, folder)]
    : (movement(step, folder) ?? [step.at]);

/**
 * A disk may take two calls for a move, and a crash may come between them. Then both names are there:
 *
 * 1. A file has them both: the old one ends.
 * 2. An empty folder, or an empty file of a time that says so, only claims the new name: it goes, and the step is still
 *    to be done.
 */
export async function endHalfMove(
  { steps, ids }: Written,
  outcomes: readonly Outcome[],
  folder: string,
  port: Port,
  group: number,
): Promise<void> {
  const known = knownDone(outcomes);
  const entries = new Set(Object.values(ids));
  for (const step of steps.slice(known, known + group)) {
    const ends = movement(step, folder);
    const [old, made] = ends === null ? [null, null] : [await lookAt(port, ends[0]), await lookAt(port, ends[1])];
    if (ends === null || old === null || made === null || made.id === '' || made.kind !== old.kind) continue;
    if (made.id === old.id) await port.remove(ends[0]);
    // What the batch itself has in hand claims nothing.
    else if (entries.has(made.id)) continue;
    else if (made.kind === 'file' && made.size === 0 && made.modified === CLAIM_TIME) await port.remove(ends[1]);
    else if (made.kind === 'folder' && (await port.list(ends[1]))?.size === 0) await port.unmake(ends[1]);
  }
}

const knownDone = (outcomes: readonly Outcome[]): number =>
  outcomes.reduce((most, o) => ('done' in o ? Math.max(most, o.done) : most), 0);

/**
 * Proportional to the square of `group`, which bounds how many steps can be done and not written down. A loss of power
 * may lose what was written down of more: where all of a group seems to be done, the next one is looked at too.
 */
export async function stepsDone(
  written: Written,
  outcomes: readonly Outcome[],
  folder: string,
  port: Port,
  group: number,
): Promise<Progress> {
  const { steps } = written;
  const rehearsal = new Rehearsal(written, folder);
  let known = knownDone(outcomes);
  for (const step of steps.slice(0, known)) rehearsal.do(step);
  for (;;) {
    const window = steps.slice(known, known + group);
    const { done, mistakes } = await doneOf(window, rehearsal, folder, port);
    known += done;
    if (mistakes > 0 || done < window.length || known === steps.length) return { done: known, clear: mistakes === 0 };
  }
}

/** How many of these steps are done, and how many places do not look like it. Rehearses them. */
async function doneOf(
  window: readonly Step[],
  rehearsal: Rehearsal,
  folder: string,
  port: Port,
): Promise<{ readonly done: number; readonly mistakes: number }> {
  const actual = new Map<string, readonly [Place, Standing | null]>();
  for (const place of window.flatMap((step) => touched(step, folder)))
    if (!actual.has(placeKey(place))) actual.set(placeKey(place), [place, await lookAt(port, place)]);
  let best = { done: 0, mistakes: Number.POSITIVE_INFINITY };
  for (let i = 0; ; i++) {
    let mistakes = 0;
    for (const [place, there] of actual.values()) if (!rehearsal.agrees(place, there)) mistakes++;
    if (mistakes < best.mistakes) best = { done: i, mistakes };
    const step = window[i];
    if (mistakes === 0 || step === undefined) return best;
    rehearsal.do(step);
  }
}

/** Where every entry is after the first so many steps. */
export function doneAfter(written: Written, count: number, left: Left, folder: string): Done[] {
  const rehearsal = new Rehearsal(written, folder);
  const placed = new Set<string>();
  const removed = new Set<string>();
  const kept = new Map<string, Place>();
  for (const step of written.steps.slice(0, count)) {
    rehearsal.do(step);
    if (step.do === 'place' || step.do === 'write') placed.add(step.id);
    if (step.do === 'remove') removed.add(step.id);
    if (step.do === 'set-aside') kept.set(step.id, keptPlace(step.id, step.at, folder));
  }
  const places = rehearsal.disk.places();
  return written.changes.flatMap((change): Done[] => {
    const { id, after, entry } = change;
    const old = kept.get(id) ?? null;
    const own = rehearsal.there.get(id) ?? (entry === 'folder' ? rehearsal.fresh.get(id) : undefined);
    const isStill = own !== undefined && old === null && !removed.has(id);
    const there = isStill ? (places.get(own) ?? null) : null;
    const is = { change, at: there, kept: old, isWritten: false, left: undefined };
    if (!placed.has(id)) return [is];
    const isThere = { change, at: after, kept: old, isWritten: true, left: ownValue(left, id) };
    // Its copy is in place, and it is still there itself.
    const isTwice = there !== null && change.before !== null;
    return isTwice ? [is, { ...isThere, change: copyOf(change) }] : [isThere];
  });
}

/** The second of two files, for a change that was stopped between a copy's taking its place and the end of the original. */
export const copyOf = (change: Change): Change => ({ ...change, id: `${change.id}+copy`, before: null });

/** What was said of one change. */
export const ownValue = (left: Left, id: string): Expected | undefined =>
  Object.hasOwn(left, id) ? left[id] : undefined;

/** What was said of written files, over all outcomes. */
export const leftOf = (outcomes: readonly Outcome[]): Left =>
  Object.assign({}, ...outcomes.map((o) => ('left' in o ? o.left : {})));
