/** What a working week does to a project: each damage with the findings that name it, and no others. Deterministic. */
import { elementAt, valueAt } from '@nesting/core';
import type { RuleCode } from '@nesting/core/project';
import { type Disk, file, folder } from './good-disk';

export interface Expected {
  readonly rule: RuleCode;
  readonly path: string;
}

export interface DiskDamage {
  readonly kind: string;
  /**
   * Does it somewhere; what a check is to find then, and the places nobody else may damage; `null` where there is no
   * place left.
   */
  readonly act: (
    disk: Disk,
    pick: Pick,
    spared: (path: string) => boolean,
  ) => { readonly expected: readonly Expected[]; readonly touched: readonly string[] } | null;
}

export type Pick = <T>(all: readonly T[]) => T | undefined;

const nameOf = (path: string) => path.slice(path.lastIndexOf('/') + 1);
const above = (path: string) => path.slice(0, Math.max(0, path.lastIndexOf('/')));

function moved(disk: Disk, from: string, to: string): void {
  for (const [path, entry] of [...disk]) {
    if (path !== from && !path.startsWith(`${from}/`)) continue;
    disk.delete(path);
    disk.set(to + path.slice(from.length), entry);
  }
}

function removed(disk: Disk, from: string): void {
  for (const path of [...disk.keys()]) if (path === from || path.startsWith(`${from}/`)) disk.delete(path);
}

const filesIn = (disk: Disk, test: RegExp, spared: (path: string) => boolean) =>
  [...disk]
    .filter(([path, e]) => !e.folder && test.test(path) && !spared(path))
    .map(([path]) => path)
    .sort();

/** A file gets another name. */
const renamed = (kind: string, where: RegExp, name: (old: string) => string, rule: RuleCode): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const path = pick(filesIn(disk, where, spared));
    if (path === undefined) return null;
    const to = `${above(path)}/${name(nameOf(path))}`;
    if (disk.has(to)) return null;
    const entry = valueAt(disk, path);
    disk.delete(path);
    disk.set(to, entry);
    return { expected: [{ rule, path: to }], touched: [path, to] };
  },
});

/** A file comes that was not there. */
const added = (
  kind: string,
  where: readonly string[],
  name: (folder: string) => string,
  rule: RuleCode,
  size = 1000,
): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const at = pick(where.filter((f) => (f === '' || disk.has(f)) && !spared(f === '' ? name(f) : `${f}/${name(f)}`)));
    if (at === undefined) return null;
    const path = at === '' ? name(at) : `${at}/${name(at)}`;
    if (disk.has(path)) return null;
    disk.set(path, file(size));
    return { expected: [{ rule, path }], touched: [path] };
  },
});

/** A working file that points somewhere. */
const pointing = (kind: string, target: string, rule: RuleCode): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const path = pick(filesIn(disk, WORKING, spared));
    if (path === undefined) return null;
    disk.set(path, file(1000, `#usda 1.0\ndef "a" (references = @${target}@) {}`));
    return { expected: [{ rule, path }], touched: [path] };
  },
});

/** A file comes that holds what another one holds. */
const doubled = (
  kind: string,
  where: RegExp,
  to: (path: string) => string,
  said?: (path: string, to: string) => string,
): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const path = pick(filesIn(disk, where, spared));
    if (path === undefined) return null;
    const copy = to(path);
    if (disk.has(copy) || spared(copy) || !disk.has(above(copy))) return null;
    disk.set(path, file(1000, `content of ${path}`));
    disk.set(copy, file(1000, `content of ${path}`));
    return {
      expected: [{ rule: 'same-content', path: said?.(path, copy) ?? elementAt([path, copy].sort(), 0) }],
      touched: [path, copy],
    };
  },
});

const newFolder = (kind: string, where: readonly string[], name: string, rule: RuleCode): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const at = pick(where.filter((f) => (f === '' || disk.has(f)) && !spared(f === '' ? name : `${f}/${name}`)));
    if (at === undefined) return null;
    const path = at === '' ? name : `${at}/${name}`;
    if (disk.has(path)) return null;
    disk.set(path, folder);
    disk.set(`${path}/what ever.usda`, file());
    return { expected: [{ rule, path }], touched: [path] };
  },
});

/** A planned folder gets a name that is nearly its own. */
const misspelt = (kind: string, where: readonly string[], name: (old: string) => string): DiskDamage => ({
  kind,
  act: (disk, pick, spared) => {
    const path = pick(where.filter((f) => disk.has(f) && !spared(f)));
    if (path === undefined) return null;
    const to = above(path) === '' ? name(nameOf(path)) : `${above(path)}/${name(nameOf(path))}`;
    moved(disk, path, to);
    return { expected: [{ rule: 'misspelt-folder', path: to }], touched: [path, to] };
  },
});

