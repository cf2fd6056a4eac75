// Builds the benchmarks beside the worker they need, and runs them. They time themselves: medians of interleaved runs.
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { needBuild, needPackages, root } from './setup.mjs';

needPackages();
needBuild();
if (['browser', 'sending', 'house', 'findings', 'load'].includes(process.argv[2])) {
  process.exitCode =
    spawnSync(process.execPath, [path.join(root, `scripts/bench-${process.argv[2]}.mjs`), ...process.argv.slice(3)], {
      stdio: 'inherit',
      cwd: root,
    }).status ?? 1;
  process.exit();
}
const { build } = await import('esbuild');
await build({
  entryPoints: [path.join(root, 'bench/main.ts')],
  outfile: path.join(root, 'dist/bench.js'),
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  logLevel: 'warning',
  absWorkingDir: root,
});
process.exitCode =
  spawnSync(process.execPath, [path.join(root, 'dist/bench.js'), ...process.argv.slice(2)], {
    stdio: 'inherit',
    cwd: root,
  }).status ?? 1;
