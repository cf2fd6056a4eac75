/** Walking and checking 200,000 files against find over the same tree. The check runs in a process of its own, so that its memory is its own. */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { checkOnDisk } from '@nesting/disk';
import { normaliseTemplate, NO_REGISTERS, type CheckInput } from '@nesting/core';
import { interleave, line } from './measure';

const FOLDERS = 8000;
const FILES_EACH = 25;

const input: CheckInput = {
  registers: NO_REGISTERS,
  values: { number: '26014', shots: `1..${FOLDERS / 2}` },
  template: normaliseTemplate({
    format: 'nesting/template', formatVersion: 1, name: 'Frames', fields: [{ key: 'shots', type: 'list', of: { type: 'count' } }],
    conventions: [{ id: 'f', name: 'Frame', pattern: '{number}_{shot:0000}_{what}_v{version:000}.{frame:0000}.{ext}', fields: [{ key: 'what', type: 'choice', options: [{ code: 'comp' }, { code: 'anim' }] }, { key: 'shot', type: 'count' }] }],
    root: { name: '{number}', folders: [{ name: 'shots', folders: [{ name: '{shot:0000}', onePer: { list: 'shots', as: 'shot' }, conventions: ['f'], folders: [{ name: 'renders' }] }] }] },
  }),
};

function makeTree(root: string): void {
  mkdirSync(path.join(root, 'shots'));
  for (let shot = 1; shot <= FOLDERS / 2; shot++) {
    const name = String(shot).padStart(4, '0');
    for (const folder of [`shots/${name}`, `shots/${name}/renders`]) {
      mkdirSync(path.join(root, folder));
      for (let n = 1; n <= FILES_EACH; n++) {
        // One name in two hundred is broken, as in a busy project.
        const broken = (shot * FILES_EACH + n) % 200 === 0;
        writeFileSync(path.join(root, folder, `26014_${name}_${folder.endsWith('renders') ? 'comp' : 'anim'}_${broken ? 'V3' : 'v003'}.${String(n).padStart(4, '0')}.exr`), '.');
      }
    }
  }
}

/** Run as a process of its own: prints milliseconds, findings and the most memory held, in MB. */
export async function checkOnce(root: string): Promise<void> {
  const start = performance.now();
  const outcome = await checkOnDisk({ root, input, worker: new URL('./check-worker.js', import.meta.url), here: true });
  process.stdout.write(JSON.stringify({ ms: performance.now() - start, files: outcome.summary.files, findings: outcome.findings.length, mb: process.resourceUsage().maxRSS / 1024 }));
}

export function benchCheck(): void {
  const root = mkdtempSync(path.join(tmpdir(), 'nesting-bench-'));
  try {
    makeTree(root);
    const self = fileURLToPath(import.meta.url);
    let memory = 0;
    let seen = { files: 0, findings: 0 };
    const times = interleave([
      {
        name: 'find',
        run: () => {
          const start = performance.now();
          spawnSync('find', [root, '-printf', '%p %y %s %T@\n'], { stdio: ['ignore', 'ignore', 'inherit'] });
          return performance.now() - start;
        },
      },
      {
        name: 'check',
        run: () => {
          const out = JSON.parse(execFileSync(process.execPath, [self, 'check-once', root], { encoding: 'utf8' })) as { ms: number; files: number; findings: number; mb: number };
          memory = Math.max(memory, out.mb);
          seen = out;
          return out.ms;
        },
      },
    ]);
    if (seen.files !== FOLDERS * FILES_EACH || seen.findings === 0) throw new Error(`saw ${seen.files} files, ${seen.findings} findings`);
    const [own, find] = [times.get('check') as number, times.get('find') as number];
    line(`walk and check ${seen.files} files in ${FOLDERS} folders`, `${(own / find).toFixed(2)} × find -printf (${own.toFixed(0)} ms)`, 'at most 2.5 ×', own / find <= 2.5);
    line('  the most memory it held', `${memory.toFixed(0)} MB`, 'under 200 MB', memory < 200);
  } finally {
    rmSync(root, { recursive: true, force: true });
  }
}
