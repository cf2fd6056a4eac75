/** The entry that most likely comes next in a list: the next day, camera or scene, so that one click adds it. */
import { elementAt } from '../element';
import { isoOf, nextDay, parseIso } from '../name/dates/dates';
import type { ScalarRule } from '../name/pattern/field';

/** `null` where only a person knows. `today` is an ISO date; a day that is gone is not offered. */
export function nextEntry(rule: ScalarRule, entries: readonly string[], today: string): string | null {
  const last = entries.at(-1);
  if (rule.type === 'date') {
    const date = last === undefined ? null : parseIso(last);
    if (date?.year === undefined || date.month === undefined || date.day === undefined) return today;
    const next = isoOf(nextDay({ year: date.year, month: date.month, day: date.day }));
    return next > today ? next : entries.includes(today) ? null : today;
  }
  if (rule.type === 'choice') return (rule.options ?? []).find((o) => !entries.includes(o.code))?.code ?? null;
  if (last === undefined)
    return rule.like !== undefined && /0/.test(rule.like)
      ? rule.like.replace(/0(?!.*0)/, '1')
      : rule.type === 'letters'
        ? 'A'
        : null;
  const next = /^[A-Y]$/.test(last) ? String.fromCharCode(last.charCodeAt(0) + 1) : counted(last);
  return next === null || entries.includes(next) ? null : next;
}

function counted(last: string): string | null {
  const parts = /^(.*?)(\d+)$/.exec(last);
  if (parts === null) return null;
  const digits = elementAt(parts, 2);
  return `${parts[1]}${String(Number(digits) + 1).padStart(digits.length, '0')}`;
}
