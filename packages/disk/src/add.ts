/**
 * Adds a project's plan to a folder that is there already: what is there is kept as it is, what is missing is made. Where one step fails,
 * all that was made is taken back; what was there was never touched.
 */
import { lstatSync } from 'node:fs';
import { join } from 'node:path';
import { codeOf, parentOf, performSteps, type MakingStep, takeBack } from '@nesting/core';
import { inside } from './guard';
import { diskPort } from './port';
import type { StartOnDisk, StartOutcome } from './start';

export type AddOutcome = (Extract<StartOutcome, { ok: true }> & { readonly made: number; readonly kept: number }) | Extract<StartOutcome, { ok: false }>;

/** What stands at a path: links stand in the way, and are not followed. */
function standing(root: string, path: string): 'folder' | 'file' | 'other' | null {
  try {
    const stats = lstatSync(join(root, path));
    return stats.isDirectory() ? 'folder' : stats.isFile() ? 'file' : 'other';
  } catch {
    return null;
  }
}

export async function addToFolder({ parent, folder, steps, bytesOf, progress }: Omit<StartOnDisk, 'project' | 'cancel'>): Promise<AddOutcome> {
  const root = join(parent, folder);
  const inTheWay = steps.find((s) => {
    const there = standing(root, s.path);
    return there !== null && there !== (s.do === 'make' ? 'folder' : 'file');
  });
  // Everything is looked at before anything is made.
  if (inTheWay !== undefined) return { ok: false, code: 'ENOTDIR', at: inTheWay.path, stayed: [] };
  const linked = steps.find((s) => standing(root, parentOf(s.path)) === 'folder' && !inside(root, parentOf(s.path)).ok);
  if (linked !== undefined) return { ok: false, code: 'ELOOP', at: linked.path, stayed: [] };
  const missing: MakingStep[] = steps.filter((s) => standing(root, s.path) === null);
  const port = diskPort(root);
  const performed = await performSteps(missing, port, { bytesOf, ...(progress && { progress }) });
  if (performed.failed === null) return { ok: true, root, made: missing.length, kept: steps.length - missing.length };
  return { ok: false, code: performed.failed.code, at: performed.failed.step.path, stayed: await takeBack(performed.done, port) };
}

/** Which of the paths are there now. */
export function standingIn(parent: string, folder: string, paths: readonly string[]): string[] {
  const root = inside(parent, folder);
  if (!root.ok) return [];
  return paths.filter((path) => {
    try {
      return inside(root.value, path).ok;
    } catch (error) {
      if (codeOf(error) === 'ENOENT') return false;
      throw error;
    }
  });
}
