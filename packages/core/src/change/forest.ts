/** The entries that changes name, as trees: one for each root. */
import { present } from '../element';
import { join } from '../listing/entry';
import { clashKey } from '../portable/name';
import type { Change, Content } from './change';
import { isSamePlace, type Place, type RootId, rootIdOf } from './place';

export interface Node {
  name: string;
  /** `clashKey` of its name. */
  key: string;
  /** Of the top of a tree. */
  readonly root: RootId | null;
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
  /** A file whose copy takes its place on another file system: it goes last. */
  crosses: boolean;
  /** A folder with such a file in it. */
  holdsCrossing: boolean;
}

export const newNode = (name: string, root: RootId | null = null): Node => ({
  name,
  key: clashKey(name),
  root,
  parent: null,
  children: null,
  twin: null,
  change: null,
  to: null,
  toName: '',
  state: 'there',
  placed: false,
  crosses: false,
  holdsCrossing: false,
});

export function childOf(node: Node, name: string): Node | null {
  let child = node.children?.get(clashKey(name)) ?? null;
  while (child !== null && child.name !== name) child = child.twin;
  return child;
}

export function rename(node: Node, name: string): void {
  node.name = name;
  node.key = clashKey(name);
}

export function attach(node: Node, parent: Node): Node {
  node.parent = parent;
  parent.children ??= new Map();
  node.twin = parent.children.get(node.key) ?? null;
  parent.children.set(node.key, node);
  return node;
}

export function detach(node: Node): void {
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

export function placeOf(node: Node): Place {
  let path = node.root === null ? node.name : '';
  let top = node;
  for (let at = node.parent; at !== null; at = at.parent) {
    if (at.root === null) path = join(at.name, path);
    top = at;
  }
  return { root: top.root ?? rootIdOf(''), path };
}

export const idOf = (node: Node): string => node.change?.id ?? '';
export const afterOf = (node: Node): Place => present(node.change?.after);
export const isProject = (node: Node): boolean => node.change?.subject.kind === 'project';
export const staysInPlace = ({ before, after }: Change): boolean =>
  before !== null && after !== null && isSamePlace(before, after);
export const canGo = (node: Node): boolean => node.change !== null && node.state === 'there' && !node.crosses;
export const leavesLast = (node: Node): boolean => node.crosses || (node.state === 'going' && node.holdsCrossing);

/** What gets to its place: a file that crosses is copied as it is, unless it is written anew. */
export function contentOf(node: Node): Content {
  const { content, before, expects } = present(node.change);
  return content ?? { kind: 'copy', from: present(before), expects };
}

/** What comes back from where it was set aside comes with all that was in it. */
export const comesEmpty = (node: Node): boolean =>
  node.state === 'coming' && node.change?.content?.kind !== 'set-aside';

export function otherThan(node: Node, first: Node | null): Node | null {
  return first === node ? first.twin : first;
}

/** The folder it goes to is not made yet, or lies in it and is to come out first. */
export function mustGoBefore(node: Node, folder: Node): Node | null {
  let first: Node | null = null;
  for (let at: Node | null = folder; at !== null; at = at.parent) {
    if (at === node) return first;
    if (at.state === 'coming') return at;
    if (first === null && at.change !== null && at.to !== null && !at.placed) first = at;
  }
  return null;
}
