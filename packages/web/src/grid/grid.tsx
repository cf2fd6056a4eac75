/**
 * Rows under headings, however many: only what is seen is drawn. Arrows move, Shift with them chooses several, Enter
 * opens; a heading sorts;
 * which columns are shown is remembered. Sorting, filtering and the chosen row are the page's, for they stand in its
 * address.
 */

import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp } from 'lucide-react';
import {
  type CSSProperties,
  type KeyboardEvent,
  type MouseEvent,
  type ReactNode,
  useEffect,
  useId,
  useRef,
  useState,
} from 'react';
import { z } from 'zod';
import { readKept } from '../app/kept';
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

export function Grid<T>(given: Props<T>) {
  const { id, label, columns, rows, keyOf, chosen, onEnd, empty, rowHeight = ROW } = given;
  // The address follows a moment later than a click or a key: the next key goes on from what was chosen last.
  const latest = useRef(chosen);
  useEffect(() => {
    latest.current = chosen;
  }, [chosen]);
  const onChoose = (keys: readonly string[]) => {
    latest.current = keys;
    given.onChoose(keys);
  };
  const placeOfLatest = () => rows.findIndex((r) => keyOf(r) === latest.current.at(-1));
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
  const page = () => Math.max(1, Math.floor((scroller.current?.clientHeight ?? 300) / rowHeight) - 1);
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
        onKeyDown={(event) => onGridKey(event, { ...given, chosen: latest.current, onChoose }, placeOfLatest(), page())}
        className="min-h-0 flex-1 overflow-auto rounded-tray border border-line bg-sheet text-sm outline-offset-[-2px]"
      >
        <Head columns={shown} tracks={tracks} sorting={given.sorting} onSort={given.onSort} />
        <div role="rowgroup" className="relative" style={{ height: virtual.getTotalSize() }}>
          {items.flatMap((item) => {
            const row = rows[item.index];
            if (row === undefined) return [];
            return (
              <Row
                key={keyOf(row)}
                id={`${dom}-${item.index}`}
                row={row}
                index={item.index}
                columns={shown}
                isChosen={chosen.includes(keyOf(row))}
                style={{ top: item.start, height: item.size, gridTemplateColumns: tracks }}
                onChoose={(event) => onChoose(chosenBy(event, given, at, item.index))}
                onOpen={given.onOpen}
              />
            );
          })}
        </div>
        {rows.length === 0 && <div className="px-3 py-8 text-ink2">{empty}</div>}
      </div>
      {columns.length > 2 && <ColumnMenu columns={columns} shown={shown} onToggle={toggle} />}
    </div>
  );
}

/** Arrows, Home, End and pages move; Shift with them chooses several; Enter opens. */
function onGridKey<T>(event: KeyboardEvent, props: Props<T>, at: number, page: number): void {
  if (event.ctrlKey || event.metaKey || event.altKey || isWriting(event.target)) return;
  const { rows, keyOf, chosen, onChoose, onOpen } = props;
  const to = {
    ArrowDown: at + 1,
    ArrowUp: at - 1,
    Home: 0,
    End: rows.length - 1,
    PageDown: at + page,
    PageUp: at - page,
  }[event.key];
  const row = rows[Math.max(0, Math.min(rows.length - 1, to ?? at))];
  if (row === undefined) return;
  const key = keyOf(row);
  if (to !== undefined) onChoose(event.shiftKey ? [...chosen.filter((k) => k !== key), key] : [key]);
  else if (event.key === 'Enter' && event.target === event.currentTarget && at >= 0 && onOpen) onOpen(row);
  else return;
  event.preventDefault();
}

