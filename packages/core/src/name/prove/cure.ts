/**
 * What would make an ambiguous pattern read one way: plain edits near the parts that can be misread, each proved before
 * it is proposed.
 * Least first: a separator that is missing, a shape whose letters the separators are not, a list of the values that are
 * known, two of these.
 */

import { elementAt } from '../../element';
import { ownValue } from '../../own-value';
import type { Params } from '../../result';
import type { Ambiguity } from '../automaton/automaton';
import type { Part, Slot } from '../pattern/ast';
import { slotsOf } from '../pattern/ast';
import { compileConvention } from '../pattern/compile';
import { type Field, ruleFor } from '../pattern/field';
import { parsePattern } from '../pattern/parse';
import type { DomainContext } from '../pattern/slot-domain';
import { proveOneWay } from './prove';

export interface Cure {
  readonly code: 'separator' | 'shape' | 'values' | 'several';
  readonly params: Params;
  readonly pattern: string;
  readonly fields: readonly Field[];
}

interface Edit {
  readonly code: 'separator' | 'shape' | 'values';
  readonly params: Params;
  readonly at: number;
  readonly end: number;
  readonly text: string;
  readonly field: Field | null;
}

/** Proofs tried for one pattern, and proposals shown. */
const MOST_TRIED = 40;
const MOST_SHOWN = 3;
const SEPARATORS = ['_', '-', '.', '__'] as const;

/** `known`: texts a field is known to take (entries of lists, good examples), of which a list of values may be made. */
export function curesFor(
  source: string,
  context: DomainContext,
  ambiguity: Ambiguity,
  known: Readonly<Record<string, readonly string[]>> = {},
): Cure[] {
  const parsed = parsePattern(source);
  if (!parsed.ok) return [];
  const slots = slotsOf(parsed.value.parts);
  const blamed = blamedSlots(slots, ambiguity);
  const edits = [
    ...separatorEdits(parsed.value.parts, blamed, source),
    ...shapeEdits(blamed, context),
    ...valueEdits(blamed, context, known),
  ];
  const cures: Cure[] = [];
  let tried = 0;
  const attempt = (chosen: readonly Edit[]): void => {
    if (cures.length >= MOST_SHOWN || tried >= MOST_TRIED) return;
    tried++;
    const pattern = edited(source, chosen);
    const fields = [
      ...context.fields.filter((f) => !chosen.some((e) => e.field?.key === f.key)),
      ...chosen.flatMap((e) => (e.field ? [e.field] : [])),
    ];
    const reparsed = parsePattern(pattern);
    const compiled = reparsed.ok ? compileConvention(reparsed.value, { ...context, fields }) : null;
    if (!compiled?.ok || proveOneWay(compiled.value) !== 'one-way') return;
    const first = elementAt(chosen, 0);
    cures.push(
      chosen.length === 1
        ? { code: first.code, params: first.params, pattern, fields }
        : {
            code: 'several',
            params: { fields: [...new Set(chosen.map((e) => String(e.params.field)))] },
            pattern,
            fields,
          },
    );
  };
  for (const edit of edits) attempt([edit]);
  // One shape for all of them, where one alone does not do.
  const shapes = edits.filter((e) => e.code === 'shape');
  for (const shape of new Set(shapes.map((e) => e.params.shape))) {
    const all = shapes.filter((e) => e.params.shape === shape);
    for (let n = 2; n <= all.length; n++) attempt(all.slice(0, n));
  }
  for (const separator of edits.filter((e) => e.code === 'separator'))
    for (const shape of shapes) if (separator.end <= shape.at || shape.end <= separator.at) attempt([separator, shape]);
  return cures;
}

/**
 * Slots whose values differ between the two readings; all of them where the readings differ by a register's text alone.
 */
function blamedSlots(slots: readonly Slot[], { readings }: Ambiguity): Slot[] {
  const [first = {}, second = {}] = readings;
  const differing = slots.filter((slot) => first[slot.field] !== second[slot.field]);
  return differing.length > 0 ? differing : [...slots];
}

/** A separator where two parts touch, or another one where the present one can stand in a text beside it. */
function separatorEdits(parts: readonly Part[], blamed: readonly Slot[], source: string): Edit[] {
  const edits: Edit[] = [];
  const others = (not: string) => SEPARATORS.filter((s) => s !== not);
  const visit = (siblings: readonly Part[]): void => {
    siblings.forEach((part, i) => {
      if (part.kind === 'group') {
        const [head] = part.parts;
        const [inside] = slotsOf(part.parts);
        if (head?.kind === 'literal' && inside && blamed.includes(inside)) {
          for (const text of others(head.text))
            if (/^[_. -]+$/.test(head.text))
              edits.push({
                code: 'separator',
                params: { field: inside.field, text },
                at: head.at,
                end: head.end,
                text,
                field: null,
              });
        }
        visit(part.parts);
        return;
      }
      const next = siblings[i + 1];
      if (part.kind === 'slot' && next?.kind === 'slot' && (blamed.includes(part) || blamed.includes(next))) {
        for (const text of SEPARATORS.slice(0, 2))
          edits.push({
            code: 'separator',
            params: { field: next.field, text },
            at: part.end,
            end: part.end,
            text,
            field: null,
          });
      }
      const after = siblings[i + 2];
      if (
        part.kind === 'slot' &&
        next?.kind === 'literal' &&
        after?.kind === 'slot' &&
        blamed.includes(part) &&
        blamed.includes(after) &&
        /^[_. -]+$/.test(next.text)
      ) {
        for (const text of others(source.slice(next.at, next.end)))
          edits.push({
            code: 'separator',
            params: { field: after.field, text },
            at: next.at,
            end: next.end,
            text,
            field: null,
          });
      }
    });
  };
  visit(parts);
  return edits;
}

function shapeEdits(blamed: readonly Slot[], context: DomainContext): Edit[] {
  return blamed.flatMap((slot) => {
    const rule = ruleFor(slot.field, context.fields);
    if (
      rule.type !== 'text' ||
      rule.like !== undefined ||
      (slot.field === 'number' && !context.fields.some((f) => f.key === 'number'))
    )
      return [];
    return (['kebab', 'pascal'] as const)
      .filter((shape) => shape !== slot.shape)
      .map(
        (shape): Edit => ({
          code: 'shape',
          params: { field: slot.field, shape },
          at: slot.at,
          end: slot.end,
          text: `{${slot.field}:${shape}}`,
          field: null,
        }),
      );
  });
}

function valueEdits(
  blamed: readonly Slot[],
  context: DomainContext,
  known: Readonly<Record<string, readonly string[]>>,
): Edit[] {
  return blamed.flatMap((slot) => {
    const codes = [...new Set(ownValue(known, slot.field) ?? [])];
    if (codes.length === 0 || codes.length > 200 || ruleFor(slot.field, context.fields).type !== 'text') return [];
    const field: Field = { key: slot.field, type: 'choice', options: codes.map((code) => ({ code })) };
    return [
      {
        code: 'values' as const,
        params: { field: slot.field, count: codes.length },
        at: slot.at,
        end: slot.end,
        text: `{${slot.field}${slot.shape === null ? '' : `:${slot.shape}`}}`,
        field,
      },
    ];
  });
}

function edited(source: string, edits: readonly Edit[]): string {
  return edits
    .toSorted((a, b) => b.at - a.at)
    .reduce((text, e) => text.slice(0, e.at) + e.text + text.slice(e.end), source);
}
