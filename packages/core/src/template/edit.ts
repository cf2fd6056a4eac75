/**
 * Acts on a hierarchy as one writes it: pure functions from a root to a root that share what they leave alone, so that
 * the tree before is
 * kept for nothing and undo is taking it back. Ids stay unique and go with their folders; numbers in front stay with
 * theirs.
 */
import { withoutAbsent } from '../absent';
import { elementAt, present } from '../element';
import { shapeText } from '../name/pattern/shape';
import type { Block, FolderNode } from './node';
import { siblingsOf } from './visit';

export interface Place {
  readonly parent: string;
  readonly index: number;
}

export interface Found {
  readonly node: FolderNode;
  readonly parent: FolderNode | null;
  readonly index: number;
}

type Blocks = ReadonlyMap<string, Block>;
const NO_BLOCKS: Blocks = new Map();

export function findFolder(root: FolderNode, id: string): Found | null {
  if (root.id === id) return { node: root, parent: null, index: 0 };
  const stack = [root];
  for (let parent = stack.pop(); parent !== undefined; parent = stack.pop()) {
    const folders = parent.folders ?? [];
    const index = folders.findIndex((f) => f.id === id);
    if (index >= 0) return { node: elementAt(folders, index), parent, index };
    stack.push(...folders);
  }
  return null;
}

/** The folder itself changed by `change`; everything beside its way from the root stays the very same. */
export function changeFolder(root: FolderNode, id: string, change: (node: FolderNode) => FolderNode): FolderNode {
  if (root.id === id) return change(root);
  const folders = root.folders;
  if (folders === undefined) return root;
  let any = false;
  const next = folders.map((child) => {
    const changed = changeFolder(child, id, change);
    any ||= changed !== child;
    return changed;
  });
  return any ? { ...root, folders: next } : root;
}

/** Some of a folder's own settings; `undefined` takes one away. */
export const setFolder = (
  root: FolderNode,
  id: string,
  change: Partial<Omit<FolderNode, 'id' | 'folders'>>,
): FolderNode => changeFolder(root, id, (node) => withoutAbsent<FolderNode>({ ...node, ...change }));

export function idsIn(node: FolderNode, into: Set<string> = new Set()): Set<string> {
  into.add(node.id);
  for (const starter of node.starters ?? []) into.add(starter.id);
  for (const child of node.folders ?? []) idsIn(child, into);
  return into;
}

/** A short id from a name, unlike all in `used`, which it then joins. */
export function freshId(name: string, used: Set<string>): string {
  const shaped = shapeText(name.replace(/[{}()?]/g, ' '), 'kebab');
  const base = shaped.ok && shaped.text !== '' ? shaped.text.slice(0, 40) : 'folder';
  let id = base;
  for (let n = 2; used.has(id); n++) id = `${base}-${n}`;
  used.add(id);
  return id;
}

/** The same folders with ids no other has: what is pasted or doubled is a thing of its own. */
function withFreshIds(nodes: readonly FolderNode[], used: Set<string>): FolderNode[] {
  return nodes.map((node) => ({
    ...node,
    id: freshId(node.name ?? node.block ?? 'folder', used),
    ...(node.starters && { starters: node.starters.map((s) => ({ ...s, id: freshId(s.name, used) })) }),
    ...(node.folders && { folders: withFreshIds(node.folders, used) }),
  }));
}

/**
 * The number in front for a folder at a place: the next one after the folder before it that is free, and below the
 * folder after it.
 * `null` where its parent numbers nothing, or where nothing is free between the two: then somebody must say what gives
 * way.
 */
export function freeNumber(parent: FolderNode, index: number, blocks: Blocks = NO_BLOCKS): number | null {
  const { numbering } = parent;
  if (numbering === undefined) return null;
  const given = siblingsOf(parent, blocks);
  const numbers = (parent.folders ?? []).map((f) => given.find((s) => s.node === f || s.through === f)?.number ?? null);
  const taken = new Set([...given.flatMap((s) => s.number ?? []), ...(numbering.reserved ?? []).map((r) => r.number)]);
  const before = Math.max(0, ...numbers.slice(0, index).flatMap((n) => n ?? []));
  const after = numbers.slice(index).find((n) => n !== null) ?? Number.POSITIVE_INFINITY;
  for (let n = before + 1; n < after; n++) if (!taken.has(n)) return n;
  return null;
}

