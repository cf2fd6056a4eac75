/** The editor's acts on a convention, and its draft with undo. */
import { beforeAll, describe, expect, test } from '@jest/globals';
import { mustParse, type Slot, slotsOf } from '@nesting/core/name';
import type { Convention } from '@nesting/core/template';
import fc from 'fast-check';
import type { draftSlice as Make } from '../src/app/draft-slice';
import { readerPath } from '../src/app/reader-path';
import {
  addPart,
  changeField,
  changeKind,
  changeOptional,
  changeSeparator,
  changeSlot,
  kindOf,
  optionsFrom,
  optionsText,
  PART_KIND_OPTIONS,
  renameField,
  rowFor,
} from '../src/features/conventions/edit';
import { compileRule } from '../src/workers/compile-rule';

const base: Convention = {
  id: 'c',
  name: 'C',
  pattern: '{number}_{surface:kebab}_v{version:000}.{ext}',
  fields: [{ key: 'surface', type: 'text', max: 24 }],
};
const slot = (convention: Convention, field: string): Slot =>
  slotsOf(mustParse(convention.pattern).parts).find((s) => s.field === field) as Slot;
const registers = {
  clients: [{ code: 'QHT', name: 'Quillhaven' }],
  people: [{ initials: 'BO', name: 'Bram' }],
  families: [{ name: 'still', extensions: ['png'] }],
  abbreviations: [],
  banned: [],
};
const usable = (c: Convention) =>
  compileRule({ pattern: c.pattern, fields: c.fields ?? [], registers, families: undefined, number: undefined }) !==
  null;

describe('acts of the editor', () => {
  test.each(PART_KIND_OPTIONS.map((k) => k.value))(
    'a part that is %s is put in, is that kind, and can be used',
    (kind) => {
      const bare: Convention = { id: 'c', name: 'C', pattern: '{title:kebab}', fields: [] };
      const added = addPart(bare, kind);
      const items = rowFor(added.pattern)?.items ?? [];
      expect(items).toHaveLength(2);
      expect(kindOf((items.at(-1) as { slot: Slot }).slot, added.fields ?? [])).toBe(kind);
      expect(usable(added)).toBe(true);
    },
  );

  test('any kind becomes any other, and stays usable', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...PART_KIND_OPTIONS.map((k) => k.value)), { minLength: 1, maxLength: 5 }),
        (kinds) => {
          let c = base;
          for (const kind of kinds) {
            const target = rowFor(c.pattern)?.items[1]?.slot as Slot;
            c = changeKind(c, target, kind);
            // There is one project number in a name: a second one is plain words.
            expect(kindOf(rowFor(c.pattern)?.items[1]?.slot as Slot, c.fields ?? [])).toBe(
              kind === 'number' ? 'text' : kind,
            );
            expect(usable(c)).toBe(true);
          }
          // No declaration is left of a part that is gone.
          const fields = new Set(slotsOf(mustParse(c.pattern).parts).map((s) => s.field));
          expect((c.fields ?? []).every((f) => fields.has(f.key))).toBe(true);
        },
      ),
    );
  });

  test('shape, name, separator and being left out change the text alone where they stand', () => {
    expect(changeSlot(base, slot(base, 'version'), { shape: '00' }).pattern).toBe(
      '{number}_{surface:kebab}_v{version:00}.{ext}',
    );
    expect(changeSlot(base, slot(base, 'surface'), { shape: '' }).pattern).toBe(
      '{number}_{surface}_v{version:000}.{ext}',
    );
    const renamed = renameField(base, slot(base, 'surface'), 'front');
    expect([renamed.pattern, renamed.fields?.[0]?.key]).toEqual([
      '{number}_{front:kebab}_v{version:000}.{ext}',
      'front',
    ]);
    expect(renameField(base, slot(base, 'surface'), 'not a name')).toBe(base);
    const optional = changeOptional(base, 2, true);
    expect(optional.pattern).toBe('{number}_{surface:kebab}(_v{version:000})?.{ext}');
    expect(changeOptional(optional, 2, false).pattern).toBe(base.pattern);
    expect(changeSeparator(base, 1, '-').pattern).toBe('{number}-{surface:kebab}_v{version:000}.{ext}');
    expect(changeSeparator(optional, 2, '-').pattern).toBe('{number}_{surface:kebab}(-v{version:000})?.{ext}');
  });

  test('a field that is leaned on is taken over before it is changed', () => {
    const leaned = [{ key: 'place', type: 'text' as const, max: 40 }];
    const c = changeField({ ...base, fields: [] }, 'place', leaned, { max: 12 });
    expect(c.fields).toEqual([{ key: 'place', type: 'text', max: 12 }]);
    expect(leaned[0]?.max).toBe(40);
  });

  test('options as lines and back', () => {
    const text = 'anim = Animation, animate\ncomp\nfx = Effects';
    expect(optionsText(optionsFrom(text))).toBe(text);
    expect(optionsFrom('\n = nothing\n  a  ')).toEqual([{ code: 'a' }]);
  });
});

