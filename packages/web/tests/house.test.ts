/** Lists, tables and starts as the screens work them out, without a browser. */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import type { BlockRow, NumberLine, TemplateRow } from '@nesting/contract';
import { parseTemplate } from '@nesting/contract';
import { NO_REGISTERS } from '@nesting/core/name';
import { type BlockEdition, compileTemplate, setFolder, type Template, takeUp } from '@nesting/core/template';
import fc from 'fast-check';
import { templateOfBlock } from '../src/features/blocks/as-template';
import { lineWords } from '../src/features/house/numbers-page';
import { codeFor } from '../src/features/start/client-pick';
import { adjustmentWords, withAdjustment } from '../src/features/start/overrides';
import { startRows } from '../src/features/start/rows';
import { settingsOf } from '../src/features/start/sheet';
import { comparedLines } from '../src/features/templates/compare';
import { conditionOf, conditions, wordOfCondition } from '../src/features/templates/editor/conditions';
import { pathOfStarter } from '../src/features/templates/editor/files-of-template';
import { found, sorted } from '../src/grid/sort';
import { readTable } from '../src/workers/table';

const parsed = parseTemplate(readFileSync('demo/templates/facade-show.nest.json', 'utf8'));
if (!parsed.ok) throw new Error(parsed.faults[0]);
const facade = parsed.value;
const registers = { ...NO_REGISTERS, clients: [{ code: 'QHT', name: 'Quillhaven Harbour Trust' }] };

describe('rows in order', () => {
  test('numbers in names by their size, accents and capitals for nothing, equal ones as they came', () => {
    expect(sorted(['s10', 's9', 'S1'], (s) => s, false)).toEqual(['S1', 's9', 's10']);
    expect(sorted(['Éclair', 'eclipse', 'Apt'], (s) => s, false)).toEqual(['Apt', 'Éclair', 'eclipse']);
    expect(sorted([3, 1, 2], (n) => n, true)).toEqual([3, 2, 1]);
  });

  test('law: sorting loses and adds nothing, is stable, and the other way round is its reverse where no two are equal', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.string(), fc.nat())), (rows) => {
        const up = sorted(rows, ([text]) => text, false);
        expect([...up].sort()).toEqual([...rows].sort());
        expect(sorted(up, ([text]) => text, false)).toEqual(up);
        const numbers = [...new Set(rows.map(([, n]) => n))];
        expect(sorted(numbers, (n) => n, true)).toEqual(sorted(numbers, (n) => n, false).reverse());
      }),
    );
  });

  test('found are those with every word somewhere', () => {
    const rows = ['Quillhaven Harbour Trust', 'Ottermoor Town Council'];
    expect(found(rows, 'trust  quill', (r) => r)).toEqual([rows[0]]);
    expect(found(rows, ' ', (r) => r)).toBe(rows);
    expect(found(rows, 'harbour council', (r) => r)).toEqual([]);
  });
});

describe('tables in whatever form they come', () => {
  const bytes = (text: string) => new TextEncoder().encode(text);
  test.each([
    ['commas', bytes('a,b\n1,"x, y"\n'), ',', 'UTF-8'],
    ['semicolons', bytes('a;b\r\n1;"x, y"\r\n'), ';', 'UTF-8'],
    ['tabs and a mark in front', bytes('\ufeffa\tb\n1\tx, y\n'), '\t', 'UTF-8'],
    ['UTF-16', Buffer.from('\ufeffa;b\n1;x, y\n', 'utf16le'), ';', 'UTF-16'],
  ])('%s', (_name, given, separator, encoding) => {
    expect(readTable(given)).toEqual({
      cells: [
        ['a', 'b'],
        ['1', 'x, y'],
      ],
      separator,
      encoding,
    });
  });

  test('an older Western encoding keeps its accents; bytes that are no text are no table', () => {
    expect(readTable(Buffer.from('name\nM\xe9l\xe8ze\n', 'latin1'))).toMatchObject({
      cells: [['name'], ['Mélèze']],
      encoding: 'Windows-1252',
    });
    expect(readTable(Uint8Array.from([80, 75, 3, 4, 0, 0, 0]))).toBeNull();
  });

  test('any bytes are a table or none, and never an exception', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), (given) => {
        const table = readTable(given);
        expect(table === null || Array.isArray(table.cells)).toBe(true);
      }),
    );
  });
});

describe('several starts from one table', () => {
  const expander = compileTemplate(facade, registers);
  const rows = (...lines: string[]) =>
    startRows(
      expander,
      facade,
      lines.map((l) => l.split(';')),
    );

  test('each line is judged alone; good ones say what they make, others why not', () => {
    const { rows: all, unknown } = rows(
      'Client;TITLE;Surfaces;Scenes;Telephone',
      'QHT;One;west;s01..s02;1',
      'ZZZ;Two;west;s01;2',
      ';Three;west;s01;3',
      ';;;;',
      'QHT;Four;west;s01..s99999999;4',
    );
    expect(unknown).toEqual(['Telephone']);
    expect(all.map((r) => [r.line, r.title, r.faults.length > 0])).toEqual([
      [2, 'One', false],
      [3, 'Two', true],
      [4, 'Three', true],
      [6, 'Four', true],
    ]);
    expect(all[0]?.folders).toBeGreaterThan(20);
    expect(all[1]?.faults.join(' ')).toContain('ZZZ');
  });

  test('a table that names nothing that is asked for, or is endless, is refused whole', () => {
    expect(rows('a;b', '1;2').fault).toContain('must name what is asked for');
    expect(rows('Title', ...Array.from({ length: 501 }, (_, i) => `t${i}`)).fault).toContain('500');
  });
});

