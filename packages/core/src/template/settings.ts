/** Settings of a setup sheet that files can be held to: what was agreed, as people write it, against what a file tells. */
import type { MediaFacts } from '../listing/media-facts';
import { assertNever } from '../result';

export const SETTING_FACTS = ['frameRate', 'pictureSize', 'soundRate', 'units'] as const;
/** What of a file is held to a setting: frames a second; pixels; samples a second; what one unit of a scene stands for. */
export type SettingFact = (typeof SETTING_FACTS)[number];

/** One number; of a picture its width and its height. */
type Measure = readonly number[];

export interface SettingTold {
  readonly isRight: boolean;
  /** What the file has, as people write it. */
  readonly found: string;
}

/** `null` where the file tells nothing of it, or what was agreed cannot be understood. */
export function settingTold(fact: SettingFact, agreed: string, facts: MediaFacts): SettingTold | null {
  const [wanted, found] = [readSetting(fact, agreed), measureOf(fact, facts)];
  if (wanted === null || found === null) return null;
  const most = TOLERANCE[fact];
  const isRight = wanted.every((value, at) => Math.abs(value - (found[at] ?? Number.NaN)) <= most * (value || 1));
  return { isRight, found: measureWords(fact, found) };
}

/** As shares. Rates a thousandth apart are two (24 and 23.976); headers round them to two or three digits. */
const TOLERANCE: Readonly<Record<SettingFact, number>> = {
  frameRate: 0.0004,
  pictureSize: 0,
  soundRate: 0,
  units: 0.001,
};

/** What was agreed, as numbers; `null` where it cannot be understood. */
export function readSetting(fact: SettingFact, text: string): Measure | null {
  switch (fact) {
    case 'frameRate':
      return readFrameRate(text);
    case 'pictureSize': {
      const found = /(\d{2,5})\s*(?:×|x|\*|by)\s*(\d{2,5})/i.exec(text);
      return found === null ? null : [Number(found[1]), Number(found[2])];
    }
    case 'soundRate':
      return readSoundRate(text);
    case 'units':
      return readUnits(text);
    default:
      return assertNever(fact);
  }
}

/** A size may stand before the rate (`1080p25`), and `i` counts fields, of which two are a frame. */
function readFrameRate(text: string): Measure | null {
  const sized = /^\s*\d{3,4}\s*([pi])\s*\/?\s*(\d+(?:[.,]\d+)?)/i.exec(text);
  if (sized !== null) return within([numberOf(sized[2]) / (isFields(sized[1]) ? 2 : 1)], MOST_FRAMES);
  const found = /^\s*(\d+(?:[.,]\d+)?)\s*(?:\/\s*(\d+))?\s*([pi])?\b/i.exec(text);
  if (found === null) return null;
  return within([numberOf(found[1]) / Number(found[2] ?? 1) / (isFields(found[3]) ? 2 : 1)], MOST_FRAMES);
}

const MOST_FRAMES = 1000;
const isFields = (letter: string | undefined): boolean => letter?.toLowerCase() === 'i';

/** Depths of samples may stand beside it; a bare number is in hertz or in thousands of them. */
function readSoundRate(text: string): Measure | null {
  const thousands = /(\d+(?:[.,]\d+)?)\s*k(?:hz)?\b/i.exec(text);
  if (thousands !== null) return within([Math.round(numberOf(thousands[1]) * 1000)], MOST_HERTZ);
  // In hertz what parts digits by three is no decimal sign.
  const hertz = /(\d[\d.,  ]*)hz\b/i.exec(text.replace(/(\d)[.,  ](?=\d{3}\b)/g, '$1'));
  if (hertz !== null) return within([numberOf(hertz[1])], MOST_HERTZ);
  const bare = /^\s*(\d+(?:[.,]\d+)?)\s*$/.exec(text);
  const rate = numberOf(bare?.[1]);
  return bare === null ? null : within([rate < 1000 ? rate * 1000 : rate], MOST_HERTZ);
}

const MOST_HERTZ = 10_000_000;

function readUnits(text: string): Measure | null {
  const found = [...text.toLowerCase().matchAll(/(?:(\d+(?:[.,]\d+)?)\s*)?\b([a-z]+)\b|(\d+(?:[.,]\d+)?)([a-z]+)\b/g)];
  for (const [, count, word, closeCount, closeWord] of found.reverse()) {
    const metres = METRES.get(word ?? closeWord ?? '');
    if (metres !== undefined) return within([numberOf(count ?? closeCount ?? '1') * metres], MOST_METRES);
  }
  return null;
}

const MOST_METRES = 1e7;
const UNITS: readonly (readonly [metres: number, words: readonly string[]])[] = [
  [0.001, ['mm', 'millimetre', 'millimeter', 'millimetres', 'millimeters']],
  [0.01, ['cm', 'centimetre', 'centimeter', 'centimetres', 'centimeters']],
  [0.0254, ['in', 'inch', 'inches']],
  [0.3048, ['ft', 'foot', 'feet']],
  [0.9144, ['yd', 'yard', 'yards']],
  [1, ['m', 'metre', 'meter', 'metres', 'meters']],
  [1000, ['km', 'kilometre', 'kilometer', 'kilometres', 'kilometers']],
];
const METRES: ReadonlyMap<string, number> = new Map(
  UNITS.flatMap(([metres, words]) => words.map((word) => [word, metres] as const)),
);

const numberOf = (text: string | undefined): number => Number((text ?? '').replace(',', '.'));

const within = (measure: Measure, most: number): Measure | null =>
  measure.every((value) => value > 0 && value <= most) ? measure : null;

function measureOf(fact: SettingFact, facts: MediaFacts): Measure | null {
  const { frameRate, width, height, sampleRate, metresPerUnit } = facts;
  switch (fact) {
    case 'frameRate':
      return known(frameRate);
    case 'pictureSize':
      return known(width, height);
    case 'soundRate':
      return known(sampleRate);
    case 'units':
      return known(metresPerUnit);
    default:
      return assertNever(fact);
  }
}

const known = (...values: readonly (number | undefined)[]): Measure | null =>
  values.every((value) => value !== undefined && value > 0) ? (values as Measure) : null;

function measureWords(fact: SettingFact, [first = 0, second = 0]: Measure): string {
  switch (fact) {
    case 'frameRate':
      return short(first);
    case 'pictureSize':
      return `${first} × ${second}`;
    case 'soundRate':
      return first < 1000 ? `${first} Hz` : `${short(first / 1000)} kHz`;
    case 'units':
      return UNITS.find(([metres]) => Math.abs(metres - first) < metres / 1000)?.[1][0] ?? `${short(first)} m`;
    default:
      return assertNever(fact);
  }
}

const short = (value: number): string => String(Number(value.toPrecision(6)));
