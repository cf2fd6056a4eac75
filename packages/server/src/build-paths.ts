/** Where the build put what the server needs. */
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { BuildPaths } from './config';

export function buildPaths(base: string): BuildPaths {
  const script = (name: string) => {
    const url = new URL(name, base);
    return existsSync(url) ? url : null;
  };
  return {
    webFolder: fileURLToPath(new URL('../packages/web/dist', base)),
    migrations: fileURLToPath(new URL('./migrations', base)),
    worker: script('./check-worker.js'),
    readWorker: script('./read-worker.js'),
  };
}
