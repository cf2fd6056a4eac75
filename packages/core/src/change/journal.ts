/**
 * What is written down of a batch. Intents stand there before the first step; outcomes follow in small groups; the last
 * line says how it ended.
 */
import { join } from '../listing/entry';
import type { Change, Content, Expected, Step } from './change';
import type { Place } from './place';

/** In a root's own folder. */
export const BATCHES = 'batches';
/** In a batch's folder: contents not yet in place, and what gave way. */
export const NEW = 'new';
export const KEPT = 'kept';
/** Stands in `batches` while a batch is under way, with its id in it: one at a time. */
export const OPEN = 'open';

export interface Intents {
  readonly id: string;
  /** What it is about, in a word that `words/` knows. */
  readonly what: string;
  readonly by: string;
  /** ISO 8601. */
  readonly at: string;
  /** The batch it takes back. */
  readonly undoes: string | null;
  /** The request it was asked for by, where a server was asked. */
  readonly request?: string | undefined;
  readonly changes: readonly Change[];
  readonly steps: readonly Step[];
  /** Identities of what is moved, by the change's id, where the disk has such: they tell after a crash who stands where. */
  readonly ids: Readonly<Record<string, string>>;
  /** What stands where the batch will be at work, and goes along with its folder before that. */
  readonly others: readonly Bystander[];
}

/** An entry that no change names. */
export interface Bystander {
  readonly at: Place;
  readonly entry: 'folder' | 'file';
  /** Empty where the disk has no such thing. */
  readonly id: string;
}

export type Outcome =
  /** The first so many steps are done; what files that were written are now, by the change's id. */
  | {
      readonly done: number;
      readonly left?: Readonly<Record<string, Expected>> | undefined;
      /** Hashes of what was copied, by the change's id. */
      readonly proved?: Readonly<Record<string, string>> | undefined;
    }
  | {
      readonly ended: Ended;
      readonly why?: string | undefined;
      /** Of a closed one: what could neither be finished nor taken back. */
      readonly rest?: readonly Rest[] | undefined;
    };

/** A change that stays as it is: where its entry was looked for, and what stands in the way. */
export interface Rest {
  readonly id: string;
  readonly at: Place;
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

/** For what is taken back whole where it does not end: nothing of it needs to be written down. */
export const NO_JOURNAL: Journal = {
  group: Number.POSITIVE_INFINITY,
  begin: () => undefined,
  outcome: () => undefined,
};

/**
 * A file name made of an id, whatever is in it: ids are told apart by their hash (FNV-1a, 64 bits, over UTF-16 units).
 */
function keptName(id: string): string {
  let hash = 0xcbf29ce484222325n;
  for (let i = 0; i < id.length; i++) hash = BigInt.asUintN(64, (hash ^ BigInt(id.charCodeAt(i))) * 0x100000001b3n);
  return `${id.replace(/[^A-Za-z0-9._-]+/g, '-').slice(-60)}-${hash.toString(16)}`;
}

/** Where the content of a place lies ready, or lies since it was set aside. `folder` is the batch's own in each root. */
export const readyPlace = (id: string, at: Place, content: Content, folder: string): Place =>
  content.kind === 'set-aside' ? content.from : { root: at.root, path: join(join(folder, NEW), keptName(id)) };

/** Where what gives way at a place is kept: on its own file system. */
export const keptPlace = (id: string, at: Place, folder: string): Place => ({
  root: at.root,
  path: join(join(folder, KEPT), keptName(id)),
});

/** From where to where a step takes something that is there; `null` where it makes or ends it. */
export function movement(step: Step, folder: string): readonly [from: Place, to: Place] | null {
  switch (step.do) {
    case 'move':
      return [step.from, step.at];
    case 'place':
      return [readyPlace(step.id, step.at, step.content, folder), step.at];
    case 'set-aside':
      return [step.at, keptPlace(step.id, step.at, folder)];
    default:
      return null;
  }
}

/** Hashes of what was copied, proved by reading it back, by the change's id. */
export const provedOf = (outcomes: readonly Outcome[]): Readonly<Record<string, string>> =>
  Object.assign({}, ...outcomes.map((outcome) => ('proved' in outcome ? outcome.proved : {})));
