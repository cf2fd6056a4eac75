import { elementAt } from '../../element';

/**
 * A date as people type it → the day meant, counted from a given one: ISO, day and month, `tomorrow`, `next tue`, `in 2
 * weeks`.
 */
const DAYS = ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday'];
const MONTHS = [
  'january',
  'february',
  'march',
  'april',
  'may',
  'june',
  'july',
  'august',
  'september',
  'october',
  'november',
  'december',
];
const DAY_MS = 86_400_000;
/** A map, for people may type `constructor` as well. */
const NEAR: ReadonlyMap<string, number> = new Map([
  ['today', 0],
  ['tomorrow', 1],
  ['yesterday', -1],
]);

/** At least three letters, and no two that begin so. */
const indexOf = (words: readonly string[], text: string): number =>
  text.length < 3 ? -1 : words.findIndex((w) => w.startsWith(text));
const at = (time: number): string => new Date(time).toISOString().slice(0, 10);

/** `null` where there is no such day. */
function isoOf(year: number, month: number, day: number): string | null {
  const iso = `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
  const time = Date.parse(`${iso}T00:00:00Z`);
  return Number.isNaN(time) || at(time) !== iso ? null : iso;
}

/**
 * `today` in ISO 8601. `null` where no day is meant, or none that exists: 31 February is no day. A day and month
 * without a year is the next one that comes.
 */
export function dateFromWords(text: string, today: string): string | null {
  const words = text.trim().toLowerCase().replace(/\s+/g, ' ').replace(/,/g, '');
  const now = Date.parse(`${today}T00:00:00Z`);
  if (words === '' || Number.isNaN(now)) return null;
  const iso = /^(\d{4})-(\d{2})-(\d{2})$/.exec(words);
  if (iso) return isoOf(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  const near = NEAR.get(words);
  if (near !== undefined) return at(now + near * DAY_MS);
  const weekday = /^(next |this )?([a-z]{3,9})$/.exec(words);
  if (weekday) {
    const wanted = indexOf(DAYS, elementAt(weekday, 2));
    if (wanted >= 0) return at(now + dayDistance(new Date(now).getUTCDay(), wanted, weekday[1] === 'next ') * DAY_MS);
  }
  const span = /^(?:in )?\+?(\d{1,4}) ?(d|days?|w|weeks?|m|months?)$/.exec(words);
  if (span) return later(now, Number(span[1]), elementAt(span, 2).slice(0, 1));
  return dayAndMonth(words, today, now);
}

/** `tue` is the next one that comes, never today; `next tue` is that of the week after this one. */
function dayDistance(from: number, to: number, next: boolean): number {
  if (!next) return ((to - from + 6) % 7) + 1;
  const monday = (day: number) => (day + 6) % 7;
  return 7 - monday(from) + monday(to);
}

function later(now: number, count: number, unit: string): string | null {
  if (unit !== 'm') return at(now + count * (unit === 'w' ? 7 : 1) * DAY_MS);
  const day = new Date(now);
  const first = new Date(Date.UTC(day.getUTCFullYear(), day.getUTCMonth() + count, 1));
  const last = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 0)).getUTCDate();
  return at(Date.UTC(first.getUTCFullYear(), first.getUTCMonth(), Math.min(day.getUTCDate(), last)));
}

/**
 * `27.11.`, `27.11.2026`, `27 nov`, `nov 27 2026`. Numbers parted by slashes are day and month only where they cannot
 * be month and day.
 */
function dayAndMonth(words: string, today: string, now: number): string | null {
  const dots = /^(\d{1,2})\.\s?(\d{1,2})\.?\s?(\d{4}|\d{2})?$/.exec(words);
  const slashes = /^(\d{1,2})\/(\d{1,2})(?:\/(\d{4}))?$/.exec(words);
  const dayFirst = /^(\d{1,2})(?:\.|st|nd|rd|th)? ([a-z]{3,9})\.?(?: (\d{4}))?$/.exec(words);
  const monthFirst = /^([a-z]{3,9})\.? (\d{1,2})(?:st|nd|rd|th)?(?: (\d{4}))?$/.exec(words);
  const made = (day: number, month: number, year: string | undefined): string | null => {
    const whole =
      year === undefined ? Number(today.slice(0, 4)) : year.length === 2 ? 2000 + Number(year) : Number(year);
    const iso = isoOf(whole, month, day);
    if (iso === null || year !== undefined) return iso;
    return Date.parse(`${iso}T00:00:00Z`) < now ? (isoOf(whole + 1, month, day) ?? null) : iso;
  };
  if (dots) return made(Number(dots[1]), Number(dots[2]), dots[3]);
  if (slashes) {
    const [a, b] = [Number(slashes[1]), Number(slashes[2])];
    // Which of the two is the day cannot be known: nothing is guessed.
    return a <= 12 && b <= 12 && a !== b ? null : made(Math.max(a, b), Math.min(a, b), slashes[3]);
  }
  if (dayFirst && indexOf(MONTHS, elementAt(dayFirst, 2)) >= 0)
    return made(Number(dayFirst[1]), indexOf(MONTHS, elementAt(dayFirst, 2)) + 1, dayFirst[3]);
  if (monthFirst && indexOf(MONTHS, elementAt(monthFirst, 1)) >= 0)
    return made(Number(monthFirst[2]), indexOf(MONTHS, elementAt(monthFirst, 1)) + 1, monthFirst[3]);
  return null;
}
