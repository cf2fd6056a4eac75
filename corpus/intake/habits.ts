/**
 * Loose files as people really send them, written by hand before there was a rule that sorts them: what lies in the
 * heap, what its content tells, and where somebody who knows the project would put it.
 *
 * A row: path in the heap · what is known of it · folder in the project (`null`: nobody could say) · its name there
 * (`#` stands for digits that go on counting; `null`: not to be judged). `ask` marks what a person would ask about.
 */
import type { MediaFacts } from '@nesting/core/listing';
import type { ProjectName } from './projects';

export interface Habit {
  readonly path: string;
  readonly facts: MediaFacts;
  readonly to: string | null;
  readonly name: string | null;
  /** Somebody who knows the project would put it there without asking. */
  readonly isPlain: boolean;
}

type Row = readonly [path: string, facts: MediaFacts, to: string | null, name?: string | null, ask?: 'ask'];

const at = (day: string, time = '14:05:10') => ({ taken: `${day}T${time}` });
const photo = (day: string, time?: string): MediaFacts => ({ ...at(day, time), has: 'still', content: 'jpg' });
const clip = (day: string, time: string, seconds: number): MediaFacts => ({
  ...at(day, time),
  ...{ has: 'picture', content: 'mov', seconds, frameRate: 25 },
});
const sound = (day: string, time: string, seconds: number): MediaFacts => ({
  ...at(day, time),
  ...{ has: 'sound', content: 'wav', seconds, sampleRate: 48_000 },
});
const NONE: MediaFacts = {};

const PIER = '20_survey/test-nights/pier';
const MILL = '20_survey/test-nights/mill-roof';
const PAPERS = '10_paperwork';

