import { join } from '../../listing/entry';
import { readName } from '../../name/read';
import type { FolderCase, Found, Rule } from '../rule';

interface Frames {
  readonly head: string;
  readonly tail: string;
  readonly first: string;
  readonly frames: number[];
  newest: number;
}

/** Frames that are missing between the first and the last of a sequence. One that still grows is left in peace. */
export const sequenceGap: Rule = {
  code: 'sequence-gap',
  scope: 'folder',
  judge: (c) =>
    [...sequencesIn(c).values()].flatMap(({ head, tail, first, frames, newest }): Found[] => {
      frames.sort((a, b) => a - b);
      if (c.ground.isSettling(newest)) return [];
      const missing = gapsIn(frames);
      const count = missing.reduce((n, [from, to]) => n + to - from + 1, 0);
      return count === 0 ? [] : [{ path: join(c.listing.path, first), subject: join(c.listing.path, `${head}#${tail}`), params: { name: first, missing: missing.slice(0, 20).map(([from, to]) => (from === to ? String(from) : `${from}–${to}`)), count, frames: frames.length } }];
    }),
};

const isDigit = (code: number): boolean => code >= 48 && code <= 57;

function sequencesIn({ ground, listing, state }: FolderCase): Map<string, Frames> {
  const found = new Map<string, Frames>();
  if (state.kind !== 'planned' || state.line.rules.free) return found;
  const conventions = ground.conventionsIn(state.line).filter((k) => k.strict.slots.some((s) => s.field === 'frame'));
  if (conventions.length === 0) return found;
  // Frames come one after another: most names differ from the one before in their frame alone.
  let last: Frames | null = null;
  for (const file of listing.files) {
    const { name } = file;
    const dot = name.lastIndexOf('.');
    let from = dot;
    while (from > 0 && isDigit(name.charCodeAt(from - 1))) from--;
    if (dot <= 0 || from === dot) continue;
    const alike: boolean = last !== null && last.head.length === from && name.startsWith(last.head) && name.endsWith(last.tail) && name.length - dot === last.tail.length;
    if (!alike) {
      const head = name.slice(0, from);
      const tail = name.slice(dot);
      last = found.get(head + tail) ?? null;
      if (last === null) {
        // One frame tells for all of them: their names differ in it alone.
        if (!conventions.some((k) => readName(k.strict, name, k.bound) !== null)) continue;
        last = { head, tail, first: name, frames: [], newest: 0 };
        found.set(head + tail, last);
      }
    }
    last?.frames.push(Number(name.slice(from, dot)));
    if (last !== null && file.modified > last.newest) last.newest = file.modified;
  }
  return found;
}

function gapsIn(frames: readonly number[]): [number, number][] {
  const gaps: [number, number][] = [];
  for (let i = 1; i < frames.length; i++) {
    const [before, after] = [frames[i - 1] as number, frames[i] as number];
    if (after > before + 1) gaps.push([before + 1, after - 1]);
  }
  return gaps;
}
