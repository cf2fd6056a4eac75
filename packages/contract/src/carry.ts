/** A kept way of carrying over, as a file: `*.carry.json`. */
import { type CarryWay, COMES, VERSION_WAYS } from '@nesting/core/planners';
import { z } from 'zod';

const criterion = z.strictObject({
  family: z.string().max(200).optional(),
  reading: z.record(z.string().max(64), z.string().max(255)).optional(),
});

export const carryWaySchema = z.strictObject({
  format: z.literal('nesting/carry'),
  formatVersion: z.literal(1),
  folders: z.record(z.string().max(200), z.enum(COMES)).default({}),
  take: z.array(criterion).max(500).default([]),
  leave: z.array(criterion).max(500).default([]),
  version: z.enum(VERSION_WAYS).default('restart'),
  words: z
    .array(z.strictObject({ old: z.string().min(1).max(255), new: z.string().max(255).nullable() }))
    .max(500)
    .default([]),
});

export function wayOf({
  folders,
  take,
  leave,
  version,
  words,
}: Omit<z.output<typeof carryWaySchema>, 'format' | 'formatVersion'>): CarryWay {
  return { folders, take, leave, version, words };
}
