/**
 * The nest: trays within trays, sized by the number of things in them. A squarified treemap over the first levels of a
 * hierarchy.
 */
import { elementAt } from '@nesting/core';
import type { Mark } from '@nesting/core/template';

export interface NestNode {
  readonly key: string;
  readonly name: string;
  readonly mark: Mark | null;
  readonly state: 'planned' | 'there' | 'absent' | 'unplanned';
  /** Things in it, itself counted. */
  readonly size: number;
  readonly children: readonly NestNode[];
  readonly signs?: number;
}

export interface NestBox extends Box {
  readonly node: NestNode;
  readonly depth: number;
}

interface Box {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/**
 * Boxes, outer ones first. `depth` levels at the most; what becomes too small is left out. `label` is the height kept
 * for names.
 */
export function layoutNest(
  root: NestNode,
  width: number,
  height: number,
  depth: number,
  gap: number,
  label = 0,
): NestBox[] {
  const out: NestBox[] = [];
  const place = (node: NestNode, box: Box, level: number): void => {
    out.push({ ...box, node, depth: level });
    if (level >= depth || node.children.length === 0) return;
    // Room for the name over what is in it, where there is any.
    const head = (level === 1 || (level > 1 && depth > 3)) && box.h > 3 * label && box.w > 34 ? label : 0;
    const inner: Box = { x: box.x + gap, y: box.y + gap + head, w: box.w - 2 * gap, h: box.h - 2 * gap - head };
    if (inner.w < 5 || inner.h < 5) return;
    squarify(node.children, inner, gap).forEach((b, i) => {
      if (b.w >= 2.5 && b.h >= 2.5) place(elementAt(node.children, i), b, level + 1);
    });
  };
  place(root, { x: 0, y: 0, w: width, h: height }, 0);
  return out;
}

/** Rows of boxes as near to squares as they can be, in the order of the template: a project is recognised by it. */
function squarify(nodes: readonly NestNode[], box: Box, gap: number): Box[] {
  // The root of a count keeps small folders visible beside large ones.
  const weights = nodes.map((n) => Math.sqrt(n.size) + 0.6);
  const total = weights.reduce((a, b) => a + b, 0);
  const scale = (box.w * box.h) / total;
  const areas = weights.map((w) => w * scale);
  const out: Box[] = [];
  let { x, y, w, h } = box;
  for (let i = 0; i < areas.length; ) {
    const side = Math.min(w, h);
    let count = 1;
    while (
      i + count < areas.length &&
      worst(areas.slice(i, i + count + 1), side) <= worst(areas.slice(i, i + count), side)
    )
      count++;
    const row = areas.slice(i, i + count);
    const sum = row.reduce((a, b) => a + b, 0);
    const across = w >= h;
    const thick = i + count >= areas.length ? (across ? w : h) : sum / side;
    let at = 0;
    for (const area of row) {
      const long = (area / sum) * side;
      out.push(
        across ? { x, y: y + at, w: thick - gap, h: long - gap } : { x: x + at, y, w: long - gap, h: thick - gap },
      );
      at += long;
    }
    if (across) {
      x += thick;
      w -= thick;
    } else {
      y += thick;
      h -= thick;
    }
    i += count;
  }
  return out.map((b) => ({ ...b, w: Math.max(0, b.w), h: Math.max(0, b.h) }));
}

function worst(row: readonly number[], side: number): number {
  const sum = row.reduce((a, b) => a + b, 0);
  const max = Math.max(...row);
  const min = Math.min(...row);
  return Math.max((side * side * max) / (sum * sum), (sum * sum) / (side * side * min));
}
