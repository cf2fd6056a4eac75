// Builds what runs: the server, the processes that work on disks and the command line by esbuild, the screens by Vite.

import { cpSync, rmSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
process.chdir(root);

/** The project's own packages are bundled from their sources; everything from npm stays where it is installed. */
const ownPackages = {
  name: 'own-packages',
  setup(b) {
    b.onResolve({ filter: /^[^./]/ }, (args) => {
      if (args.kind === 'entry-point' || args.path.startsWith('@nesting/')) return undefined;
      return { path: args.path, external: true };
    });
  },
};

const common = {
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  sourcemap: 'linked',
  logLevel: 'warning',
  outdir: 'dist',
};
const only = process.argv[2];

if (only !== 'web') {
  // The command line and the processes that work on disks start often: everything they need is in one file.
  await build({
    ...common,
    entryPoints: {
      nesting: 'packages/cli/src/main.ts',
      'disk-child': 'packages/disk/src/children/main.ts',
    },
    banner: { js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);" },
  });
  await build({
    ...common,
    entryPoints: {
      server: 'packages/server/src/main.ts',
      admin: 'packages/server/src/admin.ts',
      'check-only': 'packages/server/src/check-only.ts',
      demo: 'demo/main.ts',
      'media-worker': 'packages/disk/src/media/worker.ts',
    },
    plugins: [ownPackages],
  });
  rmSync('dist/migrations', { recursive: true, force: true });
  cpSync('packages/server/src/db/migrations', 'dist/migrations', { recursive: true });
}
if (only !== 'server') {
  const vite = await import('vite');
  await vite.build({ root: path.join(root, 'packages/web'), logLevel: 'warn' });
}
