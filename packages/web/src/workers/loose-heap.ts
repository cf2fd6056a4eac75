/** Loose files of this computer, looked through: what each tells, and which lie in the project or in the heap twice. */
import { join } from '@nesting/core/listing';
import { type LooseFile, type SameContents, type SizedFile, sameContents, TELLING_HEAD } from '@nesting/core/planners';
import { OWN_FOLDER } from '@nesting/core/project';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { type LookedThrough, lookThrough } from '../browser-disk/look-through';
import { digestOf } from './digest';
import { type HeapChoice, nameOfChoice } from './heap-choice';
import type { MediaReader } from './media-reader';
import { zipHeap } from './zip-heap';

export interface Heap {
  readonly name: string;
  readonly files: readonly LooseFile[];
  readonly same: SameContents['same'];
  readonly fileOf: (path: string) => Promise<File | null>;
  readonly unseen: readonly string[];
  /** More files than are looked at. */
  readonly isCut: boolean;
}

const MOST_FILES = 50_000;
const AT_ONCE = 16;

interface Looking {
  readonly media: MediaReader;
  readonly project: LookedThrough;
  readonly told: (files: number, bytes: number) => void;
  readonly isStopped: () => boolean;
}

/** `null` where it was stopped. */
export async function readHeap(choice: HeapChoice, { media, project, told, isStopped }: Looking): Promise<Heap | null> {
  const { name, listed, fileOf, unseen } = await listHeap(choice, isStopped);
  const files: LooseFile[] = [];
  let bytes = 0;
  for (let at = 0; at < Math.min(listed.length, MOST_FILES); at += AT_ONCE) {
    if (isStopped()) return null;
    const some = await Promise.all(
      listed.slice(at, at + AT_ONCE).map(async (path): Promise<LooseFile | null> => {
        const file = await fileOf(path);
        if (file === null) {
          unseen.push(path);
          return null;
        }
        return { path, size: file.size, modified: file.lastModified, facts: await media.read(file) };
      }),
    );
    for (const file of some) if (file !== null) files.push(file);
    bytes += some.reduce((sum, file) => sum + (file?.size ?? 0), 0);
    told(files.length, bytes);
  }
  const inProject = [...project.listings.values()].flatMap((listing) =>
    listing.files.map(({ name: own, size }) => ({ path: join(listing.path, own), size })),
  );
  const hashed = (hash: (file: File) => Promise<string>) => async (one: SizedFile) => {
    const file = await (one.where === 'heap' ? fileOf : project.fileOf)(one.path);
    return file === null || isStopped() ? null : hash(file).catch(() => null);
  };
  const { same } = await sameContents(files, inProject, {
    head: hashed(async (file) => digestOf(await file.slice(0, TELLING_HEAD).arrayBuffer())),
    whole: hashed(wholeHash),
  });
  return isStopped() ? null : { name, files, same, fileOf, unseen, isCut: listed.length > MOST_FILES };
}

interface ListedHeap {
  readonly name: string;
  readonly listed: readonly string[];
  readonly fileOf: Heap['fileOf'];
  readonly unseen: string[];
}

/** Where each file of a choice is; none is read. */
export async function listHeap(choice: HeapChoice, isStopped: () => boolean): Promise<ListedHeap> {
  if (choice.kind === 'zip') {
    const { paths, fileOf } = await zipHeap(choice.zip);
    return { name: nameOfChoice(choice), listed: [...paths].sort(), fileOf, unseen: [] };
  }
  if (choice.kind === 'files') {
    const byPath = new Map(choice.files.map(({ path, file }) => [path, file]));
    const listed = [...byPath.keys()].filter((path) => path !== OWN_FOLDER && !path.startsWith(`${OWN_FOLDER}/`));
    return { name: choice.name, listed: listed.sort(), fileOf: async (path) => byPath.get(path) ?? null, unseen: [] };
  }
  const { listings, fileOf, unseen } = await lookThrough(choice.folder, () => undefined, isStopped);
  const listed = [...listings.values()].flatMap(({ path, files }) => files.map(({ name }) => join(path, name)));
  return { name: choice.folder.name, listed: listed.sort(), fileOf, unseen };
}

/** Bytes that are hashed at once by the browser itself, many times as fast. */
const AT_ONCE_BYTES = 64 * 2 ** 20;

async function wholeHash(file: File): Promise<string> {
  if (file.size <= AT_ONCE_BYTES) return digestOf(await file.arrayBuffer());
  const hash = sha256.create();
  const reader = file.stream().getReader();
  for (let chunk = await reader.read(); !chunk.done; chunk = await reader.read()) hash.update(chunk.value);
  return bytesToHex(hash.digest());
}
