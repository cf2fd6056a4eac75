/**
 * A batch: changes lowered and ordered, everything they expect looked at, new contents laid ready beside, intents
 * written down, and then step after step.
 *
 * Until the first step nothing but the batch's own folders is touched: a full disk, a file changed since, a name taken
 * meanwhile stop the batch before it began. A step that fails later pauses it: it is gone on with, or taken back.
 */
import { elementAt } from '../element';
import { type Change, type Expected, isAsExpected, isNew, type Step } from './change';
import type { ApplyFault } from './fault';
import { type Journal, keptPlace, readyPlace } from './journal';
import { bystanders, checkExpectations } from './look';
import { lowerChanges } from './lower';
import { orderChanges } from './order';
import { HOME, type Place, type RootId } from './place';
import { type ApplyOptions, codeOf, lookAt, type Port, STEPS_BETWEEN_YIELDS, soon } from './port';

export interface Batch {
  readonly id: string;
  readonly what: string;
  readonly by: string;
  readonly at: string;
  readonly undoes: string | null;
  readonly request?: string | undefined;
  readonly changes: readonly Change[];
  /** Its own folder, by the same path in each root. */
  readonly folder: string;
  /** Roots that nobody else can be in, as the batch itself makes them: contents are written in their places. */
  readonly fresh?: ReadonlySet<RootId> | undefined;
}

export type BatchOutcome =
  | { readonly state: 'done'; readonly left: Left }
  /** Nothing was touched. */
  | { readonly state: 'refused'; readonly faults: readonly ApplyFault[] }
  | { readonly state: 'paused'; readonly done: number; readonly at: Place; readonly code: string };

export type Left = Readonly<Record<string, Expected>>;

export async function applyBatch(
  batch: Batch,
  port: Port,
  journal: Journal,
  options: ApplyOptions,
): Promise<BatchOutcome> {
  const lowered = await lowerChanges(batch.changes, port);
  if (lowered.faults.length > 0) return { state: 'refused', faults: lowered.faults };
  const { changes } = lowered;
  const ordered = orderChanges(changes, port);
  if (ordered.faults.length > 0) return { state: 'refused', faults: ordered.faults };
  const looked = await checkExpectations(changes, port);
  if (looked.faults.length > 0) return { state: 'refused', faults: looked.faults };
  const steps = writtenInPlace(ordered.steps, batch.fresh);
  const { id, what, by, at, undoes, request, folder } = batch;
  const asked = request === undefined ? {} : { request };
  const unready = await layReady(steps, folder, port, options);
  if (unready !== null) return { state: 'refused', faults: [unready] };
  const others = await bystanders(changes, steps, port);
  await journal.begin({ id, what, by, at, undoes, ...asked, changes, steps, ids: looked.ids, others });
  const ready = await factsOfReady(steps, folder, port);
  if (Object.keys(ready).length > 0) await journal.outcome({ done: 0, left: ready });
  return runSteps({ steps, from: 0, folder, port, journal }, options);
}

/** Where nobody looks on, a file need not get to its place whole. */
function writtenInPlace(steps: readonly Step[], fresh: Batch['fresh']): readonly Step[] {
  if (fresh === undefined || fresh.size === 0) return steps;
  return steps.map((step) =>
    step.do === 'place' && fresh.has(step.at.root) && isNew(step.content)
      ? { id: step.id, do: 'write', at: step.at, content: step.content }
      : step,
  );
}

/** New contents are written beside first: each then takes its place whole, in one move. */
async function layReady(
  steps: readonly Step[],
  folder: string,
  port: Port,
  options: ApplyOptions,
): Promise<ApplyFault | null> {
  let isLaid = false;
  for (const step of steps) {
    if (step.do !== 'place' || !isNew(step.content)) continue;
    try {
      await port.write(readyPlace(step.id, step.at, step.content, folder), await options.bytesOf(step.content));
      isLaid = true;
    } catch (error) {
      await port.sync();
      return { code: 'not-ready', id: step.id, at: step.at, detail: codeOf(error) };
    }
  }
  if (isLaid) await port.sync();
  return null;
}

/** What lies ready is known before it is in its place: whatever is otherwise there after a crash, somebody changed. */
async function factsOfReady(steps: readonly Step[], folder: string, port: Port): Promise<Left> {
  const facts: Record<string, Expected> = {};
  for (const step of steps) {
    if (step.do !== 'place' || !isNew(step.content)) continue;
    const there = await lookAt(port, readyPlace(step.id, step.at, step.content, folder));
    if (there !== null) facts[step.id] = { size: there.size, modified: there.modified };
  }
  return facts;
}

export interface Run {
  readonly steps: readonly Step[];
  /** How many of them are done. */
  readonly from: number;
  /** The batch's own, in each root. */
  readonly folder: string;
  readonly port: Port;
  readonly journal: Journal;
}

