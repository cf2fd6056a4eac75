/** The word that was most likely meant. */
import { distance } from 'fastest-levenshtein';

/** The nearest of these words; `null` where none is near. */
export function nearestOf(word: string, known: Iterable<string>): string | null {
  let best: string | null = null;
  let least = Math.max(1, Math.floor(word.length / 3)) + 1;
  for (const other of known) {
    const far = distance(word.toLowerCase(), other.toLowerCase());
    if (far < least) [best, least] = [other, far];
  }
  return best;
}
