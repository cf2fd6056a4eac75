/**
 * Changes → steps. The entries that changes name stand in trees, one for each root; each mover is put in its place once
 * its new folder is there and the name is free.
 *
 * 1. Files that are copied or rewritten are laid ready, while all is where it was.
 * 2. Files that are taken back go. Whoever moves is put in its place; who stands in the way goes first; who stands in
 *    the way of itself, round a circle, steps aside under a name of its own for a moment.
 * 3. Folders that are taken back go when all has left them.
 * 4. New contents take their places, now that every folder stands where it will stand.
 * 5. Files whose copies took their place on another file system go, and the folders they leave.
 * 6. The project's own folder takes its name.
 *
 * Time: proportional to the changes times their depth; no recursion, so a chain of a million renames is no deeper than
 * one.
 */
import { present } from '../element';
import { clashKey } from '../portable/name';
import { type Change, PARKED, type Step } from './change';
import { byDepth, byPlace, depthOf } from './depth';
import type { OrderFault } from './fault';
import {
  afterOf,
  attach,
  canGo,
  childOf,
  comesEmpty,
  contentOf,
  detach,
  idOf,
  isProject,
  leavesLast,
  mustGoBefore,
  type Node,
  newNode,
  otherThan,
  placeOf,
  rename,
  staysInPlace,
} from './forest';
import { orderApart } from './order-apart';
import { folderOf, isBelow, lastName, type Place, placeKey, type RootId } from './place';
import type { Reach } from './port';

export interface Ordered {
  readonly steps: readonly Step[];
  /** Steps hold only where there is no fault. */
  readonly faults: readonly OrderFault[];
}

/** What takes another place in one act, where nothing more is known of the roots. */
const inOneRoot = (from: RootId, to: RootId): Reach => (from === to ? 'all' : 'nothing');

/** What an order must know of the roots, as a port tells it. */
export interface RootFacts {
  readonly reach: (from: RootId, to: RootId) => Reach;
  readonly provesCopies: (root: RootId) => boolean;
}

const UNKNOWN: RootFacts = { reach: inOneRoot, provesCopies: () => true };

/** Folders that cross to another file system are lowered to their entries before (`lower.ts`). */
export function orderChanges(changes: readonly Change[], facts: RootFacts = UNKNOWN): Ordered {
  const steps = orderApart(changes);
  return steps === null ? orderAny(changes, facts) : { steps, faults: [] };
}

/** The same by way of the trees, whatever the changes are. */
export function orderAny(changes: readonly Change[], facts: RootFacts = UNKNOWN): Ordered {
  const ordering = new Ordering(changes, facts);
  return { steps: ordering.faults.length > 0 ? [] : ordering.run(), faults: ordering.faults };
}

class Ordering {
  readonly faults: OrderFault[] = [];
  private readonly steps: Step[] = [];
  private readonly roots = new Map<RootId, Node>();
  private readonly byAfter = new Map<string, Node>();
  private readonly movers: Node[] = [];
  /** Those that get a content in their place. */
  private readonly files: Node[] = [];
  private readonly going: Node[] = [];
  /** Files that are copied to another file system, where they were. */
  private readonly leaving: Node[] = [];
  private parked = 0;

  constructor(
    changes: readonly Change[],
    private readonly facts: RootFacts,
  ) {
    for (const change of changes) this.enter(change);
    for (const node of this.byAfter.values()) if (node.change !== null && !this.isPlaced(node)) this.aim(node);
    for (const { change } of this.files) if (change !== null) this.aimFile(change);
    this.findTaken();
  }

  run(): Step[] {
    this.layReady();
    this.moveAll();
    this.endFolders(this.going.filter((node) => !node.holdsCrossing));
    this.placeFiles();
    for (const node of this.leaving) {
      // Where its bytes are there for certain it ends; what is written anew leaves the old ones to be kept.
      const isKept = node.change?.content != null || !this.facts.provesCopies(afterOf(node).root);
      const at = placeOf(node);
      const id = idOf(node);
      this.steps.push(isKept ? { id, do: 'set-aside', at } : { id, do: 'remove', at, expects: node.change?.expects });
      detach(node);
    }
    this.endFolders(this.going.filter((node) => node.holdsCrossing));
    for (const node of this.movers) if (isProject(node)) this.placeAll(node);
    return this.steps;
  }

  private layReady(): void {
    this.files.sort((a, b) => byPlace(afterOf(a), afterOf(b)));
    for (const node of this.files) {
      const { id, before, expects } = present(node.change);
      const [at, content] = [afterOf(node), contentOf(node)];
      if (content.kind === 'copy') this.steps.push({ id, do: 'copy', at, content, expects: content.expects });
      if (content.kind === 'rewritten')
        this.steps.push({ id, do: 'rewrite', from: present(before), at, content, expects });
    }
  }

