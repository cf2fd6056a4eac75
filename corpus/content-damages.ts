/** What a working week does to versions, frames and contents of files. */
import { elementAt } from '@nesting/core';
import {
  above,
  added,
  BOARD,
  type DiskDamage,
  doubled,
  entriesOf,
  filesIn,
  made,
  moved,
  nameOf,
  PAPER,
  pointing,
  renamed,
  renders,
  workingName,
  workings,
} from './damage-kinds';
import { file } from './good-disk';

export const CONTENT_DAMAGES: readonly DiskDamage[] = [
  {
    kind: 'an older version left on top',
    act: (disk, pick, spared) => {
      const at = pick(workings.filter((f) => disk.has(f) && !spared(f)));
      if (at === undefined) return null;
      const path = `${at}/${workingName(at, { version: 'v002' })}`;
      disk.set(path, file());
      return { expected: [{ rule: 'old-version-on-top', path }], touched: [at] };
    },
  },
  {
    kind: 'two people at one version',
    act: (disk, pick, spared) => {
      const at = pick(workings.filter((f) => disk.has(f) && !spared(f)));
      if (at === undefined) return null;
      disk.set(`${at}/${workingName(at, { version: 'v003', person: 'LV' })}`, file());
      return {
        expected: [{ rule: 'version-twice', path: `${at}/${workingName(at, { version: 'v003' })}` }],
        touched: [at],
      };
    },
  },
  renamed('a version in a master’s name', /^80_masters\//, (n) => n.replace('.mov', '_v02.mov'), 'versioned-delivery'),
  renamed('a version before the letter', /^80_masters\//, (n) => n.replace('_MST_', '_MST_V2_'), 'versioned-delivery'),
  ...[
    [[7], 'a frame missing'],
    [[5, 6, 7, 15], 'frames missing'],
  ].map(
    ([frames, kind]): DiskDamage => ({
      kind: kind as string,
      act: (disk, pick, spared) => {
        const at = pick(renders.filter((f) => disk.has(f) && !spared(f)));
        if (at === undefined) return null;
        for (const path of filesIn(disk, new RegExp(`^${at}/`), () => false))
          if ((frames as number[]).includes(Number(/\.(\d+)\.exr$/.exec(path)?.[1]))) disk.delete(path);
        return {
          expected: [
            {
              rule: 'sequence-gap',
              path: elementAt(
                filesIn(disk, new RegExp(`^${at}/`), () => false),
                0,
              ),
            },
          ],
          touched: [at],
        };
      },
    }),
  ),
  {
    kind: 'a file of no bytes',
    act: (disk, pick, spared) => {
      const path = pick(filesIn(disk, /^(?:50_sound|80_masters|10_paperwork)\//, spared));
      if (path === undefined) return null;
      disk.set(path, file(0));
      return { expected: [{ rule: 'empty-file', path }], touched: [path] };
    },
  },
  added('material without a licence', ['70_library/stock'], () => 'thunder.wav', 'licence-missing'),
  {
    kind: 'more older versions than are kept',
    act: (disk, pick, spared) => {
      const at = pick(workings.filter((f) => disk.has(f) && !spared(f)));
      if (at === undefined) return null;
      disk.delete(`${at}/${workingName(at, { version: 'v003' })}`);
      disk.set(`${at}/${workingName(at, { version: 'v009' })}`, file());
      for (let v = 3; v <= 8; v++) disk.set(`${at}/older/${workingName(at, { version: `v00${v}` })}`, file());
      return {
        expected: [{ rule: 'old-version-on-top', path: `${at}/older/${workingName(at, { version: 'v001' })}` }],
        touched: [at],
      };
    },
  },
  {
    kind: 'a version that is nowhere',
    act: (disk, pick, spared) => {
      const at = pick(workings.filter((f) => disk.has(f) && !spared(f)));
      if (at === undefined) return null;
      disk.delete(`${at}/older/${workingName(at, { version: 'v002' })}`);
      return {
        expected: [{ rule: 'version-gap', path: `${at}/${workingName(at, { version: 'v003' })}` }],
        touched: [at],
      };
    },
  },
  {
    kind: 'the music’s second version gone',
    act: (disk, _pick, spared) => {
      if (spared('50_sound/music')) return null;
      disk.delete('50_sound/music/26011_MUS_v02.wav');
      return {
        expected: [{ rule: 'version-gap', path: '50_sound/music/26011_MUS_v03.wav' }],
        touched: ['50_sound/music'],
      };
    },
  },
  {
    kind: 'a pass that is longer than its sister',
    act: (disk, pick, spared) => {
      const at = pick(renders.filter((f) => disk.has(f) && !spared(f)));
      if (at === undefined) return null;
      const [surface, scene] = entriesOf(at);
      for (let f = 1; f <= 30; f++)
        disk.set(`${at}/26011_${surface}_${scene}_light_v003.${String(f).padStart(4, '0')}.exr`, file(1001));
      return {
        expected: [{ rule: 'sequence-gap', path: `${at}/26011_${surface}_${scene}_comp_v003.0001.exr` }],
        touched: [at],
      };
    },
  },
  {
    kind: 'frames given a new version and nothing else',
    act: (disk, pick, spared) => {
      const at = pick(renders.filter((f) => disk.has(f) && !spared(f)));
      if (at === undefined) return null;
      for (const path of filesIn(disk, new RegExp(`^${at}/`), () => false)) {
        disk.set(path, file(1000, `content of ${path}`));
        disk.set(path.replace('_v003.', '_v004.'), file(1000, `content of ${path}`));
      }
      return {
        expected: [
          {
            rule: 'same-content',
            path: elementAt(
              filesIn(disk, new RegExp(`^${at}/.*_v003`), () => false),
              0,
            ),
          },
        ],
        touched: [at],
      };
    },
  },
  doubled('a board saved again under the next version', BOARD, (p) => p.replace('_v002', '_v003')),
  doubled('a careless copy beside it', BOARD, (p) => p.replace('.png', ' (1).png')),
  doubled('a paper kept in two places', /^10_paperwork\/quotes\//, (p) => p.replace('/quotes/', '/permits/')),
  doubled('a site photo among the boards’ types', /^20_survey\/site-photos\//, (p) =>
    p.replace('20_survey/site-photos', '20_survey/measurements'),
  ),
  {
    kind: 'one name in two folders',
    act: (disk, _pick, spared) => {
      const path = '30_design/type/26011_BRD_opening_v002.png';
      const other = '30_design/boards/26011_BRD_opening_v002.png';
      if (!disk.has('30_design/type') || !disk.has(other) || spared(path) || spared(other)) return null;
      disk.set(path, file());
      return { expected: [{ rule: 'same-name', path: other }], touched: [path, other] };
    },
  },
  added('a side file without its document', workings, () => 'lamp.mtl', 'companion-missing'),
  {
    kind: 'a side file away from its document',
    act: (disk, pick, spared) => {
      const at = pick(workings.filter((f) => disk.has(f) && !spared(f)));
      const other = workings.find(
        (f) => f !== at && disk.has(`${f}/${workingName(f, { version: 'v003' })}`) && !spared(f),
      );
      if (at === undefined || other === undefined) return null;
      const path = `${at}/${workingName(other, { version: 'v003' }).replace('.usda', '.mtl')}`;
      disk.set(path, file());
      return {
        expected: [{ rule: 'companion-apart', path }],
        touched: [path, `${other}/${workingName(other, { version: 'v003' })}`],
      };
    },
  },
  renamed(
    'a photo of a day to come',
    /^20_survey\/site-photos\//,
    (n) => n.replace('_2026-01-1', '_2026-05-1'),
    'date-mismatch',
  ),
  renamed('a paper dated a year ahead', PAPER, (n) => n.replace('2026-02-11', '2027-02-11'), 'date-mismatch'),
  made('a master rendered at another rate', /^80_masters\/.*\.mov$/, { has: 'picture', frameRate: 24 }),
  made('a scene saved in centimetres', /^40_motion\/.*\/working\/[^/]+\.usda$/, { metresPerUnit: 0.01 }),
  {
    kind: 'another night’s photos',
    act: (disk, _pick, spared) => {
      const at = '20_survey/test-nights/gallery/2026-03-04';
      if (!disk.has(at) || spared(at)) return null;
      for (const path of filesIn(disk, new RegExp(`^${at}/`), () => false))
        moved(disk, path, `${above(path)}/${nameOf(path).replace('2026-03-04', '2026-02-24')}`);
      return { expected: [{ rule: 'date-mismatch', path: at }], touched: [at] };
    },
  },
  {
    kind: 'a night nobody brought in',
    act: (disk, _pick, spared) => {
      const at = '20_survey/test-nights/gallery/2026-03-04';
      if (!disk.has(at) || spared(at)) return null;
      for (const path of filesIn(disk, new RegExp(`^${at}/`), () => false)) disk.delete(path);
      return { expected: [{ rule: 'empty-folder', path: at }], touched: [at] };
    },
  },
  pointing('a document that points to somebody’s desktop', '/Users/somebody/Desktop/lamp.usda', 'absolute-reference'),
  pointing('a document that points to a drive', 'P:\\26011_FNR_curtain-rise\\30_design\\x.usda', 'absolute-reference'),
  pointing('a document that points to another project', '../../../../../26009_HBC_lock/x.usda', 'outside-reference'),
  pointing('a document that points to nothing', './gone.usda', 'broken-reference'),
  {
    kind: 'frames under a name of their own',
    act: (disk, _pick, spared) => {
      const [from, to] = ['40_motion/portico/s02/renders', '40_motion/portico/s02/output'];
      if (!disk.has(from) || spared(from) || spared(to)) return null;
      moved(disk, from, to);
      return { expected: [{ rule: 'misspelt-folder', path: to }], touched: [from, to] };
    },
  },
  {
    kind: 'a scene’s frames in a folder of one’s own',
    act: (disk, _pick, spared) => {
      const [from, to] = ['40_motion/fly-tower/s03/renders', '30_design/for later'];
      if (!disk.has(from) || !disk.has('30_design') || spared(from) || spared(to)) return null;
      moved(disk, from, to);
      return { expected: [{ rule: 'misplaced-folder', path: to }], touched: [from, to] };
    },
  },
  added('a cache over its limit', ['90_cache'], () => 'huge.cache', 'over-limit', 600_000_000_000),
];
