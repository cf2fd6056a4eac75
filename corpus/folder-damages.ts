import { type DiskDamage, misspelt, newFolder, placed, removed } from './damage-kinds';

export const FOLDER_DAMAGES: readonly DiskDamage[] = [
  {
    kind: 'a folder removed',
    act: (disk, pick, spared) => {
      const path = pick(
        [
          '10_paperwork/rights',
          '20_survey/measurements',
          '30_design/type',
          '50_sound/atmosphere',
          '70_library/logos',
          '90_cache',
        ].filter((f) => disk.has(f) && !spared(f)),
      );
      if (path === undefined) return null;
      removed(disk, path);
      return { expected: [{ rule: 'missing-folder', path }], touched: [path] };
    },
  },
  misspelt('two letters exchanged', ['20_survey', '30_design', '80_masters'], (n) =>
    n.replace(/(..)(.)(.)/, '$1$2$3').replace(/_(.)(.)(.)/, '_$1$3$2'),
  ),
  misspelt('its number left out', ['20_survey', '30_design', '50_sound', '70_library'], (n) => n.replace(/^\d+_/, '')),
  misspelt('another number in front', ['20_survey', '30_design', '80_masters'], (n) => n.replace(/^\d+/, '15')),
  misspelt('in capitals', ['20_survey/site-photos', '30_design/boards', '50_sound/music'], (n) => n.toUpperCase()),
  misspelt('a blank in place of a hyphen', ['20_survey/site-photos', '20_survey/test-nights'], (n) =>
    n.replace('-', ' '),
  ),
  misspelt('a letter twice', ['20_survey/measurements', '30_design/palettes', '10_paperwork/schedules'], (n) =>
    n.replace(/(.)$/, '$1$1'),
  ),
  misspelt('a letter left out', ['20_survey/measurements', '30_design/palettes', '10_paperwork/permits'], (n) =>
    n.replace(/^(..)./, '$1'),
  ),
  misspelt('run together', ['20_survey/site-photos', '20_survey/test-nights'], (n) => n.replace('-', '')),
  misspelt('an entry with a blank', ['40_motion/fly-tower'], () => 'fly tower'),
  newFolder('a folder of one’s own at the root', [''], 'misc', 'unplanned-folder'),
  newFolder('a folder of tests', ['40_motion', '40_motion/portico', '50_sound'], 'tests', 'unplanned-folder'),
  newFolder('old stuff', ['20_survey', '30_design', '80_masters'], 'old stuff', 'unplanned-folder'),
  newFolder('a scene nobody planned', ['40_motion/portico', '40_motion/fly-tower'], 's09', 'unplanned-folder'),
  newFolder('a folder doubled inside itself', ['80_masters'], '80_masters', 'misplaced-folder'),
  newFolder('a folder of the same name inside', ['30_design/boards'], 'boards', 'misplaced-folder'),
  placed('palettes among the masters', '30_design/palettes', '80_masters/palettes'),
  placed('music at the root', '50_sound/music', 'music'),
  placed('permits in the survey', '10_paperwork/permits', '20_survey/permits'),
  {
    kind: 'a starter file removed',
    act: (disk, pick, spared) => {
      const path = pick(['26011_brief.md', '26011_show.otio'].filter((f) => disk.has(f) && !spared(f)));
      if (path === undefined) return null;
      disk.delete(path);
      return { expected: [{ rule: 'missing-starter', path }], touched: [path] };
    },
  },
];
