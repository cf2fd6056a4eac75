/**
 * A tree of trays set into each other (WAI-ARIA tree pattern): arrows move, open and close; letters find; only what is
 * seen is drawn.
 */
import { elementAt } from '@nesting/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useId, useMemo, useRef, useState } from 'react';
import { FileSign, markColour, TraySign, WeightSign } from '../ui/signs';
import { flatten, type Tray, type TreeNode, type TreeRow } from './flatten';
import { nameOf, useTreeKeys } from './use-tree-keys';

const ROW = 28;
const STEP = 18;

interface Props {
  readonly label: string;
  readonly nodes: readonly TreeNode[];
  readonly selected: string | null;
  readonly onSelect: (key: string) => void;
  readonly onOpen?: (key: string, open: boolean) => void;
}

export function TrayTree({ label, nodes, selected, onSelect, onOpen }: Props) {
  const id = useId();
  const [toggled, setToggled] = useState<ReadonlyMap<string, boolean>>(new Map());
  const rows = useMemo(() => flatten(nodes, toggled), [nodes, toggled]);
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 16,
  });
  const at = Math.max(
    0,
    rows.findIndex((r) => r.key === selected),
  );

  // What the address names is brought into sight, once it is there.
  useEffect(() => {
    if (selected !== null && rows[at]?.key === selected) virtual.scrollToIndex(at, { align: 'auto' });
  }, [selected]);

  const toggle = (row: TreeRow, open: boolean) => {
    setToggled(new Map([...toggled, [row.key, open]]));
    if (row.fold === null) onOpen?.(row.key, open);
  };
  const onKey = useTreeKeys({
    rows,
    at: selected === null ? -1 : at,
    onSelect,
    onToggle: toggle,
    onOpenAll: (opened) => setToggled(new Map([...toggled, ...opened.map((r) => [r.key, true] as const)])),
  });

  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto">
      <div
        role="tree"
        aria-label={label}
        tabIndex={0}
        aria-activedescendant={rows[at] ? `${id}-${at}` : undefined}
        onKeyDown={onKey}
        className="relative rounded-tray outline-offset-[-2px]"
        style={{ height: Math.max(ROW, virtual.getTotalSize()) }}
      >
        {virtual.getVirtualItems().map((item) => (
          <Row
            key={item.key}
            id={`${id}-${item.index}`}
            row={elementAt(rows, item.index)}
            top={item.start}
            chosen={rows[item.index]?.key === selected}
            onSelect={onSelect}
            onToggle={toggle}
          />
        ))}
      </div>
    </div>
  );
}

interface RowProps {
  readonly id: string;
  readonly row: TreeRow;
  readonly top: number;
  readonly chosen: boolean;
  readonly onSelect: (key: string) => void;
  readonly onToggle: (row: TreeRow, open: boolean) => void;
}

function Row({ id, row, top, chosen, onSelect, onToggle }: RowProps) {
  const { node, fold } = row;
  const left = 6 + node.depth * STEP;
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the tree itself takes the keys
    // biome-ignore lint/a11y/useFocusableInteractive: the tree points at it by aria-activedescendant
    <div
      id={id}
      role="treeitem"
      aria-level={node.depth + 1}
      aria-selected={chosen}
      {...(row.expandable && { 'aria-expanded': row.expanded })}
      onClick={() => (fold ? onToggle(row, true) : onSelect(row.key))}
      onDoubleClick={() => row.expandable && onToggle(row, !row.expanded)}
      className="absolute inset-x-0 cursor-default"
      style={{ top, height: ROW }}
    >
      {row.trays.map((tray) => (
        <Band key={tray.depth} tray={tray} />
      ))}
      <div
        className={`absolute inset-y-px right-1 flex items-center gap-2 rounded-tray pr-2 ${chosen ? 'bg-chosen ring-1 ring-plum' : ''}`}
        style={{ left, paddingLeft: 4 }}
      >
        {node.kind === 'reserved' ? (
          <span className="w-4 text-center text-ink2">·</span>
        ) : node.kind === 'file' ? (
          <FileSign state={node.state} />
        ) : (
          <TraySign mark={node.mark} state={node.state} />
        )}
        <span
          className={`max-w-[70%] shrink-0 truncate font-mono whitespace-pre ${node.state === 'absent' || node.kind === 'reserved' ? 'text-note' : ''}`}
          title={nameOf(row)}
        >
          {fold ? fold.words : node.pieces.map((p, i) => <Piece key={`${i}-${p.text}`} piece={p} />)}
        </span>
        {row.expandable && !row.expanded && fold === null && (
          <span className="shrink-0 rounded bg-bench px-1 text-xs text-note" aria-hidden>
            …
          </span>
        )}
        {node.badge && (
          <span className="shrink-0 rounded border border-dashed border-rule px-1 text-xs text-note">{node.badge}</span>
        )}
        {node.weight && <WeightSign weight={node.weight} size={10} />}
        <span className="ml-auto min-w-0 shrink-[3] truncate text-right text-xs text-note">
          {fold ? `${fold.count} more alike` : node.note}
        </span>
      </div>
    </div>
  );
}

/** Values stand out from the template's own letters. */
function Piece({ piece }: { piece: { text: string; field: string | null } }) {
  if (piece.field === null) return piece.text;
  return (
    <span className={piece.field === 'number' ? 'text-plum' : piece.field === 'client' ? 'text-bottle' : 'text-slate'}>
      {piece.text}
    </span>
  );
}

function Band({ tray }: { tray: Tray }) {
  const colour = markColour(tray.mark);
  return (
    <span
      aria-hidden
      className="absolute"
      style={{
        left: tray.depth * STEP - 4,
        right: tray.depth * 3 - 2,
        top: tray.first ? 1 : 0,
        bottom: tray.last ? 2 : 0,
        background: `color-mix(in srgb, ${colour} 7%, transparent)`,
        borderLeft: `2px solid color-mix(in srgb, ${colour} 55%, transparent)`,
        borderTopLeftRadius: tray.first ? 5 : 0,
        borderTopRightRadius: tray.first ? 5 : 0,
        borderBottomLeftRadius: tray.last ? 5 : 0,
        borderBottomRightRadius: tray.last ? 5 : 0,
      }}
    />
  );
}