  private moveAll(): void {
    // Names that files give up may be wanted by others.
    for (const node of this.going) {
      if (node.change?.entry !== 'file') continue;
      this.steps.push({ id: idOf(node), do: 'set-aside', at: placeOf(node) });
      detach(node);
    }
    const movers = this.movers
      .filter((node) => !node.placed && !isProject(node))
      .map((node) => ({ node, at: afterOf(node), depth: depthOf(afterOf(node)) }));
    for (const { node } of movers.sort(byDepth)) this.placeUntilThere(node);
  }

  private endFolders(going: readonly Node[]): void {
    const folders = going
      .filter((n) => n.change?.entry === 'folder')
      .map((node) => ({ node, at: placeOf(node), depth: depthOf(placeOf(node)) }));
    for (const { node, at } of folders.sort((a, b) => byDepth(b, a))) {
      this.steps.push({ id: idOf(node), do: node.change?.isWhole ? 'set-aside' : 'unmake', at });
      detach(node);
    }
  }

  private placeFiles(): void {
    for (const node of this.files) {
      const { id, before } = present(node.change);
      const at = afterOf(node);
      const folder = present(this.folderAfter(folderOf(at)));
      const inTheWay = folder.children?.get(clashKey(lastName(at))) ?? null;
      if (inTheWay !== null && leavesLast(inTheWay)) this.park(inTheWay);
      if (before !== null && !node.crosses) this.steps.push({ id, do: 'set-aside', at });
      this.steps.push({ id, do: 'place', at, content: contentOf(node) });
    }
  }

  /** Its content is what gets there; nothing is moved. */
  private isPlaced(node: Node): boolean {
    return node.crosses || (node.state === 'coming' && node.change?.entry === 'file');
  }

  private enter(change: Change): void {
    const { id, before, after, entry, content } = change;
    if (before === null && after === null) return;
    const fault = (at: Place) => void this.faults.push({ code: 'changed-twice', id, at });
    if (after !== null && this.byAfter.has(placeKey(after))) {
      fault(after);
      return;
    }
    const isNewFile = before === null && entry === 'file';
    const node = before === null ? newNode(lastName(present(after))) : this.nodeAt(before);
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
    this.byAfter.set(placeKey(after), node);
    const crosses = before !== null && before.root !== after.root && !this.isReached(before.root, after.root, entry);
    if (crosses) this.leave(node);
    if (entry === 'file' && (content !== null || crosses)) this.files.push(node);
    // One whose path stays may have to come out of a folder that does not.
    if (!isNewFile && !crosses) this.movers.push(node);
  }

  private isReached(from: RootId, to: RootId, entry: Change['entry']): boolean {
    const reach = this.facts.reach(from, to);
    return reach === 'all' || (reach === 'files' && entry === 'file');
  }

  private leave(node: Node): void {
    if (node.change?.entry === 'folder') throw new Error('a folder that crosses is lowered before it is ordered');
    this.leaving.push(node);
    node.crosses = true;
    for (let at = node.parent; at !== null; at = at.parent) at.holdsCrossing = true;
  }

  /** Where an entry goes: the node its folder will be. */
  private aim(node: Node): void {
    const { id, before } = present(node.change);
    const after = afterOf(node);
    const folder = this.folderAfter(folderOf(after));
    if (folder === null)
      return void this.faults.push({
        code: before !== null && isBelow(after, before) ? 'into-itself' : 'folder-gone',
        id,
        at: after,
      });
    node.to = folder;
    node.toName = lastName(after);
    // Its folder's own move brings it there.
    if (node.state === 'there' && node.to === node.parent && node.toName === node.name) node.placed = true;
  }

  private aimFile({ id, after }: Change): void {
    const at = present(after);
    if (this.folderAfter(folderOf(at)) === null) this.faults.push({ code: 'folder-gone', id, at });
  }

  private readonly foldersAfter = new Map<string, Node | null>();

  private folderAfter(place: Place): Node | null {
    const key = placeKey(place);
    const own = this.byAfter.get(key);
    // A file holds nothing.
    if (own !== undefined) return own.change?.entry === 'file' ? null : own;
    if (place.path === '') return this.top(place.root);
    const known = this.foldersAfter.get(key);
    if (known !== undefined) return known;
    const above = this.folderAfter(folderOf(place));
    const found = above === null ? null : this.standingIn(above, lastName(place));
    this.foldersAfter.set(key, found);
    return found;
  }

  private top(root: RootId): Node {
    const known = this.roots.get(root);
    if (known !== undefined) return known;
    const made = newNode('', root);
    this.roots.set(root, made);
    return made;
  }

