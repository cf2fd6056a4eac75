/**
 * Where the entries of a batch are now, entry by entry: for a disk on which somebody changed what the batch had in hand,
 * so that no number of steps explains what is there.
 *
 * 1. An entry may be at each place that its change or its steps name.
 * 2. It is at the first of them that holds something of its kind, and of its identity where that is known.
 * 3. One that is at none of them is gone.
 */
import { join } from '../listing/entry';
import { readyPath } from './apply';
import type { Change, Step } from './change';
import { type Intents, KEPT, keptName, type Rest } from './journal';
import { type Port, soon } from './port';
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
  /** Of a taking back that stopped itself. */
  readonly moreSteps: readonly Step[];
  /** The batch's own, from the root. */
  readonly folder: string;
}

export async function findEntries({ intents, done, moreSteps, folder }: ToFind, port: Port): Promise<Found> {
  const { changes, ids, steps } = intents;
  const byKey = new Map<string, Step[]>();
  for (const step of [...steps, ...moreSteps]) byKey.set(step.key, [...(byKey.get(step.key) ?? []), step]);
  const begun = new Set(steps.slice(0, done).map((step) => step.key));
  const found: Done[] = [];
  const gone: Rest[] = [];
  for (const change of changes) {
    const { key, before, after } = change;
    const own = byKey.get(key) ?? [];
    // What still lies ready was not put in place: whatever stands there is somebody else's.
    const isReady = (await Promise.all(own.map((step) => isReadyFor(step, folder, port)))).some((ready) => ready);
    if (before === null) {
      const isOurs = change.what === 'file' ? !isReady : begun.has(key);
      const at = isOurs ? await placeOf(change, own, '', port) : null;
      found.push({ change, at, written: at !== null && change.what === 'file' });
      continue;
    }
    const isKept = (await kindAt(port, join(join(folder, KEPT), keptName(key)))) !== null;
    const at = isKept && isReady ? null : await placeOf(change, own, isKept ? '' : (ids[key] ?? ''), port);
    if (at === null && !isKept) gone.push({ key, path: after ?? before, code: 'gone' });
    else found.push({ change, at, written: isKept && after !== null && at !== null });
  }
  return { done: found, gone };
}

const isReadyFor = async (step: Step, folder: string, port: Port): Promise<boolean> =>
  step.do === 'write' && (await kindAt(port, readyPath(step, folder))) !== null;

async function placeOf(change: Change, steps: readonly Step[], id: string, port: Port): Promise<string | null> {
  const { before, after, what } = change;
  const places = [before, after, ...steps.flatMap((step) => ('from' in step ? [step.from, step.path] : []))];
  for (const place of new Set(places)) {
    if (place === null) continue;
    const looked = port.look(place);
    const there = soon(looked) ? await looked : looked;
    if (there?.kind === what && (id === '' || there.id === '' || there.id === id)) return place;
  }
  return null;
}

async function kindAt(port: Port, path: string): Promise<string | null> {
  const looked = port.look(path);
  return (soon(looked) ? await looked : looked)?.kind ?? null;
}
