/** Two people in one draft: what the other has there is looked at before either wording wins. */
import { useState } from 'react';
import { Button } from '../ui';
import type { draftSlice } from './draft-slice';
import { useAppDispatch } from './store';

interface Theirs<T> {
  readonly thing: T;
  readonly version: number;
  readonly by: string | null;
}

interface Props<T> {
  readonly id: string;
  readonly actions: ReturnType<typeof draftSlice<T>>;
  /** Asks the server anew; `null` where there is no draft any more. */
  readonly look: () => Promise<Theirs<T> | null>;
  /** What is otherwise in theirs, in words. */
  readonly differences: (theirs: T) => readonly string[];
}

const SHOWN = 5;

export function DraftConflict<T>({ id, actions, look, differences }: Props<T>) {
  const dispatch = useAppDispatch();
  const [theirs, setTheirs] = useState<Theirs<T> | null>(null);
  if (theirs === null)
    return (
      <Button variant="quiet" className="h-6!" onClick={() => void look().then(setTheirs)}>
        See the other version
      </Button>
    );
  const words = differences(theirs.thing);
  return (
    <span className="flex flex-col gap-1">
      <span className="text-sm">
        {theirs.by ?? 'Somebody'} has: {words.length === 0 ? 'the same' : words.slice(0, SHOWN).join('; ')}
        {words.length > SHOWN ? ` and ${words.length - SHOWN} more` : ''}.
      </span>
      <span className="flex gap-4">
        <Button
          variant="quiet"
          className="h-6!"
          onClick={() => dispatch(actions.savedAs({ id, thing: theirs.thing, version: theirs.version }))}
        >
          Keep mine
        </Button>
        <Button
          variant="quiet"
          className="h-6!"
          onClick={() => {
            dispatch(actions.closed(id));
            dispatch(actions.opened({ id, thing: theirs.thing, version: theirs.version }));
          }}
        >
          Take theirs
        </Button>
      </span>
    </span>
  );
}
