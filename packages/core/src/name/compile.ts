/** Pattern + fields + registers → a convention that reads and writes. Compile once, run often. */
import { type Answer, bad, good, type Params } from '../answer';
import type { Part, Pattern, Slot } from './ast';
import { slotsOf } from './ast';
import type { ReadValue, Reading } from './field';
import { type Form, type FormContext, type FormFault, formOf } from './form';
import { type Ambiguity, ambiguityOf } from './prove';
import { type Expression, type ExpressionSlot, expressionOf } from './regular';
import { endsOf, readingsOf } from './scan';

export interface CompiledSlot {
  readonly field: string;
  readonly slot: Slot;
  readonly form: Form;
}

/** The pattern as a straight line: an optional group is an `enter` that may jump behind it. */
export type Op =
  | { readonly kind: 'literal'; readonly text: string; readonly at: number }
  | { readonly kind: 'slot'; readonly slot: CompiledSlot }
  | { readonly kind: 'enter'; readonly skipTo: number };

export interface CompiledName {
  readonly pattern: Pattern;
  readonly parts: readonly Part[];
  readonly ops: readonly Op[];
  readonly slots: readonly CompiledSlot[];
  /** The form of each slot of the pattern's tree, for writing. */
  readonly forms: ReadonlyMap<Slot, Form>;
}

export interface CompiledConvention extends CompiledName {
  /** Fields that stand more than once and must have one value. */
  readonly repeated: ReadonlySet<string>;
  /** Known to read one way whatever the limits of its parts. */
  readonly oneWay: boolean;
  /** One expression with a numbered group for each slot, where it reads one way; else `null`, and the linear matcher reads. */
  readonly fast: Expression | null;
}

export type CompileFault = FormFault | { readonly code: 'field-twice' | 'literal-illegal'; readonly at: number; readonly length: number; readonly params: Params };

/** For names that are only written (folders, starter files): any field may stand twice. */
export function compileName(pattern: Pattern, context: FormContext): Answer<CompiledName, CompileFault> {
  const faults: CompileFault[] = [];
  const forms = new Map<Slot, Form>();
  const slots: CompiledSlot[] = [];
  for (const slot of slotsOf(pattern.parts)) {
    const form = formOf(slot, context);
    if (form.ok) {
      forms.set(slot, form.value);
      slots.push({ field: slot.field, slot, form: form.value });
    } else faults.push(...form.faults);
  }
  if (faults.length > 0) return bad(faults);
  return good({ pattern, parts: pattern.parts, ops: opsOf(pattern.parts, slots), slots, forms });
}

/** For names that are read as well. */
export function compileConvention(pattern: Pattern, context: FormContext): Answer<CompiledConvention, CompileFault> {
  const compiled = compileName(pattern, context);
  if (!compiled.ok) return compiled;
  const name = compiled.value;
  const repeated = new Set(name.slots.map((s) => s.field).filter((field, i, all) => all.indexOf(field) !== i));
  const unbounded = name.slots.filter((s) => repeated.has(s.field) && s.form.kind !== 'fixed');
  if (unbounded.length > 0) {
    return bad(unbounded.slice(1).map((s) => ({ code: 'field-twice' as const, at: s.slot.at, length: s.slot.end - s.slot.at, params: { field: s.field } })));
  }
  const oneWay = repeated.size === 0 && !sharesTexts(name) && structurallyOneWay(name);
  const narrowed = name.slots.some(({ form }) => form.kind === 'text' && form.chars !== null);
  return good({ ...name, repeated, oneWay, fast: oneWay && !narrowed ? expressionOf(name.ops) : null });
}

/** Whether any name has two readings, with the shortest example; `null` where that was not decided in time. */
export function proveOneWay(convention: CompiledConvention): Ambiguity | 'one-way' | null {
  if (convention.oneWay) return 'one-way';
  return ambiguityOf(convention.ops, { exact: true }, (name) => readings(convention, name, 2));
}

/** Decided on forms without limits, so that backtracking in the expression visits each state and place once at most. */
function structurallyOneWay(name: CompiledName): boolean {
  return ambiguityOf(name.ops, { exact: false }, null) === 'one-way';
}

function sharesTexts(name: CompiledName): boolean {
  return name.slots.some(({ form }) => form.kind === 'fixed' && new Set(form.entries.map((e) => e.text)).size < form.entries.length);
}

function opsOf(parts: readonly Part[], slots: readonly CompiledSlot[]): Op[] {
  const ops: Op[] = [];
  const add = (part: Part): void => {
    if (part.kind === 'literal') ops.push({ kind: 'literal', text: part.text, at: part.at });
    else if (part.kind === 'slot') ops.push({ kind: 'slot', slot: slots.find((s) => s.slot === part) as CompiledSlot });
    else {
      const enter = ops.length;
      ops.push({ kind: 'enter', skipTo: 0 });
      part.parts.forEach(add);
      ops[enter] = { kind: 'enter', skipTo: ops.length };
    }
  };
  parts.forEach(add);
  return ops;
}

/** Reads a name strictly; `null` where it does not follow the convention. Values in `bound` must be met. */
export function readName(convention: CompiledConvention, name: string, bound?: Reading): Reading | null {
  if (convention.fast === null) return readings(convention, name, 1, bound)[0] ?? null;
  const match = convention.fast.regexp.exec(name);
  if (match === null) return null;
  const out: Record<string, ReadValue> = {};
  const slots = convention.fast.slots;
  for (let i = 0; i < slots.length; i++) {
    const text = match[i + 1];
    if (text === undefined) continue;
    const slot = slots[i] as ExpressionSlot;
    const value = slot.value !== null ? slot.value(text) : slot.number ? Number(text) : text.length <= slot.max ? text : undefined;
    if (value === undefined || (bound !== undefined && bound[slot.field] !== undefined && bound[slot.field] !== value)) return null;
    out[slot.field] = value;
  }
  return out;
}

/** Where each slot stands in a name that follows the convention: for the anatomy. */
export interface Span {
  readonly field: string;
  readonly at: number;
  readonly end: number;
  readonly value: ReadValue;
}

/** Up to `limit` readings with different values, longest parts first. Linear in the name: each step and place is tried once. */
export function readings(convention: CompiledConvention, name: string, limit: number, bound?: Reading): Reading[] {
  return spansOf(convention, name, limit, bound).map((spans) => Object.fromEntries(spans.map((s) => [s.field, s.value])));
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
  const keyWith = (op: number, at: number) => JSON.stringify([op, at, spans.filter((s) => repeated.has(s.field)).map((s) => [s.field, s.value])]);
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
    const { field, form } = o.slot;
    for (const end of endsOf(form, name, at)) {
      for (const value of readingsOf(form, name.slice(at, end))) {
        const fixed = (repeated.has(field) ? spans.find((s) => s.field === field)?.value : undefined) ?? bound[field];
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
