/**
 * Text → pattern tree.
 *
 *   pattern = 1*( literal / slot / group )
 *   slot    = "{" field [ "." property ] [ ":" shape ] "}"
 *   group   = "(" pattern ")?"
 *
 * `{{ }} (( ))` stand for the characters themselves, and are tried first: a group cannot open right inside another.
 * All faults are collected; each points at its character.
 */

import { elementAt } from '../../element';
import { LIMITS } from '../../limits';
import { failure, type Params, type Result, success } from '../../result';
import type { Group, Literal, Part, Pattern, Slot } from './ast';

export type PatternFaultCode =
  | 'pattern-empty'
  | 'pattern-too-long'
  | 'pattern-too-many-parts'
  | 'slot-unclosed'
  | 'slot-empty'
  | 'slot-name'
  | 'slot-shape-empty'
  | 'brace-stray'
  | 'group-unclosed'
  | 'group-no-question'
  | 'group-stray'
  | 'group-no-slot'
  | 'group-too-deep';

export interface PatternFault {
  readonly code: PatternFaultCode;
  readonly at: number;
  readonly length: number;
  readonly params: Params;
}

const FIELD = /^[A-Za-z][A-Za-z0-9_-]*$/;

interface Cursor {
  readonly source: string;
  at: number;
  parts: number;
  readonly faults: PatternFault[];
}

export function parsePattern(source: string): Result<Pattern, PatternFault> {
  if (source.length === 0) return failure([fault('pattern-empty', 0, 0)]);
  if (source.length > LIMITS.patternLength) {
    return failure([
      fault('pattern-too-long', LIMITS.patternLength, source.length - LIMITS.patternLength, {
        limit: LIMITS.patternLength,
      }),
    ]);
  }
  const cursor: Cursor = { source, at: 0, parts: 0, faults: [] };
  const parts = parseParts(cursor, 0);
  if (cursor.parts > LIMITS.patternParts) {
    cursor.faults.push(
      fault('pattern-too-many-parts', 0, source.length, { limit: LIMITS.patternParts, found: cursor.parts }),
    );
  }
  return cursor.faults.length > 0 ? failure(cursor.faults) : success({ source, parts });
}

/** For patterns that are part of the program or have been validated: a fault here is a programmer's error. */
export function mustParse(source: string): Pattern {
  const answer = parsePattern(source);
  if (!answer.ok) throw new Error(`pattern ${source}: ${answer.faults[0]?.code} at ${answer.faults[0]?.at}`);
  return answer.value;
}

function parseParts(c: Cursor, depth: number): Part[] {
  const parts: Part[] = [];
  let text = '';
  let textAt = c.at;
  const endText = () => {
    if (text !== '') parts.push({ kind: 'literal', text, at: textAt, end: c.at } satisfies Literal);
    if (text !== '') c.parts++;
    text = '';
  };
  while (c.at < c.source.length) {
    const ch = elementAt(c.source, c.at);
    const doubled = c.source[c.at + 1] === ch;
    if ('{}()'.includes(ch) && doubled) {
      if (text === '') textAt = c.at;
      text += ch;
      c.at += 2;
    } else if (ch === '{') {
      endText();
      const slot = parseSlot(c);
      if (slot) parts.push(slot);
    } else if (ch === '(') {
      endText();
      parts.push(parseGroup(c, depth + 1));
    } else if (ch === ')' && depth > 0) {
      break;
    } else if (ch === ')' || ch === '}') {
      endText();
      c.faults.push(fault(ch === ')' ? 'group-stray' : 'brace-stray', c.at, 1));
      c.at++;
      textAt = c.at;
    } else {
      if (text === '') textAt = c.at;
      text += ch;
      c.at++;
    }
  }
  endText();
  return parts;
}

function parseSlot(c: Cursor): Slot | null {
  const at = c.at;
  const close = c.source.indexOf('}', at);
  const nextOpen = c.source.indexOf('{', at + 1);
  c.parts++;
  if (close < 0 || (nextOpen >= 0 && nextOpen < close)) {
    c.faults.push(fault('slot-unclosed', at, 1));
    c.at = nextOpen >= 0 ? nextOpen : c.source.length;
    return null;
  }
  c.at = close + 1;
  const inside = c.source.slice(at + 1, close);
  const colon = inside.indexOf(':');
  const path = colon < 0 ? inside : inside.slice(0, colon);
  const shape = colon < 0 ? null : inside.slice(colon + 1);
  const dot = path.indexOf('.');
  const field = dot < 0 ? path : path.slice(0, dot);
  const property = dot < 0 ? null : path.slice(dot + 1);
  if (inside.trim() === '') c.faults.push(fault('slot-empty', at, close + 1 - at));
  else if (!FIELD.test(field)) c.faults.push(fault('slot-name', at + 1, field.length, { found: field }));
  else if (property !== null && !FIELD.test(property))
    c.faults.push(fault('slot-name', at + 2 + field.length, property.length, { found: property }));
  else if (shape === '') c.faults.push(fault('slot-shape-empty', at + 1 + colon, 1, { field }));
  return { kind: 'slot', field, property, shape, at, end: close + 1 };
}

function parseGroup(c: Cursor, depth: number): Group {
  const at = c.at;
  c.at++;
  c.parts++;
  if (depth > LIMITS.groupDepth) {
    c.faults.push(fault('group-too-deep', at, 1, { limit: LIMITS.groupDepth }));
    c.at = c.source.length;
    return { kind: 'group', parts: [], at, end: c.at };
  }
  const parts = parseParts(c, depth);
  if (c.source[c.at] !== ')') {
    c.faults.push(fault('group-unclosed', at, 1));
  } else if (c.source[c.at + 1] !== '?') {
    c.faults.push(fault('group-no-question', c.at, 1));
    c.at++;
  } else {
    c.at += 2;
  }
  if (!parts.some((part) => part.kind === 'slot') && c.faults.length === 0) {
    c.faults.push(fault('group-no-slot', at, c.at - at));
  }
  return { kind: 'group', parts, at, end: c.at };
}

function fault(code: PatternFaultCode, at: number, length: number, params: Params = {}): PatternFault {
  return { code, at, length, params };
}
