/** What was done to one thing, the newest first; an earlier wording can be put back. */
import type { ActivityRow } from '@nesting/contract';
import type { Cells } from '@nesting/core/lists';
import { activityWords } from '@nesting/core/words';
import { ago } from '../../app/words';
import { Button, Heading } from '../../ui';

export function History({ rows, onPutBack }: { rows: readonly ActivityRow[]; onPutBack?: (cells: Cells) => void }) {
  return (
    <section aria-label="History" className="flex flex-col gap-1 text-sm">
      <Heading>History</Heading>
      {rows.length === 0 && <p className="text-ink2">Nothing is written of it: it was there before this was kept.</p>}
      <ul>
        {rows.map((r) => (
          <li key={r.id} className="border-b border-line py-1">
            <span className="break-words">{activityWords(r.what, r.params)}</span>{' '}
            <span className="text-xs text-ink2">
              {ago(r.at)}
              {r.by ? `, ${r.by}` : ''}
            </span>
            {onPutBack && r.what === 'entry-changed' && (
              <Button variant="quiet" className="ml-2 h-5!" onClick={() => onPutBack(r.params.was as Cells)}>
                Put back
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
