/** Brings loose files of this computer into a project's folder of it, away from the page. Nothing is sent anywhere. */
import type { IntakePlan, ProjectPage } from '@nesting/contract';
import type { BatchOutcome, Change } from '@nesting/core/change';
import type { Registers } from '@nesting/core/name';
import { checksumLists } from '@nesting/core/planners';
import { ProjectRules } from '@nesting/core/project';
import { broughtCsv, checksumLines } from '@nesting/core/report';
import { expose } from 'comlink';
import {
  applyHere,
  finishHere,
  provedHere,
  saidOf,
  type Told,
  takeBackHere,
  type Unended,
  undoHere,
  unendedIn,
} from '../browser-disk/batches';
import { type LookedThrough, lookThrough } from '../browser-disk/look-through';
import { LooseFiles } from '../browser-disk/loose-files';
import type { HeapChoice } from './heap-choice';
import {
  type HereFolders,
  type HereForm,
  planHere,
  printedHere,
  type SaidHere,
  type SavedHere,
  type ShownHere,
  toldHere,
} from './here-plan';
import { type Heap, listHeap, readHeap } from './loose-heap';
import { type MarkedFolder, markedFolder } from './marked-folder';
import { MediaReader } from './media-reader';

/** The project of a folder, as its marker tells of it. */
export interface OpenedProject extends Pick<ProjectPage, 'id' | 'number' | 'title' | 'folder' | 'body' | 'values'> {
  readonly registers: Registers;
  /** A change of the folder that was cut short. */
  readonly unended: Unended | null;
}

export interface PlannedHere {
  readonly plan: IntakePlan;
  /** Starter files of new folders that only the house has: they are not made. */
  readonly starters: number;
}

/** What was brought so far. `hindrance` says in words why it did not come to its end. */
export interface BroughtHere {
  readonly hindrance: string | null;
  /** Whether something of it is there that can be gone on with, or taken back. */
  readonly isBegun: boolean;
}

interface Begun {
  readonly batch: string;
  readonly by: string;
  /** The batch that laid lists of checksums beside what came. */
  readonly lists: string | null;
}

let marked: MarkedFolder | null = null;
let project: LookedThrough | null = null;
let heap: Heap | null = null;
let shown: ShownHere | null = null;
let begun: Begun | null = null;
let stopping = new AbortController();

const isStopped = (): boolean => stopping.signal.aborted;

function requireHeap(): HereFolders {
  if (marked === null || project === null || heap === null) throw new Error('nothing was looked through');
  return { marked, project, heap };
}

const numberOf = ({ input }: MarkedFolder): string => String(input.values.number ?? 'project');

const farOf = (changes: readonly Change[], fileOf = requireHeap().heap.fileOf): LooseFiles => {
  const known = changes.flatMap(({ content }) =>
    content?.kind === 'copy' && content.expects !== undefined ? [[content.from.path, content.expects] as const] : [],
  );
  return new LooseFiles(fileOf, new Map(known), stopping.signal);
};

const soFar = (hindrance: string | null): BroughtHere => ({ hindrance, isBegun: begun !== null });

async function ended(act: () => Promise<BatchOutcome | null>): Promise<BroughtHere> {
  const { hindrance, isRefused } = await saidOf(act);
  if (isRefused) begun = null;
  return soFar(hindrance);
}

/** Where the template asks for checksums beside what came: a change of its own. */
async function layLists(root: FileSystemDirectoryHandle): Promise<BroughtHere> {
  if (begun === null || shown === null) return soFar(null);
  const { batch, by } = begun;
  const record = await provedHere(root, batch);
  const at = new Date().toISOString();
  const lists = record === null ? [] : checksumLists(new ProjectRules(shown.input), { ...record, at });
  if (lists.length === 0) return soFar(null);
  const id = crypto.randomUUID();
  const told = await ended(() =>
    applyHere({ root, id, what: 'checksums', by, undoes: null, changes: lists, told: () => undefined }),
  );
  if (told.hindrance === null) begun = { batch, by, lists: id };
  return told.hindrance === null
    ? told
    : { ...told, hindrance: `All of it came, but its list of checksums could not be written. ${told.hindrance}` };
}

