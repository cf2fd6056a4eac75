import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { distinctTargets, isReadAsText, stretchesOf } from './searched';

const MB = 2 ** 20;

test('what is searched lies in the file, in order, with both ends, and never more than 64 MB', () => {
  fc.assert(
    fc.property(fc.nat({ max: 4 * 1024 * MB }), (size) => {
      const stretches = stretchesOf(size);
      let before = 0;
      for (const [from, to] of stretches) {
        expect(from).toBeGreaterThanOrEqual(before);
        expect(to).toBeGreaterThanOrEqual(from);
        before = to;
      }
      expect(stretches[0]?.[0]).toBe(0);
      expect(before).toBe(size);
      expect(stretches.reduce((n, [from, to]) => n + to - from, 0)).toBeLessThanOrEqual(64 * MB);
    }),
  );
});

test('a document of references is text of ordinary length', () => {
  expect([0, 16 * MB, 16 * MB + 1].map(isReadAsText)).toEqual([true, true, false]);
});

test('each target is named once, in the order in which they stand', () => {
  expect(distinctTargets(['b', 'a', 'b', 'c'].map((target) => ({ target })))).toEqual(['b', 'a', 'c']);
  expect(distinctTargets(Array.from({ length: 20_000 }, (_, i) => ({ target: String(i) })))).toHaveLength(10_000);
});
