/** Copies a file and proves the copy. */
import { createHash, type Hash } from 'node:crypto';
import {
  closeSync,
  constants,
  fchmodSync,
  fsyncSync,
  ftruncateSync,
  futimesSync,
  openSync,
  renameSync,
  writeSync,
} from 'node:fs';
import type { Copied, Patch } from '@nesting/core/change';
import { hashPastCache } from './past-cache';
import { eachChunk, hashOf, type PlainFile, withPlainFile } from './plain-file';
import type { Root } from './root';
import { failed } from './where';

/** A file in a root that is worked in. */
export interface FileAt {
  readonly root: Root;
  readonly path: string;
}

export interface CopyOptions {
  readonly patches?: readonly Patch[] | undefined;
  /** Called with each megabyte. */
  readonly tick?: (() => void) | undefined;
}

/** Behind the name of a copy that is not whole yet. */
const PART = '.part';
const NEW_FILE = constants.O_RDWR | constants.O_CREAT | constants.O_TRUNC | constants.O_NOFOLLOW;

/**
 * A copy with the original's time and rights, whole or not there. What is written is hashed on the way; the copy is
 * synced and read back, past the cache where the system allows. Nothing but the program's own folders is copied to: what is there of that name is an earlier
 * try. With patches it is what they make of the file, and has a time of its own.
 *
 * @throws `EVERIFY` where the copy is not what was written, `EPATCH` where a patch reaches beyond the file
 */
export function copyFile(from: FileAt, to: FileAt, { patches = [], tick }: CopyOptions = {}): Copied {
  return withPlainFile(from.root, from.path, (source) => {
    const { root, path } = to;
    let sha256: string;
    const part = `${path}${PART}`;
    const fd = openSync(root.at(part), NEW_FILE, 0o600);
    try {
      root.sure(part);
      const copy = new Copy(fd, source.isSparse && patches.length === 0, tick);
      writePatched(source, patches, copy);
      sha256 = copy.end();
      if (sha256 !== (hashPastCache(root.at(part), tick) ?? hashOf({ fd }, tick))) throw failed('EVERIFY', from.path);
      fchmodSync(fd, source.mode & 0o777);
      if (patches.length === 0) futimesSync(fd, source.modified / 1000, source.modified / 1000);
    } finally {
      closeSync(fd);
    }
    renameSync(root.at(part), root.at(path));
    return { size: source.size, modified: Math.floor(source.modified), sha256 };
  });
}

/** What is written, one piece behind another. */
class Copy {
  private readonly hash: Hash = createHash('sha256');
  private at = 0;

  constructor(
    private readonly fd: number,
    /** Holes stay holes. */
    private readonly isSparse: boolean,
    private readonly tick: (() => void) | undefined,
  ) {}

  write(bytes: Uint8Array): void {
    this.tick?.();
    this.hash.update(bytes);
    if (!this.isSparse || bytes.some((byte) => byte !== 0))
      for (let done = 0; done < bytes.length; )
        done += writeSync(this.fd, bytes, done, bytes.length - done, this.at + done);
    this.at += bytes.length;
  }

  /** What it is to be, by its hash. */
  end(): string {
    ftruncateSync(this.fd, this.at);
    fsyncSync(this.fd);
    return this.hash.digest('hex');
  }
}

function writePatched(source: PlainFile, patches: readonly Patch[], copy: Copy): void {
  let at = 0;
  const until = (end: number) => {
    eachChunk(source, [at, end], (bytes) => {
      copy.write(bytes);
      at += bytes.length;
      return true;
    });
  };
  for (const patch of patches) {
    if (patch.at < at || patch.at + patch.length > source.size) throw failed('EPATCH', '');
    until(patch.at);
    copy.write(Buffer.from(patch.bytes, 'base64'));
    at += patch.length;
  }
  until(Number.POSITIVE_INFINITY);
}
