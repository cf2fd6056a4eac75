/** Photographs that were taken in one go: held down, bracketed, or by a telephone that does so by itself. */
import { grouped } from '../../grouped';
import { parentOf } from '../../listing/entry';
import type { LooseFile } from './recognise';

/** Seconds between two of one burst; clocks of photographs tell no parts of seconds. */
const MOST_BETWEEN = 1;
/** Fewer are shots of their own. */
const FEWEST_SHOTS = 3;

/** By path: the burst a photograph is of, called by the path of its first. */
export function burstsIn(files: readonly LooseFile[]): ReadonlyMap<string, string> {
  const taken = files.flatMap((file) => {
    const seconds = file.facts.has === 'still' ? Date.parse(`${file.facts.taken}Z`) / 1000 : Number.NaN;
    return Number.isNaN(seconds) ? [] : [{ file, seconds }];
  });
  const out = new Map<string, string>();
  for (const some of grouped(taken, ({ file }) => JSON.stringify([parentOf(file.path), file.facts.device])).values()) {
    const inOrder = [...some].sort((a, b) => a.seconds - b.seconds || (a.file.path < b.file.path ? -1 : 1));
    let from = 0;
    inOrder.forEach(({ seconds }, at) => {
      const next = inOrder[at + 1];
      if (next !== undefined && next.seconds - seconds <= MOST_BETWEEN) return;
      const burst = inOrder.slice(from, at + 1);
      const first = burst[0];
      if (first !== undefined && shotsOf(burst.map(({ file }) => file)) >= FEWEST_SHOTS)
        for (const { file } of burst) out.set(file.path, first.file.path);
      from = at + 1;
    });
  }
  return out;
}

/** A shot may lie there more than once: raw, developed, with its side files. */
const shotsOf = (files: readonly LooseFile[]): number =>
  new Set(files.map(({ path }) => path.replace(/\.[^./]*$/, ''))).size;
