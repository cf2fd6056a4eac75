import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { nameFaults } from '../portable/name';
import { PROFILE_NAMES } from '../portable/profiles';
import { abbreviate, sanitise, spellOut } from './tidy';

const SHORT = [
  { short: 'VO', long: 'voice over' },
  { short: 'MX', long: 'music' },
  { short: 'bg', long: 'background' },
  { short: 'bg', long: 'bridge' },
];

test('abbreviations go both ways, whole words only', () => {
  expect(abbreviate('Clock tower voice-over, musical Music', SHORT)).toBe('Clock tower VO, musical MX');
  expect(spellOut('tower_VO_mx', SHORT)).toBe('tower_voice over_music');
  expect(spellOut('bg plate', SHORT)).toBe('bg plate');
  expect(abbreviate('a background', SHORT)).toBe('a bg');
});

test('what was put in is not replaced again', () => {
  expect(
    abbreviate('one two', [
      { short: 'two', long: 'one' },
      { short: '2', long: 'two' },
    ]),
  ).toBe('two 2');
});

test.each([
  ['  Harbour Lights: Night / Day?  ', 'Harbour Lights- Night - Day'],
  ['con', 'con_'],
  ['aux.txt', 'aux_.txt'],
  ['tide\u200b table\u0007', 'tide table'],
  ['...', ''],
  ['Fête', 'Fête'],
])('%j becomes %j', (text, clean) => {
  expect(sanitise(text, PROFILE_NAMES)).toBe(clean);
});

test('whatever the text, what is left is legal on every system, and clean already', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 400 }), (text) => {
      const clean = sanitise(text, PROFILE_NAMES);
      if (clean !== '') expect(nameFaults(clean, PROFILE_NAMES).filter((f) => f.weight === 'refused')).toEqual([]);
      expect(sanitise(clean, PROFILE_NAMES)).toBe(clean);
    }),
  );
});
