/**
 * The parts of a pattern as tiles that can be dragged, by mouse and by keyboard; the text beneath is the same thing.
 */

import {
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  horizontalListSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { elementAt } from '@nesting/core';
import { type Item, moveItem, type Row, type WrittenPiece } from '@nesting/core/name';

const DYES = ['text-plum', 'text-slate', 'text-ochre', 'text-bottle'];

interface Props {
  readonly row: Row;
  /** The example, piece by piece: what each part looks like. */
  readonly example: readonly WrittenPiece[];
  readonly selected: number | null;
  readonly onSelect: (index: number) => void;
  readonly onMove: ((row: Row) => void) | null;
}

export function PatternRow({ row, example, selected, onSelect, onMove }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = row.items.map((item, i) => `${i} ${item.slot.field}`);
  const place = (id: unknown) => ids.indexOf(String(id));
  const moved = ({ active, over }: DragEndEvent) => {
    if (over === null || active.id === over.id) return;
    onMove?.(moveItem(row, place(active.id), place(over.id)));
  };
  const said = (id: unknown) => row.items[place(id)]?.slot.field ?? '';
  const announcements: Announcements = {
    onDragStart: ({ active }) => `Picked up ${said(active.id)}.`,
    onDragOver: ({ active, over }) =>
      over ? `${said(active.id)} at place ${place(over.id) + 1} of ${ids.length}.` : '',
    onDragEnd: ({ active, over }) => (over ? `${said(active.id)} put at place ${place(over.id) + 1}.` : ''),
    onDragCancel: ({ active }) => `${said(active.id)} left where it was.`,
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={moved}
      accessibility={{
        announcements,
        screenReaderInstructions: {
          draggable: 'Space picks the part up, arrow keys move it, Space puts it down, Escape leaves it.',
        },
      }}
    >
      <SortableContext items={ids} strategy={horizontalListSortingStrategy}>
        <ul aria-label="Parts of the name" className="flex flex-wrap items-start gap-y-2">
          {row.items.map((item, i) => (
            <Tile
              key={ids[i]}
              id={elementAt(ids, i)}
              before={literal(item.before)}
              optional={item.optional}
              field={item.slot.field}
              text={shownText(item, example)}
              dye={elementAt(DYES, i % DYES.length)}
              selected={selected === i}
              fixed={onMove === null}
              onSelect={() => onSelect(i)}
            />
          ))}
          {row.tail !== '' && <li className="self-start pt-1.5 font-mono text-lg text-ink2">{literal(row.tail)}</li>}
        </ul>
      </SortableContext>
    </DndContext>
  );
}

/** Doubled braces and brackets stand for themselves. */
const literal = (source: string): string => source.replace(/([{}()])\1/g, '$1');

/** The part as it would look, with the words that belong to it: `v004`. */
function shownText({ source, slot, optional }: Item, example: readonly WrittenPiece[]): string {
  const text = example.find((p) => p.field === slot.field)?.text ?? slot.field;
  const lead = source.slice(optional ? 1 : 0).split('{')[0] ?? '';
  return literal(lead.replace(/^[^\p{L}\p{N}]+/u, '')) + text;
}

interface TileProps {
  readonly id: string;
  readonly before: string;
  readonly optional: boolean;
  readonly field: string;
  readonly text: string;
  readonly dye: string;
  readonly selected: boolean;
  readonly fixed: boolean;
  readonly onSelect: () => void;
}

function Tile({ id, before, optional, field, text, dye, selected, fixed, onSelect }: TileProps) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id, disabled: fixed });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`flex items-start ${isDragging ? 'z-10 opacity-80' : ''}`}
    >
      {before !== '' && <span className="px-0.5 pt-1.5 font-mono text-lg text-ink2">{before}</span>}
      <span className="flex flex-col items-center gap-0.5">
        <button
          type="button"
          {...attributes}
          {...listeners}
          aria-label={`${field}, ${text}${optional ? ', may be left out' : ''}`}
          aria-pressed={selected}
          onClick={onSelect}
          onKeyDown={(e) => {
            if (e.key === 'Enter') onSelect();
            else listeners?.onKeyDown?.(e);
          }}
          className={`h-9 rounded-tray border px-2.5 font-mono text-lg ${dye} ${optional ? 'border-dashed' : ''} ${selected ? 'border-plum bg-chosen' : 'border-rule bg-sheet hover:border-ink'} ${fixed ? '' : 'cursor-grab'}`}
        >
          {text}
        </button>
        <span className="text-xs text-ink2">{field}</span>
      </span>
    </li>
  );
}
