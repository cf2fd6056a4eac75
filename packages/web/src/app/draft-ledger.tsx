/** The foot of every editor with a draft: whether it is kept, and the ways to discard it or put it in force. */
import { type ReactNode, useId } from 'react';
import { Button, Confirm, Labelled, TextInput } from '../ui';
import type { Draft } from './use-draft';

interface Props {
  /** In force now; 0 while none is. */
  readonly edition: number;
  readonly draft: Pick<Draft<unknown>, 'trouble' | 'kept'>;
  /** The draft is otherwise than what is in force. */
  readonly open: boolean;
  /** The way out when somebody else wrote in the same draft. */
  readonly conflict: ReactNode;
  /** Why it could not be put in force just now. */
  readonly refused: string | null;
  readonly note: ReactNode;
  readonly mayPut: boolean;
  /** Absent where there is no draft that could be discarded. */
  readonly discard: { readonly words: string; readonly run: () => void } | null;
  readonly putInForce: (() => void) | null;
  readonly more?: ReactNode;
  /** What putting it in force means. */
  readonly children: ReactNode;
}

export function DraftLedger({
  edition,
  draft,
  open,
  conflict,
  refused,
  note,
  mayPut,
  discard,
  putInForce,
  more,
  children,
}: Props) {
  const next = `edition ${edition + 1} in force`;
  return (
    <>
      <p className="flex-1" role="status">
        {draft.trouble !== null ? (
          <>
            {draft.trouble} {conflict}
          </>
        ) : (
          (refused ?? (
            <>
              <strong className="font-semibold">
                {!open ? `Edition ${edition} is in force.` : draft.kept ? 'Draft kept.' : 'Keeping the draft…'}
              </strong>{' '}
              <span className="text-ink2">{note}</span>
            </>
          ))
        )}
      </p>
      {more}
      {discard && (
        <Confirm
          trigger={<Button>Discard the draft…</Button>}
          title="Discard the draft?"
          act="Discard it"
          run={discard.run}
        >
          {discard.words}
        </Confirm>
      )}
      {putInForce && (
        <Confirm
          trigger={
            <Button variant="main" disabled={!open || !mayPut || !draft.kept}>
              Put {next}…
            </Button>
          }
          title={`Put ${next}?`}
          act={`Put ${next}`}
          run={putInForce}
        >
          {children}
        </Confirm>
      )}
    </>
  );
}

/** What is lost when a draft is discarded. */
export const discardWords = (edition: number, what: string): string =>
  edition === 0
    ? `The ${what} was never in force, and goes with its draft.`
    : `What was changed since edition ${edition} is gone; edition ${edition} stays in force.`;

/** What an edition is for, asked before it is put in force. */
export function SaidField({ said, onSaid }: { said: string; onSaid: (said: string) => void }) {
  const id = useId();
  return (
    <Labelled id={id} label="What changed, in a sentence">
      <TextInput id={id} value={said} maxLength={200} onChange={(e) => onSaid(e.target.value)} />
    </Labelled>
  );
}
