import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isExchanged } from './exchanged';

const word = fc.stringMatching(/^[a-z]{2,12}$/);

test('two neighbours that changed places are one slip, both ways round', () => {
  fc.assert(
    fc.property(word, fc.nat(), (text, n) => {
      const at = n % (text.length - 1);
      const swapped = `${text.slice(0, at)}${text[at + 1]}${text[at]}${text.slice(at + 2)}`;
      expect(isExchanged(text, swapped)).toBe(swapped !== text);
      expect(isExchanged(swapped, text)).toBe(swapped !== text);
    }),
  );
});

test('anything else is none', () => {
  fc.assert(
    fc.property(word, word, (a, b) => {
      const isOne = [...a].some(
        (_, i) => i + 1 < a.length && `${a.slice(0, i)}${a[i + 1]}${a[i]}${a.slice(i + 2)}` === b,
      );
      expect(isExchanged(a, b)).toBe(a !== b && isOne);
    }),
  );
  for (const [a, b] of [
    ['', ''],
    ['masters', 'masters'],
    ['masters', 'matsrse'],
    ['music', 'musics'],
    ['abcd', 'dcba'],
  ] as const)
    expect(isExchanged(a, b)).toBe(false);
});
