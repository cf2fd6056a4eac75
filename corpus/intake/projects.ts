/** Projects that heaps are brought into: what they are started with, and what lies in them already. */
import type { Registers, Values } from '@nesting/core/name';
import type { Template } from '@nesting/core/template';
import registersFile from '../../demo/registers.json';
import facade from '../../demo/templates/facade-show.nest.json';
import film from '../../demo/templates/making-of.nest.json';
import walk from '../../demo/templates/sound-only-walk.nest.json';

export interface HeapProject {
  readonly template: Template;
  readonly values: Values;
  readonly there: readonly string[];
}

export const REGISTERS = registersFile as Registers;

export const PROJECTS = {
  show: {
    template: facade as unknown as Template,
    values: {
      number: '26014',
      title: 'Harbour Lights',
      client: 'QHT',
      date: '2026-03-20',
      person: 'IT',
      surfaces: ['west-front', 'clock-tower', 'crane-7'],
      scenes: 's01..s06',
      stands: ['pier', 'mill-roof'],
      nights: ['2026-03-02', '2026-03-04'],
      speech: 'spoken',
      languages: ['en', 'nl'],
      issues: ['A'],
    },
    there: [
      '20_survey/test-nights/pier/2026-03-02/pier_2026-03-02_0020.jpg',
      '20_survey/test-nights/pier/2026-03-02/pier_2026-03-02_0021.jpg',
      '40_motion/west-front/s03/working/26014_west-front_s03_anim_BO_v004.usda',
      '50_sound/music/26014_MUS_v03.wav',
    ],
  },
  film: {
    template: film as unknown as Template,
    values: {
      number: '26018',
      title: 'Behind Harbour Lights',
      client: 'QHT',
      date: '2026-04-10',
      person: 'ME',
      places: ['pier', 'workshop', 'mill-roof'],
      days: ['2026-03-02', '2026-03-03'],
      cameras: ['a', 'b'],
    },
    there: ['30_clips/2026-03-02/26018_20260302_pier_a_001.mov'],
  },
  walk: {
    template: walk as unknown as Template,
    values: {
      number: '26021',
      title: 'Tide Walk',
      client: 'OTM',
      date: '2026-05-01',
      person: 'TF',
      stations: '1..8',
      languages: ['en', 'nl', 'de'],
    },
    there: ['30_stations/station-03/mixes/26021_03_en_v02.wav'],
  },
} as const satisfies Record<string, HeapProject>;

export type ProjectName = keyof typeof PROJECTS;
