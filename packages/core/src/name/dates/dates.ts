import { elementAt } from '../../element';

/** Date forms: numeric Unicode date patterns (UTS #35) of `yyyy yy MM M dd d HH mm ss` and separators. */

const ITEMS = ['yyyy', 'yy', 'MM', 'M', 'dd', 'd', 'HH', 'mm', 'ss'] as const;
export type DateItem = (typeof ITEMS)[number];
export type DatePiece =
  | { readonly kind: 'item'; readonly item: DateItem }
  | { readonly kind: 'literal'; readonly text: string };

export interface DatePattern {
  readonly source: string;
  readonly pieces: readonly DatePiece[];
}

/** A calendar date, perhaps with a time; what a form does not hold is absent. */
export interface DateParts {
  readonly year?: number;
  readonly month?: number;
  readonly day?: number;
  readonly hour?: number;
  readonly minute?: number;
  readonly second?: number;
}

/** The form, or `null` where the text holds a letter that is no item, or an item twice. */
export function parseDatePattern(source: string): DatePattern | null {
  const pieces: DatePiece[] = [];
  const seen = new Set<string>();
  let at = 0;
  while (at < source.length) {
    const run = /^([A-Za-z])\1*/.exec(source.slice(at))?.[0];
    if (run === undefined) {
      pieces.push({ kind: 'literal', text: elementAt(source, at) });
      at++;
      continue;
    }
    const item = ITEMS.find((known) => known === run);
    if (item === undefined || seen.has(elementAt(run, 0))) return null;
    seen.add(elementAt(run, 0));
    pieces.push({ kind: 'item', item });
    at += run.length;
  }
  return seen.size > 0 ? { source, pieces } : null;
}

const pad = (n: number, width: number) => String(n).padStart(width, '0');

/** Writes what the form asks for; `null` where the date lacks a part of it. */
export function writeDate(date: DateParts, form: DatePattern): string | null {
  let out = '';
  for (const piece of form.pieces) {
    if (piece.kind === 'literal') {
      out += piece.text;
      continue;
    }
    const value = partOfDate(date, piece.item);
    if (value === undefined) return null;
    out += piece.item === 'yy' ? pad(value % 100, 2) : pad(value, piece.item.length);
  }
  return out;
}

function partOfDate(date: DateParts, item: DateItem): number | undefined {
  switch (item) {
    case 'yyyy':
    case 'yy':
      return date.year;
    case 'MM':
    case 'M':
      return date.month;
    case 'dd':
    case 'd':
      return date.day;
    case 'HH':
      return date.hour;
    case 'mm':
      return date.minute;
    case 'ss':
      return date.second;
  }
}

export interface DateRead {
  readonly end: number;
  readonly date: DateParts;
}

/**
 * Every way the form reads at `from`: one for most forms, more where `M` or `d` may take one digit or two.
 * Only real calendar dates are given. `pivot` is the year that `yy` is nearest to.
 */
export function readDate(text: string, from: number, form: DatePattern, pivot: number): DateRead[] {
  const out: DateRead[] = [];
  const walk = (piece: number, at: number, date: DateParts): void => {
    const p = form.pieces[piece];
    if (p === undefined) {
      if (isReal(date)) out.push({ end: at, date });
      return;
    }
    if (p.kind === 'literal') {
      if (text.startsWith(p.text, at)) walk(piece + 1, at + p.text.length, date);
      return;
    }
    const widths = p.item.length === 1 ? [2, 1] : [p.item.length];
    for (const width of widths) {
      const digits = text.slice(at, at + width);
      if (digits.length !== width || !/^\d+$/.test(digits)) continue;
      if (p.item.length === 1 && digits.startsWith('0')) continue;
      walk(piece + 1, at + width, { ...date, ...named(p.item, Number(digits), pivot) });
    }
  };
  walk(0, from, {});
  return out;
}

function named(item: DateItem, n: number, pivot: number): DateParts {
  switch (item) {
    case 'yyyy':
      return { year: n };
    case 'yy':
      return { year: nearestYear(n, pivot) };
    case 'MM':
    case 'M':
      return { month: n };
    case 'dd':
    case 'd':
      return { day: n };
    case 'HH':
      return { hour: n };
    case 'mm':
      return { minute: n };
    case 'ss':
      return { second: n };
  }
}

/** The year with these two last digits that lies within 50 years of the pivot. */
function nearestYear(twoDigits: number, pivot: number): number {
  const base = pivot - (pivot % 100) + twoDigits;
  if (base > pivot + 49) return base - 100;
  if (base <= pivot - 51) return base + 100;
  return base;
}

function daysIn(year: number, month: number): number {
  if (month === 2) return isLeap(year) ? 29 : 28;
  return [4, 6, 9, 11].includes(month) ? 30 : 31;
}

export const isLeap = (year: number): boolean => (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;

/** A date whose year is not known may be 29 February. */
export function isReal(date: DateParts): boolean {
  const { year, month, day, hour, minute, second } = date;
  if (year !== undefined && year < 1) return false;
  if (month !== undefined && (month < 1 || month > 12)) return false;
  if (day !== undefined && (day < 1 || day > daysIn(year ?? 2000, month ?? 1))) return false;
  return (hour ?? 0) <= 23 && (minute ?? 0) <= 59 && (second ?? 0) <= 59;
}

/** ISO 8601 of what is known: `2026-03-02`, `2026-03`, `--03-02`, `---02`, `2026-03-02T14:05`. */
export function isoOf(date: DateParts): string {
  const year = date.year === undefined ? '-' : pad(date.year, 4);
  const month = date.month !== undefined ? `-${pad(date.month, 2)}` : date.day !== undefined ? '-' : '';
  const day = date.day === undefined ? '' : `-${pad(date.day, 2)}`;
  const time = [date.hour, date.minute, date.second].filter((n) => n !== undefined).map((n) => pad(n, 2));
  const calendar = date.year === undefined && month === '' && day === '' ? '' : `${year}${month}${day}`;
  return time.length > 0 ? `${calendar}T${time.join(':')}` : calendar;
}

/**
 * Reads ISO 8601 dates as values are given and as names say them (`2026-03-02`, `2026-03`, `--03-02`, with an optional
 * time); `null` for anything else, 31 February too.
 */
export function parseIso(text: string): DateParts | null {
  const m = /^(?:(?:(\d{4})|-)(?:-(\d{2}))?(?:-?-(\d{2}))?)?(?:[T ](\d{2})(?::(\d{2})(?::(\d{2}))?)?)?$/.exec(
    text.trim(),
  );
  if (m === null || text.trim() === '') return null;
  const keys = ['year', 'month', 'day', 'hour', 'minute', 'second'] as const;
  const date: Record<string, number> = {};
  keys.forEach((key, i) => {
    if (m[i + 1] !== undefined) date[key] = Number(m[i + 1]);
  });
  return isReal(date) ? date : null;
}

/** The day after, for ranges of dates. */
export function nextDay(
  date: Required<Pick<DateParts, 'year' | 'month' | 'day'>>,
): Required<Pick<DateParts, 'year' | 'month' | 'day'>> {
  if (date.day < daysIn(date.year, date.month)) return { ...date, day: date.day + 1 };
  if (date.month < 12) return { ...date, month: date.month + 1, day: 1 };
  return { year: date.year + 1, month: 1, day: 1 };
}
