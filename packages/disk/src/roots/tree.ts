/** A project's folders as one tree: most lie in its own folder, some on other volumes. */
import { nameOf, parentOf } from '@nesting/core/listing';
import type { Handle } from './handle';
import { openRoot } from './open';
import { standingAt } from './port';
import type { Root } from './root';
import { failed, Unreachable, type Where } from './where';

/** A folder of the project that lies on another volume, with all that is in it: there, by the same path. */
export interface Mount {
  readonly path: string;
  readonly where: Where;
}

interface Mounted {
  readonly path: string;
  /** `null` where it cannot be reached. */
  readonly root: Root | null;
}

export class Tree {
  private constructor(
    readonly root: Root,
    private readonly mounts: readonly Mounted[],
  ) {}

  /** @throws Unreachable for the project's own folder; others are as if nothing were there */
  static open(where: Where, mounts: readonly Mount[]): Tree {
    return new Tree(
      openRoot(where),
      mounts.map((mount) => ({ path: mount.path, root: reached(mount.where) })),
    );
  }

  /** A tree of one folder; who opened it closes it. */
  static of(root: Root): Tree {
    return new Tree(root, []);
  }

  /** The root that a path lies in, by the same path. @throws `ENOENT` where that cannot be reached */
  rootOf(path: string): Root {
    const mount = this.mounts.find((m) => path === m.path || path.startsWith(`${m.path}/`));
    if (mount === undefined) return this.root;
    if (mount.root === null) throw failed('ENOENT', path);
    return mount.root;
  }

  folder(path: string): Handle {
    return this.rootOf(path).folder(path);
  }

  /** Names in a folder of those that lie elsewhere, and are there. */
  mountedIn(path: string): string[] {
    return this.mounts
      .filter((m) => m.path !== path && parentOf(m.path) === path && isFolder(m))
      .map((m) => nameOf(m.path));
  }

  close(): void {
    this.root.close();
    for (const { root } of this.mounts) root?.close();
  }
}

function reached(where: Where): Root | null {
  try {
    return openRoot(where);
  } catch (error) {
    if (error instanceof Unreachable) return null;
    throw error;
  }
}

function isFolder({ path, root }: Mounted): boolean {
  try {
    return root !== null && standingAt(root, path)?.kind === 'folder';
  } catch {
    // A link on the way leads out of it: nothing is there.
    return false;
  }
}

/** Works with a tree, and closes it. @throws Unreachable */
export async function inTree<T>(
  where: Where,
  mounts: readonly Mount[],
  work: (tree: Tree) => T | Promise<T>,
): Promise<T> {
  const tree = Tree.open(where, mounts);
  try {
    return await work(tree);
  } finally {
    tree.close();
  }
}