/** What is chosen after a click: one more with Ctrl, a stretch with Shift, else this one alone. */
function chosenBy<T>(event: MouseEvent, props: Props<T>, at: number, index: number): readonly string[] {
  const { rows, keyOf, chosen } = props;
  const row = rows[index];
  const key = row === undefined ? '' : keyOf(row);
  if (event.ctrlKey || event.metaKey) return chosen.includes(key) ? chosen.filter((k) => k !== key) : [...chosen, key];
  if (event.shiftKey && at >= 0) return rows.slice(Math.min(at, index), Math.max(at, index) + 1).map(keyOf);
  return [key];
}

interface HeadProps<T> {
  readonly columns: readonly GridColumn<T>[];
  readonly tracks: string;
  readonly sorting: Sorting | undefined;
  readonly onSort: ((sorting: Sorting) => void) | undefined;
}

function Head<T>({ columns, tracks, sorting, onSort }: HeadProps<T>) {
  return (
    <div
      role="row"
      className="sticky top-0 z-10 grid gap-x-3 border-b border-line bg-bench px-2 py-1.5"
      style={{ gridTemplateColumns: tracks }}
    >
      {columns.map((c) => {
        const order = sorting?.by === c.id ? (sorting.down ? 'descending' : 'ascending') : 'none';
        return (
          <span key={c.id} role="columnheader" aria-sort={order} className="min-w-0 font-semibold whitespace-nowrap">
            {c.sort && onSort ? (
              <button
                type="button"
                onClick={() => onSort({ by: c.id, down: order === 'ascending' })}
                className="flex items-center gap-1"
              >
                {c.header}
                {order === 'ascending' && <ArrowUp size={12} aria-hidden />}
                {order === 'descending' && <ArrowDown size={12} aria-hidden />}
              </button>
            ) : (
              c.header
            )}
          </span>
        );
      })}
    </div>
  );
}

interface RowProps<T> {
  readonly id: string;
  readonly row: T;
  readonly index: number;
  readonly columns: readonly GridColumn<T>[];
  readonly isChosen: boolean;
  readonly style: CSSProperties;
  readonly onChoose: (event: MouseEvent) => void;
  readonly onOpen: ((row: T) => void) | undefined;
}

function Row<T>({ id, row, index, columns, isChosen, style, onChoose, onOpen }: RowProps<T>) {
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the grid itself takes the keys
    <div
      id={id}
      role="row"
      aria-rowindex={index + 1}
      aria-selected={isChosen}
      onClick={(e) => isControl(e.target) || onChoose(e)}
      onDoubleClick={(e) => isControl(e.target) || onOpen?.(row)}
      className={`absolute inset-x-0 grid cursor-default items-center gap-x-3 border-b border-line px-2 ${isChosen ? 'bg-chosen ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`}
      style={style}
    >
      {columns.map((c) => (
        <span key={c.id} role="gridcell" className="min-w-0 truncate">
          {c.cell(row)}
        </span>
      ))}
    </div>
  );
}

function ColumnMenu<T>({
  columns,
  shown,
  onToggle,
}: {
  columns: readonly GridColumn<T>[];
  shown: readonly GridColumn<T>[];
  onToggle: (column: string) => void;
}) {
  return (
    <div className="flex justify-end pt-1">
      <Menu
        stay
        trigger={
          <Button variant="quiet" className="h-6!">
            Columns…
          </Button>
        }
        lines={columns.map((c) => ({ words: c.header, run: () => onToggle(c.id), chosen: shown.includes(c) }))}
      />
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
  const [toggled, setToggled] = useState<readonly string[]>(() => readKept(key, z.array(z.string()), []));
  const shown = columns.filter((c) => (c.hidden === true) === toggled.includes(c.id));
  const toggle = (column: string) => {
    const next = toggled.includes(column) ? toggled.filter((t) => t !== column) : [...toggled, column];
    if (columns.every((c) => (c.hidden === true) !== next.includes(c.id))) return;
    localStorage.setItem(key, JSON.stringify(next));
    setToggled(next);
  };
  return [shown.length === 0 ? columns.slice(0, 1) : shown, toggle];
}
