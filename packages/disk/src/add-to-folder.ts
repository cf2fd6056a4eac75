/**
 * Adds a project's plan to a folder that is there already: what is there is kept as it is, what is missing is made, as
 * a batch with its journal.
 * Where one step fails all that was made is taken back; what was there was never touched.
 */
import { type Change, codeOf, type MakingStep } from '@nesting/core/change';
import { MARKER_PATH } from '@nesting/core/planners';
import { OWN_FOLDER } from '@nesting/core/project';
import { applyOnDisk, settleOnDisk } from './batch';
import { BatchOpen, batchesIn, openIn } from './journal';
import { makeFolders, writtenAt } from './roots/own-files';
import { standingAt } from './roots/port';
import { removeTree } from './roots/remove-tree';
import type { Root } from './roots/root';
import type { StartOnDisk, StartOutcome } from './start';

export type AddOutcome =
  | (Extract<StartOutcome, { ok: true }> & { readonly made: number; readonly kept: number })
  | Extract<StartOutcome, { ok: false }>;

const changeOf = (step: MakingStep): Change => ({
  key: step.key,
  what: step.do === 'make' ? 'folder' : 'file',
  before: null,
  after: step.path,
  content: step.do === 'make' ? null : step.content,
});

export async function addToFolder(add: Omit<StartOnDisk, 'cancel'>): Promise<AddOutcome> {
  const root = add.parent.sub(add.folder);
  try {
    return await addIn(root, add);
  } finally {
    root.close();
  }
}

async function addIn(
  root: Root,
  { project, steps, bytesOf, progress }: Omit<StartOnDisk, 'cancel'>,
): Promise<AddOutcome> {
  // Everything is looked at before anything is made.
  const seen = lookAt(root, steps);
  if ('code' in seen) return { ok: false, ...seen, stayed: [] };
  try {
    makeFolders(root, OWN_FOLDER);
    const outcome = await applyOnDisk({
      root,
      id: project,
      what: 'add',
      by: '',
      at: new Date().toISOString(),
      changes: seen.missing.map(changeOf),
      bytesOf,
      progress,
    });
    if (outcome.state === 'done')
      return { ok: true, made: seen.missing.length, kept: steps.length - seen.missing.length };
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

/** What is missing, or the first place at which something else stands. Links stand in the way, and are not followed. */
function lookAt(
  root: Root,
  steps: readonly MakingStep[],
): { readonly missing: readonly MakingStep[] } | { readonly code: string; readonly at: string } {
  const missing: MakingStep[] = [];
  for (const step of steps) {
    try {
      const there = standingAt(root, step.path)?.kind ?? null;
      if (there === null) {
        if (step.path !== OWN_FOLDER) missing.push(step);
      } else if (there !== (step.do === 'make' ? 'folder' : 'file')) return { code: 'ENOTDIR', at: step.path };
    } catch (error) {
      return { code: codeOf(error), at: step.path };
    }
  }
  return { missing };
}

/** Takes back what an add had made when it stopped or was cut short; the paths that had to stay. */
export async function takeBackAdd(root: Root, project: string): Promise<readonly string[]> {
  if (openIn(root) !== project) return [];
  const settled = await settleOnDisk(root, 'take-back', { by: '', at: new Date().toISOString() });
  tidyOwn(root);
  return settled.state === 'paused' ? [settled.at] : [];
}

/** Nesting's own folder in a folder that is no project: nothing but what a batch that came to nothing wrote down. */
function tidyOwn(root: Root): void {
  if (standingAt(root, OWN_FOLDER)?.kind !== 'folder') return;
  if (writtenAt(root, MARKER_PATH) === null && openIn(root) === null && batchesIn(root).length <= 2)
    removeTree(root, OWN_FOLDER);
}
