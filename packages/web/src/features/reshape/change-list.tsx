/**
 * Lines of a plan or of a batch one under another: what each is now, what it becomes. Arrows move; Space chooses where
 * several can be chosen.
 */
import { elementAt } from '@nesting/core';
import { nameOf, parentOf } from '@nesting/core/listing';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Check } from 'lucide-react';
import { type KeyboardEvent, useEffect, useId, useRef } from 'react';
import { LineSign, SIGN_WORDS, type Sign } from './line-signs';

export interface ListedChange {
  readonly key: string;
  readonly what: 'folder' | 'file';
  readonly sign: Sign;
  readonly before: string | null;
  readonly after: string | null;
  readonly count: number;
  /** Stands at the right in place of the sign's word. */
  readonly note?: string | undefined;
}

interface Props {
  readonly label: string;
  readonly lines: readonly ListedChange[];
  readonly selected: string | null;
  readonly onSelect: (key: string) => void;
  readonly chosen?: ReadonlySet<string>;
  readonly onChoose?: (key: string) => void;
}

const ROW = 46;
/** The name it had stands above the one it gets, so that neither is cut. */
const RENAMED = 62;

const isRenamed = (line: ListedChange | undefined): boolean =>
  line !== undefined && line.before !== null && line.after !== null && nameOf(line.before) !== nameOf(line.after);

export function ChangeList({ label, lines, selected, onSelect, chosen, onChoose }: Props) {
  const id = useId();
  const scroller = useRef<HTMLDivElement>(null);
  const at = Math.max(
    0,
    lines.findIndex((l) => l.key === selected),
  );
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => (isRenamed(lines[i]) ? RENAMED : ROW),
    overscan: 10,
  });
  useEffect(() => {
    if (selected !== null) virtual.scrollToIndex(at, { align: 'auto' });
  }, [selected]);
  const onKey = (event: KeyboardEvent) => {
    if (event.key === ' ' && onChoose && lines[at]) {
      event.preventDefault();
      return onChoose(lines[at].key);
    }
    const to = {
      ArrowDown: at + 1,
      ArrowUp: at - 1,
      Home: 0,
      End: lines.length - 1,
      PageDown: at + 10,
      PageUp: at - 10,
    }[event.key];
    const next =
      to === undefined || event.ctrlKey || event.metaKey
        ? undefined
        : lines[Math.max(0, Math.min(lines.length - 1, to))];
    if (next === undefined) return;
    event.preventDefault();
    onSelect(next.key);
  };
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto">
      <div
        role="listbox"
        aria-label={label}
        aria-multiselectable={onChoose !== undefined}
        tabIndex={0}
        aria-activedescendant={lines[at] ? `${id}-${at}` : undefined}
        onKeyDown={onKey}
        className="relative outline-offset-[-2px]"
        style={{ height: virtual.getTotalSize() }}
      >
        {virtual.getVirtualItems().map((item) => {
          const line = elementAt(lines, item.index);
          return (
            <Option
              key={line.key}
              id={`${id}-${item.index}`}
              line={line}
              top={item.start}
              height={item.size}
              isSelected={line.key === selected}
              isChosen={chosen?.has(line.key) ?? null}
              onSelect={onSelect}
              onChoose={onChoose}
            />
          );
        })}
      </div>
    </div>
  );
}

function Names({ line }: { line: ListedChange }) {
  const { before, after, what } = line;
  const path = after ?? before ?? '';
  const slash = what === 'folder' ? '/' : '';
  const renamed = isRenamed(line);
  const moved = before !== null && after !== null && parentOf(before) !== parentOf(after);
  return (
    <>
      {renamed && before !== null && (
        <span className="block truncate font-mono text-xs text-ink2" title={before}>
          {nameOf(before)}
          {slash}
        </span>
      )}
      <span className="block truncate font-mono text-sm" title={path}>
        {renamed && <span className="text-plum">→ </span>}
        <span className={renamed ? 'font-semibold' : ''}>
          {nameOf(path)}
          {slash}
        </span>
      </span>
      <span className="block truncate font-mono text-xs text-ink2" title={parentOf(path)}>
        {moved && !renamed ? `${parentOf(before).split('/').join(' / ')} → ` : ''}
        {parentOf(path).split('/').join(' / ') || "the project's root"}
      </span>
    </>
  );
}

interface OptionProps {
  readonly id: string;
  readonly line: ListedChange;
  readonly top: number;
  readonly height: number;
  readonly isSelected: boolean;
  /** `null` where lines are not chosen. */
  readonly isChosen: boolean | null;
  readonly onSelect: (key: string) => void;
  readonly onChoose: ((key: string) => void) | undefined;
}

function Option({ id, line, top, height, isSelected, isChosen, onSelect, onChoose }: OptionProps) {
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the list itself takes the keys
    // biome-ignore lint/a11y/useFocusableInteractive: the list points at it by aria-activedescendant
    <div
      id={id}
      role="option"
      aria-selected={isChosen ?? isSelected}
      onClick={() => onSelect(line.key)}
      onDoubleClick={() => onChoose?.(line.key)}
      className={`absolute inset-x-0 flex cursor-default items-center gap-3 rounded-tray px-3 ${isSelected ? 'bg-chosen ring-1 ring-plum ring-inset' : 'border-b border-line'}`}
      style={{ top, height }}
    >
      {/* Drawn, for an option holds no control: Space and the click on it do the same. */}
      {isChosen !== null && (
        <span
          aria-hidden
          onClick={() => onChoose?.(line.key)}
          className={`flex size-4 shrink-0 items-center justify-center rounded-[3px] border ${isChosen ? 'border-bottle bg-bottle text-on-bottle' : 'border-rule bg-sheet'}`}
        >
          {isChosen && <Check size={12} />}
        </span>
      )}
      <LineSign sign={line.sign} />
      <span className="min-w-0 flex-1">
        <Names line={line} />
      </span>
      <span className={`shrink-0 text-xs ${line.sign === 'taken' ? 'font-semibold text-brick' : 'text-ink2'}`}>
        {line.note ?? SIGN_WORDS[line.sign]}
        {line.count > 1 ? `, ${line.count} frames as one` : ''}
      </span>
    </div>
  );
}
