import { type FolderNode, type Template, visitFolders } from '@nesting/core/template';

/** Folders as written (blocks counted once each time they are used) and fields to fill in. */
export function sizeOfTemplate(template: Template): { folders: number; fields: number } {
  const blocks = new Map((template.blocks ?? []).map((b) => [b.id, b.folders]));
  let folders = -1;
  const count = (node: FolderNode, depth: number): undefined => {
    folders++;
    if (node.block !== undefined && depth < 20)
      for (const inner of blocks.get(node.block) ?? []) visitFolders(inner, (n, d) => count(n, d + depth + 1));
  };
  visitFolders(template.root, count);
  return { folders, fields: template.fields.length };
}
