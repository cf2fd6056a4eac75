/**
 * Zips in and out: the same content gives the same bytes; sizes are counted as they come, whatever a zip says of
 * itself.
 */

import { buffer } from 'node:stream/consumers';
import { LIMITS } from '@nesting/core';
import type { RefusalParams } from '@nesting/core/words';
import { fromBufferPromise } from 'yauzl';
import { ZipFile } from 'yazl';
import { Refused } from '../world';

/** Entries of one zip: honest rules are far below. */
const MOST_ENTRIES = 5000;
/** What may be given as a starter file comes back from a zip too. */
const { starterBytes: MOST_FILE, ruleFileBytes: MOST_BYTES } = LIMITS;

export const unusable = (why: RefusalParams<'file-unusable'>['why'], what = ''): Refused =>
  new Refused('file-unusable', { why, what });

export async function zipOf(files: ReadonlyMap<string, Uint8Array>): Promise<Uint8Array> {
  const zip = new ZipFile();
  const times = { mtime: new Date(Date.UTC(2026, 0, 1)), forceDosTimestamp: true };
  for (const [path, bytes] of files) zip.addBuffer(Buffer.from(bytes), path, times);
  zip.end();
  return buffer(zip.outputStream);
}

/** Every file of a zip by its path; a path that leads out, or more than the limits, refuses the whole. */
export async function filesOf(bytes: Uint8Array): Promise<Map<string, Buffer>> {
  const files = new Map<string, Buffer>();
  let total = 0;
  try {
    const zip = await fromBufferPromise(Buffer.from(bytes), { strictFileNames: true, lazyEntries: true });
    for await (const entry of zip.eachEntry()) {
      const path = entry.fileName;
      if (path.endsWith('/')) continue;
      if (files.size >= MOST_ENTRIES) throw unusable('too-many-files', String(MOST_ENTRIES));
      if (entry.uncompressedSize > MOST_FILE) throw unusable('file-too-large', path);
      const content = await limited(await zip.openReadStreamPromise(entry), MOST_FILE, () =>
        unusable('file-too-large', path),
      );
      total += content.length;
      if (total > MOST_BYTES) throw unusable('unpacks-too-large');
      files.set(path, content);
    }
  } catch (error) {
    if (error instanceof Refused) throw error;
    throw unusable('no-zip', error instanceof Error ? error.message : 'unknown');
  }
  return files;
}

async function limited(stream: AsyncIterable<Buffer | string>, most: number, over: () => Error): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of stream) {
    size += chunk.length;
    if (size > most) throw over();
    chunks.push(Buffer.from(chunk));
  }
  return Buffer.concat(chunks);
}
