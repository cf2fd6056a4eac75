import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { packListing, unpackListing } from './packed';

const name = fc.oneof(
  fc.stringMatching(/^[a-zA-Z0-9 _.#-]{1,12}$/),
  fc.string({ unit: 'grapheme', minLength: 1, maxLength: 8 }),
  fc
    .tuple(fc.constantFrom('a.', 'shot_v', ''), fc.nat(10_000), fc.constantFrom('.exr', '', '.x'))
    .map((p) => p.join('')),
);
const names = fc.uniqueArray(name, { maxLength: 30 }).map((all) => [...all].sort());
const file = fc.record({ size: fc.maxSafeNat().map((n) => n >> 1), modified: fc.integer({ min: -1e9, max: 2 ** 42 }) });
const listing = fc
  .record({
    folders: names,
    others: names,
    called: names,
    facts: fc.array(file, { minLength: 30, maxLength: 30 }),
    changed: fc.option(fc.nat(2 ** 31 - 1), { nil: undefined }),
    range: fc.option(fc.tuple(fc.nat(), fc.nat()), { nil: undefined }),
  })
  .map(({ called, facts, changed, range, ...rest }) => ({
    path: 'in/a',
    ...rest,
    files: called.map((each, i) => ({ name: each, ...(facts[i] ?? { size: 0, modified: 0 }) })),
    ...(changed !== undefined && { changed }),
    ...(range !== undefined && { ranges: { 'a.#.exr': [range[0], range[0] + range[1]] as const } }),
  }));

test('what is packed is unpacked', () => {
  fc.assert(fc.property(listing, (all) => expect(unpackListing('in/a', packListing(all))).toEqual(all)));
});

test('bytes that end too early are no listing', () => {
  fc.assert(
    fc.property(listing, fc.nat(), (all, cut) => {
      const bytes = packListing(all);
      expect(() => unpackListing('in/a', bytes.slice(0, cut % bytes.length))).toThrow(RangeError);
    }),
  );
});

test('the name of a frame takes one byte, up to the number that needs one more digit and from there on', () => {
  const frames = (count: number) =>
    packListing({
      path: '',
      folders: [],
      others: [],
      files: Array.from({ length: count }, (_, i) => ({
        name: `walk_v003.${String(i + 990).padStart(4, '0')}.exr`,
        size: 1000,
        modified: 0,
      })),
    }).length;
  // A name, a size and a time: one byte each where they follow from the one before.
  expect(frames(110) - frames(10)).toBe(300);
});
