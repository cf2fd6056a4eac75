/**
 * A name with the characters that only look like others put right: what nobody sees is gone, marks of typography, full
 * width and letters of another alphabet are those of a keyboard. Each character keeps its place in the name itself.
 */
import { isControl, isInvisible } from '../../portable/characters';

export interface Tidied {
  readonly text: string;
  /** Where each character stands in the name, and the name's end. */
  readonly places: readonly number[];
}

/** Greek and Cyrillic letters that look like Latin ones. */
const ALIKE: ReadonlyMap<string, string> = new Map(
  [
    ...['АA', 'ВB', 'СC', 'ЕE', 'НH', 'ІI', 'ЈJ', 'КK', 'МM', 'ОO', 'РP', 'ЅS', 'ТT', 'ХX', 'УY', 'ԜW'],
    ...['аa', 'сc', 'еe', 'һh', 'іi', 'јj', 'оo', 'рp', 'ѕs', 'хx', 'уy', 'ԁd', 'ԛq', 'ԝw', 'ѵv', 'кk', 'тt', 'мm'],
    ...['ΑA', 'ΒB', 'ΕE', 'ΖZ', 'ΗH', 'ΙI', 'ΚK', 'ΜM', 'ΝN', 'ΟO', 'ΡP', 'ΤT', 'ΥY', 'ΧX'],
    ...['αa', 'οo', 'ρp', 'νv', 'υu', 'ιi', 'κk', 'τt'],
  ].map((pair) => [pair.slice(0, 1), pair.slice(1)] as const),
);

const MARKS: ReadonlyMap<string, string> = new Map([
  ...[...'’‘´`ʼ′‛ʹ'].map((ch) => [ch, "'"] as const),
  ...[...'“”„‟«»″'].map((ch) => [ch, '"'] as const),
  ['−', '-'],
  ['⁃', '-'],
]);

const CLUSTERS = /(?:%[0-9A-Fa-f]{2})+|(?:\p{L}\p{M}*)+|[\s\S]\p{M}*/gu;

export function tidied(name: string): Tidied {
  if (/^[ -~]*$/.test(name) && !/[%`]/.test(name))
    return { text: name, places: Array.from({ length: name.length + 1 }, (_, i) => i) };
  let text = '';
  const places: number[] = [];
  const put = (written: string, at: number) => {
    for (let i = 0; i < written.length; i++) places.push(at);
    text += written;
  };
  for (const { 0: found, index } of name.matchAll(CLUSTERS)) {
    if (found.startsWith('%')) put(decoded(found), index);
    else if (!/^\p{L}/u.test(found)) put([...found.normalize('NFC')].map(tidyCharacter).join(''), index);
    else for (const letter of tidyWord(found)) put(letter.written, index + letter.at);
  }
  places.push(name.length);
  places[0] = 0;
  return { text, places };
}

/** A word of another alphabet stays as it is, unless Latin letters that look alike can write all of it. */
function tidyWord(word: string): { readonly written: string; readonly at: number }[] {
  const letters = [...word.matchAll(/\p{L}\p{M}*/gu)].map((m) => ({
    written: [...m[0].normalize('NFC')].map(narrowed).join(''),
    at: m.index,
  }));
  const alike = letters.map(({ written, at }) => ({ written: ALIKE.get(written) ?? written, at }));
  return alike.every(({ written }) => /^\p{Script=Latin}/u.test(written)) ? alike : letters;
}

function tidyCharacter(ch: string): string {
  const code = ch.codePointAt(0) ?? 0;
  if (isInvisible(ch) || isControl(code) || /\p{Cf}|\p{Variation_Selector}/u.test(ch)) return '';
  if (/\p{Zs}/u.test(ch)) return ' ';
  if (/\p{Pd}/u.test(ch)) return '-';
  return MARKS.get(ch) ?? narrowed(ch);
}

/** Full width, ligatures, figures of other scripts, where there is an ASCII form. */
function narrowed(ch: string): string {
  if (ch <= '~') return ch;
  const plain = ch.normalize('NFKC');
  if (/^[ -~]+$/.test(plain)) return plain;
  const digit = /^\p{Nd}$/u.test(ch) ? digitOf(ch) : null;
  return digit ?? ch;
}

/** Figures of a script stand in tens, in order. */
function digitOf(ch: string): string | null {
  const code = ch.codePointAt(0) ?? 0;
  for (let n = 0; n < 10; n++) {
    const zero = code - n;
    if (!/^\p{Nd}$/u.test(String.fromCodePoint(zero - 1))) return String(n);
  }
  return null;
}

function decoded(percents: string): string {
  try {
    return [...decodeURIComponent(percents)].map(tidyCharacter).join('');
  } catch {
    return percents;
  }
}
