/** Values as given → values as kept: codes for register entries and choices, lists written out. */

import { elementAt } from '../element';
import { parseIso } from '../name/dates/dates';
import {
  type Field,
  isKeyed,
  type ListField,
  type Registers,
  type ScalarRule,
  type Value,
  type Values,
} from '../name/pattern/field';
import { likePieces } from '../name/pattern/slot-domain';
import { entriesOf } from '../name/read/value';
import { findEntry, fitLike, hasValue, plainText } from '../name/write';
import { ownValue } from '../own-value';
import type { Params } from '../result';

export type ValueFaultCode =
  | 'field-required'
  | 'choice-unknown'
  | 'client-unknown'
  | 'client-retired'
  | 'person-unknown'
  | 'person-retired'
  | 'date-bad'
  | 'count-bad'
  | 'like-bad'
  | 'range-bad'
  | 'too-many-entries'
  | 'entry-twice';

export interface ValueFault {
  readonly code: ValueFaultCode;
  readonly field: string;
  readonly weight: 'refused' | 'awkward';
  readonly params: Params;
}

/** Entries of a list: the same everywhere, or by the entry of the list it stands within. */
export interface ListEntries {
  readonly all: readonly string[];
  readonly by: ReadonlyMap<string, readonly string[]> | null;
}

export interface KeptValues {
  readonly values: Values;
  readonly lists: ReadonlyMap<string, ListEntries>;
  readonly faults: readonly ValueFault[];
}

export function keepValues(fields: readonly Field[], given: Values, registers: Registers): KeptValues {
  const faults: ValueFault[] = [];
  const values: Record<string, Value> = {};
  const lists = new Map<string, ListEntries>();
  for (const [key, value] of Object.entries(given)) {
    // Fields no template declares keep what their name says they are.
    if (fields.some((f) => f.key === key) || !hasValue(value)) continue;
    const type = key === 'client' || key === 'person' || key === 'date' ? key : 'text';
    values[key] = keepScalar(key, { type }, value, registers, faults);
  }
  for (const field of fields) {
    const value = ownValue(given, field.key);
    if (field.type === 'list') {
      const list = keepList(field, value, registers, faults);
      lists.set(field.key, list);
      values[field.key] = list.by === null ? list.all : Object.fromEntries(list.by);
    } else if (hasValue(value)) values[field.key] = keepScalar(field.key, field, value, registers, faults);
    else if (field.required)
      faults.push({
        code: 'field-required',
        field: field.key,
        weight: 'refused',
        params: { field: field.label ?? field.key },
      });
  }
  return { values, lists, faults };
}

function keepScalar(field: string, rule: ScalarRule, value: Value, registers: Registers, faults: ValueFault[]): Value {
  const no = (code: ValueFaultCode, params: Params = {}, weight: ValueFault['weight'] = 'refused') =>
    faults.push({ code, field, weight, params: { field, value: plainText(value), ...params } });
  const text = plainText(value).trim();
  switch (rule.type) {
    case 'choice': {
      const entry = findEntry(
        (rule.options ?? []).map((o) => ({
          text: o.code,
          value: o.code,
          retired: false,
          also: [...(o.label === undefined ? [] : [o.label]), ...(o.also ?? [])],
        })),
        text,
      );
      if (!entry) no('choice-unknown', { known: (rule.options ?? []).map((o) => o.code) });
      return entry ? String(entry.value) : text;
    }
    case 'client': {
      const found =
        registers.clients.find((c) => c.code === text) ??
        registers.clients.find(
          (c) => c.code.toLowerCase() === text.toLowerCase() || c.name.toLowerCase() === text.toLowerCase(),
        );
      if (!found) no('client-unknown');
      else if (found.retired) no('client-retired', {}, 'awkward');
      return found?.code ?? text;
    }
    case 'person': {
      const found =
        registers.people.find((p) => p.initials === text) ??
        registers.people.find(
          (p) => p.initials.toLowerCase() === text.toLowerCase() || p.name.toLowerCase() === text.toLowerCase(),
        );
      if (!found) no('person-unknown');
      else if (found.retired) no('person-retired', {}, 'awkward');
      return found?.initials ?? text;
    }
    case 'date':
      if (parseIso(text)?.year === undefined) no('date-bad');
      return text;
    case 'count':
    case 'version':
    case 'frame':
      if (!/^\d{1,15}$/.test(text) && rule.type === 'count') no('count-bad');
      return /^\d{1,15}$/.test(text) ? Number(text) : text;
    case 'text':
      if (rule.like !== undefined) {
        const fitted = fitLike({ kind: 'like', pieces: likePieces(rule.like), max: 255 }, text);
        if (fitted === null) no('like-bad', { form: rule.like });
        return fitted ?? text;
      }
      return text;
    default:
      return text;
  }
}

function keepList(field: ListField, value: Value | undefined, registers: Registers, faults: ValueFault[]): ListEntries {
  const one = (v: Value | undefined): string[] => {
    const entries = entriesOf(v);
    if (!entries.ok) {
      faults.push({
        code: entries.code,
        field: field.key,
        weight: 'refused',
        params: { found: entries.found, field: field.key },
      });
      return [];
    }
    const kept = entries.entries.map((entry) => String(keepScalar(field.key, field.of, entry, registers, faults)));
    const seen = new Set<string>();
    const twice = kept.filter((entry) => seen.size === seen.add(entry).size);
    if (twice.length > 0)
      faults.push({
        code: 'entry-twice',
        field: field.key,
        weight: 'awkward',
        params: { value: elementAt(twice, 0), field: field.key },
      });
    return [...new Set(kept)];
  };
  if (isKeyed(value) && field.within !== undefined) {
    const by = new Map(Object.entries(value).map(([outer, inner]) => [outer, one(inner)]));
    return { all: [...new Set([...by.values()].flat())], by };
  }
  const all = one(value);
  return { all, by: null };
}
