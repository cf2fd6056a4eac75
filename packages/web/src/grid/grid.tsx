/**
 * Rows under headings, however many: only what is seen is drawn. Arrows move, Shift with them chooses several, Enter
 * opens; a heading sorts;
 * which columns are shown is remembered. Sorting, filtering and the chosen row are the page's, for they stand in its
 * address.
 */
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { type KeyboardEvent, type ReactNode, useEffect, useId, useRef, useState } from 'react';
import { Button, Menu } from '../ui';
import type { Sorting, SortKey } from './sort';

export interface GridColumn<T> {
  readonly id: string;
  readonly header: string;
  /** A track of a CSS grid. */
  readonly width: string;
  readonly cell: (row: T) => ReactNode;
  readonly sort?: (row: T) => SortKey;
  /** Left out until somebody asks for it. */
  readonly hidden?: true;
}

interface Props<T> {
  readonly id: string;
  readonly label: string;
  readonly columns: readonly GridColumn<T>[];
  readonly rows: readonly T[];
  readonly keyOf: (row: T) => string;
  readonly chosen: readonly string[];
  readonly onChoose: (keys: readonly string[]) => void;
  readonly onOpen?: (row: T) => void;
  readonly sorting?: Sorting;
  readonly onSort?: (sorting: Sorting) => void;
  /** Called when the end comes into sight, for lists that come page by page. */
  readonly onEnd?: () => void;
  readonly empty: ReactNode;
  readonly rowHeight?: number;
}

const ROW = 30;

export function Grid<T>({
  id,
  label,
  columns,
  rows,
  keyOf,
  chosen,
  onChoose,
  onOpen,
  sorting,
  onSort,
  onEnd,
  empty,
  rowHeight = ROW,
}: Props<T>) {
  const [shown, toggle] = useColumns(id, columns);
  const tracks = shown.map((c) => c.width).join(' ');
  const dom = useId();
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 10,
  });
  const current = chosen.at(-1) ?? null;
  const at = current === null ? -1 : rows.findIndex((r) => keyOf(r) === current);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
  }, [current, at]);
  const items = virtual.getVirtualItems();
  const last = items.at(-1)?.index ?? -1;
  useEffect(() => {
    if (last >= rows.length - 1 && rows.length > 0) onEnd?.();
  }, [last, rows.length, onEnd]);
  const go = (index: number, extend: boolean) => {
    const row = rows[Math.max(0, Math.min(rows.length - 1, index))];
    if (row === undefined) return;
    const key = keyOf(row);
    onChoose(extend ? [...chosen.filter((k) => k !== key), key] : [key]);
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey || isWriting(event.target)) return;
    const page = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 300) / rowHeight) - 1);
    const to = {
      ArrowDown: at + 1,
      ArrowUp: at - 1,
      Home: 0,
      End: rows.length - 1,
      PageDown: at + page,
      PageUp: at - page,
    }[event.key];
    if (to !== undefined) go(to, event.shiftKey);
    else if (event.key === 'Enter' && event.target === event.currentTarget && at >= 0 && onOpen) onOpen(rows[at] as T);
    else return;
    event.preventDefault();
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div
        ref={scroller}
        role="grid"
        aria-label={label}
        aria-rowcount={rows.length}
        aria-multiselectable
        tabIndex={0}
        aria-activedescendant={at >= 0 && items.some((i) => i.index === at) ? `${dom}-${at}` : undefined}
        onKeyDown={onKey}
        className="min-h-0 flex-1 overflow-auto rounded-tray border border-line bg-sheet text-sm outline-offset-[-2px]"
      >
        <div
          role="row"
          className="sticky top-0 z-10 grid gap-x-3 border-b border-line bg-bench px-2 py-1.5"
          style={{ gridTemplateColumns: tracks }}
        >
          {shown.map((c) => {
            const is = sorting?.by === c.id ? (sorting.down ? 'descending' : 'ascending') : 'none';
            return (
              <span key={c.id} role="columnheader" aria-sort={is} className="min-w-0 font-semibold whitespace-nowrap">
                {c.sort && onSort ? (
                  <button
                    type="button"
                    onClick={() => onSort({ by: c.id, down: is === 'ascending' })}
                    className="flex items-center gap-1"
                  >
                    {c.header}
                    {is === 'ascending' && <ArrowUp size={12} aria-hidden />}
                    {is === 'descending' && <ArrowDown size={12} aria-hidden />}
                  </button>
                ) : (
                  c.header
                )}
              </span>
            );
          })}
        </div>
        <div role="rowgroup" className="relative" style={{ height: virtual.getTotalSize() }}>
          {items.map((item) => {
            const row = rows[item.index] as T;
            const key = keyOf(row);
            const is = chosen.includes(key);
            return (
              // biome-ignore lint/a11y/useKeyWithClickEvents: the grid itself takes the keys
              <div
                key={key}
                id={`${dom}-${item.index}`}
                role="row"
                aria-rowindex={item.index + 1}
                aria-selected={is}
                onClick={(e) => {
                  if (isControl(e.target)) return;
                  onChoose(
                    e.ctrlKey || e.metaKey
                      ? is
                        ? chosen.filter((k) => k !== key)
                        : [...chosen, key]
                      : e.shiftKey && at >= 0
                        ? rows.slice(Math.min(at, item.index), Math.max(at, item.index) + 1).map(keyOf)
                        : [key],
                  );
                }}
                onDoubleClick={(e) => isControl(e.target) || onOpen?.(row)}
                className={`absolute inset-x-0 grid cursor-default items-center gap-x-3 border-b border-line px-2 ${is ? 'bg-chosen ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`}
                style={{ top: item.start, height: item.size, gridTemplateColumns: tracks }}
              >
                {shown.map((c) => (
                  <span key={c.id} role="gridcell" className="min-w-0 truncate">
                    {c.cell(row)}
                  </span>
                ))}
              </div>
            );
          })}
        </div>
        {rows.length === 0 && <div className="px-3 py-8 text-ink2">{empty}</div>}
      </div>
      {columns.length > 2 && (
        <div className="flex justify-end pt-1">
          <Menu
            stay
            trigger={
              <Button look="quiet" className="h-6!">
                Columns…
              </Button>
            }
            lines={columns.map((c) => ({ words: c.header, run: () => toggle(c.id), chosen: shown.includes(c) }))}
          />
        </div>
      )}
    </div>
  );
}

/** What does something of its own when it is clicked: the row is not chosen by it. */
const isControl = (target: EventTarget): boolean =>
  target instanceof Element && target.closest('a, button, input, select, textarea') !== null;

const isWriting = (target: EventTarget): boolean =>
  target instanceof Element && target.closest('input, select, textarea') !== null;

/** Which columns are shown, kept for each list in this browser; one stays whatever is taken away. */
function useColumns<T>(
  id: string,
  columns: readonly GridColumn<T>[],
): [readonly GridColumn<T>[], (column: string) => void] {
  const key = `nesting-columns-${id}`;
  const [toggled, setToggled] = useState<readonly string[]>(() => {
    try {
      return JSON.parse(localStorage.getItem(key) ?? '[]') as string[];
    } catch {
      return [];
    }
  });
  const shown = columns.filter((c) => (c.hidden === true) === toggled.includes(c.id));
  const toggle = (column: string) => {
    const next = toggled.includes(column) ? toggled.filter((t) => t !== column) : [...toggled, column];
    if (columns.every((c) => (c.hidden === true) !== next.includes(c.id))) return;
    localStorage.setItem(key, JSON.stringify(next));
    setToggled(next);
  };
  return [shown.length === 0 ? columns.slice(0, 1) : shown, toggle];
}
