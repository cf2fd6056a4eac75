// npm run bench findings: the demo's server and database, and the bench of bench/findings.ts over them.
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { build } from 'esbuild';
import pg from 'pg';
import { startCluster } from './postgres.mjs';
import { root } from './setup.mjs';

const ownPackages = {
  name: 'own-packages',
  setup(b) {
    b.onResolve({ filter: /^[^./]/ }, (args) => {
      const own = /^@nesting\/(\w+)$/.exec(args.path);
      return args.kind === 'entry-point' ? undefined : own ? { path: path.join(root, 'packages', own[1], 'src', 'index.ts') } : { path: args.path, external: true };
    });
  },
};
await build({ entryPoints: [path.join(root, 'bench/findings.ts')], outfile: path.join(root, 'dist/bench-findings.js'), bundle: true, platform: 'node', target: 'node20', format: 'esm', logLevel: 'warning', plugins: [ownPackages] });
const cluster = await startCluster(path.join(root, '.data/test-postgres'), { throwaway: true });
const database = `bench_${process.pid}`;
const admin = async (sql) => {
  const client = new pg.Client({ connectionString: cluster.url('postgres') });
  await client.connect();
  await client.query(sql).finally(() => client.end());
};
await admin(`create database ${database}`);
const data = mkdtempSync(path.join(tmpdir(), 'nesting-bench-'));
const { startDemo } = await import('../dist/demo.js');
const running = await startDemo({ databaseUrl: cluster.url(database), secret: 'x'.repeat(40), port: 0, data, say: () => undefined });
try {
  const versions = readdirSync('/usr/lib/postgresql');
  const { benchFindings } = await import('../dist/bench-findings.js');
  await benchFindings(running.world, `http://127.0.0.1:${running.port}`, `/usr/lib/postgresql/${versions.at(-1)}/bin/psql`, cluster.url(database));
} finally {
  await running.stop();
  await admin(`drop database ${database} with (force)`);
  rmSync(data, { recursive: true, force: true });
  cluster.stop();
}
