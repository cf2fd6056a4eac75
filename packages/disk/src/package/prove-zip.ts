/** Proves a zip that was written just now: all of it is read back, past the cache where the system allows. */
import { createHash, type Hash } from 'node:crypto';
import { inflateRawSync } from 'node:zlib';
import { localHeader } from '@nesting/core/package';
import { type FileHash, hashWhole } from '../roots/hash-thread';
import { readPastCache } from '../roots/past-cache';
import { eachChunk, withPlainFile } from '../roots/plain-file';
import type { Root } from '../roots/root';
import { failed } from '../roots/where';
import type { WrittenEntry } from './zip-file';

/** @throws `EVERIFY` where an entry is not what was written */
export async function proveZip(
  root: Root,
  path: string,
  entries: readonly WrittenEntry[],
  tick: () => void,
): Promise<FileHash> {
  const whole = hashWhole(root.at(path));
  // Whatever becomes of the entries, it is awaited: nothing else would hear of its failing.
  whole.catch(() => undefined);
  proveEntries(root, path, entries, tick);
  return whole;
}

function proveEntries(root: Root, path: string, entries: readonly WrittenEntry[], tick: () => void): void {
  const direct = new Proof(entries);
  const isPastCache = readPastCache(root.at(path), (bytes) => {
    tick();
    direct.take(bytes);
  });
  if (isPastCache) {
    direct.end();
    return;
  }
  const proof = new Proof(entries);
  withPlainFile(root, path, (file) =>
    eachChunk(file, [0, Number.POSITIVE_INFINITY], (bytes) => {
      tick();
      proof.take(bytes);
      return true;
    }),
  );
  proof.end();
}

/** Takes a file piece by piece, and holds each entry in it against what was written. */
class Proof {
  private at = 0;
  private next = 0;
  private content: Hash | null = null;
  /** Of an entry that is compressed: it is small. */
  private pieces: Buffer[] = [];

  constructor(private readonly entries: readonly WrittenEntry[]) {}

  take(bytes: Buffer): void {
    for (let from = 0; from < bytes.length; ) {
      const entry = this.entries[this.next];
      if (entry === undefined) break;
      const to = Math.min(bytes.length, from + entry.end - this.at);
      this.part(entry, bytes.subarray(from, to));
      this.at += to - from;
      from = to;
      if (this.at === entry.end) this.close(entry);
    }
  }

  end(): void {
    if (this.next < this.entries.length) throw failed('EVERIFY', this.entries[this.next]?.path ?? '');
  }

  private part(entry: WrittenEntry, bytes: Buffer): void {
    const data = entry.end - entry.packed;
    const content = bytes.subarray(Math.max(0, data - this.at));
    if (entry.isDeflated || this.at < data)
      this.pieces.push(Buffer.from(entry.isDeflated ? bytes : bytes.subarray(0, data - this.at)));
    if (entry.isDeflated) return;
    this.content ??= createHash('sha256');
    this.content.update(content);
  }

  private close(entry: WrittenEntry): void {
    const head = Buffer.concat(this.pieces);
    const header = localHeader(entry);
    const isHead = head.subarray(0, header.length).equals(header);
    const packed = entry.isDeflated
      ? createHash('sha256').update(inflated(head.subarray(header.length)))
      : this.content;
    const sha256 = (packed ?? createHash('sha256')).digest('hex');
    if (!isHead || sha256 !== entry.sha256) throw failed('EVERIFY', entry.path);
    this.pieces = [];
    this.content = null;
    this.next++;
  }
}

function inflated(bytes: Buffer): Buffer {
  try {
    return inflateRawSync(bytes);
  } catch {
    return Buffer.alloc(0);
  }
}
