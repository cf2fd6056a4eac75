import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { convention } from '../../tests/names';
import { chainsOf, nextVersion, ordinal, versionAt } from './versions';

const numbered = convention('{title:kebab}_v{version:000}.{ext}');
const lettered = convention('{title:kebab}_rev{version:A}.{ext}');

test('a chain knows its order, its gaps, its latest, and who claims one version twice', () => {
  const frames = convention('{title:kebab}_v{version:000}.{frame:0000}.{ext}');
  const [tower, west] = chainsOf(numbered, [
    'west_v002.usda',
    'west_v010.usda',
    'west_v004.usda',
    'tower_v001.usda',
    'notes.txt',
  ]);
  expect(tower).toMatchObject({ latest: 1, gaps: [] });
  expect(west).toMatchObject({ latest: 10, gaps: [3, 5, 6, 7, 8, 9] });
  expect(chainsOf(frames, ['a_v001.0001.exr', 'a_v001.0002.exr', 'a_v002.0001.exr'])).toMatchObject([
    { latest: 2, versions: [{ names: ['a_v001.0001.exr', 'a_v001.0002.exr'] }, {}] },
  ]);
  expect(chainsOf(lettered, ['w_revA.usda', 'w_revD.usda'])).toMatchObject([{ latest: 'D', gaps: ['B', 'C'] }]);
});

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
