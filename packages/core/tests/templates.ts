/** Templates for tests: one with everything in it, and a generator of others with values for them. */
import fc from 'fast-check';
import type { Registers, Values } from '../src/name';
import { NO_REGISTERS } from '../src/name';
import type { FolderNode, Template } from '../src/template';
import { normaliseTemplate } from '../src/template';

export const STUDIO: Registers = {
  ...NO_REGISTERS,
  clients: [
    { code: 'QHT', name: 'Quillhaven Harbour Trust' },
    { code: 'OTM', name: 'Ottermoor Town Council' },
  ],
  people: [
    { initials: 'BO', name: 'Bram Okonjo' },
    { initials: 'LV', name: 'Lucía Verhaegen' },
  ],
};

export const SHOW: Template = normaliseTemplate({
  format: 'nesting/template',
  formatVersion: 1,
  name: 'Facade show',
  edition: 3,
  fields: [
    { key: 'title', type: 'text', max: 40 },
    { key: 'client', type: 'client' },
    { key: 'surfaces', type: 'list', of: { type: 'text', max: 24 } },
    { key: 'scenes', type: 'list', of: { type: 'text', like: 's00' }, within: 'surfaces' },
    { key: 'nights', type: 'list', of: { type: 'date' } },
    { key: 'speech', type: 'choice', options: [{ code: 'spoken' }, { code: 'none' }] },
  ],
  conventions: [
    {
      id: 'working-file',
      name: 'Working file',
      pattern: '{number}_{surface:kebab}_{scene}_{task}_{person.initials}_v{version:000}.{ext}',
      fields: [{ key: 'task', type: 'choice', options: [{ code: 'anim', also: ['animation'] }, { code: 'comp' }] }],
      families: ['3D scene'],
    },
    {
      id: 'render',
      name: 'Render frame',
      pattern: '{number}_{surface:kebab}_{scene}_v{version:000}.{frame:0000}.{ext}',
      families: ['still'],
    },
  ],
  registers: {
    families: [
      { name: '3D scene', extensions: ['usda'] },
      { name: 'still', extensions: ['exr', 'png'] },
      { name: 'document', extensions: ['md', 'pdf'] },
      { name: 'generated', extensions: ['tmp'] },
    ],
    banned: ['final'],
  },
  blocks: [{ id: 'paperwork', folders: [{ name: 'quotes' }, { name: 'permits', folders: [{ name: 'old' }] }] }],
  root: {
    name: '{number}_{client.code}_{title:kebab}',
    numbering: { digits: 2, joiner: '_', reserved: [{ number: 41, label: 'kept for an interactive team' }] },
    folders: [
      {
        id: 'survey',
        number: 20,
        name: 'survey',
        accepts: ['still', 'document'],
        folders: [{ name: 'night-{night:yyyy-MM-dd}', onePer: { list: 'nights', as: 'night' } }],
      },
      { id: 'design', number: 30, name: 'design' },
      {
        id: 'motion',
        number: 40,
        name: 'motion',
        folders: [
          {
            id: 'surface',
            name: '{surface:kebab}',
            onePer: { list: 'surfaces', as: 'surface' },
            folders: [
              {
                id: 'scene',
                name: '{scene}',
                onePer: { list: 'scenes', as: 'scene' },
                folders: [
                  {
                    id: 'working',
                    name: 'working',
                    conventions: ['working-file'],
                    older: { folder: 'older', keep: 5 },
                  },
                  { id: 'renders', name: 'renders', conventions: ['render'] },
                ],
              },
            ],
          },
        ],
      },
      { id: 'speech', name: 'speech', onlyWhen: { field: 'speech', is: 'spoken' } },
      { id: 'extras', name: 'extras', presence: 'optional', folders: [{ id: 'inner', name: 'inner' }] },
      { id: 'cache', number: 90, name: 'cache', free: true },
      { id: 'papers', block: 'paperwork' },
    ],
    starters: [{ id: 'brief', name: '{number}_brief.md', from: 'brief.md', fill: true }],
  },
});

