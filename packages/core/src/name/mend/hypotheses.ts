import { elementAt } from '../../element';
import type { CompiledSlot } from '../pattern/ops';
import type { ChangeCode } from './costs';

/** One piece of the explanation: which stretch of the name was laid to which target, and what it should read. */
export interface Move {
  readonly target: Target | null;
  readonly at: number;
  readonly end: number;
  readonly text: string;
  readonly change: ChangeCode | null;
}

export interface Hypothesis {
  readonly cost: number;
  readonly moves: readonly Move[];
  readonly name: string;
  /** Something had to be made up, or nothing is known to stand in a place. */
  readonly invented: boolean;
  /** Something of it may as well have been meant as it stood. */
  readonly doubtful: boolean;
}

/**
 * A way on from one place: to which atom, at what cost, by which move. Worked out once for a target and place, for all
 * caps.
 */
export interface Step {
  readonly to: number;
  readonly cost: number;
  readonly move: Move;
  readonly invented: boolean;
  readonly doubtful: boolean;
}

export interface Partial {
  readonly cost: number;
  readonly before: Partial | null;
  readonly move: Move | null;
  /** Of the text so far: hypotheses are compared far more often than they are written out. */
  readonly hash: number;
  readonly invented: boolean;
  readonly doubtful: boolean;
}

const KEPT = 3;

/** How one goes on: by a move, or by none where a group is entered or left out. */
export interface Way {
  readonly move: Move | null;
  readonly invented: boolean;
  readonly doubtful: boolean;
}

export function extend(before: Partial, { move, invented, doubtful }: Way, cost: number): Partial {
  return {
    cost,
    before,
    move,
    hash: move === null ? before.hash : hashOn(before.hash, move.text),
    invented: before.invented || invented,
    doubtful: before.doubtful || doubtful,
  };
}

/** Character by character, so that one text has one hash however it was pieced together. */
function hashOn(hash: number, text: string): number {
  let h = hash;
  for (let i = 0; i < text.length; i++) h = (Math.imul(h, 0x01000193) ^ (text.charCodeAt(i) + 1)) | 0;
  return h;
}

/** Keeps the few cheapest hypotheses that would write different names. */
export function keep(cell: Partial[], before: Partial, way: Way, cost: number): void {
  const last = elementAt(cell, cell.length - 1);
  if (cell.length >= KEPT && last.cost <= cost) return;
  const partial = extend(before, way, cost);
  const alike = cell.findIndex((p) => p.hash === partial.hash);
  if (alike >= 0) {
    if (elementAt(cell, alike).cost <= cost) return;
    cell.splice(alike, 1);
  }
  const at = cell.findIndex((p) => p.cost > cost);
  cell.splice(at < 0 ? cell.length : at, 0, partial);
  if (cell.length > KEPT) cell.pop();
}

export function finish(partial: Partial): Hypothesis {
  const moves: Move[] = [];
  for (let p: Partial | null = partial; p !== null; p = p.before) if (p.move !== null) moves.push(p.move);
  moves.reverse();
  const { cost, invented, doubtful } = partial;
  return { cost, moves, name: moves.map((m) => m.text).join(''), invented, doubtful };
}

export type Target =
  | { readonly kind: 'separator'; readonly text: string }
  | {
      readonly kind: 'word';
      readonly text: string;
      /** The field of the number or letter right behind it. */
      readonly counts: string | null;
    }
  | { readonly kind: 'slot'; readonly slot: CompiledSlot }
  | { readonly kind: 'enter'; readonly skipTo: number };
