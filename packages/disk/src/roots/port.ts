/**
 * Node's disks as the core's port. Synchronous calls: as fast as the system's own (see the measurements in
 * docs/architecture.md). Every path is taken from an open folder, so none can be led elsewhere.
 */
import {
  closeSync,
  fsync,
  fsyncSync,
  lstatSync,
  mkdirSync,
  openSync,
  readdirSync,
  rmdirSync,
  type Stats,
  unlinkSync,
  writeSync,
} from 'node:fs';
import { promisify } from 'node:util';
import { valueAt } from '@nesting/core';
import { codeOf, HOME, type Place, type Port, type RootId, type Standing } from '@nesting/core/change';
import { parentOf } from '@nesting/core/listing';
import { OWN_FOLDER } from '@nesting/core/project';
import { copyFile, type FileAt } from './copy-file';
import { moveAcross } from './move-across';
import { hashPastCache } from './past-cache';
import type { Root } from './root';
import { takePlace } from './take-place';

/** The roots of one batch, by their ids. */
export type Roots = ReadonlyMap<RootId, Root>;

export const onlyHome = (root: Root): Roots => new Map([[HOME, root]]);

/** `tick` is called now and then while a long copy is made; what it throws ends that. */
export function portOn(roots: Roots, tick: () => void = () => undefined): Port {
  const rootOf = (place: Place): Root => valueAt(roots, place.root);
  const fileAt = (place: Place): FileAt => ({ root: rootOf(place), path: place.path });
  const unsynced = new Unsynced();
  return {
    hasIdentities: true,
    reach: (from, to) => (from === to || isOneDisk(valueAt(roots, from), valueAt(roots, to)) ? 'all' : 'nothing'),
    provesCopies: (root) => isReadPastCache(valueAt(roots, root)),
    look: ({ root, path }) => standingAt(valueAt(roots, root), path),
    list: (place) => list(rootOf(place), place.path),
    make: (place) => {
      makeFolder(rootOf(place), place.path);
      unsynced.changed(fileAt(place));
    },
    write: (place, bytes) => {
      unsynced.wrote(fileAt(place), openNew(rootOf(place), place.path, bytes));
    },
    remove: (place) => {
      removeFile(rootOf(place), place.path);
      unsynced.changed(fileAt(place));
    },
    unmake: (place) => {
      removeFolder(rootOf(place), place.path);
      unsynced.changed(fileAt(place));
    },
    move: (from, to) => {
      move(fileAt(from), fileAt(to));
      for (const root of roots.values()) root.follow(rootOf(from), from.path, to.path);
      unsynced.changed(fileAt(from));
      unsynced.changed(fileAt(to));
    },
    copy: (from, to, patches) => {
      const read = copyFile(fileAt(from), fileAt(to), { patches, tick });
      unsynced.changed(fileAt(to));
      return read;
    },
    sync: () => unsynced.sync(),
  };
}

const synced = promisify(fsync);

/** What a loss of power could undo: files that were written, and folders whose entries changed. */
class Unsynced {
  /** Still open: to open five hundred once more costs more than to sync them. */
  private readonly files: number[] = [];
  private readonly folders = new Map<Root, Set<string>>();
  /** Most calls are in the folder of the one before. */
  private last: { readonly root: Root; readonly folder: string } | null = null;

  wrote(file: FileAt, fd: number): void {
    this.files.push(fd);
    if (this.files.length >= MOST_FILES) this.syncOldest();
    this.changed(file);
  }

  changed({ root, path }: FileAt): void {
    const folder = parentOf(path);
    if (this.last?.root === root && this.last.folder === folder) return;
    this.last = { root, folder };
    const known = this.folders.get(root) ?? new Set();
    this.folders.set(root, known.add(folder));
  }

  private syncOldest(): void {
    const fd = this.files.shift();
    if (fd === undefined) return;
    try {
      fsyncSync(fd);
    } finally {
      closeSync(fd);
    }
  }

