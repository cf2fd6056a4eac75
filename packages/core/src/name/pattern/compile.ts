/** Pattern + fields + registers → a convention that reads and writes. Compile once, run often. */
import { present } from '../../element';
import { failure, type Params, type Result, success } from '../../result';
import { ambiguityOf } from '../automaton/automaton';
import { expressionOf } from '../automaton/regular';
import { type Part, type Pattern, type Slot, slotsOf } from './ast';
import { ruleFor } from './field';
import type { CompiledConvention, CompiledName, CompiledSlot, Op, StateWords } from './ops';
import { type DomainContext, type DomainFault, domainOf, type SlotDomain } from './slot-domain';

export type CompileFault =
  | DomainFault
  | { readonly code: 'field-twice'; readonly at: number; readonly length: number; readonly params: Params };

/** For names that are only written (folders, starter files): any field may stand twice. */
export function compileName(pattern: Pattern, context: DomainContext): Result<CompiledName, CompileFault> {
  const faults: CompileFault[] = [];
  const domains = new Map<Slot, SlotDomain>();
  const slots: CompiledSlot[] = [];
  for (const slot of slotsOf(pattern.parts)) {
    const domain = domainOf(slot, context);
    if (domain.ok) {
      domains.set(slot, domain.value);
      slots.push({ field: slot.field, slot, domain: domain.value });
    } else faults.push(...domain.faults);
  }
  if (faults.length > 0) return failure(faults);
  return success({ pattern, parts: pattern.parts, ops: opsOf(pattern.parts, slots), slots, domains });
}

/** For names that are read as well. */
export function compileConvention(pattern: Pattern, context: DomainContext): Result<CompiledConvention, CompileFault> {
  const compiled = compileName(pattern, context);
  if (!compiled.ok) return compiled;
  const name = compiled.value;
  const repeated = new Set(name.slots.map((s) => s.field).filter((field, i, all) => all.indexOf(field) !== i));
  const unbounded = name.slots.filter((s) => repeated.has(s.field) && s.domain.kind !== 'fixed');
  if (unbounded.length > 0) {
    return failure(
      unbounded.slice(1).map((s) => ({
        code: 'field-twice' as const,
        at: s.slot.at,
        length: s.slot.end - s.slot.at,
        params: { field: s.field },
      })),
    );
  }
  const oneWay = repeated.size === 0 && !sharesTexts(name) && structurallyOneWay(name);
  const states = statesIn(name.slots, context);
  return success({ ...name, states, repeated, oneWay, fast: oneWay ? expressionOf(name.ops) : null });
}

function statesIn(slots: readonly CompiledSlot[], { fields }: DomainContext): StateWords | null {
  if (!slots.some(({ field }) => field === 'version')) return null;
  for (const { field } of slots) {
    const { type, ofVersion, options = [] } = ruleFor(field, fields);
    if (type === 'choice' && ofVersion === true) return { field, words: options.map(({ code }) => code) };
  }
  return null;
}

/** Decided on domains without limits, so that backtracking in the expression visits each state and place once at most. */
function structurallyOneWay(name: CompiledName): boolean {
  return ambiguityOf(name.ops, { exact: false }, null) === 'one-way';
}

function sharesTexts(name: CompiledName): boolean {
  return name.slots.some(
    ({ domain }) => domain.kind === 'fixed' && new Set(domain.entries.map((e) => e.text)).size < domain.entries.length,
  );
}

function opsOf(parts: readonly Part[], slots: readonly CompiledSlot[]): Op[] {
  const ops: Op[] = [];
  const add = (part: Part): void => {
    if (part.kind === 'literal') ops.push({ kind: 'literal', text: part.text, at: part.at });
    else if (part.kind === 'slot') ops.push({ kind: 'slot', slot: present(slots.find((s) => s.slot === part)) });
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