const work = {
  /** `null` where the folder is no project's, or its rules cannot be read. */
  async open(root: FileSystemDirectoryHandle): Promise<OpenedProject | null> {
    // Of the same folder opened again what was brought a moment ago can still be taken back.
    if (marked === null || !(await marked.root.isSameEntry(root))) begun = null;
    [marked, project, heap, shown] = [await markedFolder(root), null, null, null];
    if (marked === null) return null;
    const found = marked;
    const { template: body, values, registers } = found.input;
    const text = (field: string) => (typeof values[field] === 'string' ? String(values[field]) : '');
    const about = { id: found.marker.project, number: text('number'), title: text('title'), folder: root.name };
    const unended = await unendedIn(root).catch(() => null);
    return { ...about, body, values, registers, unended };
  },

  /** Looks through what is brought, and through the project; `null` where it was stopped or refused, in words. */
  async read(choice: HeapChoice, told: (files: number, bytes: number) => void): Promise<string | null> {
    if (marked === null) return 'No project is open here.';
    stopping = new AbortController();
    [heap, shown] = [null, null];
    const { root } = marked;
    if (choice.kind === 'folder') {
      const { folder } = choice;
      const isIn = (await root.resolve(folder)) !== null || (await folder.resolve(root)) !== null;
      if (isIn) return 'What is brought in and the project lie in each other.';
    }
    marked = (await markedFolder(root)) ?? marked;
    const found = await lookThrough(root, () => undefined, isStopped);
    const media = new MediaReader();
    try {
      const read = await readHeap(choice, { media, project: found, told, isStopped });
      if (read === null) return 'It was stopped.';
      [project, heap] = [found, read];
      return null;
    } finally {
      media.close();
    }
  },

  plan(said: SaidHere): PlannedHere {
    const folders = requireHeap();
    shown = planHere(folders, said);
    return { plan: toldHere(shown, folders), starters: shown.starters.length };
  },

  /** Carries out the plan that was shown, and no other. */
  async carryOut(fingerprint: string, by: string, told: Told): Promise<BroughtHere> {
    stopping = new AbortController();
    if (marked === null || heap === null || shown?.fingerprint !== fingerprint)
      return soFar('This is another plan by now. Look at it again.');
    const { all: changes } = shown;
    const { root } = marked;
    // Two half-done changes in one folder could not be told apart.
    if ((await unendedIn(root)) !== null)
      return soFar('A change of this folder was cut short. Choose the folder again: that one is ended first.');
    const batch = crypto.randomUUID();
    begun = { batch, by, lists: null };
    const asked = { root, id: batch, what: 'intake', by, undoes: null, changes, told };
    const brought = await ended(() => applyHere({ ...asked, far: farOf(changes), cancel: stopping.signal }));
    return brought.hindrance === null ? layLists(root) : brought;
  },

  /** Goes on with what was stopped or hindered. */
  async goOn(told: Told): Promise<BroughtHere> {
    stopping = new AbortController();
    if (marked === null || begun === null || shown === null || heap === null) return soFar('Nothing was begun here.');
    const { root } = marked;
    const { batch } = begun;
    const far = farOf(shown.all);
    const brought = await ended(() => finishHere(root, batch, told, { far, cancel: stopping.signal }));
    return brought.hindrance === null ? layLists(root) : brought;
  },

  /** What came goes again. */
  takeBack(isDone: boolean, told: Told): Promise<BroughtHere> {
    return ended(async () => {
      if (begun === null || marked === null) return null;
      const { root } = marked;
      const { batch, by, lists } = begun;
      const first = lists === null ? null : await undoHere(root, lists, by, told);
      if (first !== null && first.state !== 'done') return first;
      begun = { batch, by, lists: null };
      const outcome = isDone ? await undoHere(root, batch, by, told) : await takeBackHere(root, batch, told);
      if (outcome?.state === 'done') begun = null;
      return outcome;
    });
  },

  /** Ends what an earlier page left half done in the folder: by what was chosen as source, or by taking it back. */
  async settle(id: string, way: 'finish' | 'take-back', choice: HeapChoice | null, told: Told): Promise<string | null> {
    stopping = new AbortController();
    if (marked === null) return 'No project is open here.';
    const { root } = marked;
    const brought = await ended(async () => {
      if (way === 'take-back') return takeBackHere(root, id, told);
      const record = await provedHere(root, id);
      if (record === null) return null;
      const far = choice === null ? {} : { far: farOf(record.changes, (await listHeap(choice, isStopped)).fileOf) };
      return finishHere(root, id, told, { ...far, cancel: stopping.signal });
    });
    return brought.hindrance;
  },

  fileOf: async (path: string): Promise<File | null> => (await heap?.fileOf(path)) ?? null,

  print: (as: HereForm): SavedHere | null =>
    shown === null || marked === null ? null : printedHere(shown, numberOf(marked), as),

  /** Checksums of what was brought, or the names it came with; `null` where nothing was. */
  async record(as: 'checksums' | 'names'): Promise<SavedHere | null> {
    if (marked === null || begun === null) return null;
    const record = await provedHere(marked.root, begun.batch);
    if (record === null) return null;
    const { changes, proved } = record;
    const name = numberOf(marked);
    return as === 'names'
      ? { name: `${name}-names.csv`, type: 'text/csv', body: broughtCsv(changes, proved) }
      : { name: `${name}.sha256`, type: 'text/plain', body: checksumLines(changes, proved) };
  },

  stop(): void {
    stopping.abort();
  },
};

export type IntakeWorker = typeof work;

expose(work);