  /**
   * A folder that no change moves; one the tree does not know is taken to be there, unless its own folder is only made.
   */
  private standingIn(above: Node, name: string): Node | null {
    const there = childOf(above, name);
    if (there === null) return comesEmpty(above) ? null : attach(newNode(name), above);
    return there.change === null || staysInPlace(there.change) || there.placed ? there : null;
  }

  private readonly foldersBefore = new Map<string, Node>();

  private nodeAt(place: Place): Node {
    if (place.path === '') return this.top(place.root);
    const above = folderOf(place);
    const key = placeKey(above);
    let folder = this.foldersBefore.get(key);
    if (folder === undefined) {
      folder = this.nodeAt(above);
      this.foldersBefore.set(key, folder);
    }
    const name = above.path === '' ? place.path : place.path.slice(above.path.length + 1);
    return childOf(folder, name) ?? attach(newNode(name), folder);
  }

  private findTaken(): void {
    const taken = new Map<Node, Map<string, Node>>();
    const claim = (folder: Node, name: string, node: Node) => {
      const names = taken.get(folder) ?? new Map<string, Node>();
      taken.set(folder, names);
      const other = names.get(name);
      const change = node.change ?? other?.change;
      if (other !== undefined && other !== node && change?.after != null)
        this.faults.push({ code: 'name-taken', id: change.id, at: change.after });
      else names.set(name, node);
    };
    for (const node of this.byAfter.values()) {
      const folder = node.to ?? this.folderAfter(folderOf(afterOf(node)));
      if (folder === null) continue;
      const name = clashKey(lastName(afterOf(node)));
      claim(folder, name, node);
      // Those that stay where they are, and are known.
      for (let stays = folder.children?.get(name) ?? null; stays !== null; stays = stays.twin)
        if (stays.change === null) claim(folder, name, stays);
    }
  }

  /** Puts one mover in its place; one that stepped aside for another is asked again. */
  private placeUntilThere(mover: Node): void {
    while (!mover.placed) this.placeAll(mover);
  }

  /** Whoever must go before it goes first. */
  private placeAll(first: Node): void {
    const waiting: { readonly node: Node; readonly holdsName: boolean }[] = [{ node: first, holdsName: false }];
    const inHand = new Set<Node>([first]);
    const ask = (node: Node, holdsName: boolean) => {
      waiting.push({ node, holdsName });
      inHand.add(node);
    };
    const leave = () => {
      const last = waiting.pop();
      if (last !== undefined) inHand.delete(last.node);
      return last;
    };
    for (let node = waiting.at(-1)?.node; node !== undefined; node = waiting.at(-1)?.node) {
      if (node.placed) {
        leave();
        continue;
      }
      const folder = present(node.to);
      const before = mustGoBefore(node, folder);
      if (before !== null) {
        if (!inHand.has(before)) ask(before, false);
        else {
          // Round a circle: whoever only holds a name that another waits for steps aside, and is asked again later.
          let last = leave();
          while (last !== undefined && !last.holdsName) last = leave();
          this.park(present(last).node);
        }
        continue;
      }
      const inTheWay = otherThan(node, folder.children?.get(clashKey(node.toName)) ?? null);
      if (inTheWay === null) {
        this.put(node);
        leave();
      } else if (canGo(inTheWay) && !inHand.has(inTheWay)) ask(inTheWay, true);
      else this.park(inTheWay);
    }
  }

  private put(node: Node): void {
    const id = idOf(node);
    const folder = present(node.to);
    node.placed = true;
    if (node.state === 'coming') {
      node.state = 'there';
      rename(node, node.toName);
      attach(node, folder);
      const content = node.change?.content ?? null;
      const at = placeOf(node);
      this.steps.push(content === null ? { id, do: 'make', at } : { id, do: 'place', at, content });
      return;
    }
    // Where capitals are all that changes, some systems see one name: it goes by way of another. Under that a project
    // would not be found after a crash.
    if (node.parent === folder && node.key === clashKey(node.toName) && !isProject(node)) this.park(node);
    this.moveTo(node, folder, node.toName);
  }

  private park(node: Node): void {
    const folder = present(node.parent);
    // One may still stand aside since a batch that stopped half way.
    do this.parked++;
    while (childOf(folder, `${PARKED}${this.parked}`) !== null);
    this.moveTo(node, folder, `${PARKED}${this.parked}`);
  }

  private moveTo(node: Node, folder: Node, name: string): void {
    const from = placeOf(node);
    detach(node);
    rename(node, name);
    attach(node, folder);
    this.steps.push({ id: idOf(node), do: 'move', from, at: placeOf(node) });
  }
}
