/**
 * The project being filled in: what was given, field by field, with undo without limit. A draft survives leaving and
 * reloading.
 */

import { valueSchema } from '@nesting/contract';
import type { Value } from '@nesting/core/name';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { z } from 'zod';
import { readKept } from '../../app/kept';

export interface FieldChange {
  readonly field: string;
  readonly before: Value;
  readonly after: Value;
}

export interface StartDraft {
  readonly values: Readonly<Record<string, Value>>;
  readonly past: readonly FieldChange[];
  readonly future: readonly FieldChange[];
}

export interface StartState {
  /** By template, so that trying another one loses nothing. */
  readonly drafts: Readonly<Record<string, StartDraft>>;
  readonly volume: string | null;
  /** What was chosen last for each template, of what is mostly the same. */
  readonly last: Readonly<Record<string, Readonly<Record<string, Value>>>>;
}

export const EMPTY_DRAFT: StartDraft = { values: {}, past: [], future: [] };

/** A draft begins with what was chosen last. */
export const draftFrom = (state: StartState, template: string): StartDraft =>
  state.drafts[template] ?? { ...EMPTY_DRAFT, values: state.last[template] ?? {} };

/**
 * Stand in a draft beside its values, so that they are undone with them: what is otherwise for this project, and its
 * settings.
 */
export const ADJUSTED = '@adjusted';
export const SETTINGS = '@settings';
const KEPT = 'nesting-start';

const valuesByKey = z.record(z.string(), valueSchema);
const changesSchema = z.array(z.object({ field: z.string(), before: valueSchema, after: valueSchema }));
const draftSchema = z.object({ values: valuesByKey, past: changesSchema, future: changesSchema });
const keptSchema: z.ZodType<StartState> = z.object({
  drafts: z.record(z.string(), draftSchema).default({}),
  volume: z.string().nullable().default(null),
  last: z.record(z.string(), valuesByKey).default({}),
});

function kept(): StartState {
  return readKept(KEPT, keptSchema, { drafts: {}, volume: null, last: {} });
}

export const keepStart = (state: StartState): void => localStorage.setItem(KEPT, JSON.stringify(state));

const slice = createSlice({
  name: 'start',
  initialState: kept,
  reducers: {
    fieldGiven(state, { payload }: PayloadAction<{ template: string; field: string; value: Value }>) {
      const draft = state.drafts[payload.template] ?? draftFrom(state, payload.template);
      const before = draft.values[payload.field] ?? null;
      if (before === payload.value) return state;
      const last = draft.past[draft.past.length - 1];
      // Letters typed one after another into one field are one change.
      const joined = last?.field === payload.field && draft.future.length === 0;
      const change: FieldChange = { field: payload.field, before: joined ? last.before : before, after: payload.value };
      const past = [...(joined ? draft.past.slice(0, -1) : draft.past), change];
      return {
        ...state,
        drafts: {
          ...state.drafts,
          [payload.template]: { values: { ...draft.values, [payload.field]: payload.value }, past, future: [] },
        },
      };
    },
    undone(state, { payload: template }: PayloadAction<string>) {
      const draft = state.drafts[template];
      const last = draft?.past[draft.past.length - 1];
      if (!draft || !last) return state;
      return {
        ...state,
        drafts: {
          ...state.drafts,
          [template]: {
            values: { ...draft.values, [last.field]: last.before },
            past: draft.past.slice(0, -1),
            future: [...draft.future, last],
          },
        },
      };
    },
    redone(state, { payload: template }: PayloadAction<string>) {
      const draft = state.drafts[template];
      const next = draft?.future[draft.future.length - 1];
      if (!draft || !next) return state;
      return {
        ...state,
        drafts: {
          ...state.drafts,
          [template]: {
            values: { ...draft.values, [next.field]: next.after },
            past: [...draft.past, next],
            future: draft.future.slice(0, -1),
          },
        },
      };
    },
    /** A held number is put in without being a change of the person's. */
    numberOffered(state, { payload }: PayloadAction<{ template: string; number: string }>) {
      const draft = state.drafts[payload.template] ?? draftFrom(state, payload.template);
      return {
        ...state,
        drafts: {
          ...state.drafts,
          [payload.template]: { ...draft, values: { ...draft.values, number: payload.number } },
        },
      };
    },
    /** `keep` names the fields whose values are offered the next time. */
    draftDone(state, { payload: { template, keep } }: PayloadAction<{ template: string; keep: readonly string[] }>) {
      const { [template]: done, ...drafts } = state.drafts;
      const last = Object.fromEntries(
        keep.flatMap((key) => (done?.values[key] === undefined ? [] : [[key, done.values[key]]])),
      );
      return { ...state, drafts, last: { ...state.last, [template]: last } };
    },
    /** Another like a project that is there: its values without its number. */
    draftLike(
      state,
      { payload: { template, values } }: PayloadAction<{ template: string; values: Readonly<Record<string, Value>> }>,
    ) {
      const { number: _own, ...rest } = values;
      return { ...state, drafts: { ...state.drafts, [template]: { values: rest, past: [], future: [] } } };
    },
    volumeChosen(state, { payload }: PayloadAction<string>) {
      return { ...state, volume: payload };
    },
  },
});

export const { fieldGiven, undone, redone, numberOffered, draftDone, draftLike, volumeChosen } = slice.actions;
export const startReducer = slice.reducer;
