/**
 * Strict reading of one slot at one place: where it can end, and what the text between means. Linear in the text it
 * passes over.
 */

import { elementAt } from '../../element';
import { isPortableCharacter } from '../../portable/characters';
import { Remembered } from '../../remembered';
import { assertNever } from '../../result';
import { isoOf, readDate } from '../dates/dates';
import type { ReadValue } from '../pattern/field';
import type { TextShape } from '../pattern/shape';
import type { Entry, LikePiece, SlotDomain } from '../pattern/slot-domain';

/** Longest project number and extension, and letters of a version: longer ones are no code any more. */
export const MOST_CODE = { number: 64, ext: 16 } as const;
export const MOST_LETTERS = 6;
/** Longer counts could not be told from each other as numbers. */
export const MOST_DIGITS = 15;

const isDigit = (c: number) => c >= 48 && c <= 57;
const isUpper = (c: number) => c >= 65 && c <= 90;
const isLower = (c: number) => c >= 97 && c <= 122;

/** Ends of all texts at `from` that the domain takes, longest first. */
export function endsOf(domain: SlotDomain, name: string, from: number): number[] {
  switch (domain.kind) {
    case 'fixed':
      return lookup
        .of(domain.entries)
        .lengths.filter(
          (n) => lookup.of(domain.entries).byText.has(name.slice(from, from + n)) && from + n <= name.length,
        )
        .map((n) => from + n);
    case 'text':
      return textEnds(domain.shape, domain.max, domain.chars, name, from);
    case 'like':
      return likeEnds(domain.pieces, name, from, 0).filter((end) => end - from <= domain.max);
    case 'code':
      return runEnds(name, from, domain.of === 'number' ? isCodeChar : isExtChar, MOST_CODE[domain.of]);
    case 'digits': {
      let end = from;
      while (end - from < Math.max(MOST_DIGITS, domain.min) && isDigit(name.charCodeAt(end))) end++;
      const longest = name.charCodeAt(from) === 48 ? Math.min(end, from + domain.min) : end;
      return countDown(longest, from + domain.min);
    }
    case 'letters':
      return runEnds(name, from, domain.upper ? isUpper : isLower, MOST_LETTERS);
    case 'date':
      return [...new Set(readDate(name, from, domain.pattern, domain.pivot).map((r) => r.end))].sort((a, b) => b - a);
    default:
      return assertNever(domain);
  }
}

/** What a text that `endsOf` has taken means: looked at no further, so that reading stays linear. */
export function readingsOf(domain: SlotDomain, text: string): readonly ReadValue[] {
  switch (domain.kind) {
    case 'fixed':
    case 'date':
      return valuesOf(domain, text);
    case 'digits':
      return [Number(text)];
    default:
      return [text];
  }
}

/**
 * What a whole text means to the form: nothing where it does not take it, more than one value where its entries share a
 * text.
 */
export function valuesOf(domain: SlotDomain, text: string): readonly ReadValue[] {
  switch (domain.kind) {
    case 'fixed':
      return (lookup.of(domain.entries).byText.get(text) ?? []).map((e) => e.value);
    case 'digits':
      return takesWhole(domain, text) ? [Number(text)] : [];
    case 'date':
      return readDate(text, 0, domain.pattern, domain.pivot)
        .filter((r) => r.end === text.length)
        .map((r) => isoOf(r.date));
    default:
      return takesWhole(domain, text) ? [text] : [];
  }
}

export const takesWhole = (domain: SlotDomain, text: string): boolean =>
  text !== '' && endsOf(domain, text, 0).includes(text.length);

interface Lookup {
  readonly byText: ReadonlyMap<string, readonly Entry[]>;
  /** Lengths of the texts, longest first. */
  readonly lengths: readonly number[];
}

/** Entries are kept for the life of a compiled convention, so their index is too. */
const lookup = new Remembered((entries: readonly Entry[]): Lookup => {
  const byText = new Map<string, Entry[]>();
  for (const entry of entries) byText.set(entry.text, [...(byText.get(entry.text) ?? []), entry]);
  return { byText, lengths: [...new Set(entries.map((e) => e.text.length))].sort((a, b) => b - a) };
});

