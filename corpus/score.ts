/**
 * npm run score [tune|measure|habits|learn]: how often the right name comes first, how often it is sure, and whether a sure
 * one was ever wrong.
 */
import { valueAt } from '@nesting/core';
import { explainName } from '@nesting/core/name';
import { CASES, compileCase, contextOf } from './conventions';
import { scoreHabits } from './habits/score-names';
import { scoreLearning } from './learning';
import { type Broken, makeCorpus } from './make';

export interface Score {
  readonly names: number;
  readonly first: number;
  readonly sure: number;
  readonly sureWrong: readonly { readonly broken: string; readonly said: string; readonly right: string }[];
  readonly fixable: number;
  readonly fixableSure: number;
  readonly misses: readonly { readonly item: Broken; readonly said: string | null }[];
}

export function scoreCorpus(part: Broken['part'] | null, corpus: readonly Broken[] = makeCorpus()): Score {
  const cases = new Map(CASES.map((c) => [c.id, { c, compiled: compileCase(c) }]));
  const items = corpus.filter((b) => part === null || b.part === part);
  const sureWrong: { broken: string; said: string; right: string }[] = [];
  const misses: { item: Broken; said: string | null }[] = [];
  let first = 0;
  let sure = 0;
  let fixableSure = 0;
  for (const item of items) {
    const { c, compiled } = valueAt(cases, item.convention);
    const best = explainName(compiled, item.broken, contextOf(c, item.values)).suggestions[0];
    const right = best?.name === item.right;
    if (right) first++;
    else misses.push({ item, said: best?.name ?? null });
    if (best?.confidence !== 'sure') continue;
    sure++;
    if (item.fixable && right) fixableSure++;
    if (!right) sureWrong.push({ broken: item.broken, said: best.name, right: item.right });
  }
  return {
    names: items.length,
    first,
    sure,
    sureWrong,
    fixable: items.filter((i) => i.fixable).length,
    fixableSure,
    misses,
  };
}

function print(part: Broken['part']): void {
  const start = performance.now();
  const s = scoreCorpus(part);
  const percent = (n: number, of: number) => `${((100 * n) / of).toFixed(1)} %`;
  const write = (line: string) => process.stdout.write(`${line}\n`);
  write(`${part}: ${s.names} names, ${((performance.now() - start) / s.names).toFixed(2)} ms each`);
  write(`  the right name first   ${percent(s.first, s.names).padEnd(8)} aim: 95 %`);
  write(`  fixable ones sure      ${percent(s.fixableSure, s.fixable).padEnd(8)} aim: 60 %`);
  write(`  sure, and wrong        ${String(s.sureWrong.length).padEnd(8)} aim: 0`);
  if (!process.argv.includes('--misses')) return;
  for (const wrong of s.sureWrong) write(`  SURE, WRONG  ${wrong.broken}  said ${wrong.said}  right ${wrong.right}`);
  const by = new Map<string, number>();
  for (const m of s.misses) for (const d of m.item.damages) by.set(d, (by.get(d) ?? 0) + 1);
  for (const [damage, n] of [...by].sort((a, b) => b[1] - a[1]).slice(0, 20))
    write(`  ${String(n).padStart(4)}  ${damage}`);
  for (const m of s.misses.filter((_, i) => i % Math.ceil(s.misses.length / 25) === 0))
    write(`        ${m.item.broken}\n     →  ${m.said ?? 'nothing'}\n  right ${m.item.right}`);
}

/** Names of another hand; of those that are only measured no case is printed. */
function printHabits(half: 'tune' | 'measure'): void {
  const s = scoreHabits(half);
  const percent = (n: number, of: number) => `${((100 * n) / of).toFixed(1)} %`;
  const write = (line: string) => process.stdout.write(`${line}\n`);
  write(`habits, ${half}: ${s.told.length} names of ${new Set(s.told.map((t) => t.item.sort)).size} sorts`);
  write(`  the right name first   ${percent(s.first, s.named).padEnd(8)} aim: 95 %`);
  write(`  fixable ones sure      ${percent(s.fixableSure, s.fixable).padEnd(8)} aim: 60 %`);
  write(`  sure, and wrong        ${String(s.sureWrong.length).padEnd(8)} aim: 0`);
  write(`  refused without reason ${String(s.silent).padEnd(8)} aim: 0`);
  if (!process.argv.includes('--misses')) return;
  const missed = s.told.filter((t) => t.item.right !== null && t.said !== t.item.right);
  for (const t of half === 'tune' ? missed : [])
    write(`        ${t.item.broken}\n     →  ${t.said ?? 'nothing'}\n  right ${t.item.right}`);
  const by = new Map<string, number>();
  for (const t of missed) by.set(t.item.sort, (by.get(t.item.sort) ?? 0) + 1);
  for (const [sort, n] of by) write(`  ${String(n).padStart(4)}  ${sort}`);
}

function printLearning(): void {
  const s = scoreLearning();
  const percent = (n: number, of: number) => `${((100 * n) / of).toFixed(1)} %`;
  process.stdout.write(
    `learning: ${s.heaps} heaps\n  right names read       ${percent(s.read, s.right)}\n  broken names refused   ${percent(s.refused, s.broken)}\n  as many conventions    ${s.counted} of ${s.heaps}\n`,
  );
  if (process.argv.includes('--misses')) for (const line of s.lines) process.stdout.write(`    ${line}\n`);
}

if (process.argv[1]?.endsWith('score.js')) {
  const asked = process.argv.filter((a) => ['tune', 'measure', 'habits', 'learn'].includes(a));
  for (const part of ['tune', 'measure'] as const) if (asked.length === 0 || asked.includes(part)) print(part);
  if (asked.length === 0 || asked.includes('habits'))
    for (const half of ['tune', 'measure'] as const) printHabits(half);
  if (asked.length === 0 || asked.includes('learn')) printLearning();
}
