/** The draft of one convention: opened from the server, changed here, and sent back a moment after each change. */
import type { ConventionRow } from '@nesting/contract';
import type { Convention } from '@nesting/core';
import { useCallback, useEffect, useState } from 'react';
import { api, troubleOf } from '../../app/api';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { changed, type Editing, opened, savedAs } from './editor-slice';

/** Typing goes on for this long before what was typed is sent. */
const REST_MS = 700;

export interface Draft {
  readonly editing: Editing | null;
  readonly change: (convention: Convention, what: string | null) => void;
  /** Whether the server has all of it. */
  readonly kept: boolean;
  readonly trouble: string | null;
}

export function useDraft(row: ConventionRow | undefined, mayWrite: boolean): Draft {
  const dispatch = useAppDispatch();
  const id = row?.id ?? '';
  const editing = useAppSelector((s) => s.conventions[id]) ?? null;
  const [keep] = api.useKeepDraftMutation();
  const [trouble, setTrouble] = useState<string | null>(null);
  const start = row?.draft?.convention ?? row?.convention ?? null;
  const version = row?.draft?.version ?? 0;
  useEffect(() => {
    if (start !== null) dispatch(opened({ id, convention: start, version }));
  }, [dispatch, id, start, version]);
  const now = editing?.now;
  const dirty = editing !== null && editing.now !== editing.saved;
  useEffect(() => {
    if (!mayWrite || !dirty || now === undefined || editing === null) return;
    const timer = setTimeout(async () => {
      try {
        const saved = await keep({ convention: now, version: editing.version }).unwrap();
        dispatch(savedAs({ id, convention: now, version: saved.version }));
        // The list knows of the draft too, without being asked for anew at every letter.
        dispatch(api.util.updateQueryData('conventions', undefined, (rows) => rows.map((r) => (r.id === id ? { ...r, name: now.name, draft: { convention: now, version: saved.version, by: r.draft?.by ?? null, changedAt: new Date().toISOString() } } : r))));
        setTrouble(null);
      } catch (error) {
        setTrouble(troubleOf(error));
      }
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [dispatch, keep, id, now, dirty, editing, mayWrite]);
  const change = useCallback((convention: Convention, what: string | null) => dispatch(changed({ id, convention, what })), [dispatch, id]);
  return { editing, change, kept: !dirty, trouble };
}
