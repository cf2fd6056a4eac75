/**
 * Things being written, each with its past and future; kept in this browser until the server has them. One slice for
 * each sort of thing.
 */
import { createSlice, original, type PayloadAction } from '@reduxjs/toolkit';

export interface Editing<T> {
  /** Version of the server's draft this was made from; 0 where there is none. */
  readonly version: number;
  readonly now: T;
  /** What the server has, or what is in force where there is no draft. */
  readonly saved: T;
  readonly past: readonly T[];
  readonly future: readonly T[];
  /** What was changed last, so that letters typed one after another are one change. */
  readonly last: string | null;
}

export type Drafts<T> = Readonly<Record<string, Editing<T>>>;

const MOST_PAST = 500;
/** Steps back that outlive a reload. */
const PAST_KEPT = 50;

/** The state itself, not the stand-ins reducers are given: things are compared by being the very same. */
const plain = <T>(state: unknown): Drafts<T> => original(state as object) as Drafts<T>;

export function draftSlice<T>(name: string, key: string) {
  const kept = (): Drafts<T> => {
    try {
      return JSON.parse(localStorage.getItem(key) ?? '{}') as Drafts<T>;
    } catch {
      return {};
    }
  };
  const slice = createSlice({
    name,
    initialState: kept,
    reducers: {
      /**
       * What the server has. What was written here and is not saved stays: where the server has something newer, saving
       * says so.
       */
      opened(
        state,
        { payload: { id, thing, version } }: PayloadAction<{ id: string; thing: T; version: number }>,
      ): Drafts<T> {
        const drafts = plain<T>(state);
        const known = drafts[id];
        if (known !== undefined && (known.version === version || known.now !== known.saved)) return drafts;
        return { ...drafts, [id]: { version, now: thing, saved: thing, past: [], future: [], last: null } };
      },
      /** `what` names the thing written in; `null` for an act of its own. */
      changed(
        state,
        { payload: { id, thing, what } }: PayloadAction<{ id: string; thing: T; what: string | null }>,
      ): Drafts<T> {
        const drafts = plain<T>(state);
        const e = drafts[id];
        if (e === undefined || e.now === thing) return drafts;
        const joined = what !== null && what === e.last;
        return {
          ...drafts,
          [id]: {
            ...e,
            now: thing,
            past: joined ? e.past : [...e.past.slice(-MOST_PAST), e.now],
            future: [],
            last: what,
          },
        };
      },
      undone(state, { payload: id }: PayloadAction<string>): Drafts<T> {
        const drafts = plain<T>(state);
        const e = drafts[id];
        const before = e?.past.at(-1);
        if (e === undefined || before === undefined) return drafts;
        return {
          ...drafts,
          [id]: { ...e, now: before, past: e.past.slice(0, -1), future: [...e.future, e.now], last: null },
        };
      },
      redone(state, { payload: id }: PayloadAction<string>): Drafts<T> {
        const drafts = plain<T>(state);
        const e = drafts[id];
        const next = e?.future.at(-1);
        if (e === undefined || next === undefined) return drafts;
        return {
          ...drafts,
          [id]: { ...e, now: next, past: [...e.past, e.now], future: e.future.slice(0, -1), last: null },
        };
      },
      savedAs(
        state,
        { payload: { id, thing, version } }: PayloadAction<{ id: string; thing: T; version: number }>,
      ): Drafts<T> {
        const drafts = plain<T>(state);
        const e = drafts[id];
        return e === undefined ? drafts : { ...drafts, [id]: { ...e, saved: thing, version } };
      },
      /** After a draft is put in force or aside: what the server has now counts. */
      closed(state, { payload: id }: PayloadAction<string>): Drafts<T> {
        const { [id]: _gone, ...rest } = plain<T>(state);
        return rest;
      },
    },
  });
  /** Only what the server does not have yet is worth keeping. */
  const keep = (state: Drafts<T>): void => {
    const open = Object.fromEntries(
      Object.entries(state)
        .filter(([, e]) => e.now !== e.saved)
        .map(([id, e]) => [id, { ...e, past: e.past.slice(-PAST_KEPT), future: [] }]),
    );
    try {
      localStorage.setItem(key, JSON.stringify(open));
    } catch {
      // A full store keeps nothing more here; the server still gets every draft a moment later.
    }
  };
  return { ...slice.actions, reducer: slice.reducer, keep };
}
