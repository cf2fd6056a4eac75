/**
 * What one slot may hold, worked out once from its field, property, shape and the registers.
 * A domain is plain data; `scan.ts` reads by it, `write.ts` writes by it, `regular.ts` proves by it.
 */

import { LIMITS } from '../../limits';
import { failure, type Params, type Result, success } from '../../result';
import { type DatePattern, parseDatePattern } from '../dates/dates';
import type { Slot } from './ast';
import type { Field, ReadValue, Registers, ScalarRule } from './field';
import { ruleFor } from './field';
import { isTextShape, shapeText, type TextShape } from './shape';

/** One of a finite set: the text in the name, the value it means. */
export interface Entry {
  readonly text: string;
  readonly value: ReadValue;
  readonly retired: boolean;
  /** Other spellings people use, for loose reading and for values as given. */
  readonly also: readonly string[];
}

export type LikePiece =
  | { readonly kind: 'digits'; readonly min: number }
  | { readonly kind: 'literal'; readonly text: string };

export type SlotDomain =
  | {
      readonly kind: 'fixed';
      readonly of: 'choice' | 'client' | 'person' | 'number' | 'ext';
      readonly entries: readonly Entry[];
    }
  | { readonly kind: 'text'; readonly shape: TextShape; readonly max: number; readonly chars: string | null }
  | { readonly kind: 'like'; readonly pieces: readonly LikePiece[]; readonly max: number }
  | { readonly kind: 'code'; readonly of: 'number' | 'ext' }
  | { readonly kind: 'digits'; readonly min: number }
  | { readonly kind: 'letters'; readonly upper: boolean }
  | { readonly kind: 'date'; readonly pattern: DatePattern; readonly pivot: number };

export type DomainFaultCode =
  | 'shape-unknown'
  | 'property-unknown'
  | 'date-form'
  | 'register-empty'
  | 'choice-empty'
  | 'like-empty'
  | 'chars-empty'
  | 'families-unknown';

export interface DomainFault {
  readonly code: DomainFaultCode;
  readonly at: number;
  readonly length: number;
  readonly params: Params;
}

export interface DomainContext {
  readonly fields: readonly Field[];
  readonly registers: Registers;
  /** Families whose extensions `ext` may be; none means any known one. */
  readonly families?: readonly string[] | undefined;
  /** The project's own number, where known. */
  readonly number?: string | undefined;
  /** The project's year: `yy` is read as the nearest year to it. */
  readonly year?: number | undefined;
}

/** The year `yy` pivots by where no project says: fixed, so that the same name reads alike in every year. */
const DEFAULT_PIVOT = 2026;

export function domainOf(slot: Slot, context: DomainContext): Result<SlotDomain, DomainFault> {
  const declared = context.fields.some((field) => field.key === slot.field);
  if (slot.field === 'number' && !declared) return numberDomain(slot, context);
  const rule = ruleFor(slot.field, context.fields);
  if (slot.property !== null && !['client', 'person'].includes(rule.type))
    return fault(slot, 'property-unknown', { property: slot.property, field: slot.field });
  switch (rule.type) {
    case 'text':
      return textDomain(slot, rule);
    case 'choice':
      return choiceDomain(slot, rule);
    case 'client':
    case 'person':
      return registerDomain(slot, rule.type, context.registers);
    case 'count':
    case 'frame':
      return digitsDomain(slot);
    case 'version':
      return /^[Aa]$/.test(slot.shape ?? '') ? lettersDomain(slot) : digitsDomain(slot);
    case 'letters':
      return lettersDomain(slot);
    case 'date':
      return dateDomain(slot, context);
    case 'ext':
      return extDomain(slot, context);
  }
}

function numberDomain(slot: Slot, context: DomainContext): Result<SlotDomain, DomainFault> {
  if (slot.shape !== null) return fault(slot, 'shape-unknown', { shape: slot.shape, type: 'number' });
  if (context.number === undefined) return success({ kind: 'code', of: 'number' });
  return success({ kind: 'fixed', of: 'number', entries: [entry(context.number, context.number)] });
}

function textDomain(slot: Slot, rule: ScalarRule): Result<SlotDomain, DomainFault> {
  const shape = slot.shape ?? 'as-is';
  if (!isTextShape(shape)) return fault(slot, 'shape-unknown', { shape, type: 'text' });
  const max = rule.max ?? LIMITS.textMax;
  if (rule.like !== undefined) {
    const cased = shape === 'upper' ? rule.like.toUpperCase() : shape === 'lower' ? rule.like.toLowerCase() : rule.like;
    const pieces = likePieces(cased);
    return pieces.length > 0
      ? success({ kind: 'like', pieces, max })
      : fault(slot, 'like-empty', { field: slot.field });
  }
  if (rule.chars === '') return fault(slot, 'chars-empty', { field: slot.field });
  return success({ kind: 'text', shape, max, chars: rule.chars ?? null });
}

