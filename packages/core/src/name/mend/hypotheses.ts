import { elementAt } from '../../element';
import type { CompiledSlot } from '../pattern/ops';
import type { ChangeCode } from './candidates';

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
}

export interface Partial {
  readonly cost: number;
  readonly before: Partial | null;
  readonly move: Move | null;
  /** Of the text so far: hypotheses are compared far more often than they are written out. */
  readonly hash: number;
  readonly invented: boolean;
}

const KEPT = 3;

export function extend(before: Partial, move: Move | null, cost: number, invented: boolean): Partial {
  return {
    cost,
    before,
    move,
    hash: move === null ? before.hash : hashOn(before.hash, move.text),
    invented: before.invented || invented,
  };
}

/** Character by character, so that one text has one hash however it was pieced together. */
function hashOn(hash: number, text: string): number {
  let h = hash;
  for (let i = 0; i < text.length; i++) h = (Math.imul(h, 0x01000193) ^ (text.charCodeAt(i) + 1)) | 0;
  return h;
}

/** Keeps the few cheapest hypotheses that would write different names. */
export function keep(cell: Partial[], before: Partial, move: Move | null, cost: number, invented: boolean): void {
  const last = elementAt(cell, cell.length - 1);
  if (cell.length >= KEPT && last.cost <= cost) return;
  const partial = extend(before, move, cost, invented);
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
  return { cost: partial.cost, moves, name: moves.map((m) => m.text).join(''), invented: partial.invented };
}

export type Target =
  | { readonly kind: 'separator'; readonly text: string }
  | { readonly kind: 'word'; readonly text: string; readonly beforeVersion: boolean }
  | { readonly kind: 'slot'; readonly slot: CompiledSlot }
  | { readonly kind: 'enter'; readonly skipTo: number };
