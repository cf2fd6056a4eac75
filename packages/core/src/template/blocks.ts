/** Blocks of a template: parts used in several places, changed once for all of them. */

import { changeFolder, findFolder, freshId, idsIn } from './edit';
import { type Clash, type Decide, mergeFolders } from './merge';
import type { Block, FolderNode, Template } from './node';

/** Folders that stand for a block, or hold it, wherever they are. */
export function usesOf(template: Template, block: string): FolderNode[] {
  const uses: FolderNode[] = [];
  const walk = (node: FolderNode): void => {
    if (node.block === block) uses.push(node);
    node.folders?.forEach(walk);
  };
  walk(template.root);
  for (const each of template.blocks ?? []) if (each.id !== block) each.folders.forEach(walk);
  return uses;
}

/** What is in a folder becomes a block, and the folder holds it from then on: nothing that is made changes. */
export function blockFromFolder(
  template: Template,
  id: string,
): { readonly template: Template; readonly block: string | null } {
  const node = findFolder(template.root, id)?.node;
  if (node === undefined || node.block !== undefined || !node.folders?.length) return { template, block: null };
  const taken = new Set((template.blocks ?? []).map((b) => b.id));
  // Numbers belong to the host: a block's folders take its next free ones.
  const folders = node.folders.map(({ number: _host, ...folder }): FolderNode => folder);
  const block: Block = { id: freshId(node.name ?? 'block', taken), name: node.name ?? 'Block', folders };
  const { folders: _gone, ...rest } = node;
  const root = changeFolder(template.root, id, () => ({ ...rest, block: block.id }));
  return { template: { ...template, root, blocks: [...(template.blocks ?? []), block] }, block: block.id };
}

/** A block as a root to write in, and back. */
export const rootOfBlock = (block: Block): FolderNode => ({
  id: `block:${block.id}`,
  name: block.name ?? block.id,
  folders: block.folders,
});

export function withBlock(template: Template, id: string, root: FolderNode): Template {
  return {
    ...template,
    blocks: (template.blocks ?? []).map((b) =>
      b.id === id ? { ...b, name: root.name ?? b.id, folders: root.folders ?? [] } : b,
    ),
  };
}

/** A folder that stands for the block, at the end of another. */
export function placeBlock(template: Template, parent: string, block: string): Template {
  const id = freshId(block, idsIn(template.root));
  return {
    ...template,
    root: changeFolder(template.root, parent, (node) => ({
      ...node,
      folders: [...(node.folders ?? []), { id, block }],
    })),
  };
}

/** What the house's block is in one of its editions. */
export interface BlockEdition {
  readonly edition: number;
  readonly folders: readonly FolderNode[];
}

/**
 * Brings a template's copies of a house block to its next edition: what the template changed in them since `base`
 * stays.
 */
export function takeUp(
  template: Template,
  block: string,
  base: (edition: number) => readonly FolderNode[],
  next: BlockEdition,
  decide?: Decide,
): { readonly template: Template; readonly clashes: readonly Clash[] } {
  const clashes: Clash[] = [];
  const blocks = (template.blocks ?? []).map((b) => {
    if (b.shared?.block !== block || b.shared.edition === next.edition) return b;
    const merged = mergeFolders(base(b.shared.edition), b.folders, next.folders, decide);
    clashes.push(...merged.clashes);
    return { ...b, folders: merged.folders, shared: { block, edition: next.edition } };
  });
  return { template: { ...template, blocks }, clashes };
}

/**
 * A house block as one of the template's own, held by a folder. Nothing is done where the template has it already: it
 * is put in place again.
 */
export function addShared(
  template: Template,
  parent: string,
  house: { readonly id: string; readonly name: string } & BlockEdition,
): Template {
  const there = template.blocks?.find((b) => b.shared?.block === house.id);
  if (there) return placeBlock(template, parent, there.id);
  const id = freshId(house.name, new Set((template.blocks ?? []).map((b) => b.id)));
  const block: Block = {
    id,
    name: house.name,
    shared: { block: house.id, edition: house.edition },
    folders: house.folders,
  };
  return placeBlock({ ...template, blocks: [...(template.blocks ?? []), block] }, parent, id);
}

/** Takes a block out that nothing uses any more. */
export const dropBlock = (template: Template, id: string): Template =>
  usesOf(template, id).length > 0
    ? template
    : { ...template, blocks: (template.blocks ?? []).filter((b) => b.id !== id) };
