/**
 * What of a heap has the same content as something in the project, or as another of the heap. Of files of one size the
 * beginnings are held against each other first: frames are all of one size, and nobody reads terabytes to tell them apart.
 */
import { grouped } from '../../grouped';
import { nameOf } from '../../listing/entry';
import type { Same } from './given';
import { isCopyName } from './recognise';

/** Bytes at a file's beginning that tell most files of one size apart. */
export const TELLING_HEAD = 64 * 1024;

export interface SizedFile {
  readonly where: Same['where'];
  readonly path: string;
  readonly size: number;
  /** Where it is known already. */
  readonly sha256?: string | undefined;
}

/** Hashes of contents; `null` where one cannot be read. */
export interface ContentHashes {
  readonly head: (file: SizedFile) => Promise<string | null>;
  readonly whole: (file: SizedFile) => Promise<string | null>;
}

export interface SameContents {
  /** By path in the heap: what lies in the project comes before what lies in the heap. */
  readonly same: Readonly<Record<string, Same>>;
  /** By path in the heap: hashes that were asked for. */
  readonly hashes: ReadonlyMap<string, string>;
}

export async function sameContents(
  heap: readonly Omit<SizedFile, 'where'>[],
  project: readonly Omit<SizedFile, 'where'>[],
  { head, whole }: ContentHashes,
): Promise<SameContents> {
  const ofHeap = [...heap]
    .filter(({ size }) => size > 0)
    .sort(originalsFirst)
    .map(({ path, size, sha256 }): SizedFile => ({ where: 'heap', path, size, sha256 }));
  const sizes = new Set(ofHeap.map(({ size }) => size));
  const ofProject = project
    .filter(({ size }) => sizes.has(size))
    .map(({ path, size, sha256 }): SizedFile => ({ where: 'project', path, size, sha256 }));
  const hashes = new Map<string, string>();
  const same: Record<string, Same> = {};
  for (const alike of grouped([...ofProject, ...ofHeap], ({ size }) => String(size)).values())
    for (const some of (await apart(alike, head)).values())
      for (const [sha256, equal] of await apart(some, async (file) => file.sha256 ?? (await whole(file)))) {
        for (const { where, path } of equal) if (where === 'heap') hashes.set(path, sha256);
        const [first, ...others] = equal;
        if (first === undefined) continue;
        for (const { where, path } of others)
          if (where === 'heap') same[path] = { where: first.where, path: first.path };
      }
  return { same, hashes };
}

/** Those that may still be the same, by what tells them apart; one alone, or none of the heap, is nothing to look at. */
async function apart(
  some: readonly SizedFile[],
  hashOf: (file: SizedFile) => Promise<string | null>,
): Promise<ReadonlyMap<string, readonly SizedFile[]>> {
  const out = new Map<string, SizedFile[]>();
  if (some.length < 2 || some.every(({ where }) => where === 'project')) return out;
  for (const one of some) {
    const key = await hashOf(one);
    if (key !== null) out.set(key, [...(out.get(key) ?? []), one]);
  }
  return out;
}

/** Copies say so in their names; folders say more than none. */
function originalsFirst(a: { readonly path: string }, b: { readonly path: string }): number {
  const depth = ({ path }: { readonly path: string }) => path.split('/').length;
  return (
    Number(isCopyName(nameOf(a.path))) - Number(isCopyName(nameOf(b.path))) ||
    depth(b) - depth(a) ||
    (a.path < b.path ? -1 : 1)
  );
}
