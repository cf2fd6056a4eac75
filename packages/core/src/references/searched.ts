/** How much of a file is read for what it refers to: the same wherever it is read. Sizes in bytes. */

/** Text formats are read whole up to here: longer ones are no lists of references. */
const MOST_TEXT = 16 << 20;
/** Other files are searched whole up to here; of longer ones both ends are, where programs write paths. */
const MOST_WHOLE = 64 << 20;
const END = 16 << 20;
/** Different things one document refers to; nobody reads on. */
const MOST_TARGETS = 10_000;

export const isReadAsText = (size: number): boolean => size <= MOST_TEXT;

/** The stretches of a file of this size that are searched for paths, each from a byte to before another. */
export const stretchesOf = (size: number): readonly (readonly [from: number, to: number])[] =>
  size <= MOST_WHOLE
    ? [[0, size]]
    : [
        [0, END],
        [size - END, size],
      ];

/** Each target once, and no more than anybody reads; no path holds the character that ends texts (NUL). */
export const distinctTargets = (references: readonly { readonly target: string }[]): readonly string[] =>
  [...new Set(references.map((r) => r.target))].filter((target) => !target.includes('\0')).slice(0, MOST_TARGETS);
