/**
 * The task that removes a project which lies in a package.
 *
 * 1. Its folder gets another name: from then on nobody writes to it by its path.
 * 2. Every file in it is read, and held against the package by its checksum: what is not in it, or was changed since,
 *    brings it back. So does what somebody who had it open wrote meanwhile.
 * 3. Only then it is removed, with its folders on other volumes. Cut short it is gone on with by that other name.
 */
import type { Cancellation } from '@nesting/core/change';
import { nameOf } from '@nesting/core/listing';
import { isGeneratedIn } from '@nesting/core/planners';
import { type CheckInput, ProjectRules } from '@nesting/core/project';
import type { ReadPackage } from '@nesting/core/report';
import { inRoot } from '../roots/open';
import { hashOf, withPlainFile } from '../roots/plain-file';
import { standingAt } from '../roots/port';
import { removeTree } from '../roots/remove-tree';
import { takePlace } from '../roots/take-place';
import { inTree, type Mount, type Tree } from '../roots/tree';
import { failed } from '../roots/where';
import type { Context } from './context';
import { foldersIn } from './folders-in';
import type { OfWhere } from './looks';

export interface FreeTask extends OfWhere {
  /** From the volume's root. */
  readonly folder: string;
  readonly mounts: readonly Mount[];
  readonly rules: CheckInput;
  /** What is in the package, which was proved. */
  readonly packed: Pick<ReadPackage, 'files'>;
  /** Tells it from others that are removed there. */
  readonly id: string;
}

export type Freed =
  | { readonly state: 'freed'; readonly bytes: number }
  /** Files that are not in the package as they are now. */
  | { readonly state: 'differs'; readonly path: string; readonly count: number };

/** In front of the name of what is being removed. */
const LEAVING = '.nesting-leaving-';

/** @throws Unreachable for its volume */
export const freeOriginal = (task: FreeTask, { cancel }: Context<never>): Promise<Freed> =>
  inRoot(task.where, async (volume): Promise<Freed> => {
    const { folder, id } = task;
    const away = `${folder.slice(0, -nameOf(folder).length)}${LEAVING}${id}`;
    if (standingAt(volume, away) === null) {
      if (standingAt(volume, folder) === null) return { state: 'freed', bytes: 0 };
      takePlace({ root: volume, path: folder }, { root: volume, path: away });
    }
    const backToItsPlace = () => takePlace({ root: volume, path: away }, { root: volume, path: folder });
    let found: Freed;
    try {
      found = await inTree({ ...task.where, folder: away }, task.mounts, (tree) => held(tree, task, cancel));
    } catch (error) {
      backToItsPlace();
      throw error;
    }
    if (found.state === 'differs') {
      backToItsPlace();
      return found;
    }
    for (const mount of task.mounts) inRoot(mount.where, (root) => removeTree(root, mount.path));
    removeTree(volume, away);
    return found;
  });

async function held(tree: Tree, { rules: input, packed }: FreeTask, cancel: Cancellation): Promise<Freed> {
  const rules = new ProjectRules(input);
  const known = new Map(packed.files.map((file) => [file.path, file]));
  const others: string[] = [];
  const seen = new Map<string, number>();
  let bytes = 0;
  // What cannot be looked at, and what has a name that is no text, is in no package.
  for (const { path: folder, files, others: links } of foldersIn(tree, (one) => void others.push(one.path))) {
    for (const name of links) others.push(folder === '' ? name : `${folder}/${name}`);
    for (const { name, size, modified } of files) {
      const path = folder === '' ? name : `${folder}/${name}`;
      const file = known.get(path);
      const isPacked = file?.size === size && file.sha256 === hashIn(tree, path);
      if (!isPacked && !isGeneratedIn(rules, folder, name)) others.push(path);
      await new Promise((resolve) => setImmediate(resolve));
      if (cancel.aborted) throw failed('STOPPED', '');
      bytes += size;
      seen.set(path, modified);
    }
  }
  others.push(...writtenMeanwhile(tree, seen));
  const [path] = others;
  return path === undefined ? { state: 'freed', bytes } : { state: 'differs', path, count: others.length };
}

/** Reading all of it takes its time. */
function writtenMeanwhile(tree: Tree, seen: ReadonlyMap<string, number>): readonly string[] {
  const out: string[] = [];
  for (const { path: folder, files } of foldersIn(tree))
    for (const { name, modified } of files) {
      const path = folder === '' ? name : `${folder}/${name}`;
      if (seen.get(path) !== modified) out.push(path);
    }
  return out;
}

/** `null` where it cannot be read: then nobody can say that it is in the package. */
function hashIn(tree: Tree, path: string): string | null {
  try {
    return withPlainFile(tree.rootOf(path), path, hashOf);
  } catch {
    return null;
  }
}
