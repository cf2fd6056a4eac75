/** One row of the outline: its tray, its name, what is wrong with it, what it is for. */
import { useDraggable, useDroppable } from '@dnd-kit/core';
import { ChevronRight } from 'lucide-react';
import type { ClipboardEvent, KeyboardEvent } from 'react';
import { useMarkWords } from '../../../ui/meanings';
import { markColour, TraySign, WeightSign } from '../../../ui/signs';
import { signOf } from './row-signs';
import type { OutlineRow } from './rows';

/** Pixels. */
export const ROW = 28;
const STEP = 18;

export interface RowSample {
  /** The first folder it makes, and how many. */
  readonly name: string;
  readonly count: number;
}

interface RowProps {
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

export function OutlineRowLine({
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
}: RowProps) {
  const drag = useDraggable({ id: row.id, disabled: !writable || row.parent === null });
  const drop = useDroppable({ id: `${row.holds > 0 && row.open ? 'in' : 'after'}:${row.id}` });
  const name = row.node.name ?? (row.node.block === undefined ? '' : `shared part ${row.node.block}`);
  const badge = signOf(row.node);
  const markWords = useMarkWords();
  const heard = [row.mark === null ? '' : markWords(row.mark), fault ?? ''].filter((words) => words !== '');
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
      aria-description={heard.length === 0 ? undefined : heard.join('; ')}
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
      <Name {...{ row, name, current, writable, onName, onKey, onPaste }} />
      {badge && (
        <span className="shrink-0 rounded border border-dashed border-rule px-1 text-xs text-note">{badge}</span>
      )}
      {fault && (
        <span title={fault} className="shrink-0">
          <WeightSign weight="must" size={10} />
        </span>
      )}
      <Purpose row={row} sample={sample} />
    </div>
  );
}

/** What a sample project makes of it, or what it is for. */
function Purpose({ row, sample }: Pick<RowProps, 'row' | 'sample'>) {
  return (
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
  );
}

function NameField({ row, name, writable, onName, onKey, onPaste }: Omit<NameProps, 'current'>) {
  return (
    <input
      data-row={row.id}
      aria-label={`Name of ${name || 'this folder'}`}
      value={row.node.name ?? ''}
      placeholder={row.node.block === undefined ? 'write a name' : `shared part ${row.node.block}`}
      readOnly={!writable}
      spellCheck={false}
      autoComplete="off"
      onChange={(e) => onName(e.target.value)}
      onKeyDown={onKey}
      onPaste={onPaste}
      className="min-w-24 flex-1 bg-clear font-mono outline-none placeholder:text-ink2 placeholder:italic"
    />
  );
}

type NameProps = Pick<RowProps, 'row' | 'current' | 'writable' | 'onName' | 'onKey' | 'onPaste'> & {
  readonly name: string;
};

/** The row one is at is a field; the others are words. */
function Name({ current, ...props }: NameProps) {
  if (current) return <NameField {...props} />;
  return (
    <span className="min-w-0 flex-1 truncate font-mono">{props.name || <i className="text-ink2">unnamed</i>}</span>
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
