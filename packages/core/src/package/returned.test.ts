import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { returned } from './returned';

const of = (files: Readonly<Record<string, string>>) =>
  Object.entries(files).map(([path, sha256]) => ({ path, sha256 }));

test('what somebody did to it for a week: worked on, renamed, moved, thrown away, made new', () => {
  const sent = of({ 'a/one.usda': '1', 'a/two.usda': '2', 'b/three.wav': '3', 'b/four.wav': '4', 'c/five.txt': '5' });
  const back = of({
    'from Bram/a/one.usda': 'other',
    'from Bram/a/two (2).usda': '2',
    'from Bram/three.wav': 'louder',
    'from Bram/c/five.txt': '5',
    'from Bram/a/new.usda': 'new',
  });
  expect(returned(sent, back).map(({ state, sent: was, back: now }) => [state, was, now])).toEqual([
    ['changed', 'a/one.usda', 'from Bram/a/one.usda'],
    ['changed', 'b/three.wav', 'from Bram/three.wav'],
    ['new', null, 'from Bram/a/new.usda'],
    ['same', 'a/two.usda', 'from Bram/a/two (2).usda'],
    ['same', 'c/five.txt', 'from Bram/c/five.txt'],
    ['not-back', 'b/four.wav', null],
  ]);
});

test('two of one content find each its own, and a name that several have says nothing', () => {
  const sent = of({ 'a/x.txt': '1', 'b/x.txt': '1', 'c/x.txt': '2' });
  const rows = returned(sent, of({ 'b/x.txt': '1', 'x.txt': 'other' }));
  expect(rows).toEqual([
    { state: 'new', sent: null, back: 'x.txt' },
    { state: 'same', sent: 'b/x.txt', back: 'b/x.txt' },
    { state: 'not-back', sent: 'a/x.txt', back: null },
    { state: 'not-back', sent: 'c/x.txt', back: null },
  ]);
});

const files = fc
  .dictionary(fc.constantFrom('a/x', 'a/y', 'b/x', 'b/y', 'c', 'x', 'd/a/x'), fc.constantFrom('1', '2', '3'))
  .map((found) => of(found));

test('everything is told once, and what is the same is the same', () => {
  fc.assert(
    fc.property(files, files, (sent, back) => {
      const rows = returned(sent, back);
      const named = (side: 'sent' | 'back') => rows.flatMap((row) => row[side] ?? []).sort();
      expect(named('sent')).toEqual(sent.map(({ path }) => path).sort());
      expect(named('back')).toEqual(back.map(({ path }) => path).sort());
      const hash = (list: typeof sent, path: string | null) => list.find((one) => one.path === path)?.sha256;
      for (const row of rows) {
        const isSame = hash(sent, row.sent) === hash(back, row.back);
        if (row.state === 'same') expect(isSame).toBe(true);
        if (row.state === 'changed') expect(isSame).toBe(false);
      }
    }),
  );
});