/** Puts folders in, each with a number of its own where the parent numbers them and one is free. */
export function insertFolders(
  root: FolderNode,
  { parent, index }: Place,
  nodes: readonly FolderNode[],
  blocks: Blocks = NO_BLOCKS,
): FolderNode {
  return changeFolder(root, parent, (target) => {
    let next = target;
    nodes.forEach((node, i) => {
      const at = Math.min(index, target.folders?.length ?? 0) + i;
      const number =
        node.onePer !== undefined
          ? null
          : keepsNumber(next, at, node.number)
            ? present(node.number)
            : freeNumber(next, at, blocks);
      const { number: _old, ...bare } = node;
      const folders = [...(next.folders ?? [])];
      folders.splice(at, 0, number === null ? bare : { ...bare, number });
      next = { ...next, folders };
    });
    return next;
  });
}

/** Whether a number brought along is free at a place and in the order of those around it. */
function keepsNumber({ numbering, folders = [] }: FolderNode, index: number, number: number | undefined): boolean {
  if (numbering === undefined || number === undefined || (numbering.reserved ?? []).some((r) => r.number === number))
    return false;
  return folders.every((f, i) => f.number === undefined || (i < index ? f.number < number : f.number > number));
}

/** Takes folders out; the numbers of those that stay are what they were. The root itself stays. */
export function removeFolders(root: FolderNode, ids: readonly string[]): FolderNode {
  const gone = new Set(ids);
  const without = (node: FolderNode): FolderNode => {
    if (node.folders === undefined) return node;
    const folders = node.folders.filter((f) => !gone.has(f.id)).map(without);
    const same = folders.length === node.folders.length && folders.every((f, i) => f === node.folders?.[i]);
    return same ? node : { ...node, folders };
  };
  return without(root);
}

/** Those of the ids that are not inside another of them, in the order of the tree. */
function outermost(root: FolderNode, ids: readonly string[]): FolderNode[] {
  const wanted = new Set(ids);
  const found: FolderNode[] = [];
  const walk = (node: FolderNode): void => {
    if (wanted.has(node.id)) found.push(node);
    else for (const child of node.folders ?? []) walk(child);
  };
  for (const child of root.folders ?? []) walk(child);
  return found;
}

/** Moves folders to a place as it is counted before they move. Nothing is moved into itself. */
export function moveFolders(
  root: FolderNode,
  ids: readonly string[],
  place: Place,
  blocks: Blocks = NO_BLOCKS,
): FolderNode {
  const moved = outermost(root, ids);
  const target = findFolder(root, place.parent);
  if (
    moved.length === 0 ||
    target === null ||
    moved.some((node) => node.id === place.parent || findFolder(node, place.parent) !== null)
  )
    return root;
  const before = (target.node.folders ?? []).slice(0, place.index).filter((f) => moved.includes(f)).length;
  const stays = (node: FolderNode) => (target.node.folders ?? []).includes(node);
  const index = place.index - before;
  const without = removeFolders(
    root,
    moved.map((n) => n.id),
  );
  if (!moved.every(stays)) return insertFolders(without, { parent: place.parent, index }, moved, blocks);
  // Among its own siblings a folder keeps its number while the order of numbers allows it.
  return changeFolder(without, place.parent, (parent) => {
    const folders = [...(parent.folders ?? [])];
    folders.splice(index, 0, ...moved);
    return settleNumbers({ ...parent, folders }, new Set(moved.map((n) => n.id)), blocks);
  });
}

/**
 * Moved folders whose number stands out of order take a free one; where none is free they take the places' numbers in
 * turn.
 */
function settleNumbers(parent: FolderNode, moved: ReadonlySet<string>, blocks: Blocks): FolderNode {
  if (parent.numbering === undefined || ordered(parent.folders ?? [])) return parent;
  let next = parent;
  for (const [i, node] of (parent.folders ?? []).entries()) {
    if (!moved.has(node.id) || node.number === undefined) continue;
    const others = { ...next, folders: (next.folders ?? []).filter((f) => f.id !== node.id) };
    const number = freeNumber(others, i, blocks);
    if (number !== null)
      next = { ...next, folders: (next.folders ?? []).map((f) => (f.id === node.id ? { ...f, number } : f)) };
  }
  if (ordered(next.folders ?? [])) return next;
  const numbers = (parent.folders ?? []).flatMap((f) => f.number ?? []).sort((a, b) => a - b);
  return {
    ...parent,
    folders: (parent.folders ?? []).map((f) =>
      f.number === undefined ? f : { ...f, number: present(numbers.shift()) },
    ),
  };
}

function ordered(folders: readonly FolderNode[]): boolean {
  const numbers = folders.flatMap((f) => f.number ?? []);
  return numbers.every((n, i) => i === 0 || n > elementAt(numbers, i - 1));
}

