import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { textHash } from '../text/hash';
import { joinTables, pickRows, repeatedIn, rowOf, TableMaker } from './number-table';

const rows = fc.array(fc.array(fc.integer({ min: 0, max: 9 }), { maxLength: 6 }), { minLength: 1, maxLength: 12 });

function tableOf(all: readonly (readonly number[])[]) {
  const maker = new TableMaker();
  for (const row of all) {
    for (const value of row) maker.push(value);
    maker.close();
  }
  return maker.table();
}

const asRows = (table: ReturnType<typeof tableOf>): number[][] =>
  [...table.ends].map((end, i) => [...table.values.slice(i === 0 ? 0 : (table.ends[i - 1] as number), end)]);

describe('numbers by the million, folder by folder', () => {
  test('what went in by folders comes out by folders, however many there are', () => {
    fc.assert(fc.property(rows, (all) => expect(asRows(tableOf(all))).toEqual(all)));
    const many = Array.from({ length: 3 }, (_, i) => Array.from({ length: 5000 }, (_, n) => n * i));
    expect(asRows(tableOf(many))).toEqual(many);
  });

  test('tables joined are the table of all; rows picked are those rows', () => {
    fc.assert(
      fc.property(rows, rows, fc.array(fc.nat({ max: 11 })), (a, b, picked) => {
        const joined = joinTables([tableOf(a), tableOf(b)]);
        expect(asRows(joined)).toEqual([...a, ...b]);
        const some = [...new Set(picked)].filter((i) => i < a.length).sort((x, y) => x - y);
        expect(asRows(pickRows(tableOf(a), some))).toEqual(some.map((i) => a[i]));
      }),
    );
  });

  test('each value’s folder is found, folders without values among them', () => {
    fc.assert(
      fc.property(rows, (all) => {
        const table = tableOf(all);
        expect([...table.values].map((_, place) => rowOf(table, place))).toEqual(
          all.flatMap((row, i) => row.map(() => i)),
        );
      }),
    );
  });

  test('values that stand more than once, with all their places', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 12 }), { maxLength: 30 }), (values) => {
        const expected = [...new Set(values)]
          .map((value) => values.flatMap((v, i) => (v === value ? [i] : [])))
          .filter((places) => places.length > 1);
        const byFirst = (all: number[][]) => all.sort((a, b) => (a[0] as number) - (b[0] as number));
        expect(byFirst(repeatedIn(Float64Array.from(values)))).toEqual(byFirst(expected));
      }),
    );
  });

  test('hashes are whole numbers a table can hold, and many ordinary names have as many of them', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (text) => {
        const hash = textHash(text);
        expect(Number.isSafeInteger(hash) && hash >= 0).toBe(true);
      }),
    );
    const seen = new Set<number>();
    for (let n = 0; n < 30_000; n++) seen.add(textHash(`26014_west-front_s${n % 300}_anim_BO_v${n}.usda`));
    expect(seen.size).toBe(30_000);
  });
});
