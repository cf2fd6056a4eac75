/**
 * A change says what an entry is before and after. It is data: it can be shown, merged, reversed, sent over the wire.
 * Steps are ordered and disposable; they are computed from changes just before they are done.
 */
import type { Place } from './place';

/** Bytes that are written anew. */
export type NewContent =
  | { readonly kind: 'text'; readonly text: string }
  /** A starter file, kept with its template by this key; `isFilled` where the project's values are put into it. */
  | { readonly kind: 'starter'; readonly key: string; readonly isFilled: boolean };

export const isNew = (content: Content): content is NewContent => content.kind === 'text' || content.kind === 'starter';

/** Part of a file that becomes something else. Patches of one file are in order and do not overlap. */
export interface Patch {
  /** Bytes from the file's beginning. */
  readonly at: number;
  /** Bytes that go. */
  readonly length: number;
  /** Base64 of what comes in their place. */
  readonly bytes: string;
}

/** What a file is expected to be when the plan is carried out: as it was when the plan was made. */
export interface Expected {
  /** Bytes. */
  readonly size: number;
  /** Milliseconds since 1970. */
  readonly modified: number;
}

/** Bytes that are read from a file on the way. */
export type ReadContent =
  /**
   * The same bytes, proved by their hash; times and rights come along. With patches it is what they make of the bytes,
   * and has a time of its own.
   */
  | {
      readonly kind: 'copy';
      readonly from: Place;
      readonly expects?: Expected | undefined;
      readonly patches?: readonly Patch[] | undefined;
    }
  /** The file's own bytes but for some of them. */
  | { readonly kind: 'rewritten'; readonly patches: readonly Patch[] };

export type Content =
  | NewContent
  | ReadContent
  /** What an earlier batch set aside: it comes back itself, its time with it. */
  | { readonly kind: 'set-aside'; readonly from: Place };

/** What a change is about. */
export type Subject =
  /** A line of a project's plan, by its key. */
  | { readonly kind: 'line'; readonly line: string }
  /** A file of somebody's. */
  | { readonly kind: 'file' }
  /** What a check found wrong, by the finding's id. */
  | { readonly kind: 'finding'; readonly finding: string }
  /** What stands in the program's own folder. */
  | { readonly kind: 'own' }
  /** The project's own folder. */
  | { readonly kind: 'project' };

export interface Change {
  /** Opaque, and the batch's own. */
  readonly id: string;
  readonly subject: Subject;
  /** Joins what travels together: a frame sequence, companions, a folder that crosses to another file system. */
  readonly group: string | null;
  readonly entry: 'folder' | 'file';
  /**
   * Place before and after, `null` where the entry is not there: made where `before` is, taken back where `after` is,
   * moved where both differ, written anew where both are one and there is a content. What lies in a moved folder goes
   * along, unless it has a change of its own.
   */
  readonly before: Place | null;
  readonly after: Place | null;
  readonly content: Content | null;
  /** Of a file that is moved, rewritten or taken back; absent where it does not matter. */
  readonly expects?: Expected | undefined;
  /** Of a folder that is taken back: kept with the batch with all that is in it. Otherwise only an empty one goes. */
  readonly isWhole?: boolean | undefined;
}

/** `id` is that of the change the step belongs to: a change in a circle takes several. */
export type Step = { readonly id: string } /** A copy is laid ready for its place. */ & (
  | {
      readonly do: 'copy';
      readonly at: Place;
      readonly content: Extract<Content, { kind: 'copy' }>;
      readonly expects?: Expected | undefined;
    }
  /** The file, with its patches, is laid ready for its place. */
  | {
      readonly do: 'rewrite';
      readonly from: Place;
      readonly at: Place;
      readonly content: Extract<Content, { kind: 'rewritten' }>;
      readonly expects?: Expected | undefined;
    }
  /** Makes a folder; fails where something of that name stands. */
  | { readonly do: 'make'; readonly at: Place }
  /** Writes a file in its place, where nobody else can be; fails where something of that name stands. */
  | { readonly do: 'write'; readonly at: Place; readonly content: NewContent }
  /** What lies ready, or was set aside, takes its place; fails where something of that name stands. */
  | { readonly do: 'place'; readonly at: Place; readonly content: Content }
  /** A folder or file takes another place on its file system; fails where something stands there. */
  | { readonly do: 'move'; readonly from: Place; readonly at: Place }
  /** Kept with the batch: what is taken back, or what gives way to a new content. */
  | { readonly do: 'set-aside'; readonly at: Place }
  /** A file whose copy has taken its place on another file system. */
  | { readonly do: 'remove'; readonly at: Place; readonly expects?: Expected | undefined }
  /** Takes back a folder that was made, only while it is empty. */
  | { readonly do: 'unmake'; readonly at: Place }
);

/** Whether a step does all of a change, and says no more than that. */
export const isSameMove = ({ id, before, after, content }: Change, step: Step): boolean =>
  step.do === 'move' && step.id === id && content === null && step.from === before && step.at === after;

/** Disks keep times to different fractions of a second: a copy through another system may have lost some. */
export const isAsExpected = (there: Expected, expects: Expected | undefined): boolean =>
  expects === undefined || (there.size === expects.size && Math.abs(there.modified - expects.modified) <= 1);

/** In front of the names that things in a circle of moves have for a moment. */
export const PARKED = '.nesting-moving-';

/** Lines that a person sees, and may undo one by one: not the program's own files, nor the project's folder. */
export const isShown = ({ subject }: Change): boolean => subject.kind !== 'own' && subject.kind !== 'project';
