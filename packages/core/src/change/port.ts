/** The little that disks must be able to do. Failures throw with a `code`. */
import type { Expected, NewContent, Patch } from './change';
import type { Place, RootId } from './place';

type Soon<T> = T | Promise<T>;

/** What stands at a place. Links are themselves, never what they lead to. */
export interface Standing extends Expected {
  readonly kind: 'folder' | 'file' | 'other';
  /** Stays when it is moved; empty where the disk has no such thing. */
  readonly id: string;
}

/**
 * Milliseconds since 1970 that an empty file bears which only claims a name, where a disk knows no second name for a
 * file: it is replaced at once, or found after a crash.
 */
export const CLAIM_TIME = 1000;

/** What takes another place in one act: between two file systems nothing does, in a browser only files do. */
export type Reach = 'all' | 'files' | 'nothing';

export interface Port {
  /** Whether entries can be told apart by more than their names: after a crash that tells who stands where. */
  readonly hasIdentities: boolean;
  reach(from: RootId, to: RootId): Reach;
  /**
   * Whether a copy there is read back from the disk itself, and not from memory: only then is the original ended, else
   * it is kept with the batch.
   */
  provesCopies(root: RootId): boolean;
  look(place: Place): Soon<Standing | null>;
  /** What is in a folder, by name; `null` where there is none. One call instead of one for each. */
  list(place: Place): Soon<ReadonlyMap<string, Standing['kind']> | null>;
  make(place: Place): Soon<void>;
  write(place: Place, bytes: Uint8Array): Soon<void>;
  /**
   * A folder or file takes another place, with all that is in it; never over something that stands there (`EEXIST`).
   */
  move(from: Place, to: Place): Soon<void>;
  /**
   * A copy of a file, whole or not there, proved by reading it back; with patches, of what they make of it. The
   * program's own of that name from an earlier try is written over. Gives what was read.
   */
  copy(from: Place, to: Place, patches?: readonly Patch[]): Soon<Copied>;
  remove(place: Place): Soon<void>;
  /** Removes a folder, only while it is empty. */
  unmake(place: Place): Soon<void>;
  /** What was done by now outlasts a loss of power. */
  sync(): Soon<void>;
}

/** The least that `AbortSignal` fulfils. */
/** What was read of a file that was copied, and the hash of what was written, where it was proved. */
export interface Copied extends Expected {
  readonly sha256?: string | undefined;
}

export interface Cancellation {
  readonly aborted: boolean;
}

export interface ApplyOptions {
  readonly bytesOf: (content: NewContent) => Soon<Uint8Array>;
  readonly cancel?: Cancellation | undefined;
  /** Throws where somebody else may be at it by now: asked before each step. */
  readonly sure?: (() => void) | undefined;
  readonly progress?: ((done: number, all: number) => void) | undefined;
  /** Lets others in between steps, where the port's calls block: without it a cancellation is only heard at the end. */
  readonly yieldNow?: (() => Promise<void>) | undefined;
}

/** Steps after which others are let in. */
export const STEPS_BETWEEN_YIELDS = 100;

export function codeOf(error: unknown): string {
  if (typeof error === 'object' && error !== null && 'code' in error) return String(error.code);
  return error instanceof Error ? error.message : 'unknown';
}

/** Waits only for what is not there yet: a disk's own calls are, and fifty thousand needless waits are not free. */
export const soon = <T>(value: Soon<T>): value is Promise<T> => value instanceof Promise;

/** @internal */
export const lookAt = async (port: Port, place: Place): Promise<Standing | null> => {
  const there = port.look(place);
  return soon(there) ? await there : there;
};
