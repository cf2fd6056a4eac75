/** Names of loose files that follow a convention of their own: what each of its parts says of the files. */

import { nameOf } from '@nesting/core/listing';
import { type CompiledConvention, type Registers, readName } from '@nesting/core/name';
import type { Placed } from '@nesting/core/planners';
import type { LearnedFor } from '../../app/learning';
import { compileRule } from '../../workers/compile-rule';
import { type SayField, wordsOf } from './intake-fields';

export interface PartSaid {
  readonly key: string;
  readonly label: string;
  /** Different values that it has in these names, the first of them. */
  readonly examples: readonly string[];
  /** The field it probably stands for; `null` where none is. */
  readonly meant: string | null;
}

/** By a part of the names: the field that it stands for. */
export type Meanings = Readonly<Record<string, string | null>>;

const MOST_EXAMPLES = 3;

export const compiledOf = (
  { pattern, fields, families }: LearnedFor,
  registers: Registers,
): CompiledConvention | null => compileRule({ pattern, fields, registers, families, number: undefined });

/** Parts beside the extension, with what they have in the names that read. */
export function partsOf(
  convention: CompiledConvention,
  paths: readonly string[],
  fields: readonly SayField[],
): readonly PartSaid[] {
  const values = new Map<string, Set<string>>(
    convention.slots.flatMap(({ field }) => (field === 'ext' ? [] : [[field, new Set<string>()] as const])),
  );
  for (const path of paths)
    for (const [field, value] of Object.entries(readName(convention, nameOf(path)) ?? {}))
      values.get(field)?.add(String(value));
  return [...values].map(([key, found]) => ({
    key,
    label: wordsOf(key),
    examples: [...found].slice(0, MOST_EXAMPLES),
    meant: meantBy(key, found, fields),
  }));
}

/** Called so, or all of its values are known entries of it. */
function meantBy(key: string, found: ReadonlySet<string>, fields: readonly SayField[]): string | null {
  const called = fields.find((field) => field.key === key || field.key === `${key}s`);
  if (called !== undefined) return called.key;
  if (found.size === 0) return null;
  const known = fields.filter((field) => {
    const entries = new Set(field.known.map((entry) => entry.toLowerCase()));
    return [...found].every((value) => entries.has(value.toLowerCase()));
  });
  return known.length === 1 ? (known[0]?.key ?? null) : null;
}

/** What is said of each file whose name reads: entries as the project writes them. */
export function saidBy(
  convention: CompiledConvention,
  paths: readonly string[],
  meanings: Meanings,
  fields: readonly SayField[],
): Readonly<Record<string, Placed>> {
  const out: Record<string, Placed> = {};
  for (const path of paths) {
    const reading = readName(convention, nameOf(path));
    if (reading === null) continue;
    const values: Record<string, string> = {};
    for (const [part, value] of Object.entries(reading)) {
      const field = fields.find(({ key }) => key === meanings[part]);
      if (field !== undefined) values[field.key] = asKnown(field, String(value));
    }
    if (Object.keys(values).length > 0) out[path] = { values };
  }
  return out;
}

const asKnown = ({ known }: SayField, value: string): string =>
  known.find((entry) => entry.toLowerCase() === value.toLowerCase()) ?? value;
