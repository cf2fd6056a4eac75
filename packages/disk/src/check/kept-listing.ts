/** Listings as they are kept from a check: few bytes a folder, put together again when they are needed. */
import { deflateRawSync, inflateRawSync } from 'node:zlib';
import { type FolderListing, packListing, unpackListing } from '@nesting/core/listing';

export interface KeptListing {
  readonly path: string;
  /** Its first byte says which form the rest has. */
  readonly body: Uint8Array;
}

const PLAIN = 1;
const DEFLATED = 2;

/** Bytes that are not worth being compressed. */
const FEW = 96;

export function keptListing(listing: FolderListing): KeptListing {
  const packed = packListing(listing);
  const deflated = packed.length > FEW ? deflateRawSync(packed, { level: 3, windowBits: 12, memLevel: 5 }) : packed;
  return {
    path: listing.path,
    body: deflated.length < packed.length ? marked(DEFLATED, deflated) : marked(PLAIN, packed),
  };
}

/** `null` for a form that is not known any more: another check finds it anew. */
export function listingOf({ path, body }: KeptListing): FolderListing | null {
  try {
    switch (body[0]) {
      case PLAIN:
        return unpackListing(path, body.subarray(1));
      case DEFLATED:
        return unpackListing(path, inflateRawSync(body.subarray(1)));
      default:
        return null;
    }
  } catch {
    return null;
  }
}

function marked(form: number, bytes: Uint8Array): Uint8Array {
  const out = new Uint8Array(bytes.length + 1);
  out[0] = form;
  out.set(bytes, 1);
  return out;
}
