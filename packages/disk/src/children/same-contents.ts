/**
 * What of a heap has the same content as something in the project, or as another of the heap. Of files of one size the
 * beginnings are held against each other first: frames are all of one size, and nobody reads terabytes to tell them apart.
 */
import { createHash } from 'node:crypto';
import { setImmediate } from 'node:timers/promises';
import { grouped } from '@nesting/core';
import { type Cancellation, codeOf } from '@nesting/core/change';
import { join, nameOf } from '@nesting/core/listing';
import { isCopyName, type Same } from '@nesting/core/planners';
import { OWN_FOLDER } from '@nesting/core/project';
import { hashOf, type PlainFile, readAt, withPlainFile } from '../roots/plain-file';
import type { Tree } from '../roots/tree';
import { failed } from '../roots/where';
import { listFolder, type Unseen } from '../walk';
import type { LooseFound } from './loose-found';

/** Bytes that tell most files of one size apart. */
const HEAD = 64 * 1024;

interface Candidate {
  readonly where: Same['where'];
  readonly path: string;
  readonly size: number;
  readonly sha256: string | undefined;
}

interface ToCompare {
  readonly heap: Tree;
  readonly project: Tree;
  readonly files: readonly LooseFound[];
  readonly cancel: Cancellation;
  readonly unseen: Unseen[];
}

interface Compared {
  /** With the hashes that were asked for. */
  readonly files: readonly LooseFound[];
  /** By path in the heap: what lies in the project comes before what lies in the heap. */
  readonly same: Readonly<Record<string, Same>>;
}

export async function sameContents(asked: ToCompare): Promise<Compared> {
  const { files } = asked;
  const sizes = new Set(files.filter(({ size }) => size > 0).map(({ size }) => size));
  const all: readonly Candidate[] = [
    ...filesOfSizes(asked.project, sizes),
    ...[...files]
      .filter(({ size }) => size > 0)
      .sort(originalsFirst)
      .map(({ path, size, sha256 }) => ({ where: 'heap' as const, path, size, sha256 })),
  ];
  const hashes = new Map<string, string>();
  const same: Record<string, Same> = {};
  for (const alike of grouped(all, ({ size }) => String(size)).values())
    for (const some of (await apart(alike, asked, headOf)).values()) {
      const hashed = await apart(some, asked, wholeOf);
      for (const [sha256, equal] of hashed) {
        for (const { where, path } of equal) if (where === 'heap') hashes.set(path, sha256);
        const [first, ...others] = equal;
        if (first === undefined) continue;
        for (const { where, path } of others)
          if (where === 'heap') same[path] = { where: first.where, path: first.path };
      }
    }
  const withHash = (file: LooseFound): LooseFound => {
    const sha256 = hashes.get(file.path);
    return sha256 === undefined ? file : { ...file, sha256 };
  };
  return { files: files.map(withHash), same };
}

type Tell = (file: PlainFile, known: Candidate) => string;

const headOf: Tell = ({ fd }) =>
  createHash('sha256')
    .update(readAt(fd, 0, HEAD))
    .digest('hex');
const wholeOf: Tell = (file, { sha256 }) => sha256 ?? hashOf(file);

/** Those that may still be the same, by what tells them apart; one alone, or none of the heap, is nothing to look at. */
async function apart(
  some: readonly Candidate[],
  { heap, project, cancel, unseen }: ToCompare,
  tell: Tell,
): Promise<ReadonlyMap<string, readonly Candidate[]>> {
  const out = new Map<string, Candidate[]>();
  if (some.length < 2 || some.every(({ where }) => where === 'project')) return out;
  for (const one of some) {
    // Others are heard in between.
    await setImmediate();
    if (cancel.aborted) throw failed('CANCELLED', one.path);
    const tree = one.where === 'heap' ? heap : project;
    try {
      const key = withPlainFile(tree.rootOf(one.path), one.path, (file) => tell(file, one));
      out.set(key, [...(out.get(key) ?? []), one]);
    } catch (error) {
      unseen.push({ path: one.path, code: codeOf(error) });
    }
  }
  return out;
}

/** Copies say so in their names; folders say more than none. */
function originalsFirst(a: LooseFound, b: LooseFound): number {
  const depth = ({ path }: LooseFound) => path.split('/').length;
  return (
    Number(isCopyName(nameOf(a.path))) - Number(isCopyName(nameOf(b.path))) ||
    depth(b) - depth(a) ||
    (a.path < b.path ? -1 : 1)
  );
}

function filesOfSizes(project: Tree, sizes: ReadonlySet<number>): readonly Candidate[] {
  const out: Candidate[] = [];
  const queue = [''];
  for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
    const listing = listFolder(project, path, () => undefined);
    for (const { name, size } of listing?.files ?? [])
      if (sizes.has(size)) out.push({ where: 'project', path: join(path, name), size, sha256: undefined });
    for (const name of listing?.folders ?? []) if (join(path, name) !== OWN_FOLDER) queue.push(join(path, name));
  }
  return out;
}
