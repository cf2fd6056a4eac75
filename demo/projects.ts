/** The demo's projects and what artists have put into them: names only, contents are made by `files.ts`. */
import { present } from '@nesting/core';
import type { Values } from '@nesting/core/name';

export interface DemoProject {
  readonly template: string;
  readonly person: string;
  readonly values: Values;
  /** Days before the demo's today on which it was started. */
  readonly age: number;
  readonly files: readonly string[];
  /** Folders somebody removed or made by hand. */
  readonly removed?: readonly string[];
  /** Files that hold something else than their name asks for. */
  readonly contents?: Readonly<Record<string, string | { readonly like: string }>>;
}

/** The demo's own today. */
export const DEMO_TODAY = '2026-03-06';

const frames = (head: string, from: number, to: number, ext: string, missing: readonly number[] = []): string[] =>
  Array.from({ length: to - from + 1 }, (_, i) => from + i)
    .filter((n) => !missing.includes(n))
    .map((n) => `${head}${String(n).padStart(4, '0')}.${ext}`);

const versions = (head: string, count: number, tail: string, width = 3): string[] =>
  Array.from({ length: count }, (_, i) => `${head}${String(i + 1).padStart(width, '0')}${tail}`);

interface Work {
  readonly number: string;
  readonly title: string;
  readonly surfaces: readonly string[];
  readonly scenes: readonly string[];
  readonly people: readonly string[];
}

/** A project in good order: working files, renders, sound, photos, papers, masters. */
function goodWork(
  { number, title, surfaces, scenes, people }: Work,
  nights: readonly string[],
  stands: readonly string[],
  languages: readonly string[],
): string[] {
  const out: string[] = [];
  surfaces.forEach((surface, i) => {
    scenes.forEach((scene, k) => {
      const who = present(people[(i + k) % people.length]);
      const folder = `40_motion/${surface}/${scene}`;
      const count = 2 + ((i * 5 + k * 3) % 4);
      const all = versions(`${number}_${surface}_${scene}_anim_${who}_v`, count, '.usda');
      out.push(
        ...all.slice(-1).map((n) => `${folder}/working/${n}`),
        ...all.slice(0, -1).map((n) => `${folder}/working/older/${n}`),
      );
      out.push(
        ...frames(
          `${folder}/renders/${number}_${surface}_${scene}_comp_v${String(count).padStart(3, '0')}.`,
          1,
          40 + ((i + k) % 3) * 12,
          'exr',
        ),
      );
    });
  });
  out.push(
    ...versions(`50_sound/music/${number}_MUS_v`, 3, '.wav', 2),
    ...scenes.map((s) => `50_sound/atmosphere/${number}_ATM_${s}_v01.wav`),
  );
  for (const language of languages)
    out.push(...scenes.map((s) => `50_sound/speech/${language}/${number}_SPK_${language}_${s}_v01.wav`));
  for (const night of nights)
    for (const stand of stands)
      out.push(
        ...Array.from(
          { length: 6 },
          (_, n) => `20_survey/test-nights/${stand}/${night}/${stand}_${night}_${String(n + 20).padStart(4, '0')}.jpg`,
        ),
      );
  out.push(
    ...Array.from(
      { length: 9 },
      (_, n) =>
        `20_survey/site-photos/${stands[0]}_2026-01-${String(12 + n).padStart(2, '0')}_${String(n + 1).padStart(4, '0')}.jpg`,
    ),
  );
  out.push(
    `10_paperwork/quotes/2026-01-09_quote_${title}.pdf`,
    `10_paperwork/permits/2026-01-21_road-closure_${title}.pdf`,
    `10_paperwork/schedules/2026-02-11_nights_${title}.pdf`,
    `10_paperwork/rights/2026-02-02_music_${title}.pdf`,
  );
  out.push(
    ...['opening', 'tide', 'return'].map((s) => `30_design/boards/${number}_BRD_${s}_v002.png`),
    `30_design/palettes/${number}_PAL_stone_v001.svg`,
    `30_design/type/${number}_TYP_titles_v001.svg`,
  );
  out.push(
    '70_library/stock/gulls-at-dusk.wav',
    '70_library/stock/gulls-at-dusk.licence.txt',
    '90_cache/west.cache',
    '90_cache/preview-01.tmp',
  );
  return out;
}

const harbour: Work = {
  number: '26014',
  title: 'harbour-lights',
  surfaces: ['west-front', 'clock-tower', 'crane-7'],
  scenes: ['s01', 's02', 's03', 's04', 's05', 's06'],
  people: ['BO', 'LV'],
};
const winter: Work = {
  number: '26009',
  title: 'winter-walk',
  surfaces: ['town-hall', 'old-mill'],
  scenes: ['s01', 's02', 's03'],
  people: ['LV', 'AP'],
};
const curtain: Work = {
  number: '26011',
  title: 'curtain-rise',
  surfaces: ['portico'],
  scenes: ['s01', 's02', 's03', 's04'],
  people: ['BO', 'AP'],
};

