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
  projectors: readonly string[],
  languages: readonly string[],
): string[] {
  const out: string[] = [];
  surfaces.forEach((surface, i) => {
    scenes.forEach((scene, k) => {
      const who = present(people[(i + k) % people.length]);
      const folder = `05_motion/${surface}/${scene}`;
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
    ...versions(`06_sound/music/${number}_MX_v`, 3, '.wav', 2),
    ...scenes.map((s) => `06_sound/effects/${number}_FX_${s}_v01.wav`),
  );
  for (const language of languages)
    out.push(...scenes.map((s) => `06_sound/voice/${language}/${number}_VO_${language}_${s}_v01.wav`));
  for (const night of nights)
    for (const projector of projectors)
      out.push(
        ...Array.from(
          { length: 6 },
          (_, n) =>
            `02_survey/test-nights/${night}/${projector}/${night}_${projector}_${String(n + 20).padStart(4, '0')}.jpg`,
        ),
      );
  out.push(
    ...Array.from(
      { length: 9 },
      (_, n) =>
        `02_survey/site-photos/2026-01-${String(12 + n).padStart(2, '0')}_${String(n + 1).padStart(4, '0')}.jpg`,
    ),
  );
  out.push(
    `01_paperwork/quotes/2026-01-09_quote_${title}.pdf`,
    `01_paperwork/permits/2026-01-21_road-closure_${title}.pdf`,
    `01_paperwork/schedules/2026-02-11_nights_${title}.pdf`,
    `01_paperwork/rights/2026-02-02_music_${title}.pdf`,
  );
  out.push(
    ...['opening', 'tide', 'return'].map((s) => `03_design/boards/${number}_SB_${s}_v002.png`),
    `03_design/palettes/${number}_PAL_stone_v001.svg`,
    `03_design/type/${number}_TYP_titles_v001.svg`,
  );
  out.push(
    '07_library/stock/gulls-at-dusk.wav',
    '07_library/stock/gulls-at-dusk.licence.txt',
    '09_cache/west.cache',
    '09_cache/preview-01.tmp',
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
  '05_motion/west-front/s03/working/26014_west-front_s03_animation_BO_final_v4.usda',
  '05_motion/clock-tower/s01/working/26014_clock-tower_s01_anim_LV_V12.usda',
  '05_motion/west-front/s02/working/West Front 26014 s02 comp AP V3.usda',
  '05_motion/west-front/s05/working/26014_west-front_s05_light_XX_v001.usda',
  '05_motion/crane-7/s06/working/26014_crane-7_s06_layout_v002.usda',
  '05_motion/west-front/s04/working/26011_west-front_s04_anim_BO_v002.usda',
  '05_motion/crane-7/s02/working/26011_crane-7_s02_anim_LV_v001.usda',
  ...frames('05_motion/west-front/s02/renders/QTH 26014 west front s02 comp v003.', 1, 48, 'exr'),
  '06_sound/voice/nl/26014_VO_nl_s03_v02 (1).wav',
  '06_sound/music/26014_MX_Été_v01.wav',
  '06_sound/effects/26014_effects_s02_v1.wav',
  '02_survey/test-nights/2026-03-02/A/02-03-2026_A_0031.jpg',
  '08_masters/26014_master_A.mov',
  '05_motion/clock tower/s01/26014_clock-tower_s01_anim_LV_v009.usda',
  '01_paperwork/quotes/quote harbour FINAL.pdf',
  'todo for monday.txt',
  '26014_MS_A_preview.mov',
  '05_motion/crane-7/s01/working/lamps-03.autosave',
  '07_library/stock/storm-over-the-pier.jpg',
  '08_masters/08_masters/26014_MS_A.mov',
  '06_sound/effects/26014_FX_s07_v01.wav',
  '05_motion/crane-7/s03/working/older/26014_crane-7_s03_light_BO_v001.usda',
];

/** Left out when the frames of one scene were copied. */
const lost = ['0012', '0013', '0014', '0031'].map((frame) => `crane-7_s05_comp_v004.${frame}.exr`);
const isThere = (file: string): boolean => !lost.some((name) => file.endsWith(name));

/** A card that was brought in under the wrong night. */
const wrongNight = (file: string): string => file.replace(/(test-nights\/2026-03-03\/.*)2026-03-03/, '$12026-02-27');

const winterMess = [
  '05_motion/town-hall/s01/working/26009_town-hall_s01_anim_LV_v3.usda',
  '05_motion/town-hall/s02/working/26009_TownHall_s02_comp_AP_v004.usda',
  '05_motion/old-mill/s03/working/26014_old-mill_s03_anim_AP_v001.usda',
  '06_sound/music/26009_music_v02.wav',
  '01_paperwork/permits/2026-2-4_river_winter-walk.pdf',
  '03_design/boards/26009_SB_Opening Scene_v003.png',
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
      projectors: 'A..B',
      nights: '2026-02-24',
      voice: 'none',
      languages: [],
    },
    files: [...goodWork(winter, ['2026-02-24'], ['A', 'B'], []), ...winterMess],
    removed: ['03_design/palettes'],
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
      projectors: 'A..C',
      nights: '2026-03-04',
      voice: 'spoken',
      languages: ['en'],
    },
    files: [
      ...goodWork(curtain, ['2026-03-04'], ['A', 'B', 'C'], ['en']),
      ...['A', 'B', 'C'].map((p) => `08_masters/26011_MS_${p}.mov`),
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
      projectors: 'A..D',
      nights: '2026-03-02..2026-03-03',
      voice: 'spoken',
      languages: ['en', 'nl'],
    },
    files: [
      ...goodWork(harbour, ['2026-03-02', '2026-03-03'], ['A', 'B', 'C', 'D'], ['en', 'nl'])
        .filter(isThere)
        .map(wrongNight),
      ...harbourMess,
    ],
    contents: {
      '06_sound/effects/26014_FX_s07_v01.wav': { like: '26014_VO_nl_s02_v01.wav' },
      '05_motion/crane-7/s03/working/older/26014_crane-7_s03_light_BO_v001.usda':
        '#usda 1.0\n\ndef Xform "Scene"\n{\n    def "Lamps" (\n        references = @/Users/somebody/Desktop/lamps.usda@\n    )\n    {\n    }\n}\n',
    },
    removed: ['02_survey/measurements'],
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
    'Sound/music/26008_MX_v01.wav',
    'odds and ends/ask the verger.txt',
  ],
};
