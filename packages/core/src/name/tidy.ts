/** Free text → what may stand in a name: abbreviations both ways, and characters that some system refuses. */
import { FORBIDDEN_WINDOWS, isPortableCharacter } from '../portable/characters';
import { nameFaults } from '../portable/name';
import type { ProfileName } from '../portable/profiles';
import type { Abbreviation } from './pattern/field';

const WORD = /[\p{L}\p{N}]+/gu;

/** Long forms → their short ones, longest first, whole words only and without regard to case. */
export const abbreviate = (text: string, abbreviations: readonly Abbreviation[]): string =>
  replaced(
    text,
    abbreviations.map((a) => [a.long, a.short] as const),
  );

/** Short forms → their long ones. A short form that stands for several things stays as it is. */
export function spellOut(text: string, abbreviations: readonly Abbreviation[]): string {
  const uses = new Map<string, number>();
  for (const a of abbreviations) uses.set(a.short.toLowerCase(), (uses.get(a.short.toLowerCase()) ?? 0) + 1);
  return replaced(
    text,
    abbreviations.filter((a) => uses.get(a.short.toLowerCase()) === 1).map((a) => [a.short, a.long] as const),
  );
}

/** One pass over the words, so that what was put in is not replaced again. */
function replaced(text: string, pairs: readonly (readonly [string, string])[]): string {
  const forms = pairs
    .map(([from, to]) => ({ words: wordsIn(from), to }))
    .filter((f) => f.words.length > 0)
    .sort((a, b) => b.words.length - a.words.length);
  const found = [...text.matchAll(WORD)].map((m) => ({
    word: m[0].toLowerCase(),
    at: m.index,
    end: m.index + m[0].length,
  }));
  let out = '';
  let done = 0;
  for (let i = 0; i < found.length; ) {
    const form = forms.find(({ words }) =>
      words.every(
        (word, k) =>
          found[i + k]?.word === word &&
          (k === 0 || /^[\s_-]+$/.test(text.slice(found[i + k - 1]?.end, found[i + k]?.at))),
      ),
    );
    if (form === undefined) {
      i++;
      continue;
    }
    out += text.slice(done, found[i]?.at) + form.to;
    done = found[i + form.words.length - 1]?.end ?? done;
    i += form.words.length;
  }
  return out + text.slice(done);
}

const wordsIn = (text: string): string[] => [...text.matchAll(WORD)].map((m) => m[0].toLowerCase());

/**
 * The nearest text that may stand in a file name on these systems: refused characters become a hyphen, invisible ones
 * go, blanks run
 * together, edges are clean, a device's name gets an underscore. Letters stay as they are. Empty where nothing is left.
 */
export function sanitise(text: string, profiles: readonly ProfileName[]): string {
  let out = '';
  for (const ch of text.normalize('NFC')) {
    if (/\s/u.test(ch)) out += ' ';
    else if (isPortableCharacter(ch) && !refuses(ch, profiles)) out += ch;
    else if (FORBIDDEN_WINDOWS.includes(ch) || ch === '/' || refuses(ch, profiles)) out += '-';
  }
  const clean = trimmed(out.replace(/ +/g, ' ').replace(/(?: ?- ?){2,}/g, ' - '));
  const faults = nameFaults(clean, profiles);
  const named = faults.some((f) => f.code === 'name-reserved') ? clean.replace(/^([^.]*)/, '$1_') : clean;
  return shortened(named, profiles);
}

const trimmed = (text: string): string => text.replace(/^[\s.-]+|[\s.-]+$/g, '');

const refuses = (ch: string, profiles: readonly ProfileName[]): boolean =>
  nameFaults(`a${ch}a`, profiles).some((f) => f.code === 'name-forbidden');

/** Too long a name loses its end, whole characters at a time. */
function shortened(name: string, profiles: readonly ProfileName[]): string {
  let all = [...name];
  while (all.length > 0 && nameFaults(all.join(''), profiles).some((f) => f.code === 'name-too-long'))
    all = all.slice(0, Math.min(all.length - 1, 255));
  return trimmed(all.join(''));
}
