/** What a check of a folder on this machine is asked, what it tells on the way, and what it gives. */
import type { Cancellation } from '@nesting/core/change';
import type { CheckOutcome, PartialResult } from '@nesting/core/check';
import type { CheckInput } from '@nesting/core/project';
import type { FileFacts } from '../file-facts';
import type { Mount } from '../roots/tree';
import type { Where } from '../roots/where';
import type { Unseen } from '../walk';
import { Helper } from './helpers';
import type { KeptListing } from './kept-listing';

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
  readonly where: Where;
  readonly input: CheckInput;
  /** Folders of it that lie on other volumes. */
  readonly mounts?: readonly Mount[];
  /** The built program of the processes that help; without one everything is walked here. */
  readonly script?: URL | null;
  /** Processes that help: one, as this one takes part. */
  readonly helpers?: number;
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
  /** Of the folders that were listed. */
  readonly listings: readonly KeptListing[];
  readonly facts: readonly FileFacts[];
  /** Of a quick check: folders that were listed again. `null` where all were. */
  readonly relisted: number | null;
}

/** Folders walked here before help is worth starting. */
export const SMALL = 200;

/** What could not be seen and is no folder that is there: files, and what has gone meanwhile. */
export const NO_FOLDER: ReadonlySet<string> = new Set(['ENOENT', 'NOT-UTF-8', 'TOO-LARGE']);

export const startHelpers = (check: DiskCheck, script: URL, shallow: boolean): Helper[] =>
  Array.from(
    { length: check.helpers ?? 1 },
    () => new Helper(script, { where: check.where, mounts: check.mounts ?? [], input: check.input, shallow }),
  );
