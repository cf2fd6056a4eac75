/**
 * Folders on this computer, as browsers let pages have them, as the core's port: the same steps that a server performs
 * on a volume. What browsers lack is made up for: what cannot be moved is copied, compared byte for byte, and removed.
 * Times of copies are their own, and there are no identities.
 */
import { endOfPiece, valueAt } from '@nesting/core';
import {
  type Copied,
  type Expected,
  type Patch,
  type Place,
  type Port,
  placeKey,
  type RootId,
  type Standing,
} from '@nesting/core/change';
import { nameOf, parentOf, relPathOf } from '@nesting/core/listing';
import { fromBase64 } from '@nesting/core/text';
import { digestOf } from '../workers/digest';

export type BrowserRoots = ReadonlyMap<RootId, FileSystemDirectoryHandle>;

/** Files that lie in no folder of this computer: what stands in their roots, and how one is written here. */
export interface FarFiles {
  look(path: string): Standing | null;
  /** Whole, and proved against what was sent; else nothing stays. */
  copy(path: string, to: FileSystemFileHandle, patches: readonly Patch[]): Promise<Copied>;
}

/** The code a disk would give, for what the browser says. */
const CODES: Readonly<Record<string, string>> = {
  NotFoundError: 'ENOENT',
  NotAllowedError: 'EACCES',
  NoModificationAllowedError: 'EROFS',
  QuotaExceededError: 'ENOSPC',
  TypeMismatchError: 'EEXIST',
  InvalidModificationError: 'ENOTEMPTY',
};

const coded = async <T>(work: () => Promise<T>): Promise<T> => {
  try {
    return await work();
  } catch (error) {
    if (error instanceof DOMException)
      throw Object.assign(new Error(error.message), { code: CODES[error.name] ?? error.name });
    throw error;
  }
};

const failed = (code: string, path: string) => Object.assign(new Error(`${code}: ${path}`), { code });

const isMissing = (error: unknown): boolean =>
  error instanceof DOMException && (error.name === 'NotFoundError' || error.name === 'TypeMismatchError');

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

/** An entry's folder, and its name there. */
interface Named {
  readonly folder: FileSystemDirectoryHandle;
  readonly name: string;
}

/** @param far - files of all roots that are none of `roots` */
export function browserPort(roots: BrowserRoots, far: FarFiles | null = null): Port {
  /** Folders that were found, until one takes another place: each step of a way to one is a question to the browser. */
  const found = new Map<string, FileSystemDirectoryHandle>();
  const folderAt = async (place: Place): Promise<FileSystemDirectoryHandle> => {
    const { root, path } = place;
    if (path === '') return valueAt(roots, root);
    const known = found.get(placeKey(place));
    if (known !== undefined) return known;
    if (!relPathOf(path).ok) throw failed('EREFUSED', path);
    const above = await folderAt({ root, path: parentOf(path) });
    const folder = await above.getDirectoryHandle(nameOf(path));
    found.set(placeKey(place), folder);
    return folder;
  };
  const named = async ({ root, path }: Place): Promise<Named> => {
    if (path === '') throw failed('EREFUSED', path);
    return { folder: await folderAt({ root, path: parentOf(path) }), name: nameOf(path) };
  };
  /** The same, where nothing of that name is. */
  const free = async (place: Place): Promise<Named> => {
    const entry = await named(place);
    if (await holds(entry.folder, entry.name)) throw failed('EEXIST', place.path);
    return entry;
  };
  const remove = (place: Place) =>
    coded(async () => {
      const { folder, name } = await named(place);
      found.delete(placeKey(place));
      await folder.removeEntry(name);
    });
  return {
    hasIdentities: false,
    reach: (from, to) => (from === to ? 'files' : 'nothing'),
    provesCopies: () => false,
    look: (place) =>
      roots.has(place.root) ? coded(() => standingAt(place, folderAt)) : (far?.look(place.path) ?? null),
    list: (place) => coded(() => namesIn(place, folderAt)),
    make: (place) =>
      coded(async () => {
        const { folder, name } = await free(place);
        await folder.getDirectoryHandle(name, { create: true });
      }),
    write: (place, bytes) => coded(async () => writeFile(await free(place), new Blob([Uint8Array.from(bytes)]))),
    remove,
    unmake: remove,
    move: (from, to) =>
      coded(async () => {
        if (`${to.path}/`.startsWith(`${from.path}/`) && from.root === to.root) throw failed('EINVAL', to.path);
        if (await moveEntry(await named(from), await free(to))) found.clear();
      }),
    copy: (from, to, patches) =>
      coded(async () => {
        const target = await named(to);
        if (await holds(target.folder, target.name)) await target.folder.removeEntry(target.name);
        if (!roots.has(from.root)) return copyFar(far, from.path, target, patches);
        const { folder, name } = await named(from);
        return copyFile(await folder.getFileHandle(name), target, patches);
      }),
    // Browsers write when they close a file.
    sync: () => undefined,
  };
}

type FolderAt = (place: Place) => Promise<FileSystemDirectoryHandle>;

