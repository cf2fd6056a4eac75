/** Copies a file and proves the copy. */
import { createHash } from 'node:crypto';
import { closeSync, constants, fchmodSync, fsyncSync, ftruncateSync, futimesSync, openSync, writeSync } from 'node:fs';
import { eachChunk, hashOf, withPlainFile } from './plain-file';
import type { Root } from './root';
import { failed } from './where';

export interface Copied {
  readonly path: string;
  readonly size: number;
  readonly modified: number;
}

/**
 * A copy under a name that is free, with the original's time and rights. What is read is hashed on the way; the copy is
 * synced and read back.
 *
 * @throws `EEXIST` where the name is taken, `EVERIFY` where the copy is not what was read
 */
export function copyFile(root: Root, from: string, to: string): Copied {
  return withPlainFile(root, from, (source) => {
    const fd = openSync(root.at(to), constants.O_RDWR | constants.O_CREAT | constants.O_EXCL, source.mode & 0o777);
    try {
      root.sure(to);
      const hash = createHash('sha256');
      let at = 0;
      eachChunk(source, [0, Number.POSITIVE_INFINITY], (bytes) => {
        hash.update(bytes);
        // Holes stay holes.
        if (!source.isSparse || bytes.some((byte) => byte !== 0))
          for (let done = 0; done < bytes.length; ) done += writeSync(fd, bytes, done, bytes.length - done, at + done);
        at += bytes.length;
        return true;
      });
      ftruncateSync(fd, at);
      fsyncSync(fd);
      if (hash.digest('hex') !== hashOf({ fd })) throw failed('EVERIFY', from);
      fchmodSync(fd, source.mode & 0o777);
      futimesSync(fd, source.modified / 1000, source.modified / 1000);
    } finally {
      closeSync(fd);
    }
    return { path: from, size: source.size, modified: source.modified };
  });
}
