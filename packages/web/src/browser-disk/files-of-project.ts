/**
 * Files of a project on a volume, written into a folder of this computer.
 *
 * 1. The server gives a file in pieces, each with its checksum, and only while it is as it was when it was looked at.
 *    Small files are asked for while the ones before them are written.
 * 2. Each piece is held against its checksum as it comes, and once more as it was read back from this computer's disk.
 * Where the connection fails it is tried again, longer and longer apart.
 */
import { endOfPiece } from '@nesting/core';
import type { Cancellation, Expected, Patch, Standing } from '@nesting/core/change';
import { digestOf } from '../workers/digest';
import { type FarFiles, isSame, isWritten, patched } from './port';

/** Times that one piece is asked for. */
const MOST_TRIES = 6;
const FIRST_WAIT = 500;

const failed = (code: string, path: string) => Object.assign(new Error(`${code}: ${path}`), { code });

/** The code of what the server says of a file that it does not give. */
const CODES: Readonly<Record<number, string>> = {
  400: 'ENOTGIVEN',
  401: 'ESIGNIN',
  403: 'ENOTGIVEN',
  404: 'ENOENT',
  409: 'ECHANGED',
};

/** Files that are asked for ahead, and how large they may be (bytes). */
const AHEAD = 6;
const SMALL = 2 ** 20;

interface Piece {
  readonly bytes: ArrayBuffer;
  readonly digest: string;
}

export class FilesOfProject implements FarFiles {
  private readonly order: readonly string[];
  private readonly rankOf: ReadonlyMap<string, number>;
  private readonly ahead = new Map<string, Promise<Piece>>();

  /** @param known - by path: sizes and times of all files that are wanted, in the order in which they are */
  constructor(
    private readonly project: string,
    private readonly known: ReadonlyMap<string, Expected>,
    private readonly cancel: Cancellation,
  ) {
    this.order = [...known.keys()];
    this.rankOf = new Map(this.order.map((path, rank) => [path, rank]));
  }

  look(path: string): Standing | null {
    const expected = this.known.get(path);
    return expected === undefined ? null : { kind: 'file', id: '', ...expected };
  }

  async copy(path: string, to: FileSystemFileHandle, patches: readonly Patch[]): Promise<Expected> {
    const expects = this.known.get(path);
    if (expects === undefined) throw failed('ENOENT', path);
    if (patches.length === 0) await this.writePieces(path, to, expects);
    else await this.writePatched(path, to, expects, patches);
    return expects;
  }

  private async writePieces(path: string, to: FileSystemFileHandle, { size, modified }: Expected): Promise<void> {
    const stream = await to.createWritable();
    const digests: string[] = [];
    try {
      for (let at = 0; at < size; at = endOfPiece(at, size)) {
        const { bytes, digest } = await this.piece(path, at, { size, modified });
        await stream.write(bytes);
        digests.push(digest);
      }
    } catch (error) {
      await stream.abort().catch(() => undefined);
      throw error;
    }
    await stream.close();
    if (!(await isWritten(to, size, digests))) throw failed('EVERIFY', path);
  }

  /** A document that is rewritten on the way: those are small. */
  private async writePatched(
    path: string,
    to: FileSystemFileHandle,
    expects: Expected,
    patches: readonly Patch[],
  ): Promise<void> {
    const parts: BlobPart[] = [];
    for (let at = 0; at < expects.size; at = endOfPiece(at, expects.size))
      parts.push((await this.piece(path, at, expects)).bytes);
    const content = patched(new Blob(parts), patches);
    await content.stream().pipeTo(await to.createWritable());
    if (!(await isSame(content, await to.getFile()))) throw failed('EVERIFY', path);
  }

  private piece(path: string, at: number, expects: Expected): Promise<Piece> {
    if (at > 0) return this.asked(path, at, expects);
    const rank = this.rankOf.get(path) ?? this.order.length;
    for (const later of this.order.slice(rank + 1, rank + 1 + AHEAD)) {
      const known = this.known.get(later);
      if (known === undefined || known.size === 0 || known.size > SMALL || this.ahead.has(later)) continue;
      const asked = this.asked(later, 0, known);
      // It is told when it is its turn.
      asked.catch(() => undefined);
      this.ahead.set(later, asked);
    }
    const asked = this.ahead.get(path) ?? this.asked(path, 0, expects);
    this.ahead.delete(path);
    return asked;
  }

  private async asked(path: string, at: number, { size, modified }: Expected): Promise<Piece> {
    const query = new URLSearchParams({ path, at: `${at}`, size: `${size}`, modified: `${modified}` });
    for (let tries = 1; ; tries++) {
      if (this.cancel.aborted) throw failed('CANCELLED', path);
      const answer = await fetch(`/api/projects/${this.project}/piece?${query}`).catch(() => null);
      const bytes = answer?.ok === true ? await answer.arrayBuffer().catch(() => null) : null;
      const digest = bytes === null ? '' : await digestOf(bytes);
      const isWhole = bytes !== null && bytes.byteLength === endOfPiece(at, size) - at;
      if (isWhole && answer?.headers.get('content-digest') === `sha-256=:${base64OfHex(digest)}:`)
        return { bytes, digest };
      const code = answer === null ? undefined : CODES[answer.status];
      if (code !== undefined) throw failed(code, path);
      if (tries === MOST_TRIES) throw failed('ESERVER', path);
      await new Promise((resolve) => setTimeout(resolve, FIRST_WAIT * 2 ** (tries - 1)));
    }
  }
}

const base64OfHex = (hex: string): string =>
  btoa(String.fromCharCode(...(hex.match(/../g) ?? []).map((byte) => Number.parseInt(byte, 16))));
