/** npm run bench flat: memory of a process that packs one gibibyte and four, in files of a fifth of a megabyte. */
import { spawnSync } from 'node:child_process';
import { randomFillSync } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { line } from './measure';

const FILE = 214_748;
const PROGRAM = fileURLToPath(new URL('../bin/nesting.js', import.meta.url));
/** Kibibytes that the process held at most, threads and all, said as it ends. */
const PEAK = `data:text/javascript,${encodeURIComponent(
  "import { isMainThread } from 'node:worker_threads'; if (isMainThread) process.on('exit', () => console.error('peak', process.resourceUsage().maxRSS))",
)}`;

interface Run {
  readonly seconds: number;
  /** Mebibytes. */
  readonly peak: number;
}

function timed(program: string, args: readonly string[], cwd: string): Run {
  const begun = performance.now();
  const { status, stderr } = spawnSync(program, args, { cwd, encoding: 'utf8' });
  if (status !== 0) throw new Error(`${program} ${args.join(' ')}: ${stderr}`);
  return {
    seconds: (performance.now() - begun) / 1000,
    peak: Number(/peak (\d+)/.exec(stderr)?.[1] ?? 0) / 1024,
  };
}

export async function benchFlat(): Promise<void> {
  const peaks: Record<string, number[]> = { pack: [], verify: [] };
  for (const files of [5000, 20_000]) {
    const top = mkdtempSync(path.join(tmpdir(), 'nesting-bench-flat-'));
    const clips = path.join(top, '26014/clips');
    const run = (...args: readonly string[]) => timed(process.execPath, ['--import', PEAK, PROGRAM, ...args], top);
    writeFileSync(path.join(top, 'small.nest.json'), JSON.stringify(TEMPLATE));
    run('create', 'small.nest.json', '--into', top, '--set', 'number=26014');
    const bytes = Buffer.alloc(FILE);
    for (let i = 0; i < files; i++) writeFileSync(path.join(clips, `clip-${i}.mov`), randomFillSync(bytes));
    const theirs = timed('zip', ['-0', '-q', '-r', 'theirs.zip', '26014'], top);
    rmSync(path.join(top, 'theirs.zip'));
    const pack = run('pack', '26014', '--to', 'ours.zip');
    const verify = run('verify', 'ours.zip');
    peaks.pack?.push(pack.peak);
    peaks.verify?.push(verify.peak);
    const ratio = pack.seconds / theirs.seconds;
    line(
      `${((files * FILE) / 2 ** 30).toFixed(1)} GiB in ${files} files as a zip`,
      `${pack.seconds.toFixed(1)} s, ${ratio.toFixed(2)} × zip -0 -r; ${pack.peak.toFixed(0)} MiB, proved in ${verify.peak.toFixed(0)}`,
      'at most 1.3 ×',
      ratio <= 1.3,
    );
    rmSync(top, { recursive: true, force: true });
  }
  for (const [what, [small = 1, large = 0]] of Object.entries(peaks)) {
    const ratio = large / small;
    line(`memory to ${what} four times as much`, `${ratio.toFixed(2)} ×`, 'at most 1.1 ×', ratio <= 1.1);
  }
}

const TEMPLATE = {
  ...{ format: 'nesting/template', formatVersion: 1, id: 'small', name: 'Small', fields: [], conventions: [] },
  registers: { families: [{ name: 'moving image', extensions: ['mov'] }] },
  root: { id: 'root', name: '{number}', folders: [{ id: 'clips', name: 'clips', accepts: ['moving image'] }] },
};
