/** Conventions as they cross between server and screens: in force, in draft, and what a draft would do. */
import type { NameImpact } from '@nesting/core/impact';
import { z } from 'zod';
import { type Same, same } from './equal';
import { word } from './field';
import { amount, list, moment, record } from './reply';
import { conventionSchema } from './template';

const conventionDraftSchema = record({
  convention: conventionSchema,
  version: amount,
  by: z.string().nullable(),
  changedAt: moment,
});
export type ConventionDraft = z.infer<typeof conventionDraftSchema>;

export const conventionRowSchema = record({
  id: z.string(),
  name: z.string(),
  /** The newest edition; nothing where it has never been in force. */
  edition: amount.nullable(),
  convention: conventionSchema.nullable(),
  draft: conventionDraftSchema.nullable(),
  usedIn: list(record({ template: z.string(), name: z.string(), local: z.string() })),
  /** Running projects started with any edition of it. */
  projects: amount,
});
export type ConventionRow = z.infer<typeof conventionRowSchema>;

export const newConventionSchema = z.object({ convention: conventionSchema.unwrap().omit({ id: true }) });
/** `version` is that of the draft it was made from; 0 where there was none. */
export const saveDraftSchema = z.object({ convention: conventionSchema, version: z.int().min(0) });
export const putInForceSchema = z.object({ version: z.int().min(1) });
export const impactSchema = z.object({ convention: conventionSchema });

const nameImpactShape = {
  still: amount,
  starts: amount,
  stops: amount,
  breaks: amount,
  startExamples: list(z.string()),
  stopExamples: list(record({ name: z.string(), meant: z.string().nullable() })),
};
const nameImpactOnly = record(nameImpactShape);
same<Same<z.infer<typeof nameImpactOnly>, NameImpact>>(true);

const impactRowSchema = record({
  ...nameImpactShape,
  project: record({ id: z.string(), number: z.string(), folder: z.string() }),
  /** Where its folders could not be looked at. */
  trouble: z.string().nullable(),
});
export type ImpactRow = z.infer<typeof impactRowSchema>;

export const conventionImpactSchema = record({
  projects: list(impactRowSchema),
  /** Names looked at in all. */
  names: amount,
});
export type ConventionImpact = z.infer<typeof conventionImpactSchema>;

/** A project's own names that a convention is asked of, for trying it. */
export const namesQuerySchema = z.object({ convention: word });
export const projectNamesSchema = record({ names: list(z.string()), more: amount });
export type ProjectNames = z.infer<typeof projectNamesSchema>;

/** What somebody is about to save: a convention of a folder, and the values the name is made of. */
export const askNameSchema = z.object({
  convention: word,
  folder: z.string().max(4096),
  values: z.record(z.string().max(200), z.union([z.string().max(500), z.number()])),
});
export type AskName = z.infer<typeof askNameSchema>;

export const heldNameSchema = record({
  name: z.string(),
  folder: z.string(),
  /** The folder of the project on its volume. */
  project: z.string(),
  volume: z.string(),
  until: moment,
  /** Whether the folder is on the disk yet. */
  folderThere: z.boolean(),
});
export type HeldName = z.infer<typeof heldNameSchema>;
