import { LIMITS } from '@nesting/core';
import { type Field, type Registers, SCALAR_TYPES, type Value, type Values } from '@nesting/core/name';
import { z } from 'zod';
import { type Same, same } from './equal';

/** Short texts people give: names, labels, codes. */
export const short = z.string().max(200);
export const word = z.string().min(1).max(200);

const choice = z
  .object({ code: word, label: short.optional(), also: z.array(word).max(50).readonly().optional() })
  .readonly();

const scalarShape = {
  type: z.enum(SCALAR_TYPES),
  max: z.int().min(1).max(255).optional(),
  chars: z.string().max(500).optional(),
  like: z.string().max(60).optional(),
  options: z.array(choice).max(500).readonly().optional(),
  ofVersion: z.boolean().optional(),
};

const head = {
  id: word.optional(),
  key: z.string().regex(/^[A-Za-z][A-Za-z0-9_-]*$/),
  label: short.optional(),
  help: z.string().max(1000).optional(),
  required: z.boolean().optional(),
};

const scalarRuleSchema = z.object(scalarShape).readonly();
export const fieldSchema = z.discriminatedUnion('type', [
  z
    .object({
      ...head,
      type: z.literal('list'),
      of: scalarRuleSchema,
      within: short.optional(),
      artistsMayAdd: z.boolean().optional(),
      revisions: word.optional(),
    })
    .readonly(),
  z.object({ ...head, ...scalarShape }).readonly(),
]);
same<Same<z.infer<typeof fieldSchema>, Field>>(true);

const client = z.object({ code: word, name: word, retired: z.boolean().optional() }).readonly();
const person = z.object({ initials: word, name: word, retired: z.boolean().optional() }).readonly();
const family = z
  .object({
    name: word,
    extensions: z.array(word).max(500).readonly(),
    companions: z.array(word).max(500).readonly().optional(),
    document: z
      .object({ folder: z.literal(true).optional(), stem: z.literal(true).optional() })
      .readonly()
      .optional(),
  })
  .readonly();
const abbreviation = z.object({ short: word, long: word }).readonly();

const library = z.object({ path: word, name: word }).readonly();

const lists = {
  clients: z.array(client).max(20_000).readonly(),
  people: z.array(person).max(20_000).readonly(),
  families: z.array(family).max(500).readonly(),
  abbreviations: z.array(abbreviation).max(5000).readonly(),
  banned: z.array(word).max(5000).readonly(),
  libraries: z.array(library).max(500).readonly().optional(),
};

/** A registers file: any list may be left out. */
export const someRegistersSchema = z.object(lists).partial().readonly();
export const registersSchema = z.object(lists).readonly();
same<Same<z.infer<typeof registersSchema>, Registers>>(true);

export const valueSchema: z.ZodType<Value> = z.lazy(() =>
  z.union([
    z.string().max(4000),
    z.number(),
    z.boolean(),
    z.null(),
    z.array(valueSchema).max(LIMITS.listEntries).readonly(),
    z.record(z.string().max(200), valueSchema),
  ]),
);
export const valuesSchema: z.ZodType<Values> = z.record(z.string().max(200), valueSchema);
