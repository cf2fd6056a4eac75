import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { patternWithValues } from '../../../tests/names';
import { addItem, moveItem, printRow, removeItem, rowOf } from './arrange';
import { mustParse, parsePattern } from './parse';

const row = (pattern: string) => rowOf(mustParse(pattern));

test.each([
  ['{number}_{title:kebab}_v{version:000}.{ext}', 2, 1, '{number}_v{version:000}_{title:kebab}.{ext}'],
  ['{number}_{title:kebab}_v{version:000}.{ext}', 0, 1, '{title:kebab}_{number}_v{version:000}.{ext}'],
  ['{number}-{title}(-{part})?.{ext}', 2, 1, '{number}(-{part})?-{title}.{ext}'],
  ['{number}_MST_{window:A}.{ext}', 1, 0, 'MST_{window:A}_{number}.{ext}'],
  ['{date:yyyyMMdd} {{x}} {take}', 1, 0, '{{x}} {take} {date:yyyyMMdd}'],
])('%s, item %i to %i', (pattern, from, to, moved) => {
  expect(printRow(moveItem(row(pattern), from, to))).toBe(moved);
});

test('a part is put in before the extension, and taken out again', () => {
  expect(printRow(addItem(row('{number}_{title}.{ext}'), '{scene}', 'scene'))).toBe('{number}_{title}_{scene}.{ext}');
  expect(printRow(addItem(row('{number}-{title}'), '{ext}', 'ext'))).toBe('{number}-{title}.{ext}');
  expect(printRow(removeItem(row('{number}_{title}.{ext}'), 0))).toBe('{title}.{ext}');
  expect(printRow(addItem({ items: [], tail: '' }, '{title}', 'title'))).toBe('{title}');
});

test('a row is its pattern, whatever is moved it still parses and holds the same fields', () => {
  fc.assert(
    fc.property(patternWithValues, fc.nat(5), fc.nat(5), ({ pattern }, a, b) => {
      const parsed = parsePattern(pattern);
      if (!parsed.ok) return;
      const before = rowOf(parsed.value);
      expect(printRow(before)).toBe(pattern);
      const moved = moveItem(before, a % before.items.length, b % before.items.length);
      const after = rowOf(mustParse(printRow(moved)));
      expect(after.items.map((i) => i.slot.field).sort()).toEqual(before.items.map((i) => i.slot.field).sort());
    }),
  );
});
