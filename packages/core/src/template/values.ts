/** Values as given → values as kept: codes for register entries and choices, lists written out. */

import { elementAt } from '../element';
import { parseIso } from '../name/dates/dates';
import { isNear, squash } from '../name/mend/near';
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
  | 'entry-twice'
  | 'outer-unknown';

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
  for (const field of outerFirst(fields)) {
    const value = ownValue(given, field.key);
    if (field.type === 'list') {
      const list = keepList(field, value, registers, faults, outerOf(field, fields, lists));
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

/** A list that stands within another comes after it: its keys are entries of that one. */
const outerFirst = (fields: readonly Field[]): Field[] =>
  [...fields].sort((a, b) => depthOf(a, fields) - depthOf(b, fields));

function depthOf(field: Field, fields: readonly Field[]): number {
  let depth = 0;
  for (
    let at: Field | undefined = field;
    at?.type === 'list' && at.within !== undefined && depth < fields.length;
    depth++
  ) {
    const { within }: ListField = at;
    at = fields.find((f) => f.key === within);
  }
  return depth;
}

/** The list that another stands within, with its entries. */
interface Outer {
  readonly rule: ScalarRule;
  readonly entries: readonly string[];
}

function outerOf(field: ListField, fields: readonly Field[], lists: ReadonlyMap<string, ListEntries>): Outer | null {
  const outer = fields.find((f) => f.key === field.within);
  const entries = lists.get(field.within ?? '')?.all;
  return outer?.type === 'list' && entries !== undefined ? { rule: outer.of, entries } : null;
}

/** A key is read as entries are: in any form of writing, by the words for it, with a slip; `null` where it fits none. */
function entryMeant(key: string, { rule, entries }: Outer, registers: Registers): string | null {
  const kept = String(keepScalar('', rule, key, registers, []));
  if (entries.includes(kept)) return kept;
  const alike = entries.filter((entry) => squash(entry) === squash(kept));
  const near = alike.length > 0 ? alike : entries.filter((entry) => isNear(kept, entry));
  return near.length === 1 ? elementAt(near, 0) : null;
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

function keepList(
  field: ListField,
  value: Value | undefined,
  registers: Registers,
  faults: ValueFault[],
  outer: Outer | null,
): ListEntries {
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
    const by = new Map<string, readonly string[]>();
    for (const [key, inner] of Object.entries(value)) {
      const entries = one(inner);
      const meant = outer === null ? key : entryMeant(key, outer, registers);
      if (meant === null)
        faults.push({
          code: 'outer-unknown',
          field: field.key,
          weight: 'refused',
          params: { field: field.label ?? field.key, value: key, known: outer?.entries.slice(0, 12) ?? [] },
        });
      else by.set(meant, [...new Set([...(by.get(meant) ?? []), ...entries])]);
    }
    return { all: [...new Set([...by.values()].flat())], by };
  }
  const all = one(value);
  return { all, by: null };
}
