/** A file of the program's own that grows at its end, and can be cut back to where it was whole. */
import { closeSync, constants, fstatSync, fsyncSync, ftruncateSync, futimesSync, openSync, writeSync } from 'node:fs';
import type { Root } from './root';

/** Bytes that are handed to the system at once. */
const AT_ONCE = 1 << 20;

export class GrowingFile {
  private readonly buffer = Buffer.allocUnsafe(AT_ONCE);
  private waiting = 0;

  private constructor(
    readonly fd: number,
    private written: number,
  ) {}

  /** What is there of that name is gone on with. */
  static open(root: Root, path: string): GrowingFile {
    const { O_RDWR, O_CREAT, O_NOFOLLOW } = constants;
    const fd = openSync(root.at(path), O_RDWR | O_CREAT | O_NOFOLLOW, 0o644);
    try {
      root.sure(path);
      return new GrowingFile(fd, fstatSync(fd).size);
    } catch (error) {
      closeSync(fd);
      throw error;
    }
  }

  get length(): number {
    return this.written + this.waiting;
  }

  append(bytes: Uint8Array): void {
    if (this.waiting + bytes.length > this.buffer.length) this.flush();
    if (bytes.length >= this.buffer.length) {
      this.write(bytes, this.written);
      this.written += bytes.length;
      return;
    }
    this.buffer.set(bytes, this.waiting);
    this.waiting += bytes.length;
  }

  /** Other bytes in the place of those that are there. */
  patch(at: number, bytes: Uint8Array): void {
    this.flush();
    this.write(bytes, at);
  }

  cutTo(length: number): void {
    this.flush();
    ftruncateSync(this.fd, length);
    this.written = length;
  }

  sync(): void {
    this.flush();
    fsyncSync(this.fd);
  }

  /** When it was written, milliseconds since 1970. */
  setTime(modified: number): void {
    this.flush();
    futimesSync(this.fd, modified / 1000, modified / 1000);
  }

  close(): void {
    closeSync(this.fd);
  }

  private flush(): void {
    this.write(this.buffer.subarray(0, this.waiting), this.written);
    this.written += this.waiting;
    this.waiting = 0;
  }

  private write(bytes: Uint8Array, at: number): void {
    for (let done = 0; done < bytes.length; ) done += writeSync(this.fd, bytes, done, bytes.length - done, at + done);
  }
}
