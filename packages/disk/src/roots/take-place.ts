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
import type { Root } from './root';

/** File systems that know no second name for a file, and rights that forbid one. */
const NO_LINKS: ReadonlySet<string> = new Set(['EPERM', 'ENOTSUP', 'EOPNOTSUPP', 'ENOSYS', 'EMLINK']);

/**
 * A file takes its new name beside the old one, which then goes: that fails where the name is taken, as a rename does
 * not. A folder's name is claimed by an empty folder, which a rename replaces.
 *
 * @throws `EEXIST` where something stands there, `EXDEV` where it lies on another file system
 */
export function takePlace(root: Root, from: string, to: string): void {
  const [source, target] = [root.at(from), root.at(to)];
  let isFolder = false;
  try {
    linkSync(source, target);
    root.sure(to);
    leave(source, target);
  } catch (error) {
    if (!NO_LINKS.has(codeOf(error))) throw error;
    isFolder = takeClaimed(root, from, to);
  }
  root.sure(from);
  if (isFolder) root.forget();
}

/** A folder whose name differs in capitals alone, on a system for which both are one: nothing can stand in the way. */
export function renameSame(root: Root, from: string, to: string): void {
  const [source, target] = [root.at(from), root.at(to)];
  renameSync(source, target);
  root.forget();
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
function takeClaimed(root: Root, from: string, to: string): boolean {
  const [source, target] = [root.at(from), root.at(to)];
  const isFolder = lstatSync(source).isDirectory();
  if (isFolder) mkdirSync(target);
  else claim(target);
  try {
    root.sure(to);
    renameSync(source, target);
  } catch (error) {
    if (isFolder) rmdirSync(target);
    else unlinkSync(target);
    throw error;
  }
  return isFolder;
}
