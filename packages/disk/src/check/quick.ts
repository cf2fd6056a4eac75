/** Quick checks: which folders have changed since an earlier check saw them. */

import { lstatSync, type Stats } from 'node:fs';
import { elementAt } from '@nesting/core';
import { keepRows, type PartialResult } from '@nesting/core/check';
import { parentOf } from '@nesting/core/listing';
import type { Tree } from '../roots/tree';
import type { Unseen } from '../walk';
import { NO_FOLDER, type Seen } from './disk-check';

/** What an earlier check saw, parted by what is still so. */
export interface Unchanged {
  readonly kept: PartialResult;
  /** Folders to be listed again. */
  readonly changed: string[];
  readonly unseen: readonly Unseen[];
}

/** Folders whose time is what it was, and those to be listed again; others are let in between. */
export async function unchangedSince(tree: Tree, { part, unseen }: Seen): Promise<Unchanged> {
  const changed: string[] = [];
  const gone = new Set<string>();
  for (let i = 0; i < part.rows.length; i++) {
    const row = elementAt(part.rows, i);
    const now = folderStats(tree, row.path);
    if (now?.isDirectory() && now.mtimeMs === row.changed && row.settling !== true) continue;
    gone.add(row.path);
    if (now?.isDirectory()) changed.push(row.path);
    if (i % 2000 === 1999) await new Promise((resolve) => setImmediate(resolve));
  }
  const kept = keepRows(part, (row) => !gone.has(row.path));
  // A folder that could not be read may be readable by now; of a file in a folder that is kept the same is said again.
  const folders = new Set(kept.rows.map((row) => row.path));
  const unread = new Set(
    unseen.filter((u) => !NO_FOLDER.has(u.code) && folderStats(tree, u.path)?.isDirectory()).map((u) => u.path),
  );
  const still = unseen.filter(
    (u) => !unread.has(u.path) && NO_FOLDER.has(u.code) && u.code !== 'ENOENT' && folders.has(parentOf(u.path)),
  );
  // The root is always among them where nothing is known of it.
  return { kept, changed: part.rows.length === 0 ? [''] : [...changed, ...unread], unseen: still };
}

/** Files settle within this time: a folder in which something was written a moment ago is looked at again then. */
const SETTLED = 150_000;

/** What a check saw of its folders, as little as tells whether they have changed: many at once go to another process. */
export interface SeenFolders {
  /** Paths, parted by NUL. */
  readonly paths: string;
  /** Milliseconds since 1970; NaN where it is not known. */
  readonly changed: Float64Array;
  /** 1 where something in it was still settling. */
  readonly settling: Uint8Array;
}

export const seenFolders = ({ part: { rows } }: Seen): SeenFolders => ({
  paths: rows.map((row) => row.path).join('\0'),
  changed: Float64Array.from(rows, (row) => row.changed ?? Number.NaN),
  settling: Uint8Array.from(rows, (row) => (row.settling === true ? 1 : 0)),
});

/**
 * Whether a quick check would list anything again. A folder in which something was still settling is looked at once it
 * has.
 */
export function hasChangedSince(tree: Tree, { paths, changed, settling }: SeenFolders, now: number): boolean {
  return paths.split('\0').some((path, i) => {
    const stats = folderStats(tree, path);
    return stats === null || stats.mtimeMs !== changed[i] || (settling[i] === 1 && now - stats.mtimeMs > SETTLED);
  });
}

/** `null` where nothing is there, or a link is on the way. */
function folderStats(tree: Tree, path: string): Stats | null {
  try {
    const root = tree.rootOf(path);
    return lstatSync(path === '' ? root.folder('').self : root.at(path), { throwIfNoEntry: false }) ?? null;
  } catch {
    return null;
  }
}
