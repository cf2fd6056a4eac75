/**
 * A zip of this computer as a heap of loose files. Its list is read first: what could deceive refuses it whole. Each file
 * is unpacked when it is asked for, no further than its own size, and held against its checksum.
 */
import { Recent } from '@nesting/core';
import { nameOf } from '@nesting/core/listing';
import { looseZipFault, readZip } from '@nesting/core/package';
import { OWN_FOLDER } from '@nesting/core/project';
import { packageFaultWords } from '@nesting/core/words';
import { BlobReader, configure, type Entry, ZipReader } from '@zip.js/zip.js';

// Workers made of text are not allowed on our pages; this is in one already.
configure({ useWebWorkers: false });

export interface ZipHeap {
  readonly paths: readonly string[];
  readonly fileOf: (path: string) => Promise<File | null>;
}

/** Bytes of a file that is unpacked: the browser holds it whole. */
const MOST_BYTES = 2 ** 30;
/** Unpacked files that are kept: each is looked at more than once in a row. */
const KEPT = 4;

/** @throws with words that say why it is refused */
export async function zipHeap(zip: File): Promise<ZipHeap> {
  const { entries, faults } = await readZip({
    size: zip.size,
    read: async (at, length) => new Uint8Array(await zip.slice(at, at + length).arrayBuffer()),
  });
  const paths = new Set(entries.map(({ path }) => path));
  const fault = faults[0] ?? looseZipFault(paths, OWN_FOLDER);
  if (fault !== null) throw new Error(packageFaultWords(fault));
  const byPath = new Map(entries.map((entry) => [entry.path, entry]));
  const reader = new ZipReader(new BlobReader(zip));
  // Old names are read in more than one way: an entry is known by where it lies.
  const byPlace = new Map((await reader.getEntries()).map((entry) => [entry.offset, entry]));
  const kept = new Recent<Promise<File | null>>(KEPT);
  const fileOf = (path: string): Promise<File | null> => {
    const known = kept.get(path);
    if (known !== undefined) return known;
    const found = byPath.get(path);
    const unpacking = unpacked(byPlace.get(found?.at ?? -1), found?.modified ?? 0).catch(() => null);
    kept.set(path, unpacking);
    return unpacking;
  };
  return { paths: [...paths], fileOf };
}

/** `null` where it is not what the zip says of it. */
async function unpacked(entry: Entry | undefined, lastModified: number): Promise<File | null> {
  if (entry === undefined || entry.directory || entry.uncompressedSize > MOST_BYTES) return null;
  const { uncompressedSize: size, filename } = entry;
  const parts: Uint8Array<ArrayBuffer>[] = [];
  let bytes = 0;
  const into = new WritableStream<Uint8Array>({
    write(part) {
      bytes += part.length;
      if (bytes > size) throw new Error('more than its header says');
      parts.push(Uint8Array.from(part));
    },
  });
  await entry.getData(into, { checkSignature: true });
  return bytes === size ? new File(parts, nameOf(filename), { lastModified }) : null;
}
