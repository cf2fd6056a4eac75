/** How near two spellings are: one slip of the hand, a character that looks like another, the same form. */
import { distance } from 'fastest-levenshtein';
import { Bounded, Remembered } from '../../remembered';
import { isExchanged } from '../../text/exchanged';
import { fold } from '../../text/fold';

/** Letters and digits alone, folded and lower case: what is left when case, separators and accents are put aside. */
export const squash = (text: string): string => squashed.of(text);

/** The same words come up in every broken name of a project. */
const squashed = new Bounded(20_000, (text) =>
  fold(text)
    .text.toLowerCase()
    .replace(/[^a-z0-9]+/g, ''),
);

const squashedLists = new Remembered((texts: readonly string[]): readonly string[] => texts.map(squash));

export const squashAll = (texts: readonly string[]): readonly string[] => squashedLists.of(texts);

export function isNear(found: string, meant: string): boolean {
  return Math.abs(found.length - meant.length) <= 12 && isNearBare(squash(found), squash(meant));
}

/** A slip of the hand in a word adds no word: `x 26014` is more than `26014`. */
export const addsWords = (found: string, meant: string): boolean => wordsOf(found) > wordsOf(meant);

const wordsOf = (text: string): number => text.match(/[\p{L}\p{N}]+/gu)?.length ?? 0;

/** One slip apart, two in a long word; numbers are never near each other. Takes squashed texts. */
export function isNearBare(a: string, b: string): boolean {
  if (Math.abs(a.length - b.length) > 2 || a.length < 3 || b.length < 3) return false;
  if (a === b) return true;
  if ((DIGIT.test(a) || DIGIT.test(b)) && digitsOf(a) !== digitsOf(b)) return false;
  const d = distance(a, b);
  // A code of three letters has one letter too many only where a letter is said twice.
  if (d === 1) return b.length > 3 || (a.length > b.length && isDoubledIn(a, b));
  return d === 2 && (b.length >= 7 || isExchanged(a, b) || isShuffled(a, b));
}

const DIGIT = /[0-9]/;
const digitsOf = (text: string): string => text.replace(/[^0-9]/g, '');

/** The same letters behind the same first one. */
const isShuffled = (a: string, b: string): boolean =>
  b.length > 3 && a[0] === b[0] && [...a].sort().join('') === [...b].sort().join('');

const isDoubledIn = (long: string, short: string): boolean =>
  [...long].some((ch, i) => ch === long[i + 1] && long.slice(0, i) + long.slice(i + 1) === short);

/** Numbers with one figure too many, one too few, another one, or two exchanged. */
export const isNearNumber = (a: string, b: string): boolean =>
  a !== b && /^\d+$/.test(a) && /^\d+$/.test(b) && b.length >= 3 && (distance(a, b) === 1 || isExchanged(a, b));

/** A letter typed for the digit it looks like. */
export const digitsFor = (text: string): string => text.replace(/[Oo]/g, '0').replace(/[Il|]/g, '1');

/** Texts that look alike have one likeness. Takes a squashed text. */
export const likeness = (bare: string): string => likenesses.of(bare);

const likenesses = new Bounded(20_000, (bare) =>
  bare.replace(/0/g, 'o').replace(/[1i]/g, 'l').replace(/5/g, 's').replace(/8/g, 'b'),
);

const likenessLists = new Remembered((texts: readonly string[]): readonly string[] =>
  texts.map((text) => likeness(squash(text))),
);

export const likenessAll = (texts: readonly string[]): readonly string[] => likenessLists.of(texts);

/** Letters where letters stand, digits where digits stand: `26009` has the form of `26014`. */
export function sameDomain(a: string, b: string): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (kindOf(a.charCodeAt(i)) !== kindOf(b.charCodeAt(i))) return false;
  return true;
}

/** A digit, a capital, a small letter, or the character itself. */
function kindOf(code: number): number {
  if (code >= 48 && code <= 57) return 48;
  if (code >= 65 && code <= 90) return 65;
  return code >= 97 && code <= 122 ? 97 : code;
}
