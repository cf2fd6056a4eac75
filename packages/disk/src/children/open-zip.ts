/**
 * The task that unpacks somebody's zip into a folder beside it. Its list of entries is read first: what could deceive is
 * refused before a byte is written. All of it is written into a folder of the program's own, each file held against its
 * checksum, and only then has its place.
 */
import { crc32 } from 'node:zlib';
import { codeOf } from '@nesting/core/change';
import { join, nameOf, parentOf } from '@nesting/core/listing';
import { type FoundEntry, looseZipFault, type PackageFault, type Progress } from '@nesting/core/package';
import { OWN_FOLDER } from '@nesting/core/project';
import { eachPiece, filesInZip } from '../package/packed-files';
import { GrowingFile } from '../roots/growing-file';
import { inRoot } from '../roots/open';
import { makeFolders } from '../roots/own-files';
import { type PlainFile, withPlainFileAsync } from '../roots/plain-file';
import { removeTree } from '../roots/remove-tree';
import type { Root } from '../roots/root';
import { takePlace } from '../roots/take-place';
import { failed } from '../roots/where';
import { UNFINISHED } from '../start';
import type { Context } from './context';
import type { OfWhere } from './looks';

export interface OpenZipTask extends OfWhere {
  /** From there. */
  readonly path: string;
  /** The same for the same zip: what an earlier try left goes first. */
  readonly id: string;
  readonly mostFiles: number;
  /** Bytes that are free. */
  readonly mostBytes: number;
}

export type ZipOpened =
  | { readonly state: 'opened'; readonly folder: string; readonly files: number; readonly bytes: number }
  | { readonly state: 'faulty'; readonly fault: PackageFault }
  | { readonly state: 'too-many'; readonly files: number }
  | { readonly state: 'no-room'; readonly bytes: number };

/** @throws Unreachable, `ENOENT`, `ECONTENT` where a file is not what the zip says, `CANCELLED` */
export const openZip = (task: OpenZipTask, context: Context<Progress>): Promise<ZipOpened> =>
  inRoot(task.where, (root) =>
    withPlainFileAsync(root, task.path, async (file) => {
      const stop = () => {
        if (context.cancel.aborted) throw failed('CANCELLED', '');
      };
      const { sizes, faults, entryAt } = await filesInZip(file, stop);
      const fault = faults[0] ?? looseZipFault(new Set(sizes.keys()), OWN_FOLDER);
      if (fault !== null) return { state: 'faulty', fault };
      const bytes = [...sizes.values()].reduce((sum, size) => sum + size, 0);
      if (sizes.size > task.mostFiles) return { state: 'too-many', files: sizes.size };
      if (bytes > task.mostBytes) return { state: 'no-room', bytes };
      const entries = [...sizes.keys()].map(entryAt);
      const folder = await written({ root, file, entries, stop, ...task }, (files, done) =>
        context.tell({ files, bytes: done, allFiles: sizes.size, allBytes: bytes }),
      );
      return { state: 'opened', folder, files: sizes.size, bytes };
    }),
  );

interface Writing extends OpenZipTask {
  readonly root: Root;
  readonly file: Pick<PlainFile, 'fd'>;
  readonly entries: readonly FoundEntry[];
  readonly stop: () => void;
}

async function written(
  { root, file, entries, stop, path, id }: Writing,
  tell: (files: number, bytes: number) => Promise<void>,
): Promise<string> {
  const top = `${UNFINISHED}${id}`;
  removeTree(root, top);
  try {
    makeFolders(root, top);
    let bytes = 0;
    for (const [at, entry] of entries.entries()) {
      stop();
      await writeOne(root, join(top, entry.path), file, entry);
      bytes += entry.size;
      void tell(at + 1, bytes);
    }
    return placed(root, top, path);
  } catch (error) {
    removeTree(root, top);
    throw error;
  }
}

async function writeOne(root: Root, to: string, file: Pick<PlainFile, 'fd'>, entry: FoundEntry): Promise<void> {
  makeFolders(root, parentOf(to));
  const made = GrowingFile.open(root, to);
  let crc = 0;
  try {
    await eachPiece(file, entry, (bytes) => {
      crc = crc32(bytes, crc);
      made.append(bytes);
    });
    made.sync();
    made.setTime(entry.modified);
  } finally {
    made.close();
  }
  if (crc !== entry.crc) throw failed('ECONTENT', entry.path);
}

/** Under the zip's name, counted on where something is called so. */
function placed(root: Root, top: string, path: string): string {
  const name = nameOf(path).replace(/(?<=.)\.zip$/i, '');
  for (let n = 1; ; n++) {
    const folder = join(parentOf(path), n === 1 ? name : `${name}-${n}`);
    try {
      takePlace({ root, path: top }, { root, path: folder });
      return folder;
    } catch (error) {
      if (codeOf(error) !== 'EEXIST') throw error;
    }
  }
}
