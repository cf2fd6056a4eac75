/**
 * The task that holds two folders against each other, as they lie on the disk now.
 *
 * 1. Both are listed, and compared by what sizes and times say.
 * 2. Pairs of one size and two times are read, and so is what is on one side only and as large as something on the other.
 * 3. They are compared again, by their contents.
 */
import { createHash } from 'node:crypto';
import { type Cancellation, codeOf, HOME, isShown } from '@nesting/core/change';
import {
  type ComparedRow,
  compareSides,
  itemsOfSide,
  type ReadItem,
  type Scope,
  type SideItem,
  sumsOf,
} from '@nesting/core/compare';
import { type FolderListing, join, parentOf } from '@nesting/core/listing';
import { type CheckInput, OWN_FOLDER, ProjectRules } from '@nesting/core/project';
import { readBatch } from '../journal';
import { listItems } from '../list-items';
import { hashOf, withPlainFile } from '../roots/plain-file';
import type { Root } from '../roots/root';
import { inTree, type Mount, type Tree } from '../roots/tree';
import { listFolder, type Unseen } from '../walk';
import type { Context } from './context';
import type { OfWhere } from './looks';

export interface SideTask extends OfWhere {
  readonly mounts: readonly Mount[];
  /** `null` for a folder that no rules are known of. */
  readonly rules: CheckInput | null;
  /** The one folder that is compared; empty for all of it. */
  readonly within: string;
  readonly revision: Scope['revision'];
  /** Only what this batch wrote or moved, as it lies there now; `null` for all. */
  readonly batch: string | null;
}

/** A side of which all is compared. */
export const ALL_OF_IT = { within: '', revision: null, batch: null } as const;

export interface CompareTask {
  readonly left: SideTask;
  readonly right: SideTask;
  /** Bytes that are read to tell contents from each other; what is beyond stays unread. */
  readonly mostRead: number;
}

export interface ComparedFolders {
  readonly rows: readonly ComparedRow[];
  readonly sums: ReturnType<typeof sumsOf>;
  readonly unseen: readonly (Unseen & { readonly side: SideName })[];
}

type SideName = 'left' | 'right';

/** Copies keep times to the millisecond, and some file systems to two seconds. */
const SAME_TIME = 2000;

/** @throws Unreachable for either folder */
export const compareFolders = (task: CompareTask, { cancel }: Context<never>): Promise<ComparedFolders> =>
  inTree(task.left.where, task.left.mounts, (left) =>
    inTree(task.right.where, task.right.mounts, (right) => new Comparing(task, { left, right }, cancel).compared()),
  );

/** Files that a batch wrote or moved in its project: those below a folder that it moved as well. */
function leftBy(root: Root, batch: string): (path: string) => boolean {
  const changes = readBatch(root, batch)?.intents.changes.filter(isShown) ?? [];
  const paths = new Set<string>();
  const folders: string[] = [];
  for (const { entry, before, after } of changes) {
    if (after === null || after.root !== HOME) continue;
    if (entry === 'file') paths.add(after.path);
    else if (before !== null) folders.push(`${after.path}/`);
  }
  return (path) => paths.has(path) || folders.some((folder) => path.startsWith(folder));
}

class Comparing {
  private readonly unseen: (Unseen & { readonly side: SideName })[] = [];
  private readonly hashes: Readonly<Record<SideName, Map<string, string>>> = { left: new Map(), right: new Map() };
  private readonly rules: Readonly<Record<SideName, ProjectRules | null>>;
  private left: readonly ReadItem[] = [];
  private right: readonly ReadItem[] = [];

  constructor(
    private readonly task: CompareTask,
    private readonly trees: Readonly<Record<SideName, Tree>>,
    private readonly cancel: Cancellation,
  ) {
    const rulesOf = ({ rules }: SideTask) => (rules === null ? null : new ProjectRules(rules));
    this.rules = { left: rulesOf(task.left), right: rulesOf(task.right) };
  }

