/** Where the build put what the server needs. */
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Config } from './config';

export function buildPaths(base: string): Pick<Config, 'webFolder' | 'migrations' | 'worker'> {
  const worker = new URL('./check-worker.js', base);
  return {
    webFolder: fileURLToPath(new URL('../packages/web/dist', base)),
    migrations: fileURLToPath(new URL('./migrations', base)),
    worker: existsSync(worker) ? worker : null,
  };
}
