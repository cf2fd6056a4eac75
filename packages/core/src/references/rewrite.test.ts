/** References that follow their files: by hand for each format, and as properties over whole projects. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { patched } from '../change/patches';
import { present } from '../element';
import { refFormatOf } from './formats';
import { Moves } from './moves';
import { rewriteReferences } from './rewrite';
import { targetOf } from './target';

const ROOTS = ['/srv/studio/26011_show', 'P:\\26011_show'];

interface Moved {
  readonly files?: Readonly<Record<string, string>>;
  readonly folders?: Readonly<Record<string, string>>;
}

const movesOf = ({ files = {}, folders = {} }: Moved) =>
  new Moves(new Map(Object.entries(files)), new Map(Object.entries(folders)));

/** The document afterwards, its own place in `moved` too. */
function rewritten(path: string, text: string, moved: Moved, pointed?: ReadonlyMap<string, string>) {
  const moves = movesOf(moved);
  const format = present(refFormatOf(path));
  const asked = { text, format, before: path, after: moves.of(path), roots: ROOTS, moves, pointed };
  const { patches, unable } = rewriteReferences(asked);
  return {
    text: new TextDecoder('utf-8', { ignoreBOM: true }).decode(patched(new TextEncoder().encode(text), patches)),
    unable,
  };
}

const SOUND = { files: { '50_sound/a b.wav': '50_sound/music/26011_MUS_v01.wav' } };
const SCENE = { files: { '30_design/täßt.png': '30_design/boards/opening.png' } };

describe('each format, when a file it refers to moves', () => {
  test.each([
    [
      '10/cut.otio',
      '{"target_url": "../50_sound/a%20b.wav"}',
      SOUND,
      '{"target_url": "../50_sound/music/26011_MUS_v01.wav"}',
    ],
    [
      '10/cut.otio',
      '{"target_url": "file:///srv/studio/26011_show/50_sound/a%20b.wav"}',
      SOUND,
      '{"target_url": "file:///srv/studio/26011_show/50_sound/music/26011_MUS_v01.wav"}',
    ],
    [
      '10/cut.edl',
      '* SOURCE FILE: ../50_sound/a b.wav\r\n',
      SOUND,
      '* SOURCE FILE: ../50_sound/music/26011_MUS_v01.wav\r\n',
    ],
    ['10/a.gltf', '{"uri":"../30_design/t%C3%A4%C3%9Ft.png"}', SCENE, '{"uri":"../30_design/boards/opening.png"}'],
    ['10/a.obj', '# é\nmtllib ../30_design/täßt.png\nv 0', SCENE, '# é\nmtllib ../30_design/boards/opening.png\nv 0'],
    ['10/a.mtl', 'map_Kd -s 1 1 1 ../30_design/täßt.png\n', SCENE, 'map_Kd -s 1 1 1 ../30_design/boards/opening.png\n'],
    ['30_design/a.usda', '(references = @./täßt.png@</x>)', SCENE, '(references = @./boards/opening.png@</x>)'],
    [
      '10/a.svg',
      '<image href="../30_design/t&#228;ßt.png"/>',
      SCENE,
      '<image href="../30_design/boards/opening.png"/>',
    ],
    [
      '10/a.html',
      '<a href="../30_design/täßt.png?v=2#top">',
      SCENE,
      '<a href="../30_design/boards/opening.png?v=2#top">',
    ],
    [
      '10/a.css',
      'a{background:url("../30_design/täßt.png")}',
      SCENE,
      'a{background:url("../30_design/boards/opening.png")}',
    ],
    ['10/a.md', '![x](<../30_design/täßt.png>) ü', SCENE, '![x](<../30_design/boards/opening.png>) ü'],
    ['10/a.m3u', '#EXTM3U\n..\\50_sound\\a b.wav\n', SOUND, '#EXTM3U\n..\\50_sound\\music\\26011_MUS_v01.wav\n'],
    [
      '10/a.xspf',
      '<playlist><location>../50_sound/a%20b.wav</location></playlist>',
      SOUND,
      '<playlist><location>../50_sound/music/26011_MUS_v01.wav</location></playlist>',
    ],
    ['10/a.csv', 'a,"../50_sound/a b.wav",c\n', SOUND, 'a,"../50_sound/music/26011_MUS_v01.wav",c\n'],
    ['10/.env', 'SOUND="../50_sound/a b.wav" # b\n', SOUND, 'SOUND="../50_sound/music/26011_MUS_v01.wav" # b\n'],
    [
      '10/a.csv',
      'P:\\26011_show\\30_design\\täßt.png;1\n',
      SCENE,
      'P:\\26011_show\\30_design\\boards\\opening.png;1\n',
    ],
  ])('%s %s', (path, text, moved, after) => {
    expect(rewritten(path, text, moved).text).toBe(after);
  });

  test('a mark at its beginning, and what stands behind the last reference, stay', () => {
    const { text } = rewritten('10/a.m3u', '\ufeff../30_design/täßt.png\nü𝄞\n', SCENE);
    expect(text).toBe('\ufeff../30_design/boards/opening.png\nü𝄞\n');
  });
});

