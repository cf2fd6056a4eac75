import type { Adjustments } from './node';

/** The same adjustments for a tree that is taken away as one thing: nothing of it lies on another volume. */
export const inOnePlace = (adjusted: Adjustments): Adjustments =>
  Object.fromEntries(Object.entries(adjusted).map(([key, { volume: _other, ...rest }]) => [key, rest]));
