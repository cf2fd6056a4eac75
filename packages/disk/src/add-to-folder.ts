/**
 * Adds a project's plan to a folder that is there already: what is there is kept as it is, what is missing is made, as
 * a batch with its journal. Where one step fails all that was made is taken back; what was there was never touched.
 */
import { type Change, codeOf } from '@nesting/core/change';
import { MARKER_PATH } from '@nesting/core/planners';
import { OWN_FOLDER } from '@nesting/core/project';
import { applyOnDisk, settleOnDisk } from './batch';
import { BatchOpen, batchesIn, openIn } from './journal';
import { makeFolders, writtenAt } from './roots/own-files';
import { onlyHome, standingAt } from './roots/port';
import { removeTree } from './roots/remove-tree';
import type { Root } from './roots/root';
import { failureOf, type StartOnDisk, type StartOutcome } from './start';

export type AddOutcome =
  | (Extract<StartOutcome, { ok: true }> & { readonly made: number; readonly kept: number })
  | Extract<StartOutcome, { ok: false }>;

type Add = Omit<StartOnDisk, 'cancel'>;

export async function addToFolder(add: Add): Promise<AddOutcome> {
  const root = add.parent.sub(add.folder);
  try {
    return await addIn(root, add);
  } finally {
    root.close();
  }
}

async function addIn(root: Root, { project, changes, bytesOf, progress }: Add): Promise<AddOutcome> {
  // Everything is looked at before anything is made.
  const seen = lookAt(root, changes);
  if ('code' in seen) return { ok: false, ...seen, stayed: [] };
  try {
    makeFolders(root, OWN_FOLDER);
    const outcome = await applyOnDisk({
      roots: onlyHome(root),
      id: project,
      what: 'add',
      by: '',
      at: new Date().toISOString(),
      changes: seen.missing,
      bytesOf,
      progress,
    });
    if (outcome.state === 'done')
      return { ok: true, made: seen.missing.length, kept: changes.length - seen.missing.length };
    const stayed = outcome.state === 'paused' ? await takeBackAdd(root, project) : [];
    tidyOwn(root);
    return { ok: false, ...failureOf(outcome), stayed };
  } catch (error) {
    tidyOwn(root);
    return { ok: false, code: error instanceof BatchOpen ? error.code : codeOf(error), at: '', stayed: [] };
  }
}

/** What is missing, or the first place at which something else stands. Links stand in the way, and are not followed. */
function lookAt(
  root: Root,
  changes: readonly Change[],
): { readonly missing: readonly Change[] } | { readonly code: string; readonly at: string } {
  const missing: Change[] = [];
  for (const change of changes) {
    const path = change.after?.path ?? '';
    try {
      const there = standingAt(root, path)?.kind ?? null;
      if (there === null) {
        if (path !== OWN_FOLDER) missing.push(change);
      } else if (there !== change.entry) return { code: 'ENOTDIR', at: path };
    } catch (error) {
      return { code: codeOf(error), at: path };
    }
  }
  return { missing };
}

/** Takes back what an add had made when it stopped or was cut short; the paths that had to stay. */
export async function takeBackAdd(root: Root, project: string): Promise<readonly string[]> {
  if (openIn(root) !== project) return [];
  // Whoever asks holds the start's lease: nobody else is at it.
  const taking = { by: '', at: new Date().toISOString(), lockMs: 0 };
  const settled = await settleOnDisk(onlyHome(root), 'take-back', taking);
  tidyOwn(root);
  return settled.state === 'paused' ? [settled.at.path] : [];
}

/** Nesting's own folder in a folder that is no project: nothing but what a batch that came to nothing wrote down. */
function tidyOwn(root: Root): void {
  if (standingAt(root, OWN_FOLDER)?.kind !== 'folder') return;
  if (writtenAt(root, MARKER_PATH) === null && openIn(root) === null && batchesIn(root).length <= 2)
    removeTree(root, OWN_FOLDER);
}
