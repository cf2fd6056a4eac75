/**
 * Batches written down: in the root that is a project's own folder, what was meant before the first step, how far it
 * came, how it ended. Other roots that are written hold the batch's lock and its contents.
 */

import { elementAt } from '@nesting/core';
import {
  BATCHES,
  type Change,
  codeOf,
  FIRST_INTENTS,
  FIRST_OUTCOMES,
  firstIntents,
  firstOutcomes,
  HOME,
  type Intents,
  intentLines,
  JOURNAL,
  type Journal,
  KEPT,
  NEW,
  OPEN,
  type Outcome,
  outcomeLine,
  type RootId,
  readJournal,
} from '@nesting/core/change';
import { MARKER_PATH } from '@nesting/core/planners';
import { OWN_FOLDER } from '@nesting/core/project';
import { eachLine } from './roots/lines';
import { Lock } from './roots/lock';
import { append, folderNames, makeFolders, remove, removeEmpty, writeWhole, writtenAt } from './roots/own-files';
import { readText } from './roots/plain-file';
import type { Roots } from './roots/port';
import { removeTree } from './roots/remove-tree';
import type { Root } from './roots/root';

/** Steps between two outcomes: a crash costs looking at so many again. */
export const GROUP = 500;

const BATCHES_FOLDER = `${OWN_FOLDER}/${BATCHES}`;
const LOCK = `${BATCHES_FOLDER}/${OPEN}`;

export const batchFolder = (id: string): string => `${BATCHES_FOLDER}/${id}`;
const journalPath = (id: string): string => `${batchFolder(id)}/${JOURNAL}`;

const ID = /^[A-Za-z0-9-]{1,80}$/;

/** Journals of the first form are one text: the longest that Node holds. */
const MOST_BYTES = 500 * 2 ** 20;
const MOST_LOCK_BYTES = 4096;

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

/**
 * One batch at a time in each root, whichever process or machine asks: the file is made or is there already. Nobody
 * waits for it. Home is locked first and opened last: so whatever a crash leaves locked, home tells of it.
 */
export function openBatch(roots: Roots, id: string): { readonly journal: Journal; readonly lock: Lock } {
  const home = homeOf(roots);
  // Nothing of ours is made in a project's folder that has no folder of ours.
  home.folder(OWN_FOLDER);
  const locked: Root[] = [];
  try {
    const locks = homeFirst(roots).map((root) => {
      const lock = lockOf(root, id);
      locked.push(root);
      return lock;
    });
    return { journal: journalBeside(roots, id), lock: elementAt(locks, 0) };
  } catch (error) {
    for (const root of locked.reverse()) unlock(root, id);
    throw error;
  }
}

function homeFirst(roots: Roots): Root[] {
  const home = homeOf(roots);
  return [home, ...[...roots.values()].filter((root) => root !== home)];
}

/** Of a batch that is open. @throws BatchOpen where somebody is at it */
export function takeOver(root: Root, id: string, ms?: number): Lock {
  const lock = Lock.takeOver(root, LOCK, id, ms);
  if (lock === null) throw new BatchOpen(id);
  return lock;
}

function lockOf(root: Root, id: string, isAgain = false): Lock {
  makeFolders(root, BATCHES_FOLDER);
  try {
    return Lock.take(root, LOCK, id);
  } catch (error) {
    if (codeOf(error) === 'EEXIST') throw new BatchOpen(openIn(root) ?? '');
    // A batch that ended a moment ago tidied the folder away.
    if (codeOf(error) === 'ENOENT' && !isAgain) return lockOf(root, id, true);
    throw error;
  }
}

/** Another batch's lock stays. */
function unlock(root: Root, id: string): void {
  if (openIn(root) !== id) return;
  try {
    remove(root, LOCK);
  } catch (error) {
    if (codeOf(error) !== 'ENOENT') throw error;
  }
}

/**
 * The roots in which something of a batch is made, kept or laid ready. Where only the folder of another root is renamed,
 * that one's lock stands for it.
 */
export function writtenRoots(roots: Roots, changes: readonly Change[]): Roots {
  const ids = new Set<RootId>([HOME]);
  for (const { subject, before, after } of changes) {
    if (subject.kind === 'project') continue;
    for (const place of [before, after]) if (place !== null) ids.add(place.root);
  }
  return new Map([...roots].filter(([id]) => ids.has(id)));
}

export function homeOf(roots: Roots): Root {
  const home = roots.get(HOME);
  if (home === undefined) throw new Error('a batch has a home');
  return home;
}

