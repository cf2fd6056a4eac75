/** Damages done to a project in good order, alone and many at once, and what the rules found of them. */
import { present } from '@nesting/core';
import type { RuleCode } from '@nesting/core/check';
import type { ProjectRules } from '@nesting/core/project';
import type { DiskDamage, Expected, Pick } from './damage-kinds';
import { DISK_DAMAGES } from './disk-damages';
import { checkDisk, type Disk, goodDisk } from './good-disk';

export const findingsOf = (of: ProjectRules, disk: Disk): Expected[] =>
  checkDisk(of, disk).map(({ rule, path }) => ({ rule, path }));

/** The same numbers for the same seed. */
export function pickerOf(seed: number): Pick {
  let state = seed >>> 0 || 1;
  return (all) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return all[Math.floor((state / 2 ** 32) * all.length)];
  };
}

export interface Damaged {
  readonly disk: Disk;
  readonly kinds: readonly string[];
  readonly expected: readonly Expected[];
}

/** So many damages in one project, no two at one place. */
export function damaged(of: ProjectRules, damages: readonly DiskDamage[], seed: number): Damaged {
  const disk = goodDisk(of);
  const pick = pickerOf(seed);
  const touched: string[] = [];
  const near = (a: string, b: string) => a === b || a.startsWith(`${b}/`) || b.startsWith(`${a}/`);
  const expected: Expected[] = [];
  const kinds: string[] = [];
  for (const damage of damages) {
    const done = damage.act(disk, pick, (path) => touched.some((t) => near(t, path)));
    if (done === null) continue;
    touched.push(...done.touched);
    kinds.push(damage.kind);
    expected.push(
      ...done.expected.map((e) =>
        e.rule === 'over-limit' ? { ...e, path: e.path.slice(0, e.path.lastIndexOf('/')) } : e,
      ),
    );
  }
  return { disk, kinds, expected };
}

/** `count` damages drawn by the seed. */
export function drawDamages(count: number, seed: number): DiskDamage[] {
  const pick = pickerOf(seed ^ 0x5bd1e995);
  const open = [...DISK_DAMAGES];
  return Array.from({ length: Math.min(count, open.length) }, () => {
    const chosen = present(pick(open));
    open.splice(open.indexOf(chosen), 1);
    return chosen;
  });
}

export interface RuleScore {
  readonly rule: RuleCode;
  readonly expected: number;
  readonly found: number;
  /** Expected and found. */
  readonly right: number;
}

export function scoreDamages(
  of: ProjectRules,
  cases: readonly Damaged[],
): { readonly rules: readonly RuleScore[]; readonly wrong: readonly string[] } {
  const rules = new Map<RuleCode, { expected: number; found: number; right: number }>();
  const wrong: string[] = [];
  const at = (rule: RuleCode) => {
    const known = rules.get(rule) ?? { expected: 0, found: 0, right: 0 };
    rules.set(rule, known);
    return known;
  };
  for (const { disk, kinds, expected } of cases) {
    const found = findingsOf(of, disk);
    const words = (e: Expected) => `${e.rule} ${e.path}`;
    const [wanted, got] = [new Set(expected.map(words)), new Set(found.map(words))];
    for (const e of expected) at(e.rule).expected++;
    for (const f of found) {
      at(f.rule).found++;
      if (wanted.has(words(f))) at(f.rule).right++;
      else wrong.push(`too much: ${words(f)} (${kinds.slice(0, 2).join(', ')})`);
    }
    for (const e of expected)
      if (!got.has(words(e))) wrong.push(`not found: ${words(e)} (${kinds.slice(0, 2).join(', ')})`);
  }
  return {
    rules: [...rules].map(([rule, counts]) => ({ rule, ...counts })).sort((a, b) => (a.rule < b.rule ? -1 : 1)),
    wrong,
  };
}
