/**
 * A move from one file system to another: copied beside its new place, verified by its hash, put in place where
 * its name is free, and only then removed.
 * A crash before the last act leaves the original as it was, and a copy that says by its name what it is.
 */
import { lstatSync, mkdirSync, readdirSync, rmdirSync, unlinkSync, utimesSync } from 'node:fs';
import type { Expected } from '@nesting/core/change';
import { join, nameOf, parentOf } from '@nesting/core/listing';
import { copyFile } from './copy-file';
import { removeTree } from './remove-tree';
import type { Root } from './root';
import { takePlace } from './take-place';
import { failed } from './where';

interface Copied extends Expected {
  readonly path: string;
}

/** In front of the name of a copy that is not whole yet. */
export const COPYING = '.nesting-copying-';

/**
 * Fails with `EEXIST` where something took the name while it was copied, `EVERIFY` where a copy is not what was copied, `ECHANGED` where the original was written to meanwhile; the
 * original then stays.
 */
export function moveAcross(root: Root, from: string, to: string): void {
  const beside = join(parentOf(to), `${COPYING}${nameOf(to)}`);
  const copied: Copied[] = [];
  try {
    copyVerified(root, from, beside, copied);
    const changed = copied.find(({ path, size, modified }) => {
      const now = lstatSync(root.at(path), { throwIfNoEntry: false });
      return now === undefined || now.size !== size || Math.floor(now.mtimeMs) !== modified;
    });
    if (changed !== undefined) throw failed('ECHANGED', changed.path);
    takePlace({ root, path: beside }, { root, path: to });
    root.forget();
  } catch (error) {
    removeTree(root, beside);
    throw error;
  }
  removeCopied(root, from, new Set(copied.map((c) => c.path)));
}

function copyVerified(root: Root, from: string, to: string, copied: Copied[]): void {
  const stats = lstatSync(root.at(from));
  if (stats.isDirectory()) {
    mkdirSync(root.at(to));
    for (const name of readdirSync(root.folder(from).self))
      copyVerified(root, join(from, name), join(to, name), copied);
    utimesSync(root.folder(to).self, stats.atime, stats.mtime);
  } else if (stats.isFile()) copied.push({ path: from, ...copyFile({ root, path: from }, { root, path: to }) });
  else throw failed('ELOOP', from);
}

/** Only what was copied is removed; a folder in which something came meanwhile stays with it. */
function removeCopied(root: Root, path: string, copied: ReadonlySet<string>): void {
  if (copied.has(path)) {
    unlinkSync(root.at(path));
    return;
  }
  if (!lstatSync(root.at(path)).isDirectory()) return;
  for (const name of readdirSync(root.folder(path).self)) removeCopied(root, join(path, name), copied);
  if (readdirSync(root.folder(path).self).length > 0) return;
  rmdirSync(root.at(path));
  root.forget();
}
