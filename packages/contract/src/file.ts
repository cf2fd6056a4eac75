/** Text from outside → a checked thing, or one line that says what is wrong with it. */
import {
  type Answer,
  bad,
  type Convention,
  good,
  type LooseTemplate,
  NO_REGISTERS,
  normaliseTemplate,
  type Registers,
  type Template,
  type Values,
} from '@nesting/core';
import type { z } from 'zod';
import { type BlockFile, blockFileSchema } from './block';
import { someRegistersSchema, valuesSchema } from './field';
import { conventionFileSchema, looseTemplateSchema, markerSchema } from './template';

function parseJson<T>(text: string, schema: z.ZodType<T>, what: string): Answer<T, string> {
  let data: unknown;
  try {
    data = JSON.parse(text.replace(/^\ufeff/, ''));
  } catch (error) {
    return bad([`${what}: not JSON (${error instanceof Error ? error.message : 'unreadable'})`]);
  }
  const parsed = schema.safeParse(data);
  if (parsed.success) return good(parsed.data);
  const issue = parsed.error.issues[0];
  return bad([`${what}: ${issue?.path.join('.') || 'the whole'}: ${issue?.message ?? 'not as expected'}`]);
}

export function parseTemplate(text: string, what = 'template'): Answer<Template, string> {
  const version = later(text, 'nesting/template');
  if (version !== null) return bad([`${what}: format version ${version} is later than this program knows (1)`]);
  const loose = parseJson(text, looseTemplateSchema, what);
  return loose.ok ? good(normaliseTemplate(loose.value as unknown as LooseTemplate)) : loose;
}

export function parseConvention(text: string, what = 'convention'): Answer<Convention, string> {
  const version = later(text, 'nesting/convention');
  if (version !== null) return bad([`${what}: format version ${version} is later than this program knows (1)`]);
  const file = parseJson(text, conventionFileSchema, what);
  if (!file.ok) return file;
  const { format: _format, formatVersion: _version, ...convention } = file.value;
  return good({ ...convention, id: convention.id ?? convention.name });
}

export const parseMarker = (text: string, what = 'marker'): Answer<z.infer<typeof markerSchema>, string> =>
  parseJson(text, markerSchema, what);

export function parseBlock(text: string, what = 'block'): Answer<BlockFile, string> {
  const version = later(text, 'nesting/block');
  return version === null
    ? parseJson(text, blockFileSchema, what)
    : bad([`${what}: format version ${version} is later than this program knows (1)`]);
}

export function parseRegisters(text: string, what = 'registers'): Answer<Registers, string> {
  const some = parseJson(text, someRegistersSchema, what);
  if (!some.ok) return some;
  const given = Object.fromEntries(Object.entries(some.value).filter(([, value]) => value !== undefined));
  // Any JSON object would do otherwise: a file without one list is another file.
  if (Object.keys(given).length === 0)
    return bad([`${what}: none of the lists is in it (${Object.keys(NO_REGISTERS).join(', ')})`]);
  return good({ ...NO_REGISTERS, ...given });
}

export const parseValues = (text: string, what = 'values'): Answer<Values, string> =>
  parseJson(text, valuesSchema, what);

/** The version of a file that names this format with a later version than 1. */
function later(text: string, format: string): number | null {
  if (!text.includes(format)) return null;
  const version = Number(/"formatVersion"\s*:\s*(\d+)/.exec(text)?.[1] ?? 1);
  return version > 1 ? version : null;
}
