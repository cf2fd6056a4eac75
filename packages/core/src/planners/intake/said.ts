/** What a path says, word by word: dates, numbers, versions, entries of the project's lists, codes, people. */
import { fold } from '../../text/fold';

/** A word of a path, by its place in one folder's or the file's name. */
export interface Token {
  readonly text: string;
  /** Compared by: small letters without accents; of digits without leading noughts. */
  readonly key: string;
  readonly isDigits: boolean;
  /** Stands alone between separators: no letters or digits touch it. */
  readonly isWhole: boolean;
}

const PIECE = /[A-Z]+(?![a-z])|[A-Z]?[a-z]+|[0-9]+/g;

/** Words as people run them together: `WestFront`, `crane7`, `s03`. */
export function tokensOf(text: string): Token[] {
  const out: Token[] = [];
  for (const word of fold(text).text.split(/[^A-Za-z0-9]+/)) {
    const pieces = word.match(PIECE) ?? [];
    for (const piece of pieces) {
      const isDigits = piece.charCodeAt(0) < 58;
      const key = isDigits ? piece.replace(/^0+(?=.)/, '') : piece.toLowerCase();
      out.push({ text: piece, key, isDigits, isWhole: pieces.length === 1 });
    }
  }
  return out;
}

/** Without the ending that makes several of one. */
export const singular = (word: string): string =>
  word.length > 3 && word.endsWith('s') && !word.endsWith('ss') ? word.slice(0, -1) : word;

export interface FoundDate {
  /** ISO 8601. */
  readonly date: string;
  /** The time behind it, `hh:mm:ss`; `null` where none is said. */
  readonly time: string | null;
  /** Day and month could be meant the other way round, or the year is not said. */
  readonly isUnsure: boolean;
}

const MONTH = '(jan|feb|m(?:ar|r|aa|ä)|apr|ma[iy]|mei|jun|jul|aug|sep|o[ck]t|nov|de[cz])[a-z]*';
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
    is: new RegExp(`(?<!\\d)(\\d{1,2})(?:st|nd|rd|th|\\.)?[-_ ]?${MONTH}(?:[-_. ]*${YEAR})?(?![a-z0-9])`, 'i'),
    parts: (m) => [m[3] ?? null, monthOf(m[2] ?? ''), m[1] ?? ''],
    isUnsure: (m) => m[3] === undefined,
  },
  {
    is: new RegExp(`(?<![a-z])${MONTH}[-_ ]?(\\d{1,2})(?:st|nd|rd|th)?(?:,?[-_ ]*${YEAR})?(?!\\d)`, 'i'),
    parts: (m) => [m[3] ?? null, monthOf(m[1] ?? ''), m[2] ?? ''],
    isUnsure: (m) => m[3] === undefined,
  },
];

/** Months as four languages cut them short. */
const MONTHS: readonly RegExp[] = [
  ...[/^jan/, /^feb/, /^m(?:ar|r|aa|ä)/, /^apr/, /^ma[iy]|^mei/, /^jun/],
  ...[/^jul/, /^aug/, /^sep/, /^o[ck]t/, /^nov/, /^de[cz]/],
];

const monthOf = (word: string): string => String(MONTHS.findIndex((month) => month.test(word.toLowerCase())) + 1);

/**
 * The first date in a text, and what stands around it. `year` is taken where none is said: days are looked for around the
 * project's own.
 */
export interface DateIn {
  readonly found: FoundDate;
  readonly before: string;
  readonly after: string;
}

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
