/** What is due, as producers say it: a master for every stand two days before it opens, a mix in every language, a poster. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkListing } from '../src/check';
import type { FolderListing } from '../src/listing';
import { NO_REGISTERS, type Values } from '../src/name';
import { type CheckInput, deliveredAs, deliveriesOf, ProjectRules } from '../src/project';
import { diagnoseTemplate, normaliseTemplate, renameField, type Template } from '../src/template';

const template: Template = normaliseTemplate({
  format: 'nesting/template',
  formatVersion: 1,
  name: 'Show',
  fields: [
    { key: 'opens', type: 'date' },
    { key: 'stands', type: 'list', of: { type: 'text' } },
    { key: 'languages', type: 'list', of: { type: 'text' } },
    { key: 'films', type: 'list', of: { type: 'text' } },
    { key: 'cuts', type: 'list', of: { type: 'text' }, within: 'films' },
  ],
  conventions: [
    { id: 'master', name: 'Master', pattern: '{number}_MST_{stand:kebab}.{ext}', families: ['moving image'] },
    { id: 'mix', name: 'Mix', pattern: '{number}_MIX_{language}_v{version:00}.{ext}', families: ['sound'] },
  ],
  registers: {
    families: [
      { name: 'moving image', extensions: ['mov'] },
      { name: 'sound', extensions: ['wav'] },
      { name: 'document', extensions: ['pdf'] },
    ],
  },
  root: {
    name: '{number}',
    folders: [
      {
        id: 'masters',
        name: 'masters',
        conventions: ['master', 'mix'],
        deliveries: [
          {
            name: 'Master',
            onePer: { list: 'stands', as: 'stand' },
            convention: 'master',
            due: { field: 'opens', days: -2 },
          },
          {
            name: 'Mix',
            onePer: { list: 'languages', as: 'language' },
            convention: 'mix',
            due: { field: 'opens', days: 0 },
          },
        ],
      },
      { id: 'print', name: 'print', free: true, deliveries: [{ name: 'Poster', family: 'document' }] },
      {
        id: 'film',
        name: '{film}',
        onePer: { list: 'films', as: 'film' },
        free: true,
        deliveries: [
          {
            name: 'Trailer',
            onePer: { list: 'cuts', as: 'cut' },
            family: 'moving image',
            due: { field: 'opens', days: 7 },
          },
        ],
      },
    ],
  },
} as never);

const VALUES: Values = {
  ...{ number: '26014', opens: '2026-05-10', stands: ['pier', 'mill roof'], languages: ['en', 'nl'] },
  ...{ films: ['day', 'night'], cuts: { day: ['long'], night: ['long', 'short'] } },
};
const at = (now: string, values: Values = VALUES): CheckInput => ({
  ...{ template, values, registers: NO_REGISTERS, now: Date.parse(`${now}T12:00:00Z`) },
});
const folder = (path: string, names: readonly string[], size = 1): FolderListing => ({
  ...{ path, folders: [], others: [] },
  files: names.map((name, n) => ({ name, size, modified: 1_000 + n })),
});
const disk = (masters: readonly string[], ...more: readonly FolderListing[]): FolderListing[] => [
  { path: '', folders: ['masters', 'print', 'day', 'night'], files: [], others: [] },
  folder('masters', masters),
  ...['print', 'day', 'night'].map((path) => more.find((one) => one.path === path) ?? folder(path, [])),
];
const late = (now: string, listings: readonly FolderListing[], values?: Values): string[] =>
  checkListing(new ProjectRules(at(now, values)), listings)
    .findings.filter(({ rule }) => rule === 'missing-delivery')
    .map(({ params }) => {
      const { name, entry } = params as { name: string; entry?: string };
      return entry === undefined ? name : `${name} ${entry}`;
    })
    .sort();

describe('what is late', () => {
  test('nothing until its day is over; then each that is not there, until it is', () => {
    expect(late('2026-05-08', disk([]))).toEqual([]);
    expect(late('2026-05-09', disk([]))).toEqual(['Master mill roof', 'Master pier']);
    expect(late('2026-05-09', disk(['26014_MST_pier.mov']))).toEqual(['Master mill roof']);
    expect(late('2026-05-09', disk(['26014_MST_pier.mov', '26014_MST_mill-roof.mov']))).toEqual([]);
    expect(late('2026-05-10', disk(['26014_MST_pier.mov', '26014_MST_mill-roof.mov']))).toEqual([]);
    expect(late('2026-05-11', disk(['26014_MST_pier.mov', '26014_MST_mill-roof.mov', '26014_MIX_nl_v03.wav']))).toEqual(
      ['Mix en'],
    );
  });

  test('what is called otherwise, holds nothing, or is another project’s has not been delivered', () => {
    const both = ['Master mill roof', 'Master pier'];
    for (const name of ['MST_pier.mov', '26014_MST_pier_final.mov', '26014_MST_pier.wav', '26013_MST_pier.mov'])
      expect(late('2026-05-09', disk([name]))).toEqual(both);
    const empty = disk([]).map((one) => (one.path === 'masters' ? folder('masters', ['26014_MST_pier.mov'], 0) : one));
    expect(late('2026-05-09', empty)).toEqual(both);
  });

  test('a list within another has its own entries in each folder; where no convention says it the name holds it as words', () => {
    expect(late('2026-05-18', disk([])).filter((one) => one.startsWith('Trailer'))).toEqual([
      'Trailer long',
      'Trailer long',
      'Trailer short',
    ]);
    const night = folder('night', ['The Night - SHORT cut.mov', 'longer.mov']);
    expect(late('2026-05-18', disk([], night)).filter((one) => one.startsWith('Trailer'))).toEqual([
      'Trailer long',
      'Trailer long',
    ]);
  });

  test('without a day nothing is ever late: neither what has none, nor what hangs on a value nobody gave', () => {
    expect(late('2036-01-01', disk([])).includes('Poster')).toBe(false);
    expect(late('2036-01-01', disk([]), { ...VALUES, opens: null } as never)).toEqual([]);
  });

  test('each has an identity of its own, which the day and the files do not change', () => {
    const ids = (now: string, names: readonly string[]) =>
      checkListing(new ProjectRules(at(now)), disk(names)).findings.flatMap((f) =>
        f.rule === 'missing-delivery' ? [f.id] : [],
      );
    const all = ids('2026-06-01', []);
    expect(new Set(all).size).toBe(all.length);
    for (const id of ids('2026-07-01', ['26014_MST_pier.mov'])) expect(all).toContain(id);
  });

  test('delivering more never makes more late', () => {
    const names = [
      '26014_MST_pier.mov',
      '26014_MST_mill-roof.mov',
      '26014_MIX_en_v01.wav',
      '26014_MIX_nl_v02.wav',
      'x.mov',
    ];
    fc.assert(
      fc.property(fc.subarray(names), fc.constantFrom(...names), fc.integer({ min: 1, max: 28 }), (some, one, day) => {
        const now = `2026-05-${String(day).padStart(2, '0')}`;
        const before = late(now, disk(some));
        const after = late(now, disk([...new Set([...some, one])]));
        for (const name of after) expect(before).toContain(name);
      }),
      { numRuns: 200, seed: 5 },
    );
  });
});

test('of several versions the newest is what it came as', () => {
  const rules = new ProjectRules(at('2026-05-01'));
  const mix = deliveriesOf(rules).find(({ delivery, entry }) => delivery.name === 'Mix' && entry === 'en');
  const listing = folder('masters', ['26014_MIX_en_v02.wav', '26014_MIX_en_v01.wav', '26014_MIX_nl_v09.wav']);
  expect([...deliveredAs(rules, mix === undefined ? [] : [mix], () => listing).values()]).toEqual([
    'masters/26014_MIX_en_v01.wav',
  ]);
});

test('what a delivery names must be there; a field that is renamed is renamed in it', () => {
  const broken = (delivery: object) => {
    const root = { ...template.root, folders: [{ id: 'm', name: 'm', deliveries: [{ name: 'X', ...delivery }] }] };
    return diagnoseTemplate({ ...template, root } as never, NO_REGISTERS).map(({ code }) => code);
  };
  expect(broken({})).toEqual([]);
  expect(broken({ convention: 'nothing' })).toEqual(['convention-unknown']);
  expect(broken({ family: 'nothing' })).toEqual(['family-unknown']);
  expect(broken({ onePer: { list: 'opens', as: 'x' } })).toEqual(['list-unknown']);
  expect(broken({ due: { field: 'stands', days: 1 } })).toEqual(['field-unknown']);
  const renamed = renameField(renameField(template, 'opens', 'premiere'), 'stands', 'places');
  expect(renamed.root.folders?.[0]?.deliveries?.[0]).toMatchObject({
    ...{ onePer: { list: 'places', as: 'stand' }, due: { field: 'premiere', days: -2 } },
  });
});
