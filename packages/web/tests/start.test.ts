import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type * as Slice from '../src/features/start/start-slice';

let slice: typeof Slice;
const kept = new Map<string, string>();
beforeAll(async () => {
  globalThis.localStorage = {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
  } as Storage;
  slice = await import('../src/features/start/start-slice');
});

const empty = { drafts: {}, volume: null, last: {} };
const values = (state: Slice.StartState) => state.drafts.t?.values ?? {};
/** A field that was empty before and is so again has the value nothing. */
const filled = (state: Slice.StartState) =>
  Object.fromEntries(Object.entries(values(state)).filter(([, v]) => v !== null));

describe('the draft of a start', () => {
  test('letters typed into one field are one change; undo and redo take fields', () => {
    const { startReducer: reduce, fieldGiven, undone, redone } = slice;
    const give = (field: string, value: string) => fieldGiven({ template: 't', field, value });
    let state = ['H', 'Ha', 'Har'].reduce((s, v) => reduce(s, give('title', v)), empty as Slice.StartState);
    state = reduce(state, give('client', 'QHT'));
    expect(state.drafts.t?.past).toHaveLength(2);
    state = reduce(reduce(state, undone('t')), undone('t'));
    expect(filled(state)).toEqual({});
    state = reduce(reduce(state, redone('t')), redone('t'));
    expect(filled(state)).toEqual({ title: 'Har', client: 'QHT' });
  });

  test('whatever was done: undoing all of it gives an empty draft, redoing all gives it back', () => {
    const { startReducer: reduce, fieldGiven, undone, redone } = slice;
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom('a', 'b', 'c'), fc.string({ minLength: 1, maxLength: 3 })), {
          maxLength: 20,
        }),
        (steps) => {
          let state: Slice.StartState = empty;
          for (const [field, value] of steps) state = reduce(state, fieldGiven({ template: 't', field, value }));
          const end = filled(state);
          const count = state.drafts.t?.past.length ?? 0;
          for (let i = 0; i < count; i++) state = reduce(state, undone('t'));
          expect(filled(state)).toEqual({});
          for (let i = 0; i < count; i++) state = reduce(state, redone('t'));
          expect(filled(state)).toEqual(end);
        },
      ),
    );
  });

  test('an offered number is no change of the person’s, and a draft outlives the page', () => {
    const { startReducer: reduce, numberOffered, keepStart } = slice;
    const state = reduce(empty, numberOffered({ template: 't', number: '26016' }));
    expect(state.drafts.t).toEqual({ values: { number: '26016' }, past: [], future: [] });
    keepStart(state);
    expect(JSON.parse(kept.get('nesting-start') ?? '{}')).toEqual(state);
  });

  test('a draft of one template is not touched by another', () => {
    const { startReducer: reduce, fieldGiven, draftDone } = slice;
    let state = reduce(empty, fieldGiven({ template: 't', field: 'title', value: 'One' }));
    state = reduce(
      reduce(state, fieldGiven({ template: 'u', field: 'title', value: 'Two' })),
      draftDone({ template: 'u', keep: [] }),
    );
    expect(values(state)).toEqual({ title: 'One' });
    expect(state.drafts.u).toBeUndefined();
  });
});
