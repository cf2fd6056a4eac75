/** Words that people, systems and devices put into names, in the languages studios work in. */

import { Bounded, Remembered } from '../../remembered';
import type { Abbreviation } from '../pattern/field';
import { squash } from './near';

/** In front of the number of a version. */
export const VERSION_WORDS: ReadonlySet<string> = new Set([
  ...['v', 'ver', 'vers', 'version', 'r', 'rev', 'revision', 'vsn'],
  ...['versie', 'versione', 'versao', 'fassung', 'wersja', 'verze', 'versio', 'udgave'],
]);

/** In front of any number. */
const NUMBER_WORDS: ReadonlySet<string> = new Set([
  ...['no', 'nr', 'num', 'number', 'n', 'nro', 'numero', 'nummer'],
  // What cameras and phones put in front of their counts.
  ...['img', 'dsc', 'dscf', 'dscn', 'pic', 'pict', 'p', 'mvi', 'clip', 'image', 'photo', 'foto', 'bild'],
]);

/** Whether a word in front of a count says what is counted: the field's own name, cut short or without its vowels. */
export function countsIn(word: string, field: string): boolean {
  const bare = squash(word);
  const name = squash(field);
  if (bare === '') return false;
  return (
    NUMBER_WORDS.has(bare) ||
    name.startsWith(bare) ||
    name.replace(/(?<=.)[aeiou]/g, '') === bare ||
    `${name}s` === bare
  );
}

const COPY = 'copy|copie|copia|cópia|kopie|kopia|kopi|kopio|kopija|másolat|副本|コピー';
const OF = 'of|de|di|do|von|van|af|av|z';

/** At the place of a name where the text begins; what systems add when they make a second file of one name. */
const COPY_MARKS: readonly RegExp[] = [
  // "name - Copy (2)", "name copy 2", "name (3rd copy)", "nameのコピー"
  new RegExp(
    `^[ _–—-]*\\(?(?:another |\\d+(?:st|nd|rd|th) )?(?:の)?(?:${COPY})(?: ?\\d{1,2}| ?\\(\\d{1,2}\\))?\\)?(?![a-z])`,
    'iu',
  ),
  // "name (2)", "name [1]"
  /^[ _-]*(?:\(\d{1,3}\)|\[\d{1,2}\])/,
  // "name (Bram's conflicted copy 2026-11-03)", "name_conflict-2026-11-03"
  /^[ _-]*\([^()]*conflict[^()]*\)/i,
  /^[ _-]+conflict(?:ed)?(?:[ _-]copy)?(?:[ _-]\d{4}-\d{2}-\d{2})?(?![a-z])/i,
  // Kept before a change.
  /^[ _.-]+(?:backup|bak)(?![a-z])/i,
];

/** In front of the whole name: "Copy of name", "Kopie (2) von name", "Kopia name". */
const COPY_FRONT = new RegExp(`^(?:(?:${COPY})(?: ?\\(\\d{1,2}\\))?(?: (?:${OF}))?(?: - | ))+`, 'iu');

const COPY_WORD = new RegExp(`^(?:${COPY})$`, 'iu');

export const isCopyWord = (word: string): boolean => COPY_WORD.test(word);

/** What people say of a state, a use or a size, where the name has no part for it. */
const ASIDES: ReadonlySet<string> = new Set([
  ...[
    'wip',
    'draft',
    'test',
    'tmp',
    'temp',
    'check',
    'checked',
    'review',
    'preview',
    'approved',
    'approval',
    'ok',
    'done',
  ],
  ...['fix', 'fixed', 'orig', 'original', 'client', 'export', 'render', 'proxy', 'lowres', 'hires', 'hd', 'uhd'],
  // The last one, in other languages.
  ...['definitief', 'definitif', 'definitiva', 'definitivo', 'endgultig', 'letzte', 'laatste', 'dernier', 'derniere'],
  ...['ultima', 'ultimo', 'sista', 'senaste', 'ostateczna', 'neu', 'nieuw', 'nouveau', 'nuevo', 'nuovo', 'nowy'],
]);
const SIZE = /^(?:\d{3,5}x\d{3,5}|\d{3,4}p|[2468]k|\d{2,3}fps|[23]x)$/;

export const isAside = (word: string): boolean => {
  const bare = squash(word);
  return ASIDES.has(bare) || SIZE.test(bare);
};

/** Most names hold none: looked at once for all places. */
const ANY_MARK = new RegExp(`${COPY}|conflict|bac?k|[([]`, 'iu');
const mayHoldMark = new Bounded(1000, (name) => ANY_MARK.test(name));

/** How many characters at this place of a name mark a copy; 0 for none. */
export function copyMarkAt(name: string, at: number): number {
  if (!mayHoldMark.of(name)) return 0;
  const rest = name.slice(at);
  if (at === 0) {
    const front = COPY_FRONT.exec(rest)?.[0].length ?? 0;
    if (front > 0) return front;
  }
  return Math.max(...COPY_MARKS.map((mark) => mark.exec(rest)?.[0].length ?? 0));
}

/** Endings that mean one form of file. */
const EXTENSION_TWINS: readonly (readonly string[])[] = [
  ['jpg', 'jpeg', 'jpe'],
  ['tif', 'tiff'],
  ['htm', 'html'],
  ['yml', 'yaml'],
  ['mpg', 'mpeg'],
  ['aif', 'aiff'],
  ['mid', 'midi'],
];

export const sameExtension = (a: string, b: string): boolean =>
  EXTENSION_TWINS.some((twins) => twins.includes(a) && twins.includes(b));

/** For each squashed short or long form, the squashed words it stands for: abbreviations go both ways. */
export const meanings = new Remembered(
  (abbreviations: readonly Abbreviation[]): ReadonlyMap<string, ReadonlySet<string>> => {
    const found = new Map<string, Set<string>>();
    const add = (from: string, to: string) => found.set(from, (found.get(from) ?? new Set()).add(to));
    for (const a of abbreviations) {
      add(squash(a.long), squash(a.short));
      add(squash(a.short), squash(a.long));
    }
    return found;
  },
);

const bannedWords = new Remembered((banned: readonly string[]): ReadonlySet<string> => new Set(banned.map(squash)));

/** Whether a word is one that nobody should write. */
export const isBanned = (word: string, banned: readonly string[]): boolean => bannedWords.of(banned).has(squash(word));
