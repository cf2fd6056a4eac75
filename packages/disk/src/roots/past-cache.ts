/**
 * Reads a file from the disk itself: what was written a moment ago is still in memory, and read from there it would only
 * prove that memory works.
 *
 * The system wants the buffer to begin at a certain multiple in memory, which nobody tells a program: so one beginning
 * after another is tried, once.
 */
import { createHash } from 'node:crypto';
import { closeSync, constants, openSync, readSync } from 'node:fs';
import { codeOf } from '@nesting/core/change';

const CHUNK = 1 << 20;
const PAGE = 4096;
/** Memory is given out in multiples of this. */
const GRAIN = 16;

const memory = Buffer.allocUnsafeSlow(CHUNK + PAGE);
let begin: number | null = null;

/** Systems and file systems that know no such reading. */
const UNKNOWN: ReadonlySet<string> = new Set(['EINVAL', 'EOPNOTSUPP', 'ENOTSUP']);

/** `null` where the file cannot be read so. */
export function hashPastCache(at: string, tick?: () => void): string | null {
  const hash = createHash('sha256');
  const isRead = readPastCache(at, (bytes) => {
    tick?.();
    hash.update(bytes);
  });
  return isRead ? hash.digest('hex') : null;
}

/** Whether a file can be read so: its beginning is. */
export const canReadPastCache = (at: string): boolean => readPastCache(at, () => false);

/**
 * All of a file, one piece behind another, until somebody has enough (`false`); the buffer is used again. Whether the
 * file can be read so.
 */
export function readPastCache(at: string, take: (bytes: Buffer) => unknown): boolean {
  const { O_DIRECT, O_RDONLY, O_NOFOLLOW } = constants;
  if (O_DIRECT === undefined) return false;
  let fd: number;
  try {
    fd = openSync(at, O_RDONLY | O_NOFOLLOW | O_DIRECT);
  } catch (error) {
    if (UNKNOWN.has(codeOf(error))) return false;
    throw error;
  }
  try {
    begin ??= beginFor(fd);
    if (begin === null) return false;
    readFrom(fd, begin, take);
    return true;
  } catch (error) {
    if (UNKNOWN.has(codeOf(error))) return false;
    throw error;
  } finally {
    closeSync(fd);
  }
}

function readFrom(fd: number, from: number, take: (bytes: Buffer) => unknown): void {
  for (let at = 0; ; ) {
    const read = readSync(fd, memory, from, CHUNK, at);
    const isEnough = take(memory.subarray(from, from + read)) === false;
    at += read;
    // Only the end of a file is shorter.
    if (isEnough || read < CHUNK) return;
  }
}

function beginFor(fd: number): number | null {
  for (let from = 0; from < PAGE; from += GRAIN) {
    try {
      readSync(fd, memory, from, CHUNK, 0);
      return from;
    } catch (error) {
      if (!UNKNOWN.has(codeOf(error))) throw error;
    }
  }
  return null;
}
