/** Image sequences: names that differ in their frame alone, grouped in one pass however many there are. */
import { elementAt } from '../element';

/** One sequence: `head` + frame of at least `width` digits + `tail`. */
export interface Sequence {
  readonly head: string;
  readonly tail: string;
  readonly width: number;
  /** Frames as ranges, lowest first, both ends held. */
  readonly ranges: readonly (readonly [number, number])[];
  readonly count: number;
}

/** More would not be read. */
const MOST_RANGES = 20;

/** `1001–1010`, `1015`: the first of them. */
export const rangesShown = (ranges: Sequence['ranges']): string[] =>
  ranges.slice(0, MOST_RANGES).map(([from, to]) => (from === to ? String(from) : `${from}–${to}`));

export interface Grouped {
  readonly sequences: readonly Sequence[];
  /** Names that belong to no sequence, as they came. */
  readonly singles: readonly string[];
}

interface Gathered {
  readonly head: string;
  readonly tail: string;
  readonly width: number;
  readonly frames: number[];
  readonly first: string;
}

const isDigit = (code: number) => code >= 48 && code <= 57;

/** More digits are a date or a checksum, no frame. */
const MOST_DIGITS = 9;

/**
 * Frames are the digits right before the extension, as the trade writes them (`walk_v003.0101.exr`, `plate_0101.dpx`);
 * names of one
 * folder at a time. A number of `w` digits with a leading nought pads to `w`; without one it may be of any sequence it
 * is long enough for.
 * What stands alone is a single, and so is a version (`v004.usda`): a letter `v` right before the digits is none of
 * frames.
 */
export function groupFrames(names: Iterable<string>): Grouped {
  const gathered = new Map<string, Gathered>();
  const singles: string[] = [];
  let last: Gathered | null = null;
  for (const name of names) {
    let dot = name.lastIndexOf('.');
    if (dot < 0) dot = name.length;
    let from = dot;
    while (from > 0 && isDigit(name.charCodeAt(from - 1))) from--;
    const width = dot - from;
    if (width === 0 || width > MOST_DIGITS || isVersionMark(name, from)) {
      singles.push(name);
      continue;
    }
    let frame = 0;
    for (let i = from; i < dot; i++) frame = frame * 10 + name.charCodeAt(i) - 48;
    // Listings come in order: the next name nearly always belongs to the sequence of the last.
    if (
      last !== null &&
      last.width === width &&
      last.head.length === from &&
      last.tail.length === name.length - dot &&
      name.startsWith(last.head) &&
      name.endsWith(last.tail)
    ) {
      last.frames.push(frame);
      continue;
    }
    const head = name.slice(0, from);
    const tail = name.slice(dot);
    const key: string = `${head}\0${width}\0${tail}`;
    const known: Gathered = gathered.get(key) ?? { head, tail, width, frames: [], first: name };
    known.frames.push(frame);
    gathered.set(key, known);
    last = known;
  }
  return { ...sequencesOf(joinWidths([...gathered.values()]), singles), singles };
}

function isVersionMark(name: string, from: number): boolean {
  const before = name.charCodeAt(from - 1) | 32;
  return before === 118 && (from === 1 || !/[A-Za-z]/.test(elementAt(name, from - 2)));
}

/**
 * `a.999.exr` and `a.1000.exr` are one sequence of width 3: a longer number without a leading nought joins the widest
 * that takes it.
 */
function joinWidths(all: readonly Gathered[]): Gathered[] {
  const byName = new Map<string, Gathered[]>();
  for (const g of all) {
    const key = `${g.head}\0${g.tail}`;
    byName.set(key, [...(byName.get(key) ?? []), g]);
  }
  return [...byName.values()].flatMap((group) => {
    const kept: Gathered[] = [];
    for (const g of group.sort((a, b) => a.width - b.width)) {
      const padded = g.frames.some((frame) => String(frame).length < g.width);
      const home = padded ? undefined : kept.at(-1);
      if (home) for (const frame of g.frames) home.frames.push(frame);
      else kept.push(g);
    }
    return kept;
  });
}

function sequencesOf(all: readonly Gathered[], singles: string[]): { sequences: Sequence[] } {
  const sequences: Sequence[] = [];
  for (const { head, tail, width, frames, first } of all) {
    if (frames.length === 1) {
      singles.push(first);
      continue;
    }
    const { ranges, count } = rangesOf(frames);
    sequences.push({ head, tail, width, ranges, count });
  }
  return {
    sequences: sequences.sort((a, b) => (a.head < b.head ? -1 : a.head > b.head ? 1 : a.tail < b.tail ? -1 : 1)),
  };
}

/** Whole numbers → their ranges, lowest first; one that comes twice counts once. */
export function rangesOf(frames: readonly number[]): { ranges: [number, number][]; count: number } {
  const sorted = Float64Array.from(frames).sort();
  const ranges: [number, number][] = [];
  let count = 0;
  for (const frame of sorted) {
    const open = ranges[ranges.length - 1];
    if (open !== undefined && frame === open[1]) continue;
    count++;
    if (open !== undefined && frame === open[1] + 1) open[1] = frame;
    else ranges.push([frame, frame]);
  }
  return { ranges, count };
}

/** Frames absent between `from` and `to` (the sequence's own ends unless given), as ranges. */
export function missingFrames(
  { ranges }: Pick<Sequence, 'ranges'>,
  expected?: readonly [number, number],
): [number, number][] {
  const [from, to] = expected ?? [ranges[0]?.[0] ?? 0, ranges.at(-1)?.[1] ?? -1];
  const missing: [number, number][] = [];
  let next = from;
  for (const [first, last] of ranges) {
    if (first > next && next <= to) missing.push([next, Math.min(first - 1, to)]);
    next = Math.max(next, last + 1);
  }
  if (next <= to) missing.push([next, to]);
  return missing;
}

/** A name or path with `#` for the last digits before its extension. */
export const frameless = (path: string): string => path.replace(/\d+(?=(\.[^./]*)?$)/, '#');
