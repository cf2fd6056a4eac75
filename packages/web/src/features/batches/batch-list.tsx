/** The batches of a project, the newest first. */
import type { BatchRow } from '@nesting/contract';
import { batchWords } from '@nesting/core/words';
import { ago, many, moment } from '../../app/words';

interface BatchListProps {
  readonly rows: readonly BatchRow[];
  readonly chosen: string;
  readonly onBatch: (id: string) => void;
}

export function BatchList({ rows, chosen, onBatch }: BatchListProps) {
  return (
    <ul aria-label="Changes" className="flex flex-col gap-1">
      {rows.map((b) => (
        <li key={b.id}>
          <button
            type="button"
            aria-pressed={b.id === chosen}
            onClick={() => onBatch(b.id)}
            className={`w-full rounded-tray px-2 py-1.5 text-left text-sm ${b.id === chosen ? 'bg-chosen ring-1 ring-plum ring-inset' : 'hover:bg-bench'}`}
          >
            <span className="flex justify-between gap-2">
              <strong className="font-semibold">{batchWords(b.what)}</strong>
              <span className={b.state === 'paused' ? 'font-semibold text-brick' : 'text-ink2'}>
                {b.state === 'done' ? many(b.changes, 'change') : STATE_WORDS[b.state]}
              </span>
            </span>
            <span className="block text-xs text-ink2" title={moment(b.at)}>
              {b.by}, {ago(b.at)}
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}

export const STATE_WORDS: Readonly<Record<BatchRow['state'], string>> = {
  running: 'under way',
  paused: 'stopped half way',
  done: 'done',
  'taken-back': 'taken back',
  closed: 'closed',
  refused: 'not done',
};
