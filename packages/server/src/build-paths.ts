/** Where the build put what the server needs. */
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { BuildPaths } from './config';

export function buildPaths(base: string): BuildPaths {
  const diskProgram = new URL('./disk-child.js', base);
  return {
    webFolder: fileURLToPath(new URL('../packages/web/dist', base)),
    migrations: fileURLToPath(new URL('./migrations', base)),
    diskProgram: existsSync(diskProgram) ? diskProgram : null,
  };
}
