/**
 * A folder on this computer, as the browser lets pages have it, as the core's port: the same steps that a server
 * performs on a volume.
 */
import { present } from '@nesting/core';
import type { MakingPort } from '@nesting/core/change';
import { relPathOf } from '@nesting/core/listing';

/** The code a disk would give, for what the browser says. */
const CODES: Readonly<Record<string, string>> = {
  NotFoundError: 'ENOENT',
  NotAllowedError: 'EACCES',
  NoModificationAllowedError: 'EROFS',
  QuotaExceededError: 'ENOSPC',
  TypeMismatchError: 'EEXIST',
  InvalidModificationError: 'ENOTEMPTY',
};

export const coded = async <T>(work: () => Promise<T>): Promise<T> => {
  try {
    return await work();
  } catch (error) {
    if (error instanceof DOMException)
      throw Object.assign(new Error(error.message), { code: CODES[error.name] ?? error.name });
    throw error;
  }
};

/** Whether anything of this name is in a folder. */
export async function holds(folder: FileSystemDirectoryHandle, name: string): Promise<boolean> {
  for (const get of [() => folder.getDirectoryHandle(name), () => folder.getFileHandle(name)]) {
    try {
      await get();
      return true;
    } catch (error) {
      if (error instanceof DOMException && error.name === 'TypeMismatchError') return true;
      if (!(error instanceof DOMException && error.name === 'NotFoundError')) throw error;
    }
  }
  return false;
}

export function browserPort(root: FileSystemDirectoryHandle): MakingPort {
  const parted = (path: string): { above: string[]; name: string } => {
    const checked = relPathOf(path);
    if (!checked.ok || checked.value === '')
      throw Object.assign(new Error(`path refused: ${path}`), { code: 'EREFUSED' });
    const parts = checked.value.split('/');
    return { above: parts.slice(0, -1), name: present(parts.at(-1)) };
  };
  const folderOf = async (parts: readonly string[]): Promise<FileSystemDirectoryHandle> => {
    let at = root;
    for (const part of parts) at = await at.getDirectoryHandle(part);
    return at;
  };
  const fresh = async (folder: FileSystemDirectoryHandle, name: string) => {
    if (await holds(folder, name)) throw Object.assign(new Error(`${name} exists`), { code: 'EEXIST' });
  };
  return {
    make: (path) =>
      coded(async () => {
        const { above, name } = parted(path);
        const folder = await folderOf(above);
        await fresh(folder, name);
        await folder.getDirectoryHandle(name, { create: true });
      }),
    write: (path, bytes) =>
      coded(async () => {
        const { above, name } = parted(path);
        const folder = await folderOf(above);
        await fresh(folder, name);
        const file = await folder.getFileHandle(name, { create: true });
        try {
          // Written beside and put in place when it is closed: half a file is never seen.
          const stream = await file.createWritable();
          await stream.write(Uint8Array.from(bytes));
          await stream.close();
        } catch (error) {
          await folder.removeEntry(name).catch(() => undefined);
          throw error;
        }
      }),
    unwrite: (path) => coded(async () => (await folderOf(parted(path).above)).removeEntry(parted(path).name)),
    unmake: (path) => coded(async () => (await folderOf(parted(path).above)).removeEntry(parted(path).name)),
  };
}