const FOLDER: Standing = { kind: 'folder', size: 0, modified: 0, id: '' };

async function standingAt(place: Place, folderAt: FolderAt): Promise<Standing | null> {
  const { root, path } = place;
  if (path === '') return FOLDER;
  try {
    const folder = await folderAt({ root, path: parentOf(path) });
    try {
      const file = await (await folder.getFileHandle(nameOf(path))).getFile();
      return { kind: 'file', size: file.size, modified: file.lastModified, id: '' };
    } catch (error) {
      if (error instanceof DOMException && error.name === 'TypeMismatchError') return FOLDER;
      throw error;
    }
  } catch (error) {
    if (isMissing(error)) return null;
    throw error;
  }
}

async function namesIn(place: Place, folderAt: FolderAt): Promise<ReadonlyMap<string, Standing['kind']> | null> {
  const names = new Map<string, Standing['kind']>();
  try {
    for await (const [name, handle] of (await folderAt(place)).entries())
      names.set(name, handle.kind === 'file' ? 'file' : 'folder');
  } catch (error) {
    if (isMissing(error)) return null;
    throw error;
  }
  return names;
}

/** Written beside and put in place when it is closed: half a file is never seen. */
async function writeFile({ folder, name }: Named, content: Blob): Promise<void> {
  const made = await folder.getFileHandle(name, { create: true });
  try {
    const stream = await made.createWritable();
    await content.stream().pipeTo(stream);
  } catch (error) {
    await folder.removeEntry(name).catch(() => undefined);
    throw error;
  }
}

const CHUNK = 1 << 20;

export async function isSame(a: Blob, b: Blob): Promise<boolean> {
  if (a.size !== b.size) return false;
  for (let at = 0; at < a.size; at += CHUNK) {
    const [x, y] = await Promise.all([a.slice(at, at + CHUNK).arrayBuffer(), b.slice(at, at + CHUNK).arrayBuffer()]);
    const [p, q] = [new Uint8Array(x), new Uint8Array(y)];
    if (p.some((byte, i) => byte !== q[i])) return false;
  }
  return true;
}

/** Whether a file is what was written into it, piece by piece, read back. */
export async function isWritten(to: FileSystemFileHandle, size: number, digests: readonly string[]): Promise<boolean> {
  const written = await to.getFile();
  if (written.size !== size) return false;
  let at = 0;
  for (const digest of digests) {
    const end = endOfPiece(at, size);
    if ((await digestOf(await written.slice(at, end).arrayBuffer())) !== digest) return false;
    at = end;
  }
  return true;
}

async function copyFile(from: FileSystemFileHandle, to: Named, patches: readonly Patch[] = []): Promise<Expected> {
  const file = await from.getFile();
  const content = patched(file, patches);
  await writeFile(to, content);
  if (!(await isSame(content, await (await to.folder.getFileHandle(to.name)).getFile()))) {
    await to.folder.removeEntry(to.name).catch(() => undefined);
    throw failed('EVERIFY', to.name);
  }
  return { size: file.size, modified: file.lastModified };
}

async function copyFar(far: FarFiles | null, path: string, { folder, name }: Named, patches: readonly Patch[] = []) {
  if (far === null) throw failed('EAWAY', path);
  try {
    return await far.copy(path, await folder.getFileHandle(name, { create: true }), patches);
  } catch (error) {
    await folder.removeEntry(name).catch(() => undefined);
    throw error;
  }
}

export function patched(file: Blob, patches: readonly Patch[]): Blob {
  const parts: BlobPart[] = [];
  let from = 0;
  for (const { at, length, bytes } of patches) {
    if (at < from || at + length > file.size) throw failed('EPATCH', '');
    parts.push(file.slice(from, at), Uint8Array.from(fromBase64(bytes)));
    from = at + length;
  }
  return new Blob([...parts, file.slice(from)]);
}

async function copyFolder(from: FileSystemDirectoryHandle, { folder, name }: Named): Promise<void> {
  const made = await folder.getDirectoryHandle(name, { create: true });
  for await (const [inner, handle] of from.entries()) {
    const to = { folder: made, name: inner };
    await (handle.kind === 'file' ? copyFile(handle, to) : copyFolder(handle, to));
  }
}

type Movable = FileSystemFileHandle & { move?: (into: FileSystemDirectoryHandle, name: string) => Promise<void> };

/** Whether it is a folder. */
async function moveEntry({ folder, name }: Named, to: Named): Promise<boolean> {
  const inner = await folder.getDirectoryHandle(name).catch((error: unknown) => {
    if (error instanceof DOMException && error.name === 'TypeMismatchError') return null;
    throw error;
  });
  if (inner !== null) {
    await copyFolder(inner, to);
    await folder.removeEntry(name, { recursive: true });
    return true;
  }
  const file: Movable = await folder.getFileHandle(name);
  if (file.move !== undefined) await file.move(to.folder, to.name);
  else {
    await copyFile(file, to);
    await folder.removeEntry(name);
  }
  return false;
}
