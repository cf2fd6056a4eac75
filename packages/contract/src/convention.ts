/** Conventions as they cross between server and screens: in force, in draft, and what a draft would do. */
import type { NameImpact } from '@nesting/core/impact';
import type { Convention } from '@nesting/core/template';
import { z } from 'zod';
import { word } from './field';
import { amount, list, moment, record } from './reply';
import { conventionSchema } from './template';

export interface ConventionRow {
  readonly id: string;
  readonly name: string;
  /** The newest edition; nothing where it has never been in force. */
  readonly edition: number | null;
  readonly convention: Convention | null;
  readonly draft: ConventionDraft | null;
  readonly usedIn: readonly { readonly template: string; readonly name: string; readonly local: string }[];
  /** Running projects started with any edition of it. */
  readonly projects: number;
}

export interface ConventionDraft {
  readonly convention: Convention;
  readonly version: number;
  readonly by: string | null;
  readonly changedAt: string;
}

export const newConventionSchema = z.object({ convention: conventionSchema.unwrap().omit({ id: true }) });
/** `version` is that of the draft it was made from; 0 where there was none. */
export const saveDraftSchema = z.object({ convention: conventionSchema, version: z.int().min(0) });
export const putInForceSchema = z.object({ version: z.int().min(1) });
export const impactSchema = z.object({ convention: conventionSchema });

export interface ImpactRow extends NameImpact {
  readonly project: { readonly id: string; readonly number: string; readonly folder: string };
  /** Where its folders could not be looked at. */
  readonly trouble: string | null;
}

export interface ConventionImpact {
  readonly projects: readonly ImpactRow[];
  /** Names looked at in all. */
  readonly names: number;
}

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
