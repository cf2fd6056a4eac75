/**
 * A batch: changes ordered, everything they expect looked at, new contents laid ready beside, intents written down, and
 * then step after step.
 * Until the first step nothing of the project is touched: a full disk, a file changed since, a name taken meanwhile
 * stop the batch before it began.
 * A step that fails later pauses it: it is gone on with, or taken back.
 */
import { elementAt } from '../element';
import { join, nameOf, parentOf } from '../listing/entry';
import type { Change, Expected, Step } from './change';
import { type Journal, KEPT, keptName, NEW } from './journal';
import { type OrderFault, orderChanges } from './order';
import { codeOf, type PerformOptions, type Port, STEPS_BETWEEN_YIELDS, type Standing, soon } from './port';

export interface Batch {
  readonly id: string;
  readonly what: string;
  readonly by: string;
  readonly at: string;
  readonly undoes: string | null;
  readonly changes: readonly Change[];
  /** Its own folder, from the root. */
  readonly folder: string;
}

export type ApplyFault =
  | OrderFault
  /**
   * Not there any more; something else than it was; otherwise than when the plan was made; its new name is taken; it
   * cannot be looked at, or not be laid ready.
   */
  | {
      readonly code: 'gone' | 'other-kind' | 'changed' | 'taken' | 'unseen' | 'not-ready';
      readonly key: string;
      readonly path: string;
      readonly detail?: string;
    };

export type BatchOutcome =
  | { readonly state: 'done'; readonly left: Left }
  /** Nothing was touched. */
  | { readonly state: 'refused'; readonly faults: readonly ApplyFault[] }
  | { readonly state: 'paused'; readonly done: number; readonly at: string; readonly code: string };

export type Left = Readonly<Record<string, Expected>>;

export async function applyBatch(
  batch: Batch,
  port: Port,
  journal: Journal,
  options: PerformOptions,
): Promise<BatchOutcome> {
  const { steps, faults: unordered } = orderChanges(batch.changes);
  if (unordered.length > 0) return { state: 'refused', faults: unordered };
  const looked = await checkExpectations(batch.changes, port);
  if (looked.faults.length > 0) return { state: 'refused', faults: looked.faults };
  const unready = await layReady(steps, batch.folder, port, options);
  if (unready !== null) return { state: 'refused', faults: [unready] };
  const { id, what, by, at, undoes, changes, folder } = batch;
  await journal.begin({
    format: 'nesting/batch',
    formatVersion: 1,
    id,
    what,
    by,
    at,
    undoes,
    changes,
    steps,
    ids: looked.ids,
  });
  return runSteps(steps, 0, folder, port, journal, options);
}

/**
 * Everything a batch expects, before its first step. Folders are listed once; single files are looked at only where
 * more than their being there matters.
 */
export async function checkExpectations(
  changes: readonly Change[],
  port: Port,
): Promise<{ readonly faults: readonly ApplyFault[]; readonly ids: Readonly<Record<string, string>> }> {
  const faults: ApplyFault[] = [];
  const ids: Record<string, string> = {};
  const befores = new Set<string>();
  const afters = new Set<string>();
  for (const { before, after } of changes) {
    if (before !== null && before !== after) befores.add(before);
    if (after !== null) afters.add(after);
  }
  const here = placesBefore(changes);
  const listed = new Map<string, ReadonlyMap<string, Standing['kind']> | null>();
  for (const change of changes) {
    const { key, before, after, what } = change;
    try {
      if (before !== null) {
        // Who takes another's place, or gives its own up, must be told from it after a crash.
        const matters =
          change.expects !== undefined ||
          what === 'folder' ||
          (after !== null && befores.has(after)) ||
          afters.has(before);
        let fault: ApplyFault['code'] | null;
        if (matters) fault = await lookedFault(change, before, port, ids);
        else {
          const there = kindIn(listed, before, port);
          fault = kindFault(soon(there) ? await there : there, what);
        }
        if (fault !== null) faults.push({ code: fault, key, path: before } as ApplyFault);
      }
      if (after !== null && after !== before) {
        const place = here(after);
        if (place === null || befores.has(place)) continue;
        const there = kindIn(listed, place, port);
        if ((soon(there) ? await there : there) !== null) faults.push({ code: 'taken', key, path: after });
      }
    } catch (error) {
      faults.push({ code: 'unseen', key, path: before ?? after ?? '', detail: codeOf(error) });
    }
  }
  return { faults, ids };
}

async function lookedFault(
  change: Change,
  before: string,
  port: Port,
  ids: Record<string, string>,
): Promise<ReturnType<typeof faultOf> | 'gone'> {
  const there = await lookSoon(port, before);
  if (there === null) return 'gone';
  const fault = faultOf(change, there);
  if (fault === null && there.id !== '') ids[change.key] = there.id;
  return fault;
}

