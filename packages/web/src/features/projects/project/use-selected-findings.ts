/** The finding that is looked at, and those that were picked to be dealt with at once. */
import type { KeptFinding } from '@nesting/contract';
import { useEffect, useRef, useState } from 'react';
import type { FindingsShown } from '../../findings/use-findings';
import type { PutAddress } from './use-project-view';

export interface SelectedFindings {
  readonly finding: KeptFinding | null;
  readonly picked: ReadonlySet<string>;
  /** The picked ones, or the one that is looked at. */
  readonly chosen: readonly KeptFinding[];
  /** What was selected last, before the address follows. */
  readonly latest: () => string | null;
  readonly select: (id: string) => void;
  readonly move: (by: number) => void;
  readonly pick: (id: string) => void;
  readonly clear: () => void;
  /** What is done leaves the list: the one behind it is looked at. */
  readonly advance: () => void;
}

export const focusFindings = (): void =>
  document.querySelector<HTMLElement>('[role=listbox][aria-label=Findings]')?.focus();

export function useSelectedFindings(shown: FindingsShown, id: string | null, put: PutAddress): SelectedFindings {
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const at = Math.max(
    0,
    shown.rows.findIndex((f) => f.id === id),
  );
  const finding = shown.rows[at] ?? null;
  const ofPicked = shown.rows.filter((f) => picked.has(f.id));
  // The address follows a moment later than a key: the next key goes on from what was selected last.
  const latest = useRef<string | null>(null);
  useEffect(() => {
    latest.current = finding?.id ?? null;
  }, [finding?.id]);
  const select = (to: string) => {
    latest.current = to;
    put({ finding: to });
  };
  const clear = () => setPicked(new Set());
  return {
    finding,
    picked,
    chosen: ofPicked.length > 0 ? ofPicked : finding === null ? [] : [finding],
    latest: () => latest.current,
    select,
    move: (by) => {
      const from = Math.max(
        0,
        shown.rows.findIndex((f) => f.id === latest.current),
      );
      const next = shown.rows[Math.max(0, Math.min(shown.rows.length - 1, from + by))];
      if (next !== undefined) select(next.id);
    },
    pick: (which) =>
      setPicked((before) => {
        const current = latest.current;
        const after = new Set(before.size === 0 && current !== null && current !== which ? [current] : before);
        if (!after.delete(which)) after.add(which);
        return after;
      }),
    clear,
    advance: () => {
      const rest = [...shown.rows.slice(at + 1), ...shown.rows.slice(0, at).reverse()];
      clear();
      put({ finding: rest.find((f) => !picked.has(f.id))?.id ?? null });
      focusFindings();
    },
  };
}
