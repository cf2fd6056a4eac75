/**
 * Adds a project's plan to a folder that is there already: what is there is kept as it is, what is missing is made, as
 * a batch with its journal.
 * Where one step fails all that was made is taken back; what was there was never touched.
 */
import { lstatSync, mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { type Change, codeOf, type MakingStep } from '@nesting/core/change';
import { parentOf } from '@nesting/core/listing';
import { OWN_FOLDER } from '@nesting/core/project';
import { applyOnDisk, settleOnDisk } from './batch';
import { inside } from './guard';
import { BatchOpen, batchesIn, openIn } from './journal';
import type { StartOnDisk, StartOutcome } from './start';

export type AddOutcome =
  | (Extract<StartOutcome, { ok: true }> & { readonly made: number; readonly kept: number })
  | Extract<StartOutcome, { ok: false }>;

/** What stands at a path: links stand in the way, and are not followed. */
function standing(root: string, path: string): 'folder' | 'file' | 'other' | null {
  try {
    const stats = lstatSync(join(root, path));
    return stats.isDirectory() ? 'folder' : stats.isFile() ? 'file' : 'other';
  } catch {
    return null;
  }
}

const changeOf = (step: MakingStep): Change => ({
  key: step.key,
  what: step.do === 'make' ? 'folder' : 'file',
  before: null,
  after: step.path,
  content: step.do === 'make' ? null : step.content,
});

export async function addToFolder({
  parent,
  folder,
  project,
  steps,
  bytesOf,
  progress,
}: Omit<StartOnDisk, 'cancel'>): Promise<AddOutcome> {
  const root = join(parent, folder);
  const inTheWay = steps.find((s) => {
    const there = standing(root, s.path);
    return there !== null && there !== (s.do === 'make' ? 'folder' : 'file');
  });
  // Everything is looked at before anything is made.
  if (inTheWay !== undefined) return { ok: false, code: 'ENOTDIR', at: inTheWay.path, stayed: [] };
  const linked = steps.find((s) => standing(root, parentOf(s.path)) === 'folder' && !inside(root, parentOf(s.path)).ok);
  if (linked !== undefined) return { ok: false, code: 'ELOOP', at: linked.path, stayed: [] };
  const missing = steps.filter((s) => standing(root, s.path) === null && s.path !== OWN_FOLDER);
  try {
    mkdirSync(join(root, OWN_FOLDER), { recursive: true });
    const outcome = await applyOnDisk({
      root,
      id: project,
      what: 'add',
      by: '',
      at: new Date().toISOString(),
      changes: missing.map(changeOf),
      bytesOf,
      progress,
    });
    if (outcome.state === 'done') return { ok: true, root, made: missing.length, kept: steps.length - missing.length };
    const stayed = outcome.state === 'paused' ? await takeBackAdd(root, project) : [];
    tidyOwn(root);
    const [fault] = outcome.state === 'refused' ? outcome.faults : [];
    return {
      ok: false,
      code:
        outcome.state === 'paused' ? outcome.code : ((fault && 'detail' in fault ? fault.detail : fault?.code) ?? ''),
      at: outcome.state === 'paused' ? outcome.at : (fault?.path ?? ''),
      stayed,
    };
  } catch (error) {
    tidyOwn(root);
    return { ok: false, code: error instanceof BatchOpen ? error.code : codeOf(error), at: '', stayed: [] };
  }
}

/** Takes back what an add had made when it stopped or was cut short; the paths that had to stay. */
export async function takeBackAdd(root: string, project: string): Promise<readonly string[]> {
  if (openIn(root) !== project) return [];
  const settled = await settleOnDisk(root, 'take-back', { by: '', at: new Date().toISOString() });
  tidyOwn(root);
  return settled.state === 'paused' ? [settled.at] : [];
}

/** Nesting's own folder in a folder that is no project: nothing but what a batch that came to nothing wrote down. */
function tidyOwn(root: string): void {
  if (standing(root, `${OWN_FOLDER}/project.json`) === null && openIn(root) === null && batchesIn(root).length <= 2)
    rmSync(join(root, OWN_FOLDER), { recursive: true, force: true });
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
