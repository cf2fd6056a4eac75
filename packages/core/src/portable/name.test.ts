import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { clashKey, isLegalName, nameFaults, utf8Length } from './name';
import { PROFILE_NAMES, type ProfileName } from './profiles';

const refused = (name: string, ...profiles: ProfileName[]) =>
  nameFaults(name, profiles)
    .filter((f) => f.weight === 'refused')
    .map((f) => f.code);

describe('what a name may be', () => {
  test.each([
    ['a:b', ['windows'], ['name-forbidden']],
    ['a:b', ['posix'], []],
    ['a/b', ['posix'], ['name-separator']],
    ['a\0b', ['posix'], ['name-separator']],
    ['..', ['posix'], ['name-dots']],
    ['', ['posix'], ['name-empty']],
    ['NUL.txt', ['windows'], ['name-reserved']],
    ['com1 .log', ['windows'], ['name-reserved']],
    ['nul.txt', ['posix'], []],
    ['notes.', ['windows'], ['name-edge']],
    ['notes ', ['exfat'], ['name-edge']],
    ['ab\u202ecd', ['posix'], ['name-invisible']],
    ['ab\u200bcd', ['macos'], ['name-invisible']],
    ['a\ud83d', ['posix'], ['name-surrogate']],
    ['a\tb', ['posix'], ['name-control']],
    ['lamp-🏮', ['posix', 'windows', 'macos'], []],
    ['é'.repeat(128), ['posix'], ['name-too-long']],
    ['é'.repeat(128), ['windows'], []],
    ['a'.repeat(300), ['windows'], ['name-too-long']],
  ] as [string, ProfileName[], string[]][])('%j on %j', (name, profiles, codes) => {
    expect(refused(name, ...profiles)).toEqual(codes);
  });

  test('names of the program’s own are nobody’s, in all capitals', () => {
    for (const name of ['.nesting', '.Nesting', '.NESTING-volume', '.nesting-unfinished-1'])
      expect(refused(name, 'posix')).toEqual(['name-own']);
    for (const name of ['nesting', '.nestings', 'a.nesting', '.nest']) expect(refused(name, 'posix')).toEqual([]);
  });

  test('places are exact', () => {
    expect(nameFaults('ab?c', ['windows'])[0]).toMatchObject({ at: 2, length: 1, params: { character: '?' } });
  });

  test('names that differ in case or Unicode form only share a key', () => {
    expect(clashKey('Été')).toBe(clashKey('e\u0301te\u0301'));
    expect(clashKey('a')).not.toBe(clashKey('b'));
  });

  test('UTF-8 length is that of the encoder, for every text', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 40 }), (text) =>
        expect(utf8Length(text)).toBe(Buffer.byteLength(text)),
      ),
    );
  });

  test('a legal name stays legal with fewer profiles', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 30 }), fc.subarray([...PROFILE_NAMES]), (name, some) => {
        if (isLegalName(name, PROFILE_NAMES)) expect(isLegalName(name, some)).toBe(true);
      }),
    );
  });
});