/** What is at a path by its folder's listing; a promise only where the listing is one. */
function kindIn(
  listed: Map<string, ReadonlyMap<string, Standing['kind']> | null>,
  path: string,
  port: Port,
): Standing['kind'] | null | Promise<Standing['kind'] | null> {
  const folder = parentOf(path);
  const known = listed.get(folder);
  if (known !== undefined) return known?.get(nameOf(path)) ?? null;
  const taken = (names: ReadonlyMap<string, Standing['kind']> | null) => {
    listed.set(folder, names);
    return names?.get(nameOf(path)) ?? null;
  };
  const listing = port.list(folder);
  return soon(listing) ? listing.then(taken) : taken(listing);
}

const kindFault = (there: Standing['kind'] | null, what: Change['what']): 'gone' | 'other-kind' | null =>
  there === null ? 'gone' : there !== what ? 'other-kind' : null;

function faultOf({ what, expects }: Change, there: Standing): 'gone' | 'other-kind' | 'changed' | null {
  if (there.kind !== what) return 'other-kind';
  // Disks keep times to different fractions of a second: a copy through another system may have lost some.
  return expects !== undefined && (there.size !== expects.size || Math.abs(there.modified - expects.modified) > 1)
    ? 'changed'
    : null;
}

/** Where a path of the world after lies in the world before; `null` in a folder that is only made. */
function placesBefore(changes: readonly Change[]): (after: string) => string | null {
  const byAfter = new Map(
    changes.flatMap((c) => (c.what === 'folder' && c.after !== null ? [[c.after, c.before] as const] : [])),
  );
  const known = new Map<string, string | null>([['', '']]);
  const folder = (path: string): string | null => {
    const was = known.get(path);
    if (was !== undefined) return was;
    const own = byAfter.get(path);
    const above = own === undefined ? folder(parentOf(path)) : null;
    const found =
      own === undefined ? (above === null ? null : join(above, path.slice(path.lastIndexOf('/') + 1))) : own;
    known.set(path, found);
    return found;
  };
  return (after) => {
    const above = folder(parentOf(after));
    return above === null ? null : join(above, after.slice(after.lastIndexOf('/') + 1));
  };
}

async function lookSoon(port: Port, path: string): Promise<Standing | null> {
  const there = port.look(path);
  return soon(there) ? await there : there;
}

/** New contents are written beside first: each then takes its place whole, in one move. */
async function layReady(
  steps: readonly Step[],
  folder: string,
  port: Port,
  options: PerformOptions,
): Promise<ApplyFault | null> {
  for (const step of steps) {
    if (step.do !== 'write' || step.content.kind === 'set-aside') continue;
    try {
      await port.write(readyPath(step, folder), await options.bytesOf(step.content));
    } catch (error) {
      return { code: 'not-ready', key: step.key, path: step.path, detail: codeOf(error) };
    }
  }
  return null;
}

/** Where what is written lies ready. */
export const readyPath = (step: Extract<Step, { do: 'write' }>, folder: string): string =>
  step.content.kind === 'set-aside' ? step.content.path : join(join(folder, NEW), keptName(step.key));

export async function runSteps(
  steps: readonly Step[],
  from: number,
  folder: string,
  port: Port,
  journal: Journal,
  options: Omit<PerformOptions, 'bytesOf'>,
): Promise<BatchOutcome> {
  const left: Record<string, Expected> = {};
  let since: Record<string, Expected> = {};
  const pause = async (done: number, at: string, code: string): Promise<BatchOutcome> => {
    await journal.outcome({ done, left: since });
    await journal.outcome({ ended: 'paused', why: `${code} ${at}` });
    return { state: 'paused', done, at, code };
  };
  for (let i = from; i < steps.length; i++) {
    const step = elementAt(steps, i);
    if (options.cancel?.aborted) return pause(i, step.path, 'CANCELLED');
    try {
      const doing = doStep(step, folder, port);
      if (soon(doing)) await doing;
      if (step.do === 'write') {
        const there = await lookSoon(port, step.path);
        if (there !== null) left[step.key] = since[step.key] = { size: there.size, modified: there.modified };
      }
    } catch (error) {
      return pause(i, step.path, codeOf(error));
    }
    if ((i + 1) % journal.group === 0) {
      const noting = journal.outcome({ done: i + 1, left: since });
      if (soon(noting)) await noting;
      since = {};
    }
    if ((i + 1) % STEPS_BETWEEN_YIELDS === 0) {
      options.progress?.(i + 1, steps.length);
      if (options.yieldNow) await options.yieldNow();
    }
  }
  await journal.outcome({ done: steps.length, left: since });
  await journal.outcome({ ended: 'done' });
  options.progress?.(steps.length, steps.length);
  return { state: 'done', left };
}

/** Each is one call that is done whole or not at all: after a crash nothing is half there. */
function doStep(step: Step, folder: string, port: Port): void | Promise<void> {
  switch (step.do) {
    case 'make':
      return port.make(step.path);
    case 'unmake':
      return port.unmake(step.path);
    case 'move':
      return port.move(step.from, step.path);
    case 'write':
      return port.move(readyPath(step, folder), step.path);
    case 'unwrite':
      return port.move(step.path, join(join(folder, KEPT), keptName(step.key)));
  }
}
