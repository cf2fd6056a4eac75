/** Tasks that change a disk, and those that read what was changed. */
import {
  type BatchOutcome,
  type Change,
  codeOf,
  type MakingStep,
  type NewContent,
  type Rest,
} from '@nesting/core/change';
import { type AddOutcome, addToFolder, takeBackAdd } from '../add-to-folder';
import { applyOnDisk, type Settled, settleOnDisk, type UndoLine, undoneKeys, undoPlan } from '../batch';
import { type Closed, closeOnDisk } from '../close-batch';
import { BatchOpen, openIn, openStale, readBatch } from '../journal';
import { takeUp } from '../roots/identity';
import { inRoot } from '../roots/open';
import { portOn, standingAt } from '../roots/port';
import type { Root } from '../roots/root';
import { renameSame } from '../roots/take-place';
import { type StartOutcome, startOnDisk, sweep, takeBackStart } from '../start';
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
    const bytes = contents.get(content.key);
    if (bytes === undefined) throw Object.assign(new Error(`no content ${content.key}`), { code: 'ENOCONTENT' });
    return bytes;
  };

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

export interface BatchTask extends OfWhere {
  readonly id: string;
  readonly what: string;
  readonly by: string;
  readonly at: string;
  readonly undoes: string | null;
  readonly changes: readonly Change[];
  readonly contents: Contents;
}

/** @throws `BATCH-OPEN` where another one is under way */
export const applyBatch = (task: BatchTask, context: Context<Progress>): Promise<BatchOutcome> =>
  inRoot(task.where, async (root) => {
    const { contents, where: _where, ...batch } = task;
    const work = () =>
      applyOnDisk({
        ...batch,
        root,
        bytesOf: bytesFrom(contents),
        cancel: context.cancel,
        progress: telling(context),
      });
    try {
      return await work();
    } catch (error) {
      // Whoever asks knows that nobody else is at it: what lies there open is left from long ago.
      if (error instanceof BatchOpen && openStale(root, Date.now())) return work();
      throw error;
    }
  });

export interface SettleTask extends OfWhere {
  readonly id: string;
  readonly way: 'finish' | 'take-back' | 'close';
  readonly by: string;
  readonly at: string;
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
export const settleBatch = ({ where, id, way, by, at }: SettleTask): Promise<SettledOnDisk> =>
  inRoot(where, async (root) => {
    const taking = { by, at };
    // Taking back one that was done is a batch of its own, and may itself have been cut short.
    if (openIn(root) === `${id}-back`) {
      const back = way === 'close' ? await closeOnDisk(root, taking) : await settleOnDisk(root, BACK_WAYS[way], taking);
      if (back.state === 'paused') return { settled: { ...back, id }, journal: null };
    }
    const isOpen = openIn(root) === id;
    const settled = !isOpen
      ? null
      : way === 'close'
        ? await closeOnDisk(root, taking)
        : await settleOnDisk(root, way, taking);
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

export interface BatchAsked extends OfWhere {
  readonly id: string;
}

/** What undoing a batch would do, line by line; `null` where it is not done, or has no journal. */
export const planUndo = ({ where, id }: BatchAsked): Promise<readonly UndoLine[] | null> =>
  inRoot(where, (root) => undoPlan(root, id));

export interface JournalPage {
  readonly changes: readonly Change[];
  readonly undone: ReadonlySet<string>;
  readonly undo: readonly UndoLine[] | null;
  /** Of a closed one: what stayed as it was. */
  readonly rest: readonly Rest[];
}

/** Everything the page of one batch shows; `null` where it has no journal. */
export const journalPage = ({ where, id }: BatchAsked): Promise<JournalPage | null> =>
  inRoot(where, async (root) => {
    const record = readBatch(root, id);
    if (record === null) return null;
    const { intents, ended } = record;
    return {
      changes: intents.changes,
      undone: undoneKeys(root, id),
      undo: await undoPlan(root, id),
      rest: ended?.rest ?? [],
    };
  });

/** Whether anything of a batch was done, as far as its journal says. */
export const hasBegun = ({ where, id }: BatchAsked): boolean => inRoot(where, (root) => readBatch(root, id) !== null);

export interface StartTask extends OfWhere {
  readonly folder: string;
  readonly project: string;
  readonly steps: readonly MakingStep[];
  readonly contents: Contents;
}

/** `where` is the volume's root. */
export const start = (task: StartTask, context: Context<Progress>): Promise<StartOutcome> =>
  inRoot(task.where, (parent) => startOnDisk({ ...startOf(task, context), parent, cancel: context.cancel }));

/** `where` is the volume's root. */
export const addTo = (task: StartTask, context: Context<Progress>): Promise<AddOutcome> =>
  inRoot(task.where, (parent) => addToFolder({ ...startOf(task, context), parent }));

const startOf = ({ folder, project, steps, contents }: StartTask, context: Context<Progress>) => ({
  folder,
  project,
  steps,
  bytesOf: bytesFrom(contents),
  progress: telling(context),
});

export const unstart = ({
  where,
  folder,
  steps,
}: Omit<StartTask, 'project' | 'contents'>): Promise<readonly string[]> =>
  inRoot(where, (parent) => takeBackStart({ parent, folder, steps }));

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

/** A folder in a volume's root takes another name. */
export const renameFolder = ({ where, from, to }: RenameTask): Renamed =>
  inRoot(where, (root) => {
    const [source, target] = [standingAt(root, from), standingAt(root, to)];
    if (source?.kind !== 'folder') return target?.kind === 'folder' ? 'already' : { code: 'ENOENT', path: from };
    const isSame = target !== null && target.id === source.id;
    if (target !== null && !isSame) return { code: 'EEXIST', path: to };
    return renamed(root, from, to, isSame);
  });

function renamed(root: Root, from: string, to: string, isSame: boolean): Renamed {
  try {
    if (isSame) renameSame(root, from, to);
    else void portOn(root).move(from, to);
    return 'done';
  } catch (error) {
    return { code: codeOf(error), path: to };
  }
}
