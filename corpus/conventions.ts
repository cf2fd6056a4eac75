/**
 * The conventions the corpus breaks names of: those of the demo studio, with what a check would know in each folder.
 */
import { present } from '@nesting/core';
import {
  type CompiledConvention,
  compileConvention,
  type Field,
  mustParse,
  type NameContext,
  type Registers,
} from '@nesting/core/name';

export const REGISTERS: Registers = {
  clients: [
    ['QHT', 'Quillhaven Harbour Trust'],
    ['OTM', 'Ottermoor Town Council'],
    ['FNR', 'Fennel & Rook Theatre'],
    ['MSW', 'Museum of Small Weather'],
    ['BRO', 'Brindlecombe Observatory'],
    ['SAK', 'Sint-Aldermeer Kathedraal'],
  ].map(([code, name]) => ({ code: present(code), name: present(name) })),
  people: [
    ['IT', 'Ines Thorvald'],
    ['BO', 'Bram Okonjo'],
    ['LV', 'Lucía Verhaegen'],
    ['TF', 'Tomasz Ferrow'],
    ['AP', 'Aiko Pendry'],
    ['SD', 'Samir Dunmore'],
    ['ME', 'Maud Éclair'],
  ].map(([initials, name]) => ({ initials: present(initials), name: present(name) })),
  families: [
    { name: 'moving image', extensions: ['mov', 'mp4'] },
    { name: 'sound', extensions: ['wav', 'flac'] },
    { name: 'still', extensions: ['exr', 'png', 'jpg', 'tif', 'svg'] },
    { name: '3D scene', extensions: ['usda', 'usdc'] },
    { name: 'document', extensions: ['pdf', 'md', 'csv'] },
  ],
  abbreviations: [
    ['MUS', 'music'],
    ['ATM', 'atmosphere'],
    ['SPK', 'speech'],
    ['MST', 'master'],
    ['BRD', 'board'],
  ].map(([short, long]) => ({ short: present(short), long: present(long) })),
  banned: ['final', 'new', 'latest', 'copy'],
};

const TASKS: Field = {
  key: 'task',
  type: 'choice',
  options: [
    { code: 'anim', label: 'Animation', also: ['animate'] },
    { code: 'comp', label: 'Compositing', also: ['cmp', 'composite'] },
    { code: 'model', label: 'Modelling', also: ['modeling'] },
    { code: 'layout', label: 'Layout' },
    { code: 'light', label: 'Lighting' },
  ],
};
const SURFACES = ['west-front', 'clock-tower', 'crane-7', 'old-mill', 'north-arcade'];

export interface Case {
  readonly id: string;
  readonly pattern: string;
  readonly fields: readonly Field[];
  readonly families: readonly string[];
  /** Values for right names, by field. */
  readonly values: Readonly<Record<string, readonly (string | number)[]>>;
  /** Fields whose value the folder settles. */
  readonly bound: readonly string[];
}

const scenes = ['s01', 's02', 's03', 's07', 's12'];

