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

/** @throws SyntaxError where it is none */
export function fromBase64(text: string): Uint8Array {
  const letters = text.replace(/={1,2}$/, '');
  if (/[^A-Za-z0-9+/]/.test(letters) || letters.length % 4 === 1) throw new SyntaxError('This is no base 64.');
  const out = new Uint8Array(Math.floor((letters.length * 3) / 4));
  let bits = 0;
  let n = 0;
  let at = 0;
  for (const letter of letters) {
    n = ((n << 6) | LETTERS.indexOf(letter)) & 0xffff;
    bits += 6;
    if (bits < 8) continue;
    bits -= 8;
    out[at++] = (n >> bits) & 0xff;
  }
  return out;
}
