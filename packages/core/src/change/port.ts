/**
 * The little that a disk must be able to do. Paths are from the port's root, parted by `/`; failures throw with a
 * `code`.
 */
import type { Expected, NewContent } from './change';

type Soon<T> = T | Promise<T>;

/** What stands at a path. Links are themselves, never what they lead to. */
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

/** What a start needs of it. */
export interface MakingPort {
  make(path: string): Soon<void>;
  write(path: string, bytes: Uint8Array): Soon<void>;
  /** Removes a file this batch wrote. */
  unwrite(path: string): Soon<void>;
  /** Removes a folder this batch made, only while it is empty. */
  unmake(path: string): Soon<void>;
}

export interface Port extends MakingPort {
  look(path: string): Soon<Standing | null>;
  /** What is in a folder, by name; `null` where there is none. One call instead of one for each. */
  list(path: string): Soon<ReadonlyMap<string, Standing['kind']> | null>;
  /**
   * A folder or file takes another place, with all that is in it; never over something that stands there (`EEXIST`).
   */
  move(from: string, to: string): Soon<void>;
  copy(from: string, to: string): Soon<void>;
}

/** The least that `AbortSignal` fulfils. */
export interface Cancellation {
  readonly aborted: boolean;
}

export interface PerformOptions {
  readonly bytesOf: (content: NewContent) => Soon<Uint8Array>;
  readonly cancel?: Cancellation | undefined;
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
