/** The foot of a page that brings files: what the plan does, the plan to take away, and the one button that does it. */
import type { ReactNode } from 'react';
import { Button, Menu } from '../ui';

interface Props {
  readonly trouble: string | null;
  /** Said while it is carried out; `null` before. */
  readonly doing: string | null;
  /** Said while there is no plan. */
  readonly waiting: string;
  /** `null` while there is no plan. */
  readonly summary: ReactNode | null;
  /** Absent where nothing is planned. */
  readonly save: ((as: 'text' | 'csv' | 'json') => Promise<void>) | undefined;
  /** The button's words. */
  readonly act: string;
  readonly isReady: boolean;
  readonly carryOut: () => Promise<void>;
}

export function PlanLedger({ trouble, doing, waiting, summary, save, act, isReady, carryOut }: Props) {
  return (
    <>
      <div className="min-w-0 flex-1" aria-live="polite">
        {doing !== null ? (
          <p role="status">
            <strong className="font-semibold">{doing}</strong>{' '}
            <span className="text-ink2">You may leave this page; it goes on.</span>
          </p>
        ) : trouble !== null ? (
          <p className="text-brick">{trouble}</p>
        ) : (
          (summary ?? <p className="text-ink2">{waiting}</p>)
        )}
      </div>
      {save !== undefined && (
        <Menu
          trigger={<Button>Save the plan…</Button>}
          lines={[
            { words: 'As a text', run: () => void save('text') },
            { words: 'As a table (CSV)', run: () => void save('csv') },
            { words: 'As JSON', run: () => void save('json') },
          ]}
        />
      )}
      <Button variant="main" disabled={!isReady} onClick={() => void carryOut()}>
        {doing ?? act}
      </Button>
    </>
  );
}

/** What is done, in one sentence, and the rest; or why nothing can be. */
export function PlanSummary({ refused, does, rest }: { refused: string | undefined; does: string; rest: string }) {
  return (
    <p>
      <strong className="font-semibold">{refused === undefined ? does : 'Nothing can be done yet.'}</strong>{' '}
      <span className="text-ink2">{refused ?? rest}</span>
    </p>
  );
}
