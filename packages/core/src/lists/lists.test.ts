import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { csv, defused } from '../text/csv';
import { type Cells, COLUMNS, cellFaults, LIST_NAMES, type ListEntry, tidyCells } from './columns';
import { planImport, tableOf } from './import';

const client = (code: string, name: string, more: Cells = {}): ListEntry => ({
  key: code,
  cells: tidyCells('clients', { code, name, ...more }),
});
const ours = [
  client('QHT', 'Quillhaven Harbour Trust'),
  client('OTM', 'Ottermoor Town Council', { notes: 'Ask for Ilse.' }),
];
const states = (table: string[][]) => planImport('clients', ours, table).rows.map((r) => [r.line, r.key, r.state]);

describe('cells', () => {
  test('what is wrong is told by its column: a slash, a blank, an emoji, a code that is none', () => {
    const codes = (code: string) => cellFaults('clients', { code, name: 'x' }).map((f) => `${f.column} ${f.code}`);
    expect(codes('QHT')).toEqual([]);
    for (const odd of ['Q/T', 'Q T', '🦦', 'É', 'ABCDEFGHIJKLM', '=1+1', '..', '']) expect(codes(odd)).toHaveLength(1);
    expect(cellFaults('families', tidyCells('families', { name: 'still', extensions: '.PNG, exr' }))).toEqual([]);
    expect(cellFaults('families', { name: 'still', extensions: 'a/b' })[0]).toMatchObject({
      code: 'cell-form',
      params: { found: 'a/b' },
    });
    expect(
      cellFaults('people', { initials: 'IT', name: 'Ines\u202eX', email: 'a@b.example', role: 'artist' }).map(
        (f) => f.code,
      ),
    ).toEqual(['cell-control']);
  });

  test('tidied twice is tidied once, for any text in any list', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...LIST_NAMES),
        fc.array(fc.string({ unit: 'binary' }), { minLength: 6, maxLength: 6 }),
        (list, texts) => {
          const once = tidyCells(list, Object.fromEntries(COLUMNS[list].map((c, i) => [c.key, texts[i] ?? ''])));
          expect(tidyCells(list, once)).toEqual(once);
        },
      ),
    );
  });
});

describe('a table that is taken in', () => {
  test('each line is new, changed, the same or refused, with its reasons', () => {
    const table = [
      ['Name', 'CODE', 'Telephone'],
      ['Quillhaven Harbour Trust', 'qht', '1'],
      ['Town', 'OTM', ''],
      ['Fennel & Rook', 'FNR', ''],
      ['', 'X', ''],
      ['Twice', 'FNR', ''],
      ['', '', ' '],
      ['Bad', 'a/b', ''],
    ];
    expect(states(table)).toEqual([
      [2, 'qht', 'same'],
      [3, 'OTM', 'changed'],
      [4, 'FNR', 'new'],
      [5, 'X', 'refused'],
      [6, 'FNR', 'refused'],
      [8, 'a/b', 'refused'],
    ]);
    const plan = planImport('clients', ours, table);
    expect(plan.unknown).toEqual(['Telephone']);
    // Columns the table does not have stay as they are.
    expect(plan.rows[1]).toMatchObject({ was: { name: 'Ottermoor Town Council' }, cells: { notes: 'Ask for Ilse.' } });
    expect(plan.rows[4]?.faults[0]).toMatchObject({ code: 'entry-double', params: { line: 4 } });
  });

  test('a table without its columns, or with too many lines, is refused whole', () => {
    expect(planImport('clients', ours, []).faults.map((f) => f.code)).toEqual(['no-header']);
    expect(
      planImport('clients', ours, [
        ['Title', 'Sum'],
        ['a', 'b'],
      ]).faults[0]?.code,
    ).toBe('column-missing');
    expect(
      planImport('clients', ours, [['code', 'name'], ...Array.from({ length: 20_001 }, (_, i) => [`c${i}`, 'x'])])
        .faults[0]?.code,
    ).toBe('too-many-rows');
  });

  test('what a list prints it takes in again as the same, formulas and all', () => {
    const text = fc
      .string({ unit: 'grapheme', minLength: 1, maxLength: 30 })
      .filter((s) => cellFaults('clients', tidyCells('clients', { code: 'X', name: s })).length === 0);
    fc.assert(
      fc.property(
        fc.uniqueArray(
          fc.tuple(
            fc.stringMatching(/^[A-Z]{1,6}$/),
            fc.oneof(text, fc.constantFrom('=cmd()', '+1', '-x', '@y', "'=z")),
          ),
          { selector: ([code]) => code, maxLength: 20 },
        ),
        (rows) => {
          const list = rows.map(([code, name]) => client(code, name));
          const printed = tableOf('clients', list);
          const cells = printed.map((line) => line.map(defused));
          expect(
            planImport('clients', list, cells)
              .rows.filter((r) => r.state !== 'same')
              .map((r) => r.key),
          ).toEqual([]);
          expect(csv(printed)).not.toMatch(/(^|,)[=@]/m);
        },
      ),
    );
  });
});
