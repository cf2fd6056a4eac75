import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { convention } from '../../tests/names';
import { nextVersion, ordinal, versionAt } from './versions';

const numbered = convention('{title:kebab}_v{version:000}.{ext}');
const lettered = convention('{title:kebab}_rev{version:A}.{ext}');

test('the next version is free whatever the extension', () => {
  expect(
    nextVersion(numbered, { title: 'west', ext: 'usda' }, ['west_v003.usdc', 'west_v001.usda', 'tower_v009.usda']),
  ).toBe(4);
  expect(nextVersion(numbered, { title: 'west', ext: 'usda' }, [])).toBe(1);
  expect(nextVersion(lettered, { title: 'w', ext: 'usda' }, ['w_revZ.usda'])).toBe('AA');
  expect(nextVersion(convention('{title:kebab}.{ext}'), { title: 'w' }, [])).toBeNull();
});

test('letters count as in a spreadsheet, both ways', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 20_000 }),
      (n) => ordinal(versionAt(n, 'A')) === n && ordinal(versionAt(n, 'a')) === n,
    ),
  );
  expect(['A', 'Z', 'AA', 'AZ', 'BA'].map(ordinal)).toEqual([1, 26, 27, 52, 53]);
});
