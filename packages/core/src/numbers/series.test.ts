import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compileSeries, DEFAULT_SERIES, type NumberSeries, RESETS } from './series';

const made = (change: Partial<NumberSeries>) => compileSeries({ ...DEFAULT_SERIES, ...change });
const must = (change: Partial<NumberSeries> = {}) => {
  const series = made(change);
  if (!series.ok) throw new Error(series.faults[0]?.code);
  return series.value;
};
const context = { year: 2026, month: 11, client: 'QHT', template: 'facade-show' };
const codes = (change: Partial<NumberSeries>) => {
  const series = made(change);
  return series.ok ? [] : series.faults.map((f) => f.code);
};

describe('number series', () => {
  test('numbers are written and read, with what counts together', () => {
    expect(must().write(context, 14)).toEqual({ ok: true, value: '26014' });
    expect(must().read('26014')).toEqual({ n: 14, scope: '26' });
    expect(must().write(context, 1234)).toEqual({ ok: true, value: '261234' });
    expect(must({ pattern: '{client}-{yy}-{n:00}', reset: 'client-yearly' }).read('QHT-26-03')).toEqual({
      n: 3,
      scope: 'QHT/26',
    });
    expect(must({ pattern: '{kind}-{n}', kinds: { 'facade-show': 'F' }, reset: 'never' }).write(context, 7)).toEqual({
      ok: true,
      value: 'F-7',
    });
    expect(must({ pattern: '{year}{month}-{n:00}', reset: 'monthly' }).scopeOf(context)).toBe('26/11');
    for (const foreign of ['2601', '26014x', 'x26014', '', '26-014', '26014'.repeat(20)])
      expect(must().read(foreign)).toBeNull();
  });

  test('what cannot be exact is refused while it is written', () => {
    expect(codes({ pattern: '{yy}' })).toEqual(['series-count-missing']);
    expect(codes({ pattern: '{yy}{n}{n}' })).toContain('series-count-twice');
    expect(codes({ pattern: '{n:000}', reset: 'yearly' })).toEqual(['series-reset-unseen']);
    expect(codes({ pattern: '{yy}{n:000}', reset: 'client' })).toEqual(['series-reset-unseen']);
    expect(codes({ pattern: '{client}{n:000}', reset: 'client' })).toEqual(['series-misreadable']);
    expect(codes({ pattern: '{client}1{n:000}', reset: 'client' })).toEqual(['series-misreadable']);
    expect(codes({ pattern: '{client}-{kind}-{n}', reset: 'client' })).toEqual(['series-misreadable']);
    expect(codes({ pattern: '{client}_{kind}-{n}', reset: 'client' })).toEqual([]);
    expect(codes({ pattern: '{yy}{n:000}/{client}' })).toContain('series-letters');
    expect(codes({ pattern: '{yy}{what}{n}' })).toContain('series-part-unknown');
    expect(codes({ pattern: `{yy}{n}${'x'.repeat(80)}` })).toContain('series-too-long');
    expect(must({ pattern: '{client}-{yy}{n:00}' }).write({ ...context, client: null }, 1)).toMatchObject({
      ok: false,
      faults: [{ code: 'series-value-missing', found: 'client' }],
    });
  });

  test('law: what is written is read as it was counted, and two counts never give one number', () => {
    const pattern = fc.constantFrom(
      '{yy}{n:000}',
      '{year}-{n:0000}',
      '{client}-{yy}-{n:00}',
      '{kind}-{year}{month}-{n}',
      'P{n:00000}',
      '{yy}{month}.{client}.{n:00}',
      '{client}_{kind}-{n:0}',
    );
    const one = fc.record({
      year: fc.integer({ min: 2000, max: 2099 }),
      month: fc.integer({ min: 1, max: 12 }),
      client: fc.constantFrom('QHT', 'OTM', 'A-1'),
      template: fc.constantFrom('a', 'b'),
    });
    fc.assert(
      fc.property(
        pattern,
        fc.constantFrom(...RESETS),
        one,
        one,
        fc.integer({ min: 1, max: 200_000 }),
        fc.integer({ min: 1, max: 200_000 }),
        (p, reset, a, b, n, m) => {
          const series = made({ pattern: p, reset, kinds: { a: 'F', b: 'D2' } });
          fc.pre(series.ok);
          if (!series.ok) return;
          const [x, y] = [series.value.write(a, n), series.value.write(b, m)];
          if (!x.ok || !y.ok) throw new Error('not written');
          expect(series.value.read(x.value)).toEqual({ n, scope: series.value.scopeOf(a) });
          if (series.value.scopeOf(a) !== series.value.scopeOf(b) || n !== m) expect(x.value).not.toBe(y.value);
        },
      ),
    );
  });
});
