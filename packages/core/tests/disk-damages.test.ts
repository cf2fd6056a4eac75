/** The damages of a working week: each gives exactly the findings that name it, alone and many at once. */
import { describe, expect, test } from '@jest/globals';
import { damaged, drawDamages, findingsOf, scoreDamages } from '../../../corpus/damaged-disk';
import { DISK_DAMAGES } from '../../../corpus/disk-damages';
import { goodDisk, rules } from '../../../corpus/good-disk';
import { done, drawHabits, habitDamages } from '../../../corpus/habits/damages';

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

describe('damages as people do them', () => {
  const all = habitDamages();

  test('there are at least 120 sorts, each in both halves', () => {
    const sorts = (half: string) => new Set(all.filter((d) => d.half === half).map((d) => d.sort));
    expect(sorts('tune').size).toBeGreaterThanOrEqual(120);
    expect(sorts('measure')).toEqual(sorts('tune'));
  });

  test.each(['tune', 'measure'] as const)('%s: each alone gives what is expected, and nothing else', (half) => {
    const wrong = all
      .filter((d) => d.half === half)
      .filter((d) => scoreDamages(of, [done(of, [d])]).wrong.length > 0)
      .map((d) => d.sort);
    expect(wrong).toEqual([]);
  });

  test.each(['tune', 'measure'] as const)('%s: twenty at once, at least 97 %% found and right', (half) => {
    const own = all.filter((d) => d.half === half);
    const { rules } = scoreDamages(
      of,
      Array.from({ length: 40 }, (_, i) => done(of, drawHabits(own, 20, i + 1))),
    );
    const sum = (key: 'expected' | 'found' | 'right') => rules.reduce((n, r) => n + r[key], 0);
    expect(sum('expected')).toBeGreaterThan(600);
    expect(sum('right') / sum('expected')).toBeGreaterThanOrEqual(0.97);
    expect(sum('right') / sum('found')).toBeGreaterThanOrEqual(0.97);
  });
});
