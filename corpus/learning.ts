/**
 * How well conventions are learned: heaps of right names of the corpus' conventions, alone and mixed, with some broken
 * names among them.
 * Counted are the right names that some learned convention reads (recall), and the broken ones that none reads.
 */
import { elementAt } from '@nesting/core';
import { learnConventions, writeName } from '@nesting/core/name';
import { CASES, type Case, compileCase, NUMBER, REGISTERS } from './conventions';
import { generator, makeCorpus } from './make';

export interface LearnScore {
  readonly heaps: number;
  readonly right: number;
  readonly read: number;
  readonly broken: number;
  readonly refused: number;
  /** Heaps from which as many conventions came as had gone in. */
  readonly counted: number;
  readonly lines: readonly string[];
}

const WORDS = [
  'harbour',
  'lights',
  'tower',
  'west',
  'front',
  'mill',
  'crane',
  'tide',
  'loop',
  'arcade',
  'gate',
  'north',
  'ferry',
  'reed',
  'quay',
  'lamp',
];

/** Names with more variety than the corpus' own: a heap of a hundred names has many versions, titles and days. */
export function rightNames(c: Case, count: number, random: (n: number) => number): string[] {
  const compiled = compileCase(c);
  const names = new Set<string>();
  for (let tries = 0; names.size < count && tries < 20 * count; tries++) {
    const values: Record<string, string | number> = { number: NUMBER };
    for (const [field, all] of Object.entries(c.values)) {
      if (c.pattern.includes(`(_{${field}`) && random(2) === 0) continue;
      values[field] =
        field === 'version' || field === 'shot'
          ? 1 + random(40)
          : field === 'frame'
            ? 1 + random(300)
            : field === 'scene'
              ? `s${String(1 + random(24)).padStart(2, '0')}`
              : field === 'date'
                ? `2026-${String(1 + random(12)).padStart(2, '0')}-${String(1 + random(28)).padStart(2, '0')}`
                : field === 'title' || field === 'part' || field === 'subject'
                  ? [WORDS[random(16)], WORDS[random(16)]].slice(random(2)).join('-').slice(0, 16)
                  : elementAt(all, random(all.length));
    }
    const written = writeName(compiled, values);
    if (written.ok) names.add(written.value);
  }
  return [...names];
}

export function scoreLearning(): LearnScore {
  const random = generator(1009);
  const corpus = makeCorpus(3);
  const heaps: (readonly Case[])[] = [
    ...CASES.map((c) => [c]),
    [elementAt(CASES, 0), elementAt(CASES, 1)],
    [elementAt(CASES, 0), elementAt(CASES, 3), elementAt(CASES, 4)],
    CASES,
  ];
  const total = { heaps: 0, right: 0, read: 0, broken: 0, refused: 0, counted: 0 };
  const lines: string[] = [];
  for (const size of [20, 100, 1000]) {
    for (const cases of heaps) {
      const right = cases.flatMap((c) => rightNames(c, size, random));
      const broken = corpus
        .filter((b) => cases.some((c) => c.id === b.convention))
        .filter((_, i) => i % 7 === 0)
        .slice(0, Math.floor(right.length / 10))
        .map((b) => b.broken);
      const names = shuffled([...right, ...broken], random);
      const { conventions, misfits } = learnConventions(names, REGISTERS);
      const missed = new Set(misfits.map((i) => names[i]));
      const read = right.filter((n) => !missed.has(n)).length;
      const refused = broken.filter((n) => missed.has(n)).length;
      total.heaps++;
      total.right += right.length;
      total.read += read;
      total.broken += broken.length;
      total.refused += refused;
      if (conventions.length === cases.length) total.counted++;
      lines.push(
        `${size} of ${cases.map((c) => c.id).join(' + ')}: read ${read}/${right.length}, refused ${refused}/${broken.length}\n${conventions.map((c) => `      ${c.pattern}  ${c.reads.length}${c.oneWay ? '' : '  NOT PROVED'}`).join('\n')}`,
      );
    }
  }
  return { ...total, lines };
}

function shuffled<T>(all: T[], random: (n: number) => number): T[] {
  for (let i = all.length - 1; i > 0; i--) {
    const j = random(i + 1);
    [all[i], all[j]] = [elementAt(all, j), elementAt(all, i)];
  }
  return all;
}
