/** Writes a project that is carried over into a folder of this computer, away from the page. */
import type { CarriedHere } from '@nesting/contract';
import type { BatchOutcome, Change, Expected } from '@nesting/core/change';
import { expose } from 'comlink';
import { applyHere, finishHere, saidOf, type Told, takeBackHere, undoHere } from '../browser-disk/batches';
import { FilesOfProject } from '../browser-disk/files-of-project';
import { startHere } from '../browser-disk/start';

export interface ToCarryHere extends CarriedHere {
  /** What the new project's folder is made in. */
  readonly picked: FileSystemDirectoryHandle;
  /** The project that is carried over. */
  readonly project: string;
  /** Initials of whoever does it. */
  readonly by: string;
}

/** What was made so far. `hindrance` says in words why it did not come to its end. */
export interface CarriedSoFar {
  readonly hindrance: string | null;
  /** Whether the folder is there, with something that can be gone on with or taken back. */
  readonly isBegun: boolean;
}

interface Begun {
  readonly root: FileSystemDirectoryHandle;
  readonly batch: string;
  readonly asked: ToCarryHere;
}

let stopping = new AbortController();
let begun: Begun | null = null;

/** Times and sizes of what is copied, by path. */
const knownIn = (changes: readonly Change[]): ReadonlyMap<string, Expected> =>
  new Map(
    changes.flatMap(({ content }) =>
      content?.kind === 'copy' && content.expects !== undefined ? [[content.from.path, content.expects] as const] : [],
    ),
  );

const farOf = ({ project, changes }: ToCarryHere): FilesOfProject =>
  new FilesOfProject(project, knownIn(changes), stopping.signal);

const soFar = (hindrance: string | null): CarriedSoFar => ({ hindrance, isBegun: begun !== null });

async function ended(act: () => Promise<BatchOutcome | null>): Promise<CarriedSoFar> {
  const { hindrance, isRefused } = await saidOf(act);
  if (isRefused) begun = null;
  return soFar(hindrance);
}

const work = {
  async carry(asked: ToCarryHere, told: Told): Promise<CarriedSoFar> {
    stopping = new AbortController();
    begun = null;
    const { picked, folder, start, changes, by } = asked;
    const made = await startHere(
      { picked, root: folder, steps: start },
      ({ done, all }) => told(done, all + changes.length),
      stopping.signal,
    );
    if (!made.ok) return soFar(made.words);
    const root = await picked.getDirectoryHandle(folder);
    const batch = crypto.randomUUID();
    begun = { root, batch, asked };
    const { signal: cancel } = stopping;
    const request = { root, id: batch, what: 'carry', by, undoes: null, changes, told, far: farOf(asked), cancel };
    return ended(() => applyHere(request));
  },

  /** Goes on with what was stopped or hindered. */
  goOn(told: Told): Promise<CarriedSoFar> {
    stopping = new AbortController();
    return ended(async () => {
      if (begun === null) return null;
      const { root, batch, asked } = begun;
      return finishHere(root, batch, told, { far: farOf(asked), cancel: stopping.signal });
    });
  },

  /** What came along goes; the project stays as it was started. */
  takeBack(isDone: boolean, told: Told): Promise<CarriedSoFar> {
    return ended(async () => {
      if (begun === null) return null;
      const { root, batch, asked } = begun;
      const outcome = isDone ? await undoHere(root, batch, asked.by, told) : await takeBackHere(root, batch, told);
      if (outcome?.state === 'done') begun = null;
      return outcome;
    });
  },

  stop(): void {
    stopping.abort();
  },
};

export type CarryingWork = typeof work;

expose(work);
