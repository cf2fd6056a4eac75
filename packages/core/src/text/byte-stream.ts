/** Whole numbers and texts as bytes, one after another: small numbers take one byte. */
import { elementAt } from '../element';

/** Bits of a number in each byte; the eighth says that more follow (LEB128). */
const BASE = 128;

const ENCODER = new TextEncoder();

export class ByteWriter {
  private held = new Uint8Array(256);
  private length = 0;

  /** A whole number from 0 to 2^53 - 1. */
  count(value: number): void {
    this.reserve(8);
    let rest = value;
    while (rest >= BASE) {
      this.held[this.length++] = (rest % BASE) | BASE;
      rest = Math.floor(rest / BASE);
    }
    this.held[this.length++] = rest;
  }

  /** A whole number from -2^52 to 2^52 - 1. */
  signed(value: number): void {
    this.count(value < 0 ? -value * 2 - 1 : value * 2);
  }

  text(text: string): void {
    this.reserve(text.length * 3 + 8);
    if (text.length < BASE && this.plain(text)) return;
    const bytes = ENCODER.encode(text);
    this.count(bytes.length);
    this.held.set(bytes, this.length);
    this.length += bytes.length;
  }

  bytes(): Uint8Array {
    return this.held.slice(0, this.length);
  }

  /** A short text of signs that take one byte each, as most names are; `false` for any other. */
  private plain(text: string): boolean {
    let at = this.length + 1;
    for (let i = 0; i < text.length; i++) {
      const code = text.charCodeAt(i);
      if (code >= BASE) return false;
      this.held[at++] = code;
    }
    this.held[this.length] = text.length;
    this.length = at;
    return true;
  }

  private reserve(more: number): void {
    if (this.length + more <= this.held.length) return;
    const larger = new Uint8Array(Math.max(this.held.length * 2, this.length + more));
    larger.set(this.held);
    this.held = larger;
  }
}

/** @throws RangeError where the bytes end too early */
export class ByteReader {
  private at = 0;
  private readonly decoder = new TextDecoder('utf-8', { ignoreBOM: true });

  constructor(private readonly held: Uint8Array) {}

  count(): number {
    let value = 0;
    for (let factor = 1; ; factor *= BASE) {
      if (this.at >= this.held.length) throw new RangeError('The bytes end too early.');
      const byte = elementAt(this.held, this.at++);
      value += (byte % BASE) * factor;
      if (byte < BASE) return value;
    }
  }

  signed(): number {
    const value = this.count();
    return value % 2 === 1 ? -(value + 1) / 2 : value / 2;
  }

  text(): string {
    const length = this.count();
    if (this.at + length > this.held.length) throw new RangeError('The bytes end too early.');
    this.at += length;
    return this.decoder.decode(this.held.subarray(this.at - length, this.at));
  }
}
