/**
 * The hierarchy as an outline one writes in: a name, Enter for the next, Tab to go in, Shift+Tab to come out,
 * Alt+arrows to move; a pasted
 * list becomes a tree. The selected row is a field; only what is seen is drawn.
 */
import {
  DndContext,
  type DragEndEvent,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  absorbNumbers,
  blocksOf,
  duplicateFolders,
  type FolderNode,
  findFolder,
  freshId,
  groupFolders,
  idsIn,
  indentFolders,
  insertFolders,
  moveFolders,
  outdentFolders,
  removeFolders,
  setFolder,
  shiftFolders,
  type Template,
  typedName,
} from '@nesting/core/template';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ChevronRight } from 'lucide-react';
import { type ClipboardEvent, type KeyboardEvent, useLayoutEffect, useMemo, useRef } from 'react';
import { markColour, TraySign, WeightSign } from '../../../ui/signs';
import { foldersFromText } from './paste';
import { signOf } from './row-signs';
import { type OutlineRow, rowsOf } from './rows';

const ROW = 28;
const STEP = 18;

export interface RowSample {
  /** The first folder it makes, and how many. */
  readonly name: string;
  readonly count: number;
}

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
  const { template, root, selected, onSelect, onChange, closed, onClose, sought, onUndo, onSaid } = props;
  const blocks = useMemo(() => blocksOf(template), [template]);
  const rows = useMemo(() => rowsOf(template, root, closed), [template, root, closed]);
  const shown = useMemo(
    () =>
      sought === ''
        ? rows
        : rows.filter((r) =>
            `${r.prefix}${r.node.name ?? r.node.block ?? ''} ${r.node.purpose ?? ''}`
              .toLowerCase()
              .includes(sought.toLowerCase()),
          ),
    [rows, sought],
  );
  const box = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  const current = selected.at(-1) ?? root.id;
  const at = shown.findIndex((r) => r.id === current);
  // Where the selection goes, sight and caret follow; not when the page is only opened.
  const moved = useRef(false);
  useLayoutEffect(() => {
    if (!moved.current) return;
    const focus = (): void => {
      const field = box.current?.querySelector<HTMLInputElement>(`input[data-row="${CSS.escape(current)}"]`);
      if (!field) return;
      moved.current = false;
      if (field !== document.activeElement) field.focus();
    };
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
    // At once, so that no key typed next is lost; a frame later where the row is only then in sight.
    focus();
    if (moved.current) requestAnimationFrame(focus);
  });
  // The selection an address names is brought into sight when the page is opened.
  const opened = useRef(false);
  useLayoutEffect(() => {
    if (!opened.current && at > 0) virtual.scrollToIndex(at, { align: 'center' });
    opened.current = true;
  });
  const pick = (ids: readonly string[]): void => {
    moved.current = true;
    onSelect(ids);
  };

  const act = (next: FolderNode, select?: readonly string[]): void => {
    if (next !== root) onChange?.(next, null);
    moved.current = true;
    if (select) onSelect(select);
  };
  const go = (index: number, extend: boolean): void => {
    const row = shown[Math.max(0, Math.min(shown.length - 1, index))];
    if (row) pick(extend ? [...selected.filter((id) => id !== row.id), row.id] : [row.id]);
  };
  const rename = (row: OutlineRow, typed: string): void => {
    const { name: written, number } = typedName(row.parent, typed);
    // A folder that is being named has no name yet: that is kept as a draft too.
    const name = written === '' ? undefined : written;
    onChange?.(setFolder(root, row.id, number === undefined ? { name } : { name, number }), row.id);
  };
  const addAfter = (row: OutlineRow): void => {
    const id = freshId('folder', idsIn(root));
    // The root has no siblings: what follows it is in it.
    const place =
      row.parent === null || (row.open && row.holds > 0)
        ? { parent: row.id, index: 0 }
        : { parent: row.parent.id, index: row.index + 1 };
    act(insertFolders(root, place, [{ id }], blocks), [id]);
  };
  const remove = (row: OutlineRow): void => {
    const before = shown[at - 1];
    act(removeFolders(root, selected.length > 1 ? selected : [row.id]), [before?.id ?? root.id]);
  };
  const paste = (row: OutlineRow, event: ClipboardEvent): void => {
    const text = event.clipboardData.getData('text/plain');
    if (!/[\n\r]/.test(text.trim()) || onChange === null) return;
    event.preventDefault();
    const empty = row.parent !== null && (row.node.name ?? '') === '' && row.holds === 0;
    const parent = empty ? (row.parent as FolderNode) : row.node;
    const { nodes, files } = foldersFromText(text, idsIn(root), parent);
    const base = empty ? removeFolders(root, [row.id]) : root;
    const index = empty ? row.index : (row.node.folders?.length ?? 0);
    act(
      insertFolders(base, { parent: parent.id, index }, nodes, blocks),
      nodes.length > 0 ? [(nodes.at(-1) as FolderNode).id] : undefined,
    );
    if (files > 0) onSaid(`${files} lines name files; only folders were taken.`);
  };

  const onKey = (event: KeyboardEvent, row: OutlineRow): void => {
    const held = event.ctrlKey || event.metaKey;
    const key = held
      ? `Ctrl+${event.shiftKey ? 'Shift+' : ''}${event.key.toUpperCase()}`
      : event.altKey
        ? `Alt+${event.key}`
        : event.shiftKey
          ? `Shift+${event.key}`
          : event.key;
    const field = event.target as HTMLInputElement;
    const ids = selected.length > 1 ? selected : [row.id];
    const writes: Record<string, () => void> = {
      Enter: () => addAfter(row),
      Tab: () => act(absorbNumbers(indentFolders(root, ids, blocks), ids)),
      'Shift+Tab': () => act(absorbNumbers(outdentFolders(root, ids, blocks), ids)),
      'Alt+ArrowUp': () => act(shiftFolders(root, ids, -1, blocks)),
      'Alt+ArrowDown': () => act(shiftFolders(root, ids, 1, blocks)),
      'Alt+ArrowRight': () => act(absorbNumbers(indentFolders(root, ids, blocks), ids)),
      'Alt+ArrowLeft': () => act(absorbNumbers(outdentFolders(root, ids, blocks), ids)),
      'Ctrl+D': () => {
        const made = duplicateFolders(root, ids, blocks);
        act(made.root, made.ids.length > 0 ? made.ids : undefined);
      },
      'Ctrl+G': () => {
        const made = groupFolders(root, ids, 'group', blocks);
        act(made.root, made.id === null ? undefined : [made.id]);
      },
      'Ctrl+Shift+BACKSPACE': () => remove(row),
      'Ctrl+Z': () => onUndo(false),
      'Ctrl+Shift+Z': () => onUndo(true),
    };
    const moves: Record<string, () => void> = {
      ArrowUp: () => go(at - 1, false),
      ArrowDown: () => go(at + 1, false),
      'Shift+ArrowUp': () => go(at - 1, true),
      'Shift+ArrowDown': () => go(at + 1, true),
      'Ctrl+HOME': () => go(0, false),
      'Ctrl+END': () => go(shown.length - 1, false),
      Escape: () => pick([row.id]),
    };
    // Tab leaves the outline where it may not be written in, or where nothing would go in.
    const write = onChange === null ? undefined : writes[key];
    if (write) {
      if (key === 'Tab' && indentFolders(root, ids, blocks) === root) return;
      if (key === 'Shift+Tab' && outdentFolders(root, ids, blocks) === root) return;
      write();
    } else if (key === 'Backspace' && onChange !== null && row.parent !== null && field.value === '') remove(row);
    else if (key === 'ArrowLeft' && row.open && field.selectionStart === 0 && field.selectionEnd === 0)
      onClose(row.id, true);
    else if (key === 'ArrowRight' && row.holds > 0 && !row.open && field.selectionStart === field.value.length)
      onClose(row.id, false);
    else if (moves[key]) moves[key]();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };

  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const dropped = ({ active, over }: DragEndEvent): void => {
    if (over === null || active.id === over.id) return;
    const target = shown.find((r) => r.id === String(over.id).replace(/^(in|after):/, ''));
    if (target === undefined) return;
    const into = String(over.id).startsWith('in:') || target.parent === null;
    const place = into
      ? { parent: target.id, index: findFolder(root, target.id)?.node.folders?.length ?? 0 }
      : { parent: (target.parent as FolderNode).id, index: target.index + 1 };
    act(moveFolders(root, selected.includes(String(active.id)) ? selected : [String(active.id)], place, blocks));
  };

  return (
    <DndContext sensors={sensors} onDragEnd={dropped}>
      <div ref={box} className="min-h-0 flex-1 overflow-auto">
        <div
          role="tree"
          aria-label="The hierarchy"
          aria-multiselectable
          className="relative"
          style={{ height: Math.max(ROW, virtual.getTotalSize()) }}
        >
          {virtual.getVirtualItems().map((item) => {
            const row = shown[item.index] as OutlineRow;
            return (
              <Line
                key={row.id}
                row={row}
                top={item.start}
                current={row.id === current}
                chosen={selected.includes(row.id)}
                writable={onChange !== null}
                fault={props.faults.get(row.id)}
                sample={props.sample?.get(row.id)}
                onPick={(extend) =>
                  pick(
                    extend
                      ? selected.includes(row.id)
                        ? selected.filter((id) => id !== row.id)
                        : [...selected, row.id]
                      : [row.id],
                  )
                }
                onName={(name) => rename(row, name)}
                onKey={(e) => onKey(e, row)}
                onPaste={(e) => paste(row, e)}
                onToggle={() => onClose(row.id, row.open)}
              />
            );
          })}
        </div>
      </div>
    </DndContext>
  );
}

