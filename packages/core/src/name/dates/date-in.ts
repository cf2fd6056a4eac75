/** The first day that a text says, in digits or in words of several languages. */
import { fold } from '../../text/fold';
import { monthOf } from './months';

export interface FoundDate {
  /** ISO 8601. */
  readonly date: string;
  /** The time behind it, `hh:mm:ss`; `null` where none is said. */
  readonly time: string | null;
  /** Day and month could be meant the other way round, or the year is not said. */
  readonly isUnsure: boolean;
}

const WORD = '([a-z]{3,10})';
const YEAR = '((?:19|20)\\d{2})';

interface DateForm {
  readonly is: RegExp;
  readonly parts: (m: RegExpExecArray) => readonly [year: string | null, month: string, day: string];
  readonly isUnsure?: (m: RegExpExecArray) => boolean;
}

/** The first that fits counts. */
const FORMS: readonly DateForm[] = [
  {
    is: new RegExp(`(?<!\\d)${YEAR}([-_. ])(\\d{1,2})\\2(\\d{1,2})(?!\\d)`),
    parts: (m) => [m[1] ?? '', m[3] ?? '', m[4] ?? ''],
  },
  {
    is: new RegExp(`(?<!\\d)${YEAR}(\\d{2})(\\d{2})(?:[-_ T]?([01]\\d|2[0-3])([0-5]\\d)([0-5]\\d))?(?!\\d)`),
    parts: (m) => [m[1] ?? '', m[2] ?? '', m[3] ?? ''],
  },
  {
    is: new RegExp(`(?<!\\d)(\\d{1,2})([-_./ ])(\\d{1,2})\\2${YEAR}(?!\\d)`),
    parts: (m) => (Number(m[3]) > 12 ? [m[4] ?? '', m[1] ?? '', m[3] ?? ''] : [m[4] ?? '', m[3] ?? '', m[1] ?? '']),
    // With full stops the day comes first; with other marks it may be either.
    isUnsure: (m) => m[2] !== '.' && Number(m[1]) <= 12 && Number(m[3]) <= 12 && m[1] !== m[3],
  },
  {
    is: new RegExp(`(?<!\\d)(\\d{1,2})(?:st|nd|rd|th|\\.)?[-_ ]*${WORD}(?:[-_. ]*${YEAR})?(?![a-z0-9])`, 'i'),
    parts: (m) => [m[3] ?? null, monthText(m[2] ?? ''), m[1] ?? ''],
    isUnsure: (m) => m[3] === undefined,
  },
  {
    is: new RegExp(`(?<![a-z])${WORD}[-_ ]?(\\d{1,2})(?:st|nd|rd|th)?(?:,?[-_ ]*${YEAR})?(?!\\d)`, 'i'),
    parts: (m) => [m[3] ?? null, monthText(m[1] ?? ''), m[2] ?? ''],
    isUnsure: (m) => m[3] === undefined,
  },
];

const monthText = (word: string): string => String(monthOf(word));

export interface DateIn {
  readonly found: FoundDate;
  readonly before: string;
  readonly after: string;
}

/**
 * The first date in a text, and what stands around it. `year` is taken where none is said: days are looked for around the
 * project's own.
 */
export function dateIn(text: string, year: string): DateIn | null {
  const plain = fold(text).text;
  for (const { is, parts, isUnsure } of FORMS) {
    const m = is.exec(plain);
    if (m === null) continue;
    const [y, month, day] = parts(m);
    const date = `${y ?? year}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
    if (!isDay(date)) continue;
    const hasTime = m.length > 6 && m[4] !== undefined;
    return {
      found: { date, time: hasTime ? `${m[4]}:${m[5]}:${m[6]}` : null, isUnsure: isUnsure?.(m) ?? false },
      before: plain.slice(0, m.index),
      after: plain.slice(m.index + m[0].length),
    };
  }
  return null;
}

export function isDay(date: string): boolean {
  const time = Date.parse(`${date}T00:00:00Z`);
  return !Number.isNaN(time) && new Date(time).toISOString().slice(0, 10) === date;
}
