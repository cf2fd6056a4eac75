/** Lines of a change of a project, or of a batch: what each is now, what it becomes. */
import { nameOf, parentOf } from '@nesting/core/listing';
import { useMemo } from 'react';
import { LineList, type ListItem } from '../../changes/line-list';
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

const isRenamed = ({ before, after }: ListedChange): boolean =>
  before !== null && after !== null && nameOf(before) !== nameOf(after);

const heightOf = (line: ListedChange): number => (isRenamed(line) ? RENAMED : ROW);

export function ChangeList({ label, lines, selected, onSelect, chosen, onChoose }: Props) {
  const items = useMemo(
    () => lines.map((line): ListItem<ListedChange> => ({ kind: 'line', key: line.key, line })),
    [lines],
  );
  return (
    <LineList
      label={label}
      items={items}
      selected={selected}
      onSelect={onSelect}
      height={heightOf}
      draw={(line) => <Drawn line={line} />}
      isChosen={chosen === undefined ? undefined : (line) => chosen.has(line.key)}
      onChoose={onChoose === undefined ? undefined : (line) => onChoose(line.key)}
    />
  );
}

function Drawn({ line }: { line: ListedChange }) {
  return (
    <>
      <LineSign sign={line.sign} />
      <span className="min-w-0 flex-1">
        <Names line={line} />
      </span>
      <span className={`shrink-0 text-xs ${line.sign === 'taken' ? 'font-semibold text-brick' : 'text-ink2'}`}>
        {line.note ?? SIGN_WORDS[line.sign]}
        {line.count > 1 ? `, ${line.count} frames as one` : ''}
      </span>
    </>
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