interface LineProps {
  readonly row: OutlineRow;
  readonly top: number;
  readonly current: boolean;
  readonly chosen: boolean;
  readonly writable: boolean;
  readonly fault: string | undefined;
  readonly sample: RowSample | undefined;
  readonly onPick: (extend: boolean) => void;
  readonly onName: (name: string) => void;
  readonly onKey: (event: KeyboardEvent) => void;
  readonly onPaste: (event: ClipboardEvent) => void;
  readonly onToggle: () => void;
}

function Line({
  row,
  top,
  current,
  chosen,
  writable,
  fault,
  sample,
  onPick,
  onName,
  onKey,
  onPaste,
  onToggle,
}: LineProps) {
  const drag = useDraggable({ id: row.id, disabled: !writable || row.parent === null });
  const drop = useDroppable({ id: `${row.holds > 0 && row.open ? 'in' : 'after'}:${row.id}` });
  const name = row.node.name ?? (row.node.block === undefined ? '' : `block ${row.node.block}`);
  const badge = signOf(row.node);
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the field in the row takes the keys
    <div
      ref={drop.setNodeRef}
      role="treeitem"
      aria-level={row.depth + 1}
      aria-selected={chosen}
      {...(row.holds > 0 && { 'aria-expanded': row.open })}
      tabIndex={current ? -1 : undefined}
      aria-label={`${row.prefix}${name || 'unnamed'}`}
      aria-description={fault}
      onClick={(e) => onPick(e.ctrlKey || e.metaKey || e.shiftKey)}
      className={`absolute inset-x-0 flex items-center gap-2 rounded-tray pr-2 ${chosen ? 'bg-chosen ring-1 ring-plum ring-inset' : ''} ${drop.isOver ? 'border-b-2 border-bottle' : ''}`}
      style={{ top, height: ROW, paddingLeft: 6 + row.depth * STEP }}
    >
      <Spines depth={row.depth} mark={row.mark} />
      <button
        type="button"
        tabIndex={-1}
        aria-hidden
        onClick={(e) => {
          e.stopPropagation();
          onToggle();
        }}
        className={`w-3 shrink-0 text-center text-xs text-ink2 ${row.holds === 0 ? 'invisible' : ''}`}
      >
        <ChevronRight size={12} className={row.open ? 'rotate-90' : ''} aria-hidden />
      </button>
      <span
        ref={drag.setNodeRef}
        {...drag.listeners}
        aria-hidden
        className={`shrink-0 ${writable ? 'cursor-grab' : ''} ${drag.isDragging ? 'opacity-50' : ''}`}
      >
        <TraySign mark={row.mark} state="planned" />
      </span>
      {row.prefix !== '' && <span className="-mr-2 shrink-0 font-mono text-ink2">{row.prefix}</span>}
      {current ? (
        <input
          data-row={row.id}
          aria-label={`Name of ${name || 'this folder'}`}
          value={row.node.name ?? ''}
          placeholder={row.node.block === undefined ? 'write a name' : `block ${row.node.block}`}
          readOnly={!writable}
          spellCheck={false}
          autoComplete="off"
          onChange={(e) => onName(e.target.value)}
          onKeyDown={onKey}
          onPaste={onPaste}
          className="min-w-24 flex-1 bg-clear font-mono outline-none placeholder:text-ink2 placeholder:italic"
        />
      ) : (
        <span className="min-w-0 flex-1 truncate font-mono">{name || <i className="text-ink2">unnamed</i>}</span>
      )}
      {badge && (
        <span className="shrink-0 rounded border border-dashed border-rule px-1 text-xs text-note">{badge}</span>
      )}
      {fault && (
        <span title={fault} className="shrink-0">
          <WeightSign weight="must" size={10} />
        </span>
      )}
      <span className="max-w-[45%] min-w-0 shrink-[2] truncate text-right text-xs text-note">
        {sample ? (
          <span className="font-mono">
            {sample.count > 1 ? `${sample.count} × ` : ''}
            {sample.name}
          </span>
        ) : (
          row.node.purpose
        )}
      </span>
    </div>
  );
}

/** Depth is shown as hairlines in the mark's tint. */
function Spines({ depth, mark }: { depth: number; mark: OutlineRow['mark'] }) {
  return (
    <>
      {Array.from({ length: depth }, (_, i) => (
        <span
          key={i}
          aria-hidden
          className="absolute inset-y-0 w-px"
          style={{ left: 12 + i * STEP, background: `color-mix(in srgb, ${markColour(mark)} 50%, transparent)` }}
        />
      ))}
    </>
  );
}
