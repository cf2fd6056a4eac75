/** The button that puts the chosen findings right, with its effect on it; and what a press did, with the way back. */
import { Link } from 'react-router';
import { Button, Refused } from '../../ui';
import type { Press } from './use-press';

export function PressPanel({ press }: { press: Press }) {
  const { may, words, note, isBusy, trouble } = press;
  if (!may || (words === null && trouble === null)) return null;
  return (
    <div className="flex flex-col gap-1.5">
      {words !== null && (
        <button
          type="button"
          disabled={isBusy}
          onClick={() => void press.press()}
          className="flex min-h-9 items-center gap-3 rounded-tray border border-bottle bg-sheet px-3 py-1.5 text-left text-sm font-semibold text-bottle hover:bg-bottle/10 disabled:border-line disabled:text-ink2"
        >
          <span className="min-w-0 flex-1 break-words">{isBusy ? 'Putting it right…' : words}</span>
          <kbd className="rounded border border-rule px-1.5 font-mono text-xs font-normal text-ink2">p</kbd>
        </button>
      )}
      {note !== '' && <p className="text-xs text-ink2">{note}.</p>}
      <Refused words={trouble} />
    </div>
  );
}

/** Stands in the ledger until it is undone, or put away. */
export function PressedLine({ project, press }: { project: string; press: Press }) {
  const { pressed, isBusy } = press;
  if (pressed === null) return null;
  return (
    <p className="flex min-w-0 flex-1 items-center gap-3" role="status">
      <span className="min-w-0 flex-1 truncate">
        <strong className="font-semibold">{pressed.isDone ? 'Done.' : 'Under way.'}</strong>{' '}
        <span title={pressed.words}>{pressed.words}</span>{' '}
        <Link to={`/projects/${project}/batches?batch=${pressed.batch}`} className="text-bottle underline">
          Look at it
        </Link>
      </span>
      {pressed.isDone && (
        <Button disabled={isBusy} onClick={() => void press.undo()}>
          {isBusy ? 'Undoing…' : 'Undo'}
        </Button>
      )}
      <Button variant="quiet" onClick={press.dismiss}>
        Put this away
      </Button>
    </p>
  );
}
