/** A part of a file that is asked for (RFC 9110, 14.1.2). */
export interface ByteRange {
  /** Its first byte, and the one behind its last. */
  readonly from: number;
  readonly to: number;
}

/** One range; `null` for the whole file, also where the header is none that can be understood, or asks for several. */
export function rangeOf(header: string | null, size: number): ByteRange | null {
  const found = /^bytes=(\d*)-(\d*)$/.exec(header ?? '');
  if (found === null || (found[1] === '' && found[2] === '')) return null;
  const [first, last] = [found[1] ?? '', found[2] ?? ''];
  const from = first === '' ? Math.max(0, size - Number(last)) : Number(first);
  const to = first === '' || last === '' ? size : Math.min(size, Number(last) + 1);
  return from < to ? { from, to } : null;
}
