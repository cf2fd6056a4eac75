/**
 * A folder on this computer in which something lies already, as the core's whole port. What browsers lack is made up
 * for: a folder is moved by copying,
 * comparing byte for byte, and removing what was copied; times of copies are their own. There are no identities, so
 * each step is written down by itself.
 */
import {
  BATCHES,
  INTENTS,
  type Journal,
  KEPT,
  NEW,
  OUTCOMES,
  type Outcome,
  type Port,
  type Standing,
} from '@nesting/core/change';
import { nameOf, parentOf, relPathOf } from '@nesting/core/listing';
import { OWN_FOLDER } from '@nesting/core/project';
import { browserPort, coded, holds } from './folder-port';

const failed = (code: string, path: string) => Object.assign(new Error(`${code}: ${path}`), { code });

async function folderAt(root: FileSystemDirectoryHandle, path: string): Promise<FileSystemDirectoryHandle> {
  const checked = relPathOf(path);
  if (!checked.ok) throw failed('EREFUSED', path);
  let at = root;
  for (const part of checked.value === '' ? [] : checked.value.split('/')) at = await at.getDirectoryHandle(part);
  return at;
}

const CHUNK = 1 << 20;

async function same(a: File, b: File): Promise<boolean> {
  if (a.size !== b.size) return false;
  for (let at = 0; at < a.size; at += CHUNK) {
    const [x, y] = await Promise.all([a.slice(at, at + CHUNK).arrayBuffer(), b.slice(at, at + CHUNK).arrayBuffer()]);
    const [p, q] = [new Uint8Array(x), new Uint8Array(y)];
    if (p.some((byte, i) => byte !== q[i])) return false;
  }
  return true;
}

async function copyFile(from: FileSystemFileHandle, into: FileSystemDirectoryHandle, name: string): Promise<void> {
  const made = await into.getFileHandle(name, { create: true });
  try {
    const file = await from.getFile();
    const stream = await made.createWritable();
    await file.stream().pipeTo(stream);
    if (!(await same(await from.getFile(), await made.getFile()))) throw failed('EVERIFY', name);
  } catch (error) {
    await into.removeEntry(name).catch(() => undefined);
    throw error;
  }
}

async function copyFolder(
  from: FileSystemDirectoryHandle,
  into: FileSystemDirectoryHandle,
  name: string,
): Promise<void> {
  const made = await into.getDirectoryHandle(name, { create: true });
  for await (const [inner, handle] of from.entries())
    await (handle.kind === 'file' ? copyFile(handle, made, inner) : copyFolder(handle, made, inner));
}

type Movable = FileSystemFileHandle & { move?: (into: FileSystemDirectoryHandle, name: string) => Promise<void> };

export function browserLivePort(root: FileSystemDirectoryHandle): Port {
  const look = async (path: string): Promise<Standing | null> => {
    if (path === '') return { kind: 'folder', size: 0, modified: 0, id: '' };
    try {
      const folder = await folderAt(root, parentOf(path));
      try {
        const file = await (await folder.getFileHandle(nameOf(path))).getFile();
        return { kind: 'file', size: file.size, modified: file.lastModified, id: '' };
      } catch (error) {
        if (error instanceof DOMException && error.name === 'TypeMismatchError')
          return { kind: 'folder', size: 0, modified: 0, id: '' };
        throw error;
      }
    } catch (error) {
      if (error instanceof DOMException && (error.name === 'NotFoundError' || error.name === 'TypeMismatchError'))
        return null;
      throw error;
    }
  };
  return {
    ...browserPort(root),
    look: (path) => coded(() => look(path)),
    list: (path) =>
      coded(async () => {
        const names = new Map<string, Standing['kind']>();
        try {
          for await (const [name, handle] of (await folderAt(root, path)).entries())
            names.set(name, handle.kind === 'file' ? 'file' : 'folder');
        } catch (error) {
          if (error instanceof DOMException && (error.name === 'NotFoundError' || error.name === 'TypeMismatchError'))
            return null;
          throw error;
        }
        return names;
      }),
    move: (from, to) =>
      coded(async () => {
        const [source, target] = [await folderAt(root, parentOf(from)), await folderAt(root, parentOf(to))];
        if (`${to}/`.startsWith(`${from}/`)) throw failed('EINVAL', to);
        if (await holds(target, nameOf(to))) throw failed('EEXIST', to);
        const there = await look(from);
        if (there === null) throw failed('ENOENT', from);
        if (there.kind === 'folder') {
          await copyFolder(await source.getDirectoryHandle(nameOf(from)), target, nameOf(to));
          await source.removeEntry(nameOf(from), { recursive: true });
          return;
        }
        const file: Movable = await source.getFileHandle(nameOf(from));
        if (file.move !== undefined) return file.move(target, nameOf(to));
        await copyFile(file, target, nameOf(to));
        await source.removeEntry(nameOf(from));
      }),
    copy: (from, to) =>
      coded(async () => {
        const target = await folderAt(root, parentOf(to));
        if (await holds(target, nameOf(to))) throw failed('EEXIST', to);
        await copyFile(await (await folderAt(root, parentOf(from))).getFileHandle(nameOf(from)), target, nameOf(to));
      }),
  };
}

/** The journal of a batch in the folder itself, as on a volume. */
export async function browserJournal(root: FileSystemDirectoryHandle, id: string): Promise<Journal> {
  let at = root;
  for (const part of [OWN_FOLDER, BATCHES, id]) at = await at.getDirectoryHandle(part, { create: true });
  for (const part of [NEW, KEPT]) await at.getDirectoryHandle(part, { create: true });
  const write = async (name: string, text: string) => {
    const stream = await (await at.getFileHandle(name, { create: true })).createWritable();
    await stream.write(text);
    await stream.close();
  };
  const said: Outcome[] = [];
  return {
    group: 1,
    begin: (intents) => write(INTENTS, JSON.stringify(intents)),
    outcome: (outcome) => {
      said.push(outcome);
      return write(OUTCOMES, said.map((o) => `${JSON.stringify(o)}\n`).join(''));
    },
  };
}
