/** The button that puts the chosen findings right, with its effect on it; and what a press did, with the way back. */
import { Link } from 'react-router';
import { Button, Refused } from '../../ui';
import { changesApi } from '../batches/changes-api';
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

type PressState = 'done' | 'running' | 'not-done';

const STATE_WORDS: Readonly<Record<PressState, string>> = {
  done: 'Done.',
  running: 'Under way.',
  'not-done': 'It was not done as it was shown.',
};

/** What takes longer than the answer waited for is asked after until it has ended. */
function useStateOf(project: string, pressed: Press['pressed']): PressState {
  const isOpen = pressed !== null && !pressed.isDone;
  const { data } = changesApi.useBatchesQuery(project, { skip: !isOpen, pollingInterval: LOOK });
  if (!isOpen) return 'done';
  const state = data?.find(({ id }) => id === pressed.batch)?.state ?? 'running';
  return state === 'done' || state === 'running' ? state : 'not-done';
}

/** Milliseconds between two looks. */
const LOOK = 1000;

/** Stands in the ledger until it is undone, or put away. */
export function PressedLine({ project, press }: { project: string; press: Press }) {
  const { pressed, isBusy } = press;
  const state = useStateOf(project, pressed);
  if (pressed === null) return null;
  return (
    <p className="flex min-w-0 flex-1 items-center gap-3" role="status">
      <span className="min-w-0 flex-1 truncate">
        <strong className="font-semibold">{STATE_WORDS[state]}</strong>{' '}
        <span title={pressed.words}>{pressed.words}</span>{' '}
        <Link to={`/projects/${project}/batches?batch=${pressed.batch}`} className="text-bottle underline">
          Look at it
        </Link>
      </span>
      {state === 'done' && (
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
