/** Folders taken in as projects, and copies of a project's folder. Times are ISO 8601. */
import type { Fit } from '@nesting/core/template';
import { z } from 'zod';
import { valuesSchema, word } from './field';
import { adjustmentsSchema } from './template';

const folder = z.string().min(1).max(1000);

export const fitSchema = z.object({ volume: word, folder, values: valuesSchema.default({}) });

export interface FitRow extends Fit {
  readonly template: string;
  readonly edition: number;
  readonly name: string;
}

export interface Fits {
  /** Best first. */
  readonly fits: readonly FitRow[];
  readonly folders: number;
  /** `false` where there were more folders than are looked at. */
  readonly whole: boolean;
}

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
export interface CopyPlace {
  readonly volume: string;
  readonly folder: string;
  /** Where the project's row says it lies. */
  readonly home: boolean;
  readonly files: number;
  readonly folders: number;
  readonly bytes: number;
  readonly newest: string | null;
  /** Files that the project's own folder has not, has otherwise, and has alone. */
  readonly only: number;
  readonly differ: number;
  readonly lacks: number;
  readonly examples: readonly string[];
}

export const copyPlaceSchema = z.object({ volume: word, folder });
export const ownCopySchema = copyPlaceSchema.extend({ number: z.string().min(1).max(64) });
