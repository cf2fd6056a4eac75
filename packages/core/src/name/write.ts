import { elementAt, present, valueAt } from '../element';
import { ownValue } from '../own-value';
import { assertNever, failure, type Params, type Result, success } from '../result';
import { charSet, takesWhole } from './automaton/scan';
import { parseIso, writeDate } from './dates/dates';
import type { Part, Slot } from './pattern/ast';
import { isKeyed, type Value, type Values } from './pattern/field';
import type { CompiledName } from './pattern/ops';
import { shapeText } from './pattern/shape';
import type { Entry, SlotDomain } from './pattern/slot-domain';

export type WriteFaultCode =
  | 'value-missing'
  | 'value-unknown'
  | 'value-empty'
  | 'value-too-long'
  | 'value-unfoldable'
  | 'value-characters'
  | 'value-form'
  | 'value-not-count'
  | 'value-not-letters'
  | 'value-not-date'
  | 'value-is-list';

export interface WriteFault {
  readonly code: WriteFaultCode;
  readonly field: string;
  /** Place of the slot in the pattern. */
  readonly at: number;
  readonly length: number;
  readonly params: Params;
}

/** A written name together with the part each piece of it came from. */
export interface WrittenPiece {
  readonly text: string;
  readonly field: string | null;
}

export function writeName(name: CompiledName, values: Values): Result<string, WriteFault> {
  const pieces = writePieces(name, values);
  return pieces.ok ? success(pieces.value.map((p) => p.text).join('')) : pieces;
}

export function writePieces(name: CompiledName, values: Values): Result<WrittenPiece[], WriteFault> {
  const faults: WriteFault[] = [];
  const pieces: WrittenPiece[] = [];
  writeParts(name, name.parts, values, pieces, faults);
  return faults.length > 0 ? failure(faults) : success(pieces);
}

/** A loop over plain arrays: it runs for every line of a plan at every keystroke. */
function writeParts(
  name: CompiledName,
  parts: readonly Part[],
  values: Values,
  pieces: WrittenPiece[],
  faults: WriteFault[],
): void {
  for (const part of parts) {
    switch (part.kind) {
      case 'literal':
        pieces.push({ text: part.text, field: null });
        break;
      case 'group':
        if (part.parts.every((p) => p.kind !== 'slot' || hasValue(ownValue(values, p.field))))
          writeParts(name, part.parts, values, pieces, faults);
        break;
      case 'slot': {
        const text = writeSlot(part, valueAt(name.domains, part), ownValue(values, part.field));
        if (text.ok) pieces.push({ text: text.value, field: part.field });
        else faults.push(...text.faults);
        break;
      }
      default:
        assertNever(part);
    }
  }
}

export const hasValue = (value: Value | undefined): value is Value =>
  value !== undefined && value !== null && value !== '';

/** Texts already written by a form: in one plan the same entry is written again and again. */
const written = new WeakMap<SlotDomain, Map<string, string>>();
const MOST_WRITTEN = 5000;

/** Writes one slot's value by its domain. */
export function writeSlot(slot: Slot, domain: SlotDomain, value: Value | undefined): Result<string, WriteFault> {
  if (typeof value !== 'string' || value === '') return writeAnew(slot, domain, value);
  const cache = written.get(domain) ?? new Map<string, string>();
  const known = cache.get(value);
  if (known !== undefined) return success(known);
  const answer = writeAnew(slot, domain, value);
  if (cache.size >= MOST_WRITTEN) cache.clear();
  if (answer.ok) cache.set(value, answer.value);
  written.set(domain, cache);
  return answer;
}

