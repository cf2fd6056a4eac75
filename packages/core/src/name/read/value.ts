/** Lists as people write them → their entries. */
import { elementAt } from '../../element';
import { LIMITS } from '../../limits';
import { nextDay, parseIso } from '../dates/dates';
import type { Value } from '../pattern/field';

export type Entries =
  | { readonly ok: true; readonly entries: readonly string[] }
  | { readonly ok: false; readonly code: 'range-bad' | 'too-many-entries'; readonly found: string };

/**
 * Entries of a list as people write them: an array, or one text parted by commas, semicolons or lines; each may be a
 * range
 * (`s01..s12`, `A..D`, `2026-03-02..2026-03-06`; an en dash is read too).
 */
export function entriesOf(value: Value | undefined): Entries {
  const given: string[] = [];
  const collect = (v: Value | undefined): void => {
    if (v === undefined || v === null) return;
    if (Array.isArray(v)) v.forEach(collect);
    else if (typeof v === 'string') given.push(...v.split(/[,;\n]/));
    else if (typeof v === 'object') {
      const entry = v as { readonly [key: string]: Value };
      given.push(String(entry.code ?? entry.initials ?? entry.name ?? ''));
    } else given.push(String(v));
  };
  collect(value);
  const entries: string[] = [];
  for (const raw of given) {
    const text = raw.trim();
    if (text === '') continue;
    const range = expandRange(text);
    if (range === 'bad') return { ok: false, code: 'range-bad', found: text };
    if (range === 'too-many' || entries.length + range.length > LIMITS.listEntries)
      return { ok: false, code: 'too-many-entries', found: text };
    entries.push(...range);
  }
  return { ok: true, entries };
}

function expandRange(text: string): string[] | 'bad' | 'too-many' {
  const m = /^(.+?)\s*(?:\.\.|–)\s*(.+)$/u.exec(text);
  if (m === null) return [text];
  const from = elementAt(m, 1).trim();
  const to = elementAt(m, 2).trim();
  const first = parseIso(from);
  const last = parseIso(to);
  if (
    first?.day !== undefined &&
    first.year !== undefined &&
    last?.day !== undefined &&
    first.hour === undefined &&
    last.hour === undefined
  )
    return dateRange(from, to);
  if (/^[A-Za-z]$/.test(from) && /^[A-Za-z]$/.test(to)) return letterRange(from, to);
  const a = /^(.*?)(\d+)$/.exec(from);
  const b = /^(.*?)(\d+)$/.exec(to);
  if (a && b && a[1] === b[1]) return countRange(elementAt(a, 1), elementAt(a, 2), elementAt(b, 2));
  if (a && /^\d+$/.test(to)) return countRange(elementAt(a, 1), elementAt(a, 2), to);
  // An en dash is also a dash in a title: only `..` is always a range.
  return text.includes('..') ? 'bad' : [text];
}

function countRange(head: string, from: string, to: string): string[] | 'bad' | 'too-many' {
  const first = Number(from);
  const last = Number(to);
  if (last < first) return 'bad';
  if (last - first >= LIMITS.listEntries) return 'too-many';
  const width = from.length;
  return Array.from({ length: last - first + 1 }, (_, i) => head + String(first + i).padStart(width, '0'));
}

function letterRange(from: string, to: string): string[] | 'bad' {
  const first = from.charCodeAt(0);
  const last = to.charCodeAt(0);
  if (last < first || first < 91 !== last < 91) return 'bad';
  return Array.from({ length: last - first + 1 }, (_, i) => String.fromCharCode(first + i));
}

function dateRange(from: string, to: string): string[] | 'bad' | 'too-many' {
  if (to < from) return 'bad';
  const out: string[] = [];
  const [year = 0, month = 0, day = 0] = from.split('-').map(Number);
  for (let at = { year, month, day }; ; at = nextDay(at)) {
    const text = `${String(at.year).padStart(4, '0')}-${String(at.month).padStart(2, '0')}-${String(at.day).padStart(2, '0')}`;
    out.push(text);
    if (text === to) return out;
    if (out.length >= LIMITS.listEntries) return 'too-many';
  }
}