const placed = (kind: string, from: string, to: string): DiskDamage => ({
  kind,
  act: (disk, _pick, spared) => {
    if (!disk.has(from) || !disk.has(above(to) || from) || spared(from) || spared(to)) return null;
    moved(disk, from, to);
    return { expected: [{ rule: 'misplaced-folder', path: to }], touched: [from, to] };
  },
});

const WORKING = /\/working\/26011_[^/]*_v003\.usda$/;
const SOUND = /^06_sound\/(?:music|effects)\//;
const PAPER = /^01_paperwork\//;
const BOARD = /^03_design\/boards\//;
const workings = ['portico', 'fly-tower'].flatMap((s) =>
  ['s01', 's02', 's03'].map((c) => `05_motion/${s}/${c}/working`),
);
const renders = workings.map((w) => w.replace('working', 'renders'));
const entriesOf = (at: string) => /05_motion\/([^/]+)\/([^/]+)/.exec(at)?.slice(1) ?? [];
const workingName = (at: string, change: Record<string, string> = {}) => {
  const [surface, scene] = entriesOf(at);
  const p = { number: '26011', surface, scene, task: 'anim', person: 'BO', version: 'v004', ...change };
  return `${p.number}_${p.surface}_${p.scene}_${p.task}_${p.person}_${p.version}.usda`;
};

