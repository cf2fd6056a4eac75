/**
 * A change is keyed by the identity of an entry: what is there before, what after. It can be looked at, merged and reversed.
 * Steps are ordered and disposable; they are computed from changes just before they are done.
 */
export type Content =
  | { readonly kind: 'text'; readonly text: string }
  /** Bytes kept elsewhere (a starter file), asked for by key when the step is done. */
  | { readonly kind: 'kept'; readonly key: string };

export interface Change {
  readonly key: string;
  readonly what: 'folder' | 'file';
  /** Path before and after, `null` where the entry is not there. */
  readonly before: string | null;
  readonly after: string | null;
  readonly content: Content | null;
}

export type Step =
  /** Makes a folder; fails where something of that name stands. */
  | { readonly do: 'make'; readonly path: string }
  /** Writes a new file; fails where something of that name stands. */
  | { readonly do: 'write'; readonly path: string; readonly content: Content };
