/**
 * Reads files that people own. A name may lead to anything: a pipe that nobody writes to, a device, a link, a file of
 * terabytes. So a file is opened without waiting and without following, looked at by its handle, and read to a bound.
 */
import { createHash } from 'node:crypto';
import { closeSync, constants, fstatSync, lstatSync, openSync, readSync } from 'node:fs';
import { codeOf } from '@nesting/core/change';
import type { Root } from './root';
import { failed } from './where';

const READ = constants.O_RDONLY | constants.O_NOFOLLOW | constants.O_NONBLOCK;

export interface PlainFile {
  readonly fd: number;
  readonly size: number;
  readonly modified: number;
  readonly inode: number;
  readonly mode: number;
  /** Less is stored than it is long. */
  readonly isSparse: boolean;
}

/** @throws `ELOOP` for a link, `ENOTFILE` for anything else that is no plain file */
export function withPlainFile<T>(root: Root, path: string, work: (file: PlainFile) => T): T {
  const fd = opened(root.at(path), path);
  try {
    root.sure(path);
    const stats = fstatSync(fd);
    if (!stats.isFile()) throw failed('ENOTFILE', path);
    const { size, mtimeMs: modified, ino: inode, mode } = stats;
    return work({ fd, size, modified, inode, mode, isSparse: stats.blocks * 512 < size });
  } finally {
    closeSync(fd);
  }
}

/** The same, for work that takes its time: the file stays open for so long. */
export async function withPlainFileAsync<T>(
  root: Root,
  path: string,
  work: (file: Pick<PlainFile, 'fd' | 'size'>) => Promise<T>,
): Promise<T> {
  const fd = opened(root.at(path), path);
  try {
    root.sure(path);
    const stats = fstatSync(fd);
    if (!stats.isFile()) throw failed('ENOTFILE', path);
    return await work({ fd, size: stats.size });
  } finally {
    closeSync(fd);
  }
}

/** Whether it is as it was when it was opened: nobody wrote to it while it was read. */
export function isStill({ fd, size, modified }: PlainFile): boolean {
  const stats = fstatSync(fd);
  return stats.size === size && stats.mtimeMs === modified;
}

/** What tells a file from another that took its name. */
export const inodeAt = (root: Root, path: string): number => lstatSync(root.at(path)).ino;

/** As many bytes as there are from one place on. */
export function readAt(fd: number, at: number, length: number): Uint8Array {
  const bytes = Buffer.alloc(Math.min(length, MOST_AT_ONCE));
  return bytes.subarray(0, readSync(fd, bytes, 0, bytes.length, at));
}

const MOST_AT_ONCE = 16 * 2 ** 20;

/** All bytes of a stretch, fewer only where the file ends. */
export function readAll(fd: number, at: number, length: number): Uint8Array {
  const parts: Uint8Array[] = [];
  for (let done = 0; done < length; ) {
    const part = readAt(fd, at + done, length - done);
    if (part.length === 0) break;
    parts.push(part);
    done += part.length;
  }
  return parts.length === 1 && parts[0] !== undefined ? parts[0] : Buffer.concat(parts);
}

function opened(call: string, path: string): number {
  try {
    return openSync(call, READ);
  } catch (error) {
    // A socket, or a device that nothing stands behind.
    throw codeOf(error) === 'ENXIO' || codeOf(error) === 'ENODEV' ? failed('ENOTFILE', path) : error;
  }
}

/** @throws `EFBIG` where the file has more than `most` bytes */
export function readPlain(root: Root, path: string, most: number): Buffer {
  return withPlainFile(root, path, ({ fd, size }) => {
    if (size > most) throw failed('EFBIG', path);
    // It may grow while it is read: one byte more than allowed tells.
    const bytes = Buffer.allocUnsafe(Math.min(most, size) + 1);
    let length = 0;
    for (let read = -1; read !== 0 && length < bytes.length; length += read)
      read = readSync(fd, bytes, length, bytes.length - length, length);
    if (length > most) throw failed('EFBIG', path);
    return bytes.subarray(0, Math.min(length, size));
  });
}

export const readText = (root: Root, path: string, most: number): string =>
  readPlain(root, path, most).toString('utf8');

const chunk = Buffer.allocUnsafe(1 << 20);

/** Bytes from one place to another, a megabyte at a time, until `take` says no. The buffer is used again. */
export function eachChunk(
  { fd }: Pick<PlainFile, 'fd'>,
  [from, to]: readonly [number, number],
  take: (bytes: Buffer) => boolean,
): void {
  for (let at = from; at < to; ) {
    const read = readSync(fd, chunk, 0, Math.min(chunk.length, to - at), at);
    if (read === 0 || !take(chunk.subarray(0, read))) return;
    at += read;
  }
}

export function hashOf(file: Pick<PlainFile, 'fd'>, tick?: () => void): string {
  const hash = createHash('sha256');
  eachChunk(file, [0, Number.POSITIVE_INFINITY], (bytes) => {
    tick?.();
    hash.update(bytes);
    return true;
  });
  return hash.digest('hex');
}
