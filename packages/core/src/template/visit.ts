/** Walks over a template's folders, and the numbers in front of siblings. */
import type { Block, FolderNode, Numbering, Template } from './node';

/** Every folder with its depth, parents first; a visitor that answers `skip` passes a folder's own folders over. */
export function visitFolders(
  root: FolderNode,
  visit: (node: FolderNode, depth: number, parent: FolderNode | null) => 'skip' | undefined,
): void {
  const walk = (node: FolderNode, depth: number, parent: FolderNode | null): void => {
    if (visit(node, depth, parent) === 'skip') return;
    for (const child of node.folders ?? []) walk(child, depth + 1, node);
  };
  walk(root, 0, null);
}

/** A folder among its siblings, blocks spliced in, with the number in front of its name (`null` for none). */
export interface Sibling {
  readonly node: FolderNode;
  readonly number: number | null;
  /** The node that stands for a block, where this one came from it: its conditions hold for the spliced folders. */
  readonly through: FolderNode | null;
}

/**
 * Siblings in order. Numbers already given are kept; an absent one takes the next free number above the folder before
 * it,
 * reserved ones skipped; a block's folders take the host's next free numbers. A folder made once per entry has none, nor
 * has one that says so.
 */
export function siblingsOf(parent: FolderNode, blocks: ReadonlyMap<string, Block>): Sibling[] {
  const folders = parent.folders ?? [];
  const plain = folders.flatMap((node): { node: FolderNode; through: FolderNode | null }[] => {
    if (node.block === undefined || node.name !== undefined) return [{ node, through: null }];
    return (blocks.get(node.block)?.folders ?? []).map((inner) => ({
      node: { ...inner, number: undefined },
      through: node,
    }));
  });
  const numbering = parent.numbering;
  if (numbering === undefined) return plain.map((s) => ({ ...s, number: null }));
  const taken = new Set(reservedNumbers(numbering));
  for (const s of plain) if (s.node.number !== undefined) taken.add(s.node.number);
  let last = 0;
  return plain.map((s) => {
    if (s.node.onePer !== undefined || s.node.unnumbered) return { ...s, number: null };
    let number = s.node.number;
    if (number === undefined) {
      number = last + 1;
      while (taken.has(number)) number++;
      taken.add(number);
    }
    last = number;
    return { ...s, number };
  });
}

const reservedNumbers = (numbering: Numbering): number[] => (numbering.reserved ?? []).map((r) => r.number);

/** `05_` for a folder numbered 5 in a two-digit numbering. */
export function numberPrefix(numbering: Numbering, number: number): string {
  return String(number).padStart(numbering.digits, '0') + numbering.joiner;
}

export const blocksOf = (template: Template): ReadonlyMap<string, Block> =>
  new Map((template.blocks ?? []).map((block) => [block.id, block]));
