/** Filters of a list of lines, each with how many it would show. */
import type { ReactNode } from 'react';
import { count } from '../app/words';
import { Heading } from '../ui';

export function FilterList({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="flex flex-col gap-1">
      <Heading>{label}</Heading>
      <ul aria-label={label}>{children}</ul>
    </div>
  );
}

interface RowProps {
  readonly words: string;
  readonly of: number;
  readonly chosen: boolean;
  readonly onChoose: () => void;
  readonly note?: string;
}

export function FilterRow({ words, of, chosen, onChoose, note = '' }: RowProps) {
  return (
    <li>
      <button
        type="button"
        aria-pressed={chosen}
        onClick={onChoose}
        className={`flex h-7 w-full items-center gap-2 rounded-tray px-2 text-left text-sm ${chosen ? 'bg-chosen ring-1 ring-plum ring-inset' : 'border-b border-line hover:bg-sheet'}`}
      >
        <span className="min-w-0 flex-1 truncate">{words}</span>
        {note !== '' && <span className="text-xs text-ink2">{note}</span>}
        <span className="text-ink2">{count(of)}</span>
      </button>
    </li>
  );
}
