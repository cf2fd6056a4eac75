/** Tasks that change a disk, and those that read what was changed. */
import {
  type BatchOutcome,
  type Change,
  codeOf,
  HOME,
  type NewContent,
  provedOf,
  type Rest,
  type RootId,
} from '@nesting/core/change';
import { type AddOutcome, addToFolder, takeBackAdd } from '../add-to-folder';
import { applyOnDisk, type Settled, settleOnDisk, type UndoLine, undoneIds, undoPlan } from '../batch';
import { type Closed, closeOnDisk } from '../close-batch';
import { BatchOpen, homeOf, openIn, openStale, readBatch } from '../journal';
import { takeUp } from '../roots/identity';
import { inRoot, openRoot } from '../roots/open';
import { move, type Roots, standingAt } from '../roots/port';
import type { Root } from '../roots/root';
import { Unreachable, type Where } from '../roots/where';
import { type StartOutcome, startOnDisk, sweep, takeBackStart } from '../start';
import { freeBatches, type Kept, keptOf, sweepOldBatches } from '../sweep-batches';
import type { Context } from './context';
import type { OfWhere } from './looks';

export interface Progress {
  readonly done: number;
  readonly all: number;
}

/** New contents by their key: everything a task writes is with it before it begins. */
export type Contents = ReadonlyMap<string, Uint8Array>;

const bytesFrom =
  (contents: Contents) =>
  (content: NewContent): Uint8Array => {
    if (content.kind === 'text') return Buffer.from(content.text);
    const bytes = contents.get(contentKey(content));
    if (bytes === undefined) throw Object.assign(new Error(`no content ${content.key}`), { code: 'ENOCONTENT' });
    return bytes;
  };

/** What a starter file is called among `Contents`: filled in it is another one. */
export const contentKey = ({ key, isFilled }: Extract<NewContent, { kind: 'starter' }>): string =>
  `${isFilled ? 'filled' : 'plain'} ${key}`;

/** Milliseconds between two words on how far it is. */
const TOLD_EVERY = 100;

function telling({ tell }: Context<Progress>): (done: number, all: number) => void {
  let last = 0;
  return (done, all) => {
    const now = Date.now();
    if (now - last < TOLD_EVERY) return;
    last = now;
    void tell({ done, all });
  };
}

/** Roots that a batch works in beside the project's own folder, by their ids. */
export interface OtherRoots {
  readonly others: readonly { readonly id: RootId; readonly where: Where }[];
}

export interface BatchTask extends OfWhere, OtherRoots {
  readonly id: string;
  readonly what: string;
  readonly by: string;
  readonly at: string;
  readonly undoes: string | null;
  readonly request?: string | undefined;
  readonly changes: readonly Change[];
  readonly contents: Contents;
}

/** @throws `BATCH-OPEN` where another one is under way */
export const applyBatch = (task: BatchTask, context: Context<Progress>): Promise<BatchOutcome> =>
  inRoots(task, async (roots) => {
    const { contents, where: _where, others: _others, ...batch } = task;
    const work = () =>
      applyOnDisk({
        ...batch,
        roots,
        bytesOf: bytesFrom(contents),
        cancel: context.cancel,
        progress: telling(context),
      });
    try {
      return await work();
    } catch (error) {
      // Whoever asks knows that nobody else is at it: what lies there open is left from long ago.
      if (error instanceof BatchOpen && openStale(roots, Date.now())) return work();
      throw error;
    }
  });

/** Roots that cannot be reached are not among them. @throws Unreachable for the project's own folder */
async function inRoots<T>({ where, others }: OfWhere & OtherRoots, work: (roots: Roots) => Promise<T>): Promise<T> {
  const roots = new Map([[HOME, openRoot(where)]]);
  try {
    for (const other of others) {
      const root = reachedRoot(other.where);
      if (root !== null) roots.set(other.id, root);
    }
    return await work(roots);
  } finally {
    for (const root of roots.values()) root.close();
  }
}

function reachedRoot(where: Where): Root | null {
  try {
    return openRoot(where);
  } catch (error) {
    if (error instanceof Unreachable) return null;
    throw error;
  }
}

export interface SettleTask extends OfWhere, OtherRoots {
  readonly id: string;
  readonly way: 'finish' | 'take-back' | 'close';
  readonly by: string;
  readonly at: string;
  /** Milliseconds after which a batch that nobody renewed is nobody's. */
  readonly lockMs: number;
}

export interface SettledOnDisk {
  /** `null` where this batch was not open. */
  readonly settled: Settled | Closed | null;
  /** What its journal says by now; `null` where it has none. */
  readonly journal: {
    readonly isTakenBack: boolean;
    /** Of a closed one: what stayed as it was. */
    readonly rest: readonly Rest[] | null;
    readonly changes: readonly Change[];
  } | null;
}

/** Settles a batch if it is the one that is open. What was ended before, and never told, is told now. */
export const settleBatch = ({ id, way, by, at, lockMs, ...where }: SettleTask): Promise<SettledOnDisk> =>
  inRoots(where, async (roots) => {
    const root = homeOf(roots);
    const taking = { by, at, lockMs };
    // Taking back one that was done is a batch of its own, and may itself have been cut short.
    if (openIn(root) === `${id}-back`) {
      const back =
        way === 'close' ? await closeOnDisk(roots, taking) : await settleOnDisk(roots, BACK_WAYS[way], taking);
      if (back.state === 'paused') return { settled: { ...back, id }, journal: null };
    }
    const isOpen = openIn(root) === id;
    const settled = !isOpen
      ? null
      : way === 'close'
        ? await closeOnDisk(roots, taking)
        : await settleOnDisk(roots, way, taking);
    return { settled, journal: journalOf(root, id) };
  });

