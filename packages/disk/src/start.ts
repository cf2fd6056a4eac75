/**
 * Makes a new project's folder whole or not at all: everything is written into a folder of its own beside the target,
 * which then takes
 * the target's name in one move. A crash leaves only that folder, which says by its name what it is; `sweep` removes
 * it.
 */
import {
  type Cancellation,
  codeOf,
  type MakingStep,
  type NewContent,
  performSteps,
  takeBack,
} from '@nesting/core/change';
import { join } from '@nesting/core/listing';
import { folderNames } from './roots/own-files';
import { portOn, standingAt } from './roots/port';
import { removeTree } from './roots/remove-tree';
import type { Root } from './roots/root';

/** In front of the names of unfinished projects' folders. */
export const UNFINISHED = '.nesting-unfinished-';

export interface StartOnDisk {
  /** The volume's root. */
  readonly parent: Root;
  readonly folder: string;
  /** Tells this start from others: a project's id. */
  readonly project: string;
  readonly steps: readonly MakingStep[];
  readonly bytesOf: (content: NewContent) => Uint8Array | Promise<Uint8Array>;
  readonly cancel?: Cancellation;
  readonly progress?: (done: number, all: number) => void;
}

export type StartOutcome =
  | { readonly ok: true }
  | { readonly ok: false; readonly code: string; readonly at: string; readonly stayed: readonly string[] };

export async function startOnDisk(start: StartOnDisk): Promise<StartOutcome> {
  const { parent, folder } = start;
  const port = portOn(parent);
  const unfinished = UNFINISHED + start.project;
  try {
    if (standingAt(parent, folder) !== null) return { ok: false, code: 'EEXIST', at: '', stayed: [] };
    await port.make(unfinished);
  } catch (error) {
    return { ok: false, code: codeOf(error), at: '', stayed: [] };
  }
  const root = parent.sub(unfinished);
  try {
    return await writeUnfinished(start, root, async () => {
      await port.move(unfinished, folder);
    });
  } finally {
    root.close();
  }
}

async function writeUnfinished(start: StartOnDisk, root: Root, place: () => Promise<void>): Promise<StartOutcome> {
  const { parent, steps, bytesOf, cancel, progress } = start;
  const port = portOn(root);
  const performed = await performSteps(steps, port, {
    bytesOf,
    yieldNow: () => new Promise((resolve) => setImmediate(resolve)),
    ...(cancel && { cancel }),
    ...(progress && { progress }),
  });
  const failed = await (performed.failed !== null
    ? { code: performed.failed.code, at: performed.failed.step.path }
    : performed.cancelled
      ? { code: 'CANCELLED', at: '' }
      : place().then(
          () => null,
          (error: unknown) => ({ code: codeOf(error), at: '' }),
        ));
  if (failed === null) return { ok: true };
  const unfinished = UNFINISHED + start.project;
  const stayed = await takeBack(performed.done, port);
  if (!(await isRemoved(parent, unfinished))) stayed.push('');
  return { ok: false, ...failed, stayed: stayed.map((path) => within(unfinished, path)) };
}

/**
 * Takes a whole start back again, because another part of it failed: only what it made, and only where nothing else is
 * in it by now.
 */
export async function takeBackStart({
  parent,
  folder,
  steps,
}: Pick<StartOnDisk, 'parent' | 'folder' | 'steps'>): Promise<readonly string[]> {
  if (standingAt(parent, folder)?.kind !== 'folder') return [];
  const root = parent.sub(folder);
  try {
    const stayed = await takeBack(steps, portOn(root));
    if (!(await isRemoved(parent, folder))) stayed.push('');
    return stayed.map((path) => within(folder, path));
  } finally {
    root.close();
  }
}

const within = (folder: string, path: string): string => (path === '' ? folder : join(folder, path));

/** Whether a folder could be removed: only an empty one can. */
async function isRemoved(parent: Root, folder: string): Promise<boolean> {
  try {
    await portOn(parent).unmake(folder);
    return true;
  } catch {
    return false;
  }
}

/**
 * Removes what a crashed start left on a volume. Only folders of our own name, and only those `isOurs` knows as not
 * finished.
 */
export function sweep(parent: Root, isOurs: (project: string) => boolean): string[] {
  const left = folderNames(parent, '').filter(
    (name) => name.startsWith(UNFINISHED) && isOurs(name.slice(UNFINISHED.length)),
  );
  for (const name of left) removeTree(parent, name);
  return left;
}
