/** A card may be erased only where the same bytes stand twice. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { heapCopies } from './copies';

const file = (path: string) => ({ path, size: 10, modified: 1_000 });
const copy = (path: string, sha256: string) => ({ ...file(path), to: `in/${path}`, sha256 });
const there = () => 10;

test('two places count where their bytes are the same, on two volumes', () => {
  const place = (volume: string, sha256: string) => ({
    volume,
    copies: [copy('a', sha256)],
    isProved: true,
    sizeAt: there,
  });
  const inTwo = (...places: ReturnType<typeof place>[]) => heapCopies([file('a')], places).inTwo;
  expect(inTwo(place('one', 'x'), place('two', 'x'))).toBe(1);
  expect(inTwo(place('one', 'x'), place('one', 'x'))).toBe(0);
  // The card was read twice, and not the same both times.
  expect(inTwo(place('one', 'x'), place('two', 'y'))).toBe(0);
  expect(inTwo(place('one', 'x'), place('two', 'y'), place('three', 'y'))).toBe(1);
});

test('what could be read back from memory only proves nothing, and is told', () => {
  const place = (volume: string, isProved: boolean) => ({ volume, copies: [copy('a', 'x')], isProved, sizeAt: there });
  const told = heapCopies([file('a')], [place('one', true), place('two', false)]);
  expect(told).toMatchObject({ inTwo: 0, inOne: 1, volumes: ['one'], unproved: ['two'], alone: ['a'] });
  expect(heapCopies([file('a')], [place('one', false), place('two', false)])).toMatchObject({ inNone: 1 });
});

test('a card that is written to is another one', () => {
  const places = ['one', 'two'].map((volume) => ({
    volume,
    copies: [copy('a', 'x')],
    isProved: true,
    sizeAt: there,
  }));
  expect(heapCopies([{ ...file('a'), modified: 5_000 }], places).inNone).toBe(1);
  expect(heapCopies([{ ...file('a'), size: 11 }], places).inNone).toBe(1);
  // Times of two systems differ by a fraction.
  expect(heapCopies([{ ...file('a'), modified: 1_000.6 }], places).inTwo).toBe(1);
});

test('taking any copy away never makes a card safer, and all counts add up', () => {
  const names = fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd'), { minLength: 1 });
  const places = fc.array(
    fc.record({
      volume: fc.constantFrom('one', 'two', 'three'),
      copies: fc.array(fc.tuple(fc.constantFrom('a', 'b', 'c', 'd', 'e'), fc.constantFrom('x', 'y'))),
    }),
    { maxLength: 4 },
  );
  fc.assert(
    fc.property(names, places, fc.nat(), fc.nat(), (paths, made, which, line) => {
      const files = paths.map(file);
      const told = (kept: typeof made) =>
        heapCopies(
          files,
          kept.map(({ volume, copies }) => ({
            volume,
            copies: copies.map(([at, hash]) => copy(at, hash)),
            isProved: true,
            sizeAt: there,
          })),
        );
      const all = told(made);
      expect(all.inTwo + all.inOne + all.inNone).toBe(files.length);
      expect(all.alone).toHaveLength(files.length - all.inTwo);
      const fewer = told(
        made.map((place, at) =>
          at === which % Math.max(1, made.length)
            ? { ...place, copies: place.copies.filter((_, n) => n !== line % Math.max(1, place.copies.length)) }
            : place,
        ),
      );
      expect(fewer.inTwo).toBeLessThanOrEqual(all.inTwo);
      expect(fewer.inNone).toBeGreaterThanOrEqual(all.inNone);
    }),
    { numRuns: 500, seed: 21 },
  );
});