describe('a start otherwise than its template', () => {
  test('adjustments are made, joined and taken back', () => {
    let all = withAdjustment({}, 'a', { leaveOut: true });
    all = withAdjustment(all, 'b', { make: true });
    all = withAdjustment(all, 'b', { name: 'other' });
    expect(all).toEqual({ a: { leaveOut: true }, b: { make: true, name: 'other' } });
    expect(adjustmentWords(all.b ?? {})).toBe('made now, called other');
    expect(withAdjustment(withAdjustment(all, 'b', { make: false, name: '' }), 'a', null)).toEqual({});
  });

  test('settings are the usual ones until somebody chooses otherwise', () => {
    const setup = { settings: [{ label: 'Frame rate', value: '25', allowed: ['24', '25'], why: 'servers' }] };
    expect(settingsOf(setup, {})).toEqual([{ label: 'Frame rate', value: '25', usual: '25', why: 'servers' }]);
    expect(settingsOf(setup, { 'Frame rate': '24', Gone: 'x' })[0]?.value).toBe('24');
    expect(settingsOf(undefined, {})).toEqual([]);
  });

  test('a new client’s code is of the words that say something, and never one that is taken', () => {
    expect(codeFor('Museum of Small Weather', [])).toBe('MSW');
    expect(codeFor('Museum of Small Weather', ['msw', 'MSW2'])).toBe('MSW3');
    expect(codeFor('Éclair', [])).toBe('ECL');
    expect(codeFor('🦦', [])).toBe('NEW');
  });
});

describe('numbers in words', () => {
  test('every state and event says what became of the number', () => {
    const line = (change: Partial<NumberLine>): NumberLine => ({
      number: '26001',
      n: 1,
      state: 'free',
      what: null,
      project: null,
      by: 'Ines',
      at: null,
      why: '',
      ...change,
    });
    const words = [
      line({ state: 'project', project: { id: 'x', folder: '26001_x' } }),
      line({ state: 'reserved', why: 'a fair' }),
      line({ state: 'held' }),
      line({ state: 'unexplained' }),
      ...(['given-back', 'expired', 'freed', 'released', 'passed-over'] as const).map((what) =>
        line({ what, why: 'the start failed' }),
      ),
    ].map(lineWords);
    expect(new Set(words).size).toBe(words.length);
    expect(words.every((w) => w.length > 3)).toBe(true);
  });
});

describe('templates and blocks on screen', () => {
  test('conditions go into a list’s words and back', () => {
    for (const { value } of conditions(facade)) expect(wordOfCondition(conditionOf(value))).toBe(value);
  });

  test('a file of one name in another folder is another file; given where it stands it is its new content', () => {
    const holder = { id: 'h', name: 'h', starters: [{ id: 's', name: 'brief.md', from: 'starters/x/brief.md' }] };
    const template: Template = {
      ...facade,
      root: { ...facade.root, starters: [{ id: 'r', name: 'brief.md', from: 'starters/brief.md' }], folders: [holder] },
    };
    expect(pathOfStarter(template, holder, 'brief.md')).toBe('starters/x/brief.md');
    expect(pathOfStarter(template, { id: 'other', name: 'o' }, 'brief.md')).toBe('starters/other/brief.md');
    expect(pathOfStarter(template, { id: 'other', name: 'o' }, 'new.md')).toBe('starters/new.md');
  });

  test('two editions as one tree: what is gone stands where it stood, and every change is told at its folder', () => {
    const after: Template = {
      ...facade,
      root: {
        ...setFolder(facade.root, 'survey', { name: 'site' }),
        folders: (setFolder(facade.root, 'survey', { name: 'site' }).folders ?? [])
          .filter((f) => f.id !== 'cache')
          .concat({ id: 'fresh', name: 'fresh' }),
      },
    };
    const badges = Object.fromEntries(
      comparedLines(facade, after, registers).flatMap((l) =>
        l.tree.badge && l.folder && ['survey', 'cache', 'fresh'].includes(l.folder.node.id)
          ? [[l.folder.node.id, [l.tree.badge, l.tree.state]]]
          : [],
      ),
    );
    expect(badges).toEqual({ survey: ['renamed', 'there'], cache: ['gone', 'absent'], fresh: ['new', 'there'] });
    expect(comparedLines(facade, facade, registers).some((l) => l.tree.state !== 'planned')).toBe(false);
  });

  test('a block is written with what its holders ask for, and taken up without touching what they made of it', () => {
    const row = { id: 'paperwork', name: 'Paperwork', folders: facade.blocks?.[0]?.folders ?? [] };
    const holder = { id: facade.id, template: facade } as unknown as TemplateRow;
    const alone = templateOfBlock(row.id, row, [holder, holder]);
    expect(alone.fields.map((f) => f.key)).toEqual(facade.fields.map((f) => f.key));
    expect((row as unknown as BlockRow).folders.length).toBe(alone.root.folders?.length);
    const held: Template = {
      ...facade,
      blocks: facade.blocks?.map((b) =>
        b.id === 'paperwork'
          ? { ...b, shared: { block: 'paperwork', edition: 1 }, folders: [...b.folders, { id: 'mine', name: 'mine' }] }
          : b,
      ),
    };
    const next: BlockEdition = { edition: 2, folders: [...row.folders, { id: 'theirs', name: 'theirs' }] };
    const taken = takeUp(held, 'paperwork', () => row.folders, next);
    expect(taken.clashes).toEqual([]);
    expect(taken.template.blocks?.find((b) => b.id === 'paperwork')?.folders.map((f) => f.id)).toEqual(
      expect.arrayContaining(['mine', 'theirs', ...row.folders.map((f) => f.id)]),
    );
  });
});
