/** Every rule has its words: what is wrong, why it matters, what to do; none shows what was left out. */
import { expect, test } from '@jest/globals';
import { damaged, drawDamages } from '../../../corpus/damaged-disk';
import { DISK_DAMAGES } from '../../../corpus/disk-damages';
import { checkDisk, rules } from '../../../corpus/good-disk';
import { RULES } from '../src/check';
import { RULE_CODES } from '../src/project';
import { RULE_CURES, RULE_REASONS, RULE_TITLES } from '../src/words';
import { findingWords } from '../src/words/findings';

const { rules: of } = rules();

test('each rule is in the registry, and has a title, a reason and a cure of its own', () => {
  expect(new Set(RULES.map((r) => r.code))).toEqual(new Set(RULE_CODES));
  for (const words of [RULE_TITLES, RULE_REASONS, RULE_CURES]) {
    expect(Object.keys(words).sort()).toEqual([...RULE_CODES].sort());
    expect(Object.values(words).every((w) => w.trim().length > 8)).toBe(true);
  }
  expect(new Set(Object.values(RULE_TITLES)).size).toBe(RULE_CODES.length);
});

test('no sentence about a finding holds a hole, and each names what it is about', () => {
  const findings = [
    ...DISK_DAMAGES.map((d) => [d]),
    ...Array.from({ length: 20 }, (_, i) => drawDamages(20, i + 1)),
  ].flatMap((some, i) => checkDisk(of, damaged(of, some, i + 1).disk));
  expect(new Set(findings.map((f) => f.rule)).size).toBeGreaterThan(33);
  for (const finding of findings) {
    const words = findingWords(finding);
    expect(words).not.toMatch(/undefined|null|NaN|\[object| {2}/);
    expect(words).toMatch(/[.”]$/);
  }
});
