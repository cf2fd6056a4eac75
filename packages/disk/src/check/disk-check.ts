/** What a check of a folder on this machine is asked, what it tells on the way, and what it gives. */
import type { Worker } from 'node:worker_threads';
import type { Cancellation } from '@nesting/core/change';
import type { CheckOutcome, PartialResult } from '@nesting/core/check';
import type { CheckInput } from '@nesting/core/project';
import type { FileFacts } from '../file-facts';
import type { Mount, Unseen } from '../walk';
import { startWorker } from './worker-pool';

export interface CheckProgress {
  readonly files: number;
  readonly folders: number;
  readonly stage: 'walking' | 'reading';
}

/** How far a check was when it was left: it goes on from there. */
export interface Gathered {
  readonly part: PartialResult;
  readonly queue: readonly string[];
  readonly unseen: readonly Unseen[];
}

/** What an earlier check saw, and could not see. */
export type Seen = Pick<Gathered, 'part' | 'unseen'>;

export interface DiskCheck {
  readonly root: string;
  readonly input: CheckInput;
  /** Folders of it that lie on other volumes. */
  readonly mounts?: readonly Mount[];
  /** The built worker; without one everything is walked here. */
  readonly worker?: URL | null;
  readonly workers?: number;
  /** Whether this thread may walk too. A server's must not: it has others to answer. */
  readonly here?: boolean;
  readonly cancel?: Cancellation;
  readonly progress?: (progress: CheckProgress) => void;
  /** Looks into files as well; what is known of them is not read again. */
  readonly contents?: { readonly roots: readonly string[]; readonly known: readonly FileFacts[] };
  /** What an earlier check of the same rules saw: only folders whose time has changed are listed again. */
  readonly since?: Seen;
  /** A mark of the rules checked by, so that what is compiled of them is used again. */
  readonly fingerprint?: string;
  /** Goes on where one was left. */
  readonly from?: Gathered;
  /** Told from time to time how far it is. */
  readonly gathered?: { readonly every: number; readonly keep: (gathered: Gathered) => Promise<void> };
}

export interface DiskOutcome extends CheckOutcome {
  readonly unseen: readonly Unseen[];
  readonly cancelled: boolean;
  /** For the next quick check. */
  readonly part: PartialResult;
  readonly facts: readonly FileFacts[];
  /** Of a quick check: folders that were listed again. `null` where all were. */
  readonly relisted: number | null;
}

/** Folders walked here before workers are worth starting. */
export const SMALL = 200;

/** What could not be seen and is no folder that is there: files, and what has gone meanwhile. */
export const NO_FOLDER: ReadonlySet<string> = new Set(['ENOENT', 'NOT-UTF-8', 'TOO-LARGE']);

export const startWorkers = (check: DiskCheck, script: URL, shallow: boolean): Worker[] =>
  Array.from({ length: check.workers ?? (check.here ? 1 : 2) }, () =>
    startWorker(script, { root: check.root, mounts: check.mounts ?? [], input: check.input, shallow }),
  );
