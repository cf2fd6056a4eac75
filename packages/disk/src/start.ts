/**
 * Makes a new project's folder whole or not at all: everything is written into a folder of its own beside the target,
 * which then takes
 * the target's name in one move. A crash leaves only that folder, which says by its name what it is; `sweep` removes
 * it.
 */
import { existsSync, lstatSync, mkdirSync, readdirSync, renameSync, rmdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import {
  type Cancellation,
  codeOf,
  type MakingStep,
  type NewContent,
  performSteps,
  takeBack,
} from '@nesting/core/change';
import { diskPort } from './disk-port';

/** In front of the names of unfinished projects' folders. */
export const UNFINISHED = '.nesting-unfinished-';

export interface StartOnDisk {
  /** Absolute, and already checked to be the volume's root. */
  readonly parent: string;
  readonly folder: string;
  /** Tells this start from others: a project's id. */
  readonly project: string;
  readonly steps: readonly MakingStep[];
  readonly bytesOf: (content: NewContent) => Uint8Array | Promise<Uint8Array>;
  readonly cancel?: Cancellation;
  readonly progress?: (done: number, all: number) => void;
}

export type StartOutcome =
  | { readonly ok: true; readonly root: string }
  | { readonly ok: false; readonly code: string; readonly at: string; readonly stayed: readonly string[] };

export async function startOnDisk(start: StartOnDisk): Promise<StartOutcome> {
  const target = join(start.parent, start.folder);
  const unfinished = join(start.parent, UNFINISHED + start.project);
  if (standsThere(target)) return { ok: false, code: 'EEXIST', at: '', stayed: [] };
  try {
    mkdirSync(unfinished);
  } catch (error) {
    return { ok: false, code: codeOf(error), at: '', stayed: [] };
  }
  const port = diskPort(unfinished);
  const performed = await performSteps(start.steps, port, {
    bytesOf: start.bytesOf,
    yieldNow: () => new Promise((resolve) => setImmediate(resolve)),
    ...(start.cancel && { cancel: start.cancel }),
    ...(start.progress && { progress: start.progress }),
  });
  const failed =
    performed.failed !== null
      ? { code: performed.failed.code, at: performed.failed.step.path }
      : performed.cancelled
        ? { code: 'CANCELLED', at: '' }
        : rename(unfinished, target);
  if (failed === null) return { ok: true, root: target };
  const stayed = await takeBack(performed.done, port);
  try {
    rmdirSync(unfinished);
  } catch {
    stayed.push('');
  }
  return { ok: false, ...failed, stayed: stayed.map((path) => join(UNFINISHED + start.project, path)) };
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
  const root = join(parent, folder);
  if (!standsThere(root) || lstatSync(root).isSymbolicLink()) return [];
  const stayed = await takeBack(steps, diskPort(root));
  try {
    rmdirSync(root);
  } catch {
    stayed.push('');
  }
  return stayed.map((path) => join(folder, path));
}

/** Whether anything has this name, a broken link too. */
function standsThere(path: string): boolean {
  try {
    lstatSync(path);
    return true;
  } catch {
    return false;
  }
}

/**
 * A rename over an existing folder is silent where that one is empty, so the name is claimed first: claiming fails when
 * it is taken.
 */
function rename(from: string, to: string): { code: string; at: string } | null {
  try {
    mkdirSync(to);
  } catch (error) {
    return { code: codeOf(error), at: '' };
  }
  try {
    renameSync(from, to);
    return null;
  } catch (error) {
    rmdirSync(to);
    return { code: codeOf(error), at: '' };
  }
}

/**
 * Removes what a crashed start left on a volume. Only folders of our own name, and only those `isOurs` knows as not
 * finished.
 */
export function sweep(parent: string, isOurs: (project: string) => boolean): string[] {
  if (!existsSync(parent)) return [];
  const left = readdirSync(parent, { withFileTypes: true }).filter(
    (e) => e.isDirectory() && e.name.startsWith(UNFINISHED) && isOurs(e.name.slice(UNFINISHED.length)),
  );
  for (const entry of left) rmSync(join(parent, entry.name), { recursive: true });
  return left.map((e) => e.name);
}
