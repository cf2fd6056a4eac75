/** What a working week does to the names of files. */
import { elementAt, valueAt } from '@nesting/core';
import {
  above,
  added,
  BOARD,
  type DiskDamage,
  entriesOf,
  filesIn,
  nameOf,
  PAPER,
  renamed,
  renders,
  SOUND,
  WORKING,
  workingName,
  workings,
} from './damage-kinds';
import { file } from './good-disk';

export const NAME_DAMAGES: readonly DiskDamage[] = [
  renamed('yesterday’s project number', WORKING, (n) => n.replace('26011', '26009'), 'foreign-project'),
  renamed('another project’s sound', SOUND, (n) => n.replace('26011', '26014'), 'foreign-project'),
  renamed('a colon', PAPER, (n) => n.replace('_', ':'), 'unportable-name'),
  renamed('a blank at the end', BOARD, (n) => `${n} `, 'unportable-name'),
  added('a device’s name', ['30_design/boards', '10_paperwork/quotes'], () => 'con.png', 'unportable-name'),
  added('a path too long', ['90_cache'], () => `${'long'.repeat(55)}.cache`, 'path-too-long'),
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
    ['20_survey/site-photos', '50_sound/music', '30_design/boards'],
    () => '.DS_Store',
    'stray-generated',
  ),
  added('sound among the boards', ['30_design/boards', '30_design/palettes'], () => 'thump.wav', 'family-not-accepted'),
  added('a paper among the masters', ['80_masters'], () => 'notes.pdf', 'family-not-accepted'),
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
  added('a film at the root', [''], () => '26011_MST_gallery_preview.mov', 'loose-file'),
  added(
    'a file beside folders',
    ['40_motion', '40_motion/portico', '40_motion/fly-tower/s01'],
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
    (n) => n.replace('_MUS_', '_music_').replace('_ATM_', '_atmosphere_'),
    'name-mismatch',
  ),
  renamed('final at the end', WORKING, (n) => n.replace('.usda', '_final.usda'), 'banned-word'),
  renamed('new in the middle', BOARD, (n) => n.replace('_v', '_new_v'), 'banned-word'),
];
