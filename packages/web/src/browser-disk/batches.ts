/**
 * Changes of a folder on this computer: carried out, undone, and settled where the page was closed, or the browser's
 * permission went away, half way. All that is needed for it stands in the folder itself, as on a volume.
 */
import {
  applyBatch,
  BATCHES,
  type BatchOutcome,
  type Cancellation,
  type Change,
  codeOf,
  doneAfter,
  HOME,
  type Intents,
  leftOf,
  type Outcome,
  provedOf,
  reverseChanges,
  runSteps,
  stepsDone,
} from '@nesting/core/change';
import { OWN_FOLDER } from '@nesting/core/project';
import { browserJournal, readBrowserJournal } from './journal';
import { browserPort, type FarFiles } from './port';

type Root = FileSystemDirectoryHandle;
export type Told = (done: number, all: number) => void;

/** Steps written down at once: after a crash it is looked at one step alone. */
const GROUP = 1;

const folderOf = (id: string): string => `${OWN_FOLDER}/${BATCHES}/${id}`;
const portOf = (root: Root, far: FarFiles | null = null) => browserPort(new Map([[HOME, root]]), far);

const bytesOf = (content: { readonly kind: string; readonly text?: string }) =>
  new TextEncoder().encode(content.text ?? '');

interface Asked {
  readonly root: Root;
  readonly id: string;
  readonly what: string;
  readonly by: string;
  readonly undoes: string | null;
  readonly changes: readonly Change[];
  readonly told: Told;
  /** What it copies from elsewhere. */
  readonly far?: FarFiles;
  readonly cancel?: Cancellation;
}

export async function applyHere({ root, told, far, cancel, ...batch }: Asked): Promise<BatchOutcome> {
  const journal = await browserJournal(root, batch.id);
  const outcome = await applyBatch(
    { ...batch, at: new Date().toISOString(), folder: folderOf(batch.id) },
    portOf(root, far),
    journal,
    { bytesOf, progress: told, cancel },
  );
  if (outcome.state === 'refused') await dropBatch(root, batch.id);
  return outcome;
}

/** What it did is taken back by a change of its own; `null` where nothing of it is written down. */
export async function undoHere(root: Root, undone: string, by: string, told: Told): Promise<BatchOutcome | null> {
  const record = await readBatch(root, undone);
  if (record === null) return null;
  const { intents, outcomes } = record;
  const done = doneAfter(intents, intents.steps.length, leftOf(outcomes), folderOf(undone));
  return applyHere({
    root,
    id: crypto.randomUUID(),
    what: 'undo',
    by,
    undoes: undone,
    changes: reverseChanges(done),
    told,
  });
}

/** A change that was begun and not ended. */
export interface Unended {
  readonly id: string;
  /** It takes another one back: it can only be ended. */
  readonly isBack: boolean;
  /** It copies what does not lie in the folder. */
  readonly isFromElsewhere: boolean;
  readonly done: number;
  readonly all: number;
}

export async function unendedIn(root: Root): Promise<Unended | null> {
  // What takes one back is ended before that one is looked at.
  for (const id of (await idsIn(root)).reverse()) {
    const record = await readBatch(root, id);
    if (record === null || record.outcomes.some((o) => 'ended' in o && o.ended !== 'paused')) continue;
    const { done } = await howFar(root, id, record);
    const { what, changes, steps } = record.intents;
    const isFromElsewhere = changes.some(({ content }) => content?.kind === 'copy' && content.from.root !== HOME);
    return { id, isBack: what === BACK, isFromElsewhere, done, all: steps.length };
  }
  return null;
}

/** Goes on with it from where the folder says it is. */
export async function finishHere(
  root: Root,
  id: string,
  told: Told,
  { far, cancel }: Pick<Asked, 'far' | 'cancel'> = {},
): Promise<BatchOutcome | null> {
  const record = await readBatch(root, id);
  if (record === null) return null;
  const { done } = await howFar(root, id, record);
  const journal = await browserJournal(root, id);
  await journal.outcome({ done });
  const run = { steps: record.intents.steps, from: done, folder: folderOf(id), port: portOf(root, far), journal };
  const outcome = await runSteps(run, { bytesOf, progress: told, cancel });
  const { what, undoes } = record.intents;
  if (outcome.state === 'done' && what === BACK && undoes !== null) await endTakenBack(root, undoes);
  return outcome;
}

/** What it did so far goes back to where it was. */
export async function takeBackHere(root: Root, id: string, told: Told): Promise<BatchOutcome | null> {
  const record = await readBatch(root, id);
  if (record === null) return null;
  const { intents, outcomes } = record;
  const { done } = await howFar(root, id, record);
  const changes = reverseChanges(doneAfter(intents, done, leftOf(outcomes), folderOf(id)));
  const outcome = await applyHere({ root, id: `${id}-back`, what: BACK, by: intents.by, undoes: id, changes, told });
  if (outcome.state === 'done') await endTakenBack(root, id);
  return outcome;
}

/** What a change did, and the hashes of what it copied; `null` where nothing of it is written down. */
export async function provedHere(
  root: Root,
  id: string,
): Promise<{
  readonly changes: readonly Change[];
  readonly proved: Readonly<globalThis.Record<string, string>>;
} | null> {
  const record = await readBatch(root, id);
  return record === null ? null : { changes: record.intents.changes, proved: provedOf(record.outcomes) };
}

