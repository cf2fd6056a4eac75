/**
 * Changes → steps. The entries that changes name stand in a tree; each mover is put in its place once its new folder is
 * there and the name is free.
 * Whoever stands in the way goes first; who stands in the way of itself, round a circle, steps aside under a name of
 * its own for a moment. Files that
 * are taken back go before all; folders that are go when all has left them; contents are written last, when every
 * folder stands where it will stand.
 * Time: proportional to the changes times their depth; no recursion, so a chain of a million renames is no deeper than
 * one.
 */
import { present } from '../element';
import { join, nameOf, parentOf } from '../listing/entry';
import { clashKey } from '../portable/name';
import { type Change, PARKED, type Step } from './change';

export type OrderFaultCode =
  /** Two entries would have one name in one folder, on some system at least. */
  | 'name-taken'
  /** A folder would lie in itself. */
  | 'into-itself'
  /** The folder it goes to is not there any more by then. */
  | 'folder-gone'
  /** One path is changed twice. */
  | 'changed-twice';

export interface OrderFault {
  readonly code: OrderFaultCode;
  readonly key: string;
  readonly path: string;
}

export interface Ordered {
  readonly steps: readonly Step[];
  /** Steps hold only where there is no fault. */
  readonly faults: readonly OrderFault[];
}

interface Node {
  name: string;
  /** `clashKey` of its name. */
  key: string;
  parent: Node | null;
  /** By `clashKey`; most entries have none, and fifty thousand empty maps are not free. */
  children: Map<string, Node> | null;
  /** The next of those that a disk tells apart and `clashKey` does not. */
  twin: Node | null;
  change: Change | null;
  /** Where it will lie; those without a change stay in their folder. */
  to: Node | null;
  toName: string;
  /** `coming` until it is made; `going` while it is still to be taken back. */
  state: 'there' | 'coming' | 'going';
  placed: boolean;
}

export function orderChanges(changes: readonly Change[]): Ordered {
  return orderApart(changes) ?? orderAny(changes);
}

/**
 * Files that only get other names, none of them another's: most plans of many lines are so, and need no tree. `null`
 * where it is not so simple.
 */
function orderApart(changes: readonly Change[]): Ordered | null {
  const places = new Set<string>();
  const steps: Extract<Step, { do: 'move' }>[] = [];
  for (const { key, what, before, after, content } of changes) {
    if (what !== 'file' || before === null || after === null || content !== null) return null;
    places.add(clashKey(before));
    places.add(clashKey(after));
    steps.push({ key, do: 'move', from: before, path: after });
  }
  // Every name is there once, before and after taken together, and none is another's folder: no order can matter.
  const apart = places.size === 2 * steps.length && steps.every((step) => !places.has(clashKey(parentOf(step.path))));
  return apart ? { steps, faults: [] } : null;
}

/** The same by way of the tree, whatever the changes are. */
export function orderAny(changes: readonly Change[]): Ordered {
  const ordering = new Ordering(changes);
  return { steps: ordering.faults.length > 0 ? [] : ordering.run(), faults: ordering.faults };
}

function depthOf(path: string): number {
  let depth = 1;
  for (let i = 0; i < path.length; i++) if (path.charCodeAt(i) === 47) depth++;
  return depth;
}

interface Deep {
  readonly depth: number;
  readonly path: string;
}

const byDepth = (a: Deep, b: Deep): number => a.depth - b.depth || (a.path < b.path ? -1 : a.path > b.path ? 1 : 0);

class Ordering {
  readonly faults: OrderFault[] = [];
  private readonly steps: Step[] = [];
  private readonly root = newNode('');
  private readonly byAfter = new Map<string, Node>();
  private readonly movers: Node[] = [];
  private readonly files: Change[] = [];
  private readonly going: Node[] = [];
  private parked = 0;

  constructor(changes: readonly Change[]) {
    for (const change of changes) this.enter(change);
    for (const node of this.byAfter.values())
      if (node.change !== null && !(node.state === 'coming' && node.change.what === 'file')) this.aim(node);
    for (const change of this.files) this.aimFile(change);
    this.findTaken();
  }

