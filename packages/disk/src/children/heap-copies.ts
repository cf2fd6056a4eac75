/** The task that looks whether what lies in a heap stands elsewhere as well. */
import { join } from '@nesting/core/listing';
import { type CopiesPlace, type HeapCopies, type HeapCopy, type HeapFile, heapCopies } from '@nesting/core/planners';
import { type CheckInput, OWN_FOLDER, ProjectRules } from '@nesting/core/project';
import { VOLUME_FILE } from '../roots/identity';
import { canReadPastCache } from '../roots/past-cache';
import { inTree, type Mount, type Tree } from '../roots/tree';
import { Unreachable, type Where } from '../roots/where';
import { listFolder } from '../walk';
import type { OfWhere } from './looks';
import { NamesThere } from './names-there';

export interface HeapCopiesTask extends OfWhere {
  /** What systems and programs leave behind is nobody's material. */
  readonly rules: CheckInput;
  readonly places: readonly {
    readonly volume: string;
    readonly where: Where;
    readonly mounts: readonly Mount[];
    readonly copies: readonly HeapCopy[];
  }[];
}

export const copiesOfHeap = ({ where, rules, places }: HeapCopiesTask): Promise<HeapCopies | null> =>
  inTree(where, [], async (heap) => {
    const files = filesOf(heap, new ProjectRules(rules));
    if (files === null) return null;
    const looked: CopiesPlace[] = [];
    for (const { where: at, mounts, volume, copies } of places)
      looked.push({ volume, copies, ...(await standingIn(at, mounts, copies)) });
    return heapCopies(files, looked);
  });

/** `null` where some of it cannot be looked at: nobody can say then that all of it stands elsewhere. */
function filesOf(heap: Tree, rules: ProjectRules): HeapFile[] | null {
  const out: HeapFile[] = [];
  const queue = [''];
  let isWhole = true;
  for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
    const listing = listFolder(heap, path, () => {
      isWhole = false;
    });
    if (listing === null || listing.others.length > 0 || (listing.unnamed ?? []).length > 0) isWhole = false;
    for (const { name, size, modified } of listing?.files ?? [])
      if (join(path, name) !== VOLUME_FILE && !rules.isGenerated(name))
        out.push({ path: join(path, name), size, modified });
    for (const name of listing?.folders ?? []) if (join(path, name) !== OWN_FOLDER) queue.push(join(path, name));
  }
  return isWhole ? out : null;
}

async function standingIn(
  where: Where,
  mounts: readonly Mount[],
  copies: readonly HeapCopy[],
): Promise<Pick<CopiesPlace, 'isProved' | 'sizeAt'>> {
  try {
    return await inTree(where, mounts, (tree) => {
      const there = new NamesThere(tree, []);
      const sizes = new Map(copies.map(({ to }) => [to, there.file(to)?.size ?? null]));
      const some = copies.find(({ to }) => (sizes.get(to) ?? 0) > 0);
      // Of files without bytes nothing is to be proved.
      const isProved = some === undefined || canReadPastCache(tree.rootOf(some.to).at(some.to));
      return { isProved, sizeAt: (path) => sizes.get(path) ?? null };
    });
  } catch (error) {
    // What is on a volume that is not there stands nowhere now.
    if (error instanceof Unreachable) return { isProved: false, sizeAt: () => null };
    throw error;
  }
}