const SHOW: readonly Row[] = [
  // Photographs of a phone, in a folder somebody called after the place.
  ['pier/IMG_2207.JPG', photo('2026-03-02', '21:14:03'), `${PIER}/2026-03-02`, 'pier_2026-03-02_#.jpg'],
  ['pier/IMG_2208.JPG', photo('2026-03-02', '21:14:40'), `${PIER}/2026-03-02`, 'pier_2026-03-02_#.jpg'],
  ['Pier 4 March/DSC00417.jpg', photo('2026-03-04', '22:00:00'), `${PIER}/2026-03-04`, 'pier_2026-03-04_#.jpg'],
  [
    'mill roof/20260302_203155.jpg',
    photo('2026-03-02', '20:31:55'),
    `${MILL}/2026-03-02`,
    'mill-roof_2026-03-02_#.jpg',
  ],
  ['Mill Roof test/PHOTO_20260304_195812.jpg', NONE, `${MILL}/2026-03-04`, 'mill-roof_2026-03-04_#.jpg'],
  ['millroof_2026-03-04 (3).jpg', NONE, `${MILL}/2026-03-04`, 'mill-roof_2026-03-04_#.jpg'],
  ['pier_2026-03-04_0031.jpg', photo('2026-03-04'), `${PIER}/2026-03-04`, 'pier_2026-03-04_0031.jpg'],
  ['Pier 2026-3-4 31.jpg', photo('2026-03-04'), `${PIER}/2026-03-04`, 'pier_2026-03-04_#.jpg'],
  ['test night 2 mar pier 01.jpeg', NONE, `${PIER}/2026-03-02`, null, 'ask'],
  ['pier after midnight/IMG_2260.JPG', photo('2026-03-05', '00:41:00'), `${PIER}/2026-03-04`, null, 'ask'],
  ['IMG_2301.JPG', photo('2026-03-02', '21:50:00'), null, null, 'ask'],
  ['photos/DSC_0099.jpg', photo('2025-11-08'), null, null, 'ask'],
  ['from Samir/pier-roof-cables.jpg', NONE, null, null, 'ask'],
  ['site visit/pier/P1000441.JPG', photo('2026-01-14'), '20_survey/site-photos', 'pier_2026-01-14_#.jpg'],
  ['site photos mill-roof/P1000502.JPG', photo('2026-01-15'), '20_survey/site-photos', 'mill-roof_2026-01-15_#.jpg'],
  ['measurements pier.pdf', NONE, '20_survey/measurements', null],
  ['Measurement sheet mill roof.pdf', NONE, '20_survey/measurements', null],
  // Paper.
  ['Quote Harbour Lights.pdf', NONE, `${PAPERS}/quotes`, null],
  ['quote_harbour-lights_2026-02-11.pdf', NONE, `${PAPERS}/quotes`, '2026-02-11_quote_harbour-lights.pdf'],
  ['2026-02-11_quote_harbour-lights.pdf', NONE, `${PAPERS}/quotes`, '2026-02-11_quote_harbour-lights.pdf'],
  ['11.02.2026 Quote HARBOUR LIGHTS final.pdf', NONE, `${PAPERS}/quotes`, '2026-02-11_quote_harbour-lights.pdf'],
  ['Invoice 2026-02-20.pdf', NONE, `${PAPERS}/quotes`, '2026-02-20_invoice_harbour-lights.pdf'],
  ['permits/road closure 20260121.pdf', NONE, `${PAPERS}/permits`, '2026-01-21_road-closure_harbour-lights.pdf'],
  ['Permit heritage 2026-01-30.pdf', NONE, `${PAPERS}/permits`, null],
  ['schedule nights 2026-02-28.pdf', NONE, `${PAPERS}/schedules`, null],
  ['Call sheet 2026-03-02.pdf', NONE, `${PAPERS}/schedules`, '2026-03-02_call-sheet_harbour-lights.pdf'],
  ['rights music 2026-02-02.pdf', NONE, `${PAPERS}/rights`, null],
  ['Contract_music_2026-02-02.pdf', NONE, `${PAPERS}/rights`, null],
  ['scan0001.pdf', NONE, null, null, 'ask'],
  ['Untitled.pdf', NONE, null, null, 'ask'],
  ['notes.txt', NONE, null, null, 'ask'],
  // Sound.
  ['26014_SPK_nl_s03_v02.wav', NONE, '50_sound/speech/nl', '26014_SPK_nl_s03_v02.wav'],
  ['speech nl s04 v1.wav', NONE, '50_sound/speech/nl', '26014_SPK_nl_s04_v01.wav'],
  ['Speech EN scene 4.wav', NONE, '50_sound/speech/en', '26014_SPK_en_s04_v01.wav'],
  ['spk_dutch_s02.wav', NONE, '50_sound/speech/nl', '26014_SPK_nl_s02_v01.wav'],
  ['26014_SPK_English_s01_v03.wav', NONE, '50_sound/speech/en', '26014_SPK_en_s01_v03.wav'],
  ['music_v04.wav', NONE, '50_sound/music', '26014_MUS_v04.wav'],
  ['26014 MUS V4.wav', NONE, '50_sound/music', '26014_MUS_v04.wav'],
  ['harbour lights music.wav', NONE, '50_sound/music', '26014_MUS_v#.wav'],
  ['Music/s02.wav', NONE, '50_sound/music', '26014_MUS_s02_v01.wav'],
  ['atmosphere s02.wav', NONE, '50_sound/atmosphere', '26014_ATM_s02_v01.wav'],
  ['atmo_s05_v2.wav', NONE, '50_sound/atmosphere', '26014_ATM_s05_v02.wav'],
  ['ATM-s06-v01.WAV', NONE, '50_sound/atmosphere', '26014_ATM_s06_v01.wav'],
  ['REC_0007.WAV', sound('2026-03-02', '21:00:00', 64), null, null, 'ask'],
  ['mixdown.wav', NONE, null, null, 'ask'],
  // Working files.
  [
    '26014_west-front_s03_anim_BO_v005.usda',
    NONE,
    '40_motion/west-front/s03/working',
    '26014_west-front_s03_anim_BO_v005.usda',
  ],
  [
    'west front s03 animation BO v5.usda',
    NONE,
    '40_motion/west-front/s03/working',
    null,
    // The one above says that it is version 5 too.
    'ask',
  ],
  [
    'WestFront_s02_comp_LV_v01.usda',
    NONE,
    '40_motion/west-front/s02/working',
    '26014_west-front_s02_comp_LV_v001.usda',
  ],
  [
    'clock-tower-s01-anim-lv-v12.usda',
    NONE,
    '40_motion/clock-tower/s01/working',
    '26014_clock-tower_s01_anim_LV_v012.usda',
  ],
  ['crane7 s06 layout Aiko v2.usda', NONE, '40_motion/crane-7/s06/working', '26014_crane-7_s06_layout_AP_v002.usda'],
  [
    'clocktower/s04/light_BO_v003.usda',
    NONE,
    '40_motion/clock-tower/s04/working',
    '26014_clock-tower_s04_light_BO_v003.usda',
  ],
  [
    'from Bram/west-front/s05/anim v7.usda',
    NONE,
    '40_motion/west-front/s05/working',
    '26014_west-front_s05_anim_BO_v007.usda',
  ],
  ['scene.usda', NONE, null, null, 'ask'],
  ['s03 anim.usda', NONE, null, null, 'ask'],
  ['west-front anim LV.usda', NONE, null, null, 'ask'],
  ['26011_portico_s01_anim_BO_v002.usda', NONE, null, null, 'ask'],
  // Frames.
  ...Array.from({ length: 12 }, (_, i): Row => {
    const n = String(i + 1).padStart(4, '0');
    return [
      `render/26014_west-front_s04_comp_v002.${n}.exr`,
      NONE,
      '40_motion/west-front/s04/renders',
      `26014_west-front_s04_comp_v002.${n}.exr`,
    ];
  }),
  ...Array.from({ length: 8 }, (_, i): Row => {
    const n = String(i + 101).padStart(4, '0');
    return [
      `clock tower s02 comp v3/clock_tower_s02_comp_v3_${n}.exr`,
      NONE,
      '40_motion/clock-tower/s02/renders',
      `26014_clock-tower_s02_comp_v003.${n}.exr`,
    ];
  }),
  // Masters and boards.
  ['26014_MST_pier.mov', NONE, '80_masters', '26014_MST_pier.mov'],
  ['master mill roof.mov', NONE, '80_masters', '26014_MST_mill-roof.mov'],
  ['Harbour Lights PIER master v3.mov', NONE, '80_masters', '26014_MST_pier.mov'],
  ['export_final.mov', NONE, null, null, 'ask'],
  ['26014_BRD_opening_v002.png', NONE, '30_design/boards', '26014_BRD_opening_v002.png', 'ask'],
  ['board tide v3.png', NONE, '30_design/boards', '26014_BRD_tide_v003.png', 'ask'],
  ['palette stone.svg', NONE, '30_design/palettes', '26014_PAL_stone_v001.svg'],
  ['PAL_stone_v2.svg', NONE, '30_design/palettes', '26014_PAL_stone_v002.svg'],
  ['type titles v1.svg', NONE, '30_design/type', '26014_TYP_titles_v001.svg'],
  ['sponsor logos/harbour trust.png', NONE, '70_library/logos', null],
  ['logo QHT.svg', NONE, '70_library/logos', null],
  ['stock/gulls.wav', NONE, '70_library/stock', 'gulls.wav', 'ask'],
  // What belongs to nobody, or to a program.
  ['Thumbs.db', NONE, null, null, 'ask'],
  ['preview-04.tmp', NONE, '90_cache', null, 'ask'],
  ['invoice other client 26009.pdf', NONE, null, null, 'ask'],
  ['installer.dmg', NONE, null, null, 'ask'],
  ['archive old.zip', NONE, null, null, 'ask'],
];

