/** Deriving, as a law: a project made from a template gives a template that makes the same project. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { parseRegisters, parseTemplate } from '../../contract/src/index';
import { elementAt } from '../src/element';
import { parseListing } from '../src/listing';
import type { Values } from '../src/name';
import {
  ANSWERS,
  type AnswerTo,
  deriveTemplate,
  expandTemplate,
  normaliseTemplate,
  questionKey,
  settleQuestions,
  type Template,
} from '../src/template';

const demo = path.join(process.cwd(), 'demo');
const parsedRegisters = parseRegisters(readFileSync(path.join(demo, 'registers.json'), 'utf8'));
const registers = parsedRegisters.ok
  ? parsedRegisters.value
  : (() => {
      throw new Error('registers');
    })();
const templates = readdirSync(path.join(demo, 'templates'))
  .filter((f) => f.endsWith('.nest.json'))
  .map((f) => {
    const parsed = parseTemplate(readFileSync(path.join(demo, 'templates', f), 'utf8'));
    if (!parsed.ok) throw new Error(f);
    return parsed.value;
  });

const VALUES: Readonly<Record<string, Values>> = {
  'facade-show': {
    number: '26014',
    title: 'Harbour Lights',
    client: 'QHT',
    person: 'IT',
    date: '2026-11-27',
    surfaces: ['west-front', 'clock-tower', 'old-mill'],
    scenes: 's01..s06',
    stands: ['pier', 'mill-roof', 'quay-crane', 'lock-house'],
    nights: ['2026-03-02', '2026-03-03'],
    speech: 'spoken',
    languages: ['nl', 'en'],
  },
  'window-piece': { number: '26015', title: 'Small Weather', client: 'MSW', windows: 'A..C' },
  'dome-film': {
    number: '26007',
    title: 'Slow Sky',
    client: 'BRO',
    scenes: 's01..s05',
    languages: ['en', 'nl'],
    speech: 'spoken',
  },
  'making-of': {
    number: '26018',
    title: 'Ropes and Lamps',
    client: 'QHT',
    places: ['pier', 'workshop'],
    days: ['2026-03-02', '2026-03-03'],
    cameras: ['a', 'b'],
  },
  'sound-only-walk': { number: '26021', title: 'Reed Walk', client: 'OTM', stations: '1..6', languages: ['en', 'de'] },
};

const foldersOf = (template: Template, values: Values) =>
  expandTemplate(template, values, registers)
    .lines.filter((l) => l.kind === 'folder')
    .map((l) => `${l.path}/`)
    .filter((p) => p !== '/');

describe('deriving a template', () => {
  test.each(templates.map((t) => [t.id, t] as const))(
    '%s: the folders it made make a template that makes the same folders',
    (id, template) => {
      const values = VALUES[id] as Values;
      const { rootName, diagnostics } = expandTemplate(template, values, registers);
      expect(diagnostics.filter((d) => d.weight === 'refused')).toEqual([]);
      const paths = foldersOf(template, values);
      expect(paths.length).toBeGreaterThan(6);
      const derived = deriveTemplate(
        parseListing([`${rootName}/`, ...paths.map((p) => `${rootName}/${p}`)].join('\n')),
        {},
        registers,
      );
      const again = expandTemplate(derived.template, derived.values, registers);
      expect(again.rootName).toBe(rootName);
      expect(foldersOf(derived.template, derived.values).sort()).toEqual(paths.sort());
    },
  );

  test('fields, lists, numbering with its gaps, and conventions come back with the files', () => {
    const template = templates.find((t) => t.id === 'facade-show') as Template;
    const values = VALUES['facade-show'] as Values;
    const { rootName } = expandTemplate(template, values, registers);
    const files = ['west-front', 'clock-tower', 'old-mill'].flatMap((surface, i) =>
      ['s01', 's02', 's03'].flatMap((scene, k) =>
        ['anim', 'comp'].flatMap((task, n) =>
          [1, 2].map(
            (v) =>
              `40_motion/${surface}/${scene}/working/26014_${surface}_${scene}_${task}_${['BO', 'LV', 'AP'][(i + k + n) % 3]}_v00${v}.usda`,
          ),
        ),
      ),
    );
    const lines = parseListing([...foldersOf(template, values), ...files].map((p) => `${rootName}/${p}`).join('\n'));
    const { template: derived, values: own, questions } = deriveTemplate(lines, { title: 'Harbour Lights' }, registers);
    expect(derived.root.name).toBe('{number}_{client.code}_{title:kebab}');
    expect(derived.root.numbering).toEqual({ digits: 2, joiner: '_' });
    expect(derived.root.folders?.map((f) => f.number)).not.toContain(4);
    const lists = derived.fields.filter((f) => f.type === 'list');
    expect(lists.map((f) => f.type === 'list' && f.of.like)).toContain('s00');
    expect(own).toMatchObject({ number: '26014', client: 'QHT', title: 'Harbour Lights' });
    const working = derived.conventions.find((c) => c.families?.includes('3D scene'));
    expect(working?.pattern).toMatch(
      /^\{number\}_\{motion:kebab\}_\{scene\}_\{task\}_\{person\.initials\}_v\{version:000\}\.\{ext\}$/,
    );
    expect(working?.fields?.map((f) => f.key)).toEqual(['task']);
    expect(questions).toEqual([]);
  });

  test.each(templates.map((t) => [t.id, t] as const))(
    '%s: with what the project was started with, lists and fields come back by their own names',
    (id, template) => {
      const values = VALUES[id] as Values;
      const { rootName } = expandTemplate(template, values, registers);
      const listing = parseListing(
        [`${rootName}/`, ...foldersOf(template, values).map((p) => `${rootName}/${p}`)].join('\n'),
      );
      const { template: derived, values: own } = deriveTemplate(
        listing,
        { title: String(values.title), fields: template.fields, values },
        registers,
      );
      const used = new Set(
        JSON.stringify(template.root)
          .match(/"list":"\w+"/g)
          ?.map((m) => m.slice(8, -1)),
      );
      expect(derived.fields.map((f) => f.key).sort()).toEqual(
        template.fields
          // A list without an entry has left nothing on the disk.
          .filter((f) => f.type !== 'list' || (used.has(f.key) && values[f.key] !== undefined))
          .map((f) => f.key)
          .sort(),
      );
      for (const f of derived.fields)
        if (f.type === 'list') expect(f.within).toBe((template.fields.find((o) => o.key === f.key) as typeof f).within);
      expect(foldersOf(derived, own).sort()).toEqual(foldersOf(template, values).sort());
    },
  );

  test('answers change the one folder they are about', () => {
    const tree = ['a', 'b', 'c', 'd'].flatMap((n) => [`shots/${n}-x/in/`, `shots/${n}-x/out/`]);
    const derived = deriveTemplate(
      parseListing([...tree, 'shots/a-x/in/holiday/deep/', '26001_brief.md'].join('\n')),
      { number: '26001' },
      registers,
    );
    const say = (answer: AnswerTo) =>
      settleQuestions(
        derived.template,
        derived.questions,
        Object.fromEntries(
          derived.questions.map((q) => [questionKey(q), ANSWERS[q.code].includes(answer) ? answer : 'as-is']),
        ),
      );
    expect(say('as-is')).toEqual(derived.template);
    expect(JSON.stringify(say('leave-out'))).not.toMatch(/holiday|deep/);
    expect(JSON.stringify(say('optional'))).toContain('"presence":"optional"');
    expect(say('starters').root.starters).toEqual([
      { id: expect.any(String), name: '{number}_brief.md', from: 'starters/26001_brief.md' },
    ]);
    // Undone by another answer, never piled up.
    expect(say('as-is')).toEqual(derived.template);
  });

  test('what is rare is a question, and anything at all gives a template', () => {
    const tree = ['a', 'b', 'c', 'd'].flatMap((n) => [`shots/${n}-x/in/`, `shots/${n}-x/out/`]);
    const { questions, template } = deriveTemplate(
      parseListing([...tree, 'shots/a-x/in/holiday/', 'readme.txt'].join('\n')),
      {},
      registers,
    );
    expect(questions.map((q) => q.code).sort()).toEqual(['file-alone', 'folder-rare']);
    expect(JSON.stringify(template)).toContain('onePer');
    for (const odd of ['', '{}', 'a\\b\\c', '../../x', `${'d/'.repeat(90)}e`, 'x\u0000y/z', '(((/{{{']) {
      const { template: made } = deriveTemplate(parseListing(odd === '{}' ? 'x' : odd), {}, registers);
      expect(made.root.id).toBe('root');
    }
  });
});

describe('numbers in front', () => {
  const derived = (paths: readonly string[]) =>
    deriveTemplate(parseListing(paths.map((p) => `26014_QHT_harbour-lights/${p}/`).join('\n')), {}, registers);
  const foldersAgain = ({ template, values }: ReturnType<typeof derived>) =>
    expandTemplate(normaliseTemplate(template), values, registers)
      .lines.filter((l) => l.kind === 'folder' && l.depth > 0)
      .map((l) => l.path)
      .sort();

  test('one folder without a number among numbered ones keeps its name', () => {
    const paths = ['10_paper', '20_survey', '30_design', 'misc'];
    const made = derived(paths);
    expect(foldersAgain(made)).toEqual(paths);
    expect(made.questions).toEqual([]);
  });

  test('days and years in front are no numbers', () => {
    for (const paths of [
      ['26-03-02_pier', '26-03-09_mill', '26-04-01_quay'],
      ['2026_pier', '2025_mill', '2024_quay'],
      ['2026-03_pier', '2026-04_mill', '2026-05_quay'],
    ]) {
      const made = derived(paths);
      expect(made.template.root.numbering).toBeUndefined();
      expect(foldersAgain(made)).toEqual([...paths].sort());
    }
  });

  test('two folders with one number are asked about, and every answer is a template', () => {
    const paths = ['10_paper', '20_sound', '20_survey', '30_design'];
    const made = derived(paths);
    expect(made.questions).toMatchObject([{ code: 'number-twice', names: ['20_sound', '20_survey'] }]);
    expect(foldersAgain(made)).toEqual(paths);
    const answered = (answer: 'renumber' | 'leave-out') =>
      foldersAgain({
        ...made,
        template: settleQuestions(made.template, made.questions, {
          [questionKey(elementAt(made.questions, 0))]: answer,
        }),
      });
    expect(answered('renumber')).toEqual(['01_survey', '10_paper', '20_sound', '30_design']);
    expect(answered('leave-out')).toEqual(['10_paper', '20_sound', '30_design']);
  });
});
