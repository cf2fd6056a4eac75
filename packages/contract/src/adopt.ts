/** Folders taken in as projects, and copies of a project's folder. Times are ISO 8601. */
import type { Fit } from '@nesting/core/template';
import { z } from 'zod';
import { type Same, same } from './equal';
import { valuesSchema, word } from './field';
import { amount, list, moment, record } from './reply';
import { adjustmentsSchema } from './template';

const folder = z.string().min(1).max(1000);

export const fitSchema = z.object({ volume: word, folder, values: valuesSchema.default({}) });

const fitShape = {
  score: z.number(),
  values: valuesSchema,
  adjusted: adjustmentsSchema,
  matched: amount,
  otherwise: list(record({ path: z.string(), planned: z.string() })),
  missing: list(z.string()),
  unplanned: list(z.string()),
};
const fitOnly = record(fitShape);
same<Same<z.infer<typeof fitOnly>, Fit>>(true);
const fitRowSchema = record({ ...fitShape, template: z.string(), edition: amount, name: z.string() });
export type FitRow = z.infer<typeof fitRowSchema>;

export const fitsSchema = record({
  /** Best first. */
  fits: list(fitRowSchema),
  folders: amount,
  /** `false` where there were more folders than are looked at. */
  whole: z.boolean(),
});
export type Fits = z.infer<typeof fitsSchema>;

export const adoptSchema = z.object({
  volume: word,
  folder,
  template: word,
  edition: z.int().min(1),
  values: valuesSchema,
  adjusted: adjustmentsSchema.default({}),
  makeMissing: z.boolean().default(false),
});
export type AdoptRequest = z.input<typeof adoptSchema>;
export type AdoptGiven = z.infer<typeof adoptSchema>;

/** One of several folders that say they are the same project. */
export const copyRowSchema = record({
  volume: z.string(),
  folder: z.string(),
  /** Where the project's row says it lies. */
  home: z.boolean(),
  files: amount,
  folders: amount,
  bytes: amount,
  newest: moment.nullable(),
  /** Files that the project's own folder has not, has otherwise, and has alone. */
  only: amount,
  differ: amount,
  lacks: amount,
  examples: list(z.string()),
});
export type CopyPlace = z.infer<typeof copyRowSchema>;

export const copyPlaceSchema = z.object({ volume: word, folder });
export const ownCopySchema = copyPlaceSchema.extend({ number: z.string().min(1).max(64) });
