/** Blocks of a template: parts used in several places, changed once for all of them. */
import { changeFolder, freshId, idsIn } from './edit';
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
export function blockFromFolder(template: Template, id: string): { readonly template: Template; readonly block: string | null } {
  let made: Block | null = null;
  const taken = new Set((template.blocks ?? []).map((b) => b.id));
  const root = changeFolder(template.root, id, (node) => {
    if (node.block !== undefined || !node.folders?.length) return node;
    // Numbers belong to the host: a block's folders take its next free ones.
    const folders = node.folders.map(({ number: _host, ...folder }) => folder as FolderNode);
    made = { id: freshId(node.name ?? 'block', taken), name: node.name ?? 'Block', folders };
    const { folders: _gone, ...rest } = node;
    return { ...rest, block: made.id };
  });
  if (made === null) return { template, block: null };
  return { template: { ...template, root, blocks: [...(template.blocks ?? []), made as Block] }, block: (made as Block).id };
}

/** A block as a root to write in, and back. */
export const rootOfBlock = (block: Block): FolderNode => ({ id: `block:${block.id}`, name: block.name ?? block.id, folders: block.folders });

export function withBlock(template: Template, id: string, root: FolderNode): Template {
  return { ...template, blocks: (template.blocks ?? []).map((b) => (b.id === id ? { ...b, name: root.name ?? b.id, folders: root.folders ?? [] } : b)) };
}

/** A folder that stands for the block, at the end of another. */
export function placeBlock(template: Template, parent: string, block: string): Template {
  const id = freshId(block, idsIn(template.root));
  return { ...template, root: changeFolder(template.root, parent, (node) => ({ ...node, folders: [...(node.folders ?? []), { id, block }] })) };
}

/** Takes a block out that nothing uses any more. */
export const dropBlock = (template: Template, id: string): Template => (usesOf(template, id).length > 0 ? template : { ...template, blocks: (template.blocks ?? []).filter((b) => b.id !== id) });
