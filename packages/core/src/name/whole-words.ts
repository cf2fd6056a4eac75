/**
 * Whole words of names: runs of letters and digits, whatever stands between them. A number that is a part of a longer
 * one is no word, so `26014` is none of `2026-01-4` nor of `126014`.
 */

/** What becomes of words that stand one after another. */
export interface WordChange {
  /** At least one; compared without regard to capitals. */
  readonly words: readonly string[];
  /** What stands in their place, from what stood there; `null` takes them away with their separator. */
  readonly now: (found: string) => string | null;
}

const WORD = /[\p{L}\p{N}]+/gu;

export const wordsIn = (text: string): string[] => text.match(WORD) ?? [];

/** All changes at once: what comes is not changed again. Of two that begin at one word the longer one counts. */
export function changeWords(name: string, changes: readonly WordChange[]): string {
  const found = [...name.matchAll(WORD)].map((m) => ({ text: m[0], at: m.index, end: m.index + m[0].length }));
  const longestFirst = [...changes].sort((a, b) => b.words.length - a.words.length);
  let out = '';
  let from = 0;
  for (let i = 0; i < found.length; ) {
    const change = longestFirst.find(({ words }) => words.every((word, n) => isSame(found[i + n]?.text, word)));
    const [first, last] = [found[i], found[i + (change?.words.length ?? 1) - 1]];
    if (first === undefined || last === undefined) break;
    i += change?.words.length ?? 1;
    if (change === undefined) continue;
    const now = change.now(name.slice(first.at, last.end));
    out += name.slice(from, first.at);
    from = last.end;
    if (now !== null) out += now;
    // A word that goes takes the separator before it along, or the one behind it where it is the first.
    else if (out !== '') out = out.replace(/[^\p{L}\p{N}]+$/u, '');
    else from += separatorLength(name, from);
  }
  return out + name.slice(from);
}

const isSame = (found: string | undefined, word: string): boolean =>
  found !== undefined && (found === word || found.toLowerCase() === word.toLowerCase());

const separatorLength = (name: string, at: number): number => /^[^\p{L}\p{N}]*/u.exec(name.slice(at))?.[0].length ?? 0;
