/** Quick checks: which folders have changed since an earlier check saw them. */

import { lstatSync } from 'node:fs';
import { elementAt } from '@nesting/core';
import { keepRows, type PartialResult } from '@nesting/core/check';
import { parentOf } from '@nesting/core/listing';
import { type Mount, placeOf, type Unseen } from '../walk';
import { NO_FOLDER, type Seen } from './disk-check';

/** What an earlier check saw, parted by what is still so. */
export interface Unchanged {
  readonly kept: PartialResult;
  /** Folders to be listed again. */
  readonly changed: string[];
  readonly unseen: readonly Unseen[];
}

/** Folders whose time is what it was, and those to be listed again; others are let in between. */
export async function unchangedSince(
  root: string,
  mounts: readonly Mount[],
  { part, unseen }: Seen,
): Promise<Unchanged> {
  const changed: string[] = [];
  const gone = new Set<string>();
  for (let i = 0; i < part.rows.length; i++) {
    const row = elementAt(part.rows, i);
    const now = lstatSync(placeOf(root, row.path, mounts), { throwIfNoEntry: false });
    if (now?.isDirectory() && now.mtimeMs === row.changed && row.settling !== true) continue;
    gone.add(row.path);
    if (now?.isDirectory()) changed.push(row.path);
    if (i % 2000 === 1999) await new Promise((resolve) => setImmediate(resolve));
  }
  const kept = keepRows(part, (row) => !gone.has(row.path));
  // A folder that could not be read may be readable by now; of a file in a folder that is kept the same is said again.
  const folders = new Set(kept.rows.map((row) => row.path));
  const unread = new Set(
    unseen
      .filter(
        (u) =>
          !NO_FOLDER.has(u.code) && lstatSync(placeOf(root, u.path, mounts), { throwIfNoEntry: false })?.isDirectory(),
      )
      .map((u) => u.path),
  );
  const still = unseen.filter(
    (u) => !unread.has(u.path) && NO_FOLDER.has(u.code) && u.code !== 'ENOENT' && folders.has(parentOf(u.path)),
  );
  // The root is always among them where nothing is known of it.
  return { kept, changed: part.rows.length === 0 ? [''] : [...changed, ...unread], unseen: still };
}

/** Files settle within this time: a folder in which something was written a moment ago is looked at again then. */
const SETTLED = 150_000;

/**
 * Whether a quick check would list anything again. A folder in which something was still settling is looked at once it
 * has.
 */
export async function hasChangedSince(
  root: string,
  mounts: readonly Mount[],
  folders: readonly { readonly path: string; readonly changed: number | undefined; readonly settling: boolean }[],
  now: number,
): Promise<boolean> {
  for (let i = 0; i < folders.length; i++) {
    const { path, changed, settling } = elementAt(folders, i);
    const stats = lstatSync(placeOf(root, path, mounts), { throwIfNoEntry: false });
    if (stats === undefined || stats.mtimeMs !== changed || (settling && now - stats.mtimeMs > SETTLED)) return true;
    if (i % 2000 === 1999) await new Promise((resolve) => setImmediate(resolve));
  }
  return false;
}
