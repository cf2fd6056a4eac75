/** Bytes of a text file → its text: UTF-8, or UTF-16 as some systems write it, with its mark or without. */

/** So much of a file tells how it is written. */
const ASKED = 4096;

export function decodeText(bytes: Uint8Array): string {
  return new TextDecoder(encodingOf(bytes)).decode(bytes);
}

function encodingOf(bytes: Uint8Array): 'utf-8' | 'utf-16le' | 'utf-16be' {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  // Without a mark: most characters of a listing are ASCII, and every second byte is nought then.
  const noughts = [0, 0];
  const asked = bytes.subarray(0, ASKED);
  for (const [i, byte] of asked.entries()) if (byte === 0) noughts[i % 2] = (noughts[i % 2] ?? 0) + 1;
  const [even = 0, odd = 0] = noughts;
  const many = asked.length / 4;
  if (odd > many && even === 0) return 'utf-16le';
  return even > many && odd === 0 ? 'utf-16be' : 'utf-8';
}
