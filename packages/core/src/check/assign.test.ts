import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { assign } from './assign';

/** Every way to pair them, tried. */
function tried(far: readonly (readonly number[])[], most: number): { pairs: number; sum: number } {
  const go = (i: number, taken: ReadonlySet<number>): { pairs: number; sum: number } => {
    if (i === far.length) return { pairs: 0, sum: 0 };
    let best = go(i + 1, taken);
    (far[i] as readonly number[]).forEach((f, j) => {
      if (f > most || taken.has(j)) return;
      const rest = go(i + 1, new Set([...taken, j]));
      const made = { pairs: rest.pairs + 1, sum: rest.sum + f };
      if (made.pairs > best.pairs || (made.pairs === best.pairs && made.sum < best.sum)) best = made;
    });
    return best;
  };
  return go(0, new Set());
}

test('as many pairs as there can be, and of those the nearest', () => {
  const matrix = fc.integer({ min: 1, max: 5 }).chain((columns) =>
    fc.array(
      fc.array(
        fc.integer({ min: 0, max: 10 }).map((n) => n / 10),
        { minLength: columns, maxLength: columns },
      ),
      { minLength: 1, maxLength: 5 },
    ),
  );
  fc.assert(
    fc.property(matrix, (far) => {
      const chosen = assign(far, 0.5);
      const pairs = chosen.flatMap((j, i) => (j < 0 ? [] : [far[i]?.[j] as number]));
      expect(new Set(chosen.filter((j) => j >= 0)).size).toBe(pairs.length);
      expect(pairs.every((f) => f <= 0.5)).toBe(true);
      const best = tried(far, 0.5);
      expect(pairs.length).toBe(best.pairs);
      expect(pairs.reduce((n, f) => n + f, 0)).toBeCloseTo(best.sum, 9);
    }),
    { numRuns: 1000, seed: 8 },
  );
});