/** One working day of artists, none of whom read the manual. */
const harbourMess = [
  '40_motion/west-front/s03/working/26014_west-front_s03_animation_BO_final_v4.usda',
  '40_motion/clock-tower/s01/working/26014_clock-tower_s01_anim_LV_V12.usda',
  '40_motion/west-front/s02/working/West Front 26014 s02 comp AP V3.usda',
  '40_motion/west-front/s05/working/26014_west-front_s05_light_XX_v001.usda',
  '40_motion/crane-7/s06/working/26014_crane-7_s06_layout_v002.usda',
  '40_motion/west-front/s04/working/26011_west-front_s04_anim_BO_v002.usda',
  '40_motion/crane-7/s02/working/26011_crane-7_s02_anim_LV_v001.usda',
  ...frames('40_motion/west-front/s02/renders/QTH 26014 west front s02 comp v003.', 1, 48, 'exr'),
  '50_sound/speech/nl/26014_SPK_nl_s03_v02 (1).wav',
  '50_sound/music/26014_MUS_Été_v01.wav',
  '50_sound/atmosphere/26014_atmosphere_s02_v1.wav',
  '20_survey/test-nights/pier/2026-03-02/pier_02-03-2026_0031.jpg',
  '80_masters/26014_master_pier.mov',
  '40_motion/clock tower/s01/26014_clock-tower_s01_anim_LV_v009.usda',
  '10_paperwork/quotes/quote harbour FINAL.pdf',
  'todo for monday.txt',
  '26014_MST_pier_preview.mov',
  '40_motion/crane-7/s01/working/lamps-03.autosave',
  '70_library/stock/storm-over-the-pier.jpg',
  '80_masters/80_masters/26014_MST_pier.mov',
  '50_sound/atmosphere/26014_ATM_s07_v01.wav',
  '40_motion/crane-7/s03/working/older/26014_crane-7_s03_light_BO_v001.usda',
];

/** Left out when the frames of one scene were copied. */
const lost = ['0012', '0013', '0014', '0031'].map((frame) => `crane-7_s05_comp_v004.${frame}.exr`);
const isThere = (file: string): boolean => !lost.some((name) => file.endsWith(name));

/** A card that was brought in under the wrong night. */
const wrongNight = (file: string): string =>
  file.replace(/(test-nights\/[^/]+\/2026-03-03\/.*)2026-03-03/, '$12026-02-27');

const winterMess = [
  '40_motion/town-hall/s01/working/26009_town-hall_s01_anim_LV_v3.usda',
  '40_motion/town-hall/s02/working/26009_TownHall_s02_comp_AP_v004.usda',
  '40_motion/old-mill/s03/working/26014_old-mill_s03_anim_AP_v001.usda',
  '50_sound/music/26009_music_v02.wav',
  '10_paperwork/permits/2026-2-4_river_winter-walk.pdf',
  '30_design/boards/26009_BRD_Opening Scene_v003.png',
  'new folder/notes.txt',
];

