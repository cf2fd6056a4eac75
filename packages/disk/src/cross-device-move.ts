/**
 * A move from one file system to another: copied beside its new place, verified by its hash, put in place in one
 * rename, and only then removed.
 * A crash before the last act leaves the original as it was, and a copy that says by its name what it is.
 */
import { createHash } from 'node:crypto';
import {
  closeSync,
  constants,
  copyFileSync,
  fsyncSync,
  lstatSync,
  mkdirSync,
  openSync,
  readdirSync,
  readSync,
  renameSync,
  rmdirSync,
  rmSync,
  unlinkSync,
  utimesSync,
} from 'node:fs';
import { basename, dirname, join } from 'node:path';

/** In front of the name of a copy that is not whole yet. */
export const COPYING = '.nesting-copying-';

const CHUNK = 1 << 20;

function hashOf(path: string): string {
  const hash = createHash('sha256');
  const buffer = Buffer.allocUnsafe(CHUNK);
  const fd = openSync(path, 'r');
  try {
    for (let read = readSync(fd, buffer); read > 0; read = readSync(fd, buffer)) hash.update(buffer.subarray(0, read));
  } finally {
    closeSync(fd);
  }
  return hash.digest('hex');
}

const failed = (code: string, path: string) => Object.assign(new Error(`${code}: ${path}`), { code });

/**
 * Fails with `EVERIFY` where a copy is not what was copied, `ECHANGED` where the original was written to meanwhile; the
 * original then stays.
 */
export function moveAcross(from: string, to: string): void {
  const beside = join(dirname(to), `${COPYING}${basename(to)}`);
  const copied: { from: string; size: number; modified: number }[] = [];
  try {
    copyVerified(from, beside, copied);
    const changed = copied.find((c) => {
      const now = lstatSync(c.from, { throwIfNoEntry: false });
      return now === undefined || now.size !== c.size || now.mtimeMs !== c.modified;
    });
    if (changed !== undefined) throw failed('ECHANGED', changed.from);
    renameSync(beside, to);
  } catch (error) {
    rmSync(beside, { recursive: true, force: true });
    throw error;
  }
  removeCopied(from, new Set(copied.map((c) => c.from)));
}

function copyVerified(from: string, to: string, copied: { from: string; size: number; modified: number }[]): void {
  const stats = lstatSync(from);
  if (stats.isDirectory()) {
    mkdirSync(to);
    for (const name of readdirSync(from)) copyVerified(join(from, name), join(to, name), copied);
  } else if (stats.isFile()) {
    copyFileSync(from, to, constants.COPYFILE_EXCL);
    const fd = openSync(to, 'r+');
    fsyncSync(fd);
    closeSync(fd);
    if (hashOf(from) !== hashOf(to)) throw failed('EVERIFY', from);
    copied.push({ from, size: stats.size, modified: stats.mtimeMs });
  } else throw failed('ELOOP', from);
  utimesSync(to, stats.atime, stats.mtime);
}

/** Only what was copied is removed; a folder in which something came meanwhile stays with it. */
function removeCopied(path: string, copied: ReadonlySet<string>): void {
  if (copied.has(path)) {
    unlinkSync(path);
    return;
  }
  if (!lstatSync(path).isDirectory()) return;
  for (const name of readdirSync(path)) removeCopied(join(path, name), copied);
  if (readdirSync(path).length === 0) rmdirSync(path);
}
