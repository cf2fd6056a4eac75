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
import { type Port, type Standing, soon } from './port';
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

/** Places whose picture a step changes. */
function touched(step: Step, folder: string): readonly string[] {
  if (step.do === 'move') return [step.from, step.path];
  if (step.do === 'write') return [readyPath(step, folder), step.path];
  return step.do === 'unwrite' ? [step.path, keptPath(step, folder)] : [step.path];
}

/** Proportional to the square of `group`, which bounds how many steps can be done and not written down. */
export async function stepsDone(
  written: Written,
  outcomes: readonly Outcome[],
  folder: string,
  port: Port,
  group: number,
): Promise<Progress> {
  const { steps } = written;
  const known = outcomes.reduce((most, o) => ('done' in o ? Math.max(most, o.done) : most), 0);
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
