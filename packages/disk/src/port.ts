/** Node's disk as the core's port. Synchronous calls: as fast as the system's own (see the measurements in docs/architecture.md). */
import { closeSync, mkdirSync, openSync, rmdirSync, unlinkSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { type MakingPort, relPathOf } from '@nesting/core';

/** A port on a folder that this process has just made: nothing in it can be a link of somebody else's. */
export function diskPort(root: string): MakingPort {
  const at = (path: string): string => {
    const checked = relPathOf(path);
    if (!checked.ok) throw Object.assign(new Error(`path refused: ${path}`), { code: 'EREFUSED' });
    return join(root, checked.value);
  };
  return {
    make: (path) => mkdirSync(at(path)),
    write: (path, bytes) => {
      // `wx`: never over something that stands there.
      const fd = openSync(at(path), 'wx');
      let failed = true;
      try {
        for (let done = 0; done < bytes.length; ) done += writeSync(fd, bytes, done);
        failed = false;
      } finally {
        closeSync(fd);
        // Half a file is no file: a full disk leaves nothing of it behind.
        if (failed) unlinkSync(at(path));
      }
    },
    unwrite: (path) => unlinkSync(at(path)),
    unmake: (path) => rmdirSync(at(path)),
  };
}
