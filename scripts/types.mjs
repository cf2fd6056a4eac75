// Types of every package, by the fast compiler.
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { root, say } from './setup.mjs';

export const TSC = 'node_modules/typescript7/bin/tsc';
export const TYPED = [
  'packages/core',
  'packages/contract',
  'packages/media',
  'packages/disk',
  'packages/server',
  'packages/cli',
  'packages/web',
  'demo',
  'tsconfig.tests.json',
];

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const failed = TYPED.filter(
    (project) =>
      spawnSync(process.execPath, [path.join(root, TSC), '-p', project], { cwd: root, stdio: 'inherit' }).status !== 0,
  );
  say(failed.length === 0 ? 'Types hold.' : `Types do not hold in ${failed.join(', ')}.`);
  process.exitCode = failed.length === 0 ? 0 : 1;
}
