/**
 * Lines of a plan, or of a change that was done, one under another, under headings where they are grouped. Arrows move;
 * Space takes a line or leaves it. Every page of planned changes shows this list.
 */
import { useVirtualizer } from '@tanstack/react-virtual';
import { Check } from 'lucide-react';
import {
  type KeyboardEvent,
  type ReactNode,
  type RefObject,
  useCallback,
  useEffect,
  useId,
  useMemo,
  useRef,
} from 'react';

export type ListItem<Line> =
  | {
      readonly kind: 'head';
      readonly key: string;
      readonly words: string;
      readonly note?: string;
      readonly isPath?: boolean;
    }
  | { readonly kind: 'line'; readonly key: string; readonly line: Line };

interface Props<Line> {
  readonly label: string;
  readonly items: readonly ListItem<Line>[];
  readonly selected: string | null;
  readonly onSelect: (key: string) => void;
  /** Pixels. A function must stay the same one: with another all lines are measured anew. */
  readonly height: number | ((line: Line) => number);
  readonly draw: (line: Line, isSelected: boolean) => ReactNode;
  /** `null` for a line that cannot be taken; absent where lines are not chosen. */
  readonly isChosen?: ((line: Line) => boolean | null) | undefined;
  readonly onChoose?: ((line: Line) => void) | undefined;
  /** Keys of the page work in it. */
  readonly hasPageKeys?: boolean;
  /** What the lines say may be another thing in a moment. */
  readonly isBusy?: boolean;
}

const HEAD = 32;

export function LineList<Line>(props: Props<Line>) {
  const { label, items, selected, onSelect, height, onChoose } = props;
  const id = useId();
  const scroller = useRef<HTMLDivElement>(null);
  const lines = useMemo(() => linesOf(items), [items]);
  const at = placeIn(lines, selected);
  const { latest, select } = useLatest(selected, onSelect);
  const virtual = useVirtualLines(scroller, items, height);
  const drawn = virtual.getVirtualItems();
  useEffect(() => virtual.measure(), [items]);
  useEffect(() => {
    if (selected !== null && at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
  }, [selected]);
  const onKey = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const from = placeIn(lines, latest());
    const item = items[from];
    if (event.key === ' ' && onChoose && item?.kind === 'line') {
      event.preventDefault();
      return onChoose(item.line);
    }
    const next = nextLine(lines, (lines.rankOf.get(from) ?? 1) - 1, event.key);
    if (next === null) return;
    event.preventDefault();
    select(next);
  };
  return (
    <div
      ref={scroller}
      // The list is longer than what is seen of it: the ring is drawn round what is seen.
      className="min-h-0 flex-1 overflow-auto rounded-tray outline-offset-[-2px] has-focus-visible:outline-2 has-focus-visible:outline-plum"
    >
      <div
        role="listbox"
        {...(props.hasPageKeys && { 'data-page-keys': true })}
        aria-label={label}
        aria-multiselectable={onChoose !== undefined}
        aria-busy={props.isBusy ?? false}
        tabIndex={0}
        // One that is not drawn cannot be pointed at.
        aria-activedescendant={drawn.some((one) => one.index === at) ? `${id}-${at}` : undefined}
        onKeyDown={onKey}
        className="relative outline-none"
        style={{ height: virtual.getTotalSize() }}
      >
        {drawn.map(({ key, index, start, size }) => {
          const item = items[index];
          const place = { top: start, height: size };
          if (item === undefined) return null;
          return item.kind === 'head' ? (
            <Head key={key} head={item} place={place} />
          ) : (
            <Option
              key={key}
              id={`${id}-${index}`}
              line={item.line}
              lineKey={item.key}
              place={place}
              rank={lines.rankOf.get(index) ?? 0}
              ranks={lines.items.length}
              isSelected={index === at}
              list={props}
            />
          );
        })}
      </div>
    </div>
  );
}

function useVirtualLines<Line>(
  scroller: RefObject<HTMLDivElement | null>,
  items: readonly ListItem<Line>[],
  height: Props<Line>['height'],
) {
  // All lines are measured anew where these are other functions: at each pixel of scrolling, if they were written below.
  const estimateSize = useCallback(
    (i: number) => {
      const item = items[i];
      if (item === undefined || item.kind === 'head') return HEAD;
      return typeof height === 'number' ? height : height(item.line);
    },
    [items, height],
  );
  const getItemKey = useCallback((i: number) => items[i]?.key ?? i, [items]);
  return useVirtualizer({
    count: items.length,
    getScrollElement: () => scroller.current,
    estimateSize,
    overscan: 10,
    getItemKey,
  });
}