  run(): Step[] {
    // Names that files give up may be wanted by others.
    const goingFiles = this.going.filter((n) => n.change?.what === 'file');
    for (const node of goingFiles) {
      this.steps.push({ key: keyOf(node), do: 'unwrite', path: pathOf(node) });
      detach(node);
    }
    const movers = this.movers
      .filter((node) => !node.placed)
      .map((node) => ({ node, path: present(node.change?.after), depth: depthOf(present(node.change?.after)) }));
    for (const { node } of movers.sort(byDepth)) this.place(node);
    const folders = this.going
      .filter((n) => n.change?.what === 'folder')
      .map((node) => ({ key: keyOf(node), path: pathOf(node), depth: depthOf(pathOf(node)) }));
    for (const { key, path } of folders.sort((a, b) => byDepth(b, a))) this.steps.push({ key, do: 'unmake', path });
    this.files.sort((a, b) => (present(a.after) < present(b.after) ? -1 : 1));
    for (const { key, before, after, content } of this.files) {
      if (content === null) continue;
      if (before !== null) this.steps.push({ key, do: 'unwrite', path: present(after) });
      this.steps.push({ key, do: 'write', path: present(after), content });
    }
    return this.steps;
  }

  private enter(change: Change): void {
    const { before, after, what, content } = change;
    if (before === null && after === null) return;
    const fault = (path: string) => void this.faults.push({ code: 'changed-twice', key: change.key, path });
    if (after !== null && this.byAfter.has(after)) {
      fault(after);
      return;
    }
    const isNewFile = before === null && what === 'file';
    const node = before === null ? newNode(nameOf(present(after))) : this.nodeAt(before);
    if (node.change !== null) {
      fault(present(before));
      return;
    }
    node.change = change;
    if (before === null) node.state = 'coming';
    if (after === null) {
      node.state = 'going';
      this.going.push(node);
      return;
    }
    this.byAfter.set(after, node);
    if (what === 'file' && content !== null) this.files.push(change);
    // One whose path stays may have to come out of a folder that does not.
    if (!isNewFile) this.movers.push(node);
  }

  /** Where an entry goes: the node its folder will be. */
  private aim(node: Node): void {
    const { key, before, after } = present(node.change);
    const folder = this.folderAfter(parentOf(present(after)));
    if (folder === null)
      return void this.faults.push({
        code: before !== null && after?.startsWith(`${before}/`) ? 'into-itself' : 'folder-gone',
        key,
        path: present(after),
      });
    node.to = folder;
    node.toName = nameOf(present(after));
    // Its folder's own move brings it there.
    if (node.state === 'there' && node.to === node.parent && node.toName === node.name) node.placed = true;
  }

  private aimFile(change: Change): void {
    if (this.folderAfter(parentOf(present(change.after))) === null)
      this.faults.push({ code: 'folder-gone', key: change.key, path: present(change.after) });
  }

  private readonly foldersAfter = new Map<string, Node | null>();

  private folderAfter(path: string): Node | null {
    const own = this.byAfter.get(path);
    // A file holds nothing.
    if (own !== undefined) return own.change?.what === 'file' ? null : own;
    if (path === '') return this.root;
    const known = this.foldersAfter.get(path);
    if (known !== undefined) return known;
    const above = this.folderAfter(parentOf(path));
    const found = above === null ? null : this.standingIn(above, nameOf(path));
    this.foldersAfter.set(path, found);
    return found;
  }

  /**
   * A folder that no change moves; one the tree does not know is taken to be there, unless its own folder is only made.
   */
  private standingIn(above: Node, name: string): Node | null {
    const there = childOf(above, name);
    if (there === null) return above.state === 'coming' ? null : attach(newNode(name), above);
    return there.change === null ||
      (there.change.before === there.change.after && there.change.after !== null) ||
      there.placed
      ? there
      : null;
  }

  private readonly foldersBefore = new Map<string, Node>();

  private nodeAt(path: string): Node {
    if (path === '') return this.root;
    const above = parentOf(path);
    let folder = this.foldersBefore.get(above);
    if (folder === undefined) {
      folder = this.nodeAt(above);
      this.foldersBefore.set(above, folder);
    }
    const name = above === '' ? path : path.slice(above.length + 1);
    return childOf(folder, name) ?? attach(newNode(name), folder);
  }

  private findTaken(): void {
    const taken = new Map<Node, Map<string, Node>>();
    const claim = (folder: Node, name: string, node: Node) => {
      const names = taken.get(folder) ?? new Map<string, Node>();
      taken.set(folder, names);
      const other = names.get(name);
      if (other !== undefined && other !== node)
        this.faults.push({
          code: 'name-taken',
          key: (node.change ?? other.change)?.key ?? '',
          path: node.change?.after ?? other.change?.after ?? '',
        });
      else names.set(name, node);
    };
    for (const node of this.byAfter.values()) {
      const folder = node.to ?? this.folderAfter(parentOf(present(node.change?.after)));
      if (folder === null) continue;
      const name = clashKey(nameOf(present(node.change?.after)));
      claim(folder, name, node);
      // Those that stay where they are, and are known.
      for (let stays = folder.children?.get(name) ?? null; stays !== null; stays = stays.twin)
        if (stays.change === null) claim(folder, name, stays);
    }
  }

