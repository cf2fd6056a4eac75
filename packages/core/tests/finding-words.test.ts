/** Every rule has its words: what is wrong, why it matters, what to do; none shows what was left out. */
import { expect, test } from '@jest/globals';
import { damaged, drawDamages } from '../../../corpus/damaged-disk';
import { DISK_DAMAGES } from '../../../corpus/disk-damages';
import { checkDisk, goodDisk, rules, VALUES } from '../../../corpus/good-disk';
import { RULE_CODES, RULES } from '../src/check';
import { ProjectRules } from '../src/project';
import { findingWords, RULE_WORDS } from '../src/words';

const { rules: of } = rules();

test('each rule is in the registry once, and its words are its own', () => {
  expect(new Set(RULE_CODES).size).toBe(RULES.length);
  expect(Object.keys(RULE_WORDS).sort()).toEqual([...RULE_CODES].sort());
  for (const { title, reason, cure } of Object.values(RULE_WORDS))
    expect([title, reason, cure].every((words) => words.trim().length > 8)).toBe(true);
  expect(new Set(Object.values(RULE_WORDS).map((words) => words.title)).size).toBe(RULE_CODES.length);
});

test('what an earlier version stored is said as it was said then, where its parameters are others', () => {
  const stored = { rule: 'misplaced-file' as const, problems: [], message: 'As it was said.' };
  expect(findingWords({ ...stored, params: { name: 'a.png', home: '40_motion' } })).toBe('a.png belongs in 40_motion.');
  expect(findingWords({ ...stored, params: { name: 'a.png', target: '40_motion' } })).toBe('As it was said.');
  expect(findingWords({ rule: 'misplaced-file', problems: [], params: {} })).toBe('Files in the wrong place');
});

/** The demo's shows have no day by which their masters are due: here they have, and it is over. */
function withoutMaster() {
  const { template, registers } = rules();
  const due = { field: 'date', days: -2 };
  const folders = template.root.folders?.map((folder) => ({
    ...folder,
    ...(folder.deliveries && { deliveries: folder.deliveries.map((delivery) => ({ ...delivery, due })) }),
  }));
  const late = { ...template, root: { ...template.root, folders } };
  const by = new ProjectRules({ template: late, values: VALUES, registers, now: Date.UTC(2026, 3, 20) });
  const disk = goodDisk(by);
  disk.delete('80_masters/26011_MST_gallery.mov');
  const findings = checkDisk(by, disk);
  expect(findings.map(({ rule, params }) => [rule, params])).toContainEqual([
    'missing-delivery',
    { name: 'Master', folder: '80_masters', by: '2026-04-16', entry: 'gallery' },
  ]);
  return findings;
}

test('no sentence about a finding holds a hole, and each names what it is about', () => {
  const findings = [...DISK_DAMAGES.map((d) => [d]), ...Array.from({ length: 20 }, (_, i) => drawDamages(20, i + 1))]
    .flatMap((some, i) => checkDisk(of, damaged(of, some, i + 1).disk))
    .concat(withoutMaster());
  // A rule that no damage brings about is judged by nobody.
  expect([...new Set(findings.map((f) => f.rule))].sort()).toEqual([...RULE_CODES].sort());
  for (const finding of findings) {
    const words = findingWords(finding);
    expect(words).not.toMatch(/undefined|null|NaN|\[object| {2}/);
    expect(words).toMatch(/[.”]$/);
  }
});
