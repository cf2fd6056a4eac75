/** The corpus of broken names: the aims hold on the part that was never tuned on. */
import { describe, expect, test } from '@jest/globals';
import { habitNames } from '../../../corpus/habits/names';
import { scoreHabits } from '../../../corpus/habits/score-names';
import { makeCorpus } from '../../../corpus/make';
import { scoreCorpus } from '../../../corpus/score';

describe('broken names', () => {
  const corpus = makeCorpus();

  test('there are enough of them, of enough sorts, and the same ones every time', () => {
    expect(corpus.length).toBeGreaterThanOrEqual(1500);
    expect(new Set(corpus.flatMap((b) => b.damages)).size).toBeGreaterThanOrEqual(50);
    expect(makeCorpus()).toEqual(corpus);
  });

  test.each(['tune', 'measure'] as const)(
    '%s: the right name first in 95 %, never sure and wrong, sure of 60 % that can be put right',
    (part) => {
      const score = scoreCorpus(part, corpus);
      expect(score.sureWrong).toEqual([]);
      expect(score.first / score.names).toBeGreaterThanOrEqual(0.95);
      expect(score.fixableSure / score.fixable).toBeGreaterThanOrEqual(0.6);
    },
  );
});

describe('names as people write them', () => {
  test('there are at least 120 sorts, each in both halves', () => {
    const names = habitNames();
    const sorts = (half: string) => new Set(names.filter((n) => n.half === half).map((n) => n.sort));
    expect(sorts('tune').size).toBeGreaterThanOrEqual(120);
    expect(sorts('measure')).toEqual(sorts('tune'));
  });

  test.each(['tune', 'measure'] as const)(
    '%s: the right name first in 95 %, never sure and wrong, sure of 60 % that can be put right, none without a reason',
    (half) => {
      const score = scoreHabits(half);
      expect(score.sureWrong.map((t) => t.item.sort)).toEqual([]);
      expect(score.first / score.named).toBeGreaterThanOrEqual(0.95);
      expect(score.fixableSure / score.fixable).toBeGreaterThanOrEqual(0.6);
      expect(score.silent).toBe(0);
    },
  );
});
