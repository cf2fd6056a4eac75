/**
 * What is written down of a batch. Intents stand there once, before the first step; outcomes follow in small groups;
 * the last line says how it ended.
 * In the project: `.nesting/batches/ID/intents.json`, `outcomes.ndjson`, contents not yet in place in `new/`, replaced
 * ones in `kept/`.
 */
import type { Change, Expected, Step } from './change';

export const BATCHES = 'batches';
export const INTENTS = 'intents.json';
export const OUTCOMES = 'outcomes.ndjson';
export const NEW = 'new';
export const KEPT = 'kept';
/** Stands in `batches` while a batch is under way, with its id in it: one at a time. */
export const OPEN = 'open';

export interface Intents {
  readonly format: 'nesting/batch';
  readonly formatVersion: 1;
  readonly id: string;
  /** What it is about, in a word that `words/` knows. */
  readonly what: string;
  readonly by: string;
  /** ISO 8601. */
  readonly at: string;
  /** The batch it takes back. */
  readonly undoes: string | null;
  readonly changes: readonly Change[];
  readonly steps: readonly Step[];
  /** Identities of what is moved, by key, where the disk has such: they tell after a crash who stands where. */
  readonly ids: Readonly<Record<string, string>>;
}

export type Outcome =
  /** The first so many steps are done; what files that were written are now, by key. */
  | { readonly done: number; readonly left?: Readonly<Record<string, Expected>> | undefined }
  | {
      readonly ended: Ended;
      readonly why?: string | undefined;
      /** Of a closed one: what could neither be finished nor taken back. */
      readonly rest?: readonly Rest[] | undefined;
    };

/** A change that stays as it is: where its entry was looked for, and what stands in the way. */
export interface Rest {
  readonly key: string;
  readonly path: string;
  readonly code: string;
}

/**
 * `paused` may be gone on with or taken back; the others are final. A `closed` one was taken back as far as that was
 * possible.
 */
export type Ended = 'done' | 'taken-back' | 'paused' | 'closed';

export interface Journal {
  begin(intents: Intents): void | Promise<void>;
  outcome(outcome: Outcome): void | Promise<void>;
  /** Steps between two outcomes. */
  readonly group: number;
}

/**
 * A file name made of a key, whatever is in it: keys are told apart by their hash (FNV-1a, 64 bits, over UTF-16 units).
 */
export function keptName(key: string): string {
  let hash = 0xcbf29ce484222325n;
  for (let i = 0; i < key.length; i++) hash = BigInt.asUintN(64, (hash ^ BigInt(key.charCodeAt(i))) * 0x100000001b3n);
  return `${key.replace(/[^A-Za-z0-9._-]+/g, '-').slice(-60)}-${hash.toString(16)}`;
}
