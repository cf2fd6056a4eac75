/** Which files of a heap lie in the project already, or in the heap twice: read on the disks, as little as tells it. */
import { createHash } from 'node:crypto';
import { setImmediate } from 'node:timers/promises';
import { type Cancellation, codeOf } from '@nesting/core/change';
import { join } from '@nesting/core/listing';
import {
  type SameContents,
  type SizedFile,
  sameContents as sameContentsOf,
  TELLING_HEAD,
} from '@nesting/core/planners';
import { OWN_FOLDER } from '@nesting/core/project';
import { hashOf, type PlainFile, readAt, withPlainFile } from '../roots/plain-file';
import type { Tree } from '../roots/tree';
import { failed } from '../roots/where';
import { listFolder, type Unseen } from '../walk';
import type { LooseFound } from './loose-found';

interface ToCompare {
  readonly heap: Tree;
  readonly project: Tree;
  readonly files: readonly LooseFound[];
  readonly cancel: Cancellation;
  readonly unseen: Unseen[];
}

interface Compared extends Pick<SameContents, 'same'> {
  /** With the hashes that were asked for. */
  readonly files: readonly LooseFound[];
}

export async function sameContents({ heap, project, files, cancel, unseen }: ToCompare): Promise<Compared> {
  const told = (tell: (file: PlainFile) => string) => async (one: SizedFile) => {
    // Others are heard in between.
    await setImmediate();
    if (cancel.aborted) throw failed('CANCELLED', one.path);
    const tree = one.where === 'heap' ? heap : project;
    try {
      return withPlainFile(tree.rootOf(one.path), one.path, tell);
    } catch (error) {
      unseen.push({ path: one.path, code: codeOf(error) });
      return null;
    }
  };
  const sizes = new Set(files.map(({ size }) => size));
  const { same, hashes } = await sameContentsOf(files, filesOfSizes(project, sizes), {
    head: told(headOf),
    whole: told(hashOf),
  });
  const withHash = (file: LooseFound): LooseFound => {
    const sha256 = hashes.get(file.path);
    return sha256 === undefined ? file : { ...file, sha256 };
  };
  return { files: files.map(withHash), same };
}

const headOf = ({ fd }: PlainFile): string =>
  createHash('sha256')
    .update(readAt(fd, 0, TELLING_HEAD))
    .digest('hex');

function filesOfSizes(project: Tree, sizes: ReadonlySet<number>): readonly Omit<SizedFile, 'where'>[] {
  const out: Omit<SizedFile, 'where'>[] = [];
  const queue = [''];
  for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
    const listing = listFolder(project, path, () => undefined);
    for (const { name, size } of listing?.files ?? []) if (sizes.has(size)) out.push({ path: join(path, name), size });
    for (const name of listing?.folders ?? []) if (join(path, name) !== OWN_FOLDER) queue.push(join(path, name));
  }
  return out;
}