export function likePieces(like: string): LikePiece[] {
  return (like.match(/0+|[^0]+/g) ?? []).map((run) =>
    run.startsWith('0') ? { kind: 'digits', min: run.length } : { kind: 'literal', text: run },
  );
}

function choiceDomain(slot: Slot, rule: ScalarRule): Result<SlotDomain, DomainFault> {
  const options = rule.options ?? [];
  if (options.length === 0) return fault(slot, 'choice-empty', { field: slot.field });
  return entriesDomain(
    slot,
    'choice',
    options.map((o) => ({
      text: o.code,
      value: o.code,
      retired: false,
      also: [...(o.label === undefined ? [] : [o.label]), ...(o.also ?? [])],
    })),
    'as-is',
  );
}

function registerDomain(slot: Slot, type: 'client' | 'person', registers: Registers): Result<SlotDomain, DomainFault> {
  const code = type === 'client' ? 'code' : 'initials';
  const property = slot.property ?? code;
  if (property !== code && property !== 'name') return fault(slot, 'property-unknown', { property, field: slot.field });
  const all: Entry[] =
    type === 'client'
      ? registers.clients.map((c) => ({
          text: property === 'name' ? c.name : c.code,
          value: c.code,
          retired: c.retired ?? false,
          also: property === 'name' ? [c.code] : [c.name],
        }))
      : registers.people.map((p) => ({
          text: property === 'name' ? p.name : p.initials,
          value: p.initials,
          retired: p.retired ?? false,
          also: property === 'name' ? [p.initials] : [p.name],
        }));
  if (all.length === 0) return fault(slot, 'register-empty', { type });
  return entriesDomain(slot, type, all, 'as-is');
}

/** Writes each entry in the slot's shape once, so that reading compares whole texts. */
function entriesDomain(
  slot: Slot,
  of: 'choice' | 'client' | 'person',
  entries: readonly Entry[],
  fallback: TextShape,
): Result<SlotDomain, DomainFault> {
  const shape = slot.shape ?? fallback;
  if (!isTextShape(shape)) return fault(slot, 'shape-unknown', { shape, type: of });
  const shaped = entries.map((e) => {
    const written = shapeText(e.text, shape);
    return { ...e, text: written.ok ? written.text : e.text.normalize('NFC') };
  });
  return success({ kind: 'fixed', of, entries: shaped.filter((e) => e.text !== '') });
}

function digitsDomain(slot: Slot): Result<SlotDomain, DomainFault> {
  const shape = slot.shape ?? '0';
  return /^0+$/.test(shape)
    ? success({ kind: 'digits', min: shape.length })
    : fault(slot, 'shape-unknown', { shape, type: 'count' });
}

function lettersDomain(slot: Slot): Result<SlotDomain, DomainFault> {
  const shape = slot.shape ?? 'A';
  return shape === 'A' || shape === 'a'
    ? success({ kind: 'letters', upper: shape === 'A' })
    : fault(slot, 'shape-unknown', { shape, type: 'letters' });
}

function dateDomain(slot: Slot, context: DomainContext): Result<SlotDomain, DomainFault> {
  const pattern = parseDatePattern(slot.shape ?? 'yyyy-MM-dd');
  return pattern === null
    ? fault(slot, 'date-form', { shape: slot.shape ?? '' })
    : success({ kind: 'date', pattern, pivot: context.year ?? DEFAULT_PIVOT });
}

function extDomain(slot: Slot, context: DomainContext): Result<SlotDomain, DomainFault> {
  if (slot.shape !== null && slot.shape !== 'lower')
    return fault(slot, 'shape-unknown', { shape: slot.shape, type: 'ext' });
  const wanted = context.families;
  const unknown = wanted?.find((name) => !context.registers.families.some((family) => family.name === name));
  if (unknown !== undefined) return fault(slot, 'families-unknown', { family: unknown });
  const families =
    wanted === undefined
      ? context.registers.families
      : context.registers.families.filter((family) => wanted.includes(family.name));
  const extensions = [
    ...new Set(families.flatMap((family) => family.extensions.map((ext) => ext.toLowerCase().replace(/^\./, '')))),
  ];
  return success(
    extensions.length > 0
      ? { kind: 'fixed', of: 'ext', entries: extensions.map((ext) => entry(ext, ext)) }
      : { kind: 'code', of: 'ext' },
  );
}

function entry(text: string, value: ReadValue): Entry {
  return { text, value, retired: false, also: [] };
}

function fault(slot: Slot, code: DomainFaultCode, params: Params): Result<never, DomainFault> {
  return failure([{ code, at: slot.at, length: slot.end - slot.at, params }]);
}
