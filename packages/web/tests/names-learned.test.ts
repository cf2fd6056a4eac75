/** What parts of names that follow a convention of their own say of loose files. */
import { describe, expect, test } from '@jest/globals';
import { NO_REGISTERS } from '@nesting/core/name';
import type { SayField } from '../src/features/intake/intake-fields';
import { compiledOf, partsOf, saidBy } from '../src/features/intake/names-learned';

const learned = {
  back: '/projects/1/intake?volume=a',
  pattern: '{where:lower}-{code}-{take:000}_{date:yyyyMMdd}.{ext}',
  fields: [
    { key: 'where', type: 'text' as const },
    { key: 'code', type: 'choice' as const, options: [{ code: 'BO' }, { code: 'LV' }] },
    { key: 'take', type: 'count' as const },
  ],
};
const fields: readonly SayField[] = [
  { key: 'stands', label: 'Stands', isDay: false, known: ['Pier', 'Mill Roof'] },
  { key: 'days', label: 'Days', isDay: true, known: [] },
  { key: 'person', label: 'Person', isDay: false, known: ['BO', 'LV', 'IT'] },
  { key: 'take', label: 'Take', isDay: false, known: [] },
];
const convention = compiledOf(learned, NO_REGISTERS);
if (convention === null) throw new Error('the pattern cannot be used');
const PATHS = ['x/pier-BO-001_20260302.wav', 'x/pier-LV-002_20260302.wav', 'y/Untitled.wav'];

describe('parts', () => {
  test('each is told with what it has, and the field it probably stands for', () => {
    expect(partsOf(convention, PATHS, fields)).toEqual([
      { key: 'where', label: 'Where', examples: ['pier'], meant: 'stands' },
      { key: 'code', label: 'Code', examples: ['BO', 'LV'], meant: 'person' },
      { key: 'take', label: 'Take', examples: ['1', '2'], meant: 'take' },
      { key: 'date', label: 'Date', examples: ['2026-03-02'], meant: null },
    ]);
  });

  test('what two fields could be, or nothing is known of, is asked', () => {
    const two = [...fields, { key: 'places', label: 'Places', isDay: false, known: ['pier'] }];
    expect(partsOf(convention, PATHS, two)[0]?.meant).toBeNull();
    expect(partsOf(convention, [], fields).map(({ examples, meant }) => [examples.length, meant])).toEqual([
      [0, null],
      [0, null],
      [0, 'take'],
      [0, null],
    ]);
  });
});

test('each file whose name reads is given its own values, entries as the project writes them; others nothing', () => {
  const meanings = { where: 'stands', code: 'person', take: null, date: 'days' };
  expect(saidBy(convention, PATHS, meanings, fields)).toEqual({
    [PATHS[0] as string]: { values: { stands: 'Pier', person: 'BO', days: '2026-03-02' } },
    [PATHS[1] as string]: { values: { stands: 'Pier', person: 'LV', days: '2026-03-02' } },
  });
  expect(saidBy(convention, PATHS, {}, fields)).toEqual({});
});
