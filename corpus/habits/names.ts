/** The list of names as people write them: its sorts, and what is known of the project they come from. */
import { readFileSync } from 'node:fs';
import { present, valueAt } from '@nesting/core';
import {
  type CompiledConvention,
  compileConvention,
  contextOfValues,
  type Field,
  mustParse,
  type NameContext,
  type Values,
} from '@nesting/core/name';
import { NUMBER, REGISTERS } from '../conventions';
import { halved, sortsIn, unescaped } from './list';

export interface HabitName {
  readonly sort: string;
  readonly convention: string;
  readonly broken: string;
  /** `null` where nothing in it says what was meant. */
  readonly right: string | null;
  /** Somebody who knows the project need not ask. */
  readonly fixable: boolean;
  readonly half: 'tune' | 'measure';
}

/** All that a coordinator has written down of the project. */
const PROJECT: Values = {
  number: NUMBER,
  client: 'QHT',
  date: '2026-11-27',
  surfaces: ['west-front', 'clock-tower', 'crane-7', 'old-mill', 'north-arcade'],
  scenes: 's01..s12',
  stands: ['pier', 'mill-roof', 'quay-crane'],
};

const TASKS: Field = {
  key: 'task',
  type: 'choice',
  options: [
    { code: 'anim', label: 'Animation' },
    { code: 'comp', label: 'Compositing' },
    { code: 'model', label: 'Modelling' },
    { code: 'layout', label: 'Layout' },
    { code: 'light', label: 'Lighting' },
  ],
};
const SCENE: Field = { key: 'scene', type: 'text', like: 's00' };
const language = (upper: boolean): Field => ({
  key: 'language',
  type: 'choice',
  options: [
    ['en', 'English'],
    ['nl', 'Dutch'],
    ['de', 'German'],
    ['fr', 'French'],
  ].map(([code = '', label = '']) => ({ code: upper ? code.toUpperCase() : code, label })),
});
const WHAT: Field = {
  key: 'what',
  type: 'choice',
  options: [
    { code: 'MUS', label: 'Music' },
    { code: 'ATM', label: 'Atmosphere' },
    { code: 'SPK', label: 'Speech' },
  ],
};

interface Rule {
  readonly pattern: string;
  readonly fields?: readonly Field[];
  readonly families: readonly string[];
  readonly title?: string;
}

/** Rules of the demo studio, and some as other trades have them. */
const RULES: Readonly<Record<string, Rule>> = {
  work: {
    pattern: '{number}_{surface:kebab}_{scene}_{task}_{person.initials}_v{version:000}.{ext}',
    fields: [SCENE, TASKS],
    families: ['3D scene'],
  },
  frame: {
    pattern: '{number}_{surface:kebab}_{scene}_{task}_v{version:000}.{frame:0000}.{ext}',
    fields: [SCENE, TASKS],
    families: ['still'],
  },
  sound: {
    pattern: '{number}_{what}(_{language})?(_{scene})?_v{version:00}.{ext}',
    fields: [SCENE, WHAT, language(false)],
    families: ['sound'],
  },
  photo: {
    pattern: '{stand:kebab}_{date:yyyy-MM-dd}_{shot:0000}.{ext}',
    fields: [{ key: 'shot', type: 'count' }],
    families: ['still'],
  },
  paper: {
    pattern: '{date:yyyy-MM-dd}_{subject:kebab}_{title:kebab}.{ext}',
    families: ['document'],
  },
  deliver: {
    pattern: '{number}_{client.code}_{title:kebab}(_{part:kebab})?_v{version:000}.{ext}',
    families: ['moving image', 'still'],
  },
  film: {
    pattern: '{number}_{title:kebab}(_{language})?_v{version:00}.{ext}',
    fields: [language(true)],
    families: ['moving image'],
  },
  show: {
    pattern: '{number}_{title:kebab}_v{version:00}.{ext}',
    families: ['moving image'],
    title: 'Ferrymans Night',
  },
  take: {
    pattern: '{date:yyyyMMdd}_{person.initials}_{topic:kebab}_T{take:00}.{ext}',
    fields: [{ key: 'take', type: 'count' }],
    families: ['sound'],
  },
  sheet: {
    pattern: '{number}-{client.code}-{title:kebab}-rev{version:A}.{ext}',
    families: ['document', 'still'],
  },
  page: {
    pattern: '{number}_{title:kebab}_p{page:00}_v{version:00}.{ext}',
    fields: [{ key: 'page', type: 'count' }],
    families: ['document', 'still'],
  },
};

export interface HabitRule {
  readonly compiled: CompiledConvention;
  readonly context: NameContext;
}

/** As the command line has them: the convention alone, a file of values, the registers. */
export function habitRules(): ReadonlyMap<string, HabitRule> {
  return new Map(
    Object.entries(RULES).map(([id, { pattern, fields, families, title }]) => {
      const compiled = compileConvention(mustParse(pattern), {
        fields: fields ?? [],
        registers: REGISTERS,
        families,
        number: NUMBER,
        year: 2026,
      });
      if (!compiled.ok) throw new Error(`${id}: ${compiled.faults[0]?.code}`);
      const values = { ...PROJECT, title: title ?? 'Harbour Lights' };
      return [id, { compiled: compiled.value, context: contextOfValues(compiled.value, values, REGISTERS) }];
    }),
  );
}

export function habitNames(): HabitName[] {
  return sortsIn(readFileSync('corpus/habits/names.txt', 'utf8')).flatMap(({ title, lines }, sortAt) => {
    const [sort = '', convention = ''] = title.split(' | ');
    valueAt(new Map(Object.entries(RULES)), convention);
    return lines.map((line, i): HabitName => {
      const [, broken, mark, right] = present(/^(.*?) =([>?])(?: (.*))?$/.exec(line));
      return {
        sort,
        convention,
        broken: unescaped(present(broken)),
        right: right === undefined || right === '' ? null : unescaped(right),
        fixable: mark === '>',
        half: halved(sortAt, i),
      };
    });
  });
}
