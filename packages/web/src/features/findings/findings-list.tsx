/**
 * Findings one under another, in their groups; the selected one shows the anatomy of its name. All by keyboard: next,
 * picked, accepted, given.
 */
import { type FindingGroup, type KeptFinding, MOST_RELATED } from '@nesting/contract';
import { nameOf, parentOf } from '@nesting/core/listing';
import { RULE_WORDS } from '@nesting/core/words';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useCallback, useEffect, useId, useMemo, useRef } from 'react';
import { Anatomy, partsOfBroken } from '../../anatomy/anatomy';
import { WEIGHT_WORDS, WeightSign } from '../../ui/signs';

interface Props {
  readonly findings: readonly KeptFinding[];
  readonly total: number;
  readonly group: FindingGroup;
  readonly selected: string | null;
  /** What was selected last, before the address follows: keys go on from there. */
  readonly latest?: () => string | null;
  readonly picked: ReadonlySet<string>;
  readonly onSelect: (id: string) => void;
  readonly onPick: (id: string) => void;
  readonly more: () => void;
}

type Item =
  | { readonly kind: 'head'; readonly words: string; readonly mono: boolean }
  | { readonly kind: 'finding'; readonly finding: KeptFinding; readonly place: number };

function headOf(finding: KeptFinding, group: FindingGroup): string | null {
  switch (group) {
    case 'cause':
      return RULE_WORDS[finding.rule].title;
    case 'folder':
      return parentOf(finding.path) || "the project's root";
    case 'person':
      return finding.to ?? 'Nobody by name';
    case 'weight':
      return WEIGHT_WORDS[finding.weight];
    case 'none':
      return null;
  }
}

function itemsOf(findings: readonly KeptFinding[], group: FindingGroup): Item[] {
  const out: Item[] = [];
  let last: string | null = null;
  findings.forEach((finding, place) => {
    const words = headOf(finding, group);
    if (words !== null && words !== last)
      out.push({ kind: 'head', words, mono: group === 'folder' || (group === 'person' && finding.to !== null) });
    last = words;
    out.push({ kind: 'finding', finding, place });
  });
  return out;
}

export function FindingsList(props: Props) {
  const { findings, total, group, selected, more } = props;
  const id = useId();
  const scroller = useRef<HTMLDivElement>(null);
  const items = useMemo(() => itemsOf(findings, group), [findings, group]);
  const at = Math.max(
    0,
    findings.findIndex((f) => f.id === selected),
  );
  const shown = items.findIndex((i) => i.kind === 'finding' && i.place === at);
  // With another function every row is measured anew, at each pixel of scrolling.
  const getItemKey = useCallback((i: number) => keyOfItem(items[i], i), [items]);
  const virtual = useVirtualizer({
    count: items.length + (findings.length < total ? 1 : 0),
    getScrollElement: () => scroller.current,
    estimateSize: (i) => sizeOf(items[i], selected),
    overscan: 8,
    getItemKey,
  });
  useEffect(() => {
    if (selected !== null && shown >= 0) virtual.scrollToIndex(shown, { align: 'auto' });
  }, [selected]);
  const drawn = virtual.getVirtualItems();
  const last = drawn.at(-1)?.index ?? 0;
  // A page before the end is in sight the next is asked for.
  useEffect(() => {
    if (findings.length < total && last > items.length - 40) more();
  }, [last, items.length, findings.length, total, more]);
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto">
      <div
        role="listbox"
        data-page-keys
        aria-label="Findings"
        aria-multiselectable="true"
        tabIndex={0}
        aria-activedescendant={findings[at] ? `${id}-${findings[at].id}` : undefined}
        onKeyDown={(event) => onListKey(event, props)}
        className="relative outline-offset-[-2px]"
        style={{ height: virtual.getTotalSize() }}
      >
        {drawn.map(({ key, index, start }) => (
          <ItemLine
            key={key}
            id={id}
            item={items[index]}
            index={index}
            start={start}
            measure={virtual.measureElement}
            chosen={findings[at]?.id ?? null}
            list={props}
          />
        ))}
      </div>
    </div>
  );
}

/** Pixels before a line is measured. */
function sizeOf(item: Item | undefined, selected: string | null): number {
  if (item === undefined) return 56;
  if (item.kind === 'head') return 34;
  return item.finding.id === selected ? 104 : 56;
}

function keyOfItem(item: Item | undefined, index: number): string {
  if (item === undefined) return 'more';
  return item.kind === 'head' ? `h ${item.words} ${index}` : item.finding.id + (item.finding.solvedAt ?? '');
}

/** What moves and picks. Letters are the page's own commands. */
function onListKey(event: KeyboardEvent, { findings, selected, latest, onPick, onSelect }: Props): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const current = latest?.() ?? selected;
  const at = Math.max(
    0,
    findings.findIndex((f) => f.id === current),
  );
  const to = {
    ' ': at,
    ArrowDown: at + 1,
    ArrowUp: at - 1,
    Home: 0,
    End: findings.length - 1,
    PageDown: at + 10,
    PageUp: at - 10,
  }[event.key];
  const next = to === undefined ? undefined : findings[Math.max(0, Math.min(findings.length - 1, to))];
  if (next === undefined) return;
  event.preventDefault();
  if (event.key === ' ') onPick(next.id);
  else onSelect(next.id);
}

