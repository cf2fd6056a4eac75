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

/**
 * What the server has. What was written here and is not saved stays: where the server has something newer, saving
 * says so.
 */
function opened<T>(drafts: Drafts<T>, { id, thing, version }: Versioned<T>): Drafts<T> {
  const known = drafts[id];
  if (known !== undefined && (known.version === version || known.now !== known.saved)) return drafts;
  return { ...drafts, [id]: { version, now: thing, saved: thing, past: [], future: [], last: null } };
}

interface Versioned<T> {
  readonly id: string;
  readonly thing: T;
  readonly version: number;
}

interface Written<T> {
  readonly id: string;
  readonly thing: T;
  /** The thing written in; `null` for an act of its own. */
  readonly what: string | null;
}

function written<T>(drafts: Drafts<T>, { id, thing, what }: Written<T>): Drafts<T> {
  const e = drafts[id];
  if (e === undefined || e.now === thing) return drafts;
  const isSameAct = what !== null && what === e.last;
  const past = isSameAct ? e.past : [...e.past.slice(-MOST_PAST), e.now];
  return { ...drafts, [id]: { ...e, now: thing, past, future: [], last: what } };
}

function undone<T>(drafts: Drafts<T>, id: string): Drafts<T> {
  const e = drafts[id];
  const before = e?.past.at(-1);
  if (e === undefined || before === undefined) return drafts;
  return {
    ...drafts,
    [id]: { ...e, now: before, past: e.past.slice(0, -1), future: [...e.future, e.now], last: null },
  };
}

function redone<T>(drafts: Drafts<T>, id: string): Drafts<T> {
  const e = drafts[id];
  const next = e?.future.at(-1);
  if (e === undefined || next === undefined) return drafts;
  return {
    ...drafts,
    [id]: { ...e, now: next, past: [...e.past, e.now], future: e.future.slice(0, -1), last: null },
  };
}

function savedAs<T>(drafts: Drafts<T>, { id, thing, version }: Versioned<T>): Drafts<T> {
  const e = drafts[id];
  return e === undefined ? drafts : { ...drafts, [id]: { ...e, saved: thing, version } };
}

/** After a draft is put in force or aside: what the server has now counts. */
function closed<T>(drafts: Drafts<T>, id: string): Drafts<T> {
  const { [id]: _gone, ...rest } = drafts;
  return rest;
}

/** The state itself, not the stand-ins reducers are given: things are compared by being the very same. */
const plain = <T>(state: unknown): Drafts<T> => original(state as object) as Drafts<T>;

/** Only what the server does not have yet is worth keeping. */
function keepIn<T>(key: string, state: Drafts<T>): void {
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
}

function keptIn<T>(key: string): Drafts<T> {
  try {
    return JSON.parse(localStorage.getItem(key) ?? '{}') as Drafts<T>;
  } catch {
    return {};
  }
}

export function draftSlice<T>(name: string, key: string) {
  const slice = createSlice({
    name,
    initialState: (): Drafts<T> => keptIn(key),
    reducers: {
      opened: (state, { payload }: PayloadAction<Versioned<T>>) => opened(plain<T>(state), payload),
      changed: (state, { payload }: PayloadAction<Written<T>>) => written(plain<T>(state), payload),
      undone: (state, { payload }: PayloadAction<string>) => undone(plain<T>(state), payload),
      redone: (state, { payload }: PayloadAction<string>) => redone(plain<T>(state), payload),
      savedAs: (state, { payload }: PayloadAction<Versioned<T>>) => savedAs(plain<T>(state), payload),
      closed: (state, { payload }: PayloadAction<string>) => closed(plain<T>(state), payload),
    },
  });
  return { ...slice.actions, reducer: slice.reducer, keep: (state: Drafts<T>) => keepIn(key, state) };
}