  async sync(): Promise<void> {
    await this.syncFiles();
    // A file system with a journal keeps what came before with the last of it: many need not be synced one by one.
    for (const [root, folders] of this.folders)
      for (const path of folders.size > MOST_FOLDERS ? [''] : folders) syncIfThere(() => root.folder(path).self);
    this.folders.clear();
    this.last = null;
  }

  /** Together: a disk writes for many at once what it writes for one. */
  private async syncFiles(): Promise<void> {
    const open = this.files.splice(0);
    const ended = await Promise.allSettled(open.map((fd) => synced(fd)));
    for (const fd of open) closeSync(fd);
    for (const one of ended) if (one.status === 'rejected') throw one.reason;
  }
}

/** Files that are kept open until they are synced. */
const MOST_FILES = 512;

/** Folders that are synced one by one. */
const MOST_FOLDERS = 64;

/** What moved since is synced with its new folder. Systems that know no sync of a folder keep their own order. */
function syncIfThere(at: () => string): void {
  try {
    const fd = openSync(at(), 'r');
    try {
      fsyncSync(fd);
    } finally {
      closeSync(fd);
    }
  } catch (error) {
    if (!NOT_SYNCED.has(codeOf(error))) throw error;
  }
}

const NOT_SYNCED: ReadonlySet<string> = new Set(['ENOENT', 'ENOTDIR', 'EISDIR', 'EPERM', 'EACCES', 'EINVAL', 'EROFS']);

/** By a file of the program's own, once for each disk. Where none can be written nothing is proved. */
function isReadPastCache(root: Root): boolean {
  const device = deviceOf(root);
  const known = provingDisks.get(device);
  if (known !== undefined) return known;
  const probe = `${OWN_FOLDER}/${PROBE}`;
  let isProved = false;
  try {
    const fd = openNew(root, probe, Buffer.from('probe'));
    try {
      fsyncSync(fd);
      isProved = hashPastCache(root.at(probe)) !== null;
    } finally {
      closeSync(fd);
      removeFile(root, probe);
    }
  } catch {
    return false;
  }
  provingDisks.set(device, isProved);
  return isProved;
}

const provingDisks = new Map<string, boolean>();
const PROBE = '.probe';

const isOneDisk = (a: Root, b: Root): boolean => deviceOf(a) === deviceOf(b);
const deviceOf = ({ identity }: Root): string => identity.slice(0, identity.indexOf(':'));

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

// Each is one call on an entry; then, where there are no handles, a look whether it happened in the right folder.

export function makeFolder(root: Root, path: string): void {
  mkdirSync(root.at(path));
  root.sure(path);
}

function removeFile(root: Root, path: string): void {
  unlinkSync(root.at(path));
  root.sure(path);
}

/** @throws `ENOTEMPTY` */
export function removeFolder(root: Root, path: string): void {
  rmdirSync(root.at(path));
  root.sure(path);
  root.forget();
}

export const writeNew = (root: Root, path: string, bytes: Uint8Array): void => closeSync(openNew(root, path, bytes));

/**
 * A file, written and still open. Never over something that stands there; half a file is no file, so a full disk leaves
 * nothing of it behind.
 */
function openNew(root: Root, path: string, bytes: Uint8Array): number {
  const at = root.at(path);
  const fd = openSync(at, 'wx');
  let isWhole = false;
  try {
    for (let done = 0; done < bytes.length; ) done += writeSync(fd, bytes, done);
    root.sure(path);
    isWhole = true;
  } finally {
    if (!isWhole) {
      closeSync(fd);
      unlinkSync(at);
    }
  }
  return fd;
}

/** On the same file system by its name; where another one is mounted in a root, by a copy that is proved. @throws `EEXIST` */
export function move(from: FileAt, to: FileAt): void {
  try {
    takePlace(from, to);
  } catch (error) {
    if (codeOf(error) !== 'EXDEV' || from.root !== to.root) throw error;
    moveAcross(from.root, from.path, to.path);
  }
}
