/** Sound that was recorded apart, and the pictures of the same take: by time or timecode, else by name. */
import { nameOf } from '../../listing/entry';
import type { LooseFile } from './recognise';

export interface Pair {
  /** Paths in the source. */
  readonly picture: string;
  readonly sound: string;
  readonly by: 'timecode' | 'time' | 'name' | 'hand';
  /** Seconds from the picture's beginning to the sound's, clocks set right; `null` where no time is known. */
  readonly offset: number | null;
  /** Seconds both run. */
  readonly overlap: number;
}

/** The recorders' clocks were ahead of the cameras' by so much, as so many pairs say. */
export interface ClockShift {
  readonly seconds: number;
  readonly pairs: number;
}

export interface Pairing {
  /** Seconds that a gap between the two may have. */
  readonly tolerance: number;
  /** Seconds by which the recorders' clocks are ahead; `null` for what most pairs agree on. */
  readonly shift: number | null;
  readonly joined: readonly { readonly picture: string; readonly sound: string }[];
  readonly parted: readonly { readonly picture: string; readonly sound: string }[];
}

export const PLAIN_PAIRING: Pairing = { tolerance: 2, shift: null, joined: [], parted: [] };

interface Take {
  readonly path: string;
  /** Seconds, on one day's or one timecode's scale. */
  readonly from: number;
  readonly to: number;
}

export function pairsOf(files: readonly LooseFile[], pairing: Pairing): readonly Pair[] {
  const parted = new Set(pairing.parted.map(keyOf));
  const known = new Set(files.map(({ path }) => path));
  const byHand = pairing.joined.filter((pair) => known.has(pair.picture) && known.has(pair.sound));
  const joined = new Set(byHand.map(keyOf));
  const found = [...byTime(files, pairing, 'timecode'), ...byTime(files, pairing, 'time')];
  const isOpen = (pair: { picture: string; sound: string }) => !parted.has(keyOf(pair)) && !joined.has(keyOf(pair));
  const timed = uniquePairs(found.filter(isOpen));
  const paired = new Set([...timed, ...byHand].flatMap(({ picture, sound }) => [picture, sound]));
  const named = byName(files.filter(({ path }) => !paired.has(path))).filter(isOpen);
  return [...byHand.map((pair): Pair => ({ ...pair, by: 'hand', offset: null, overlap: 0 })), ...timed, ...named];
}

const keyOf = ({ picture, sound }: { readonly picture: string; readonly sound: string }): string =>
  `${picture}\0${sound}`;

function uniquePairs(pairs: readonly Pair[]): readonly Pair[] {
  const byKey = new Map<string, Pair>();
  for (const pair of pairs) if (!byKey.has(keyOf(pair))) byKey.set(keyOf(pair), pair);
  return [...byKey.values()];
}

/** Each picture with the sound that runs with it longest. */
function byTime(files: readonly LooseFile[], { tolerance, shift }: Pairing, by: 'timecode' | 'time'): readonly Pair[] {
  const takeOf = by === 'time' ? timeTake : codeTake;
  // Timecode is set alike on purpose: only clocks differ.
  const ahead = by === 'time' ? (shift ?? 0) : 0;
  const sounds = takes(files, 'sound', takeOf).map((take) => ({
    ...take,
    from: take.from - ahead,
    to: take.to - ahead,
  }));
  return takes(files, 'picture', takeOf).flatMap((picture) => {
    const best = longestWith(sounds, picture, tolerance);
    if (best === null) return [];
    return [{ picture: picture.path, sound: best.path, by, offset: best.from - picture.from, overlap: best.overlap }];
  });
}

/** `sounds` in the order of their beginnings. */
function longestWith(sounds: readonly Take[], picture: Take, tolerance: number): (Take & { overlap: number }) | null {
  let best: (Take & { overlap: number }) | null = null;
  // The first that begins behind the picture's end, by halves: all in question stand before it.
  let [low, high] = [0, sounds.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((sounds[middle]?.from ?? 0) <= picture.to + tolerance) low = middle + 1;
    else high = middle;
  }
  for (let at = low - 1; at >= 0 && low - at <= MOST_LOOKED_BACK; at--) {
    const sound = sounds[at] as Take;
    const overlap = Math.min(sound.to, picture.to) - Math.max(sound.from, picture.from);
    if (overlap > -tolerance && (best === null || overlap > best.overlap)) best = { ...sound, overlap };
  }
  return best === null ? null : { ...best, overlap: Math.max(0, best.overlap) };
}

/** Sounds before a picture's end that are looked at: no recorder runs through more of them. */
const MOST_LOOKED_BACK = 200;

function takes(files: readonly LooseFile[], has: 'sound' | 'picture', takeOf: typeof timeTake): readonly Take[] {
  return files
    .filter(({ facts }) => facts.has === has)
    .flatMap((file) => takeOf(file) ?? [])
    .sort((a, b) => a.from - b.from);
}

