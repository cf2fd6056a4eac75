import { expect, test } from '@jest/globals';
import { isInLibrary } from './libraries';
import { targetOf } from './target';

const roots = ['/srv/studio/26014_QHT_lights', 'P:\\\\jobs\\\\26014_QHT_lights'.replaceAll('\\\\', '\\')];
const libraries = [
  { path: '/srv/library', name: 'Shared' },
  { path: 'P:\\Library\\', name: 'Shared, from the drive' },
];
const leads = (reference: string, file = '40_motion/a/b.usda') =>
  isInLibrary(targetOf(file, reference, roots), { file, roots, libraries });

test.each([
  ['/srv/library/sound/rain.wav', true],
  ['/srv/library', false],
  ['/srv/library-old/rain.wav', false],
  ['/srv/Library/rain.wav', false],
  ['/srv/library/../studio/other/rain.wav', false],
  ['file:///srv/library/rain%20heavy.wav', true],
  ['p:/LIBRARY/rain.wav', true],
  ['P:\\library\\sound\\rain.wav', true],
  ['file:///P:/Library/rain.wav', true],
  ['Q:/Library/rain.wav', false],
  ['../../../../library/rain.wav', true],
  ['../../../../../library/rain.wav', false],
  ['../../../../studio/rain.wav', false],
  ['../../../../../../../../srv/library/rain.wav', false],
  ['here.wav', false],
  ['https://library.example/rain.wav', false],
])('%s: %s', (reference, is) => {
  expect(leads(reference)).toBe(is);
});

test('nothing is one where the house has none', () => {
  const target = targetOf('a.usda', '/srv/library/rain.wav', roots);
  expect(isInLibrary(target, { file: 'a.usda', roots, libraries: [] })).toBe(false);
});