  /** Puts one mover in its place; one that stepped aside for another is asked again. */
  private place(mover: Node): void {
    while (!mover.placed) this.placeAll(mover);
  }

  /** Whoever must go before it goes first. */
  private placeAll(first: Node): void {
    const waiting: Node[] = [first];
    const inHand = new Set<Node>(waiting);
    const ask = (node: Node) => {
      waiting.push(node);
      inHand.add(node);
    };
    for (let node = waiting.at(-1); node !== undefined; node = waiting.at(-1)) {
      const leave = () => {
        waiting.pop();
        inHand.delete(node);
      };
      if (node.placed) {
        leave();
        continue;
      }
      const folder = present(node.to);
      const before = mustGoBefore(node, folder);
      if (before !== null) {
        if (!inHand.has(before)) ask(before);
        else {
          // That one waits for this very name: this one steps aside, and is asked again.
          this.park(node);
          leave();
        }
        continue;
      }
      const inTheWay = otherThan(node, folder.children?.get(clashKey(node.toName)) ?? null);
      if (inTheWay === null) {
        this.put(node);
        leave();
      } else if (inTheWay.change !== null && inTheWay.state === 'there' && !inHand.has(inTheWay)) ask(inTheWay);
      else this.park(inTheWay);
    }
  }

  private put(node: Node): void {
    const key = keyOf(node);
    const folder = present(node.to);
    node.placed = true;
    if (node.state === 'coming') {
      node.state = 'there';
      rename(node, node.toName);
      attach(node, folder);
      this.steps.push({ key, do: 'make', path: pathOf(node) });
      return;
    }
    // Where capitals are all that changes, some systems see one name: it goes by way of another.
    if (node.parent === folder && node.key === clashKey(node.toName)) this.park(node);
    this.moveTo(node, folder, node.toName);
  }

  private park(node: Node): void {
    this.moveTo(node, present(node.parent), `${PARKED}${++this.parked}`);
  }

  private moveTo(node: Node, folder: Node, name: string): void {
    const from = pathOf(node);
    detach(node);
    rename(node, name);
    attach(node, folder);
    this.steps.push({ key: keyOf(node), do: 'move', from, path: pathOf(node) });
  }
}

const newNode = (name: string): Node => ({
  name,
  key: clashKey(name),
  parent: null,
  children: null,
  twin: null,
  change: null,
  to: null,
  toName: '',
  state: 'there',
  placed: false,
});
const keyOf = (node: Node): string => node.change?.key ?? '';

function childOf(node: Node, name: string): Node | null {
  let child = node.children?.get(clashKey(name)) ?? null;
  while (child !== null && child.name !== name) child = child.twin;
  return child;
}

function otherThan(node: Node, first: Node | null): Node | null {
  return first === node ? first.twin : first;
}

function rename(node: Node, name: string): void {
  node.name = name;
  node.key = clashKey(name);
}

function attach(node: Node, parent: Node): Node {
  node.parent = parent;
  parent.children ??= new Map();
  node.twin = parent.children.get(node.key) ?? null;
  parent.children.set(node.key, node);
  return node;
}

function detach(node: Node): void {
  const children = node.parent?.children;
  const first = children?.get(node.key);
  if (children == null || first === undefined) return;
  if (first !== node) {
    let before = first;
    while (before.twin !== null && before.twin !== node) before = before.twin;
    before.twin = node.twin;
  } else if (node.twin === null) children.delete(node.key);
  else children.set(node.key, node.twin);
  node.twin = null;
  node.parent = null;
}

function pathOf(node: Node): string {
  let path = node.name;
  for (let at = node.parent; at !== null && at.parent !== null; at = at.parent) path = join(at.name, path);
  return path;
}

/** The folder it goes to is not made yet, or lies in it and is to come out first. */
function mustGoBefore(node: Node, folder: Node): Node | null {
  if (folder.state === 'coming') return folder;
  let first: Node | null = null;
  for (let at: Node | null = folder; at !== null; at = at.parent) {
    if (at === node) return first;
    if (first === null && at.change !== null && at.to !== null && !at.placed) first = at;
  }
  return null;
}
