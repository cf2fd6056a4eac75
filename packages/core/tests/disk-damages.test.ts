/** The damages of a working week: each gives exactly the findings that name it, alone and many at once. */
import { describe, expect, test } from '@jest/globals';
import { damaged, drawDamages, findingsOf, scoreDamages } from '../../../corpus/damaged-disk';
import { DISK_DAMAGES } from '../../../corpus/disk-damages';
import { goodDisk, rules } from '../../../corpus/good-disk';

const { rules: of } = rules();

describe('a damaged project', () => {
  test('in good order nothing is found', () => {
    expect(findingsOf(of, goodDisk(of))).toEqual([]);
  });

  test('there are enough kinds of damage, each with a name of its own', () => {
    expect(new Set(DISK_DAMAGES.map((d) => d.kind)).size).toBe(DISK_DAMAGES.length);
    expect(DISK_DAMAGES.length).toBeGreaterThanOrEqual(40);
  });

  test.each(DISK_DAMAGES.map((d) => [d.kind, d] as const))('%s', (_kind, damage) => {
    for (let seed = 1; seed <= 8; seed++) {
      const { disk, expected } = damaged(of, [damage], seed);
      expect(expected).toHaveLength(1);
      expect(findingsOf(of, disk)).toEqual(expected);
    }
  });

  test('twenty at once: at least 97 % found, and at least 97 % of what is found is right', () => {
    const cases = Array.from({ length: 60 }, (_, i) => damaged(of, drawDamages(20, i + 1), i + 1));
    const { rules } = scoreDamages(of, cases);
    const sum = (key: 'expected' | 'found' | 'right') => rules.reduce((n, r) => n + r[key], 0);
    expect(sum('expected')).toBeGreaterThan(900);
    expect(sum('right') / sum('expected')).toBeGreaterThanOrEqual(0.97);
    expect(sum('right') / sum('found')).toBeGreaterThanOrEqual(0.97);
  });
});
