/** Gives an entry another name on its own file system, and never that of something that stands there. */
import {
  closeSync,
  futimesSync,
  linkSync,
  lstatSync,
  mkdirSync,
  openSync,
  renameSync,
  rmdirSync,
  unlinkSync,
} from 'node:fs';
import { CLAIM_TIME, codeOf } from '@nesting/core/change';
import type { FileAt } from './copy-file';

/** File systems that know no second name for a file, and rights that forbid one. */
const NO_LINKS: ReadonlySet<string> = new Set(['EPERM', 'ENOTSUP', 'EOPNOTSUPP', 'ENOSYS', 'EMLINK']);

/**
 * A file takes its new name beside the old one, which then goes: that fails where the name is taken, as a rename does
 * not. A folder's name is claimed by an empty folder, which a rename replaces.
 *
 * @throws `EEXIST` where something stands there, `EXDEV` where it lies on another file system
 */
export function takePlace(from: FileAt, to: FileAt): void {
  const [source, target] = [from.root.at(from.path), to.root.at(to.path)];
  let isFolder = false;
  try {
    linkSync(source, target);
    to.root.sure(to.path);
    leave(source, target);
  } catch (error) {
    if (!NO_LINKS.has(codeOf(error))) throw error;
    isFolder = takeClaimed(from, to);
  }
  from.root.sure(from.path);
  if (!isFolder) return;
  from.root.forget();
  to.root.forget();
}

/** Where the old name cannot go, the new one does. */
function leave(source: string, target: string): void {
  try {
    unlinkSync(source);
  } catch (error) {
    unlinkSync(target);
    throw error;
  }
}

/** An empty file that says by its time what it is for. */
function claim(at: string): void {
  const fd = openSync(at, 'wx');
  try {
    futimesSync(fd, CLAIM_TIME / 1000, CLAIM_TIME / 1000);
  } finally {
    closeSync(fd);
  }
}

/** Whether what was moved is a folder. */
function takeClaimed(from: FileAt, to: FileAt): boolean {
  const [source, target] = [from.root.at(from.path), to.root.at(to.path)];
  const stats = lstatSync(source);
  const isFolder = stats.isDirectory();
  const there = lstatSync(target, { throwIfNoEntry: false });
  // A name that differs in capitals alone, on a system for which both are one: nothing can stand in the way.
  if (isFolder && there?.ino === stats.ino && there.dev === stats.dev) {
    renameSync(source, target);
    return true;
  }
  if (isFolder) mkdirSync(target);
  else claim(target);
  try {
    to.root.sure(to.path);
    renameSync(source, target);
  } catch (error) {
    if (isFolder) rmdirSync(target);
    else unlinkSync(target);
    throw error;
  }
  return isFolder;
}
