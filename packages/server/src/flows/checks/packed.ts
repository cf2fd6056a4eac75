/** Plain data as bytes of the database: what a check remembers, which only the next one reads. */
import { promisify } from 'node:util';
import { deserialize, serialize } from 'node:v8';
import { deflateRaw, inflateRaw } from 'node:zlib';

const deflate = promisify(deflateRaw);
const inflate = promisify(inflateRaw);

export const packed = (thing: unknown): Promise<Buffer> => deflate(serialize(thing), { level: 1 });

/** `null` for nothing, and for what cannot be read any more: a check is then a whole one. */
export async function unpacked<T>(bytes: Buffer | null): Promise<T | null> {
  if (bytes === null || bytes.length === 0) return null;
  try {
    return deserialize(await inflate(bytes)) as T;
  } catch {
    return null;
  }
}
