/** A way of carrying over: what comes along, and what it is called. It can be kept with a template and used again. */

export const COMES = ['nothing', 'empty', 'current', 'everything'] as const;
/** What of a folder comes along; its subfolders follow unless they say otherwise. */
export type Comes = (typeof COMES)[number];

/** Everything that is said must hold. */
export interface Criterion {
  readonly family?: string | undefined;
  /** Values of the name, as it reads by its folder's convention. */
  readonly reading?: Readonly<Record<string, string>> | undefined;
}

/** What a word of names that read by no convention becomes; `null` takes it away with its separator. */
export interface OldWord {
  readonly old: string;
  readonly new: string | null;
}

export const VERSION_WAYS = ['keep', 'restart', 'drop'] as const;
/** Versions stay, begin anew, or are left out where their convention lets them. */
export type VersionWay = (typeof VERSION_WAYS)[number];

export interface CarryWay {
  /** By the template's id of the folder; what is not said is `current`. */
  readonly folders: Readonly<Record<string, Comes>>;
  readonly take: readonly Criterion[];
  /** Stronger than `take`. */
  readonly leave: readonly Criterion[];
  readonly version: VersionWay;
  readonly words: readonly OldWord[];
}

export const PLAIN_WAY: CarryWay = { folders: {}, take: [], leave: [], version: 'restart', words: [] };
