import { expect, test } from '@jest/globals';
import type { PlannedLine } from '../template/expansion';
import { placeAmongOlder } from './give-way';

const withOlder = { path: '80_masters', folder: { older: { folder: 'older', keep: 3 } } } as unknown as PlannedLine;
const without = { path: '80_masters', folder: {} } as unknown as PlannedLine;
const there = { name: 'pier.v.mov', modified: Date.parse('2026-03-02T23:30:00Z') };

test('it is kept by the day it was written, before its extension', () => {
  expect(placeAmongOlder(withOlder, there, () => [])).toBe('80_masters/older/pier.v_2026-03-02.mov');
  expect(placeAmongOlder(withOlder, { ...there, name: 'README' }, () => [])).toBe('80_masters/older/README_2026-03-02');
});

test('a second one of the same day is counted, also where another system takes both names for one', () => {
  const names = ['PIER.V_2026-03-02.MOV', 'pier.v_2026-03-02_2.mov'];
  expect(placeAmongOlder(withOlder, there, (folder) => (folder === '80_masters/older' ? names : []))).toBe(
    '80_masters/older/pier.v_2026-03-02_3.mov',
  );
});

test('without a folder for older ones it is kept with the change', () => {
  expect(placeAmongOlder(without, there, () => [])).toBeNull();
  expect(placeAmongOlder(null, there, () => [])).toBeNull();
});
