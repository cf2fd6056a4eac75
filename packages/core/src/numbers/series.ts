/**
 * How project numbers are made: a pattern of the year, the month, the client, the kind of project and a count, and when
 * that count
 * begins anew. Counting itself is the database's; here a number is written, and read again to see what it says.
 */

import { elementAt } from '../element';
import { LIMITS } from '../limits';
import { failure, type Result, success } from '../result';

export const RESETS = ['never', 'yearly', 'monthly', 'client', 'client-yearly'] as const;
export type Reset = (typeof RESETS)[number];

export interface NumberSeries {
  /** `{year}` (four digits), `{yy}`, `{month}`, `{client}`, `{kind}`, and once `{n}` with its digits: `{n:000}`. */
  readonly pattern: string;
  readonly reset: Reset;
  /** The first number of a count. */
  readonly start: number;
  /** What `{kind}` writes, by template. */
  readonly kinds: Readonly<Record<string, string>>;
}

export interface NumberContext {
  readonly year: number;
  readonly month: number;
  readonly client: string | null;
  readonly template: string | null;
}

export type SeriesFault =
  | { readonly code: 'series-part-unknown'; readonly found: string }
  | { readonly code: 'series-count-missing' | 'series-count-twice' | 'series-too-long' | 'series-misreadable' }
  | { readonly code: 'series-reset-unseen'; readonly found: string }
  | { readonly code: 'series-value-missing'; readonly found: 'client' | 'kind' }
  | { readonly code: 'series-letters'; readonly found: string };

type Piece =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'year' | 'yy' | 'month' | 'client' | 'kind' }
  | { readonly kind: 'n'; readonly digits: number };

/** A number read back: its count, and what counts together with it. */
export interface ReadNumber {
  readonly n: number;
  readonly scope: string;
}

export interface CompiledSeries {
  readonly series: NumberSeries;
  /** What counts together: a count begins anew in each scope. */
  scopeOf(context: NumberContext): string;
  write(context: NumberContext, n: number): Result<string, SeriesFault>;
  /** `null` for a number of another form. */
  read(number: string): ReadNumber | null;
}

export const DEFAULT_SERIES: NumberSeries = { pattern: '{yy}{n:000}', reset: 'yearly', start: 1, kinds: {} };

const PORTABLE = /^[A-Za-z0-9_.-]*$/;
const NEEDS: Readonly<Record<Reset, readonly ('year' | 'month' | 'client')[]>> = {
  never: [],
  yearly: ['year'],
  monthly: ['year', 'month'],
  client: ['client'],
  'client-yearly': ['client', 'year'],
};

