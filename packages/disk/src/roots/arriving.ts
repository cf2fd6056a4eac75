/**
 * A file that arrives in pieces. Until it is whole and proved it lies in the program's own folder under a number; what
 * is there is the truth, so that whoever sends it can go on after anything.
 */

import { createHash } from 'node:crypto';
import {
  closeSync,
  constants,
  fstatSync,
  fsyncSync,
  ftruncateSync,
  lstatSync,
  openSync,
  type Stats,
  unlinkSync,
  utimesSync,
  writeSync,
} from 'node:fs';
import { PIECE_BYTES, wholePieces } from '@nesting/core';
import { codeOf } from '@nesting/core/change';
import { join, parentOf } from '@nesting/core/listing';
import { OWN_FOLDER } from '@nesting/core/project';
import { makeFolders, removeEmpty } from './own-files';
import { readPastCache } from './past-cache';
import { eachChunk, withPlainFile } from './plain-file';
import type { Root } from './root';
import { takePlace } from './take-place';

export interface ArrivingFile {
  /** The folder that was made for what is sent. */
  readonly heap: string;
  /** Its number among the files that are sent. */
  readonly index: number;
  /** In the heap. */
  readonly path: string;
  /** Bytes. */
  readonly size: number;
  /** Milliseconds since 1970. */
  readonly modified: number;
}

const partsOf = (heap: string): string => join(join(heap, OWN_FOLDER), 'arriving');
const partOf = ({ heap, index }: Pick<ArrivingFile, 'heap' | 'index'>): string => join(partsOf(heap), String(index));

/** Milliseconds by which file systems round the times they keep. */
const ROUNDED = 2000;

/** Bytes of it that are there in whole pieces; `null` where it lies in its place, proved. */
export function arrivedOf(root: Root, file: ArrivingFile): number | null {
  const placed = fileAt(root, join(file.heap, file.path));
  // It has the time that was sent with it: what somebody else laid there has not.
  if (placed?.size === file.size && Math.abs(placed.mtimeMs - file.modified) <= ROUNDED) return null;
  return wholePieces(sizeAt(root, partOf(file)) ?? 0, file.size);
}

const sizeAt = (root: Root, path: string): number | null => fileAt(root, path)?.size ?? null;

function fileAt(root: Root, path: string): Stats | null {
  try {
    const stats = lstatSync(root.at(path));
    return stats.isFile() ? stats : null;
  } catch (error) {
    if (codeOf(error) === 'ENOENT' || codeOf(error) === 'ENOTDIR') return null;
    throw error;
  }
}

/**
 * Writes a piece in its place, and says whether it was the next one. What stands behind the last whole piece was left by
 * a crash: it is written over. Nothing is cut off, for somebody who sends the same beside it may have ended meanwhile.
 */
export function writePiece(root: Root, file: ArrivingFile, at: number, bytes: Uint8Array): boolean {
  const part = partOf(file);
  makeFolders(root, parentOf(part));
  const { O_RDWR, O_CREAT, O_NOFOLLOW } = constants;
  const fd = openSync(root.at(part), O_RDWR | O_CREAT | O_NOFOLLOW, 0o644);
  try {
    root.sure(part);
    if (at !== wholePieces(fstatSync(fd).size, file.size)) return false;
    for (let done = 0; done < bytes.length; ) done += writeSync(fd, bytes, done, bytes.length - done, at + done);
    return true;
  } finally {
    closeSync(fd);
  }
}

/** It lies in its place · so many bytes of it are right, and are gone on from · something else has its place. */
export type Placing =
  | { readonly state: 'placed'; readonly isPastCache: boolean }
  | { readonly state: 'differs'; readonly received: number }
  | { readonly state: 'taken' };

