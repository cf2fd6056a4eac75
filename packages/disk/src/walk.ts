/**
 * Walks folders with synchronous calls, one listing at a time; meant for a worker thread. Links are named, never
 * followed.
 */
import { lstatSync, readdirSync, readFileSync } from 'node:fs';
import { codeOf } from '@nesting/core/change';
import {
  type FileEntry,
  type FolderListing,
  FRAMES_NOTE,
  frameRange,
  join,
  nameOf,
  parentOf,
} from '@nesting/core/listing';
import { OWN_FOLDER } from '@nesting/core/project';
import { inside } from './guard';

export interface Unseen {
  readonly path: string;
  /** `EACCES`, `ENOENT` (gone while it was looked at), `NOT-UTF-8`… */
  readonly code: string;
}

/** A folder of the project that lies on another volume, with all that is in it: under `root`, by the same path. */
export interface Mount {
  readonly path: string;
  readonly root: string;
}

/** Where a path of the project lies. */
export function placeOf(root: string, path: string, mounts: readonly Mount[]): string {
  const mount = mounts.length === 0 ? undefined : mounts.find((m) => path === m.path || path.startsWith(`${m.path}/`));
  const from = mount?.root ?? root;
  return path === '' ? from : `${from}/${path}`;
}

/** One folder's listing; `null` where it cannot be read. Nesting's own folder at the root is passed over. */
export function listFolder(
  root: string,
  path: string,
  unseen: (unseen: Unseen) => void,
  mounts: readonly Mount[] = [],
): FolderListing | null {
  const absolute = placeOf(root, path, mounts);
  const folders: string[] = [];
  const files: FileEntry[] = [];
  const others: string[] = [];
  let ranges: Record<string, readonly [number, number]> | undefined;
  let changed: number | undefined;
  let entries: ReturnType<typeof read>;
  try {
    // Its time is taken before its names: a change in between is seen next time.
    changed = lstatSync(absolute, { throwIfNoEntry: false })?.mtimeMs;
    entries = read(absolute);
  } catch (error) {
    unseen({ path, code: codeOf(error) });
    return null;
  }
  for (const entry of entries) {
    const { name } = entry;
    if (entry.isDirectory()) {
      if (path !== '' || name !== OWN_FOLDER) folders.push(name);
    } else if (entry.isFile()) {
      const stats = lstatSync(`${absolute}/${name}`, { throwIfNoEntry: false });
      if (stats === undefined)
        unseen({ path: join(path, name), code: name.includes('\ufffd') ? 'NOT-UTF-8' : 'ENOENT' });
      else files.push({ name, size: stats.size, modified: stats.mtimeMs });
      if (name.endsWith(FRAMES_NOTE) && stats !== undefined && stats.size <= 100) {
        const range = rangeIn(`${absolute}/${name}`);
        if (range !== null) ranges = { ...ranges, [name.slice(0, -FRAMES_NOTE.length)]: range };
      }
    } else others.push(name);
  }
  for (const mount of mounts) {
    if (parentOf(mount.path) !== path || mount.path === path || folders.includes(nameOf(mount.path))) continue;
    if (lstatSync(placeOf(root, mount.path, mounts), { throwIfNoEntry: false })?.isDirectory())
      folders.push(nameOf(mount.path));
  }
  return {
    path,
    folders,
    files,
    others,
    ...(changed !== undefined && { changed }),
    ...(ranges !== undefined && { ranges }),
  };
}

function rangeIn(path: string): readonly [number, number] | null {
  try {
    return frameRange(readFileSync(path, 'utf8'));
  } catch {
    // Gone, or not to be read: the walk says so of its name.
    return null;
  }
}

export interface FolderNames {
  readonly folders: readonly string[];
  readonly files: readonly string[];
}

const NOTHING: FolderNames = { folders: [], files: [] };

/** Names of what is in one folder, by one call; none where it cannot be read. */
export function namesIn(root: string, path: string): FolderNames {
  try {
    const entries = read(path === '' ? root : `${root}/${path}`);
    return {
      folders: entries.filter((entry) => entry.isDirectory()).map((entry) => entry.name),
      files: entries.filter((entry) => entry.isFile()).map((entry) => entry.name),
    };
  } catch {
    return NOTHING;
  }
}

/** Names of the files in one folder; none where it cannot be read. Links on the way to it are not followed. */
export function fileNames(root: string, path: string): readonly string[] {
  const folder = inside(root, path);
  return folder.ok ? namesIn(folder.value, '').files : [];
}

const read = (absolute: string) => readdirSync(absolute, { withFileTypes: true });

/** Paths of all folders below, without a look at their files. At most `most`. */
export function foldersBelow(
  root: string,
  most: number,
): { readonly folders: readonly string[]; readonly whole: boolean } {
  const folders: string[] = [];
  const queue = [''];
  for (const path of queue) {
    for (const name of namesIn(root, path).folders) {
      if (path === '' && name === OWN_FOLDER) continue;
      if (folders.length >= most) return { folders, whole: false };
      folders.push(join(path, name));
      queue.push(join(path, name));
    }
  }
  return { folders, whole: true };
}
