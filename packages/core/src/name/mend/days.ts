/** The days a text may mean, in any form people write them. */
import { fold } from '../../text/fold';
import { dateIn } from '../dates/date-in';
import { type DateParts, isoOf, isReal, parseDatePattern, parseIso, readDate, writeDate } from '../dates/dates';
import type { SlotDomain } from '../pattern/slot-domain';
import { type Candidate, COST, DOUBT, doubted, made } from './costs';
import { digitsFor } from './near';

/** Marks between figures are hyphens here, whatever they were. */
const FORMS = [
  ...[
    'yyyy-M-d',
    'yyyy-MM-dd',
    'yyyyMMdd',
    'yyyy-MMdd',
    'd-M-yyyy',
    'dd-MM-yyyy',
    'ddMMyyyy',
    'M-d-yyyy',
    'MM-dd-yyyy',
    'MMddyyyy',
  ],
  ...['yy-M-d', 'yy-MM-dd', 'yyMMdd', 'd-M-yy', 'dd-MM-yy', 'ddMMyy'],
].map(formOf);
const WITHOUT_YEAR = ['MM-dd', 'M-d', 'dd-MM', 'd-M', 'MMdd'].map(formOf);

function formOf(source: string) {
  const form = parseDatePattern(source);
  if (form === null) throw new Error(`date form ${source}`);
  return form;
}

/** A time behind a day: `T0214`, `_21-14`, ` 23.59.01`. */
const TIME = /[-T_ ]+(?:[01]\d|2[0-3])[-.:h]?[0-5]\d(?:[-.:]?[0-5]\d)?$/;

/** The year is that of the project where none is said, and none so far from it is meant. */
const FAR = 2;

/** Every day the text may be; two different ones cost the same, so that neither is sure. */
export function dayCandidates(domain: Extract<SlotDomain, { kind: 'date' }>, text: string): Candidate[] {
  const days = daysIn(text, domain.pivot);
  if (days.length > 0) return written(domain, days, 0);
  const time = TIME.exec(text)?.[0].length ?? 0;
  // What the time was is lost: that is asked about.
  return time === 0 ? [] : written(domain, daysIn(text.slice(0, -time), domain.pivot), DOUBT);
}

interface Day {
  readonly date: DateParts;
  readonly isUnsure: boolean;
}

function written(domain: Extract<SlotDomain, { kind: 'date' }>, days: readonly Day[], more: number): Candidate[] {
  const found = new Map<string, Candidate>();
  for (const { date, isUnsure } of days) {
    const text = writeDate(date, domain.pattern);
    if (text === null) continue;
    const far = Math.abs((date.year ?? domain.pivot) - domain.pivot) > FAR ? DOUBT : 0;
    const cost = COST['date-form'] + far + more + (isUnsure ? DOUBT : 0);
    const known = found.get(text);
    if (known === undefined || known.cost > cost)
      found.set(text, (isUnsure || more > 0 || far > 0 ? doubted : made)(text, 'date-form', cost));
  }
  return [...found.values()];
}

/** ISO 8601, of every day the text may be. */
export const daysMeant = (text: string, year: number): string[] => daysIn(text, year).map(({ date }) => isoOf(date));

function daysIn(text: string, year: number): Day[] {
  if (!/\d/.test(text)) return [];
  const said = /\p{L}{3}/u.test(text) ? dateIn(text, String(year)) : null;
  if (said !== null) {
    const date = said.before === '' && said.after === '' ? parseIso(said.found.date) : null;
    return date === null ? [] : [{ date, isUnsure: said.found.isUnsure }];
  }
  const folded = digitsFor(fold(text).text);
  const plain = folded.replace(/[^0-9A-Za-z]+/g, '-');
  if (!/^\d[\d-]*\d$/.test(plain)) return [];
  const read = (forms: typeof FORMS) =>
    forms.flatMap((form) =>
      readDate(plain, 0, form, year)
        .filter((r) => r.end === plain.length && isReal(r.date))
        .map((r) => r.date),
    );
  const whole = read(FORMS).filter((date) => date.year !== undefined && Math.abs(date.year - year) < 50);
  // With full stops the day comes first.
  const dotted = /^(\d{1,2})\.(\d{1,2})\.\d+$/.exec(folded);
  const dayFirst = whole.find((date) => date.day === Number(dotted?.[1]) && date.month === Number(dotted?.[2]));
  if (whole.length > 0)
    return whole.map((date) => ({ date, isUnsure: dayFirst !== undefined && isoOf(date) !== isoOf(dayFirst) }));
  return read(WITHOUT_YEAR).map((date) => ({ date: { ...date, year }, isUnsure: true }));
}