const CLIPS = '30_clips';
const FILM: readonly Row[] = [
  [
    'pier cam a/A003_0142.MOV',
    clip('2026-03-02', '21:03:10', 40),
    `${CLIPS}/2026-03-02`,
    '26018_20260302_pier_a_#.mov',
  ],
  [
    'pier cam a/A003_0143.MOV',
    clip('2026-03-02', '21:06:00', 22),
    `${CLIPS}/2026-03-02`,
    '26018_20260302_pier_a_#.mov',
  ],
  [
    'pier/camera b/MVI_0044.MOV',
    clip('2026-03-02', '21:03:30', 30),
    `${CLIPS}/2026-03-02`,
    '26018_20260302_pier_b_#.mov',
  ],
  [
    'Workshop/Cam B/MVI_0051.MOV',
    clip('2026-03-03', '11:20:00', 90),
    `${CLIPS}/2026-03-03`,
    '26018_20260303_workshop_b_#.mov',
  ],
  ['workshop_a_20260303_take 4.mp4', NONE, `${CLIPS}/2026-03-03`, '26018_20260303_workshop_a_004.mp4'],
  ['26018_20260303_mill-roof_b_002.mov', NONE, `${CLIPS}/2026-03-03`, '26018_20260303_mill-roof_b_002.mov'],
  ['26018 2026-03-03 MILL ROOF b 3.mov', NONE, `${CLIPS}/2026-03-03`, '26018_20260303_mill-roof_b_003.mov'],
  ['MVI_0060.MOV', clip('2026-03-03', '15:00:00', 12), `${CLIPS}/2026-03-03`, null, 'ask'],
  [
    'new day/pier a/A004_0001.MOV',
    clip('2026-03-09', '10:00:00', 50),
    `${CLIPS}/2026-03-09`,
    '26018_20260309_pier_a_#.mov',
  ],
  [
    'new day/pier b/MVI_0100.MOV',
    clip('2026-03-09', '10:00:20', 44),
    `${CLIPS}/2026-03-09`,
    '26018_20260309_pier_b_#.mov',
  ],
  ['wrong clock/pier a/A001_0001.MOV', clip('1970-01-01', '00:00:10', 20), null, null, 'ask'],
  ['holiday.mov', clip('2024-08-14', '09:00:00', 300), null, null, 'ask'],
  [
    'recorder/pier/REC_0001.WAV',
    sound('2026-03-02', '21:03:05', 48),
    '40_sound/2026-03-02',
    '26018_20260302_pier_T#.wav',
  ],
  [
    'recorder/pier/REC_0002.WAV',
    sound('2026-03-02', '21:05:55', 30),
    '40_sound/2026-03-02',
    '26018_20260302_pier_T#.wav',
  ],
  ['WORKSHOP-T07.wav', sound('2026-03-03', '11:19:50', 99), '40_sound/2026-03-03', '26018_20260303_workshop_T007.wav'],
  ['workshop 3 March take 8.wav', NONE, '40_sound/2026-03-03', '26018_20260303_workshop_T008.wav'],
  ['wild track.wav', NONE, null, null, 'ask'],
  ['stills/pier/DSC02001.JPG', photo('2026-03-02'), '50_stills/pier', 'pier_2026-03-02_#.jpg'],
  ['Pier 02-03-2026/DSC02002.JPG', photo('2026-03-02'), '50_stills/pier', 'pier_2026-03-02_#.jpg'],
  ['workshop/DSC02100.JPG', photo('2026-03-03'), '50_stills/workshop', 'workshop_2026-03-03_#.jpg'],
  ['pire/DSC02003.JPG', photo('2026-03-02'), '50_stills/pier', 'pier_2026-03-02_#.jpg'],
  ['mill-roof.jpg', photo('2026-03-03', '17:00:00'), '50_stills/mill-roof', 'mill-roof_2026-03-03_#.jpg'],
  ['DSC02222.JPG', photo('2026-03-03'), null, null, 'ask'],
  ['release Maud 2026-03-02.pdf', NONE, '10_paperwork/releases', null],
  ['Releases/signed 3 March 2026.pdf', NONE, '10_paperwork/releases', null],
  ['call sheet 20260303.pdf', NONE, '10_paperwork/call-sheets', '2026-03-03_call-sheet_behind-harbour-lights.pdf'],
  ['callsheet_2026-03-02.pdf', NONE, '10_paperwork/call-sheets', null],
  ['rough cut ME v2.otio', NONE, '60_edit', '26018_rough_ME_v002.otio'],
  ['26018_fine_ME_v001.otio', NONE, '60_edit', '26018_fine_ME_v001.otio'],
  ['teaser_Maud_v3.edl', NONE, '60_edit', '26018_trailer_ME_v003.edl'],
  ['trailer.otio', NONE, '60_edit', null, 'ask'],
  ['Behind Harbour Lights master.mov', NONE, '80_masters', '26018_MST_behind-harbour-lights.mov'],
];