  async compared(): Promise<ComparedFolders> {
    this.left = await this.items('left');
    this.right = await this.items('right');
    await this.read(this.rows());
    const rows = this.rows();
    return { rows, sums: sumsOf(rows), unseen: this.unseen };
  }

  private rows(): ComparedRow[] {
    return compareSides({
      left: this.left,
      right: this.right,
      sameContent: (left, right) => this.same(left, right),
      contentOf: (side, item) => this.hashes[side].get(item.path) ?? `${item.size} ${Math.floor(item.modified)}`,
    });
  }

  private same(left: SideItem, right: SideItem): boolean | null {
    const [one, other] = [this.hashes.left.get(left.path), this.hashes.right.get(right.path)];
    if (one !== undefined && other !== undefined) return one === other;
    return Math.abs(left.modified - right.modified) <= SAME_TIME ? true : null;
  }

  private async items(side: SideName): Promise<readonly ReadItem[]> {
    const { left, right } = this.rules;
    const isOneTemplate = left !== null && right !== null && left.template.id === right.template.id;
    const { within, revision, batch } = this.task[side];
    const byKeys = isOneTemplate && this.task.left.within === '' && this.task.right.within === '';
    const holds = batch === null ? null : leftBy(this.trees[side].root, batch);
    const listings: FolderListing[] = [];
    const queue = [within];
    for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
      const listing = this.listing(side, path);
      if (listing !== null) listings.push(listing);
      for (const name of listing?.folders ?? []) if (join(path, name) !== OWN_FOLDER) queue.push(join(path, name));
      await this.breath();
    }
    return [...itemsOfSide(this.rules[side], listings, byKeys, { within, revision, holds })];
  }

  private listing(side: SideName, path: string): FolderListing | null {
    const [tree, rules] = [this.trees[side], this.rules[side]];
    const unseen = (one: Unseen) => void this.unseen.push({ ...one, side });
    return rules === null ? listFolder(tree, path, unseen) : listItems(tree, rules, path, unseen);
  }

  /** Pairs first: what they say is most of what one wants to know. */
  private async read(rows: readonly ComparedRow[]): Promise<void> {
    let left = this.task.mostRead;
    const hash = async (side: SideName, item: SideItem) => {
      if (this.hashes[side].has(item.path) || item.size > left) return;
      left -= item.size;
      await this.hash(side, item);
    };
    for (const row of rows)
      if (row.isUnread && row.left !== null && row.right !== null && row.left.size * 2 <= left) {
        await hash('left', row.left);
        await hash('right', row.right);
      }
    const alone = (side: SideName) => rows.flatMap((row) => (row.state === `only-${side}` ? (row[side] ?? []) : []));
    const sizes = (items: readonly SideItem[]) => new Set(items.map((item) => item.size));
    const [lefts, rights] = [alone('left'), alone('right')];
    const [leftSizes, rightSizes] = [sizes(lefts), sizes(rights)];
    for (const item of lefts) if (item.size > 0 && rightSizes.has(item.size)) await hash('left', item);
    for (const item of rights) if (item.size > 0 && leftSizes.has(item.size)) await hash('right', item);
  }

  /** Of a sequence the hash of its frames' hashes. */
  private async hash(side: SideName, { path, names }: SideItem): Promise<void> {
    const whole = createHash('sha256');
    try {
      for (const name of names) {
        const file = join(parentOf(path), name);
        whole.update(withPlainFile(this.trees[side].rootOf(file), file, hashOf));
        await this.breath();
      }
      this.hashes[side].set(path, whole.digest('hex'));
    } catch (error) {
      if (this.cancel.aborted) throw error;
      this.unseen.push({ side, path, code: codeOf(error) });
    }
  }

  /** A cancellation is heard in between. */
  private async breath(): Promise<void> {
    await new Promise((resolve) => setImmediate(resolve));
    if (this.cancel.aborted) throw Object.assign(new Error('stopped'), { code: 'STOPPED' });
  }
}
