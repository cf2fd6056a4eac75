/**
 * Batches written down in the project's own folder: what was meant before the first step, how far it came, how it
 * ended.
 */
import {
  BATCHES,
  codeOf,
  INTENTS,
  type Intents,
  type Journal,
  KEPT,
  NEW,
  OPEN,
  OUTCOMES,
  type Outcome,
} from '@nesting/core/change';
import { OWN_FOLDER } from '@nesting/core/project';
import { append, folderNames, makeFolders, remove, writeExclusive, writeWhole, writtenAt } from './roots/own-files';
import { readText } from './roots/plain-file';
import { removeTree } from './roots/remove-tree';
import type { Root } from './roots/root';

/** Steps between two outcomes: a crash costs looking at so many again. */
export const GROUP = 500;

const BATCHES_FOLDER = `${OWN_FOLDER}/${BATCHES}`;
const LOCK = `${BATCHES_FOLDER}/${OPEN}`;

export const batchFolder = (id: string): string => `${BATCHES_FOLDER}/${id}`;

const ID = /^[A-Za-z0-9-]{1,80}$/;

/** A journal is read whole: the longest text that Node holds. */
const MOST_BYTES = 500 * 2 ** 20;

export interface BatchRecord {
  readonly id: string;
  readonly intents: Intents;
  readonly outcomes: readonly Outcome[];
  readonly ended: Extract<Outcome, { ended: string }> | null;
}

export class BatchOpen extends Error {
  readonly code = 'BATCH-OPEN';
  constructor(readonly batch: string) {
    super(`batch ${batch} is under way`);
  }
}

/** One batch at a time in a project, whichever process or machine asks: the file is made or is there already. */
export function openBatch(root: Root, id: string): Journal {
  // Nothing of ours is made in a folder that has no folder of ours.
  root.folder(OWN_FOLDER);
  makeFolders(root, BATCHES_FOLDER);
  try {
    writeExclusive(root, LOCK, id);
  } catch (error) {
    if (codeOf(error) === 'EEXIST') throw new BatchOpen(openIn(root) ?? '');
    throw error;
  }
  return journalBeside(root, id);
}

/** A journal for a batch that holds the lock, or takes back the one that does. */
export function journalBeside(root: Root, id: string): Journal {
  if (!ID.test(id)) throw new Error(`no batch's name: ${id}`);
  for (const part of [NEW, KEPT]) makeFolders(root, `${batchFolder(id)}/${part}`);
  return journalOf(root, id);
}

/** Goes on writing down a batch that is open. */
export function journalOf(root: Root, id: string): Journal {
  const folder = batchFolder(id);
  return {
    group: GROUP,
    begin: (intents) => {
      writeWhole(root, `${folder}/${OUTCOMES}`, '');
      writeWhole(root, `${folder}/${INTENTS}`, JSON.stringify(intents));
    },
    // A line that a crash cut off is ended first.
    outcome: (outcome) => append(root, `${folder}/${OUTCOMES}`, `\n${JSON.stringify(outcome)}\n`, 'ended' in outcome),
  };
}

/** What stands in a file of the journal; `null` where there is none, or something else of its name. */
function textAt(root: Root, path: string): string | null {
  try {
    return readText(root, path, MOST_BYTES);
  } catch (error) {
    if (NO_TEXT.has(codeOf(error))) return null;
    throw error;
  }
}

const NO_TEXT: ReadonlySet<string> = new Set(['ENOENT', 'ENOTDIR', 'ELOOP', 'ENOTFILE']);

/** The batch under way or left by a crash, or `null`. */
export function openIn(root: Root): string | null {
  const id = textAt(root, LOCK)?.trim() ?? '';
  return ID.test(id) ? id : null;
}

export function closeBatch(root: Root): void {
  try {
    remove(root, LOCK);
  } catch (error) {
    if (codeOf(error) !== 'ENOENT') throw error;
  }
}

/** How long somebody may lay contents ready before the lock alone says nothing any more. */
const STALE = 10 * 60_000;

/**
 * Opens what a batch left open that never began, long ago: its volume went away, or its process was killed. Whether it
 * did.
 */
export function openStale(root: Root, now: number): boolean {
  const id = openIn(root);
  const since = writtenAt(root, LOCK);
  if (id === null || since === null || readBatch(root, id) !== null || now - since < STALE) return false;
  closeBatch(root);
  dropBatch(root, id);
  return true;
}

/** A batch that never began has touched nothing: what was laid ready for it goes. */
export function dropBatch(root: Root, id: string): void {
  if (writtenAt(root, `${batchFolder(id)}/${INTENTS}`) === null) removeTree(root, batchFolder(id));
}

export function readBatch(root: Root, id: string): BatchRecord | null {
  if (!ID.test(id)) return null;
  const text = textAt(root, `${batchFolder(id)}/${INTENTS}`);
  if (text === null) return null;
  let parsed: Intents;
  try {
    parsed = JSON.parse(text) as Intents;
  } catch {
    // Cut off while it was written: it never began.
    return null;
  }
  if (parsed.format !== 'nesting/batch' || parsed.formatVersion !== 1) return null;
  const outcomes = outcomesAt(root, id);
  return { id, intents: parsed, outcomes, ended: outcomes.findLast((o) => 'ended' in o) ?? null };
}

function outcomesAt(root: Root, id: string): Outcome[] {
  const text = textAt(root, `${batchFolder(id)}/${OUTCOMES}`) ?? '';
  return text.split('\n').flatMap((line) => {
    try {
      return [JSON.parse(line) as Outcome];
    } catch {
      // The last line may be cut off.
      return [];
    }
  });
}

export const batchesIn = (root: Root): string[] =>
  folderNames(root, BATCHES_FOLDER)
    .filter((name) => ID.test(name))
    .sort();
