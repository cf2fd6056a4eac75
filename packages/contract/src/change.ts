/** A change of a disk as it crosses the wire. */
import { type Change, type RootId, rootIdOf } from '@nesting/core/change';
import { z } from 'zod';
import { type Same, same } from './equal';
import { list, record } from './reply';

const place = record({ root: z.string().transform((text): RootId => rootIdOf(text)), path: z.string() });
/** Bytes, and milliseconds since 1970. */
const expected = record({ size: z.number(), modified: z.number() });
const patch = record({ at: z.int(), length: z.int(), bytes: z.string() });

const content = z.discriminatedUnion('kind', [
  record({ kind: z.literal('text'), text: z.string() }),
  record({ kind: z.literal('starter'), key: z.string(), isFilled: z.boolean() }),
  record({ kind: z.literal('copy'), from: place, expects: expected.optional(), patches: list(patch).optional() }),
  record({ kind: z.literal('rewritten'), patches: list(patch) }),
  record({ kind: z.literal('set-aside'), from: place }),
]);

const subject = z.discriminatedUnion('kind', [
  record({ kind: z.literal('line'), line: z.string() }),
  record({ kind: z.literal('file') }),
  record({ kind: z.literal('finding'), finding: z.string() }),
  record({ kind: z.literal('own') }),
  record({ kind: z.literal('project') }),
]);

export const changeSchema = record({
  id: z.string(),
  subject,
  group: z.string().nullable(),
  entry: z.enum(['folder', 'file']),
  before: place.nullable(),
  after: place.nullable(),
  content: content.nullable(),
  expects: expected.optional(),
  isWhole: z.boolean().optional(),
});
same<Same<z.infer<typeof changeSchema>, Change>>(true);