export const CASES: readonly Case[] = [
  {
    id: 'working-file',
    pattern: '{number}_{surface:kebab}_{scene}_{task}_{person.initials}_v{version:000}.{ext}',
    fields: [{ key: 'surface', type: 'text', max: 24 }, { key: 'scene', type: 'text', like: 's00' }, TASKS],
    families: ['3D scene'],
    values: {
      surface: SURFACES,
      scene: scenes,
      task: ['anim', 'comp', 'model', 'layout', 'light'],
      person: ['BO', 'LV', 'AP', 'IT'],
      version: [1, 3, 4, 12, 27],
      ext: ['usda', 'usdc'],
    },
    bound: ['surface', 'scene'],
  },
  {
    id: 'render',
    pattern: '{number}_{surface:kebab}_{scene}_{task}_v{version:000}.{frame:0000}.{ext}',
    fields: [{ key: 'surface', type: 'text', max: 24 }, { key: 'scene', type: 'text', like: 's00' }, TASKS],
    families: ['still'],
    values: {
      surface: SURFACES,
      scene: scenes,
      task: ['comp', 'light', 'anim'],
      version: [2, 5, 14],
      frame: [1, 48, 1200],
      ext: ['exr', 'png'],
    },
    bound: ['surface', 'scene'],
  },
  {
    id: 'sound',
    pattern: '{number}_{what}(_{language})?(_{scene})?_v{version:00}.{ext}',
    fields: [
      {
        key: 'what',
        type: 'choice',
        options: [
          { code: 'MUS', label: 'Music' },
          { code: 'ATM', label: 'Atmosphere' },
          { code: 'SPK', label: 'Speech' },
        ],
      },
      {
        key: 'language',
        type: 'choice',
        options: [
          { code: 'en', label: 'English' },
          { code: 'nl', label: 'Dutch' },
          { code: 'de', label: 'German' },
        ],
      },
      { key: 'scene', type: 'text', like: 's00' },
    ],
    families: ['sound'],
    values: {
      what: ['SPK', 'ATM', 'MUS'],
      language: ['en', 'nl', 'de'],
      scene: scenes,
      version: [1, 2, 11],
      ext: ['wav', 'flac'],
    },
    bound: [],
  },
  {
    id: 'survey-photo',
    pattern: '{stand:kebab}_{date:yyyy-MM-dd}_{shot:0000}.{ext}',
    fields: [
      { key: 'stand', type: 'text', max: 24 },
      { key: 'shot', type: 'count' },
    ],
    families: ['still'],
    values: {
      date: ['2026-03-02', '2026-02-24', '2026-11-27', '2026-01-19'],
      stand: ['pier', 'mill-roof', 'quay-crane'],
      shot: [31, 7, 120],
      ext: ['jpg', 'png', 'tif'],
    },
    bound: ['stand'],
  },
  {
    id: 'paper',
    pattern: '{date:yyyy-MM-dd}_{subject:kebab}_{title:kebab}.{ext}',
    fields: [
      { key: 'subject', type: 'text', max: 24 },
      { key: 'title', type: 'text', max: 40 },
    ],
    families: ['document'],
    values: {
      date: ['2026-02-11', '2026-03-30', '2026-01-21'],
      subject: ['quote', 'road-closure', 'nights', 'contract'],
      title: ['harbour-lights'],
      ext: ['pdf', 'md'],
    },
    bound: ['title'],
  },
  {
    id: 'delivery',
    pattern: '{number}_{client.code}_{title:kebab}(_{part:kebab})?_v{version:000}.{ext}',
    fields: [
      { key: 'title', type: 'text', max: 40 },
      { key: 'part', type: 'text', max: 16 },
    ],
    families: ['moving image', 'still'],
    values: {
      client: ['QHT'],
      title: ['harbour-lights'],
      part: ['stereo-left', 'poster', 'loop'],
      version: [1, 3, 22],
      ext: ['mov', 'mp4', 'png'],
    },
    bound: ['client', 'title'],
  },
];

export const NUMBER = '26014';

export function compileCase(c: Case): CompiledConvention {
  const compiled = compileConvention(mustParse(c.pattern), {
    fields: c.fields,
    registers: REGISTERS,
    families: c.families,
    number: NUMBER,
    year: 2026,
  });
  if (!compiled.ok) throw new Error(`${c.id}: ${compiled.faults[0]?.code}`);
  return compiled.value;
}

/** What a check knows in the folder a name lies in. */
export function contextOf(c: Case, values: Readonly<Record<string, string | number>>): NameContext {
  const bound = Object.fromEntries(
    c.bound.flatMap((field) => (values[field] === undefined ? [] : [[field, values[field]]])),
  );
  return {
    bound: { number: NUMBER, ...bound },
    known: { surface: SURFACES, title: ['harbour-lights'] },
    abbreviations: REGISTERS.abbreviations,
    banned: REGISTERS.banned,
  };
}