const WALK: readonly Row[] = [
  ['station 3/20260410_take 1.wav', NONE, '30_stations/station-03/takes', null, 'ask'],
  ['20260410_03_ATM_002.wav', NONE, '30_stations/station-03/takes', '20260410_03_ATM_002.wav'],
  ['Station-05/2026-04-11 05 atmosphere 1.wav', NONE, '30_stations/station-05/takes', '20260411_05_ATM_001.wav'],
  ['station05 mix en v1.wav', NONE, '30_stations/station-05/mixes', '26021_05_en_v01.wav'],
  ['26021_03_en_v03.wav', NONE, '30_stations/station-03/mixes', '26021_03_en_v03.wav'],
  ['mix station 3 English v3.wav', NONE, '30_stations/station-03/mixes', '26021_03_en_v03.wav'],
  ['mixes/3_nl.wav', NONE, '30_stations/station-03/mixes', null, 'ask'],
  ['text german.odt', NONE, '20_texts/de', null],
  ['texts/nl/station 4.odt', NONE, '20_texts/nl', null],
  ['Tekst NL.odt', NONE, '20_texts/nl', null],
  ['Texts EN.pdf', NONE, '20_texts/en', null],
  ['field.wav', NONE, null, null, 'ask'],
  ['permit walk.pdf', NONE, '10_paperwork', null],
  ['quote tide walk.pdf', NONE, '10_paperwork', null],
];

/** Sound and picture that belong together, each recorded apart: paths in the heap of the film. */
export const PAIRS: readonly (readonly [picture: string, sound: string])[] = [
  ['pier cam a/A003_0142.MOV', 'recorder/pier/REC_0001.WAV'],
  ['pier cam a/A003_0143.MOV', 'recorder/pier/REC_0002.WAV'],
  ['pier/camera b/MVI_0044.MOV', 'recorder/pier/REC_0001.WAV'],
  ['Workshop/Cam B/MVI_0051.MOV', 'WORKSHOP-T07.wav'],
];

const habit = ([path, facts, to, name = null, ask]: Row): Habit => ({
  ...{ path, facts, to, name },
  isPlain: ask === undefined,
});

export const HABITS: Readonly<Record<ProjectName, readonly Habit[]>> = {
  show: SHOW.map(habit),
  film: FILM.map(habit),
  walk: WALK.map(habit),
};
