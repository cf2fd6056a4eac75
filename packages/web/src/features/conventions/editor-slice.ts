/** Conventions being written: each with its past and future, kept in this browser until the server has them. */
import type { Convention } from '@nesting/core';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

export interface Editing {
  /** Version of the server's draft this was made from; 0 where there is none. */
  readonly version: number;
  readonly now: Convention;
  /** What the server has, or what is in force where there is no draft. */
  readonly saved: Convention;
  readonly past: readonly Convention[];
  readonly future: readonly Convention[];
  /** What was changed last, so that letters typed one after another are one change. */
  readonly last: string | null;
}

export type EditorState = Readonly<Record<string, Editing>>;

const KEPT = 'nesting-conventions';
const MOST_PAST = 500;

function kept(): EditorState {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? '{}') as EditorState;
  } catch {
    return {};
  }
}

/** Only what the server does not have yet is worth keeping. */
export function keepConventions(state: EditorState): void {
  const open = Object.fromEntries(Object.entries(state).filter(([, e]) => e.now !== e.saved).map(([id, e]) => [id, { ...e, past: e.past.slice(-50), future: [] }]));
  localStorage.setItem(KEPT, JSON.stringify(open));
}

const slice = createSlice({
  name: 'conventions',
  initialState: kept,
  reducers: {
    /** What the server has; what was written here and not saved stays, where it was made from the same version. */
    opened(state, { payload }: PayloadAction<{ id: string; convention: Convention; version: number }>) {
      const { id, convention, version } = payload;
      const known = state[id];
      if (known !== undefined && known.version === version) return state;
      return { ...state, [id]: { version, now: convention, saved: convention, past: [], future: [], last: null } };
    },
    /** `what` names the thing written in; `null` for an act of its own. */
    changed(state, { payload: { id, convention, what } }: PayloadAction<{ id: string; convention: Convention; what: string | null }>) {
      const e = state[id];
      if (e === undefined) return state;
      const joined = what !== null && what === e.last;
      return { ...state, [id]: { ...e, now: convention, past: joined ? e.past : [...e.past.slice(-MOST_PAST), e.now], future: [], last: what } };
    },
    undone(state, { payload: id }: PayloadAction<string>) {
      const e = state[id];
      const before = e?.past.at(-1);
      if (e === undefined || before === undefined) return state;
      return { ...state, [id]: { ...e, now: before, past: e.past.slice(0, -1), future: [...e.future, e.now], last: null } };
    },
    redone(state, { payload: id }: PayloadAction<string>) {
      const e = state[id];
      const next = e?.future.at(-1);
      if (e === undefined || next === undefined) return state;
      return { ...state, [id]: { ...e, now: next, past: [...e.past, e.now], future: e.future.slice(0, -1), last: null } };
    },
    savedAs(state, { payload: { id, convention, version } }: PayloadAction<{ id: string; convention: Convention; version: number }>) {
      const e = state[id];
      return e === undefined ? state : { ...state, [id]: { ...e, saved: convention, version } };
    },
    /** After a draft is put in force or aside: what the server has now counts. */
    closed(state, { payload: id }: PayloadAction<string>) {
      const { [id]: _gone, ...rest } = state;
      return rest;
    },
  },
});

export const { opened, changed, undone, redone, savedAs, closed } = slice.actions;
export const conventionsReducer = slice.reducer;
