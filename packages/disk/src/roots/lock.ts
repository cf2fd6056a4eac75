/**
 * Who is at a batch, in a file that each process and machine sees, with a database or without: the server, and the
 * command line beside it.
 *
 * 1. The file is made, or is there already: one batch at a time.
 * 2. Whoever is at the batch renews the file's time as long as the work goes on, and stops where that comes late.
 * 3. A file that was not renewed for so long is taken over: another one takes its name. Who had it sees that it is
 *    another, and stops.
 */
import {
  closeSync,
  constants,
  fstatSync,
  futimesSync,
  lstatSync,
  openSync,
  renameSync,
  unlinkSync,
  writeSync,
} from 'node:fs';
import { codeOf } from '@nesting/core/change';
import { writeExclusive } from './own-files';
import type { Root } from './root';
import { failed } from './where';

/** Milliseconds after which one that was not renewed is nobody's. */
const LOCK_MS = 15_000;

/** Renewed this often within that, and given up when so much of it has gone by without. */
const RENEWALS = 8;
const GIVEN_UP = 0.75;

/** The code of somebody who may have lost it. */
export const LOCK_LOST = 'LOCK-LOST';

/** While somebody takes a lock over. */
const NEXT = '.next';

export class Lock {
  private renewed = performance.now();

  private constructor(
    private readonly root: Root,
    private readonly path: string,
    private readonly batch: string,
    /** Which file it is: one that took its name is another. */
    private readonly inode: number,
  ) {}

  /** @throws `EEXIST` where a batch is under way, or waits to be settled */
  static take(root: Root, path: string, batch: string): Lock {
    writeExclusive(root, path, batch);
    return new Lock(root, path, batch, lstatSync(root.at(path)).ino);
  }

  /** A lock that nobody renewed for so many milliseconds; `null` where somebody did. */
  static takeOver(root: Root, path: string, batch: string, ms = LOCK_MS): Lock | null {
    const next = `${path}${NEXT}`;
    const fd = opened(root, next, ms);
    if (fd === null) return null;
    try {
      // Both times are the disk's own: this machine's clock may be another.
      const { mtimeMs: now, ino } = fstatSync(fd);
      const there = lstatSync(root.at(path), { throwIfNoEntry: false });
      // One that is gone was settled a moment ago.
      if (there === undefined || now - there.mtimeMs < ms) {
        unlinkSync(root.at(next));
        return null;
      }
      writeSync(fd, batch);
      renameSync(root.at(next), root.at(path));
      if (lstatSync(root.at(path)).ino !== ino) return null;
      return new Lock(root, path, batch, ino);
    } finally {
      closeSync(fd);
    }
  }

  /** @throws `LOCK-LOST` where somebody may have taken it over */
  renew(): void {
    const now = performance.now();
    const since = now - this.renewed;
    if (since < LOCK_MS / RENEWALS) return;
    if (since > LOCK_MS * GIVEN_UP) throw failed(LOCK_LOST, this.path);
    this.touch('now');
    this.renewed = now;
  }

  /** Nobody is at it any more, though it is not settled. Where that cannot be said, its time says so soon. */
  rest(): void {
    try {
      this.touch('long ago');
    } catch {
      // The disk is away, or may only be read.
    }
  }

  private touch(when: 'now' | 'long ago'): void {
    const fd = openSync(this.root.at(this.path), constants.O_RDWR | constants.O_NOFOLLOW);
    try {
      if (fstatSync(fd).ino !== this.inode) throw failed(LOCK_LOST, this.path);
      // The same letters once more: the time they get is the disk's.
      if (when === 'now') writeSync(fd, this.batch, 0);
      else futimesSync(fd, 1, 1);
    } finally {
      closeSync(fd);
    }
  }
}

/** One at a time takes a lock over; `null` where another one does. */
function opened(root: Root, path: string, ms: number): number | null {
  const flags = constants.O_RDWR | constants.O_CREAT | constants.O_EXCL | constants.O_NOFOLLOW;
  for (const isLast of [false, true]) {
    try {
      return openSync(root.at(path), flags, 0o644);
    } catch (error) {
      if (codeOf(error) !== 'EEXIST') throw error;
    }
    // It stands there for a moment; for longer it was left by one that was killed at it.
    const since = lstatSync(root.at(path), { throwIfNoEntry: false })?.mtimeMs;
    if (isLast || (since !== undefined && Date.now() - since < ms)) break;
    if (since !== undefined) unlinkSync(root.at(path));
  }
  return null;
}