export const DISK_DAMAGES: readonly DiskDamage[] = [
  // Folders.
  {
    kind: 'a folder removed',
    act: (disk, pick, spared) => {
      const path = pick(
        [
          '01_paperwork/rights',
          '02_survey/measurements',
          '03_design/type',
          '06_sound/effects',
          '07_library/logos',
          '09_cache',
        ].filter((f) => disk.has(f) && !spared(f)),
      );
      if (path === undefined) return null;
      removed(disk, path);
      return { expected: [{ rule: 'missing-folder', path }], touched: [path] };
    },
  },
  misspelt('two letters exchanged', ['02_survey', '03_design', '08_masters'], (n) =>
    n.replace(/(..)(.)(.)/, '$1$2$3').replace(/_(.)(.)(.)/, '_$1$3$2'),
  ),
  misspelt('its number left out', ['02_survey', '03_design', '06_sound', '07_library'], (n) => n.replace(/^\d+_/, '')),
  misspelt('another number in front', ['02_survey', '03_design', '08_masters'], (n) => n.replace(/^\d+/, '15')),
  misspelt('in capitals', ['02_survey/site-photos', '03_design/boards', '06_sound/music'], (n) => n.toUpperCase()),
  misspelt('a blank in place of a hyphen', ['02_survey/site-photos', '02_survey/test-nights'], (n) =>
    n.replace('-', ' '),
  ),
  misspelt('a letter twice', ['02_survey/measurements', '03_design/palettes', '01_paperwork/schedules'], (n) =>
    n.replace(/(.)$/, '$1$1'),
  ),
  misspelt('a letter left out', ['02_survey/measurements', '03_design/palettes', '01_paperwork/permits'], (n) =>
    n.replace(/^(..)./, '$1'),
  ),
  misspelt('run together', ['02_survey/site-photos', '02_survey/test-nights'], (n) => n.replace('-', '')),
  misspelt('an entry with a blank', ['05_motion/fly-tower'], () => 'fly tower'),
  newFolder('a folder of one’s own at the root', [''], 'misc', 'unplanned-folder'),
  newFolder('a folder of tests', ['05_motion', '05_motion/portico', '06_sound'], 'tests', 'unplanned-folder'),
  newFolder('old stuff', ['02_survey', '03_design', '08_masters'], 'old stuff', 'unplanned-folder'),
  newFolder('a scene nobody planned', ['05_motion/portico', '05_motion/fly-tower'], 's09', 'unplanned-folder'),
  newFolder('a folder doubled inside itself', ['08_masters'], '08_masters', 'misplaced-folder'),
  newFolder('a folder of the same name inside', ['03_design/boards'], 'boards', 'misplaced-folder'),
  placed('palettes among the masters', '03_design/palettes', '08_masters/palettes'),
  placed('music at the root', '06_sound/music', 'music'),
  placed('permits in the survey', '01_paperwork/permits', '02_survey/permits'),
  {
    kind: 'a starter file removed',
    act: (disk, pick, spared) => {
      const path = pick(['26011_brief.md', '26011_show.otio'].filter((f) => disk.has(f) && !spared(f)));
      if (path === undefined) return null;
      disk.delete(path);
      return { expected: [{ rule: 'missing-starter', path }], touched: [path] };
    },
  },
  // Names.
  renamed('yesterday’s project number', WORKING, (n) => n.replace('26011', '26009'), 'foreign-project'),
  renamed('another project’s sound', SOUND, (n) => n.replace('26011', '26014'), 'foreign-project'),
  renamed('a colon', PAPER, (n) => n.replace('_', ':'), 'unportable-name'),
  renamed('a blank at the end', BOARD, (n) => `${n} `, 'unportable-name'),
  added('a device’s name', ['03_design/boards', '01_paperwork/quotes'], () => 'con.png', 'unportable-name'),
  added('a path too long', ['09_cache'], () => `${'long'.repeat(55)}.cache`, 'path-too-long'),
  {
    kind: 'a name in other capitals beside it',
    act: (disk, pick, spared) => {
      const path = pick(filesIn(disk, PAPER, spared));
      if (path === undefined) return null;
      const other = `${above(path)}/${nameOf(path).replace('curtain', 'Curtain')}`;
      disk.set(other, file());
      return { expected: [{ rule: 'name-clash', path: elementAt([path, other].sort(), 0) }], touched: [path, other] };
    },
  },
  added('a temporary file beside the work', workings, () => 'preview.tmp', 'stray-generated'),
  added('an autosave among the frames', renders, () => 'scene.autosave', 'stray-generated'),
  added(
    'what a system left behind',
    ['02_survey/site-photos', '06_sound/music', '03_design/boards'],
    () => '.DS_Store',
    'stray-generated',
  ),
  added('sound among the boards', ['03_design/boards', '03_design/palettes'], () => 'thump.wav', 'family-not-accepted'),
  added('a paper among the masters', ['08_masters'], () => 'notes.pdf', 'family-not-accepted'),
  added('a film beside the work', workings, () => 'reference.mov', 'family-not-accepted'),
  added(
    'another scene’s working file',
    workings,
    (at) => workingName(at, { scene: entriesOf(at)[1] === 's01' ? 's02' : 's01' }),
    'misplaced-file',
  ),
  added(
    'another surface’s working file',
    workings,
    (at) => workingName(at, { surface: entriesOf(at)[0] === 'portico' ? 'fly-tower' : 'portico' }),
    'misplaced-file',
  ),
  added(
    'another scene’s frame',
    renders,
    (at) => `26011_${entriesOf(at)[0]}_${entriesOf(at)[1] === 's03' ? 's01' : 's03'}_comp_v003.0001.exr`,
    'misplaced-file',
  ),
  added('a file at the root', [''], () => 'to do for monday.txt', 'loose-file'),
  added('a film at the root', [''], () => '26011_MS_A_preview.mov', 'loose-file'),
  added(
    'a file beside folders',
    ['05_motion', '05_motion/portico', '05_motion/fly-tower/s01'],
    () => 'readme.txt',
    'loose-file',
  ),
  added('a person nobody knows', workings, (at) => workingName(at, { person: 'XQ' }), 'unknown-code'),
  added('a task nobody knows', workings, (at) => workingName(at, { task: 'wobble' }), 'unknown-code'),
  renamed('a capital V', WORKING, (n) => n.replace('_v003', '_V003'), 'version-style'),
  renamed('a version without noughts', WORKING, (n) => n.replace('_v003', '_v3'), 'version-style'),
  renamed('ver in place of v', WORKING, (n) => n.replace('_v003', '_ver003'), 'version-style'),
  renamed('a sound’s version with a nought more', SOUND, (n) => n.replace(/_v(\d\d)/, '_v0$1'), 'version-style'),
  {
    kind: 'frames with other digits',
    act: (disk, pick, spared) => {
      const at = pick(renders.filter((f) => disk.has(f) && !spared(f)));
      if (at === undefined) return null;
      for (const path of filesIn(disk, new RegExp(`^${at}/`), () => false)) {
        const entry = valueAt(disk, path);
        disk.delete(path);
        disk.set(
          path.replace(/\.0*(\d+)\.exr$/, (_, n: string) => `.${n.padStart(2, '0')}.exr`),
          entry,
        );
      }
      return {
        expected: [
          {
            rule: 'sequence-padding',
            path: elementAt(
              filesIn(disk, new RegExp(`^${at}/`), () => false),
              0,
            ),
          },
        ],
        touched: [at],
      };
    },
  },
  renamed('blanks', WORKING, (n) => n.replaceAll('_', ' '), 'name-mismatch'),
  renamed(
    'capitals',
    BOARD,
    (n) => n.replace(/_([a-z])(\w*)_v/, (_, a: string, rest: string) => `_${a.toUpperCase()}${rest}_v`),
    'name-mismatch',
  ),
  renamed('accents', PAPER, (n) => n.replace('_c', '_ç'), 'name-mismatch'),
  renamed('the task left out', WORKING, (n) => n.replace('_anim', ''), 'name-mismatch'),
  renamed('parts in another order', WORKING, (n) => n.replace(/(26011)_([^_]+)_/, '$2_$1_'), 'name-mismatch'),
  renamed('a date in another form', PAPER, (n) => n.replace('2026-02-11', '11-02-2026'), 'name-mismatch'),
  renamed('a careless copy', BOARD, (n) => n.replace('.png', ' (1).png'), 'name-mismatch'),
  renamed(
    'the long form of a code',
    SOUND,
    (n) => n.replace('_MX_', '_music_').replace('_FX_', '_effects_'),
    'name-mismatch',
  ),
  renamed('final at the end', WORKING, (n) => n.replace('.usda', '_final.usda'), 'banned-word'),
  renamed('new in the middle', BOARD, (n) => n.replace('_v', '_new_v'), 'banned-word'),
  // Versions, frames, contents.
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
  renamed('a version in a master’s name', /^08_masters\//, (n) => n.replace('.mov', '_v02.mov'), 'versioned-delivery'),
  renamed('a version before the letter', /^08_masters\//, (n) => n.replace('_MS_', '_MS_V2_'), 'versioned-delivery'),
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
      const path = pick(filesIn(disk, /^(?:06_sound|08_masters|01_paperwork)\//, spared));
      if (path === undefined) return null;
      disk.set(path, file(0));
      return { expected: [{ rule: 'empty-file', path }], touched: [path] };
    },
  },
  added('material without a licence', ['07_library/stock'], () => 'thunder.wav', 'licence-missing'),
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
      if (spared('06_sound/music')) return null;
      disk.delete('06_sound/music/26011_MX_v02.wav');
      return {
        expected: [{ rule: 'version-gap', path: '06_sound/music/26011_MX_v03.wav' }],
        touched: ['06_sound/music'],
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
  doubled('a paper kept in two places', /^01_paperwork\/quotes\//, (p) => p.replace('/quotes/', '/permits/')),
  doubled('a site photo among the boards’ types', /^02_survey\/site-photos\//, (p) =>
    p.replace('02_survey/site-photos', '02_survey/measurements'),
  ),
  {
    kind: 'one name in two folders',
    act: (disk, _pick, spared) => {
      const path = '03_design/type/26011_SB_opening_v002.png';
      const other = '03_design/boards/26011_SB_opening_v002.png';
      if (!disk.has('03_design/type') || !disk.has(other) || spared(path) || spared(other)) return null;
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
    /^02_survey\/site-photos\//,
    (n) => n.replace(/^2026-01-1(\d)/, '2026-05-1$1'),
    'date-mismatch',
  ),
  renamed('a paper dated a year ahead', PAPER, (n) => n.replace('2026-02-11', '2027-02-11'), 'date-mismatch'),
  {
    kind: 'another night’s photos',
    act: (disk, _pick, spared) => {
      const at = '02_survey/test-nights/2026-03-04';
      if (!disk.has(at) || spared(at)) return null;
      for (const path of filesIn(disk, new RegExp(`^${at}/`), () => false))
        moved(disk, path, `${above(path)}/${nameOf(path).replace('2026-03-04', '2026-02-24')}`);
      return { expected: [{ rule: 'date-mismatch', path: at }], touched: [at] };
    },
  },
  {
    kind: 'a night nobody brought in',
    act: (disk, _pick, spared) => {
      const at = '02_survey/test-nights/2026-03-04';
      if (!disk.has(at) || spared(at)) return null;
      for (const path of filesIn(disk, new RegExp(`^${at}/`), () => false)) disk.delete(path);
      return { expected: [{ rule: 'empty-folder', path: at }], touched: [at] };
    },
  },
  pointing('a document that points to somebody’s desktop', '/Users/somebody/Desktop/lamp.usda', 'absolute-reference'),
  pointing('a document that points to a drive', 'P:\\26011_FNR_curtain-rise\\03_design\\x.usda', 'absolute-reference'),
  pointing('a document that points to another project', '../../../../../26009_HBC_lock/x.usda', 'outside-reference'),
  pointing('a document that points to nothing', './gone.usda', 'broken-reference'),
  {
    kind: 'frames under a name of their own',
    act: (disk, _pick, spared) => {
      const [from, to] = ['05_motion/portico/s02/renders', '05_motion/portico/s02/output'];
      if (!disk.has(from) || spared(from) || spared(to)) return null;
      moved(disk, from, to);
      return { expected: [{ rule: 'misspelt-folder', path: to }], touched: [from, to] };
    },
  },
  {
    kind: 'a scene’s frames in a folder of one’s own',
    act: (disk, _pick, spared) => {
      const [from, to] = ['05_motion/fly-tower/s03/renders', '03_design/for later'];
      if (!disk.has(from) || !disk.has('03_design') || spared(from) || spared(to)) return null;
      moved(disk, from, to);
      return { expected: [{ rule: 'misplaced-folder', path: to }], touched: [from, to] };
    },
  },
  added('a cache over its limit', ['09_cache'], () => 'huge.cache', 'over-limit', 600_000_000_000),
];