const BACK = 'take-back';

const endTakenBack = async (root: Root, id: string): Promise<void> =>
  (await browserJournal(root, id)).outcome({ ended: 'taken-back' });

interface Record {
  readonly intents: Intents;
  readonly outcomes: readonly Outcome[];
}

const howFar = (root: Root, id: string, { intents, outcomes }: Record) =>
  stepsDone(intents, outcomes, folderOf(id), portOf(root), GROUP);

/** What a change of this folder keeps, so that it can be undone. */
export interface KeptHere {
  readonly id: string;
  /** ISO 8601. */
  readonly at: string;
  readonly files: number;
  /** Bytes. */
  readonly bytes: number;
}

/** Changes of this kind that stand, newest first. */
export async function keptHere(root: Root, what: string): Promise<readonly KeptHere[]> {
  const undone = new Set<string>();
  const kept: KeptHere[] = [];
  for (const id of await idsIn(root)) {
    const record = await readBatch(root, id);
    if (record === null || !record.outcomes.some((o) => 'ended' in o && o.ended === 'done')) continue;
    const { intents } = record;
    if (intents.undoes !== null) undone.add(intents.undoes);
    const taken = intents.changes.filter(({ after }) => after === null);
    const bytes = taken.reduce((sum, { expects }) => sum + (expects?.size ?? 0), 0);
    if (intents.what === what) kept.push({ id, at: intents.at, files: taken.length, bytes });
  }
  return kept.filter(({ id }) => !undone.has(id)).sort((a, b) => (a.at < b.at ? 1 : -1));
}

/** For good: what it keeps is deleted, and it cannot be undone any more. */
export async function freeHere(root: Root, id: string): Promise<void> {
  if ((await unendedIn(root)) !== null) throw failed('EBUSY');
  await dropBatch(root, id);
}

const failed = (code: string) => Object.assign(new Error(code), { code });

/** `null` where the folder is not there. */
async function batchesOf(root: Root): Promise<Root | null> {
  try {
    let at = root;
    for (const part of [OWN_FOLDER, BATCHES]) at = await at.getDirectoryHandle(part);
    return at;
  } catch (error) {
    if (error instanceof DOMException && error.name === 'NotFoundError') return null;
    throw error;
  }
}

async function idsIn(root: Root): Promise<string[]> {
  const ids: string[] = [];
  const folder = await batchesOf(root);
  if (folder !== null) for await (const [id, handle] of folder.entries()) if (handle.kind === 'directory') ids.push(id);
  return ids.sort();
}

/** `null` where it never began. */
async function readBatch(root: Root, id: string): Promise<Record | null> {
  try {
    const folder = await (await batchesOf(root))?.getDirectoryHandle(id);
    if (folder === undefined) return null;
    const { intents, outcomes } = await readBrowserJournal(folder);
    return intents === null ? null : { intents, outcomes };
  } catch (error) {
    if (error instanceof DOMException && error.name === 'NotFoundError') return null;
    throw error;
  }
}

/** Nothing was touched, and nothing is kept. */
async function dropBatch(root: Root, id: string): Promise<void> {
  await (await batchesOf(root))?.removeEntry(id, { recursive: true });
}

const WHY: Readonly<globalThis.Record<string, string>> = {
  EACCES: 'the browser’s permission for this folder was withdrawn',
  ENOSPC: 'the disk is full',
  EROFS: 'the folder may not be written to',
  ENOENT: 'something went away meanwhile',
  EEXIST: 'something of that name is there meanwhile',
  ECHANGED: 'a file was changed meanwhile',
  EVERIFY: 'what was written is not what was read',
  EGONE: 'the file it comes from is not there, or was changed meanwhile',
  EAWAY: 'what it is copied from is reached from that page alone which began it: go on with it there, or take it back',
  ESERVER: 'the server cannot be reached',
  ENOTGIVEN: 'the server does not give it to you',
  ESIGNIN: 'you are not signed in any more',
  CANCELLED: 'it was stopped',
  EBUSY: 'a change of this folder was cut short: it is ended first',
};

/** Why it did not come to its end, in words; `null` where it did. */
export function hindranceOf(outcome: BatchOutcome): string | null {
  switch (outcome.state) {
    case 'done':
      return null;
    case 'paused':
      return `It stopped at ${outcome.at.path}: ${WHY[outcome.code] ?? outcome.code}.`;
    case 'refused':
      return `${outcome.faults[0]?.at.path ?? ''} is not as it was when it was looked at. Nothing was changed; check the folder again.`;
  }
}

export const whyItFailed = (error: unknown): string =>
  `${WHY[codeOf(error)] ?? (error instanceof Error ? error.message : 'unknown')}.`;

/** What stood in the way of an act, in words; `null` where it came to its end. */
export interface Said {
  readonly hindrance: string | null;
  /** The folder was not as it was when it was looked at: nothing was touched. */
  readonly isRefused: boolean;
}

export async function saidOf(act: () => Promise<BatchOutcome | null>): Promise<Said> {
  try {
    const outcome = await act();
    if (outcome === null)
      return { hindrance: 'Nothing is written down of that change in this folder.', isRefused: false };
    return { hindrance: hindranceOf(outcome), isRefused: outcome.state === 'refused' };
  } catch (error) {
    return { hindrance: `It failed: ${whyItFailed(error)}`, isRefused: false };
  }
}
