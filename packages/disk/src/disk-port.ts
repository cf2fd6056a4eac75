/**
 * Node's disk as the core's port. Synchronous calls: as fast as the system's own (see the measurements in
 * docs/architecture.md).
 */
import {
  closeSync,
  constants,
  copyFileSync,
  lstatSync,
  mkdirSync,
  openSync,
  readdirSync,
  renameSync,
  rmdirSync,
  unlinkSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';
import { codeOf, type MakingPort, type Port, type Standing } from '@nesting/core/change';
import { parentOf, relPathOf } from '@nesting/core/listing';
import { moveAcross } from './cross-device-move';
import { inside } from './guard';

const refused = (path: string) => Object.assign(new Error(`path refused: ${path}`), { code: 'EREFUSED' });

/** A port on a folder that this process has just made: nothing in it can be a link of somebody else's. */
export function diskPort(root: string): MakingPort {
  return making((path) => {
    const checked = relPathOf(path);
    if (!checked.ok) throw refused(path);
    return join(root, checked.value);
  });
}

function making(at: (path: string) => string): MakingPort {
  return {
    make: (path) => mkdirSync(at(path)),
    write: (path, bytes) => {
      const target = at(path);
      // `wx`: never over something that stands there.
      const fd = openSync(target, 'wx');
      let failed = true;
      try {
        for (let done = 0; done < bytes.length; ) done += writeSync(fd, bytes, done);
        failed = false;
      } finally {
        closeSync(fd);
        // Half a file is no file: a full disk leaves nothing of it behind.
        if (failed) unlinkSync(target);
      }
    },
    unwrite: (path) => unlinkSync(at(path)),
    unmake: (path) => rmdirSync(at(path)),
  };
}

/** A port on a folder that people work in: every folder on the way to a path is looked at, and none may be a link. */
export function livePort(root: string): Port {
  // Looked at once, until something in the batch moves a folder: asking for each file again takes as long as moving it.
  const sound = new Map<string, string>();
  const folderAt = (folder: string): string => {
    const known = sound.get(folder);
    if (known !== undefined) return known;
    const found = inside(root, folder);
    if (!found.ok) {
      const code = found.faults[0]?.code;
      throw Object.assign(new Error(`${code}: ${folder}`), {
        code: code === 'path-link' ? 'ELOOP' : code === 'path-refused' ? 'EREFUSED' : 'ENOENT',
      });
    }
    sound.set(folder, found.value);
    return found.value;
  };
  const at = (path: string): string => {
    const checked = relPathOf(path);
    if (!checked.ok || path === '') throw refused(path);
    const folder = parentOf(path);
    return `${folderAt(folder)}/${folder === '' ? path : path.slice(folder.length + 1)}`;
  };
  return {
    ...making(at),
    unmake: (path) => {
      rmdirSync(at(path));
      sound.clear();
    },
    look: (path) => {
      try {
        return standingAt(path === '' ? folderAt('') : at(path));
      } catch (error) {
        if (codeOf(error) === 'ENOENT' || codeOf(error) === 'ENOTDIR') return null;
        throw error;
      }
    },
    list: (path) => {
      let folder: string;
      try {
        folder = folderAt(path);
      } catch (error) {
        if (codeOf(error) === 'ENOENT') return null;
        throw error;
      }
      try {
        return new Map(
          readdirSync(folder, { withFileTypes: true }).map((e) => [
            e.name,
            e.isDirectory() ? 'folder' : e.isFile() ? 'file' : 'other',
          ]),
        );
      } catch (error) {
        if (codeOf(error) === 'ENOTDIR') return null;
        throw error;
      }
    },
    move: (from, to) => {
      const source = at(from);
      const target = at(to);
      // A rename is silent over a file and over an empty folder: what stands there is asked first.
      if (lstatSync(target, { throwIfNoEntry: false }) !== undefined)
        throw Object.assign(new Error(`${to} is there already`), { code: 'EEXIST' });
      try {
        renameSync(source, target);
      } catch (error) {
        if (codeOf(error) !== 'EXDEV') throw error;
        moveAcross(source, target);
      }
      if (sound.has(from)) sound.clear();
    },
    copy: (from, to) => copyFileSync(at(from), at(to), constants.COPYFILE_EXCL),
  };
}

function standingAt(absolute: string): Standing | null {
  const stats = lstatSync(absolute, { throwIfNoEntry: false });
  if (stats === undefined) return null;
  const kind = stats.isDirectory() ? 'folder' : stats.isFile() ? 'file' : 'other';
  return {
    kind,
    size: kind === 'file' ? stats.size : 0,
    modified: Math.floor(stats.mtimeMs),
    id: `${stats.dev}:${stats.ino}`,
  };
}