function writeAnew(slot: Slot, domain: SlotDomain, value: Value | undefined): Result<string, WriteFault> {
  const no = (code: WriteFaultCode, params: Params = {}): Result<string, WriteFault> =>
    failure([
      { code, field: slot.field, at: slot.at, length: slot.end - slot.at, params: { field: slot.field, ...params } },
    ]);
  if (!hasValue(value)) {
    if (domain.kind === 'fixed' && domain.of === 'number' && domain.entries.length === 1)
      return success(elementAt(domain.entries, 0).text);
    return no('value-missing');
  }
  if (Array.isArray(value)) return no('value-is-list');
  const text = plainText(value);
  switch (domain.kind) {
    case 'fixed': {
      const entry = findEntry(domain.entries, text);
      return entry
        ? success(entry.text)
        : no('value-unknown', { value: text, known: domain.entries.slice(0, 12).map((e) => e.text) });
    }
    case 'text':
      return writeText(domain, text, no);
    case 'like': {
      const fitted = fitLike(domain, text);
      return fitted === null ? no('value-form', { value: text, form: likeText(domain) }) : success(fitted);
    }
    case 'code':
      return takesWhole(domain, text) ? success(text) : no('value-characters', { value: text });
    case 'digits':
      return /^\d{1,15}$/.test(text)
        ? success(String(Number(text)).padStart(domain.min, '0'))
        : no('value-not-count', { value: text });
    case 'letters': {
      const cased = domain.upper ? text.toUpperCase() : text.toLowerCase();
      return takesWhole(domain, cased) ? success(cased) : no('value-not-letters', { value: text });
    }
    case 'date': {
      const date = parseIso(text);
      const shown = date && writeDate(date, domain.pattern);
      return shown ? success(shown) : no('value-not-date', { value: text, form: domain.pattern.source });
    }
    default:
      return assertNever(domain);
  }
}

/** A register entry may be given whole: its code or initials stand for it. */
export function plainText(value: Value): string {
  return String(isKeyed(value) ? (value.code ?? value.initials ?? value.name ?? '') : value);
}

/**
 * The entry meant by a text: by its value, its written form, then without regard to case by the words people use for
 * it.
 */
export function findEntry(entries: readonly Entry[], text: string): Entry | undefined {
  const lower = text.toLowerCase();
  return (
    entries.find((e) => String(e.value) === text) ??
    entries.find((e) => e.text === text) ??
    entries.find(
      (e) =>
        String(e.value).toLowerCase() === lower ||
        e.text.toLowerCase() === lower ||
        e.also.some((word) => word.toLowerCase() === lower),
    )
  );
}

function writeText(
  domain: Extract<SlotDomain, { kind: 'text' }>,
  text: string,
  no: (code: WriteFaultCode, params?: Params) => Result<string, WriteFault>,
): Result<string, WriteFault> {
  const shaped = shapeText(text, domain.shape);
  if (!shaped.ok) return no('value-unfoldable', { value: text, letters: shaped.letters });
  if (shaped.text === '') return no('value-empty', { value: text });
  const length = [...shaped.text].length;
  if (length > domain.max) return no('value-too-long', { value: shaped.text, found: length, limit: domain.max });
  if (domain.chars !== null) {
    const allowed = charSet(domain.chars);
    const wrong = [...shaped.text].filter((ch) => !allowed.has(present(ch.codePointAt(0))));
    if (wrong.length > 0)
      return no('value-characters', { value: shaped.text, letters: [...new Set(wrong)], allowed: domain.chars });
  }
  return takesWhole(domain, shaped.text) ? success(shaped.text) : no('value-characters', { value: shaped.text });
}

export function likeText(domain: Extract<SlotDomain, { kind: 'like' }>): string {
  return domain.pieces.map((p) => (p.kind === 'literal' ? p.text : '0'.repeat(p.min))).join('');
}

/** Brings `S3`, `s3` or a bare `3` into the form `s00`; `null` where the text is something else. */
export function fitLike(domain: Extract<SlotDomain, { kind: 'like' }>, text: string): string | null {
  if (takesWhole(domain, text)) return text;
  const digitRuns = domain.pieces.filter((p) => p.kind === 'digits');
  const bare = /^\d+$/.test(text.trim()) && digitRuns.length === 1;
  let rest = text.trim();
  let out = '';
  for (const piece of domain.pieces) {
    if (piece.kind === 'literal') {
      if (!bare && rest.slice(0, piece.text.length).toLowerCase() !== piece.text.toLowerCase()) return null;
      if (!bare) rest = rest.slice(piece.text.length);
      out += piece.text;
    } else {
      const run = /^\d+/.exec(rest)?.[0];
      if (run === undefined) return null;
      rest = rest.slice(run.length);
      out += run.replace(/^0+(?=\d)/, '').padStart(piece.min, '0');
    }
  }
  return rest === '' ? out : null;
}

/** The name that pieces make; a loop, for it runs for every line at every keystroke. */
export function textOf(pieces: readonly WrittenPiece[]): string {
  let text = '';
  for (const piece of pieces) text += piece.text;
  return text;
}
