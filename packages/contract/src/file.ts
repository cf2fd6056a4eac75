/** Text from outside → a checked thing, or one line that says what is wrong with it. */
import { failure, type Result, success } from '@nesting/core';
import { RULE_CODES } from '@nesting/core/check';
import { NO_REGISTERS, type Registers, type Values } from '@nesting/core/name';
import type { CarryWay } from '@nesting/core/planners';
import {
  type Convention,
  type LooseTemplate,
  type Meanings,
  normaliseTemplate,
  type Template,
} from '@nesting/core/template';
import { nearestOf } from '@nesting/core/text';
import { z } from 'zod';
import { type BlockFile, blockFileSchema } from './block';
import { carryWaySchema, wayOf } from './carry';
import { someRegistersSchema, valuesSchema } from './field';
import { carriedMeaningsSchema } from './marks';
import { conventionFileSchema, looseTemplateSchema, markerSchema } from './template';

function parseJson<T>(
  text: string,
  schema: z.ZodType<T>,
  what: string,
  { mayHaveMore = false } = {},
): Result<T, string> {
  let data: unknown;
  try {
    data = JSON.parse(text.replace(/^\ufeff/, ''));
  } catch (error) {
    return failure([`${what}: not JSON (${error instanceof Error ? error.message : 'unreadable'})`]);
  }
  const parsed = schema.safeParse(data);
  const unknown = parsed.success && !mayHaveMore ? unknownKey(data, parsed.data, '') : null;
  if (unknown !== null) return failure([`${what}: ${unknown.at}: ${unknownWords(unknown.key, keysOf(schema))}`]);
  if (parsed.success) return success(parsed.data);
  const issue = parsed.error.issues[0];
  return failure([`${what}: ${issue?.path.join('.') || 'the whole'}: ${issue?.message ?? 'not as expected'}`]);
}

interface Unknown {
  readonly at: string;
  readonly key: string;
}

/** The first key that was given and that nobody took: it would be lost without a word. */
function unknownKey(given: unknown, kept: unknown, at: string): Unknown | null {
  if (typeof given !== 'object' || given === null || typeof kept !== 'object' || kept === null) return null;
  for (const [key, value] of Object.entries(given)) {
    const here = at === '' ? key : `${at}.${key}`;
    // What an editor is told by.
    if (key === '$schema' && at === '') continue;
    if (!Object.hasOwn(kept, key)) {
      if (value === undefined) continue;
      return { at: here, key };
    }
    const inside = unknownKey(value, (kept as Readonly<Record<string, unknown>>)[key], here);
    if (inside !== null) return inside;
  }
  return null;
}

function unknownWords(key: string, known: ReadonlySet<string>): string {
  if (known.has(key)) return `“${key}” does not belong here`;
  const near = nearestOf(key, known);
  return `nothing is called “${key}”${near === null ? '' : `; “${near}” is`}`;
}

/** Every key that a schema has anywhere. */
function keysOf(schema: z.ZodType): ReadonlySet<string> {
  const out = new Set<string>();
  const walk = (part: unknown): void => {
    if (typeof part !== 'object' || part === null) return;
    for (const [key, value] of Object.entries(part)) {
      if (key === 'properties' && typeof value === 'object' && value !== null)
        for (const name of Object.keys(value)) out.add(name);
      walk(value);
    }
  };
  walk(z.toJSONSchema(schema, { unrepresentable: 'any', io: 'input' }));
  return out;
}

/** Rules that a template weighs, and that there are none of. */
function unknownRule({ checks }: Pick<Template, 'checks'>): string | null {
  const codes: readonly string[] = RULE_CODES;
  const unknown = Object.keys(checks?.rules ?? {}).find((rule) => !codes.includes(rule));
  return unknown === undefined ? null : `checks.rules.${unknown}: ${unknownWords(unknown, new Set(codes))}`;
}

export function parseTemplate(text: string, what = 'template'): Result<Template, string> {
  const version = later(text, 'nesting/template');
  if (version !== null) return failure([`${what}: format version ${version} is later than this program knows (1)`]);
  const loose = parseJson(text, looseTemplateSchema, what);
  if (!loose.ok) return loose;
  // What marks mean is asked for by `parseMeanings`: it belongs to the house, not to the template.
  const { marks: _marks, ...template } = loose.value;
  const made = normaliseTemplate(template as unknown as LooseTemplate);
  const rule = unknownRule(made);
  return rule === null ? success(made) : failure([`${what}: ${rule}`]);
}

/** The meanings of marks a template or a shared part brings along. */
export function parseMeanings(text: string, what = 'template'): Result<Meanings, string> {
  const carried = parseJson(text, carriedMeaningsSchema, what, { mayHaveMore: true });
  return carried.ok ? success(carried.value.marks ?? {}) : carried;
}

export function parseConvention(text: string, what = 'convention'): Result<Convention, string> {
  const version = later(text, 'nesting/convention');
  if (version !== null) return failure([`${what}: format version ${version} is later than this program knows (1)`]);
  const file = parseJson(text, conventionFileSchema, what);
  if (!file.ok) return file;
  const { format: _format, formatVersion: _version, ...convention } = file.value;
  return success({ ...convention, id: convention.id ?? convention.name });
}

/** Of a program of a later day it may say more. */
export const parseMarker = (text: string, what = 'marker'): Result<z.infer<typeof markerSchema>, string> =>
  parseJson(text, markerSchema, what, { mayHaveMore: true });

export function parseBlock(text: string, what = 'block'): Result<BlockFile, string> {
  const version = later(text, 'nesting/block');
  return version === null
    ? parseJson(text, blockFileSchema, what)
    : failure([`${what}: format version ${version} is later than this program knows (1)`]);
}

export function parseRegisters(text: string, what = 'registers'): Result<Registers, string> {
  const some = parseJson(text, someRegistersSchema, what, { mayHaveMore: true });
  if (!some.ok) return some;
  const given = Object.fromEntries(Object.entries(some.value).filter(([, value]) => value !== undefined));
  // Any JSON object would do otherwise: a file without one list is another file.
  if (Object.keys(given).length === 0)
    return failure([`${what}: none of the lists is in it (${Object.keys(NO_REGISTERS).join(', ')})`]);
  const strict = parseJson(text, someRegistersSchema, what);
  if (!strict.ok) return strict;
  return success({ ...NO_REGISTERS, ...given });
}

export function parseCarryWay(text: string, what = 'way'): Result<CarryWay, string> {
  const version = later(text, 'nesting/carry');
  if (version !== null) return failure([`${what}: format version ${version} is later than this program knows (1)`]);
  const file = parseJson(text, carryWaySchema, what);
  return file.ok ? success(wayOf(file.value)) : file;
}

export const parseValues = (text: string, what = 'values'): Result<Values, string> =>
  parseJson(text, valuesSchema, what);

/** The version of a file that names this format with a later version than 1. */
function later(text: string, format: string): number | null {
  if (!text.includes(format)) return null;
  const version = Number(/"formatVersion"\s*:\s*(\d+)/.exec(text)?.[1] ?? 1);
  return version > 1 ? version : null;
}
