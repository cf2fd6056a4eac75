/** The keys of a tree (WAI-ARIA tree pattern): arrows move, open and close; letters find a name that begins with them. */
import { elementAt } from '@nesting/core';
import { type KeyboardEvent, useRef } from 'react';
import type { TreeRow } from './flatten';

export const nameOf = (row: TreeRow): string => row.fold?.words ?? row.node.pieces.map((p) => p.text).join('');

interface Keys {
  readonly rows: readonly TreeRow[];
  /** Where the selected row stands; -1 for none. */
  readonly at: number;
  readonly onSelect: (key: string) => void;
  readonly onToggle: (row: TreeRow, open: boolean) => void;
  readonly onOpenAll: (rows: readonly TreeRow[]) => void;
}

export function useTreeKeys({ rows, at, onSelect, onToggle, onOpenAll }: Keys): (event: KeyboardEvent) => void {
  const sought = useTyped();
  const go = (index: number) => {
    const row = rows[Math.max(0, Math.min(rows.length - 1, index))];
    if (row) onSelect(row.key);
  };
  const find = (letter: string) => {
    const text = sought(letter);
    const from = text.length > 1 ? at : at + 1;
    const order = [...rows.keys()].map((i) => (Math.max(0, from) + i) % rows.length);
    const hit = order.find((i) => isCalled(elementAt(rows, i), text));
    if (hit !== undefined) go(hit);
  };
  const moves: Readonly<Record<string, number>> = {
    ArrowDown: at + 1,
    ArrowUp: at - 1,
    Home: 0,
    End: rows.length - 1,
  };
  /** Whether the key means something here. */
  const act = (key: string, row: TreeRow): boolean => {
    const to = moves[key];
    if (to !== undefined) go(to);
    else if (key === 'ArrowRight') {
      if (row.expandable && !row.expanded) onToggle(row, true);
      else if (row.expandable) go(at + 1);
    } else if (key === 'ArrowLeft') {
      if (row.expanded) onToggle(row, false);
      else if (row.parent !== null) onSelect(row.parent);
    } else if (key === 'Enter' || key === ' ') {
      if (row.expandable) onToggle(row, !row.expanded);
      else onSelect(row.key);
    } else if (key === '*') onOpenAll(rows.filter((r) => r.parent === row.parent && r.expandable));
    else if (key.length === 1 && key !== '?') find(key);
    else return false;
    return true;
  };
  return (event) => {
    const row = rows[Math.max(0, at)];
    if (row === undefined || event.ctrlKey || event.metaKey || event.altKey) return;
    if (act(event.key, row)) event.preventDefault();
  };
}

/** Numbers in front count for nothing. */
const isCalled = (row: TreeRow, text: string): boolean =>
  nameOf(row).toLowerCase().replace(/^\d+_/, '').startsWith(text);

/** Milliseconds after which a letter begins a new word. */
const TYPED_TOGETHER = 700;

/** Letters typed one soon after another are one word. */
function useTyped(): (letter: string) => string {
  const typed = useRef({ text: '', at: 0 });
  return (letter) => {
    const now = Date.now();
    const before = now - typed.current.at < TYPED_TOGETHER ? typed.current.text : '';
    typed.current = { text: before + letter.toLowerCase(), at: now };
    return typed.current.text;
  };
}
