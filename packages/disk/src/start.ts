/**
 * Makes a new project's folder whole or not at all: everything is written into a folder of its own beside the target,
 * which then takes the target's name in one move. A crash leaves only that folder, which says by its name what it is;
 * `sweep` removes it.
 */
import {
  type ApplyOptions,
  applyBatch,
  type BatchOutcome,
  type Change,
  codeOf,
  HOME,
  home,
  NO_JOURNAL,
  type Place,
  takeBackMade,
  VOLUME,
} from '@nesting/core/change';
import { join } from '@nesting/core/listing';
import { projectFolderChange } from '@nesting/core/planners';
import { folderNames } from './roots/own-files';
import { makeFolder, onlyHome, portOn, removeFolder, standingAt } from './roots/port';
import { removeTree } from './roots/remove-tree';
import type { Root } from './roots/root';

/** In front of the names of unfinished projects' folders. */
export const UNFINISHED = '.nesting-unfinished-';

export interface StartOnDisk extends ApplyOptions {
  /** The volume's root. */
  readonly parent: Root;
  readonly folder: string;
  /** Tells this start from others: a project's id. */
  readonly project: string;
  /** What is made in the project's folder. */
  readonly changes: readonly Change[];
}

export type StartOutcome =
  | { readonly ok: true }
  | { readonly ok: false; readonly code: string; readonly at: string; readonly stayed: readonly string[] };

export async function startOnDisk(start: StartOnDisk): Promise<StartOutcome> {
  const { parent, folder, project } = start;
  const unfinished = UNFINISHED + project;
  try {
    if (standingAt(parent, folder) !== null) return { ok: false, code: 'EEXIST', at: '', stayed: [] };
    makeFolder(parent, unfinished);
  } catch (error) {
    return { ok: false, code: codeOf(error), at: '', stayed: [] };
  }
  const root = parent.sub(unfinished);
  try {
    return await writeUnfinished(start, root, unfinished);
  } finally {
    root.close();
  }
}

async function writeUnfinished(start: StartOnDisk, root: Root, unfinished: string): Promise<StartOutcome> {
  const { parent, project, folder, changes, ...options } = start;
  const roots = new Map([
    [HOME, root],
    [VOLUME, parent],
  ]);
  const named = projectFolderChange(unfinished, folder);
  const batch = { id: project, what: 'start', by: '', at: '', undoes: null, changes: [...changes, named], folder: '' };
  const port = portOn(roots);
  const outcome = await applyBatch({ ...batch, fresh: new Set([HOME]) }, port, NO_JOURNAL, {
    yieldNow: () => new Promise((resolve) => setImmediate(resolve)),
    ...options,
  });
  if (outcome.state === 'done') return { ok: true };
  const stayed = (await takeBackMade(changes, port)).map(({ path }) => path);
  if (!isRemoved(parent, unfinished)) stayed.push('');
  return { ok: false, ...failureOf(outcome), stayed: stayed.map((path) => within(unfinished, path)) };
}

/** Why it was not done, and where in the project's folder. */
export function failureOf(outcome: Exclude<BatchOutcome, { state: 'done' }>): { code: string; at: string } {
  const [fault] = outcome.state === 'refused' ? outcome.faults : [];
  const code = outcome.state === 'paused' ? outcome.code : detailOf(fault);
  const at: Place = (outcome.state === 'paused' ? outcome.at : fault?.at) ?? home('');
  return { code: code === 'taken' ? 'EEXIST' : code, at: at.root === HOME ? at.path : '' };
}

const detailOf = (fault: Extract<BatchOutcome, { state: 'refused' }>['faults'][number] | undefined): string =>
  (fault !== undefined && 'detail' in fault ? fault.detail : fault?.code) ?? '';

/**
 * Takes a whole start back again, because another part of it failed: only what it made, and only where nothing else is
 * in it by now.
 */
export async function takeBackStart({
  parent,
  folder,
  changes,
}: Pick<StartOnDisk, 'parent' | 'folder' | 'changes'>): Promise<readonly string[]> {
  if (standingAt(parent, folder)?.kind !== 'folder') return [];
  const root = parent.sub(folder);
  try {
    const stayed = (await takeBackMade(changes, portOn(onlyHome(root)))).map(({ path }) => path);
    if (!isRemoved(parent, folder)) stayed.push('');
    return stayed.map((path) => within(folder, path));
  } finally {
    root.close();
  }
}

const within = (folder: string, path: string): string => (path === '' ? folder : join(folder, path));

/** Whether a folder could be removed: only an empty one can. */
function isRemoved(parent: Root, folder: string): boolean {
  try {
    removeFolder(parent, folder);
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
