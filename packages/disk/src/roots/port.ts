/**
 * Node's disk as the core's port. Synchronous calls: as fast as the system's own (see the measurements in
 * docs/architecture.md). Every path is taken from an open folder, so none can be led elsewhere.
 */
import {
  closeSync,
  lstatSync,
  mkdirSync,
  openSync,
  readdirSync,
  rmdirSync,
  type Stats,
  unlinkSync,
  writeSync,
} from 'node:fs';
import { codeOf, type Port, type Standing } from '@nesting/core/change';
import { copyFile } from './copy-file';
import { moveAcross } from './move-across';
import type { Root } from './root';
import { takePlace } from './take-place';

export function portOn(root: Root): Port {
  /** One call on an entry; then, where there are no handles, a look whether it happened in the right folder. */
  const call = <T>(path: string, work: (at: string) => T): T => {
    const done = work(root.at(path));
    root.sure(path);
    return done;
  };
  return {
    look: (path) => standingAt(root, path),
    list: (path) => list(root, path),
    make: (path) => call(path, (at) => mkdirSync(at)),
    write: (path, bytes) => call(path, (at) => writeNew(at, bytes)),
    unwrite: (path) => call(path, (at) => unlinkSync(at)),
    unmake: (path) => {
      call(path, (at) => rmdirSync(at));
      root.forget();
    },
    move: (from, to) => move(root, from, to),
    copy: (from, to) => void copyFile(root, from, to),
  };
}

const kindOf = (stats: Pick<Stats, 'isDirectory' | 'isFile'>): Standing['kind'] =>
  stats.isDirectory() ? 'folder' : stats.isFile() ? 'file' : 'other';

/** What stands at a path; nothing where a folder on the way is none. @throws `ELOOP` where a link is on the way */
export function standingAt(root: Root, path: string): Standing | null {
  try {
    const stats = lstatSync(path === '' ? root.folder('').self : root.at(path), { throwIfNoEntry: false });
    root.sure(path);
    if (stats === undefined) return null;
    const kind = kindOf(stats);
    return {
      kind,
      size: kind === 'file' ? stats.size : 0,
      modified: Math.floor(stats.mtimeMs),
      id: `${stats.dev}:${stats.ino}`,
    };
  } catch (error) {
    if (codeOf(error) === 'ENOENT' || codeOf(error) === 'ENOTDIR') return null;
    throw error;
  }
}

function list(root: Root, path: string): ReadonlyMap<string, Standing['kind']> | null {
  try {
    const folder = root.folder(path);
    const entries = readdirSync(folder.self, { withFileTypes: true });
    folder.sure();
    return new Map(entries.map((entry) => [entry.name, kindOf(entry)]));
  } catch (error) {
    if (codeOf(error) === 'ENOENT' || codeOf(error) === 'ENOTDIR') return null;
    throw error;
  }
}

/** Never over something that stands there; half a file is no file, so a full disk leaves nothing of it behind. */
function writeNew(at: string, bytes: Uint8Array): void {
  const fd = openSync(at, 'wx');
  let isWhole = false;
  try {
    for (let done = 0; done < bytes.length; ) done += writeSync(fd, bytes, done);
    isWhole = true;
  } finally {
    closeSync(fd);
    if (!isWhole) unlinkSync(at);
  }
}

/** On the same file system by its name, from another one by a copy that is proved. @throws `EEXIST` */
function move(root: Root, from: string, to: string): void {
  try {
    takePlace(root, from, to);
  } catch (error) {
    if (codeOf(error) !== 'EXDEV') throw error;
    moveAcross(root, from, to);
  }
}
