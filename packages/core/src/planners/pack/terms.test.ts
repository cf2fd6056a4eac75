/** Terms of licensed material, as people fill their notes in. */
import { describe, expect, test } from '@jest/globals';
import { NO_REGISTERS } from '../../name/pattern/field';
import { ProjectRules } from '../../project/rules';
import { normaliseTemplate } from '../../template';
import { licensedIn, noteFor, termsAgainst, termsIn } from './terms';

const against = (note: string, recipient = '', today = '2026-03-06') =>
  termsAgainst(termsIn(note, 2026), { today, recipient });

describe('a note', () => {
  test('that nobody filled in says nothing', () => {
    const note = noteFor('gulls.wav');
    expect(note).toContain('Material: gulls.wav\n');
    expect(termsIn(note, 2026)).toEqual({ use: '', until: '', day: null, givenTo: '' });
    expect(against(note, 'Ottermoor')).toBeNull();
  });

  test.each([
    ['2026-03-05', 'over'],
    ['2026-03-06', null],
    ['5 March 2026', 'over'],
    ['31.12.2026', null],
    ['05.03.2026', 'over'],
    ['for ever', null],
    ['', null],
  ])('until %s', (until, why) => {
    expect(against(`Licence: made up\r\nMay be used until: ${until}\r\n`)).toBe(why);
  });

  test.each([
    ['Ottermoor Town Council', 'Ottermoor', null],
    ['Ottermoor Town Council', 'the council of Ottermoor', null],
    ['Ottermoor Town Council', 'Fennel & Rook', 'not-for'],
    ['anybody', 'Fennel & Rook', null],
    ['', 'Fennel & Rook', null],
    ['Ottermoor', '', null],
  ])('may be given to %s, and goes to %s', (givenTo, recipient, why) => {
    expect(against(`may be given to: ${givenTo}`, recipient)).toBe(why);
  });

  test('of anything else, however it is written, is passed over', () => {
    for (const text of ['', '\0', 'May be used until', ':::', `${'x'.repeat(100_000)}: 2020-01-01`])
      expect(against(text)).toBeNull();
  });
});

test('each file goes by its own note, else by the one of its folder; notes and planned files have none', () => {
  const template = normaliseTemplate({
    ...{ format: 'nesting/template', formatVersion: 1, name: 'T', fields: [], conventions: [] },
    root: {
      name: 'x',
      folders: [
        { id: 'l', name: 'library', licensed: true, starters: [{ id: 's', name: 'list.csv', from: 'list.csv' }] },
        { id: 'o', name: 'own' },
      ],
    },
  } as never);
  const rules = new ProjectRules({ template, values: {}, registers: NO_REGISTERS, now: Date.UTC(2026, 2, 6) });
  const texts: Record<string, string> = {
    'library/gulls.licence.txt': 'May be used until: 2025-01-01',
    'library/LICENSE.txt': 'May be given to: Ottermoor',
  };
  const names = ['gulls.wav', 'gulls.licence.txt', 'LICENSE.txt', 'waves.wav', 'list.csv'];
  const paths = [...names.map((name) => `library/${name}`), 'own/mine.wav'];
  const found = licensedIn(
    rules,
    paths,
    () => names,
    (path) => texts[path] ?? null,
    2026,
  );
  expect(found.map(({ path, note, day, givenTo }) => [path, note, day, givenTo])).toEqual([
    ['library/gulls.wav', 'library/gulls.licence.txt', '2025-01-01', ''],
    ['library/waves.wav', 'library/LICENSE.txt', null, 'Ottermoor'],
  ]);
});
