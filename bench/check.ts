/**
 * Walking and checking a million files against find over the same tree. Each check runs in a process of its own, so
 * that its memory is its own.
 */

import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { valueAt } from '@nesting/core';
import { NO_REGISTERS } from '@nesting/core/name';
import type { CheckInput } from '@nesting/core/project';
import { normaliseTemplate } from '@nesting/core/template';
import { checkOnDisk } from '@nesting/disk';
import { standInFolders } from '../packages/disk/src/roots/handle';
import { interleave, line } from './measure';

const FOLDERS = 40_000;
const FILES_EACH = 25;
/** The folders of one shot, and what stands in the names of the files in them. */
const OF_SHOT = { '': 'anim', '/renders': 'comp', '/plates': 'plate', '/previews': 'prev' } as const;
const SHOTS = FOLDERS / Object.keys(OF_SHOT).length;

export const input: CheckInput = {
  registers: NO_REGISTERS,
  values: { number: '26014', shots: `1..${SHOTS}` },
  template: normaliseTemplate({
    format: 'nesting/template',
    formatVersion: 1,
    name: 'Frames',
    fields: [{ key: 'shots', type: 'list', of: { type: 'count' } }],
    conventions: [
      {
        id: 'f',
        name: 'Frame',
        pattern: '{number}_{shot:00000}_{what}_v{version:000}.{frame:0000}.{ext}',
        fields: [
          { key: 'what', type: 'choice', options: Object.values(OF_SHOT).map((code) => ({ code })) },
          { key: 'shot', type: 'count' },
        ],
      },
    ],
    root: {
      name: '{number}',
      folders: [
        {
          name: 'shots',
          folders: [
            {
              name: '{shot:00000}',
              onePer: { list: 'shots', as: 'shot' },
              conventions: ['f'],
              folders: [{ name: 'renders' }, { name: 'plates' }, { name: 'previews' }],
            },
          ],
        },
      ],
    },
  }),
};

function makeTree(root: string): void {
  mkdirSync(path.join(root, 'shots'), { recursive: true });
  for (let shot = 1; shot <= SHOTS; shot++) {
    const name = String(shot).padStart(5, '0');
    for (const [folder, what] of Object.entries(OF_SHOT)) {
      mkdirSync(`${root}/shots/${name}${folder}`);
      for (let n = 1; n <= FILES_EACH; n++) {
        // One name in two hundred is broken, as in a busy project.
        const broken = (shot * FILES_EACH + n) % 200 === 0;
        writeFileSync(
          `${root}/shots/${name}${folder}/26014_${name}_${what}_${broken ? 'V3' : 'v003'}.${String(n).padStart(4, '0')}.exr`,
          '.',
        );
      }
    }
  }
}

interface Run {
  readonly ms: number;
  readonly files: number;
  readonly findings: number;
  readonly mb: number;
  readonly quick: number;
  readonly relisted: number;
}

/** The most memory that processes this one started have held so far. */
function childrenMegabytes(): number {
  const pids = readFileSync(`/proc/self/task/${process.pid}/children`, 'utf8');
  return pids
    .split(' ')
    .filter((pid) => pid !== '')
    .reduce((sum, pid) => {
      const most = /VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1];
      return sum + Number(most ?? 0) / 1024;
    }, 0);
}

/**
 * Run as a process of its own: how long it took, what it found, and the most memory it held, in MB; then a quick check
 * after a hundred changes.
 */
export async function checkOnce(root: string, processes: number): Promise<void> {
  const script = processes > 1 ? new URL('./disk-child.js', import.meta.url) : null;
  const helpers = processes - 1;
  const where = { base: root, folder: '' };
  const rules = 'the same';
  let helping = 0;
  const look = () => {
    helping = Math.max(helping, childrenMegabytes());
  };
  // As the process does that a check runs in.
  standInFolders();
  const start = performance.now();
  const outcome = await checkOnDisk({ where, input, fingerprint: rules, script, helpers, progress: look });
  const ms = performance.now() - start;
  const mb = process.resourceUsage().maxRSS / 1024 + helping;
  for (let n = 1; n <= 100; n++)
    writeFileSync(path.join(root, 'shots', String(n * 7).padStart(5, '0'), `note-${process.pid}-${n}.txt`), '.');
  const again = performance.now();
  const quick = await checkOnDisk({ where, input, fingerprint: rules, script, helpers, since: outcome });
  const took = performance.now() - again;
  for (let n = 1; n <= 100; n++)
    rmSync(path.join(root, 'shots', String(n * 7).padStart(5, '0'), `note-${process.pid}-${n}.txt`));
  if (quick.summary.files !== outcome.summary.files + 100)
    throw new Error(`the quick check saw ${quick.summary.files} files`);
  process.stdout.write(
    JSON.stringify({
      ms,
      files: outcome.summary.files,
      findings: outcome.findings.length,
      mb,
      quick: took,
      relisted: quick.relisted ?? 0,
    } satisfies Run),
  );
}

export function benchCheck(): void {
  const kept = process.env.NESTING_BENCH_TREE;
  const root = kept ?? mkdtempSync(path.join(tmpdir(), 'nesting-bench-'));
  try {
    if (!existsSync(path.join(root, 'shots'))) makeTree(root);
    const self = fileURLToPath(import.meta.url);
    const last = new Map<number, Run>();
    const check = (workers: number) => () => {
      const out = JSON.parse(
        execFileSync(process.execPath, [self, 'check-once', root, String(workers)], { encoding: 'utf8' }),
      ) as Run;
      last.set(workers, {
        ...out,
        mb: Math.max(out.mb, last.get(workers)?.mb ?? 0),
        quick: Math.min(out.quick, last.get(workers)?.quick ?? out.quick),
      });
      return out.ms;
    };
    const find = () => {
      const start = performance.now();
      spawnSync('find', [root, '-printf', '%p %y %s %T@\n'], { stdio: ['ignore', 'ignore', 'inherit'] });
      return performance.now() - start;
    };
    find();
    const times = interleave(
      [
        { name: 'find', run: find },
        { name: 'two', run: check(2) },
        { name: 'one', run: check(1) },
      ],
      3,
    );
    const seen = valueAt(last, 2);
    if (seen.files < FOLDERS * FILES_EACH || seen.findings === 0)
      throw new Error(`saw ${seen.files} files, ${seen.findings} findings`);
    const [two, one, base] = [times.two, times.one, times.find];
    line(
      `walk and check ${seen.files} files in ${FOLDERS} folders, two processes`,
      `${(two / base).toFixed(2)} × find -printf (${two.toFixed(0)} ms)`,
      'at most 1.5 ×',
      two / base <= 1.5,
    );
    line('  the most memory it held', `${seen.mb.toFixed(0)} MB`, 'under 300 MB', seen.mb < 300);
    line('  two processes against one', `${(one / two).toFixed(2)} ×`, 'at least 1.4 ×', one / two >= 1.4);
    line(
      `  a quick check after 100 changes (${seen.relisted} folders listed again)`,
      `${(seen.quick / two).toFixed(3)} of the whole (${seen.quick.toFixed(0)} ms)`,
      'at most 0.1',
      seen.quick / two <= 0.1,
    );
  } finally {
    if (kept === undefined) rmSync(root, { recursive: true, force: true });
  }
}