/** The page follows in a moment. Whoever types faster goes on from what was selected last, and loses no press. */
function useLatest(selected: string | null, onSelect: (key: string) => void) {
  const ahead = useRef<readonly string[]>([]);
  useEffect(() => {
    const reached = ahead.current.lastIndexOf(selected ?? '');
    ahead.current = reached < 0 ? [] : ahead.current.slice(reached + 1);
  }, [selected]);
  const latest = () => ahead.current.at(-1) ?? selected;
  const select = (key: string) => {
    if (key === latest()) return;
    ahead.current = [...ahead.current, key];
    onSelect(key);
  };
  return { latest, select };
}

interface Lines {
  /** Places in the list of items. */
  readonly items: readonly number[];
  readonly keys: readonly string[];
  readonly itemOf: ReadonlyMap<string, number>;
  /** From 1: what a reader of the screen is told, of a list of which only a part is drawn. */
  readonly rankOf: ReadonlyMap<number, number>;
}

function linesOf<Line>(all: readonly ListItem<Line>[]): Lines {
  const items: number[] = [];
  const keys: string[] = [];
  const itemOf = new Map<string, number>();
  const rankOf = new Map<number, number>();
  for (const [at, item] of all.entries()) {
    if (item.kind === 'head') continue;
    items.push(at);
    keys.push(item.key);
    itemOf.set(item.key, at);
    rankOf.set(at, items.length);
  }
  return { items, keys, itemOf, rankOf };
}

/** Without a selected line the first one is meant. */
const placeIn = ({ items, itemOf }: Lines, selected: string | null): number =>
  itemOf.get(selected ?? '') ?? items[0] ?? -1;

function nextLine({ keys }: Lines, at: number, key: string): string | null {
  const to = {
    ArrowDown: at + 1,
    ArrowUp: at - 1,
    Home: 0,
    End: keys.length - 1,
    PageDown: at + 10,
    PageUp: at - 10,
  }[key];
  if (to === undefined) return null;
  return keys[Math.max(0, Math.min(keys.length - 1, to))] ?? null;
}

interface Place {
  readonly top: number;
  readonly height: number;
}

function Head({ head, place }: { head: Extract<ListItem<unknown>, { kind: 'head' }>; place: Place }) {
  return (
    <p
      role="presentation"
      className="absolute inset-x-0 flex items-end gap-3 px-1 pb-1 text-xs font-semibold text-ink2"
      style={place}
    >
      <span className={`truncate ${head.isPath ? 'font-mono' : ''}`}>{head.words}</span>
      <span aria-hidden className="mb-1.5 h-px flex-1 bg-line" />
      {head.note !== undefined && <span className="shrink-0 font-normal">{head.note}</span>}
    </p>
  );
}

interface OptionProps<Line> {
  readonly id: string;
  readonly line: Line;
  readonly lineKey: string;
  readonly place: Place;
  readonly rank: number;
  readonly ranks: number;
  readonly isSelected: boolean;
  readonly list: Props<Line>;
}

function Option<Line>({ id, line, lineKey, place, rank, ranks, isSelected, list }: OptionProps<Line>) {
  const { draw, onSelect, onChoose } = list;
  const isChosen = list.isChosen?.(line) ?? null;
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the list itself takes the keys
    // biome-ignore lint/a11y/useFocusableInteractive: the list points at it by aria-activedescendant
    <div
      id={id}
      role="option"
      aria-posinset={rank}
      aria-setsize={ranks}
      aria-selected={isChosen ?? isSelected}
      onClick={() => onSelect(lineKey)}
      onDoubleClick={() => onChoose?.(line)}
      className={`absolute inset-x-0 flex cursor-default items-center gap-3 rounded-tray px-3 ${isSelected ? 'bg-chosen ring-1 ring-plum ring-inset' : 'border-b border-line'}`}
      style={place}
    >
      {/* Drawn, for an option holds no control: Space and the click on it do the same. */}
      {list.isChosen !== undefined && (
        <span
          aria-hidden
          onClick={(event) => {
            event.stopPropagation();
            onSelect(lineKey);
            onChoose?.(line);
          }}
          className={`flex size-4 shrink-0 items-center justify-center rounded-[3px] border ${isChosen ? 'border-bottle bg-bottle text-on-bottle' : isChosen === null ? 'border-clear' : 'border-rule bg-sheet'}`}
        >
          {isChosen && <Check size={12} />}
        </span>
      )}
      {draw(line, isSelected)}
    </div>
  );
}