describe('the draft', () => {
  let slice: ReturnType<typeof Make<Convention>>;
  beforeAll(async () => {
    const kept = new Map<string, string>();
    globalThis.localStorage = {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
    } as Storage;
    slice = (await import('../src/app/draft-slice')).draftSlice<Convention>('c', 'c');
  });

  test('whatever is changed, undoing all of it and redoing all of it gives both ends', () => {
    const { reducer: reduce, opened, changed, undone, redone } = slice;
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom('name', 'pattern', null), fc.string({ maxLength: 5 })), { maxLength: 15 }),
        (steps) => {
          let state = reduce({}, opened({ id: 'c', thing: base, version: 0 }));
          for (const [what, text] of steps)
            state = reduce(state, changed({ id: 'c', thing: { ...base, name: text }, what }));
          const end = state.c?.now;
          const count = state.c?.past.length ?? 0;
          for (let i = 0; i < count; i++) state = reduce(state, undone('c'));
          expect(state.c?.now).toEqual(base);
          for (let i = 0; i < count; i++) state = reduce(state, redone('c'));
          expect(state.c?.now).toEqual(end);
        },
      ),
    );
  });

  test('what was written here and is not saved stays, whatever the server has; what is saved gives way', () => {
    const { reducer: reduce, opened, changed, savedAs } = slice;
    const mine = { ...base, name: 'Mine' };
    let state = reduce(
      reduce({}, opened({ id: 'c', thing: base, version: 3 })),
      changed({ id: 'c', thing: mine, what: 'name' }),
    );
    expect(reduce(state, opened({ id: 'c', thing: base, version: 3 })).c?.now).toBe(mine);
    expect(reduce(state, opened({ id: 'c', thing: { ...base, name: 'Theirs' }, version: 4 })).c).toMatchObject({
      now: mine,
      version: 3,
    });
    state = reduce(state, savedAs({ id: 'c', thing: mine, version: 4 }));
    expect(state.c).toMatchObject({ version: 4, saved: mine, past: [base] });
    expect(reduce(state, opened({ id: 'c', thing: mine, version: 4 })).c?.past).toHaveLength(1);
    expect(reduce(state, opened({ id: 'c', thing: { ...base, name: 'Theirs' }, version: 5 })).c?.now.name).toBe(
      'Theirs',
    );
  });
});

test('paths in the form of one’s own system', () => {
  const project = {
    root: '/srv/studio/26014_x',
    folder: '26014_x',
    prefixes: { windows: 'S:\\shows', macos: '/Volumes/shows', linux: '' },
  };
  expect(readerPath(project, 'windows', 'a/b c.mov')).toBe('S:\\shows\\26014_x\\a\\b c.mov');
  expect(readerPath(project, 'macos', '')).toBe('/Volumes/shows/26014_x');
  expect(readerPath(project, 'linux', 'a')).toBe('/srv/studio/26014_x/a');
});
