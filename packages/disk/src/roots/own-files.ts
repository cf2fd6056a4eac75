/** Files of the program's own, in its own folders: journals and what lies beside them. */
import {
  closeSync,
  constants,
  fsyncSync,
  lstatSync,
  mkdirSync,
  openSync,
  readdirSync,
  renameSync,
  rmdirSync,
  unlinkSync,
  writeSync,
} from 'node:fs';
import { codeOf } from '@nesting/core/change';
import { parentOf } from '@nesting/core/listing';
import type { Root } from './root';

/** Makes a folder and those that lead to it, where they are not there. */
export function makeFolders(root: Root, path: string): void {
  if (path === '') return;
  makeFolders(root, parentOf(path));
  try {
    mkdirSync(root.at(path));
  } catch (error) {
    if (codeOf(error) !== 'EEXIST') throw error;
  }
  // A link or a file of that name is none.
  root.folder(path).sure();
}

/** Whether an empty folder is gone: one that holds anything stays. */
export function removeEmpty(root: Root, path: string): boolean {
  try {
    rmdirSync(root.at(path));
    root.forget();
    return true;
  } catch (error) {
    return codeOf(error) === 'ENOENT';
  }
}

/** Characters that are handed to the system at once. */
const WRITTEN_AT_ONCE = 1 << 16;

/** There whole or not at all: a crash leaves only the part. */
export function writeWhole(root: Root, path: string, lines: Iterable<string>): void {
  const part = `${path}.part`;
  const { O_WRONLY, O_CREAT, O_TRUNC, O_NOFOLLOW } = constants;
  const fd = openSync(root.at(part), O_WRONLY | O_CREAT | O_TRUNC | O_NOFOLLOW);
  try {
    root.sure(part);
    let text = '';
    for (const line of lines) {
      text += line;
      if (text.length < WRITTEN_AT_ONCE) continue;
      writeAll(fd, text);
      text = '';
    }
    writeAll(fd, text);
    fsyncSync(fd);
  } finally {
    closeSync(fd);
  }
  renameSync(root.at(part), root.at(path));
  syncFolder(root, parentOf(path));
}

function writeAll(fd: number, text: string): void {
  const bytes = Buffer.from(text);
  for (let done = 0; done < bytes.length; ) done += writeSync(fd, bytes, done);
}

/** The name outlasts a loss of power, where the system lets folders be synced. */
function syncFolder(root: Root, path: string): void {
  try {
    const fd = openSync(root.folder(path).self, 'r');
    try {
      fsyncSync(fd);
    } finally {
      closeSync(fd);
    }
  } catch (error) {
    if (!['EISDIR', 'EPERM', 'EACCES', 'EINVAL'].includes(codeOf(error))) throw error;
  }
}

export function append(root: Root, path: string, text: string, isSynced: boolean): void {
  const { O_WRONLY, O_CREAT, O_APPEND, O_NOFOLLOW } = constants;
  const fd = openSync(root.at(path), O_WRONLY | O_CREAT | O_APPEND | O_NOFOLLOW);
  try {
    root.sure(path);
    writeAll(fd, text);
    if (isSynced) fsyncSync(fd);
  } finally {
    closeSync(fd);
  }
}

/** @throws `EEXIST` where it is there */
export function writeExclusive(root: Root, path: string, text: string): void {
  const fd = openSync(root.at(path), 'wx');
  try {
    root.sure(path);
    writeAll(fd, text);
  } finally {
    closeSync(fd);
  }
}

export const remove = (root: Root, path: string): void => unlinkSync(root.at(path));

/** When it was written, milliseconds since 1970; `null` where it is not there. */
export function writtenAt(root: Root, path: string): number | null {
  try {
    return lstatSync(root.at(path), { throwIfNoEntry: false })?.mtimeMs ?? null;
  } catch (error) {
    if (codeOf(error) === 'ENOENT') return null;
    throw error;
  }
}

/** Names of the folders in one; none where it is not there. */
export function folderNames(root: Root, path: string): string[] {
  try {
    return readdirSync(root.folder(path).self, { withFileTypes: true })
      .filter((entry) => entry.isDirectory())
      .map((entry) => entry.name);
  } catch (error) {
    if (codeOf(error) === 'ENOENT') return [];
    throw error;
  }
}
