/**
 * A zip that is written entry by entry into a file of the program's own. Not by a library: those stream, and what was
 * streamed cannot be taken back. Here an entry whose file changed meanwhile is cut off again, and a package that was
 * cut short goes on behind its last whole entry.
 */
import { createHash } from 'node:crypto';
import { crc32, deflateRawSync } from 'node:zlib';
import { CRC_AT, centralHeader, crcBytes, endRecords, localHeader, type ZipEntry } from '@nesting/core/package';
import type { GrowingFile } from '../roots/growing-file';
import { eachChunk, isStill, type PlainFile } from '../roots/plain-file';
import { failed } from '../roots/where';

/** What was written of an entry: enough to go on behind it, and to prove it. */
export interface WrittenEntry extends ZipEntry {
  /** Of the content as it is when it is unpacked. */
  readonly sha256: string;
  /** Where the next one begins. */
  readonly end: number;
}

/** Files up to this size are read whole, and kept compressed where that gains something. */
const READ_WHOLE = 4 * 2 ** 20;
/** What is smaller than this part of its size is kept compressed. */
const WORTH_IT = 0.9;
/** Of a larger file a piece from its middle tells whether the rest is worth trying: beginnings are often unlike it. */
const SAMPLE = 1 << 12;

export class ZipFile {
  private readonly written: WrittenEntry[];

  /** @param written - entries that stand in the file already; what is behind them is cut off */
  constructor(
    private readonly file: GrowingFile,
    written: readonly WrittenEntry[],
    private readonly tick: () => void,
  ) {
    this.written = [...written];
    file.cutTo(written.at(-1)?.end ?? 0);
  }

  get entries(): readonly WrittenEntry[] {
    return this.written;
  }

  /** @throws `ECHANGED` where the file was written while it was read: then nothing of it is there */
  add(path: string, source: PlainFile): WrittenEntry {
    const [at, count] = [this.file.length, this.written.length];
    try {
      const entry = source.size <= READ_WHOLE ? this.addWhole(path, source) : this.addStored(path, source);
      if (!isStill(source)) throw failed('ECHANGED', path);
      return entry;
    } catch (error) {
      this.file.cutTo(at);
      this.written.length = count;
      throw error;
    }
  }

  addText(path: string, text: string, modified: number): WrittenEntry {
    return this.addBytes(path, Buffer.from(text), modified);
  }

  /** The list of entries, and the end. */
  finish(): void {
    const at = this.file.length;
    let length = 0;
    for (const entry of this.written) {
      const header = centralHeader(entry);
      this.file.append(header);
      length += header.length;
    }
    this.file.append(endRecords(this.written.length, at, length));
    this.file.sync();
  }

  private addWhole(path: string, source: PlainFile): WrittenEntry {
    const bytes = Buffer.allocUnsafe(source.size);
    let read = 0;
    eachChunk(source, [0, source.size], (chunk) => {
      this.tick();
      read += chunk.copy(bytes, read);
      return true;
    });
    if (read !== source.size) throw failed('ECHANGED', path);
    return this.addBytes(path, bytes, source.modified);
  }

  private addBytes(path: string, bytes: Buffer, modified: number): WrittenEntry {
    const kept = compressed(bytes);
    const content = kept ?? bytes;
    const head = { path, modified, isDeflated: kept !== null, crc: crc32(bytes), size: bytes.length };
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    return this.put({ ...head, packed: content.length }, sha256, () => this.file.append(content));
  }

  /** A large file goes in as it is, a megabyte at a time; its checksum is put in front of it afterwards. */
  private addStored(path: string, source: PlainFile): WrittenEntry {
    const { size, modified } = source;
    const hash = createHash('sha256');
    let crc = 0;
    let read = 0;
    const at = this.file.length;
    const entry = this.put({ path, modified, isDeflated: false, crc: 0, size, packed: size }, '', () => {
      eachChunk(source, [0, size], (chunk) => {
        this.tick();
        hash.update(chunk);
        crc = crc32(chunk, crc);
        this.file.append(chunk);
        read += chunk.length;
        return true;
      });
      if (read !== size) throw failed('ECHANGED', path);
    });
    this.file.patch(at + CRC_AT, crcBytes(crc));
    this.written.pop();
    const whole = { ...entry, crc, sha256: hash.digest('hex') };
    this.written.push(whole);
    return whole;
  }

  private put(head: Omit<ZipEntry, 'at'>, sha256: string, content: () => void): WrittenEntry {
    const at = this.file.length;
    this.file.append(localHeader(head));
    content();
    const entry = { ...head, at, sha256, end: this.file.length };
    this.written.push(entry);
    return entry;
  }
}

/** `null` where it gains nothing: pictures, sounds and moving images are compressed already. */
function compressed(bytes: Buffer): Buffer | null {
  if (bytes.length > SAMPLE) {
    const middle = (bytes.length - SAMPLE) >> 1;
    const sample = bytes.subarray(middle, middle + SAMPLE);
    if (deflateRawSync(sample, { level: 1 }).length > SAMPLE * WORTH_IT) return null;
  }
  const made = deflateRawSync(bytes);
  return made.length < bytes.length * WORTH_IT ? made : null;
}
