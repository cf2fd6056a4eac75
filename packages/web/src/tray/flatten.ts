/**
 * A hierarchy in pre-order → the rows to show: closed folders hide what is in them, alike siblings are folded into one
 * row.
 */
import { elementAt, present } from '@nesting/core';
import type { Mark, Weight } from '@nesting/core/template';
import type { TrayState } from '../ui/signs';

export interface NamePiece {
  readonly text: string;
  /** The field it came from; `null` for literal text. */
  readonly field: string | null;
}

export interface TreeNode {
  readonly key: string;
  readonly depth: number;
  readonly kind: 'folder' | 'file' | 'reserved';
  readonly pieces: readonly NamePiece[];
  readonly mark: Mark | null;
  readonly state: TrayState;
  /** At the right: what it is for. */
  readonly note?: string | undefined;
  /** Beside the name: what is special about it. */
  readonly badge?: string | undefined;
  readonly weight?: Weight | undefined;
  /** Siblings made for the entries of one list share it. */
  readonly group?: string | undefined;
  /** Open until somebody closes it. */
  readonly open: boolean;
}

export interface Tray {
  readonly depth: number;
  readonly mark: Mark | null;
  readonly first: boolean;
  last: boolean;
}

export interface TreeRow {
  readonly key: string;
  readonly node: TreeNode;
  /** Set on the row that stands for alike siblings. */
  readonly fold: { readonly group: string; readonly words: string; readonly count: number } | null;
  readonly expandable: boolean;
  readonly expanded: boolean;
  readonly trays: readonly Tray[];
  readonly parent: string | null;
}

/** Fewer alike siblings than this are shown one by one. */
const FOLD_FROM = 4;

export function flatten(nodes: readonly TreeNode[], toggled: ReadonlyMap<string, boolean>): TreeRow[] {
  const rows: TreeRow[] = [];
  const end = subtreeEnds(nodes);
  const walk = (from: number, to: number, trays: readonly Tray[], parent: string | null): void => {
    const folded = new Set<string>();
    for (let i = from; i < to; i = elementAt(end, i)) {
      const node = elementAt(nodes, i);
      const { group } = node;
      if (group !== undefined && folded.has(group)) continue;
      emit(i, node, trays, parent);
      if (group === undefined || toggled.get(`fold:${group}`) === true || previousInGroup(nodes, end, from, i, group))
        continue;
      const rest = restOfGroup(nodes, end, i, to, group);
      if (rest.length + 1 < FOLD_FROM) continue;
      folded.add(group);
      const nameOf = (n: TreeNode) => n.pieces.map((p) => p.text).join('');
      rows.push({
        key: `fold:${group}`,
        node: { ...node, weight: worst(rest), badge: undefined, note: undefined },
        expandable: true,
        expanded: false,
        trays,
        parent,
        fold: {
          group,
          words: `${nameOf(elementAt(rest, 0))} … ${nameOf(elementAt(rest, rest.length - 1))}`,
          count: rest.length,
        },
      });
    }
  };
  const emit = (i: number, node: TreeNode, trays: readonly Tray[], parent: string | null): void => {
    const expandable = elementAt(end, i) > i + 1;
    const expanded = expandable && (toggled.get(node.key) ?? node.open);
    if (!expanded || node.depth === 0) {
      rows.push({ key: node.key, node, fold: null, expandable, expanded, trays, parent });
      if (expanded) walk(i + 1, elementAt(end, i), trays, node.key);
      return;
    }
    const own: Tray = { depth: node.depth, mark: node.mark, first: true, last: false };
    const inside: Tray = { ...own, first: false };
    rows.push({ key: node.key, node, fold: null, expandable, expanded, trays: [...trays, own], parent });
    walk(i + 1, elementAt(end, i), [...trays, inside], node.key);
    const last = elementAt(rows, rows.length - 1);
    rows[rows.length - 1] = {
      ...last,
      trays: last.trays.map((t) => (t.depth === node.depth ? { ...t, last: true } : t)),
    };
  };
  walk(0, nodes.length, [], null);
  return rows;
}

/** For each node the index behind the last one in it. */
function subtreeEnds(nodes: readonly TreeNode[]): Int32Array {
  const end = new Int32Array(nodes.length);
  const open: number[] = [];
  for (let i = 0; i <= nodes.length; i++) {
    const depth = nodes[i]?.depth ?? -1;
    while (open.length > 0 && elementAt(nodes, elementAt(open, open.length - 1)).depth >= depth)
      end[present(open.pop())] = i;
    open.push(i);
  }
  return end;
}

function previousInGroup(nodes: readonly TreeNode[], end: Int32Array, from: number, i: number, group: string): boolean {
  for (let k = from; k < i; k = elementAt(end, k)) if (nodes[k]?.group === group) return true;
  return false;
}

function restOfGroup(nodes: readonly TreeNode[], end: Int32Array, i: number, to: number, group: string): TreeNode[] {
  const rest: TreeNode[] = [];
  for (let k = elementAt(end, i); k < to && nodes[k]?.group === group; k = elementAt(end, k))
    rest.push(elementAt(nodes, k));
  return rest;
}

const ORDER: readonly Weight[] = ['must', 'should', 'note'];

function worst(nodes: readonly TreeNode[]): Weight | undefined {
  return ORDER.find((weight) => nodes.some((n) => n.weight === weight));
}
