import { elementAt } from '../element';

/** Base 64 (RFC 4648) without a host's help: the core knows no Buffer and no btoa. */
const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';

export function base64(bytes: Uint8Array): string {
  let out = '';
  for (let i = 0; i < bytes.length; i += 3) {
    const [a = 0, b, c] = [bytes[i], bytes[i + 1], bytes[i + 2]];
    const n = (a << 16) | ((b ?? 0) << 8) | (c ?? 0);
    out += elementAt(LETTERS, n >> 18) + LETTERS[(n >> 12) & 63];
    out += (b === undefined ? '=' : elementAt(LETTERS, (n >> 6) & 63)) + (c === undefined ? '=' : LETTERS[n & 63]);
  }
  return out;
}