export async function runSteps(
  { steps, from, folder, port, journal }: Run,
  options: Partial<ApplyOptions>,
): Promise<BatchOutcome> {
  const left: Record<string, Expected> = {};
  let since: Record<string, Expected> = {};
  let proved: Record<string, string> = {};
  const group = port.hasIdentities ? journal.group : 1;
  const pause = async (done: number, at: Place, code: string): Promise<BatchOutcome> => {
    await port.sync();
    await journal.outcome({ done, left: since, ...provedNow(proved) });
    await journal.outcome({ ended: 'paused', why: `${code} ${at.path}` });
    return { state: 'paused', done, at, code };
  };
  let last: RootId | null = null;
  for (let i = from; i < steps.length; i++) {
    const step = elementAt(steps, i);
    options.sure?.();
    if (options.cancel?.aborted) return pause(i, step.at, 'CANCELLED');
    try {
      // What is done in one root stands there before the next one is touched.
      if (last !== null && last !== step.at.root) await port.sync();
      last = step.at.root;
      const doing = doStep(step, folder, port, options);
      const hash = soon(doing) ? await doing : null;
      if (typeof hash === 'string') proved[step.id] = hash;
      const written = writtenBy(step, folder);
      const there = written === null ? null : await lookAt(port, written);
      if (there !== null) left[step.id] = since[step.id] = { size: there.size, modified: there.modified };
    } catch (error) {
      // Whoever lost the batch in the middle of a long copy writes nothing more down.
      options.sure?.();
      return pause(i, step.at, codeOf(error));
    }
    if ((i + 1) % group === 0 || step.do === 'copy' || step.do === 'rewrite') {
      // What is written down at home as done elsewhere must be there.
      if (port.reach(step.at.root, HOME) === 'nothing') await port.sync();
      const noting = journal.outcome({ done: i + 1, left: since, ...provedNow(proved) });
      if (soon(noting)) await noting;
      since = {};
      proved = {};
    }
    options.progress?.(i + 1, steps.length);
    if (options.yieldNow && (i + 1) % STEPS_BETWEEN_YIELDS === 0) await options.yieldNow();
  }
  await port.sync();
  await journal.outcome({ done: steps.length, left: since });
  await journal.outcome({ ended: 'done' });
  return { state: 'done', left };
}

/** Most batches copy nothing. */
const provedNow = (proved: Readonly<Record<string, string>>) => (Object.keys(proved).length === 0 ? {} : { proved });

/** Where a file is new after a step. */
function writtenBy(step: Step, folder: string): Place | null {
  switch (step.do) {
    case 'place':
      return step.at;
    case 'copy':
    case 'rewrite':
      return readyPlace(step.id, step.at, step.content, folder);
    default:
      return null;
  }
}

/** Each is one call that is done whole or not at all: after a crash nothing is half there. A copy gives its hash. */
function doStep(step: Step, folder: string, port: Port, options: Partial<ApplyOptions>): unknown {
  switch (step.do) {
    case 'copy':
      return copied(step, step.content.from, folder, port);
    case 'rewrite':
      return copied(step, step.from, folder, port);
    case 'make':
      return port.make(step.at);
    case 'write':
      return written(step, port, options);
    case 'place':
      return port.move(readyPlace(step.id, step.at, step.content, folder), step.at);
    case 'move':
      return port.move(step.from, step.at);
    case 'set-aside':
      return port.move(step.at, keptPlace(step.id, step.at, folder));
    case 'remove':
      return removed(step, port);
    case 'unmake':
      return port.unmake(step.at);
  }
}

const failed = (code: string): Error => Object.assign(new Error(code), { code });

async function copied(
  step: Extract<Step, { do: 'copy' | 'rewrite' }>,
  from: Place,
  folder: string,
  port: Port,
): Promise<string | undefined> {
  const { content, expects } = step;
  const read = await port.copy(from, readyPlace(step.id, step.at, content, folder), content.patches);
  if (!isAsExpected(read, expects)) throw failed('ECHANGED');
  return read.sha256;
}

/** A copy that was made is no reason to end what somebody worked on since. */
async function removed({ at, expects }: Extract<Step, { do: 'remove' }>, port: Port): Promise<void> {
  const there = await lookAt(port, at);
  if (there === null || !isAsExpected(there, expects)) throw failed('ECHANGED');
  await port.remove(at);
}

async function written(
  { at, content }: Extract<Step, { do: 'write' }>,
  port: Port,
  { bytesOf }: Partial<ApplyOptions>,
): Promise<void> {
  if (bytesOf === undefined) throw failed('ENOCONTENT');
  await port.write(at, await bytesOf(content));
}
