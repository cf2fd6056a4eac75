/**
 * npm run score intake [-- --misses]: how often a loose file's right folder and name come first, how often that is
 * sure, whether a sure one was ever wrong, whether what nobody could place is left, and how many pairs are found. Half
 * of the cases are only measured: they are never printed.
 */

import { HOME } from '@nesting/core/change';
import { type IntakeItem, intake, type Pair, PLAIN_PAIRING } from '@nesting/core/planners';
import { HABITS, type Habit, PAIRS } from './habits';
import { heapsOfNames } from './heaps';
import { PROJECTS, type ProjectName, REGISTERS } from './projects';

export type Part = 'tune' | 'measure';

export interface IntakeScore {
  files: number;
  placed: number;
  right: number;
  named: number;
  rightName: number;
  plain: number;
  plainSure: number;
  sureWrong: string[];
  orphans: number;
  orphansLeft: number;
  misses: string[];
}

const NOW = Date.parse('2026-05-15T09:00:00Z');
/** Stable: the same half each time. */
const partOf = (path: string): Part =>
  [...path].reduce((n, ch) => (n * 31 + ch.charCodeAt(0)) >>> 0, 7) % 2 === 0 ? 'tune' : 'measure';

export function planned(project: ProjectName, habits: readonly Habit[]) {
  const { template, values, there } = PROJECTS[project];
  const names = new Map<string, string[]>();
  for (const path of there) {
    const at = path.lastIndexOf('/');
    names.set(path.slice(0, at), [...(names.get(path.slice(0, at)) ?? []), path.slice(at + 1)]);
  }
  return intake({
    input: { template, values, registers: REGISTERS, now: NOW },
    files: habits.map(({ path, facts }, i) => ({ path, facts, size: 1000 + i, modified: NOW - 86_400_000 })),
    sourceName: 'heap',
    placed: {},
    isMove: false,
    pairing: PLAIN_PAIRING,
    root: HOME,
    there: (folder) => names.get(folder) ?? [],
    sameAs: () => null,
    fileAt: () => null,
    referrers: () => 0,
  });
}

const fits = (name: string, wanted: string): boolean =>
  new RegExp(
    `^${wanted
      .split('#')
      .map((s) => s.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
      .join('\\d+')}$`,
  ).test(name);

export function scoreOf(part: Part, source: 'habits' | 'names'): IntakeScore {
  const score: IntakeScore = {
    ...{ files: 0, placed: 0, right: 0, named: 0, rightName: 0, plain: 0, plainSure: 0, orphans: 0, orphansLeft: 0 },
    ...{ sureWrong: [], misses: [] },
  };
  for (const project of Object.keys(PROJECTS) as ProjectName[]) {
    const habits = source === 'habits' ? HABITS[project] : heapsOfNames(project);
    const items = new Map(planned(project, habits).items.map((item) => [item.from, item]));
    for (const habit of habits) if (partOf(habit.path) === part) count(score, habit, items.get(habit.path));
  }
  return score;
}

function count(score: IntakeScore, { path, to, name, isPlain }: Habit, item: IntakeItem | undefined): void {
  const at = item?.to ?? null;
  const folder = at === null ? null : at.slice(0, Math.max(0, at.lastIndexOf('/')));
  const said = at === null ? '' : at.slice(at.lastIndexOf('/') + 1);
  const isSure = item?.confidence === 'sure' && item.state === 'comes';
  const miss = (why: string) =>
    score.misses.push(
      `${why.padEnd(10)} ${path}\n     →  ${at ?? 'nothing'} (${item?.confidence ?? '-'}${item?.missing.length ? `, lacks ${item.missing}` : ''})\n  right ${to ?? 'nobody could say'}${name === null ? '' : `/${name}`}`,
    );
  score.files += 1;
  if (to === null) {
    score.orphans += 1;
    if (item?.state !== 'comes') score.orphansLeft += 1;
    if (isSure) score.sureWrong.push(`${path} → ${at}`);
    if (item?.state === 'comes') miss('not left');
    return;
  }
  score.placed += 1;
  const isRight = folder === to;
  const isRightName = isRight && (name === null || fits(said, name));
  if (isRight) score.right += 1;
  else miss('folder');
  if (name !== null) {
    score.named += 1;
    if (isRightName) score.rightName += 1;
    else if (isRight) miss('name');
  }
  if (isSure && !isRightName) score.sureWrong.push(`${path} → ${at}, right ${to}/${name ?? ''}`);
  if (!isPlain) return;
  score.plain += 1;
  if (isSure && isRightName) score.plainSure += 1;
  else if (isRightName) miss('not sure');
}

/** Of the pairs that are right, and of those that were found; with the recorder's clock that many seconds ahead. */
export function scorePairs(ahead: number): { found: number; right: number; all: number; shift: number | null } {
  const later = (taken: string) => new Date(Date.parse(`${taken}Z`) + ahead * 1000).toISOString().slice(0, 19);
  const habits = HABITS.film.map((habit): Habit => {
    const { has, taken } = habit.facts;
    return has === 'sound' && taken !== undefined
      ? { ...habit, facts: { ...habit.facts, taken: later(taken) } }
      : habit;
  });
  const { pairs, shift } = planned('film', habits);
  const isRight = ({ picture, sound }: Pair) => PAIRS.some(([p, s]) => p === picture && s === sound);
  return {
    found: pairs.length,
    right: pairs.filter(isRight).length,
    all: PAIRS.length,
    shift: shift?.seconds ?? null,
  };
}

function print(part: Part, source: 'habits' | 'names'): void {
  const s = scoreOf(part, source);
  const percent = (n: number, of: number) => `${of === 0 ? '-' : ((100 * n) / of).toFixed(1)} %`.padEnd(9);
  const write = (line: string) => process.stdout.write(`${line}\n`);
  write(`${source}, ${part}: ${s.files} loose files`);
  write(`  the right folder first   ${percent(s.right, s.placed)} of ${s.placed}, aim: 95 %`);
  write(`  the right name           ${percent(s.rightName, s.named)} of ${s.named}, aim: 95 %`);
  write(`  plain ones sure          ${percent(s.plainSure, s.plain)} of ${s.plain}, aim: 60 %`);
  write(`  orphans left             ${percent(s.orphansLeft, s.orphans)} of ${s.orphans}`);
  write(`  sure, and wrong          ${String(s.sureWrong.length).padEnd(9)} aim: 0`);
  if (part === 'measure' || !process.argv.includes('--misses')) return;
  for (const wrong of s.sureWrong) write(`  SURE, WRONG ${wrong}`);
  for (const miss of s.misses) write(`  ${miss}`);
}

if (process.argv[1]?.endsWith('score.js')) {
  for (const source of ['habits', 'names'] as const)
    for (const part of ['tune', 'measure'] as const) print(part, source);
  for (const ahead of [0, 37, -3600]) {
    const { found, right, all, shift } = scorePairs(ahead);
    process.stdout.write(
      `pairs, the recorder ${ahead} s ahead: ${right} of ${all} right, ${found} found, shift ${shift ?? 'none'}\n`,
    );
  }
}
