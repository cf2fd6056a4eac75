/** Folders and zips on a disk, as `verifyPackage` looks at them. */
import { createHash } from 'node:crypto';
import { createInflateRaw } from 'node:zlib';
import { join } from '@nesting/core/listing';
import {
  type Algorithm,
  type ByteSource,
  type FoundEntry,
  type PackageFault,
  type PackedFiles,
  readZip,
} from '@nesting/core/package';
import { eachChunk, type PlainFile, readAll, readAt, readText, withPlainFile } from '../roots/plain-file';
import type { Root } from '../roots/root';
import { Tree } from '../roots/tree';
import { failed } from '../roots/where';
import { listFolder } from '../walk';

/** A folder with all that is in it. Links are nothing. */
export function filesInFolder(root: Root, tick: () => void): PackedFiles {
  const sizes = new Map<string, number>();
  const faults: PackageFault[] = [];
  const tree = Tree.of(root);
  const queue = [''];
  for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
    tick();
    const listing = listFolder(tree, path, (one) => void faults.push({ code: 'unseen', path: one.path }));
    for (const { name, size } of listing?.files ?? []) sizes.set(join(path, name), size);
    for (const name of listing?.folders ?? []) queue.push(join(path, name));
  }
  return {
    ...{ sizes, faults, isExact: null },
    text: async (path, most) => readText(root, path, most),
    hash: async (path, algorithms) =>
      withPlainFile(root, path, (file) => {
        const hashes = algorithms.map((algorithm) => createHash(algorithm));
        eachChunk(file, [0, Number.POSITIVE_INFINITY], (bytes) => {
          tick();
          for (const hash of hashes) hash.update(bytes);
          return true;
        });
        return hashes.map((hash) => hash.digest('hex'));
      }),
  };
}

export interface ZipFiles extends PackedFiles {
  /** @throws `ENOENT` */
  entryAt(path: string): FoundEntry;
}

/** @param file - stays open as long as what is given is used */
export async function filesInZip(file: Pick<PlainFile, 'fd' | 'size'>, tick: () => void): Promise<ZipFiles> {
  const { entries, faults, isExact } = await readZip(sourceOf(file));
  const byPath = new Map<string, FoundEntry>();
  const large: PackageFault[] = [];
  for (const entry of entries) {
    byPath.set(entry.path, entry);
    if (isBomb(entry)) large.push({ code: 'header-differs', path: entry.path });
  }
  const entryAt = (path: string): FoundEntry => {
    const entry = byPath.get(path);
    if (entry === undefined) throw failed('ENOENT', path);
    return entry;
  };
  return {
    sizes: new Map([...byPath].map(([path, { size }]) => [path, size])),
    faults: [...faults, ...large],
    isExact,
    entryAt,
    text: async (path, most) => {
      const entry = entryAt(path);
      if (entry.size > most) throw failed('EFBIG', path);
      const parts: Buffer[] = [];
      await eachPiece(file, entry, (bytes) => void parts.push(Buffer.from(bytes)));
      return Buffer.concat(parts).toString('utf8');
    },
    hash: async (path, algorithms: readonly Algorithm[]) => {
      const hashes = algorithms.map((algorithm) => createHash(algorithm));
      await eachPiece(file, entryAt(path), (bytes) => {
        tick();
        for (const hash of hashes) hash.update(bytes);
      });
      return hashes.map((hash) => hash.digest('hex'));
    },
  };
}

/** Deflating makes nothing smaller than its thousandth part: who says so lies. */
const isBomb = ({ isDeflated, size, packed }: FoundEntry): boolean =>
  isDeflated ? size > packed * 1100 + 1100 : size !== packed;

const sourceOf = ({ fd, size }: Pick<PlainFile, 'fd' | 'size'>): ByteSource => ({
  size,
  read: async (at, length) => readAll(fd, at, Math.max(0, Math.min(length, size - at))),
});

/**
 * The content of an entry, unpacked. The buffer may be used again.
 *
 * @throws `ECONTENT` where it is another number of bytes than its header says, or cannot be unpacked
 */
export async function eachPiece(
  file: Pick<PlainFile, 'fd'>,
  { path, dataAt, packed, size, isDeflated }: FoundEntry,
  take: (bytes: Buffer) => void,
): Promise<void> {
  let done = 0;
  const within = (bytes: Buffer) => {
    done += bytes.length;
    if (done > size) throw failed('ECONTENT', path);
    take(bytes);
  };
  if (isDeflated) await inflate(file, [dataAt, dataAt + packed], within, path);
  else
    eachChunk(file, [dataAt, dataAt + packed], (bytes) => {
      within(bytes);
      return true;
    });
  if (done !== size) throw failed('ECONTENT', path);
}

function inflate(
  file: Pick<PlainFile, 'fd'>,
  [from, to]: readonly [number, number],
  take: (bytes: Buffer) => void,
  path: string,
): Promise<void> {
  return new Promise((resolve, reject) => {
    const stream = createInflateRaw();
    stream.on('error', () => reject(failed('ECONTENT', path)));
    stream.on('end', () => resolve());
    stream.on('data', (bytes: Buffer) => {
      try {
        take(bytes);
      } catch (error) {
        stream.destroy();
        reject(error);
      }
    });
    // What is unpacked is taken before more is handed over.
    const more = (at: number): void => {
      const bytes = readAt(file.fd, at, Math.min(1 << 16, to - at));
      if (bytes.length === 0) return void stream.end();
      stream.write(bytes, () => {
        if (!stream.destroyed) more(at + bytes.length);
      });
    };
    more(from);
  });
}
