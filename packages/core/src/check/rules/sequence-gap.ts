import { elementAt } from '../../element';
import { join, nameOf } from '../../listing/entry';
import { rangesShown } from '../../name/frames';
import { ownValue } from '../../own-value';
import { pathOfRun, type Run } from '../items';
import { type FolderCase, rule } from '../rule';

type Range = readonly [number, number];

/**
 * Frames that are missing within those expected: the folder's own range, a range written beside the sequence, or the
 * longest of its sisters of the same
 * version. A sequence that still grows is left in peace.
 */
export const sequenceGap = rule({
  code: 'sequence-gap',
  weight: 'must',
  about: 'file',
  params: { name: 'text', missing: 'texts', count: 'count', frames: 'count' },
  remedy: { act: 'none' },
  folder: (c) =>
    c.items.runs.flatMap((run) => {
      if (c.rules.isSettling(run.newest)) return [];
      const expected = expectedOf(c, run);
      // Nearly all are whole, and their ends alone tell it: no two frames of a sequence have one number.
      if (
        run.frames.length === run.high - run.low + 1 &&
        (expected === null || (run.low <= expected[0] && run.high >= expected[1]))
      )
        return [];
      const frames = Float64Array.from(run.frames).sort();
      const missing = gapsIn(frames, expected);
      const count = missing.reduce((n, [from, to]) => n + to - from + 1, 0);
      if (count === 0) return [];
      const path = join(c.listing.path, [...run.names].sort()[0] ?? run.first);
      return [
        {
          path,
          subject: pathOfRun(c.listing.path, run),
          params: { name: nameOf(path), missing: rangesShown(missing), count, frames: frames.length },
          modified: run.newest,
        },
      ];
    }),
});

function expectedOf(c: FolderCase, run: Run): Range | null {
  const written = ownValue(c.listing.ranges ?? {}, run.head.replace(/[._-]$/, ''));
  if (written !== undefined) return written;
  const own = c.state.kind === 'planned' ? c.rules.framesOf(c.state.line) : null;
  if (own !== null) return own;
  // Layers and passes of one version are of one length; a run of one frame is a still, and no measure.
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const sister of c.items.runs) {
    if (
      sister.by !== run.by ||
      sister.reading.version !== run.reading.version ||
      sister.frames.length < 2 ||
      run.frames.length < 2
    )
      continue;
    first = Math.min(first, sister.low);
    last = Math.max(last, sister.high);
  }
  return first <= last ? [first, last] : null;
}

function gapsIn(frames: Float64Array, expected: Range | null): Range[] {
  const gaps: Range[] = [];
  let before = expected === null ? elementAt(frames, 0) - 1 : Math.min(expected[0], elementAt(frames, 0)) - 1;
  for (const frame of frames) {
    if (frame > before + 1) gaps.push([before + 1, frame - 1]);
    before = frame;
  }
  if (expected !== null && expected[1] > before) gaps.push([before + 1, expected[1]]);
  return gaps;
}
