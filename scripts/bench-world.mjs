// A demo with a database of its own for benches over the real server: `work` is given it, and everything is put away
// after.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import pg from 'pg';
import { startCluster } from './postgres.mjs';
import { root } from './setup.mjs';

export async function withBenchWorld(work) {
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
  const running = await startDemo({
    databaseUrl: cluster.url(database),
    secret: 'x'.repeat(40),
    port: 0,
    data,
    say: () => undefined,
  });
  try {
    await work(running, cluster.url(database));
  } finally {
    await running.stop();
    await admin(`drop database ${database} with (force)`);
    rmSync(data, { recursive: true, force: true });
    cluster.stop();
  }
}
