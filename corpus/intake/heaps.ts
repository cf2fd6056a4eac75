/**
 * Good names of a project as they come back from people: numbers lost, words for codes, folders flattened, other
 * separators. Made from the names, not from the rules that sort them.
 */
import type { Habit } from './habits';
import type { ProjectName } from './projects';

/** A small generator of the same numbers each time. */
function random(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 4294967296;
  };
}

interface Good {
  readonly folder: string;
  readonly name: string;
  /** Words of the folder's way that tell it apart; one of them stays where the name lost them. */
  readonly way: readonly string[];
}

const TASKS = ['anim', 'comp', 'layout', 'light', 'fx', 'model'] as const;
const pad = (n: number, width: number) => String(n).padStart(width, '0');

function goodOfShow(pick: <T>(of: readonly T[]) => T, number: (to: number) => number): Good {
  const surface = pick(['west-front', 'clock-tower', 'crane-7']);
  const scene = pick(['s01', 's02', 's03', 's04', 's05', 's06']);
  const stand = pick(['pier', 'mill-roof']);
  switch (number(5)) {
    case 0: {
      const name = `26014_${surface}_${scene}_${pick(TASKS)}_${pick(['BO', 'LV', 'AP'])}_v${pad(5 + number(9), 3)}.usda`;
      return { folder: `40_motion/${surface}/${scene}/working`, name, way: [surface, scene, 'working'] };
    }
    case 1: {
      const language = pick(['en', 'nl']);
      return {
        folder: `50_sound/speech/${language}`,
        name: `26014_SPK_${language}_${scene}_v${pad(1 + number(8), 2)}.wav`,
        way: ['speech', language],
      };
    }
    case 2:
      return {
        folder: '50_sound/atmosphere',
        name: `26014_ATM_${scene}_v${pad(1 + number(8), 2)}.wav`,
        way: ['atmosphere'],
      };
    case 3: {
      const night = pick(['2026-03-02', '2026-03-04']);
      const name = `${stand}_${night}_${pad(40 + number(400), 4)}.jpg`;
      return { folder: `20_survey/test-nights/${stand}/${night}`, name, way: ['test nights', stand, night] };
    }
    default: {
      const subject = pick(['quote', 'invoice']);
      const day = `2026-02-${pad(1 + number(27), 2)}`;
      return { folder: '10_paperwork/quotes', name: `${day}_${subject}_harbour-lights.pdf`, way: ['quotes'] };
    }
  }
}

function goodOfFilm(pick: <T>(of: readonly T[]) => T, number: (to: number) => number): Good {
  const day = pick(['2026-03-02', '2026-03-03']);
  const place = pick(['pier', 'workshop', 'mill-roof']);
  const compact = day.replaceAll('-', '');
  switch (number(4)) {
    case 0: {
      const camera = pick(['a', 'b']);
      const name = `26018_${compact}_${place}_${camera}_${pad(10 + number(300), 3)}.mov`;
      return { folder: `30_clips/${day}`, name, way: ['clips', day] };
    }
    case 1:
      return {
        folder: `40_sound/${day}`,
        name: `26018_${compact}_${place}_T${pad(10 + number(300), 3)}.wav`,
        way: ['sound', day],
      };
    case 2:
      return {
        folder: `50_stills/${place}`,
        name: `${place}_${day}_${pad(10 + number(900), 4)}.jpg`,
        way: ['stills', place],
      };
    default:
      return {
        folder: '60_edit',
        name: `26018_${pick(['rough', 'fine', 'trailer'])}_${pick(['ME', 'BO'])}_v${pad(1 + number(20), 3)}.otio`,
        way: ['edit'],
      };
  }
}

function goodOfWalk(pick: <T>(of: readonly T[]) => T, number: (to: number) => number): Good {
  const station = pad(1 + number(8), 2);
  if (number(2) === 0) {
    const name = `26021_${station}_${pick(['en', 'nl', 'de'])}_v${pad(3 + number(9), 2)}.wav`;
    return { folder: `30_stations/station-${station}/mixes`, name, way: [`station ${station}`, 'mixes'] };
  }
  const name = `202604${pad(1 + number(28), 2)}_${station}_${pick(['SPK', 'ATM'])}_${pad(1 + number(40), 3)}.wav`;
  return { folder: `30_stations/station-${station}/takes`, name, way: [`station ${station}`, 'takes'] };
}

const MAKERS = { show: goodOfShow, film: goodOfFilm, walk: goodOfWalk } as const;

/** Long words people write for codes of names. */
const LONG: Readonly<Record<string, string>> = {
  anim: 'animation',
  comp: 'compositing',
  light: 'Lighting',
  SPK: 'speech',
  ATM: 'atmosphere',
  BO: 'Bram',
  LV: 'Lucía',
  ME: 'Maud',
  rough: 'roughcut',
};

type Disturbance = (name: string, random: () => number) => string;

/** What people do to names; each keeps all that the name says. */
const KEEPING: readonly Disturbance[] = [
  (name) => name,
  (name) => name.replaceAll('_', ' '),
  (name) => name.replaceAll('_', '-'),
  (name) => name.toUpperCase(),
  (name) => name.replace(/_v0*(\d+)/, '_V$1'),
  (name) => name.replace(/_v0*(\d+)/, ' version $1'),
  (name) => name.replace(/^26\d{3}_/, ''),
  (name) => name.replace(/(\.\w+)$/, ' (1)$1'),
  (name) => name.replace(/(\.\w+)$/, '_final$1'),
  (name) => name.replace(/(20\d\d)-?(\d\d)-?(\d\d)/, '$3.$2.$1'),
  (name) =>
    name
      .split('_')
      .map((part) => LONG[part] ?? part)
      .join('_'),
  (name) => name.replace(/-/g, ' '),
];

/** Names that devices and systems give: all is lost but what the folder says. */
const LOSING: readonly Disturbance[] = [
  (name, r) => `IMG_${pad(Math.floor(r() * 9000) + 1000, 4)}${name.slice(name.lastIndexOf('.'))}`,
  (name) => `Untitled${name.slice(name.lastIndexOf('.'))}`,
];

const SIZE = 160;

/** The same heap each time. */
export function heapsOfNames(project: ProjectName): readonly Habit[] {
  const next = random(project.length * 7919 + 11);
  const number = (to: number) => Math.floor(next() * to);
  const pick = <T>(of: readonly T[]): T => of[number(of.length)] as T;
  const seen = new Set<string>();
  const out: Habit[] = [];
  while (out.length < SIZE) {
    const good = MAKERS[project](pick, number);
    const isLost = next() < 0.15;
    const broken = pick(isLost ? LOSING : KEEPING)(good.name, next);
    // Flattened, with the last folder's name, or with all of the way.
    const kept = isLost ? pick([0, 1]) : pick([0, 0, 1, 2]);
    const way = kept === 0 ? [] : kept === 1 ? good.way.slice(-1) : good.way;
    const path = [...way, broken].join('/');
    // Each name comes once: two files of one name are a question, and another matter.
    if (seen.has(path.toLowerCase()) || seen.has(good.name)) continue;
    seen.add(path.toLowerCase()).add(good.name);
    // A counter or version may be counted on where another has it by then.
    const name = isLost ? null : good.name;
    out.push({
      path,
      facts: {},
      to: isLost && way.length < good.way.length ? null : good.folder,
      name,
      isPlain: !isLost,
    });
  }
  return out;
}
