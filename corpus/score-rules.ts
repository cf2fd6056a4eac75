/**
 * npm run score rules: recall and precision of each rule, over every damage alone and over twenty at once; then those of
 * another hand, of which the half that is only measured is printed as counts by sort.
 */
import { damaged, drawDamages, scoreDamages } from './damaged-disk';
import { DISK_DAMAGES } from './disk-damages';
import { rules } from './good-disk';
import { done, drawHabits, habitDamages } from './habits/damages';

const { rules: of } = rules();
const misses = process.argv.includes('--misses');
const percent = (part: number, whole: number) =>
  whole === 0 ? '     —' : `${((100 * part) / whole).toFixed(1)} %`.padStart(8);

for (const [title, cases] of [
  [
    `each of ${DISK_DAMAGES.length} damages alone, at eight places`,
    DISK_DAMAGES.flatMap((d) => Array.from({ length: 8 }, (_, i) => damaged(of, [d], i + 1))),
  ],
  [
    'twenty damages at once, three hundred times',
    Array.from({ length: 300 }, (_, i) => damaged(of, drawDamages(20, i + 1), i + 1)),
  ],
] as const) {
  const { rules, wrong } = scoreDamages(of, cases);
  process.stdout.write(`\n${title}\n${'rule'.padEnd(22)} expected    found   recall precision\n`);
  const all = { rule: 'all', expected: 0, found: 0, right: 0 };
  for (const r of rules) for (const key of ['expected', 'found', 'right'] as const) all[key] += r[key];
  for (const r of [...rules, all])
    process.stdout.write(
      `${r.rule.padEnd(22)} ${String(r.expected).padStart(8)} ${String(r.found).padStart(8)} ${percent(r.right, r.expected)} ${percent(r.right, r.found)}\n`,
    );
  if (misses) process.stdout.write(`${wrong.slice(0, 60).join('\n')}\n`);
}

for (const half of ['tune', 'measure'] as const) {
  const all = habitDamages().filter((d) => d.half === half);
  const many = Array.from({ length: 300 }, (_, i) => done(of, drawHabits(all, 20, i + 1)));
  for (const [title, cases] of [
    [`habits, ${half}: ${all.length} damages alone`, all.map((d) => done(of, [d]))],
    [`habits, ${half}: twenty at once, three hundred times`, many],
  ] as const) {
    const { rules, wrong } = scoreDamages(of, cases);
    const sum = (key: 'expected' | 'found' | 'right') => rules.reduce((n, r) => n + r[key], 0);
    process.stdout.write(
      `\n${title}\n${'all'.padEnd(22)} ${String(sum('expected')).padStart(8)} ${String(sum('found')).padStart(8)} ${percent(sum('right'), sum('expected'))} ${percent(sum('right'), sum('found'))}\n`,
    );
    if (misses && half === 'tune') process.stdout.write(`${wrong.slice(0, 60).join('\n')}\n`);
  }
}
