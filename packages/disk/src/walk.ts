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

export interface Walk {
  /** Called once for each folder, parents before children. */
  readonly folder: (listing: FolderListing) => void;
  readonly unseen: (unseen: Unseen) => void;
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
  unseen: Walk['unseen'],
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

/**
 * Names of the files in one folder, by one call; none where it cannot be read. Links on the way to it are not followed.
 */
export function fileNames(root: string, path: string): string[] {
  const folder = inside(root, path);
  if (!folder.ok) return [];
  try {
    return read(folder.value).flatMap((entry) => (entry.isFile() ? [entry.name] : []));
  } catch {
    return [];
  }
}

const read = (absolute: string) => readdirSync(absolute, { withFileTypes: true });

/** Walks everything below `path`, itself included. `stop` is asked before each folder. */
export function walk(root: string, path: string, visit: Walk, stop: () => boolean = () => false): void {
  const queue = [path];
  for (let at = queue.pop(); at !== undefined && !stop(); at = queue.pop()) {
    const listing = listFolder(root, at, visit.unseen);
    if (listing === null) continue;
    visit.folder(listing);
    for (let i = listing.folders.length - 1; i >= 0; i--) queue.push(join(at, listing.folders[i] as string));
  }
}

/** Paths of all folders below, without a look at their files; the loop lets others in. At most `most`. */
export async function foldersBelow(
  root: string,
  most: number,
): Promise<{ readonly folders: readonly string[]; readonly whole: boolean }> {
  const folders: string[] = [];
  const queue = [''];
  for (let i = 0; i < queue.length; i++) {
    const path = queue[i] as string;
    try {
      for (const entry of read(path === '' ? root : `${root}/${path}`)) {
        if (!entry.isDirectory() || (path === '' && entry.name === OWN_FOLDER)) continue;
        if (folders.length >= most) return { folders, whole: false };
        folders.push(join(path, entry.name));
        queue.push(join(path, entry.name));
      }
    } catch {
      // What cannot be read has no folders that anybody sees.
    }
    if (i % 100 === 99) await new Promise((resolve) => setImmediate(resolve));
  }
  return { folders, whole: true };
}
