/**
 * Starting a project of 2,000 folders and 500 starter files on a disk, beside `xargs mkdir -p` and `cp -r` of the same
 * tree.
 */
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { NO_REGISTERS } from '@nesting/core/name';
import { startChanges } from '@nesting/core/planners';
import { expandTemplate, type Template } from '@nesting/core/template';
import { Root, startOnDisk } from '@nesting/disk';
import { line, median } from './measure';

const BYTES = Buffer.alloc(4096, 7);

function template(): Template {
  const wide = (id: string, n: number, starters: number) =>
    Array.from({ length: n }, (_, i) => ({
      id: `${id}-${i}`,
      name: `folder-${i}`,
      ...(i < starters && { starters: [{ id: `${id}-s${i}`, name: `file-${i}.bin`, from: 'starters/blank.bin' }] }),
    }));
  return {
    format: 'nesting/template',
    formatVersion: 1,
    id: 'b',
    name: 'b',
    edition: 1,
    fields: [],
    conventions: [],
    root: {
      id: 'root',
      name: '{number}_b',
      folders: Array.from({ length: 20 }, (_, k) => ({
        id: `top-${k}`,
        name: `top-${k}`,
        folders: wide(`t${k}`, 99, 25),
      })),
    },
  };
}

export async function benchStart(): Promise<void> {
  const t = template();
  const home = mkdtempSync(path.join(tmpdir(), 'nesting-bench-start-'));
  const [ours, shell]: [number[], number[]] = [[], []];
  const plan = (n: number) => expandTemplate(t, { number: `9${n}` }, NO_REGISTERS);
  const counted = plan(0);
  // What is copied, as a folder that somebody keeps.
  const kept = path.join(home, 'kept');
  mkdirSync(kept);
  await startOnDisk({
    parent: Root.open({ base: kept, folder: '' }),
    folder: 'files',
    project: 'kept',
    changes: startChanges({ template: t, expansion: counted, project: 'p', started: '' }),
    bytesOf: () => BYTES,
  });
  // Folders for the shell are listed beforehand: only making them is timed.
  const folders = counted.lines
    .filter((l) => l.kind === 'folder')
    .map((l) => l.path || '.')
    .join('\n');
  for (let round = 0; round < 8; round++) {
    const a = performance.now();
    const expansion = plan(round);
    const outcome = await startOnDisk({
      parent: Root.open({ base: home, folder: '' }),
      folder: `ours-${round}`,
      project: `p${round}`,
      changes: startChanges({ template: t, expansion, project: `p${round}`, started: '' }),
      bytesOf: () => BYTES,
    });
    const b = performance.now();
    if (!outcome.ok) throw new Error(outcome.code);
    const target = path.join(home, `shell-${round}`);
    mkdirSync(target);
    const c = performance.now();
    execFileSync('xargs', ['-d', '\n', 'mkdir', '-p', '--'], { cwd: target, input: folders });
    execFileSync('cp', ['-r', path.join(kept, 'files/.'), target]);
    const d = performance.now();
    if (round > 0) {
      ours.push(b - a);
      shell.push(d - c);
    }
  }
  rmSync(home, { recursive: true, force: true });
  const ratio = median(ours) / median(shell);
  line(
    `a start of ${counted.folders} folders and ${counted.files} files, planned and written`,
    `${median(ours).toFixed(0)} ms, ${ratio.toFixed(2)} × xargs mkdir and cp -r`,
    'at most 0.75 ×',
    ratio <= 0.75,
  );
}
