/** Photographs taken in one go, as cameras and telephones write them. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { MediaFacts } from '../../listing/media-facts';
import { burstsIn } from './bursts';
import type { LooseFile } from './recognise';

const photo = (path: string, time: string | null, more: MediaFacts = {}): LooseFile => ({
  ...{ path, size: 10, modified: 0 },
  facts: {
    ...{ has: 'still', content: 'jpg', device: 'Quernway 4' },
    ...(time !== null && { taken: `2026-03-02T${time}` }),
    ...more,
  },
});
const paths = (files: readonly LooseFile[]) =>
  [...new Set(burstsIn(files).values())].map((key) =>
    files.filter((f) => burstsIn(files).get(f.path) === key).map((f) => f.path),
  );

describe('what is a burst', () => {
  test('a camera held down: numbers count on, within a second or two', () => {
    const held = ['21:14:03', '21:14:03', '21:14:03', '21:14:04', '21:14:04'].map((at, i) =>
      photo(`DSC_00${12 + i}.JPG`, at),
    );
    expect(paths([...held, photo('DSC_0017.JPG', '21:15:40'), photo('DSC_0011.JPG', '21:13:59')])).toEqual([
      held.map(({ path }) => path),
    ]);
  });

  test('a telephone writes the burst into each name; beside it lies one that is none', () => {
    const held = [1, 2, 3].map((i) => photo(`IMG_20260302_211403_BURST00${i}.jpg`, '21:14:03'));
    expect(paths([photo('IMG_20260302_211300.jpg', '21:13:00'), ...held])).toEqual([held.map(({ path }) => path)]);
  });

  test('two shots are none, though each lies there twice, raw and developed', () => {
    const raw = { content: 'dng' };
    expect(
      paths([
        photo('a/1.jpg', '21:14:03'),
        photo('a/1.dng', '21:14:03', raw),
        photo('a/2.jpg', '21:14:04'),
        photo('a/2.dng', '21:14:04', raw),
      ]),
    ).toEqual([]);
  });

  test('two cameras at the same moment are two bursts, and so are two folders', () => {
    const of = (device: string, folder: string) =>
      [1, 2, 3].map((i) => photo(`${folder}/${device}${i}.jpg`, '21:14:03', { device }));
    expect(paths([...of('A', 'x'), ...of('B', 'x')]).length).toBe(2);
    expect(paths([...of('A', 'x'), ...of('A', 'y')]).length).toBe(2);
  });

  test('without a time, of moving images or of sound, there is none', () => {
    const three = (more: MediaFacts, time: string | null = '21:14:03') =>
      [1, 2, 3].map((i) => photo(`${i}.jpg`, time, more));
    expect(paths(three({}, null))).toEqual([]);
    expect(paths(three({ has: 'picture' }))).toEqual([]);
    expect(paths(three({ has: 'sound' }))).toEqual([]);
    expect(paths(three({ taken: 'yesterday' }))).toEqual([]);
  });

  test('over midnight it goes on', () => {
    const at = (taken: string, path: string) => photo(path, null, { taken });
    const held = [
      at('2026-03-02T23:59:59', '1.jpg'),
      at('2026-03-03T00:00:00', '2.jpg'),
      at('2026-03-03T00:00:00', '3.jpg'),
    ];
    expect(paths(held)).toEqual([['1.jpg', '2.jpg', '3.jpg']]);
  });
});

test('however they are listed the bursts are the same, each of three shots at least, no second empty between them', () => {
  const files = fc.uniqueArray(fc.tuple(fc.nat(40), fc.constantFrom('A', 'B')), {
    maxLength: 40,
    selector: (p) => JSON.stringify(p),
  });
  fc.assert(
    fc.property(files, fc.infiniteStream(fc.nat(99)), (shots, mix) => {
      const loose = shots.map(([second, device], i) =>
        photo(`p${String(i).padStart(3, '0')}.jpg`, `21:14:${String(second).padStart(2, '0')}`, { device }),
      );
      const found = burstsIn(loose);
      const order = new Map(loose.map((file) => [file, mix.next().value]));
      const mixed = [...loose].sort((a, b) => (order.get(a) ?? 0) - (order.get(b) ?? 0));
      expect(burstsIn(mixed)).toEqual(found);
      for (const key of new Set(found.values())) {
        const those = loose.filter(({ path }) => found.get(path) === key);
        const seconds = those.map(({ facts }) => Number(facts.taken?.slice(-2))).sort((a, b) => a - b);
        expect(those.length).toBeGreaterThanOrEqual(3);
        expect(new Set(those.map(({ facts }) => facts.device)).size).toBe(1);
        expect(seconds.every((second, i) => i === 0 || second - (seconds[i - 1] ?? 0) <= 1)).toBe(true);
      }
    }),
  );
});