export function compileSeries(series: NumberSeries): Result<CompiledSeries, SeriesFault> {
  const parsed = piecesOf(series.pattern);
  if (!parsed.ok) return parsed;
  const pieces = parsed.value;
  const faults: SeriesFault[] = [];
  const counts = pieces.filter((p) => p.kind === 'n').length;
  if (counts !== 1) faults.push({ code: counts === 0 ? 'series-count-missing' : 'series-count-twice' });
  const has = {
    year: pieces.some((p) => p.kind === 'year' || p.kind === 'yy'),
    month: pieces.some((p) => p.kind === 'month'),
    client: pieces.some((p) => p.kind === 'client'),
  };
  // A count that begins anew without its number saying so would give one number twice.
  for (const need of NEEDS[series.reset]) if (!has[need]) faults.push({ code: 'series-reset-unseen', found: need });
  // Where letters of any length touch, or digits touch the count behind it, a number could be read in two ways.
  for (const [i, p] of pieces.entries()) {
    const next = pieces[i + 1];
    if (next === undefined) continue;
    if (isCode(p) && (next.kind !== 'text' || /^[A-Za-z0-9]/.test(next.text)))
      faults.push({ code: 'series-misreadable' });
    // Codes hold hyphens: two of them need another separator somewhere between.
    const second = pieces.findIndex((q, k) => k > i && isCode(q));
    if (isCode(p) && second > i && !pieces.slice(i + 1, second).some((q) => q.kind === 'text' && /[_.]/.test(q.text)))
      faults.push({ code: 'series-misreadable' });
    if (p.kind === 'n' && (next.kind !== 'text' || /^\d/.test(next.text))) faults.push({ code: 'series-misreadable' });
  }
  if (faults.length > 0) return failure(faults);
  const reader = new RegExp(`^${pieces.map(domainOf).join('')}$`);
  const keys = pieces.filter((p) => p.kind !== 'text').map((p) => p.kind);
  const scope = (values: Readonly<Partial<Record<string, string>>>) =>
    NEEDS[series.reset]
      .map((need) => (need === 'year' ? `${Number(values.year ?? values.yy) % 100}` : (values[need] ?? '')))
      .join('/');
  return success({
    series,
    scopeOf: (context) =>
      scope({ year: String(context.year), month: two(context.month), client: context.client ?? '' }),
    write(context, n) {
      const out: string[] = [];
      for (const p of pieces) {
        const written = pieceText(p, context, n, series.kinds);
        if (written === null)
          return failure([{ code: 'series-value-missing', found: p.kind === 'client' ? 'client' : 'kind' }]);
        out.push(written);
      }
      const number = out.join('');
      return number.length > LIMITS.seriesLength ? failure([{ code: 'series-too-long' }]) : success(number);
    },
    read(number) {
      const m = number.length > LIMITS.seriesLength ? null : reader.exec(number);
      if (m === null) return null;
      const values: Record<string, string> = {};
      for (const [i, kind] of keys.entries()) values[kind] = elementAt(m, i + 1);
      return { n: Number(values.n), scope: scope(values) };
    },
  });
}

const SLOTS = ['year', 'yy', 'month', 'client', 'kind'] as const;

function piecesOf(pattern: string): Result<readonly Piece[], SeriesFault> {
  if (pattern.length > LIMITS.seriesLength) return failure([{ code: 'series-too-long' }]);
  const pieces: Piece[] = [];
  const faults: SeriesFault[] = [];
  for (const [part] of pattern.matchAll(/\{[^{}]*\}|[^{}]+|[{}]/g)) {
    const [, name, digits] = /^\{(\w+)(?::(0{1,8}))?\}$/.exec(part) ?? [];
    const kind = SLOTS.find((slot) => slot === name);
    if (name === 'n') pieces.push({ kind: 'n', digits: digits?.length ?? 1 });
    else if (kind !== undefined && digits === undefined) pieces.push({ kind });
    else if (part.startsWith('{') || part === '}') faults.push({ code: 'series-part-unknown', found: part });
    else if (!PORTABLE.test(part)) faults.push({ code: 'series-letters', found: part });
    else pieces.push({ kind: 'text', text: part });
  }
  return faults.length > 0 ? failure(faults) : success(pieces);
}

const isCode = (p: Piece): boolean => p.kind === 'client' || p.kind === 'kind';
const two = (n: number): string => String(n).padStart(2, '0');

function pieceText(
  p: Piece,
  { year, month, client, template }: NumberContext,
  n: number,
  kinds: NumberSeries['kinds'],
): string | null {
  switch (p.kind) {
    case 'text':
      return p.text;
    case 'year':
      return String(year).padStart(4, '0');
    case 'yy':
      return two(year % 100);
    case 'month':
      return two(month);
    case 'client':
      return client || null;
    case 'kind':
      return kinds[template ?? ''] || null;
    case 'n':
      return String(n).padStart(p.digits, '0');
  }
}

/** Fixed widths everywhere but where a separator follows; no repetition within another. */
function domainOf(p: Piece): string {
  switch (p.kind) {
    case 'text':
      return p.text.replace(/[.\\-]/g, '\\$&');
    case 'year':
      return '(\\d{4})';
    case 'yy':
    case 'month':
      return '(\\d{2})';
    case 'client':
    case 'kind':
      return '([A-Za-z0-9-]{1,12}?)';
    case 'n':
      return p.digits === 1 ? '([1-9]\\d{0,8})' : `(\\d{${p.digits}}|[1-9]\\d{${p.digits},8})`;
  }
}