const BACK_WAYS = { finish: 'take-back', 'take-back': 'finish' } as const;

function journalOf(root: Root, id: string): SettledOnDisk['journal'] {
  const record = readBatch(root, id);
  if (record === null) return null;
  const { intents, ended } = record;
  const isTakenBack = ended?.ended === 'taken-back' || readBatch(root, `${id}-back`)?.ended?.ended === 'done';
  return { isTakenBack, rest: ended?.ended === 'closed' ? (ended.rest ?? []) : null, changes: intents.changes };
}

export interface BatchAsked extends OfWhere, OtherRoots {
  readonly id: string;
}

/** What undoing a batch would do, line by line; `null` where it is not done, or has no journal. */
export const planUndo = ({ id, ...where }: BatchAsked): Promise<readonly UndoLine[] | null> =>
  inRoots(where, (roots) => undoPlan(roots, id));

export interface JournalPage {
  readonly changes: readonly Change[];
  readonly undone: ReadonlySet<string>;
  readonly undo: readonly UndoLine[] | null;
  /** Of a closed one: what stayed as it was. */
  readonly rest: readonly Rest[];
  readonly proved: Readonly<Record<string, string>>;
}

export interface JournalAsked extends BatchAsked {
  /** What undoing it would do is looked up on the disks, line by line. */
  readonly withUndo: boolean;
}

/** Everything the page of one batch shows; `null` where it has no journal. */
export const journalPage = ({ id, withUndo, ...where }: JournalAsked): Promise<JournalPage | null> =>
  inRoots(where, async (roots) => {
    const root = homeOf(roots);
    const record = readBatch(root, id);
    if (record === null) return null;
    const { intents, ended } = record;
    return {
      changes: intents.changes,
      undone: undoneIds(root, id),
      undo: withUndo ? await undoPlan(roots, id) : null,
      rest: ended?.rest ?? [],
      proved: provedOf(record.outcomes),
    };
  });

/** Ids of the batches that ended before then, and cannot be undone any more. */
export const sweepBatches = ({
  before,
  ...where
}: OfWhere & OtherRoots & { readonly before: number }): Promise<string[]> =>
  inRoots(where, async (roots) => sweepOldBatches(roots, before));

export interface BatchesAsked extends OfWhere, OtherRoots {
  readonly ids: readonly string[];
}

/** What batches keep so that they can be undone. */
export const keptBy = ({ ids, ...where }: BatchesAsked): Promise<Kept[]> =>
  inRoots(where, async (roots) => keptOf(roots, ids));

/** Clears away what batches keep, for good. Gives the ids of those that cannot be undone any more. */
export const freeKept = ({ ids, ...where }: BatchesAsked): Promise<string[]> =>
  inRoots(where, async (roots) => freeBatches(roots, ids));

/** Whether anything of a batch was done, as far as its journal says. */
export const hasBegun = ({ where, id }: OfWhere & { readonly id: string }): boolean =>
  inRoot(where, (root) => readBatch(root, id) !== null);

export interface StartTask extends OfWhere {
  readonly folder: string;
  readonly project: string;
  readonly changes: readonly Change[];
  readonly contents: Contents;
}

/** `where` is the volume's root. */
export const start = (task: StartTask, context: Context<Progress>): Promise<StartOutcome> =>
  inRoot(task.where, (parent) => startOnDisk({ ...startOf(task, context), parent, cancel: context.cancel }));

/** `where` is the volume's root. */
export const addTo = (task: StartTask, context: Context<Progress>): Promise<AddOutcome> =>
  inRoot(task.where, (parent) => addToFolder({ ...startOf(task, context), parent }));

const startOf = ({ folder, project, changes, contents }: StartTask, context: Context<Progress>) => ({
  folder,
  project,
  changes,
  bytesOf: bytesFrom(contents),
  progress: telling(context),
});

export const unstart = ({
  where,
  folder,
  changes,
}: Omit<StartTask, 'project' | 'contents'>): Promise<readonly string[]> =>
  inRoot(where, (parent) => takeBackStart({ parent, folder, changes }));

export interface LeftOver extends OfWhere {
  readonly project: string;
}

/** Removes the folder that a start cut short left on a volume. */
export const sweepStart = ({ where, project }: LeftOver): string[] =>
  inRoot(where, (parent) => sweep(parent, (id) => id === project));

/** Takes back what a start cut short added to a folder. */
export const unadd = ({ where, project }: LeftOver): Promise<readonly string[]> =>
  inRoot(where, (root) => takeBackAdd(root, project));

/** What a volume is known by from now on: what it was known by, or the identity given. */
export const takeUpVolume = ({ where, id, name }: OfWhere & { readonly id: string; readonly name: string }): string =>
  inRoot(where, (root) => takeUp(root, id, name));

export interface RenameTask extends OfWhere {
  readonly from: string;
  readonly to: string;
}

/** `already` where only the new name is there, else the system's code of what is in the way. */
export type Renamed = 'done' | 'already' | { readonly code: string; readonly path: string };

/** A folder in a volume's root takes another name, where no batch of its own has given it that yet. */
export const renameFolder = ({ where, from, to }: RenameTask): Renamed =>
  inRoot(where, (root) => {
    const [source, target] = [standingAt(root, from), standingAt(root, to)];
    if (source?.kind !== 'folder') return target?.kind === 'folder' ? 'already' : { code: 'ENOENT', path: from };
    try {
      move({ root, path: from }, { root, path: to });
      return 'done';
    } catch (error) {
      return { code: codeOf(error), path: to };
    }
  });
