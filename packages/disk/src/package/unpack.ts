/**
 * Unpacks a package of this program's as a project: into a folder beside the one it becomes, each file held against its
 * checksum, and only then in its place.
 */
import { createHash } from 'node:crypto';
import { join, parentOf } from '@nesting/core/listing';
import type { ReadPackage, UnpackedFile } from '@nesting/core/report';
import { GrowingFile } from '../roots/growing-file';
import { makeFolders, writeWhole } from '../roots/own-files';
import { hashPastCache } from '../roots/past-cache';
import { standingAt } from '../roots/port';
import { removeTree } from '../roots/remove-tree';
import type { Root } from '../roots/root';
import { takePlace } from '../roots/take-place';
import { failed } from '../roots/where';
import { UNFINISHED } from '../start';

export interface ToUnpack {
  readonly read: ReadPackage;
  /** Gives the content of a file piece by piece; the buffer may be used again. */
  readonly pieces: (place: string, take: (bytes: Buffer) => void) => Promise<void>;
  /** The folder that the project's folder is made in, and its name there. */
  readonly target: Root;
  readonly folder: string;
  /** The project's own files: its marker and its rules. */
  readonly own: readonly { readonly path: string; readonly text: string }[];
  /** Tells this from others that are unpacked there. */
  readonly id: string;
  /** With each file, and so many bytes of it: throws where it is to stop. */
  readonly tick: (files: number, bytes: number) => Promise<void>;
}

/** @throws `EEXIST` where something has its name, `EVERIFY` where a file is not what it was */
export async function unpack(task: ToUnpack): Promise<void> {
  const { read, target, folder, own, id } = task;
  const top = `${UNFINISHED}${id}`;
  if (standingAt(target, folder) !== null) throw failed('EEXIST', folder);
  removeTree(target, top);
  try {
    makeFolders(target, top);
    let [files, bytes] = [0, 0];
    for (const file of read.files) {
      await unpackOne(task, top, file);
      files++;
      bytes += file.size;
      await task.tick(files, bytes);
    }
    for (const path of read.record.emptyFolders) makeFolders(target, join(top, path));
    for (const { path, text } of own) {
      makeFolders(target, parentOf(join(top, path)));
      writeWhole(target, join(top, path), [text]);
    }
    makeFolders(target, parentOf(folder));
    takePlace({ root: target, path: top }, { root: target, path: folder });
  } catch (error) {
    removeTree(target, top);
    throw error;
  }
}

async function unpackOne({ target, pieces }: ToUnpack, top: string, file: UnpackedFile): Promise<void> {
  const to = join(top, file.path);
  makeFolders(target, parentOf(to));
  const hash = createHash('sha256');
  const made = GrowingFile.open(target, to);
  try {
    await pieces(file.place, (bytes) => {
      hash.update(bytes);
      made.append(bytes);
    });
    made.sync();
    made.setTime(file.modified);
  } finally {
    made.close();
  }
  const written = hash.digest('hex');
  if (written !== file.sha256 || (hashPastCache(target.at(to)) ?? written) !== written)
    throw failed('EVERIFY', file.path);
}
