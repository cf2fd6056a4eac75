import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { manifestLine, readManifest, readSums, sumLine } from './sums';

const hash = 'ab'.repeat(32);
const anyPath = fc
  .string({ unit: 'grapheme', minLength: 1, maxLength: 30 })
  .map((text) => `f${text}`)
  .filter((text) => !text.includes('\0'));

test('what is written is read, whatever the name is', () => {
  fc.assert(
    fc.property(anyPath, (path) => {
      expect(readSums(sumLine({ hash, path }), 'sha256')).toEqual({ sums: [{ hash, path }], bad: [] });
    }),
  );
});

test('manifests of bags keep percent signs and line ends in names', () => {
  fc.assert(
    fc.property(anyPath, (path) => {
      expect(readManifest(manifestLine({ hash, path }), 'sha256')).toEqual({ sums: [{ hash, path }], bad: [] });
    }),
  );
});

test('lists of others: binary mode, capitals, other line ends, a mark at the beginning', () => {
  const text = `\ufeff${hash.toUpperCase()} *a b.txt\r\n\r\n${hash}  ./c.txt\r\n`;
  expect(readSums(text, 'sha256')).toEqual({
    sums: [
      { hash, path: 'a b.txt' },
      { hash, path: 'c.txt' },
    ],
    bad: [],
  });
});

test.each([
  ['too short', `${hash.slice(1)}  a`],
  ['no name', `${hash}  `],
  ['no blank', `${hash}a`],
  ['one blank', `${hash} a`],
  ['not hexadecimal', `${'x'.repeat(64)}  a`],
  ['an escape that is none', `\\${hash}  a\\q`],
])('a line that is none is told by its number: %s', (_, line) => {
  expect(readSums(`${hash}  fine\n${line}\n`, 'sha256').bad).toEqual([{ line: 2 }]);
});