export const DEMO_PROJECTS: readonly DemoProject[] = [
  {
    template: 'facade-show',
    person: 'IT',
    age: 64,
    values: {
      number: '26009',
      title: 'Winter Walk',
      client: 'OTM',
      person: 'IT',
      date: '2026-12-05',
      surfaces: ['town-hall', 'old-mill'],
      scenes: 's01..s03',
      stands: ['bandstand', 'weir'],
      nights: '2026-02-24',
      speech: 'none',
      languages: [],
    },
    files: [...goodWork(winter, ['2026-02-24'], ['bandstand', 'weir'], []), ...winterMess],
    removed: ['30_design/palettes'],
  },
  {
    template: 'facade-show',
    person: 'IT',
    age: 51,
    values: {
      number: '26011',
      title: 'Curtain Rise',
      client: 'FNR',
      person: 'AP',
      date: '2026-04-18',
      surfaces: ['portico'],
      scenes: 's01..s04',
      stands: ['gallery', 'side-box', 'lamp-bridge'],
      nights: '2026-03-04',
      speech: 'spoken',
      languages: ['en'],
      issues: ['A'],
    },
    contents: {
      '30_design/boards/issue-A/26011_BRD_overview_v002.svg':
        '<svg xmlns="http://www.w3.org/2000/svg" width="64" height="36"><image href="26011_BRD_opening_v003.png" width="32" height="36"/><image href="../26011_BRD_tide_v002.png" width="32" height="36"/></svg>\n',
    },
    files: [
      ...['opening', 'entrance', 'return'].map((s) => `30_design/boards/issue-A/26011_BRD_${s}_v003.png`),
      '30_design/boards/issue-A/26011_BRD_overview_v001.svg',
      '30_design/boards/issue-A/26011_BRD_overview_v002.svg',
      ...goodWork(curtain, ['2026-03-04'], ['gallery', 'side-box', 'lamp-bridge'], ['en']),
      ...['gallery', 'side-box', 'lamp-bridge'].map((stand) => `80_masters/26011_MST_${stand}.mov`),
    ],
  },
  {
    template: 'facade-show',
    person: 'IT',
    age: 37,
    values: {
      number: '26014',
      title: 'Harbour Lights',
      client: 'QHT',
      person: 'IT',
      date: '2026-11-27',
      surfaces: ['west-front', 'clock-tower', 'crane-7'],
      scenes: 's01..s06',
      stands: ['pier', 'mill-roof', 'quay-crane', 'lock-house'],
      nights: '2026-03-02..2026-03-03',
      speech: 'spoken',
      languages: ['en', 'nl'],
    },
    files: [
      ...goodWork(
        harbour,
        ['2026-03-02', '2026-03-03'],
        ['pier', 'mill-roof', 'quay-crane', 'lock-house'],
        ['en', 'nl'],
      )
        .filter(isThere)
        .map(wrongNight),
      ...harbourMess,
    ],
    contents: {
      '40_motion/clock-tower/s05/working/26014_clock-tower_s05_anim_LV_v003.usda':
        '#usda 1.0\n\ndef Xform "Scene"\n{\n    asset gulls = @../../../../70_library/stock/gulls-at-dusk.wav@\n    asset before = @older/26014_clock-tower_s05_anim_LV_v002.usda@\n    asset board = @../../../../30_design/boards/26014_BRD_tide_v002.png@\n}\n',
      '50_sound/atmosphere/26014_ATM_s07_v01.wav': { like: '26014_SPK_nl_s02_v01.wav' },
      '40_motion/crane-7/s03/working/older/26014_crane-7_s03_light_BO_v001.usda':
        '#usda 1.0\n\ndef Xform "Scene"\n{\n    def "Lamps" (\n        references = @/Users/somebody/Desktop/lamps.usda@\n    )\n    {\n    }\n}\n',
    },
    removed: ['20_survey/measurements'],
  },
  {
    template: 'making-of',
    person: 'ME',
    age: 9,
    values: {
      number: '26012',
      title: 'Ropes and Lamps',
      client: 'QHT',
      person: 'ME',
      date: '2026-05-22',
      places: ['pier', 'workshop', 'mill-roof'],
      days: ['2026-02-27'],
      cameras: ['a', 'b'],
    },
    files: [
      '10_paperwork/releases/2026-02-27_rigging-crew_ropes-and-lamps.pdf',
      '10_paperwork/call-sheets/2026-02-27_call-sheet_ropes-and-lamps.pdf',
      '50_stills/workshop/workshop_2026-02-27_0001.jpg',
      '50_stills/workshop/workshop_2026-02-27_0002.jpg',
      '60_edit/26012_rough_ME_v001.otio',
    ],
  },
  {
    template: 'window-piece',
    person: 'IT',
    age: 1,
    values: {
      number: '26015',
      title: 'Cloud Cabinet',
      client: 'MSW',
      person: 'LV',
      date: '2026-05-02',
      windows: 'A..C',
    },
    files: [],
  },
];

/**
 * A facade show as somebody else lays it out: other numbers, capitals and blanks, much missing, a folder of odds and
 * ends.
 */
export const FREELANCE = {
  folder: '26008_SAK_candle-nave',
  folders: [
    'Paperwork/quotes',
    'Survey/site photos',
    'Design/boards',
    'Design/palettes',
    'Motion/nave/s01/working',
    'Motion/nave/s01/renders',
    'Motion/nave/s02/working',
    'Motion/nave/s02/renders',
    'Motion/transept/s01/working',
    'Motion/transept/s01/renders',
    'Sound/music',
    'Masters',
    'odds and ends',
  ],
  files: [
    'Motion/nave/s01/working/26008_nave_s01_anim_BO_v002.usda',
    'Motion/nave/s02/working/26008_nave_s02_anim_BO_v001.usda',
    'Motion/transept/s01/working/26008_transept_s01_anim_AP_v004.usda',
    'Sound/music/26008_MUS_v01.wav',
    'odds and ends/ask the verger.txt',
  ],
};
