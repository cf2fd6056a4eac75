// npm run bench findings: the demo's server and database, and the bench of bench/findings.ts over them.
import { readdirSync } from 'node:fs';
import path from 'node:path';
import { build } from 'esbuild';
import { withBenchWorld } from './bench-world.mjs';
import { root } from './setup.mjs';

const ownPackages = {
  name: 'own-packages',
  setup(b) {
    b.onResolve({ filter: /^[^./]/ }, (args) => {
      const [, own, part = ''] = /^@nesting\/(\w+)(\/\w+)?$/.exec(args.path) ?? [];
      return args.kind === 'entry-point'
        ? undefined
        : own
          ? { path: path.join(root, 'packages', own, `src${part}`, 'index.ts') }
          : { path: args.path, external: true };
    });
  },
};
await build({
  entryPoints: [path.join(root, 'bench/findings.ts')],
  outfile: path.join(root, 'dist/bench-findings.js'),
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  logLevel: 'warning',
  plugins: [ownPackages],
});
await withBenchWorld(async (running, url) => {
  const versions = readdirSync('/usr/lib/postgresql');
  const { benchFindings } = await import('../dist/bench-findings.js');
  await benchFindings(
    running.world,
    `http://127.0.0.1:${running.port}`,
    `/usr/lib/postgresql/${versions.at(-1)}/bin/psql`,
    url,
  );
});
