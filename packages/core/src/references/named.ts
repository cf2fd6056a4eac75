/**
 * Names of files and folders that moved, found in documents that only their programs can read.
 *
 * 1. Each name is written as documents write it: in one and in two bytes a letter, with percent codes where it needs them.
 * 2. Names are grouped by their last letters, which few names differ in; these are looked for.
 * 3. Where they stand, the letters in front tell which name it is, if any. It counts as a whole word only.
 */
import { grouped } from '../grouped';
import { join, nameOf, parentOf } from '../listing/entry';
import { groupFrames } from '../name/frames';
import { Moves } from './moves';

/** Where something was, and where it is; `after` is `null` where it is gone. Paths from the project's root. */
export interface Moved {
  readonly entry: 'folder' | 'file';
  readonly before: string;
  readonly after: string | null;
}

export interface Named {
  /** As the document has it. */
  readonly target: string;
  /** Where that is now; `null` where it is not one place. */
  readonly to: string | null;
}

/** Shorter names stand everywhere. */
const LEAST_LENGTH = 5;
/** A document is searched once for each group of names. */
const MOST_GROUPS = 48;
/** Names that one document tells. */
const MOST_NAMED = 200;
/** Places of one group that are looked at: a file may hold nothing else. */
const MOST_PLACES = 200_000;

interface Group {
  readonly ending: string;
  /** Lengths of its names, longest first. */
  readonly lengths: readonly number[];
  readonly names: ReadonlyMap<string, Named>;
}

export class NamesSought {
  private readonly groups: readonly Group[];

  constructor(moved: readonly Moved[]) {
    const named = new Map<string, Named>();
    for (const one of namesOf(moved)) {
      const known = named.get(one.target);
      named.set(one.target, known === undefined || known.to === one.to ? one : { ...one, to: null });
    }
    const written = [...named.values()].flatMap((one) => formsOf(one.target).map((form) => [form, one] as const));
    this.groups = groupsOf(written);
  }

  /** @param bytes - of the document, each as one character (Latin-1) */
  in(bytes: string): readonly Named[] {
    const out = new Set<Named>();
    for (const group of this.groups) {
      let places = 0;
      for (let at = bytes.indexOf(group.ending); at >= 0; at = bytes.indexOf(group.ending, at + 1)) {
        if (places++ >= MOST_PLACES || out.size >= MOST_NAMED) break;
        const found = nameAt(group, bytes, at + group.ending.length);
        if (found !== null) out.add(found);
      }
    }
    return [...out];
  }
}

function nameAt({ lengths, names }: Group, bytes: string, end: number): Named | null {
  for (const length of lengths) {
    if (length > end) continue;
    const found = names.get(bytes.slice(end - length, end));
    if (found !== undefined && isWhole(bytes, end - length, end)) return found;
  }
  return null;
}

const isWord = (code: number): boolean =>
  (code >= 48 && code <= 57) ||
  (code >= 65 && code <= 90) ||
  (code >= 97 && code <= 122) ||
  code === 95 ||
  code === 45 ||
  code >= 128;

/** No letter stands right before it or behind it, in its own encoding. */
function isWhole(bytes: string, from: number, to: number): boolean {
  const isWide = bytes.charCodeAt(from + 1) === 0;
  const before = isWide ? from - 2 : from - 1;
  if (before >= 0 && isWord(bytes.charCodeAt(before)) && (!isWide || bytes.charCodeAt(before + 1) === 0)) return false;
  const isFolder = /[\\/]\0?$/.test(bytes.slice(to - 2, to));
  if (isFolder || to >= bytes.length) return true;
  return !isWord(bytes.charCodeAt(to)) || (isWide && bytes.charCodeAt(to + 1) !== 0);
}

/** What documents may call it: a file by its name, a sequence also as a whole, a folder that is renamed before a separator. */
function* namesOf(moved: readonly Moved[]): Generator<Named> {
  const files = moved.filter((m) => m.entry === 'file' && m.before !== m.after);
  for (const { before, after } of files)
    if (nameOf(before).length >= LEAST_LENGTH) yield { target: nameOf(before), to: after };
  const moves = new Moves(
    new Map(files.flatMap((m) => (m.after === null ? [] : [[m.before, m.after] as const]))),
    new Map(),
  );
  for (const [folder, inIt] of grouped(files, (m) => parentOf(m.before)))
    for (const { head, tail, width } of groupFrames(inIt.map((m) => nameOf(m.before))).sequences)
      for (const mark of ['#'.repeat(width), `%0${width}d`]) {
        const target = `${head}${mark}${tail}`;
        yield { target, to: moves.ofFrames(join(folder, target)) };
      }
  for (const { entry, before, after } of moved)
    if (
      entry === 'folder' &&
      after !== null &&
      nameOf(before) !== nameOf(after) &&
      nameOf(before).length >= LEAST_LENGTH
    )
      for (const separator of ['/', '\\']) yield { target: `${nameOf(before)}${separator}`, to: after };
}

const ENCODER = new TextEncoder();
const latin = (codes: Iterable<number>): string => {
  let out = '';
  for (const code of codes) out += String.fromCharCode(code);
  return out;
};

/** The bytes of a name as documents hold it, each as one character. */
function formsOf(name: string): readonly string[] {
  const coded = name.isWellFormed() ? encodeURI(name) : name;
  const wide = latin(
    Array.from({ length: name.length }, (_, i) => [name.charCodeAt(i) & 255, name.charCodeAt(i) >> 8]).flat(),
  );
  return [...new Set([latin(ENCODER.encode(name)), coded, wide])];
}

function groupsOf(written: readonly (readonly [string, Named])[]): readonly Group[] {
  for (const letters of [4, 3, 2, 1]) {
    const parted = grouped(written, ([form]) => form.slice(-letters * (form.charCodeAt(1) === 0 ? 2 : 1)));
    if (parted.size > MOST_GROUPS && letters > 1) continue;
    return [...parted].map(([ending, names]) => ({
      ending,
      lengths: [...new Set(names.map(([form]) => form.length))].sort((a, b) => b - a),
      names: new Map(names),
    }));
  }
  return [];
}
