import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { groupFrames, missingFrames, rangesOf } from './frames';

test('frames of one sequence are one item; versions and lone numbers are not', () => {
  const { sequences, singles } = groupFrames([
    'walk_v003.0101.exr',
    'walk_v003.0102.exr',
    'walk_v003.0104.exr',
    'walk_v003.usda',
    'walk_v004.usda',
    'plate_0001.dpx',
    'plate_0002.dpx',
    'notes 7.txt',
    'reed',
  ]);
  expect(sequences).toEqual([
    { head: 'plate_', tail: '.dpx', width: 4, ranges: [[1, 2]], count: 2 },
    {
      head: 'walk_v003.',
      tail: '.exr',
      width: 4,
      ranges: [
        [101, 102],
        [104, 104],
      ],
      count: 3,
    },
  ]);
  expect([...singles].sort()).toEqual(['notes 7.txt', 'reed', 'walk_v003.usda', 'walk_v004.usda']);
});

test('a sequence grows past its padding; another padding is another sequence', () => {
  expect(groupFrames(['a.998.exr', 'a.999.exr', 'a.1000.exr', 'a.1001.exr']).sequences).toEqual([
    { head: 'a.', tail: '.exr', width: 3, ranges: [[998, 1001]], count: 4 },
  ]);
  expect(groupFrames(['a.01.exr', 'a.02.exr', 'a.0003.exr', 'a.0004.exr']).sequences).toHaveLength(2);
});

test('whatever the frames, ranges and what is missing make up the whole', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.nat(300), { minLength: 2, maxLength: 60 }), fc.nat(20), (frames, margin) => {
      const names = frames.map((f) => `x_${String(f).padStart(4, '0')}.exr`);
      const [sequence] = groupFrames(names).sequences;
      if (sequence === undefined) throw new Error('no sequence');
      const all = (ranges: readonly (readonly [number, number])[]) =>
        ranges.flatMap(([from, to]) => Array.from({ length: to - from + 1 }, (_, i) => from + i));
      expect(all(sequence.ranges)).toEqual(frames.toSorted((a, b) => a - b));
      const to = Math.max(...frames) + margin;
      expect([...all(missingFrames(sequence, [0, to])), ...frames].sort((a, b) => a - b)).toEqual(
        Array.from({ length: to + 1 }, (_, i) => i),
      );
    }),
  );
});

test('a frame that comes twice counts once', () => {
  expect(rangesOf([3, 1, 2, 2, 9])).toEqual({
    ranges: [
      [1, 3],
      [9, 9],
    ],
    count: 4,
  });
});
