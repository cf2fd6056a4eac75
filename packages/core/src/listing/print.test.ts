import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { printListing } from './print';
import { type PathLine, parseListing } from './text';

const name = fc.stringMatching(/^[a-z][a-z0-9_-]{0,6}$/);
/** A tree as its lines, folders before what is in them; a folder is never without a name of its own. */
const lines: fc.Arbitrary<PathLine[]> = fc
  .uniqueArray(fc.array(name, { minLength: 1, maxLength: 4 }), {
    minLength: 1,
    maxLength: 15,
    selector: (p) => p.join('/'),
  })
  .map((paths) => {
    const folders = new Set(paths.flatMap((p) => p.slice(1).map((_, i) => p.slice(0, i + 1).join('/'))));
    const files = paths
      .map((p) => p.join('/'))
      .filter((p) => !folders.has(p))
      .map((p, i) => (i % 3 === 0 ? { path: p, folder: true } : { path: `${p}.txt`, folder: false }));
    const all = new Map(
      [...[...folders].map((path) => ({ path, folder: true })), ...files].map((l) => [
        l.path,
        { ...l, size: 0, modified: 0 },
      ]),
    );
    return [...all.values()].sort((a, b) => (`${a.path}/` < `${b.path}/` ? -1 : 1));
  });

test.each(['paths', 'outline', 'tree', 'csv', 'json'] as const)('what is printed as %s is read back', (form) => {
  fc.assert(
    fc.property(lines, (all) => {
      // One plain line can be any form: two tell which it is.
      const some =
        all.length === 1
          ? [
              { path: 'a', folder: true, size: 0, modified: 0 },
              { path: 'a/b.txt', folder: false, size: 0, modified: 0 },
            ]
          : all;
      const back = parseListing(printListing(some, form));
      expect(back.map((l) => [l.path, l.folder ?? false])).toEqual(some.map((l) => [l.path, l.folder]));
    }),
  );
});
