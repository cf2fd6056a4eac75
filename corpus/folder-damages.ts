import { type DiskDamage, misspelt, newFolder, placed, removed } from './damage-kinds';

export const FOLDER_DAMAGES: readonly DiskDamage[] = [
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
];
