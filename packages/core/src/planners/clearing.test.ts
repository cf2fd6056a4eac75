import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { generatedBy } from '../project/generated';
import { clearingChanges, leftIn, leftSum, wishedOf } from './clearing';

const FAMILIES = [
  { name: 'generated', extensions: ['cache', 'PEAK', 'auto.bak'] },
  { name: 'sound', extensions: ['wav', 'bak'] },
];
const formOf = generatedBy(FAMILIES);

test('a file is what programs make by its family alone, or what systems leave behind', () => {
  const forms = [
    'a.cache',
    'a.peak',
    'a.auto.bak',
    '.DS_Store',
    '._x',
    'a.bak',
    'a.wav',
    'cache',
    '.cache',
    'a.cache.wav',
  ];
  expect(forms.map(formOf)).toEqual(['cache', 'peak', 'auto.bak', '', '', null, null, null, null, null]);
});

const name = fc.constantFrom('a.cache', 'b.cache', 'c.peak', 'x.wav', 'y.bak', 'Thumbs.db', 'note.txt');
const file = fc.record({ name, size: fc.nat(1000), modified: fc.nat(100) });
const listing = fc.record({
  path: fc.constantFrom('', 'a', 'a/b', 'c'),
  files: fc.uniqueArray(file, { selector: (f) => f.name, maxLength: 7 }),
});
const listings = fc
  .uniqueArray(listing, { selector: (l) => l.path, maxLength: 4 })
  .map((all) => all.map((l) => ({ ...l, folders: [], others: [] })));

test('whatever is wished, what is cleared is of programs, is old enough, and is each file once', () => {
  fc.assert(
    fc.property(
      listings,
      fc.option(fc.constantFrom('cache', 'peak', '')),
      fc.option(fc.nat(100)),
      (all, form, before) => {
        const left = wishedOf(leftIn(all, formOf), { form, before });
        const changes = clearingChanges(left);
        expect(new Set(changes.map((c) => c.id)).size).toBe(changes.length);
        expect(changes.length).toBe(left.reduce((n, { files }) => n + leftSum(files).files, 0));
        for (const { before: place, after, expects } of changes) {
          expect(formOf(place?.path.split('/').at(-1) ?? '')).not.toBeNull();
          expect(after).toBeNull();
          if (before !== null) expect(expects?.modified).toBeLessThan(before);
        }
        const every = wishedOf(leftIn(all, formOf), { form: null, before: null });
        expect(every.flatMap((l) => l.files).length).toBe(
          all.flatMap((l) => l.files).filter((f) => formOf(f.name) !== null).length,
        );
      },
    ),
  );
});