export const SHOW_VALUES: Values = {
  number: '26014',
  title: 'Harbour Lights',
  client: 'QHT',
  surfaces: ['West Front', 'clock-tower'],
  scenes: 's01..s03',
  nights: '2026-03-02..2026-03-03',
  speech: 'spoken',
};

/** Templates of up to three levels with numbering, lists, conditions, presence and blocks, and values that fit them. */
export const templateWithValues: fc.Arbitrary<{ template: Template; values: Values }> = fc
  .record({
    names: fc.uniqueArray(fc.stringMatching(/^[a-z][a-z0-9-]{0,8}[a-z]$/), { minLength: 6, maxLength: 14 }),
    shape: fc.array(
      fc.record({
        per: fc.constantFrom('', 'scenes', 'nights'),
        presence: fc.constantFrom('always', 'always', 'optional', 'on-demand'),
        when: fc.constantFrom('', 'spoken', 'none'),
        block: fc.boolean(),
        depth: fc.integer({ min: 0, max: 2 }),
      }),
      { minLength: 14, maxLength: 14 },
    ),
    numbered: fc.boolean(),
    reserved: fc.subarray([1, 2, 4, 7]),
    scenes: fc.uniqueArray(fc.integer({ min: 1, max: 40 }), { maxLength: 4 }),
    nights: fc.subarray(['2026-03-02', '2026-03-03', '2024-02-29']),
    speech: fc.constantFrom('spoken', 'none'),
    title: fc.stringMatching(/^[A-Za-z][A-Za-z ]{0,14}[a-z]$/),
  })
  .map(({ names, shape, numbered, reserved, scenes, nights, speech, title }) => {
    const roots: FolderNode[] = [];
    const open: { node: FolderNode & { folders: FolderNode[] }; depth: number }[] = [];
    names.forEach((name, i) => {
      const s = shape[i] as (typeof shape)[number];
      const per =
        s.per === ''
          ? {}
          : s.per === 'scenes'
            ? { onePer: { list: 'scenes', as: 'scene' } }
            : { onePer: { list: 'nights', as: 'night' } };
      const node = {
        id: `n${i}`,
        name: s.per === '' ? name : s.per === 'scenes' ? `${name}-{scene}` : `${name}-{night:yyyyMMdd}`,
        ...per,
        presence: s.presence as 'always',
        ...(s.when !== '' && { onlyWhen: { field: 'speech', is: s.when } }),
        ...(s.block && s.per === '' && i % 3 === 0 && { block: 'shared' }),
        folders: [] as FolderNode[],
      };
      while (open.length > s.depth) open.pop();
      const parent = open[open.length - 1]?.node;
      (parent?.folders ?? roots).push(node);
      open.push({ node, depth: s.depth });
    });
    const template: Template = normaliseTemplate({
      format: 'nesting/template',
      formatVersion: 1,
      name: 'Generated',
      conventions: [],
      fields: [
        { key: 'title', type: 'text' },
        { key: 'speech', type: 'choice', options: [{ code: 'spoken' }, { code: 'none' }] },
        { key: 'scenes', type: 'list', of: { type: 'text', like: 's00' } },
        { key: 'nights', type: 'list', of: { type: 'date' } },
      ],
      blocks: [{ id: 'shared', folders: [{ name: 'shared-a' }, { name: 'shared-b', folders: [{ name: 'inside' }] }] }],
      root: {
        name: '{number}_{title:kebab}',
        ...(numbered && { numbering: { digits: 2, joiner: '_', reserved: reserved.map((number) => ({ number })) } }),
        folders: roots,
        starters: [{ name: '{number}_notes.md', from: 'notes.md' }],
      },
    });
    return { template, values: { number: '26014', title, speech, scenes: scenes.map((n) => `s${n}`), nights } };
  });
