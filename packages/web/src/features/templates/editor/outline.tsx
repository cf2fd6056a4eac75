/**
 * The hierarchy as an outline one writes in: a name, Enter for the next, Tab to go in, Shift+Tab to come out,
 * Alt+arrows to move; a pasted list becomes a tree. The selected row is a field; only what is seen is drawn.
 */
import { DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { blocksOf, type FolderNode, type Template } from '@nesting/core/template';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type ClipboardEvent, type KeyboardEvent, type RefObject, useLayoutEffect, useMemo, useRef } from 'react';
import { type Act, OutlineActs } from './outline-acts';
import { foldingOf, keyOf, moveOf, writingOf } from './outline-keys';
import { OutlineRowLine, ROW, type RowSample } from './outline-row';
import { type OutlineRow, rowsOf } from './rows';

interface Props {
  readonly template: Template;
  /** The hierarchy being written: the template's own, or a block's. */
  readonly root: FolderNode;
  readonly selected: readonly string[];
  readonly onSelect: (ids: readonly string[]) => void;
  /** `typing` is the row whose name is being written; `null` for an act of its own. */
  readonly onChange: ((root: FolderNode, typing: string | null) => void) | null;
  readonly closed: ReadonlySet<string>;
  readonly onClose: (id: string, closed: boolean) => void;
  readonly faults: ReadonlyMap<string, string>;
  readonly sample: ReadonlyMap<string, RowSample> | null;
  readonly sought: string;
  readonly onUndo: (redo: boolean) => void;
  readonly onSaid: (words: string) => void;
}

export function Outline(props: Props) {
  const { template, root, selected, closed, sought } = props;
  const blocks = useMemo(() => blocksOf(template), [template]);
  const rows = useMemo(() => rowsOf(template, root, closed), [template, root, closed]);
  const shown = useMemo(() => rows.filter((row) => isSought(row, sought.toLowerCase())), [rows, sought]);
  const box = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  const current = selected.at(-1) ?? root.id;
  const at = shown.findIndex((r) => r.id === current);
  const follow = useFollowedSelection(box, current, at, virtual.scrollToIndex);
  const acts = new OutlineActs(root, blocks, shown, selected);
  const writing = useWriting(props, shown, at, acts, follow);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  return (
    <DndContext sensors={sensors} onDragEnd={writing.drop}>
      <div ref={box} className="min-h-0 flex-1 overflow-auto">
        <div
          role="tree"
          aria-label="The hierarchy"
          aria-multiselectable
          className="relative"
          style={{ height: Math.max(ROW, virtual.getTotalSize()) }}
        >
          {virtual.getVirtualItems().flatMap((item) => {
            const row = shown[item.index];
            if (row === undefined) return [];
            return (
              <OutlineRowLine
                key={row.id}
                row={row}
                top={item.start}
                current={row.id === current}
                chosen={selected.includes(row.id)}
                writable={props.onChange !== null}
                fault={props.faults.get(row.id)}
                sample={props.sample?.get(row.id)}
                onPick={(extend) => writing.pick(extend ? toggled(selected, row.id) : [row.id])}
                onName={(name) => props.onChange?.(acts.rename(row, name), row.id)}
                onKey={(e) => writing.key(e, row)}
                onPaste={(e) => writing.paste(e, row)}
                onToggle={() => props.onClose(row.id, row.open)}
              />
            );
          })}
        </div>
      </div>
    </DndContext>
  );
}

const toggled = (selected: readonly string[], id: string): readonly string[] =>
  selected.includes(id) ? selected.filter((one) => one !== id) : [...selected, id];

const isSought = ({ prefix, node }: OutlineRow, sought: string): boolean =>
  sought === '' || `${prefix}${node.name ?? node.block ?? ''} ${node.purpose ?? ''}`.toLowerCase().includes(sought);

/** Where the selection goes, sight and caret follow; not when the page is only opened. Gives what announces a move. */
function useFollowedSelection(
  box: RefObject<HTMLDivElement | null>,
  current: string,
  at: number,
  scrollTo: (index: number, options: { align: 'auto' | 'center' }) => void,
): () => void {
  const moved = useRef(false);
  useLayoutEffect(() => {
    if (!moved.current) return;
    const focus = (): void => {
      const field = box.current?.querySelector<HTMLInputElement>(`input[data-row="${CSS.escape(current)}"]`);
      if (!field) return;
      moved.current = false;
      if (field !== document.activeElement) field.focus();
    };
    if (at >= 0) scrollTo(at, { align: 'auto' });
    // At once, so that no key typed next is lost; a frame later where the row is only then in sight.
    focus();
    if (moved.current) requestAnimationFrame(focus);
  });
  // The selection an address names is brought into sight when the page is opened.
  const opened = useRef(false);
  useLayoutEffect(() => {
    if (!opened.current && at > 0) scrollTo(at, { align: 'center' });
    opened.current = true;
  });
  return () => {
    moved.current = true;
  };
}

/** What keys, pasting and dragging do. */
function useWriting(props: Props, shown: readonly OutlineRow[], at: number, acts: OutlineActs, follow: () => void) {
  const { root, selected, onSelect, onChange, onClose, onUndo, onSaid } = props;
  const pick = (ids: readonly string[]): void => {
    follow();
    onSelect(ids);
  };
  const perform = (act: Act): void => {
    if (act.root !== root) onChange?.(act.root, null);
    follow();
    if (act.select) onSelect(act.select);
    if (act.said !== undefined) onSaid(act.said);
  };
  const go = (index: number, extend: boolean): void => {
    const row = shown[Math.max(0, Math.min(shown.length - 1, index))];
    if (row) pick(extend ? [...selected.filter((id) => id !== row.id), row.id] : [row.id]);
  };
  /** Whether the key was the outline's. */
  const taken = (key: string, row: OutlineRow, field: HTMLInputElement): boolean => {
    const write = onChange === null ? null : writingOf(key);
    if (write !== null) {
      const act = write(acts, row);
      // Tab leaves the outline where nothing would go in or come out.
      if (key.endsWith('Tab') && act.root === root) return false;
      perform(act);
      return true;
    }
    if (onChange !== null && (key === 'Ctrl+Z' || key === 'Ctrl+Shift+Z')) onUndo(key === 'Ctrl+Shift+Z');
    else if (key === 'Backspace' && onChange !== null && row.parent !== null && field.value === '')
      perform(acts.remove(row));
    else {
      const folding = foldingOf(key, row, field);
      const move = moveOf(key, at, shown.length);
      if (folding !== null) onClose(row.id, folding === 'close');
      else if (move !== null) go(move.to, move.extend);
      else return false;
    }
    return true;
  };
  return {
    pick,
    key: (event: KeyboardEvent, row: OutlineRow): void => {
      if (!(event.target instanceof HTMLInputElement) || !taken(keyOf(event), row, event.target)) return;
      event.preventDefault();
      event.stopPropagation();
    },
    paste: (event: ClipboardEvent, row: OutlineRow): void => {
      const text = event.clipboardData.getData('text/plain');
      if (!/[\n\r]/.test(text.trim()) || onChange === null) return;
      event.preventDefault();
      perform(acts.paste(row, text));
    },
    drop: ({ active, over }: DragEndEvent): void => {
      if (over !== null && active.id !== over.id) perform(acts.drop(String(active.id), String(over.id)));
    },
  };
}
