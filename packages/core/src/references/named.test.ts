import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type Moved, NamesSought } from './named';

const file = (before: string, after: string | null): Moved => ({ entry: 'file', before, after });
const latin = (text: string, encoding: BufferEncoding = 'utf8') => Buffer.from(text, encoding).toString('latin1');
const told = (moved: readonly Moved[], bytes: string) =>
  new NamesSought(moved).in(bytes).map(({ target, to }) => [target, to]);

const RENAMED = [file('50_sound/rain loop.wav', '50_sound/26014_ATM_rain-loop_v01.wav')];
const IS_FOUND = [['rain loop.wav', '50_sound/26014_ATM_rain-loop_v01.wav']];

test('a name is found between other bytes, in one and in two bytes a letter, and with percent codes', () => {
  expect(told(RENAMED, latin('\u0001\u0000C:\\jobs\\rain loop.wav\u0000'))).toEqual(IS_FOUND);
  expect(told(RENAMED, latin('ab/rain loop.wav;', 'utf16le'))).toEqual(IS_FOUND);
  expect(told(RENAMED, latin('"media/rain%20loop.wav"'))).toEqual(IS_FOUND);
  // Two bytes a letter may begin at any byte.
  expect(told(RENAMED, `\u0007${latin('rain loop.wav', 'utf16le')}`)).toEqual(IS_FOUND);
});

test('a part of another name is none', () => {
  for (const other of ['terrain loop.wav', 'rain loop.wave', 'rain loop.wav2', 'old_rain loop.wav', 'rain-loop.wav'])
    for (const encoding of ['utf8', 'utf16le'] as const)
      expect([other, told(RENAMED, latin(` ${other} `, encoding))]).toEqual([other, []]);
});

test('letters beyond ASCII are found as they are written, and bound a word', () => {
  const moved = [file('brise-légère.mov', 'brise.mov')];
  expect(told(moved, latin('<brise-légère.mov>'))).toEqual([['brise-légère.mov', 'brise.mov']]);
  expect(told([file('ger.mov', 'x.mov')], latin('légèreger.mov'))).toEqual([]);
});

test('what is called alike and went to two places has no one place', () => {
  const moved = [file('a/note.txt', 'a/one.txt'), file('b/note.txt', 'b/two.txt')];
  expect(told(moved, 'note.txt')).toEqual([['note.txt', null]]);
});

test('a sequence is found as a whole, and leads to its new whole', () => {
  const moved = [1, 2, 3].map((n) => file(`r/wall_000${n}.exr`, `r/26014_wall.000${n}.exr`));
  expect(told(moved, 'x=wall_####.exr y=wall_%04d.exr')).toEqual(
    expect.arrayContaining([
      ['wall_####.exr', 'r/26014_wall.####.exr'],
      ['wall_%04d.exr', 'r/26014_wall.%04d.exr'],
    ]),
  );
  expect(told(moved, 'wall_0002.exr')).toEqual([['wall_0002.exr', 'r/26014_wall.0002.exr']]);
});

test('a folder that is renamed is found before a separator, and one that only moves is not', () => {
  const renamed: Moved[] = [{ entry: 'folder', before: '40_moton', after: '40_motion' }];
  expect(told(renamed, '../40_moton/s01/a.usda and ..\\40_moton\\b')).toEqual([
    ['40_moton/', '40_motion'],
    ['40_moton\\', '40_motion'],
  ]);
  expect(told(renamed, 'what of 40_moton then')).toEqual([]);
  expect(told([{ entry: 'folder', before: 'a/renders', after: 'b/renders' }], 'renders/x')).toEqual([]);
});

test('what is gone is told without a place, and what is where it was is not told', () => {
  expect(told([file('a/twice.png', null)], 'twice.png')).toEqual([['twice.png', null]]);
  expect(told([file('a/stays.png', 'a/stays.png')], 'stays.png')).toEqual([]);
});

/** As one would look for it without thinking of speed. */
function slowly(names: readonly string[], text: string): readonly string[] {
  const bound = (c: string | undefined) => c === undefined || !/[A-Za-z0-9_-]/.test(c);
  return names.filter((name) => {
    for (let at = text.indexOf(name); at >= 0; at = text.indexOf(name, at + 1))
      if (bound(text[at - 1]) && bound(text[at + name.length])) return true;
    return false;
  });
}

test('what is found is what a plain search finds, whatever the names and the text', () => {
  const letters = fc.constantFrom(...'ab1_-. /');
  const name = fc.string({ unit: letters, minLength: 5, maxLength: 8 }).filter((n) => !n.includes('/'));
  const names = fc.uniqueArray(name, { minLength: 1, maxLength: 60 });
  const text = fc.tuple(
    names,
    fc.array(fc.tuple(fc.nat(60), fc.string({ unit: letters, maxLength: 3 })), { maxLength: 30 }),
  );
  fc.assert(
    fc.property(text, ([all, pieces]) => {
      const written = pieces.map(([i, between]) => `${between}${all[i % all.length]}`).join('');
      const sought = new NamesSought(all.map((n) => file(n, `new/${n}`)));
      // Of two names that end at one place the longer one is told.
      const found = sought.in(written).map((f) => f.target);
      const plain = slowly(all, written);
      for (const one of found) expect(plain).toContain(one);
      for (const one of plain) expect(found.some((f) => f.endsWith(one))).toBe(true);
    }),
    { numRuns: 500 },
  );
});
