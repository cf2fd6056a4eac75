/** Proves packages that lie on this computer, away from the page. Nothing leaves the browser. */
import { nameOf } from '@nesting/core/listing';
import {
  type Algorithm,
  type FoundEntry,
  type PackedFiles,
  type Progress,
  readSums,
  readZip,
  type Verdict,
  verifyPackage,
} from '@nesting/core/package';
import { md5, sha1 } from '@noble/hashes/legacy.js';
import { sha256, sha512 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { expose } from 'comlink';

/** A file, and where it lies from the folder that was chosen. */
export interface PlacedFile {
  readonly path: string;
  readonly file: File;
}

export interface VerdictHere extends Verdict {
  /** Whether the checksum that was chosen beside it is its own; `null` where none was. */
  readonly isOuterRight: boolean | null;
}

const HASHES = { sha256, sha512, sha1, md5 } as const satisfies Readonly<Record<Algorithm, object>>;

/** Bytes that are read at once. */
const AT_ONCE = 1 << 20;

let isStopped = false;

function stopIfAsked(): void {
  if (isStopped) throw Object.assign(new Error('stopped'), { code: 'STOPPED' });
}

/** Names that the browser itself hashes by, several times as fast; it wants all bytes at once. */
const BUILT_IN: Readonly<Partial<Record<Algorithm, string>>> = { sha256: 'SHA-256', sha512: 'SHA-512', sha1: 'SHA-1' };
const MOST_AT_ONCE = 64 * 2 ** 20;

async function hashOf(
  pieces: AsyncIterable<Uint8Array>,
  size: number,
  algorithms: readonly Algorithm[],
): Promise<readonly string[]> {
  const names = algorithms.flatMap((algorithm) => BUILT_IN[algorithm] ?? []);
  // Only pages that are safe, or of this computer, have it.
  const { subtle } = crypto as { readonly subtle?: SubtleCrypto };
  if (subtle === undefined || size > MOST_AT_ONCE || names.length < algorithms.length)
    return hashStreamed(pieces, algorithms);
  const whole = new Uint8Array(size);
  let at = 0;
  for await (const piece of pieces) {
    stopIfAsked();
    whole.set(piece, at);
    at += piece.length;
  }
  return Promise.all(names.map(async (name) => bytesToHex(new Uint8Array(await subtle.digest(name, whole)))));
}

async function hashStreamed(
  pieces: AsyncIterable<Uint8Array>,
  algorithms: readonly Algorithm[],
): Promise<readonly string[]> {
  const hashes = algorithms.map((algorithm) => HASHES[algorithm].create());
  for await (const piece of pieces) {
    stopIfAsked();
    for (const hash of hashes) hash.update(piece);
  }
  return hashes.map((hash) => bytesToHex(hash.digest()));
}

async function* piecesOf(blob: Blob): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < blob.size; at += AT_ONCE)
    yield new Uint8Array(await blob.slice(at, at + AT_ONCE).arrayBuffer());
}

async function* streamed(stream: ReadableStream<Uint8Array>, size: number): AsyncGenerator<Uint8Array> {
  const reader = stream.getReader();
  let done = 0;
  try {
    for (let next = await reader.read(); !next.done; next = await reader.read()) {
      done += next.value.length;
      if (done > size) throw new Error('more than its header says');
      yield next.value;
    }
    if (done !== size) throw new Error('less than its header says');
  } finally {
    await reader.cancel().catch(() => undefined);
  }
}

const filesHere = (placed: readonly PlacedFile[]): PackedFiles => {
  const byPath = new Map(placed.map(({ path, file }) => [path, file]));
  const at = (path: string): File => {
    const file = byPath.get(path);
    if (file === undefined) throw new Error(`${path} is not there`);
    return file;
  };
  return {
    sizes: new Map(placed.map(({ path, file }) => [path, file.size])),
    faults: [],
    isExact: null,
    text: (path) => at(path).text(),
    hash: (path, algorithms) => hashOf(piecesOf(at(path)), at(path).size, algorithms),
  };
};

async function zipHere(zip: File): Promise<PackedFiles> {
  const { entries, faults, isExact } = await readZip({
    size: zip.size,
    read: async (at, length) => new Uint8Array(await zip.slice(at, at + length).arrayBuffer()),
  });
  const byPath = new Map(entries.map((entry) => [entry.path, entry]));
  const contentOf = (path: string): AsyncIterable<Uint8Array> => {
    const entry = byPath.get(path);
    if (entry === undefined) throw new Error(`${path} is not there`);
    return unpacked(zip, entry);
  };
  return {
    sizes: new Map(entries.map(({ path, size }) => [path, size])),
    faults,
    isExact,
    text: async (path) => {
      const parts: Uint8Array<ArrayBuffer>[] = [];
      for await (const piece of contentOf(path)) parts.push(Uint8Array.from(piece));
      return new Blob(parts).text();
    },
    hash: (path, algorithms) => hashOf(contentOf(path), byPath.get(path)?.size ?? 0, algorithms),
  };
}

function unpacked(zip: File, { dataAt, packed, size, isDeflated }: FoundEntry): AsyncIterable<Uint8Array> {
  const blob = zip.slice(dataAt, dataAt + packed);
  if (!isDeflated && packed === size) return piecesOf(blob);
  return streamed(blob.stream().pipeThrough(new DecompressionStream('deflate-raw')), size);
}

/** A list of one line for the file as a whole, as it lies beside a package. */
async function outerOf(zip: File, beside: readonly File[]): Promise<boolean | null> {
  const list = beside.find(({ name }) => name === `${zip.name}.sha256`);
  if (list === undefined) return null;
  const said = readSums(await list.text(), 'sha256').sums.find(({ path }) => nameOf(path) === zip.name);
  const [found] = await hashOf(piecesOf(zip), zip.size, ['sha256']);
  return said?.hash === found;
}

const work = {
  async zip(zip: File, beside: readonly File[], tell: (progress: Progress) => void): Promise<VerdictHere> {
    isStopped = false;
    const isOuterRight = await outerOf(zip, beside);
    const verdict = await verifyPackage(await zipHere(zip), tell);
    if (isOuterRight !== false) return { ...verdict, isOuterRight };
    return {
      ...verdict,
      isOuterRight,
      isWhole: false,
      faults: [...verdict.faults, { code: 'whole-differs', path: '' }],
    };
  },
  async folder(files: readonly PlacedFile[], tell: (progress: Progress) => void): Promise<VerdictHere> {
    isStopped = false;
    return { ...(await verifyPackage(filesHere(files), tell)), isOuterRight: null };
  },
  stop(): void {
    isStopped = true;
  },
};
export type PackagesWork = typeof work;

expose(work);
