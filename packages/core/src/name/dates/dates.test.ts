import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type DatePattern, isoOf, isReal, parseDatePattern, parseIso, readDate, writeDate } from './dates';

const form = (source: string) => parseDatePattern(source) as DatePattern;
const read = (text: string, source: string, pivot = 2026) =>
  readDate(text, 0, form(source), pivot)
    .filter((r) => r.end === text.length)
    .map((r) => isoOf(r.date));

describe('dates', () => {
  test.each([
    ['2026-03-02', 'yyyy-MM-dd', ['2026-03-02']],
    ['260302', 'yyMMdd', ['2026-03-02']],
    ['990302', 'yyMMdd', ['1999-03-02']],
    ['2.3.2026', 'd.M.yyyy', ['2026-03-02']],
    ['2026-02-29', 'yyyy-MM-dd', []],
    ['2024-02-29', 'yyyy-MM-dd', ['2024-02-29']],
    ['1900-02-29', 'yyyy-MM-dd', []],
    ['2026-02-31', 'yyyy-MM-dd', []],
    ['111', 'Md', ['--11-01', '--01-11']],
    ['20260302_1405', 'yyyyMMdd_HHmm', ['2026-03-02T14:05']],
  ])('%s by %s', (text, source, dates) => {
    expect(read(text, source)).toEqual(dates);
  });

  test.each(['yyy', 'YYYY', 'yyyy yyyy', 'MM-M', '-', 'qq'])('%s is no date form', (source) => {
    expect(parseDatePattern(source)).toBeNull();
  });

  test('every real date reads back as it was written', () => {
    const dates = fc.record({
      year: fc.integer({ min: 1980, max: 2070 }),
      month: fc.integer({ min: 1, max: 12 }),
      day: fc.integer({ min: 1, max: 31 }),
    });
    fc.assert(
      fc.property(dates, fc.constantFrom('yyyy-MM-dd', 'yyMMdd', 'dd.MM.yy', 'yyyy_M_d'), (date, source) => {
        fc.pre(isReal(date));
        const text = writeDate(date, form(source)) as string;
        expect(read(text, source)).toEqual([isoOf(date)]);
      }),
    );
  });

  test('31 February is no ISO date', () => {
    expect(parseIso('2026-02-31')).toBeNull();
    expect(parseIso('2026-02-28')).toEqual({ year: 2026, month: 2, day: 28 });
  });
});
