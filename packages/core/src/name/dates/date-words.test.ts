import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { dateFromWords } from './date-words';

// A Wednesday.
const TODAY = '2026-11-25';
const said = (text: string) => dateFromWords(text, TODAY);

describe('dates as people type them', () => {
  test.each([
    ['2026-12-01', '2026-12-01'],
    ['today', TODAY],
    ['tomorrow', '2026-11-26'],
    ['Fri', '2026-11-27'],
    ['wed', '2026-12-02'],
    ['next tue', '2026-12-01'],
    ['next wed', '2026-12-02'],
    ['next mon', '2026-11-30'],
    ['in 3 days', '2026-11-28'],
    ['+2w', '2026-12-09'],
    ['1 month', '2026-12-25'],
    ['27.11.', '2026-11-27'],
    ['24.11.', '2027-11-24'],
    ['1.3.26', '2026-03-01'],
    ['27 nov', '2026-11-27'],
    ['Nov 27, 2027', '2027-11-27'],
    ['27/11', '2026-11-27'],
    ['11/27/2026', '2026-11-27'],
    ['5/5', '2027-05-05'],
  ])('%s', (text, day) => expect(said(text)).toBe(day));

  test('days that do not exist, and what could be two days, are none', () => {
    for (const none of [
      '31 feb',
      '31.2.2026',
      '2026-02-30',
      '30/02',
      '5/6',
      'tu',
      'soon',
      '',
      '2026-13-01',
      '99 nov',
      'next',
      'marching 4',
    ])
      expect([none, said(none)]).toEqual([none, null]);
    expect(dateFromWords('in 1 month', '2026-01-31')).toBe('2026-02-28');
  });

  test.each(['__proto__', 'constructor', 'toString', 'hasOwnProperty'])('%s is no day', (text) =>
    expect(said(text)).toBeNull(),
  );

  test('any text gives a real day or none; a day written out is itself', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 30 }), (text) => {
        const day = said(text);
        if (day !== null) expect(new Date(`${day}T00:00:00Z`).toISOString().slice(0, 10)).toBe(day);
      }),
    );
    fc.assert(
      fc.property(
        fc.date({ min: new Date('2000-01-01'), max: new Date('2099-12-31'), noInvalidDate: true }),
        (date) => {
          const iso = date.toISOString().slice(0, 10);
          const [y, m, d] = iso.split('-').map(Number) as [number, number, number];
          expect(said(iso)).toBe(iso);
          expect(said(`${d}.${m}.${y}`)).toBe(iso);
        },
      ),
    );
  });
});
