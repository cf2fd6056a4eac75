/** Numbers that stand for texts, where there are millions of them. */

/**
 * 53 bits of a text, as a whole number: two multiplicative hashes side by side. Not for what an enemy may choose; who
 * finds two alike looks at the names.
 */
export function textHash(text: string): number {
  let a = 0x9e3779b9;
  let b = 0x85ebca6b;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    a = Math.imul(a ^ code, 0x9e3779b1);
    b = Math.imul(b ^ code, 0x5f356495);
  }
  a = Math.imul(a ^ (a >>> 16), 0x21f0aaad) ^ Math.imul(b ^ (b >>> 13), 0x735a2d97);
  b = Math.imul(b ^ (b >>> 16), 0x21f0aaad) ^ Math.imul(a ^ (a >>> 13), 0x735a2d97);
  return (b & 0x1fffff) * 4294967296 + (a >>> 0);
}

/** Whether some text may stand more than once; `false` is certain. */
export function mayRepeat(texts: readonly string[]): boolean {
  const hashes = new Float64Array(texts.length);
  for (let i = 0; i < hashes.length; i++) hashes[i] = textHash(texts[i] ?? '');
  hashes.sort();
  for (let i = 1; i < hashes.length; i++) if (hashes[i] === hashes[i - 1]) return true;
  return false;
}
