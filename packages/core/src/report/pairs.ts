/** Pairs of picture and sound as a table, so that nobody pairs them again. */
import type { Pair } from '../planners/intake/pair';
import { csv } from '../text/csv';

/** Seconds from the picture's beginning to the sound's; empty where no time is known. */
export const pairsCsv = (pairs: readonly Pair[]): string =>
  csv([
    ['picture', 'sound', 'offset', 'overlap', 'by'],
    ...pairs.map(({ picture, sound, offset, overlap, by }) => [picture, sound, offset, overlap, by]),
  ]);
