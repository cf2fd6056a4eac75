/** A zip's directory and single files of it, read where they lie: a large zip is never in memory whole. */
import { BlobReader, configure, type Entry, Uint8ArrayWriter, ZipReader } from '@zip.js/zip.js';

// Workers made of text are not allowed on our pages, and names need none.
configure({ useWebWorkers: false });

export interface ZipEntry {
  readonly name: string;
  readonly bytes: number;
}

const entriesOf = async (zip: Blob): Promise<Entry[]> => {
  const reader = new ZipReader(new BlobReader(zip));
  try {
    return await reader.getEntries();
  } finally {
    await reader.close();
  }
};

/** `null` where it is no zip. */
export async function entriesOfZip(zip: Blob): Promise<readonly ZipEntry[] | null> {
  try {
    return (await entriesOf(zip)).map((entry) => ({ name: entry.filename, bytes: entry.uncompressedSize }));
  } catch {
    return null;
  }
}

/** One file's content; `null` where it is not there or larger than `most`, whatever the zip says of it. */
export async function fileOfZip(zip: Blob, name: string, most: number): Promise<Uint8Array | null> {
  const entry = (await entriesOf(zip)).find((e) => e.filename === name);
  if (entry === undefined || entry.directory || entry.uncompressedSize > most) return null;
  const bytes = await entry.getData(new Uint8ArrayWriter());
  return bytes.length > most ? null : bytes;
}
