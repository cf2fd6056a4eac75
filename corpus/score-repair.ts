/**
 * npm run score repair: every damage alone and twenty at once, put right by what is sure, and checked again. What is
 * sure must be gone, nothing else touched, and nothing new found.
 */
import { damaged, drawDamages } from './damaged-disk';
import { DISK_DAMAGES } from './disk-damages';
import { FIXABLE } from './fixable';
import { rules } from './good-disk';
import { putRight } from './repaired-disk';

const { rules: of } = rules();
const misses = process.argv.includes('--misses');
const percent = (part: number, whole: number) => (whole === 0 ? '—' : `${((100 * part) / whole).toFixed(1)} %`);

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
  const said: string[] = [];
  const sums = {
    findings: 0,
    sure: 0,
    stayed: 0,
    made: 0,
    needless: 0,
    superseded: 0,
    refused: 0,
    fixable: 0,
    fixed: 0,
  };
  const open = new Map<string, number>();
  for (const { disk, kinds } of cases) {
    const outcome = await putRight(of, disk);
    sums.findings += outcome.findings;
    sums.sure += outcome.sure;
    sums.stayed += outcome.stayed.length;
    sums.made += outcome.made.length;
    sums.needless += outcome.needless.length;
    sums.superseded += outcome.superseded;
    if (outcome.isRefused) sums.refused++;
    const [kind = ''] = kinds;
    if (kinds.length === 1 && FIXABLE.has(kind)) {
      sums.fixable++;
      if (!outcome.isRefused && outcome.sure === outcome.findings && outcome.stayed.length === 0) sums.fixed++;
      else open.set(kind, (open.get(kind) ?? 0) + 1);
    }
    const words = kinds.slice(0, 3).join(', ');
    for (const [what, all] of Object.entries({
      stayed: outcome.stayed,
      made: outcome.made,
      needless: outcome.needless,
    }))
      for (const one of all) said.push(`${what}: ${one} (${words})`);
    if (outcome.isRefused) said.push(`refused (${words})`);
  }
  process.stdout.write(`
${title}
  findings ${sums.findings}, of these sure ${sums.sure} (${percent(sums.sure, sums.findings)})
  sure and gone          ${percent(sums.sure - sums.stayed, sums.sure)}  (aim 100 %)
  new findings made      ${sums.made}  (aim 0)
  files changed needlessly ${sums.needless}  (aim 0); older versions that made way ${sums.superseded}
  plans refused by the engine ${sums.refused}  (aim 0)
`);
  if (sums.fixable > 0)
    process.stdout.write(`  fixable, and put right by what is sure ${percent(sums.fixed, sums.fixable)}  (aim 60 %)\n`);
  if (misses) {
    process.stdout.write(`${said.slice(0, 30).join('\n')}\n`);
    for (const [kind, count] of open) process.stdout.write(`not by what is sure: ${kind} (${count})\n`);
  }
}