interface ItemProps {
  readonly id: string;
  readonly item: Item | undefined;
  readonly index: number;
  readonly start: number;
  readonly measure: (element: Element | null) => void;
  readonly chosen: string | null;
  readonly list: Props;
}

function ItemLine({ id, item, index, start, measure, chosen, list }: ItemProps) {
  const place = { transform: `translateY(${start}px)` };
  if (item === undefined)
    return (
      <p role="presentation" className="absolute inset-x-0 top-0 px-3 py-4 text-sm text-ink2" style={place}>
        More are on their way…
      </p>
    );
  if (item.kind === 'head')
    return (
      <p
        role="presentation"
        className={`absolute inset-x-0 top-0 flex h-[34px] items-end gap-3 px-1 pb-1.5 text-xs font-semibold text-ink2 ${item.mono ? 'font-mono' : ''}`}
        style={place}
      >
        <span className="truncate">{item.words}</span>
        <span aria-hidden className="mb-1.5 h-px flex-1 bg-line" />
      </p>
    );
  const { finding } = item;
  const { picked, onPick, onSelect, group } = list;
  const isChosen = finding.id === chosen;
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the list itself takes the keys
    // biome-ignore lint/a11y/useFocusableInteractive: the list points at it by aria-activedescendant
    <div
      id={`${id}-${finding.id}`}
      ref={measure}
      data-index={index}
      role="option"
      aria-selected={picked.has(finding.id) || (picked.size === 0 && isChosen)}
      onClick={(e) => (e.ctrlKey || e.metaKey ? onPick(finding.id) : onSelect(finding.id))}
      className={`absolute inset-x-0 top-0 cursor-default rounded-tray px-3 py-2 ${isChosen ? 'bg-chosen ring-1 ring-plum ring-inset' : 'border-b border-line'}`}
      style={place}
    >
      <Row
        finding={finding}
        chosen={isChosen}
        picked={picked.has(finding.id)}
        picking={picked.size > 0}
        placed={group !== 'folder'}
      />
    </div>
  );
}

interface RowProps {
  readonly finding: KeptFinding;
  readonly chosen: boolean;
  readonly picked: boolean;
  readonly picking: boolean /** Its folder is said with it, and not above it. */;
  readonly placed: boolean;
}

function Row({ finding, chosen, picked, picking, placed }: RowProps) {
  return (
    <div className="flex items-start gap-3">
      {picking && (
        <span
          aria-hidden
          className={`mt-1.5 size-3 shrink-0 rounded-[2px] border ${picked ? 'border-plum bg-plum' : 'border-rule'}`}
        />
      )}
      <span className="pt-1.5">
        <WeightSign weight={finding.weight} />
      </span>
      <div className="min-w-0 flex-1">
        <Name finding={finding} chosen={chosen} />
        {placed && (
          <p className="truncate font-mono text-xs text-ink2">
            {parentOf(finding.path).split('/').join(' / ') || "the project's root"}
          </p>
        )}
      </div>
      <span className="flex shrink-0 flex-col items-end text-xs text-ink2">
        <span>{signWords(finding)}</span>
        <span className="flex gap-2">
          {finding.isNew && <span className="font-semibold text-bottle">new</span>}
          {finding.note !== '' && <span>has a note</span>}
          {finding.to !== null && (
            <span className={`font-mono ${finding.given ? 'font-semibold text-plum' : ''}`}>{finding.to}</span>
          )}
        </span>
      </span>
    </div>
  );
}

function signWords(finding: KeptFinding): string {
  if (finding.accepted !== null)
    return finding.accepted.baseline
      ? 'as it was found'
      : finding.accepted.until === null
        ? 'accepted'
        : `accepted until ${finding.accepted.until}`;
  if (finding.related.length > 0)
    return finding.params.frames === undefined
      ? `${finding.related.length < MOST_RELATED ? finding.related.length + 1 : `over ${MOST_RELATED}`} files as one`
      : `${finding.params.frames} frames as one`;
  return finding.suggestion ? finding.suggestion.confidence : finding.rule === 'name-mismatch' ? 'for a person' : '';
}

function Name({ finding, chosen }: { finding: KeptFinding; chosen: boolean }) {
  const name = nameOf(finding.path);
  const parts = partsOfBroken(name, finding.stretches, finding.problems);
  if (chosen && finding.stretches.length > 0) return <Anatomy parts={parts} />;
  if (finding.stretches.length === 0)
    return (
      <p className={`truncate pb-1 font-mono ${finding.rule === 'missing-folder' ? 'text-ink2' : ''}`}>
        {name || "the project's root"}
        {finding.rule.endsWith('folder') ? '/' : ''}
      </p>
    );
  return (
    <p className="truncate pb-1.5 font-mono whitespace-pre">
      {parts.map((p, i) => (
        <span key={`${i}-${p.text}`} className={p.ok ? '' : 'wavy'}>
          {p.text}
        </span>
      ))}
    </p>
  );
}