/** A journal for a batch that holds the locks, or takes back the one that does. */
export function journalBeside(roots: Roots, id: string): Journal {
  if (!ID.test(id)) throw new Error(`no batch's name: ${id}`);
  for (const root of roots.values()) for (const part of [NEW, KEPT]) makeFolders(root, `${batchFolder(id)}/${part}`);
  return journalOf(homeOf(roots), id);
}

/** Goes on writing down a batch that is open. */
export function journalOf(root: Root, id: string): Journal {
  return {
    group: GROUP,
    begin: (intents) => writeWhole(root, journalPath(id), intentLines(intents)),
    outcome: (outcome) => {
      const isFirstForm = writtenAt(root, journalPath(id)) === null;
      const path = isFirstForm ? `${batchFolder(id)}/${FIRST_OUTCOMES}` : journalPath(id);
      append(root, path, outcomeLine(outcome), 'ended' in outcome);
    },
  };
}

/** What stands in a file of the journal; `null` where there is none, or something else of its name. */
function textAt(root: Root, path: string, most = MOST_BYTES): string | null {
  try {
    return readText(root, path, most);
  } catch (error) {
    if (NO_TEXT.has(codeOf(error))) return null;
    throw error;
  }
}

const NO_TEXT: ReadonlySet<string> = new Set(['ENOENT', 'ENOTDIR', 'ELOOP', 'ENOTFILE']);

/** The batch under way or left by a crash, or `null`. */
export function openIn(root: Root): string | null {
  const id = textAt(root, LOCK, MOST_LOCK_BYTES)?.trim() ?? '';
  return ID.test(id) ? id : null;
}

export function closeBatch(roots: Roots, id: string): void {
  for (const root of homeFirst(roots).reverse()) unlock(root, id);
  for (const root of roots.values()) if (root !== homeOf(roots)) tidyElsewhere(root, id);
}

/** What a batch only passed through keeps nothing of it: a card, a heap of loose files. */
function tidyElsewhere(root: Root, id: string): void {
  const own = batchFolder(id);
  // A project's own folder is there for good.
  const above = writtenAt(root, MARKER_PATH) === null ? [BATCHES_FOLDER, OWN_FOLDER] : [];
  for (const path of [`${own}/${NEW}`, `${own}/${KEPT}`, own, ...above]) if (!removeEmpty(root, path)) return;
}

/** How long somebody may lay contents ready before the lock alone says nothing any more. */
const STALE = 10 * 60_000;

/**
 * Opens what a batch left open that never began, long ago: its volume went away, or its process was killed. Whether it
 * did.
 */
export function openStale(roots: Roots, now: number): boolean {
  const root = homeOf(roots);
  const id = openIn(root);
  const since = writtenAt(root, LOCK);
  if (id === null || since === null || readBatch(root, id) !== null || now - since < STALE) return false;
  closeBatch(roots, id);
  dropBatch(roots, id);
  return true;
}

/** A batch that never began has touched nothing: what was laid ready for it goes. */
export function dropBatch(roots: Roots, id: string): void {
  const home = homeOf(roots);
  for (const name of [JOURNAL, FIRST_INTENTS]) if (writtenAt(home, `${batchFolder(id)}/${name}`) !== null) return;
  for (const root of roots.values()) removeTree(root, batchFolder(id));
}

export function readBatch(root: Root, id: string): BatchRecord | null {
  if (!ID.test(id)) return null;
  const { intents, outcomes } = writtenAt(root, journalPath(id)) === null ? firstForm(root, id) : lastForm(root, id);
  if (intents === null) return null;
  return { id, intents, outcomes, ended: outcomes.findLast((o) => 'ended' in o) ?? null };
}

function lastForm(root: Root, id: string): ReturnType<typeof readJournal> {
  try {
    return readJournal(eachLine(root, journalPath(id)));
  } catch (error) {
    if (NO_TEXT.has(codeOf(error))) return { intents: null, outcomes: [] };
    throw error;
  }
}

function firstForm(root: Root, id: string): ReturnType<typeof readJournal> {
  const text = textAt(root, `${batchFolder(id)}/${FIRST_INTENTS}`);
  if (text === null) return { intents: null, outcomes: [] };
  const outcomes = firstOutcomes(textAt(root, `${batchFolder(id)}/${FIRST_OUTCOMES}`) ?? '');
  return { intents: firstIntents(text), outcomes };
}

export const batchesIn = (root: Root): string[] =>
  folderNames(root, BATCHES_FOLDER)
    .filter((name) => ID.test(name))
    .sort();
