/** Bytes of a file with some of them replaced. */
import { fromBase64 } from '../text/bytes';
import type { Patch } from './change';

/** Patches are in order and do not overlap. @throws `EPATCH` where they do, or reach beyond the file */
export function patched(bytes: Uint8Array, patches: readonly Patch[]): Uint8Array {
  const parts: Uint8Array[] = [];
  let from = 0;
  for (const { at, length, bytes: text } of patches) {
    if (at < from || at + length > bytes.length) throw Object.assign(new Error('patches overlap'), { code: 'EPATCH' });
    parts.push(bytes.subarray(from, at), fromBase64(text));
    from = at + length;
  }
  parts.push(bytes.subarray(from));
  const whole = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
