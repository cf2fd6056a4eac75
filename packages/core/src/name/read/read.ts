/**
 * Strict reading: by one expression where the convention is known to read one way, else by a matcher that is linear in
 * the name.
 */

import { elementAt } from '../../element';
import { LIMITS } from '../../limits';
import { ownValue } from '../../own-value';
import { Remembered } from '../../remembered';
import { Machine } from '../automaton/machine';
import { endsOf, readingsOf } from '../automaton/scan';
import type { Reading, ReadValue } from '../pattern/field';
import type { CompiledConvention, Expression } from '../pattern/ops';

/** Reads a name strictly; `null` where it does not follow the convention. Values in `bound` must be met. */
export function readName(convention: CompiledConvention, name: string, bound?: Reading): Reading | null {
  if (name.length > LIMITS.nameLength) return null;
  if (convention.fast === null) return readByMachine(convention, name, bound);
  const values = valuesBy(convention.fast, name);
  if (values === null) return null;
  const out: Record<string, ReadValue> = {};
  for (let i = 0; i < values.length; i++) {
    const value = values[i];
    if (value === undefined) continue;
    const field = elementAt(convention.fast.slots, i).field;
    if (bound !== undefined && ownValue(bound, field) !== undefined && ownValue(bound, field) !== value) return null;
    out[field] = value;
  }
  return out;
}

/**
 * As `readName`, but the values alone, in the order of `convention.slots`, those of omitted groups `undefined`: for
 * names by the million.
 */
export function readValues(convention: CompiledConvention, name: string): (ReadValue | undefined)[] | null {
  if (convention.fast !== null && name.length <= LIMITS.nameLength) return valuesBy(convention.fast, name);
  const reading = readName(convention, name);
  return reading === null ? null : convention.slots.map((slot) => ownValue(reading, slot.field));
}

function valuesBy(fast: Expression, name: string): (ReadValue | undefined)[] | null {
  const match = fast.regexp.exec(name);
  if (match === null) return null;
  const slots = fast.slots;
  const out = new Array<ReadValue | undefined>(slots.length);
  for (let i = 0; i < slots.length; i++) {
    const text = match[i + 1];
    if (text === undefined) continue;
    const slot = elementAt(slots, i);
    const value =
      slot.value !== null ? slot.value(text) : text.length > slot.max ? undefined : slot.number ? Number(text) : text;
    if (value === undefined) return null;
    out[i] = value;
  }
  return out;
}

/** Built when first asked: the plain one reads nearly all names, the one with limits what it leaves unsure. */
const machines = {
  plain: new Remembered((convention: CompiledConvention) => Machine.of(convention, false)),
  limited: new Remembered((convention: CompiledConvention) => Machine.of(convention, true)),
};

function readByMachine(convention: CompiledConvention, name: string, bound: Reading | undefined): Reading | null {
  const plain = machines.plain.of(convention);
  const reading = plain === null ? 'unsure' : plain.read(name, bound);
  if (reading !== 'unsure') return reading;
  const limited = machines.limited.of(convention);
  const surer = limited === null ? 'unsure' : limited.read(name, bound);
  if (surer !== 'unsure') return surer;
  return readings(convention, name, 1, bound)[0] ?? null;
}

/** Where each slot stands in a name that follows the convention: for the anatomy. */
export interface Span {
  readonly field: string;
  readonly at: number;
  readonly end: number;
  readonly value: ReadValue;
}

/**
 * Up to `limit` readings with different values, longest parts first. Linear in the name: each step and place is tried
 * once.
 */
export function readings(convention: CompiledConvention, name: string, limit: number, bound?: Reading): Reading[] {
  return spansOf(convention, name, limit, bound).map((spans) =>
    Object.fromEntries(spans.map((s) => [s.field, s.value])),
  );
}

export function spansOf(convention: CompiledConvention, name: string, limit: number, bound: Reading = {}): Span[][] {
  const { ops, repeated } = convention;
  const found: Span[][] = [];
  const seen = new Set<string>();
  const width = name.length + 1;
  // From these steps and places nothing reads. With repeated fields it also depends on their values so far.
  const failed = new Uint8Array(repeated.size === 0 ? (ops.length + 1) * width : 0);
  const failedWith = new Set<string>();
  const spans: Span[] = [];
  const keyWith = (op: number, at: number) =>
    JSON.stringify([op, at, spans.filter((s) => repeated.has(s.field)).map((s) => [s.field, s.value])]);
  const walk = (op: number, at: number): boolean => {
    const place = op * width + at;
    if (repeated.size === 0 ? failed[place] === 1 : failedWith.has(keyWith(op, at))) return false;
    const any = step(op, at);
    if (!any && repeated.size === 0) failed[place] = 1;
    else if (!any) failedWith.add(keyWith(op, at));
    return any;
  };
  const step = (op: number, at: number): boolean => {
    const o = ops[op];
    if (o === undefined) {
      if (at !== name.length) return false;
      const values = JSON.stringify(spans.map((s) => [s.field, s.value]));
      if (!seen.has(values)) found.push([...spans]);
      seen.add(values);
      return true;
    }
    if (o.kind === 'literal') return name.startsWith(o.text, at) && walk(op + 1, at + o.text.length);
    if (o.kind === 'enter') {
      const taken = walk(op + 1, at);
      return (found.length < limit && walk(o.skipTo, at)) || taken;
    }
    let any = false;
    const { field, domain } = o.slot;
    for (const end of endsOf(domain, name, at)) {
      for (const value of readingsOf(domain, name.slice(at, end))) {
        const fixed =
          (repeated.has(field) ? spans.find((s) => s.field === field)?.value : undefined) ?? ownValue(bound, field);
        if (fixed !== undefined && fixed !== value) continue;
        spans.push({ field, at, end, value });
        any = walk(op + 1, end) || any;
        spans.pop();
        if (found.length >= limit) return true;
      }
    }
    return any;
  };
  walk(0, 0);
  return found;
}
