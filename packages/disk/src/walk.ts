/**
 * Walks folders with synchronous calls, one listing at a time; meant for a process of its own. Links are named, never
 * followed.
 */
import { isUtf8 } from 'node:buffer';
import { type Dirent, lstatSync, readdirSync } from 'node:fs';
import { codeOf } from '@nesting/core/change';
import { type FileEntry, type FolderListing, FRAMES_NOTE, frameRange, join } from '@nesting/core/listing';
import { OWN_FOLDER } from '@nesting/core/project';
import type { Handle } from './roots/handle';
import { readText } from './roots/plain-file';
import type { Root } from './roots/root';
import type { Tree } from './roots/tree';

export interface Unseen {
  readonly path: string;
  /** `EACCES`, `ENOENT` (gone while it was looked at), `NOT-UTF-8`… */
  readonly code: string;
}

/** One folder's listing; `null` where it cannot be read. Nesting's own folder at the root is passed over. */
export function listFolder(tree: Tree, path: string, unseen: (unseen: Unseen) => void): FolderListing | null {
  const found: Found = { folders: [], files: [], others: [] };
  let folder: Handle;
  let changed: number;
  let unnamed: readonly string[];
  try {
    folder = tree.folder(path);
    // Its time is taken before its names: a change in between is seen next time.
    changed = folder.modified();
    const entries = readdirSync(folder.self, { withFileTypes: true });
    // What is lost of a name that is no text shows: only then are the bytes asked for.
    const lost = entries.some((entry) => entry.name.includes(LOST)) ? unnamedIn(folder) : NONE_LOST;
    for (const entry of entries) {
      if (lost.shown.has(entry.name)) unseen({ path: join(path, entry.name), code: 'NOT-UTF-8' });
      else sort(entry, path, folder, found, unseen);
    }
    unnamed = lost.written;
    folder.sure();
  } catch (error) {
    unseen({ path, code: codeOf(error) });
    return null;
  }
  for (const name of tree.mountedIn(path)) if (!found.folders.includes(name)) found.folders.push(name);
  const ranges = rangesIn(tree, path, found.files);
  return {
    path,
    ...found,
    changed,
    ...(unnamed.length > 0 && { unnamed }),
    ...(ranges !== null && { ranges }),
  };
}

/** What stands in a text for bytes that are none. */
const LOST = '\ufffd';

interface Lost {
  /** As the system gives them to a program that asks for texts. */
  readonly shown: ReadonlySet<string>;
  readonly written: readonly string[];
}

const NONE_LOST: Lost = { shown: new Set(), written: [] };

function unnamedIn(folder: Handle): Lost {
  const lost = readdirSync(folder.self, { encoding: 'buffer' }).filter((name) => !isUtf8(name));
  return { shown: new Set(lost.map((name) => name.toString('utf8'))), written: lost.map(written).sort() };
}

/** The text, with each byte that belongs to none written out. */
function written(name: Buffer): string {
  let text = '';
  for (let at = 0; at < name.length; ) {
    const length = [1, 2, 3, 4].find((n) => at + n <= name.length && isUtf8(name.subarray(at, at + n)));
    text += length === undefined ? `\\x${name.toString('hex', at, at + 1)}` : name.toString('utf8', at, at + length);
    at += length ?? 1;
  }
  return text;
}

interface Found {
  readonly folders: string[];
  readonly files: FileEntry[];
  readonly others: string[];
}

function sort(
  entry: Dirent,
  path: string,
  folder: Handle,
  { folders, files, others }: Found,
  unseen: (unseen: Unseen) => void,
): void {
  const { name } = entry;
  if (entry.isDirectory()) {
    if (path !== '' || name !== OWN_FOLDER) folders.push(name);
  } else if (entry.isFile()) {
    const stats = lstatSync(folder.stand() + name, { throwIfNoEntry: false });
    // What became something else a moment ago is seen next time.
    if (stats?.isFile()) files.push({ name, size: stats.size, modified: stats.mtimeMs });
    else unseen({ path: join(path, name), code: 'ENOENT' });
  } else others.push(name);
}

/** Frames that notes beside sequences promise, by the sequence's name. */
function rangesIn(
  tree: Tree,
  path: string,
  files: readonly FileEntry[],
): Record<string, readonly [number, number]> | null {
  const found = files.flatMap(({ name, size }) => {
    const range = name.endsWith(FRAMES_NOTE) && size <= MOST_NOTE ? rangeIn(tree, join(path, name)) : null;
    return range === null ? [] : [[name.slice(0, -FRAMES_NOTE.length), range] as const];
  });
  return found.length === 0 ? null : Object.fromEntries(found);
}

/** Bytes of a note that says two numbers. */
const MOST_NOTE = 100;

function rangeIn(tree: Tree, path: string): readonly [number, number] | null {
  try {
    return frameRange(readText(tree.rootOf(path), path, MOST_NOTE));
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

/** Names of what is in one folder, by one call; none where it cannot be read. Links on the way are not followed. */
export function namesIn(root: Root, path: string): FolderNames {
  try {
    const folder = root.folder(path);
    const entries = readdirSync(folder.self, { withFileTypes: true });
    folder.sure();
    return {
      folders: entries.filter((entry) => entry.isDirectory()).map((entry) => entry.name),
      files: entries.filter((entry) => entry.isFile()).map((entry) => entry.name),
    };
  } catch {
    return NOTHING;
  }
}

/** Paths of all folders below, without a look at their files. At most `most`. */
export function foldersBelow(
  root: Root,
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