const isCodeChar = (c: number) => isDigit(c) || isUpper(c) || isLower(c) || c === 45;
const isExtChar = (c: number) => isDigit(c) || isLower(c);

function runEnds(name: string, from: number, takes: (code: number) => boolean, max: number): number[] {
  let end = from;
  while (end - from < max && takes(name.charCodeAt(end))) end++;
  return countDown(end, from + 1);
}

function countDown(from: number, to: number): number[] {
  const out: number[] = [];
  for (let i = from; i >= to; i--) out.push(i);
  return out;
}

function likeEnds(pieces: readonly LikePiece[], name: string, from: number, index: number): number[] {
  const piece = pieces[index];
  if (piece === undefined) return [from];
  if (piece.kind === 'literal')
    return name.startsWith(piece.text, from) ? likeEnds(pieces, name, from + piece.text.length, index + 1) : [];
  let end = from;
  while (isDigit(name.charCodeAt(end))) end++;
  return countDown(end, from + piece.min).flatMap((to) => likeEnds(pieces, name, to, index + 1));
}

/** The characters of a word in a shape, and the one that joins words (0 for none). */
function textEnds(shape: TextShape, max: number, chars: string | null, name: string, from: number): number[] {
  const ends: number[] = [];
  const allowed = chars === null ? null : charSet(chars);
  const joiner =
    shape === 'kebab'
      ? 45
      : shape === 'snake'
        ? 95
        : shape === 'as-is' || shape === 'camel' || shape === 'pascal'
          ? 0
          : 32;
  let atWordStart = true;
  let at = from;
  for (let count = 0; at < name.length && count < max; count++) {
    const code = name.codePointAt(at) ?? 0;
    const width = code > 0xffff ? 2 : 1;
    if (allowed !== null && !allowed.has(code)) break;
    if (shape === 'as-is') {
      if (!isPortableCharacter(String.fromCodePoint(code))) break;
      if (code === 32 && at === from) break;
      at += width;
      if (code !== 32) ends.push(at);
      continue;
    }
    if (code === joiner && !atWordStart) {
      atWordStart = true;
      at += 1;
      continue;
    }
    if (!takesLetter(shape, code, atWordStart)) break;
    atWordStart = false;
    at += 1;
    ends.push(at);
  }
  ends.reverse();
  // Any part of a composed name is composed.
  return shape === 'as-is' && !isPlain(name) && !isComposed(name)
    ? ends.filter((end) => isComposed(name.slice(from, end)))
    : ends;
}

function takesLetter(shape: TextShape, code: number, atWordStart: boolean): boolean {
  if (isDigit(code)) return true;
  switch (shape) {
    case 'upper':
      return isUpper(code);
    case 'title':
      return atWordStart ? isUpper(code) : isLower(code);
    case 'camel':
    case 'pascal':
      return isUpper(code) || isLower(code);
    default:
      return isLower(code);
  }
}

// biome-ignore lint/suspicious/noControlCharactersInRegex: the whole ASCII range is meant
export const isPlain = (text: string) => /^[\x00-\x7f]*$/.test(text);
export const isComposed = (text: string) => text.normalize('NFC') === text;

const charSets = new Map<string, ReadonlySet<number>>();

/** `A-Z0-9` → the code points it names; a hyphen at an edge stands for itself. */
export function charSet(chars: string): ReadonlySet<number> {
  const known = charSets.get(chars);
  if (known) return known;
  const points = [...chars];
  const set = new Set<number>();
  for (let i = 0; i < points.length; i++) {
    const first = elementAt(points, i).codePointAt(0) ?? 0;
    const last =
      points[i + 1] === '-' && points[i + 2] !== undefined ? (elementAt(points, i + 2).codePointAt(0) ?? 0) : first;
    if (last > first) i += 2;
    for (let code = first; code <= Math.min(last, first + 0xffff); code++) set.add(code);
  }
  if (charSets.size > 500) charSets.clear();
  charSets.set(chars, set);
  return set;
}