/** Reads it back from the disk, holds each piece against its checksum, and puts it in its place. */
export function placeArrived(root: Root, file: ArrivingFile, pieces: readonly string[]): Placing {
  if (arrivedOf(root, file) === null) return { state: 'placed', isPastCache: true };
  const part = partOf(file);
  makeFolders(root, parentOf(part));
  if (file.size === 0) emptyPart(root, part);
  const there = sizeAt(root, part) ?? 0;
  if (there > file.size) cutTo(root, part, file.size);
  if (there < file.size) return { state: 'differs', received: wholePieces(there, file.size) };
  const { wrong, isPastCache } = proved(root, part, pieces);
  if (wrong !== null) {
    cutTo(root, part, wrong * PIECE_BYTES);
    return { state: 'differs', received: wrong * PIECE_BYTES };
  }
  const to = join(file.heap, file.path);
  makeFolders(root, parentOf(to));
  utimesSync(root.at(part), file.modified / 1000, file.modified / 1000);
  try {
    takePlace({ root, path: part }, { root, path: to });
  } catch (error) {
    if (codeOf(error) === 'EEXIST') return { state: 'taken' };
    throw error;
  }
  return { state: 'placed', isPastCache };
}

function emptyPart(root: Root, part: string): void {
  const { O_WRONLY, O_CREAT, O_NOFOLLOW } = constants;
  closeSync(openSync(root.at(part), O_WRONLY | O_CREAT | O_NOFOLLOW, 0o644));
}

function cutTo(root: Root, part: string, length: number): void {
  const fd = openSync(root.at(part), constants.O_RDWR | constants.O_NOFOLLOW);
  try {
    ftruncateSync(fd, length);
  } finally {
    closeSync(fd);
  }
}

/** The first piece that is another than it was sent; `null` where all are right. */
function proved(root: Root, part: string, pieces: readonly string[]): { wrong: number | null; isPastCache: boolean } {
  const fd = openSync(root.at(part), constants.O_RDONLY | constants.O_NOFOLLOW);
  try {
    fsyncSync(fd);
  } finally {
    closeSync(fd);
  }
  const found = new PieceHashes();
  const isPastCache = readPastCache(root.at(part), (bytes) => found.take(bytes));
  const read = isPastCache ? found : new PieceHashes();
  if (!isPastCache)
    withPlainFile(root, part, (file) =>
      eachChunk(file, [0, file.size], (bytes) => {
        read.take(bytes);
        return true;
      }),
    );
  const hashes = read.end();
  const wrong = hashes.findIndex((hash, i) => hash !== pieces[i]);
  return { wrong: wrong < 0 && hashes.length === pieces.length ? null : Math.max(0, wrong), isPastCache };
}

class PieceHashes {
  private readonly done: string[] = [];
  private hash = createHash('sha256');
  private inPiece = 0;

  take(bytes: Uint8Array): void {
    for (let at = 0; at < bytes.length; ) {
      const some = bytes.subarray(at, at + Math.min(bytes.length - at, PIECE_BYTES - this.inPiece));
      this.hash.update(some);
      this.inPiece += some.length;
      at += some.length;
      if (this.inPiece === PIECE_BYTES) this.next();
    }
  }

  end(): readonly string[] {
    if (this.inPiece > 0) this.next();
    return this.done;
  }

  private next(): void {
    this.done.push(this.hash.digest('hex'));
    this.hash = createHash('sha256');
    this.inPiece = 0;
  }
}

/** What was sent of files that are not whole goes; so does the folder where nothing is in it. */
export function dropArriving(root: Root, heap: string, files: number): void {
  if (isFolder(root, partsOf(heap))) {
    for (let index = 0; index < files; index++)
      try {
        unlinkSync(root.at(partOf({ heap, index })));
      } catch (error) {
        if (codeOf(error) !== 'ENOENT') throw error;
      }
    removeEmpty(root, partsOf(heap));
    removeEmpty(root, join(heap, OWN_FOLDER));
  }
  removeEmpty(root, heap);
}

function isFolder(root: Root, path: string): boolean {
  try {
    return lstatSync(root.at(path)).isDirectory();
  } catch (error) {
    if (codeOf(error) === 'ENOENT') return false;
    throw error;
  }
}
