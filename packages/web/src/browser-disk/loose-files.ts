/**
 * Loose files of this computer, brought into a folder of it.
 *
 * 1. A file is taken only while it is as it was when it was looked at.
 * 2. It is read and written piece by piece; its hash is worked out on the way.
 * 3. What was written is read back and held against each piece.
 */
import { endOfPiece } from '@nesting/core';
import type { Cancellation, Copied, Expected, Patch, Standing } from '@nesting/core/change';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { digestOf } from '../workers/digest';
import { type FarFiles, isSame, isWritten, patched } from './port';

const failed = (code: string, path: string) => Object.assign(new Error(`${code}: ${path}`), { code });

export class LooseFiles implements FarFiles {
  /** @param known - by path: sizes and times of all that is brought */
  constructor(
    private readonly fileOf: (path: string) => Promise<File | null>,
    private readonly known: ReadonlyMap<string, Expected>,
    private readonly cancel: Cancellation,
  ) {}

  look(path: string): Standing | null {
    const expected = this.known.get(path);
    return expected === undefined ? null : { kind: 'file', id: '', ...expected };
  }

  async copy(path: string, to: FileSystemFileHandle, patches: readonly Patch[]): Promise<Copied> {
    const expects = this.known.get(path);
    const file = await this.fileOf(path);
    if (file === null || expects === undefined) throw failed('EGONE', path);
    const { size, lastModified: modified } = file;
    if (size !== expects.size || modified !== expects.modified) throw failed('ECHANGED', path);
    if (patches.length > 0) {
      const content = patched(file, patches);
      await content.stream().pipeTo(await to.createWritable());
      if (!(await isSame(content, await to.getFile()))) throw failed('EVERIFY', path);
      return { size, modified };
    }
    return { size, modified, sha256: await this.pieces(path, file, to) };
  }

  /** Gives the hash of all of it. */
  private async pieces(path: string, file: File, to: FileSystemFileHandle): Promise<string> {
    const { size } = file;
    const stream = await to.createWritable();
    const digests: string[] = [];
    // One piece alone is hashed by the browser, many times as fast.
    const whole = endOfPiece(0, size) < size ? sha256.create() : null;
    try {
      for (let at = 0; at < size; at = endOfPiece(at, size)) {
        if (this.cancel.aborted) throw failed('CANCELLED', path);
        const bytes = await readPiece(file, at, endOfPiece(at, size), path);
        digests.push(await digestOf(bytes));
        whole?.update(new Uint8Array(bytes));
        await stream.write(bytes);
      }
    } catch (error) {
      await stream.abort().catch(() => undefined);
      throw error;
    }
    await stream.close();
    if (!(await isWritten(to, size, digests))) throw failed('EVERIFY', path);
    return whole === null ? (digests[0] ?? bytesToHex(sha256(new Uint8Array(0)))) : bytesToHex(whole.digest());
  }
}

/** A browser refuses what was written to, or went away, since it gave the file. */
async function readPiece(file: File, from: number, to: number, path: string): Promise<ArrayBuffer> {
  try {
    return await file.slice(from, to).arrayBuffer();
  } catch {
    throw failed('EGONE', path);
  }
}
