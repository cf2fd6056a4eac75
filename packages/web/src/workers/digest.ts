/** The SHA-256 of some bytes, in hexadecimal digits. */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';

export async function digestOf(bytes: ArrayBuffer): Promise<string> {
  // Only pages that are safe, or of this computer, have what the browser hashes by itself.
  const { subtle } = crypto as { readonly subtle?: SubtleCrypto };
  const digest =
    subtle === undefined ? sha256(new Uint8Array(bytes)) : new Uint8Array(await subtle.digest('SHA-256', bytes));
  return bytesToHex(digest);
}
