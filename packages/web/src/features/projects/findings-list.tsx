/** Findings one under another; the selected one shows the anatomy of its name. Arrows and j, k move. */
import type { FindingRow } from '@nesting/contract';
import { nameOf, parentOf } from '@nesting/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useEffect, useId, useRef } from 'react';
import { Anatomy, partsOfBroken } from '../../anatomy/anatomy';
import { WeightSign } from '../../ui/signs';

interface Props {
  readonly findings: readonly FindingRow[];
  readonly selected: string | null;
  readonly onSelect: (id: string) => void;
}

export function FindingsList({ findings, selected, onSelect }: Props) {
  const id = useId();
  const scroller = useRef<HTMLDivElement>(null);
  const at = Math.max(0, findings.findIndex((f) => f.id === selected));
  const virtual = useVirtualizer({ count: findings.length, getScrollElement: () => scroller.current, estimateSize: (i) => (findings[i]?.id === selected ? 104 : 56), overscan: 8 });
  useEffect(() => {
    if (selected !== null) virtual.scrollToIndex(at, { align: 'auto' });
  }, [selected]);
  const onKey = (event: KeyboardEvent) => {
    const to = { ArrowDown: at + 1, j: at + 1, ArrowUp: at - 1, k: at - 1, Home: 0, End: findings.length - 1 }[event.key];
    const next = to === undefined || event.ctrlKey || event.metaKey ? undefined : findings[Math.max(0, Math.min(findings.length - 1, to))];
    if (next === undefined) return;
    event.preventDefault();
    onSelect(next.id);
  };
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto">
      <div role="listbox" aria-label="Findings" tabIndex={0} aria-activedescendant={findings[at] ? `${id}-${at}` : undefined} onKeyDown={onKey} className="relative outline-offset-[-2px]" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => {
          const finding = findings[item.index] as FindingRow;
          const chosen = finding.id === selected;
          return (
            // biome-ignore lint/a11y/useKeyWithClickEvents: the list itself takes the keys
            // biome-ignore lint/a11y/useFocusableInteractive: the list points at it by aria-activedescendant
            <div
              key={finding.id}
              id={`${id}-${item.index}`}
              ref={virtual.measureElement}
              data-index={item.index}
              role="option"
              aria-selected={chosen}
              onClick={() => onSelect(finding.id)}
              className={`absolute inset-x-0 top-0 cursor-default rounded-tray px-3 py-2 ${chosen ? 'bg-chosen ring-1 ring-plum ring-inset' : 'border-b border-line'}`}
              style={{ transform: `translateY(${item.start}px)` }}
            >
              <div className="flex items-start gap-3">
                <span className="pt-1.5">
                  <WeightSign weight={finding.weight} />
                </span>
                <div className="min-w-0 flex-1">
                  <Name finding={finding} chosen={chosen} />
                  <p className="truncate font-mono text-xs text-ink2">{parentOf(finding.path).split('/').join(' / ') || "the project's root"}</p>
                </div>
                <span className="shrink-0 text-xs text-ink2">{finding.related.length > 0 ? `${finding.related.length + 1} ${finding.params.frames === undefined ? 'files' : 'frames'} as one` : finding.suggestion ? finding.suggestion.confidence : finding.rule === 'name-mismatch' ? 'for a person' : ''}</span>
              </div>
            </div>
          );
        })}
      </div>
    </div>
  );
}

function Name({ finding, chosen }: { finding: FindingRow; chosen: boolean }) {
  const name = nameOf(finding.path);
  const parts = partsOfBroken(name, finding.stretches, finding.problems);
  if (chosen && finding.stretches.length > 0) return <Anatomy parts={parts} />;
  if (finding.stretches.length === 0) return <p className={`truncate pb-1 font-mono ${finding.rule === 'missing-folder' ? 'text-ink2' : ''}`}>{name}{finding.rule.endsWith('folder') ? '/' : ''}</p>;
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
