/**
 * Plans: fifty thousand changes ordered; fifty thousand renames with their journal beside C's `rename` in a loop; a
 * folder of 200,000 files fitted to templates.
 */
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseTemplate } from '@nesting/contract';
import { type Change, orderChanges } from '@nesting/core/change';
import { NO_REGISTERS } from '@nesting/core/name';
import { fitTemplate, folderTree, type Template } from '@nesting/core/template';
import { applyOnDisk, TASKS } from '@nesting/disk';
import { interleave, line, median } from './measure';

const COUNT = 50_000;
const FOLDERS = 100;

/** Renames alone; with a chain of swaps in each folder where `hard`. */
const renames = (from: string, to: string, hard: boolean): Change[] =>
  Array.from({ length: COUNT }, (_, i) => {
    const folder = `d${i % FOLDERS}`;
    const n = Math.floor(i / FOLDERS);
    const after = hard ? `${from}${n % 2 === 0 ? n + 1 : n - 1}` : `${to}${n}`;
    return {
      key: `${folder}/${from}${n}`,
      what: 'file',
      before: `${folder}/${from}${n}`,
      after: `${folder}/${after}.tif`.replace('.tif', hard ? '' : '.tif'),
      content: null,
    };
  });

const C_LOOP = `#include <stdio.h>
int main(int argc, char **argv) {
  char from[256], to[256];
  for (int i = 0; i < ${COUNT}; i++) {
    snprintf(from, sizeof from, "d%d/%s%d%s", i % ${FOLDERS}, argv[1], i / ${FOLDERS}, argv[3]);
    snprintf(to, sizeof to, "d%d/%s%d%s", i % ${FOLDERS}, argv[2], i / ${FOLDERS}, argv[4]);
    if (rename(from, to) != 0) { perror(from); return 1; }
  }
  return 0;
}
`;

export async function benchPlans(): Promise<void> {
  benchOrder();
  await benchRenames();
  await benchFit();
}

function benchOrder(): void {
  const [plain, swaps] = [renames('a', 'b', false), renames('a', 'b', true)];
  const times = interleave([
    { name: 'plain', run: () => void orderChanges(plain) },
    { name: 'swaps', run: () => void orderChanges(swaps) },
  ]);
  for (const [name, ms] of Object.entries(times))
    line(
      `${COUNT.toLocaleString('en')} changes ordered, ${name === 'plain' ? 'each to a free name' : 'in pairs that swap names'}`,
      `${ms.toFixed(0)} ms`,
      'under 1 s',
      ms < 1000,
    );
}

async function benchRenames(): Promise<void> {
  const home = mkdtempSync(path.join(tmpdir(), 'nesting-bench-plans-'));
  const [ours, theirs] = [path.join(home, 'ours'), path.join(home, 'theirs')];
  writeFileSync(path.join(home, 'loop.c'), C_LOOP);
  execFileSync('cc', ['-O2', '-o', path.join(home, 'loop'), path.join(home, 'loop.c')]);
  for (const root of [ours, theirs]) {
    mkdirSync(path.join(root, '.nesting'), { recursive: true });
    for (let d = 0; d < FOLDERS; d++) mkdirSync(path.join(root, `d${d}`));
    for (let i = 0; i < COUNT; i++)
      writeFileSync(path.join(root, `d${i % FOLDERS}`, `a${Math.floor(i / FOLDERS)}`), '');
  }
  const forth = renames('a', 'b', false);
  const back: Change[] = forth.map((c) => ({ ...c, before: c.after, after: c.before }));
  const [mine, c]: [number[], number[]] = [[], []];
  for (let round = 0; round < 8; round++) {
    const odd = round % 2 === 1;
    const a = performance.now();
    const outcome = await applyOnDisk({
      root: ours,
      id: `b${round}`,
      what: 'bench',
      by: '',
      at: '',
      changes: odd ? back : forth,
      bytesOf: () => Buffer.alloc(0),
    });
    const b = performance.now();
    if (outcome.state !== 'done') throw new Error(JSON.stringify(outcome).slice(0, 300));
    execFileSync(path.join(home, 'loop'), odd ? ['b', 'a', '.tif', ''] : ['a', 'b', '', '.tif'], { cwd: theirs });
    const d = performance.now();
    if (round > 0) {
      mine.push(b - a);
      c.push(d - b);
    }
  }
  rmSync(home, { recursive: true, force: true });
  const ratio = median(mine) / median(c);
  line(
    `${COUNT.toLocaleString('en')} renames, ordered, looked at and journalled`,
    `${median(mine).toFixed(0)} ms, ${ratio.toFixed(2)} × C's rename in a loop`,
    'at most 1.5 ×',
    ratio <= 1.5,
  );
}

async function benchFit(): Promise<void> {
  const templates = ['facade-show', 'dome-film', 'window-piece', 'sound-only-walk'].map((name): Template => {
    const parsed = parseTemplate(readFileSync(`demo/templates/${name}.nest.json`, 'utf8'));
    if (!parsed.ok) throw new Error(parsed.faults[0]);
    return parsed.value;
  });
  const root = mkdtempSync(path.join(tmpdir(), 'nesting-bench-fit-'));
  for (let s = 0; s < 40; s++) {
    for (let k = 0; k < 25; k++) {
      const scene = path.join(root, `40_motion/surface-${s}/s${String(k + 1).padStart(2, '0')}`);
      for (const inner of ['working', 'renders']) mkdirSync(path.join(scene, inner), { recursive: true });
      for (let f = 0; f < 200; f++) writeFileSync(path.join(scene, 'renders', `${f}.exr`), '');
    }
  }
  const times: number[] = [];
  let found = '';
  for (let round = 0; round < 6; round++) {
    const start = performance.now();
    const { folders } = TASKS.foldersBelow({ root, most: 100_000 });
    const tree = folderTree(folders);
    const fits = templates
      .map((t) => ({ id: t.id, fit: fitTemplate(t, NO_REGISTERS, 'job', tree) }))
      .sort((a, b) => b.fit.score - a.fit.score);
    if (round > 0) times.push(performance.now() - start);
    found = `${fits[0]?.id}, ${((fits[0]?.fit.values.surfaces ?? []) as string[]).length} surfaces`;
  }
  rmSync(root, { recursive: true, force: true });
  line(
    `a folder of 200,000 files fitted to four templates (${found})`,
    `${median(times).toFixed(0)} ms`,
    'under 10 s',
    median(times) < 10_000,
  );
}
