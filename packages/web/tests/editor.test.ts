/** The template editor's rows, pasting, sample and settings. */
import { describe, expect, test } from '@jest/globals';
import { NO_REGISTERS } from '@nesting/core/name';
import { type FolderNode, idsIn, type Template } from '@nesting/core/template';
import { foldersFromText } from '../src/features/templates/editor/paste';
import { rowsOf } from '../src/features/templates/editor/rows';
import { sampleOf, sampleValues } from '../src/features/templates/editor/sample';
import { settingsFrom, settingsText } from '../src/features/templates/editor/settings-form';

const root: FolderNode = {
  id: 'root',
  name: '{number}_{title:kebab}',
  numbering: { digits: 2, joiner: '_' },
  folders: [
    { id: 'a', name: 'paper', number: 1, mark: 'moss', folders: [{ id: 'b', name: 'quotes' }] },
    { id: 'c', name: '{place}', onePer: { list: 'places', as: 'place' } },
  ],
};
const template: Template = {
  format: 'nesting/template',
  formatVersion: 1,
  id: 't',
  name: 'T',
  fields: [
    { key: 'title', type: 'text' },
    { key: 'places', type: 'list', of: { type: 'letters' } },
    { key: 'speech', type: 'choice', options: [{ code: 'spoken' }] },
  ],
  conventions: [],
  root,
};

describe('rows', () => {
  test('carry numbers, marks and depth; a closed folder hides what is in it', () => {
    expect(rowsOf(template, root, new Set()).map((r) => [r.depth, r.prefix, r.node.name, r.mark])).toEqual([
      [0, '', root.name, null],
      [1, '01_', 'paper', 'moss'],
      [2, '', 'quotes', 'moss'],
      [1, '', '{place}', null],
    ]);
    expect(rowsOf(template, root, new Set(['a'])).map((r) => r.id)).toEqual(['root', 'a', 'c']);
  });
});

describe('pasting', () => {
  test.each([
    ['an outline', 'motion\n  west\n    working\n  east\nsound'],
    ['paths', 'motion/west/working/\nmotion/east/\nsound/'],
    ['a drawn tree', '.\n├── motion\n│   ├── west\n│   │   └── working\n│   └── east\n└── sound'],
    ['JSON', '["motion/west/working/", "motion/east/", "sound/"]'],
  ])('%s gives its tree, with ids of its own', (_what, text) => {
    const used = idsIn(root);
    const { nodes, files } = foldersFromText(text, used, root);
    const shape = (node: FolderNode): unknown => [node.name, ...(node.folders ?? []).map(shape)];
    expect(nodes.map(shape)).toEqual([['motion', ['west', ['working']], ['east']], ['sound']]);
    expect(files).toBe(0);
    expect(new Set(nodes.flatMap((n) => [...idsIn(n)])).size).toBe(5);
  });

  test('files are told and left out; broken JSON is taken line by line; numbers in front are numbers', () => {
    expect(foldersFromText('a/b.txt\na/c/', new Set(), null)).toMatchObject({
      files: 1,
      nodes: [{ name: 'a', folders: [{ name: 'c' }] }],
    });
    expect(foldersFromText('[nothing\nmore', new Set(), null).nodes).toHaveLength(2);
    expect(foldersFromText('40_motion\n90_cache', new Set(), root).nodes).toMatchObject([
      { name: 'motion', number: 40 },
      { name: 'cache', number: 90 },
    ]);
  });
});

test('a sample is there before anybody has given a value', () => {
  const values = sampleValues(template.fields, NO_REGISTERS, { title: 'Tide Table' });
  const { rows, faults, expansion } = sampleOf(template, NO_REGISTERS, values);
  expect(expansion.rootName).toBe('26001_tide-table');
  expect(rows.get('c')).toEqual({ name: 'A', count: 2 });
  expect(faults.size).toBe(0);
});

test('the setup sheet as lines and back', () => {
  const text = 'Frame rate = 25 (24, 25, 50): the projectors run at it\nUnits = metres';
  expect(settingsText({ settings: settingsFrom(text) })).toBe(text);
  expect(settingsFrom('nothing\n= 5\n')).toEqual([]);
  // What files are held to stands in no line, and stays by the label.
  const held = [{ label: 'Units', value: 'm', fact: 'units' as const, within: ['working'] }];
  expect(settingsFrom('Units = cm\nFrame rate = 25', held)).toEqual([
    { label: 'Units', value: 'cm', fact: 'units', within: ['working'] },
    { label: 'Frame rate', value: '25' },
  ]);
  expect(settingsFrom('Scene units = m', held)).toEqual([{ ...held[0], label: 'Scene units' }]);
  expect(settingsFrom('Frame rate = 25\nUnits = m', held)).toEqual([{ label: 'Frame rate', value: '25' }, held[0]]);
});
