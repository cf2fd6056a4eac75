/**
 * Plans: fifty thousand changes ordered; fifty thousand renames with their journal beside C's `rename` in a loop; a
 * folder of 200,000 files fitted to templates.
 */
import {
  closeSync,
  linkSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readFileSync,
  rmSync,
  unlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseTemplate } from '@nesting/contract';
import { type Change, orderChanges, home as place } from '@nesting/core/change';
import { NO_REGISTERS } from '@nesting/core/name';
import { fitTemplate, folderTree, type Template } from '@nesting/core/template';
import { applyOnDisk, onlyHome, Root, TASKS } from '@nesting/disk';
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
      id: `${folder}/${from}${n}`,
      subject: { kind: 'file' },
      group: null,
      entry: 'file',
      before: place(`${folder}/${from}${n}`),
      after: place(`${folder}/${after}${hard ? '' : '.tif'}`),
      content: null,
    };
  });

/** The least that renames through handles take: each name given beside, and the old one ended. */
function bareLoop(home: string, from: string, to: string, ends: readonly [string, string]): void {
  const folders = Array.from({ length: FOLDERS }, (_, d) => openSync(path.join(home, `d${d}`), 'r'));
  for (let i = 0; i < COUNT; i++) {
    const folder = `/proc/self/fd/${folders[i % FOLDERS]}`;
    const n = Math.floor(i / FOLDERS);
    linkSync(`${folder}/${from}${n}${ends[0]}`, `${folder}/${to}${n}${ends[1]}`);
    unlinkSync(`${folder}/${from}${n}${ends[0]}`);
  }
  for (const folder of folders) closeSync(folder);
}

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
  for (const root of [ours, theirs]) {
    mkdirSync(path.join(root, '.nesting'), { recursive: true });
    for (let d = 0; d < FOLDERS; d++) mkdirSync(path.join(root, `d${d}`));
    for (let i = 0; i < COUNT; i++)
      writeFileSync(path.join(root, `d${i % FOLDERS}`, `a${Math.floor(i / FOLDERS)}`), '');
  }
  const forth = renames('a', 'b', false);
  const back: Change[] = forth.map((c) => ({ ...c, before: c.after, after: c.before }));
  const [mine, bare]: [number[], number[]] = [[], []];
  for (let round = 0; round < 8; round++) {
    const odd = round % 2 === 1;
    const a = performance.now();
    const outcome = await applyOnDisk({
      roots: onlyHome(Root.open({ base: ours, folder: '' })),
      id: `b${round}`,
      what: 'bench',
      by: '',
      at: '',
      changes: odd ? back : forth,
      bytesOf: () => Buffer.alloc(0),
    });
    const b = performance.now();
    if (outcome.state !== 'done') throw new Error(JSON.stringify(outcome).slice(0, 300));
    if (odd) bareLoop(theirs, 'b', 'a', ['.tif', '']);
    else bareLoop(theirs, 'a', 'b', ['', '.tif']);
    const d = performance.now();
    if (round > 0) {
      mine.push(b - a);
      bare.push(d - b);
    }
  }
  rmSync(home, { recursive: true, force: true });
  const ratio = median(mine) / median(bare);
  line(
    `${COUNT.toLocaleString('en')} renames, ordered, looked at and journalled`,
    `${median(mine).toFixed(0)} ms, ${ratio.toFixed(2)} × linkSync and unlinkSync in a loop`,
    'at most 1.3 ×',
    ratio <= 1.3,
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
    const { folders } = TASKS.foldersBelow.run({ where: { base: root, folder: '' }, most: 100_000 });
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
