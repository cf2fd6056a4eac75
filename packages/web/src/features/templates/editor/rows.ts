/** A hierarchy as the rows of an outline: what is seen of it, line by line. */
import type { FolderNode, Mark, Template } from '@nesting/core/template';
import { blocksOf, numberPrefix, siblingsOf } from '@nesting/core/template';

export interface OutlineRow {
  readonly id: string;
  readonly node: FolderNode;
  readonly depth: number;
  readonly parent: FolderNode | null;
  readonly index: number;
  /** `05_`, or empty. */
  readonly prefix: string;
  readonly mark: Mark | null;
  readonly holds: number;
  readonly open: boolean;
}

export function rowsOf(template: Template, root: FolderNode, closed: ReadonlySet<string>): OutlineRow[] {
  const blocks = blocksOf(template);
  const rows: OutlineRow[] = [];
  const walk = (
    node: FolderNode,
    depth: number,
    parent: FolderNode | null,
    index: number,
    prefix: string,
    mark: Mark | null,
  ): void => {
    const own = node.mark ?? mark;
    const holds = node.folders?.length ?? 0;
    const open = holds > 0 && !closed.has(node.id);
    rows.push({ id: node.id, node, depth, parent, index, prefix, mark: own, holds, open });
    if (!open) return;
    const numbers =
      node.numbering === undefined
        ? null
        : new Map(siblingsOf(node, blocks).map((s) => [s.through ?? s.node, s.number]));
    node.folders?.forEach((child, i) => {
      const number = numbers?.get(child) ?? null;
      walk(
        child,
        depth + 1,
        node,
        i,
        number === null || node.numbering === undefined || (child.block !== undefined && child.name === undefined)
          ? ''
          : numberPrefix(node.numbering, number),
        own,
      );
    });
  };
  walk(root, 0, null, 0, '', null);
  return rows;
}
