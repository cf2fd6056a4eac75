/**
 * A pattern as a row of items that can be moved, taken out and put in: each slot or group with the separator before it
 * and the word that
 * belongs to it (`_v{version:000}`). What is rearranged is the text itself, so that pattern and row are one thing.
 */
import { type Pattern, type Slot, slotsOf } from './ast';

export interface Item {
  /** What stands between this item and the one before it, as source; the first item has none. */
  readonly before: string;
  /** The slot or group as source, the words that belong to it included. */
  readonly source: string;
  /** The slot it is made of; the first one of a group. */
  readonly slot: Slot;
  readonly optional: boolean;
}

export interface Row {
  readonly items: readonly Item[];
  /** Words behind the last item. */
  readonly tail: string;
}

export function rowOf({ parts, source }: Pattern): Row {
  const items: Item[] = [];
  let words = '';
  for (const part of parts) {
    const text = source.slice(part.at, part.end);
    const slot = part.kind === 'literal' ? undefined : slotsOf([part])[0];
    if (slot === undefined) {
      words += text;
      continue;
    }
    // `_MST_v` before a slot: `_` parts, `MST_v` belongs to what follows.
    const before = items.length === 0 ? '' : (/^[^\p{L}\p{N}{}()]+/u.exec(words)?.[0] ?? '');
    items.push({ before, source: words.slice(before.length) + text, slot, optional: part.kind === 'group' });
    words = '';
  }
  return { items, tail: words };
}

export const printRow = ({ items, tail }: Row): string =>
  items.map((item) => item.before + item.source).join('') + tail;

/**
 * The item at `from` stands at `to` afterwards. Separators go with their items; who leaves the front takes the usual
 * one.
 */
export function moveItem(row: Row, from: number, to: number): Row {
  const items = [...row.items];
  const [moved] = items.splice(from, 1);
  if (moved === undefined) return row;
  items.splice(to, 0, moved);
  return { ...row, items: settled(items, row) };
}

export const removeItem = (row: Row, at: number): Row => ({
  ...row,
  items: settled(
    row.items.filter((_, i) => i !== at),
    row,
  ),
});

/** Puts a slot's source in before the extension, where there is one, else at the end. */
export function addItem(row: Row, source: string, field: string): Row {
  const last = row.items.at(-1);
  const at = last?.slot.field === 'ext' && field !== 'ext' ? row.items.length - 1 : row.items.length;
  const slot: Slot = { kind: 'slot', field, property: null, shape: null, at: 0, end: source.length };
  const item: Item = { before: field === 'ext' || field === 'frame' ? '.' : usual(row), source, slot, optional: false };
  return { ...row, items: settled([...row.items.slice(0, at), item, ...row.items.slice(at)], row) };
}

/** The first item has no separator, and no other is without one that had none only because it was first. */
function settled(items: readonly Item[], { items: before }: Row): Item[] {
  const front = before[0];
  return items.map((item, i) => {
    if (i === 0) return item.before === '' ? item : { ...item, before: '' };
    return item === front && !item.optional && item.before === ''
      ? { ...item, before: usual({ items: before, tail: '' }) }
      : item;
  });
}

/** The separator most items have; an underscore where none has any. */
function usual({ items }: Row): string {
  const counts = new Map<string, number>();
  for (const { before, optional } of items.slice(1))
    if (before !== '' && before !== '.' && !optional) counts.set(before, (counts.get(before) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? '_';
}
