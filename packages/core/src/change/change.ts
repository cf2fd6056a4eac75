/**
 * A change is keyed by the identity of an entry: what is there before, what after. It can be looked at, merged and
 * reversed.
 * Steps are ordered and disposable; they are computed from changes just before they are done.
 */
export type NewContent =
  | { readonly kind: 'text'; readonly text: string }
  /** Bytes kept elsewhere (a starter file), asked for by key when the step is done. */
  | { readonly kind: 'kept'; readonly key: string };

export type Content =
  | NewContent
  /** A file that an earlier batch set aside: it comes back itself, its time with it. */
  | { readonly kind: 'set-aside'; readonly path: string };

/** What a file is expected to be when the plan is carried out: as it was when the plan was made. */
export interface Expected {
  readonly size: number;
  /** Milliseconds since 1970. */
  readonly modified: number;
}

export interface Change {
  readonly key: string;
  readonly what: 'folder' | 'file';
  /**
   * Path before and after, from the root, `null` where the entry is not there: made where `before` is, taken back where
   * `after` is, moved where both
   * differ, rewritten where both are one and there is a content. What lies in a moved folder goes along, unless it has
   * a change of its own.
   */
  readonly before: string | null;
  readonly after: string | null;
  readonly content: Content | null;
  /** Of a file that is moved, rewritten or taken back; absent where it does not matter. */
  readonly expects?: Expected | undefined;
}

/** `key` is that of the change the step belongs to: a change in a circle takes several. */
export type Step = { readonly key: string } /** Makes a folder; fails where something of that name stands. */ & (
  | { readonly do: 'make'; readonly path: string }
  /** Writes a new file; fails where something of that name stands. */
  | { readonly do: 'write'; readonly path: string; readonly content: Content }
  /** A folder or file takes another place; fails where something stands there. */
  | { readonly do: 'move'; readonly from: string; readonly path: string }
  /** Takes back a folder that was made, only while it is empty. */
  | { readonly do: 'unmake'; readonly path: string }
  /** A file is set aside, kept with the batch: one that is taken back, or one whose new content is written next. */
  | { readonly do: 'unwrite'; readonly path: string }
);

/** In front of the names that things in a circle of moves have for a moment. */
export const PARKED = '.nesting-moving-';
