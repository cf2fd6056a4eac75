/**
 * References out of each open format: found where they stand, put back where they stood, and meant as the file's own
 * folder says.
 */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { refFormatOf } from './formats';
import { withTargets } from './reference';
import { isThere, targetOf } from './target';

const found = (name: string, text: string) =>
  refFormatOf(name)
    ?.find(text)
    .map((r) => r.target);

/** What a program takes for a path. */
const PATHLIKE_CELL = /^(?:file:\/\/\S.*|(?:~|\.{1,2}|[A-Za-z]:)?[\\/][^\s\\/].*|[^\s\\/:]+[\\/].*\.[A-Za-z0-9]{1,8})$/;

/** The cells of a list: whatever stands between two quotes, else what begins a cell and has none in it. */
function cellsOf(text: string): string[] {
  const cells: string[] = [];
  for (let at = 0; at < text.length; at++) {
    if (text[at] === '"') {
      let end = at + 1;
      let pair = -1;
      while (end < text.length && (text[end] !== '"' || text[end + 1] === '"')) {
        if (text[end] === '"') pair = end;
        end += text[end] === '"' ? 2 : 1;
      }
      // A broken list: the last two quotes close it where nothing else does; one that nothing closes is a letter.
      if (end >= text.length) end = pair;
      if (end < 0) continue;
      cells.push(text.slice(at + 1, end).replaceAll('""', '"'));
      at = end;
    } else if ((at === 0 || /[,;\t\r\n]/.test(text.charAt(at - 1))) && !/[\s,;]/.test(text.charAt(at))) {
      let end = at;
      while (end < text.length && !/[",;\t\r\n]/.test(text.charAt(end))) end++;
      cells.push(text.slice(at, end));
      at = end - 1;
    }
  }
  return cells;
}

describe('references are found', () => {
  test.each([
    [
      'a.otio',
      '{"media_reference":{"OTIO_SCHEMA":"ExternalReference.1","target_url":"../50_sound/a%20b.wav"},"x":{"target_url_base":"renders/","name":"no"}}',
      ['../50_sound/a b.wav', 'renders/'],
    ],
    ['a.otio', '{"target_url": "C:\\\\Users\\\\somebody\\\\x.mov"}', ['C:\\Users\\somebody\\x.mov']],
    [
      'a.edl',
      'TITLE: A\n001  AX V C 01:00:00:00 01:00:02:00\n* FROM CLIP NAME: DAWN.MOV\n* SOURCE FILE: plates/dawn v001.mov \r\n',
      ['plates/dawn v001.mov'],
    ],
    [
      'a.gltf',
      '{"buffers":[{"uri":"a.bin"}],"images":[{"uri":"data:image/png;base64,AAAA"},{"uri":"tex/a%20b.png"}]}',
      ['a.bin', 'tex/a b.png'],
    ],
    ['a.obj', '# mtllib no.mtl\nmtllib stone wall.mtl\nv 0 0 0\n', ['stone wall.mtl']],
    [
      'a.mtl',
      'newmtl x\nmap_Kd -s 1 1 1 -o 0 0 0 tex/stone.png\nbump -bm 0.5 tex/bump.png\nKd 1 1 1\n',
      ['tex/stone.png', 'tex/bump.png'],
    ],
    [
      'a.usda',
      '#usda 1.0 @no@\ndef "a@b.c" (references = @./props/lamp.usda@</lamp>, doc = """mail @me@ """)\n{ asset file = @@@odd@name.png@@@ }',
      ['./props/lamp.usda', 'odd@name.png'],
    ],
    [
      'a.svg',
      '<svg><!-- <image href="no.png"/> --><image xlink:href="a&amp;b.png"/><use href="#here"/><path style="fill:url(p.svg)"/></svg>',
      ['a&b.png', 'p.svg'],
    ],
    [
      'a.html',
      '<img src="a.png"><a href=\'b%20c.html\'>x</a><div style="background: url( \'d.png\' )">',
      ['a.png', 'b c.html', 'd.png'],
    ],
    [
      'a.css',
      '/* url(no.png) */ @import "base.css"; a{background:url("x y.png")} b{background:url(z.png)}',
      ['base.css', 'x y.png', 'z.png'],
    ],
    [
      'a.md',
      'See [the plan](plan%201.pdf "title") and ![x](<a b.png>) and `[no](no.md)`.\n```\n[no](no.md)\n```\n[r]: ../r.md\n',
      ['plan 1.pdf', 'a b.png', '../r.md'],
    ],
    ['a.m3u', '#EXTM3U\n#EXTINF:1,x\nmusic/a b.mp3\n\n../b.mp3\n', ['music/a b.mp3', '../b.mp3']],
    [
      'a.xspf',
      '<playlist><trackList><track><location>file:///srv/a.mp3</location></track></trackList></playlist>',
      ['file:///srv/a.mp3'],
    ],
    ['a.csv', 'name,file\n"x","clips/a ""one"".mov"\ny,../b.mov\nz,12/11/2026\n', ['clips/a "one".mov', '../b.mov']],
    [
      '.env',
      '# A=/no\nCACHE=/srv/cache/26011\nexport OUT="renders/out dir/a.exr"\nNAME=\'plain\'\nN=1\n',
      ['/srv/cache/26011', 'renders/out dir/a.exr'],
    ],
  ])('%s', (name, text, targets) => {
    expect(found(name, text)).toEqual(targets);
  });

  test('what is broken yields nothing, and no exception', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(
          'a.otio',
          'a.gltf',
          'a.edl',
          'a.obj',
          'a.mtl',
          'a.usda',
          'a.svg',
          'a.html',
          'a.css',
          'a.md',
          'a.m3u',
          'a.xspf',
          'a.csv',
          'a.env',
        ),
        fc.string({
          unit: fc.constantFrom(
            '"',
            "'",
            '@',
            '(',
            ')',
            '[',
            ']',
            '<',
            '>',
            '\\',
            '/',
            '%',
            ',',
            '=',
            '\n',
            'a',
            '.',
            'uri',
            'href',
            'url(',
            '](',
            '&amp;',
          ),
        }),
        (name, text) => {
          const references = refFormatOf(name)?.find(text) ?? [];
          for (const r of references) expect(r.start).toBeLessThanOrEqual(r.end);
          for (let i = 1; i < references.length; i++)
            expect(references[i]?.start).toBeGreaterThanOrEqual(references[i - 1]?.end as number);
          // Left as they are nothing changes.
          expect(withTargets(text, references, () => null)).toBe(text);
        },
      ),
      { numRuns: 2000, seed: 8 },
    );
  });

  test.each([
    ['a.html', '<img src="a%231.png">', ['a#1.png']],
    ['a.html', '<a href="plan.html#part-2">', ['plan.html']],
    ['a.html', '<img src="a.png?v=3">', ['a.png']],
    ['a.html', '<img src="100%.png">', ['100%.png']],
    ['a.html', '<img src="caf&eacute;&#x20;&#233;.png">', ['café é.png']],
    ['a.html', '<script>let a = \'<img src="no.png">\'</script><img src=b.png>', ['b.png']],
    ['a.svg', '<image href="a&#x26;b&#38;c.png"/>', ['a&b&c.png']],
    ['a.svg', '<style><![CDATA[a{fill:url(p.svg#g)}]]></style>', ['p.svg']],
    ['a.svg', '<use href="#here"/>', []],
    ['a.md', '[x](a%231.md#top)', ['a#1.md']],
    ['a.css', 'a{background:url("b%3F.png?x#y")}', ['b?.png']],
    ['a.otio', '{"target_url":"frames.####.exr"}', ['frames.####.exr']],
    ['a.gltf', '{"uri":"a%231.bin"}', ['a#1.bin']],
  ])('URLs are paths with what stands behind them left alone: %s %s', (name, text, targets) => {
    expect(found(name, text)).toEqual(targets);
  });

  test('a sign that ends a path in a URL is written so that it does not', () => {
    for (const [name, text, written] of [
      ['a.html', '<a href="old.md#top">', '<a href="a%231%3F.png#top">'],
      ['a.svg', "<image href='old.png'/>", "<image href='a%231%3F.png'/>"],
      ['a.css', 'a{b:url(old.png?v=1)}', 'a{b:url(a%231%3F.png?v=1)}'],
    ] as const)
      expect(withTargets(text, refFormatOf(name)?.find(text) ?? [], () => 'a#1?.png')).toBe(written);
  });

  test('a sharp sign in a path is a name, and no fragment', () => {
    expect(targetOf('scenes/a.usda', 'tex/b#2/c.png', [])).toEqual({ kind: 'inside', path: 'scenes/tex/b#2/c.png' });
  });

  test('another target put in place is the one that is read', () => {
    const samples = [
      ['a.otio', '{"target_url":"HERE"}'],
      ['a.gltf', '{"uri":"HERE"}'],
      ['a.svg', '<image href="HERE"/>'],
      ['a.html', '<img src="HERE">'],
      ['a.md', 'x ![](<HERE>) y'],
      ['a.xspf', '<location>HERE</location>'],
      ['a.csv', 'a,"./HERE"\n'],
      ['a.m3u', 'HERE\n'],
      ['a.obj', 'mtllib HERE\n'],
      ['a.usda', 'asset a = @HERE@'],
    ] as const;
    fc.assert(
      fc.property(
        fc.constantFrom(...samples),
        fc.array(
          fc.stringMatching(/^[a-z0-9 &'%#?é_;-]{1,8}$/).filter((s) => s.trim() === s),
          { minLength: 1, maxLength: 3 },
        ),
        ([name, text], parts) => {
          const format = refFormatOf(name);
          const other = `./${parts.join('/')}.png`;
          const written = withTargets(text, format?.find(text) ?? [], () => other);
          expect(format?.find(written).map((r) => r.target)).toEqual([other]);
          expect(withTargets(written, format?.find(written) ?? [], () => (name === 'a.csv' ? './HERE' : 'HERE'))).toBe(
            text,
          );
        },
      ),
      { numRuns: 500, seed: 8 },
    );
  });

  test('the cells of a list are those that a reader finds letter by letter', () => {
    const pieces = ['"', '""', ',', ';', '\t', '\n', '\r\n', ' ', 'a', '../b', '/', '\\', 'c.mov', 'file:///d'];
    const letters = fc.array(fc.constantFrom(...pieces), { maxLength: 24 }).map((parts) => parts.join(''));
    let cells = 0;
    fc.assert(
      fc.property(letters, (text) => {
        const slow = cellsOf(text).filter((cell) => PATHLIKE_CELL.test(cell));
        cells += slow.length;
        expect(found('a.csv', text)).toEqual(slow);
      }),
      { numRuns: 3000, seed: 12 },
    );
    expect(cells).toBeGreaterThan(500);
  });

  test('a hostile text takes time by its length alone', () => {
    for (const [name, piece] of [
      ['a.css', 'url('],
      ['a.md', ']('],
      ['a.html', ' src="'],
      ['a.usda', '@@@'],
      ['a.mtl', 'map_Kd -s 1 '],
      ['a.csv', '"'],
      ['a.svg', '<!--'],
      ['a.md', '```\n'],
      ['a.otio', '"target_url":"\\\\'],
      ['a.m3u', 'a  \t'],
      ['a.edl', '* SOURCE FILE: a   '],
    ] as const) {
      const time = (n: number) => {
        const text = piece.repeat(n);
        const start = performance.now();
        refFormatOf(name)?.find(text);
        return performance.now() - start;
      };
      // Whoever else works on the machine makes some runs longer, and none shorter.
      const shortest = (n: number) => Math.min(time(n), time(n), time(n), time(n));
      shortest(2000);
      const [short, long] = [Math.max(shortest(4000), 1), shortest(32_000)];
      // Eight times the text; sixty-four times the time would be its square.
      expect({ name, piece, square: long / short > 40 }).toEqual({ name, piece, square: false });
    }
  });
});

describe('what a reference means', () => {
  test.each([
    ['40_motion/a.usda', '../50_sound/x.wav', { kind: 'inside', path: '50_sound/x.wav' }],
    ['40_motion/a.usda', './x.wav', { kind: 'inside', path: '40_motion/x.wav' }],
    ['40_motion/a.usda', '..\\50_sound\\x.wav', { kind: 'inside', path: '50_sound/x.wav' }],
    ['a.md', '../other/x.wav', { kind: 'outside', path: '../other/x.wav' }],
    ['a.md', 'https://example.invalid/a.png', { kind: 'none' }],
    ['a.md', 'mailto:a@example.invalid', { kind: 'none' }],
    ['a.md', '#part', { kind: 'none' }],
    [
      'a.otio',
      'file:///srv/studio/26011/a.mov',
      { kind: 'absolute', path: '/srv/studio/26011/a.mov', inside: 'a.mov' },
    ],
    [
      'a.otio',
      '/home/somebody/Desktop/a.mov',
      { kind: 'absolute', path: '/home/somebody/Desktop/a.mov', inside: null },
    ],
    [
      'a.otio',
      'p:\\Projects\\26011\\B\\a.mov',
      { kind: 'absolute', path: 'p:\\Projects\\26011\\B\\a.mov', inside: 'B/a.mov' },
    ],
    ['a.otio', '\\\\server\\share\\a.mov', { kind: 'absolute', path: '\\\\server\\share\\a.mov', inside: null }],
    ['a.otio', 'file:///C:/x/a.mov', { kind: 'absolute', path: 'C:/x/a.mov', inside: null }],
  ])('%s → %s', (file, reference, target) => {
    expect(targetOf(file, reference, ['/srv/studio/26011', 'P:\\projects\\26011'])).toEqual(target);
  });

  test('any frame will do where one is meant', () => {
    const names = new Map([
      ['', new Set(['r'])],
      ['r', new Set(['a.0001.exr', 'a.0002.exr', 'b.exr'])],
    ]);
    const there = (path: string) => isThere(path, (folder) => names.get(folder) ?? null);
    expect(
      ['r/a.####.exr', 'r/a.%04d.exr', 'r/b.exr', 'r', 'r/c.####.exr', 'r/b.####.exr', 'q/a.exr'].map(there),
    ).toEqual([true, true, true, true, false, false, false]);
  });
});