/** Into the folder before the first of them; nothing where there is none. */
export function indentFolders(root: FolderNode, ids: readonly string[], blocks: Blocks = NO_BLOCKS): FolderNode {
  const moved = outermost(root, ids);
  const first = moved[0] && findFolder(root, moved[0].id);
  const before = first?.parent?.folders?.slice(0, first.index).findLast((f) => !moved.includes(f));
  if (first === null || first === undefined || before === undefined) return root;
  return moveFolders(root, ids, { parent: before.id, index: before.folders?.length ?? 0 }, blocks);
}

/** Out of the folder they are in, to the place behind it. */
export function outdentFolders(root: FolderNode, ids: readonly string[], blocks: Blocks = NO_BLOCKS): FolderNode {
  const [first] = outermost(root, ids);
  const parent = first && findFolder(root, first.id)?.parent;
  const above = parent && findFolder(root, parent.id);
  if (!above?.parent) return root;
  return moveFolders(root, ids, { parent: above.parent.id, index: above.index + 1 }, blocks);
}

/** One place up or down among their siblings. */
export function shiftFolders(
  root: FolderNode,
  ids: readonly string[],
  by: -1 | 1,
  blocks: Blocks = NO_BLOCKS,
): FolderNode {
  const moved = outermost(root, ids);
  const edge = by < 0 ? moved[0] : moved.at(-1);
  const found = edge && findFolder(root, edge.id);
  const length = found?.parent?.folders?.length ?? 0;
  if (!found?.parent || (by < 0 ? found.index === 0 : found.index >= length - 1)) return root;
  return moveFolders(root, ids, { parent: found.parent.id, index: by < 0 ? found.index - 1 : found.index + 2 }, blocks);
}

/** Puts siblings into a new folder that stands where the first of them stood. */
export function groupFolders(
  root: FolderNode,
  ids: readonly string[],
  name: string,
  blocks: Blocks = NO_BLOCKS,
): { readonly root: FolderNode; readonly id: string | null } {
  const [first] = outermost(root, ids);
  const found = first && findFolder(root, first.id);
  if (!found?.parent) return { root, id: null };
  const id = freshId(name, idsIn(root));
  const made = insertFolders(root, { parent: found.parent.id, index: found.index }, [{ id, name }], blocks);
  return { root: moveFolders(made, ids, { parent: id, index: 0 }, blocks), id };
}

/** The same once more, right behind, with ids of its own. */
export function duplicateFolders(
  root: FolderNode,
  ids: readonly string[],
  blocks: Blocks = NO_BLOCKS,
): { readonly root: FolderNode; readonly ids: readonly string[] } {
  const originals = outermost(root, ids);
  const last = originals.at(-1);
  const found = last && findFolder(root, last.id);
  if (!found?.parent) return { root, ids: [] };
  const copies = withFreshIds(originals, idsIn(root));
  return {
    root: insertFolders(root, { parent: found.parent.id, index: found.index + 1 }, copies, blocks),
    ids: copies.map((c) => c.id),
  };
}

/**
 * Numbers a folder's children anew from 1, reserved ones skipped: an act of its own, for projects that exist keep the
 * numbers they have.
 */
export function renumberFolders(root: FolderNode, id: string, blocks: Blocks = NO_BLOCKS): FolderNode {
  return changeFolder(root, id, (parent) => {
    if (parent.numbering === undefined) return parent;
    const bare = { ...parent, folders: parent.folders?.map(({ number: _old, ...child }) => child) };
    const given = siblingsOf(bare, blocks);
    return {
      ...bare,
      folders: bare.folders?.map((child) => {
        const number = given.find((s) => s.node === child)?.number ?? null;
        return number === null ? child : { ...child, number };
      }),
    };
  });
}

/** `40_motion` typed under a parent that numbers its folders is the folder `motion` with the number 5. */
export function typedName(
  parent: FolderNode | null,
  typed: string,
): { readonly name: string; readonly number?: number } {
  const numbering = parent?.numbering;
  const found = numbering === undefined ? null : /^(\d{1,6})([_ .-]+)(.+)$/.exec(typed);
  return found === null ? { name: typed } : { name: elementAt(found, 3), number: Number(found[1]) };
}

/**
 * Folders that came to stand under a parent that numbers: a number typed in front of a name becomes the folder's own.
 */
export function absorbNumbers(root: FolderNode, ids: readonly string[]): FolderNode {
  return ids.reduce((tree, id) => {
    const found = findFolder(tree, id);
    const typed = found === null ? null : typedName(found.parent, found.node.name ?? '');
    return typed?.number === undefined ? tree : setFolder(tree, id, typed);
  }, root);
}
