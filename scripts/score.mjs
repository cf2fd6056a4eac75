// The corpus of broken names, and how well they are put right: npm run score [tune|measure] [-- --misses]
// The damages of a working week, and what checks find of them, rule by rule: npm run score rules [-- --misses]
// The same damages put right by what is sure, and checked again: npm run score repair [-- --misses]
// Loose files as people send them, and where they are brought: npm run score intake [-- --misses]
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { needPackages, root } from './setup.mjs';

const SCORES = {
  rules: 'corpus/score-rules.ts',
  repair: 'corpus/score-repair.ts',
  intake: 'corpus/intake/score-intake.ts',
};

needPackages();
const { build } = await import('esbuild');
const out = path.join(root, '.tmp/score.js');
await build({
  entryPoints: [path.join(root, SCORES[process.argv[2]] ?? 'corpus/score.ts')],
  outfile: out,
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  logLevel: 'warning',
  absWorkingDir: root,
});
process.exitCode =
  spawnSync(process.execPath, [out, ...process.argv.slice(2)], { stdio: 'inherit', cwd: root }).status ?? 1;