describe('a document that moves itself', () => {
  test('with what it refers to: the way between them is what it was', () => {
    const moved = { folders: { '40_motoin': '40_motion' } };
    const text = '(references = @../props/lamp.usda@)';
    expect(rewritten('40_motoin/s01/a.usda', text, moved).text).toBe(text);
  });

  test('without it: the way is another', () => {
    const moved = { files: { 'a.usda': '40_motion/s01/a.usda' } };
    expect(rewritten('a.usda', '(references = @./props/lamp.usda@)', moved).text).toBe(
      '(references = @../../props/lamp.usda@)',
    );
  });

  test('and the file it refers to, elsewhere', () => {
    const moved = { files: { 'a.usda': '40_motion/a.usda', 'lamp.usda': '70_library/props/lamp.usda' } };
    expect(rewritten('a.usda', '(references = @lamp.usda@)', moved).text).toBe(
      '(references = @../70_library/props/lamp.usda@)',
    );
  });

  test('what lies outside the project stays outside', () => {
    const moved = { files: { 'a.usda': '40_motion/s01/a.usda' } };
    expect(rewritten('a.usda', '(references = @../shared/lamp.usda@)', moved).text).toBe(
      '(references = @../../../shared/lamp.usda@)',
    );
  });
});

describe('frames by a pattern', () => {
  const frames = (names: readonly string[], to: (n: string) => string) => ({
    files: Object.fromEntries(names.map((n) => [`r/${n}`, `r/${to(n)}`])),
  });
  const padded = frames(['a.1.exr', 'a.2.exr', 'a.10.exr'], (n) => n.replace(/\d+/, (d) => d.padStart(4, '0')));
  test.each([
    ['{"target_url":"r/a.####.exr"}', padded, '{"target_url":"r/a.####.exr"}'],
    ['{"target_url":"r/a.#.exr"}', padded, '{"target_url":"r/a.####.exr"}'],
    ['{"target_url":"r/a.%2502d.exr"}', padded, '{"target_url":"r/a.%2504d.exr"}'],
    ['{"target_url":"r/a.%25d.exr"}', padded, '{"target_url":"r/a.%25d.exr"}'],
    ['{"target_url":"r/a.0007.exr"}', { files: { 'r/a.0007.exr': 'r/b.0007.exr' } }, '{"target_url":"r/b.0007.exr"}'],
  ])('%s', (text, moved, after) => {
    expect(rewritten('cut.otio', text, moved).text).toBe(after);
  });

  test('that do not stay one sequence are said, and left', () => {
    const moved = { files: { 'r/a.1.exr': 'r/a.0001.exr', 'r/a.2.exr': 's/a.0002.exr' } };
    const { text, unable } = rewritten('cut.otio', '{"target_url":"r/a.#.exr"}', moved);
    expect([text, unable]).toEqual(['{"target_url":"r/a.#.exr"}', [{ target: 'r/a.#.exr', why: 'frames-part' }]]);
  });

  test('a folder whose files get other names is said', () => {
    const { unable } = rewritten('cut.otio', '{"target_url_base":"r/"}', { files: { 'r/a.1.exr': 'r/a.0001.exr' } });
    expect(unable).toEqual([{ target: 'r/', why: 'folder-of-renamed' }]);
  });
});

test('a reference can be led elsewhere', () => {
  const pointed = new Map([['/Users/somebody/lamp.usda', '70_library/lamp.usda']]);
  const text = '(a = @/Users/somebody/lamp.usda@, b = @./other.usda@)';
  expect(rewritten('40_motion/a.usda', text, {}, pointed).text).toBe(
    '(a = @../70_library/lamp.usda@, b = @./other.usda@)',
  );
});

const NAMES = ['a.usda', 'b c.usda', 'é.usda', 'x#y.usda', 'd&e.usda'];
const FOLDERS = ['', 'p', 'p/q', 'r', 'r/s s'];
const place = fc
  .tuple(fc.constantFrom(...FOLDERS), fc.constantFrom(...NAMES))
  .map(([f, n]) => (f === '' ? n : `${f}/${n}`));

test('whatever moves where, every reference leads to the same file afterwards', () => {
  fc.assert(
    fc.property(
      place,
      fc.array(place, { minLength: 1, maxLength: 4 }),
      fc.dictionary(place, place, { maxKeys: 6 }),
      fc.dictionary(fc.constantFrom('p', 'r', 'r/s s'), fc.constantFrom('t', 'u/v', 'p2')),
      (document, targets, files, folders) => {
        const moved = { files, folders };
        const before = document.replace(/usda$/, 'csv');
        const text = targets.map((t) => `"${relativeOf(before, t)}"`).join('\n');
        const after = rewritten(before, text, moved).text;
        const moves = movesOf(moved);
        const found = present(refFormatOf('a.csv')).find(after);
        const were = present(refFormatOf('a.csv')).find(text);
        expect(found).toHaveLength(were.length);
        for (const [i, reference] of found.entries()) {
          const was = targetOf(before, were[i]?.target ?? '', ROOTS);
          const now = targetOf(moves.of(before), reference.target, ROOTS);
          expect(now).toEqual(was.kind === 'inside' ? { ...was, path: moves.of(was.path) } : was);
        }
      },
    ),
    { numRuns: 1000, seed: 19 },
  );
});

/** Written as somebody would: always by a way with a slash in it. */
function relativeOf(document: string, path: string): string {
  const up = document
    .split('/')
    .slice(1)
    .map(() => '..');
  return [...(up.length === 0 ? ['.'] : up), path].join('/');
}