function timeTake({ path, facts }: LooseFile): Take | null {
  if (facts.taken === undefined) return null;
  const from = Date.parse(`${facts.taken}Z`) / 1000;
  return Number.isNaN(from) ? null : { path, from, to: from + (facts.seconds ?? 0) };
}

function codeTake({ path, facts }: LooseFile): Take | null {
  const m = /^(\d{2}):(\d{2}):(\d{2})[:;](\d{2,3})$/.exec(facts.timecode ?? '');
  if (m === null) return null;
  const [hours, minutes, seconds, frames] = m.slice(1).map(Number) as [number, number, number, number];
  const day = facts.taken === undefined ? 0 : Date.parse(`${facts.taken.slice(0, 10)}T00:00:00Z`) / 1000;
  const from = day + hours * 3600 + minutes * 60 + seconds + frames / (facts.frameRate ?? 25);
  return { path, from, to: from + (facts.seconds ?? 0) };
}

/** One of each whose names are alike but for what they are: `T003.wav` and `T003.mov`. */
function byName(files: readonly LooseFile[]): readonly Pair[] {
  const stem = ({ path }: LooseFile) =>
    nameOf(path)
      .replace(/\.[^.]*$/, '')
      .toLowerCase();
  const of = (has: 'sound' | 'picture') => {
    const byStem = new Map<string, string[]>();
    for (const file of files)
      if (file.facts.has === has) byStem.set(stem(file), [...(byStem.get(stem(file)) ?? []), file.path]);
    return byStem;
  };
  const sounds = of('sound');
  return [...of('picture')].flatMap(([name, pictures]): Pair[] => {
    const [picture, sound] = [pictures[0], sounds.get(name)?.[0]];
    if (pictures.length !== 1 || sounds.get(name)?.length !== 1 || picture === undefined || sound === undefined)
      return [];
    return [{ picture, sound, by: 'name', offset: null, overlap: 0 }];
  });
}

/** Pairs that must agree, and of all there could be; the seconds they may differ: a recorder is begun by hand. */
const FEWEST_PAIRS = 3;
const SHARE = 0.6;
const AGREEING = 12;
/** How far clocks are apart at most. */
const MOST_SHIFT = 12 * 3600;
const MOST_TAKES = 2000;

/** What most pairs would agree on; `null` where none do, or the clocks agree. */
export function clockShift(files: readonly LooseFile[], { tolerance }: Pairing): ClockShift | null {
  const pictures = takes(files, 'picture', timeTake).slice(0, MOST_TAKES);
  const sounds = takes(files, 'sound', timeTake).slice(0, MOST_TAKES);
  const shifts = pictures.flatMap((picture) =>
    sounds
      .filter((sound) => isAlike(picture, sound) && Math.abs(sound.from - picture.from) <= MOST_SHIFT)
      .map((sound) => ({ seconds: sound.from - picture.from, picture: picture.path, sound: sound.path })),
  );
  shifts.sort((a, b) => a.seconds - b.seconds);
  const best = mostAgreeing(shifts);
  if (best === null || best.pairs < SHARE * Math.min(pictures.length, sounds.length)) return null;
  const unshifted = byTime(files, { ...PLAIN_PAIRING, tolerance, shift: 0 }, 'time').length;
  // Begun a little before each other, with clocks that agree, they overlap as they are.
  return Math.abs(best.seconds) <= Math.max(tolerance, AGREEING) && best.pairs <= unshifted ? null : best;
}

/** About as long: a sound is begun a little before and ended a little after its picture. */
function isAlike(picture: Take, sound: Take): boolean {
  const [p, s] = [picture.to - picture.from, sound.to - sound.from];
  return p > 0 && s > 0 && s > p * 0.6 && s < p * 2 + 30;
}

interface Shift {
  readonly seconds: number;
  readonly picture: string;
  readonly sound: string;
}

/** Of a sorted list the stretch with the most different pairs in it. */
function mostAgreeing(shifts: readonly Shift[]): ClockShift | null {
  let best: { pairs: number; from: number; to: number } | null = null;
  let from = 0;
  for (let to = 0; to < shifts.length; to++) {
    while ((shifts[to]?.seconds ?? 0) - (shifts[from]?.seconds ?? 0) > AGREEING) from++;
    // Two cameras share one sound: sounds are what is counted.
    if (best !== null && to - from + 1 <= best.pairs) continue;
    const pairs = new Set(shifts.slice(from, to + 1).map(({ sound }) => sound)).size;
    if (best === null || pairs > best.pairs) best = { pairs, from, to };
  }
  if (best === null || best.pairs < FEWEST_PAIRS) return null;
  const agreeing = shifts.slice(best.from, best.to + 1).map(({ seconds }) => seconds);
  const middle = agreeing[agreeing.length >> 1] ?? 0;
  return { seconds: Math.round(middle), pairs: best.pairs };
}
