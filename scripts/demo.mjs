// The demo: set-up, a private database, the made-up studio, the server. Ctrl C stops all it started, and nothing else.
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { needBuild, needDebian, needPackages, root, say } from './setup.mjs';

const data = process.env.NESTING_DATA ? path.resolve(process.env.NESTING_DATA) : path.join(root, '.data/demo');

async function main() {
  needDebian('postgresql');
  needPackages();
  needBuild();
  const { startCluster, needDatabase, freePort } = await import('./postgres.mjs');
  mkdirSync(data, { recursive: true });
  const cluster = await startCluster(path.join(data, 'postgres'));
  let running = null;
  let ending = false;
  const end = async (code) => {
    if (ending) return;
    ending = true;
    await running?.stop();
    cluster.stop();
    process.exit(code);
  };
  process.on('SIGINT', () => void end(0));
  process.on('SIGTERM', () => void end(0));
  try {
    const secretFile = path.join(data, 'secret');
    if (!existsSync(secretFile)) writeFileSync(secretFile, randomBytes(32).toString('hex'), { mode: 0o600 });
    const reset = process.argv.includes('--reset');
    if (reset) await dropDatabase(cluster);
    if (reset) rmSync(path.join(data, 'volumes'), { recursive: true, force: true });
    await needDatabase(cluster, 'nesting');
    const { startDemo } = await import('../dist/demo.js');
    const port = process.env.NESTING_PORT ?? (await firstFree([4310, 4311, 4312], freePort));
    running = await startDemo({
      databaseUrl: cluster.url('nesting'),
      secret: readFileSync(secretFile, 'utf8'),
      port: Number(port),
      data,
      say,
    });
    say(
      `\nNesting is at ${running.world.config.publicUrl}\nPick a person on the sign-in page: Ines Thorvald coordinates, Bram Okonjo is an artist, Maud Éclair looks on.\nCtrl C stops it; npm run demo -- --reset starts over.`,
    );
  } catch (error) {
    process.stderr.write(
      `nesting: ${error.code === 'EADDRINUSE' ? 'this port is taken: set NESTING_PORT to another' : (error.stack ?? error)}\n`,
    );
    await end(1);
  }
}

async function dropDatabase(cluster) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: cluster.url('postgres') });
  await client.connect();
  await client.query('drop database if exists nesting with (force)');
  await client.end();
}

async function firstFree(ports, freePort) {
  const { createServer } = await import('node:net');
  for (const port of ports) {
    const free = await new Promise((resolve) => {
      const server = createServer();
      server.once('error', () => resolve(false));
      server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)));
    });
    if (free) return port;
  }
  return freePort();
}

main().catch((error) => {
  process.stderr.write(`nesting: ${error.message}\n`);
  process.exit(1);
});
