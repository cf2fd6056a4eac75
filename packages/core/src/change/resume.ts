/**
 * After a crash: how far a batch came, by what really is at both ends of its steps. Steps are done one after another,
 * so what is done is always the
 * first so many; each number of them leaves another picture on the disk, and the picture that is there tells the
 * number.
 */
import { present, valueAt } from '../element';
import { join, parentOf } from '../listing/entry';
import { type Left, readyPath } from './apply';
import type { Step } from './change';
import { type Intents, KEPT, keptName, type Outcome } from './journal';
import { MemoryDisk } from './memory-disk';
import { CLAIM_TIME, type Port, type Standing, soon } from './port';
import type { Done } from './reverse';

export interface Progress {
  readonly done: number;
  /** Whether the disk is in the state that so many steps leave; else somebody changed what the batch had in hand. */
  readonly clear: boolean;
}

type Written = Pick<Intents, 'changes' | 'steps' | 'ids'>;

/** The batch's entries alone, on a disk in memory. */
class Rehearsal {
  readonly disk = new MemoryDisk();
  /** What was there before, what is made and what lies ready, by the change's key. */
  readonly there = new Map<string, string>();
  readonly fresh = new Map<string, string>();
  /** Identities on the real disk by those in memory. */
  private readonly real = new Map<string, string>();

  constructor(
    { changes, steps, ids }: Written,
    private readonly folder: string,
  ) {
    for (const { key, before, what } of changes) {
      if (before === null) continue;
      this.there.set(key, this.disk.put(before, what));
      if (Object.hasOwn(ids, key)) this.real.set(valueAt(this.there, key), present(ids[key]));
    }
    for (const step of steps)
      if (step.do === 'write') this.fresh.set(step.key, this.disk.put(readyPath(step, folder), 'file'));
  }

  do(step: Step): void {
    const above = parentOf(step.path);
    if (above !== '') this.disk.put(above, 'folder');
    switch (step.do) {
      case 'make':
        return void this.fresh.set(step.key, this.disk.put(step.path, 'folder'));
      case 'unmake':
        this.disk.unmake(step.path);
        return;
      case 'move':
        this.disk.move(step.from, step.path);
        return;
      case 'write':
        this.disk.move(readyPath(step, this.folder), step.path);
        return;
      case 'unwrite':
        this.disk.put(join(this.folder, KEPT), 'folder');
        this.disk.move(step.path, keptPath(step, this.folder));
        return;
    }
  }

  /** Whether what is at a path on the real disk is what is there in memory. */
  agrees(path: string, actual: Standing | null): boolean {
    const expected = this.disk.look(path);
    if (expected === null || actual === null) return (expected === null) === (actual === null);
    const id = this.real.get(expected.id);
    return expected.kind === actual.kind && (id === undefined || actual.id === '' || id === actual.id);
  }
}

const keptPath = (step: Step, folder: string): string => join(join(folder, KEPT), keptName(step.key));

/** From where to where a step takes something that is there; `null` where it makes or ends it. */
function moveOf(step: Step, folder: string): readonly [from: string, to: string] | null {
  switch (step.do) {
    case 'move':
      return [step.from, step.path];
    case 'write':
      return [readyPath(step, folder), step.path];
    case 'unwrite':
      return [step.path, keptPath(step, folder)];
    default:
      return null;
  }
}

/** Places whose picture a step changes. */
const touched = (step: Step, folder: string): readonly string[] => moveOf(step, folder) ?? [step.path];

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
  const look = async (path: string) => {
    const there = port.look(path);
    return soon(there) ? await there : there;
  };
  for (const step of steps.slice(known, known + group)) {
    const move = moveOf(step, folder);
    const [old, made] = move === null ? [null, null] : [await look(move[0]), await look(move[1])];
    if (move === null || old === null || made === null || made.id === '' || made.kind !== old.kind) continue;
    if (made.id === old.id) await port.unwrite(move[0]);
    // What the batch itself has in hand claims nothing.
    else if (entries.has(made.id)) continue;
    else if (made.kind === 'file' && made.size === 0 && made.modified === CLAIM_TIME) await port.unwrite(move[1]);
    else if (made.kind === 'folder' && (await port.list(move[1]))?.size === 0) await port.unmake(move[1]);
  }
}

const knownDone = (outcomes: readonly Outcome[]): number =>
  outcomes.reduce((most, o) => ('done' in o ? Math.max(most, o.done) : most), 0);

/** Proportional to the square of `group`, which bounds how many steps can be done and not written down. */
export async function stepsDone(
  written: Written,
  outcomes: readonly Outcome[],
  folder: string,
  port: Port,
  group: number,
): Promise<Progress> {
  const { steps } = written;
  const known = knownDone(outcomes);
  const window = steps.slice(known, known + group);
  const actual = new Map<string, Standing | null>();
  for (const path of new Set(window.flatMap((step) => touched(step, folder)))) {
    const there = port.look(path);
    actual.set(path, soon(there) ? await there : there);
  }
  const rehearsal = new Rehearsal(written, folder);
  for (const step of steps.slice(0, known)) rehearsal.do(step);
  let best = { done: known, mistakes: Number.POSITIVE_INFINITY };
  for (let i = 0; ; i++) {
    let mistakes = 0;
    for (const [path, there] of actual) if (!rehearsal.agrees(path, there)) mistakes++;
    if (mistakes < best.mistakes) best = { done: known + i, mistakes };
    const step = window[i];
    if (mistakes === 0 || step === undefined) break;
    rehearsal.do(step);
  }
  return { done: best.done, clear: best.mistakes === 0 };
}

/** Where every entry is after the first so many steps. */
export function doneAfter(written: Written, count: number, left: Left, folder: string): Done[] {
  const rehearsal = new Rehearsal(written, folder);
  const done = written.steps.slice(0, count);
  for (const step of done) rehearsal.do(step);
  const isWritten = new Set(done.flatMap((s) => (s.do === 'write' ? [s.key] : [])));
  const isGone = new Set(done.flatMap((s) => (s.do === 'unwrite' ? [s.key] : [])));
  const places = rehearsal.disk.places();
  return written.changes.map((change): Done => {
    const { key, before, after, what } = change;
    const id = rehearsal.there.get(key) ?? (what === 'folder' ? rehearsal.fresh.get(key) : undefined);
    // Contents are written last, in their place.
    const at = isWritten.has(key) ? after : isGone.has(key) || id === undefined ? null : (places.get(id) ?? null);
    return {
      change: before === null && at === null ? { ...change, after: null } : change,
      at,
      written: isWritten.has(key),
      left: Object.hasOwn(left, key) ? left[key] : undefined,
    };
  });
}

/** What was said of written files, over all outcomes. */
export const leftOf = (outcomes: readonly Outcome[]): Left =>
  Object.assign({}, ...outcomes.map((o) => ('left' in o ? o.left : {})));
