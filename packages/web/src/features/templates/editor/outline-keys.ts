/** Which key does what in the outline. */
import type { KeyboardEvent } from 'react';
import type { Act, OutlineActs } from './outline-acts';
import type { OutlineRow } from './rows';

/** `Ctrl+Shift+Z`, `Alt+ArrowUp`, `Tab`. */
export function keyOf(event: KeyboardEvent): string {
  if (event.ctrlKey || event.metaKey) return `Ctrl+${event.shiftKey ? 'Shift+' : ''}${event.key.toUpperCase()}`;
  if (event.altKey) return `Alt+${event.key}`;
  return event.shiftKey ? `Shift+${event.key}` : event.key;
}

const WRITING: Readonly<Record<string, (acts: OutlineActs, row: OutlineRow) => Act>> = {
  Enter: (acts, row) => acts.addAfter(row),
  Tab: (acts, row) => acts.indent(row),
  'Shift+Tab': (acts, row) => acts.outdent(row),
  'Alt+ArrowUp': (acts, row) => acts.shift(row, -1),
  'Alt+ArrowDown': (acts, row) => acts.shift(row, 1),
  'Alt+ArrowRight': (acts, row) => acts.indent(row),
  'Alt+ArrowLeft': (acts, row) => acts.outdent(row),
  'Ctrl+D': (acts, row) => acts.duplicate(row),
  'Ctrl+G': (acts, row) => acts.group(row),
  'Ctrl+Shift+BACKSPACE': (acts, row) => acts.remove(row),
};

/** What a key writes, where the outline may be written in; `null` for keys that write nothing. */
export const writingOf = (key: string): ((acts: OutlineActs, row: OutlineRow) => Act) | null => WRITING[key] ?? null;

/** Where a key moves to: a place among the rows, and whether the selection grows. */
export function moveOf(
  key: string,
  at: number,
  count: number,
): { readonly to: number; readonly extend: boolean } | null {
  switch (key) {
    case 'ArrowUp':
      return { to: at - 1, extend: false };
    case 'ArrowDown':
      return { to: at + 1, extend: false };
    case 'Shift+ArrowUp':
      return { to: at - 1, extend: true };
    case 'Shift+ArrowDown':
      return { to: at + 1, extend: true };
    case 'Ctrl+HOME':
      return { to: 0, extend: false };
    case 'Ctrl+END':
      return { to: count - 1, extend: false };
    case 'Escape':
      return { to: at, extend: false };
    default:
      return null;
  }
}

/** Whether a row is closed or opened by a key: only where the caret has nowhere else to go in its name. */
export function foldingOf(key: string, row: OutlineRow, field: HTMLInputElement): 'open' | 'close' | null {
  if (key === 'ArrowLeft' && row.open && field.selectionStart === 0 && field.selectionEnd === 0) return 'close';
  if (key === 'ArrowRight' && row.holds > 0 && !row.open && field.selectionStart === field.value.length) return 'open';
  return null;
}
