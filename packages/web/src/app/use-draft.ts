/** The draft of one thing: opened from the server, changed here, and sent back a moment after each change. */
import { useCallback, useEffect, useMemo, useState } from 'react';
import { troubleOf } from './api';
import { type Command, usePageCommands } from './commands';
import type { draftSlice, Editing } from './draft-slice';
import { type State, useAppDispatch, useAppSelector } from './store';

/** Typing goes on for this long before what was typed is sent. */
const REST_MS = 700;

export interface Draft<T> {
  readonly editing: Editing<T> | null;
  readonly change: (thing: T, what: string | null) => void;
  /** Whether the server has all of it. */
  readonly kept: boolean;
  readonly trouble: string | null;
}

interface Source<T> {
  readonly id: string;
  /** What the server has: its draft, or what is in force; with the draft's version, 0 where there is none. */
  readonly start: T | null;
  readonly version: number;
  readonly mayWrite: boolean;
  readonly actions: ReturnType<typeof draftSlice<T>>;
  readonly select: (state: State) => Editing<T> | undefined;
  readonly save: (thing: T, version: number) => Promise<number>;
  /** Told when the server has it, with the new version. */
  readonly onSaved: (thing: T, version: number) => void;
}

export function useDraft<T>({ id, start, version, mayWrite, actions, select, save, onSaved }: Source<T>): Draft<T> {
  const dispatch = useAppDispatch();
  const editing = useAppSelector(select) ?? null;
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    if (start !== null) dispatch(actions.opened({ id, thing: start, version }));
  }, [dispatch, actions, id, start, version]);
  const dirty = editing !== null && editing.now !== editing.saved;
  useEffect(() => {
    if (!mayWrite || !dirty || editing === null) return;
    const { now } = editing;
    const timer = setTimeout(async () => {
      try {
        const saved = await save(now, editing.version);
        dispatch(actions.savedAs({ id, thing: now, version: saved }));
        onSaved(now, saved);
        setTrouble(null);
      } catch (error) {
        setTrouble(troubleOf(error));
      }
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [dispatch, actions, id, editing, dirty, mayWrite]);
  const change = useCallback(
    (thing: T, what: string | null) => dispatch(actions.changed({ id, thing, what })),
    [dispatch, actions, id],
  );
  const commands = useMemo<readonly Command[]>(
    () => [
      { id: 'undo', words: 'Undo', keys: 'Ctrl+Z', run: () => dispatch(actions.undone(id)) },
      { id: 'redo', words: 'Redo', keys: 'Ctrl+Shift+Z', run: () => dispatch(actions.redone(id)) },
    ],
    [dispatch, actions, id],
  );
  usePageCommands(commands);
  // What could not be sent is no trouble any more once there is nothing to send.
  return { editing, change, kept: !dirty, trouble: dirty ? trouble : null };
}
