/** Templates as they are written: drafts, editions, what an edition would mean for projects that run. */
import type { Template } from '@nesting/core/template';
import { z } from 'zod';
import { short, word } from './field';
import { record } from './reply';
import { looseTemplateSchema, templateSchema } from './template';

export interface TemplateDraft {
  readonly template: Template;
  readonly version: number;
  readonly by: string | null;
  readonly changedAt: string;
}

const starterPath = z.string().min(1).max(500);
/** Bytes as Base64: starter files that come with an import are small. */
const starterFile = z.object({ path: starterPath, base64: z.string().max(8_000_000) });

export const newTemplateSchema = z.object({
  template: looseTemplateSchema,
  starters: z.array(starterFile).max(500).default([]),
  /** Of which template and edition the starter files are taken over. */
  from: z.object({ template: word, edition: z.int().min(1) }).optional(),
});
export const saveTemplateSchema = z.object({ template: templateSchema, version: z.int().min(0) });
export const putTemplateInForceSchema = z.object({ version: z.int().min(1), said: short });
export const archiveSchema = z.object({ archived: z.boolean() });
export const templateImpactSchema = z.object({ template: templateSchema });

export interface EditionRow {
  readonly edition: number;
  readonly said: string;
  readonly at: string;
  readonly by: string | null;
  readonly template: Template;
}

/** One running project on an earlier edition, were the draft taken on by it. */
export interface TemplateImpactRow {
  readonly project: { readonly id: string; readonly number: string; readonly folder: string; readonly edition: number };
  readonly gains: number;
  readonly loses: number;
  readonly renames: number;
  readonly examples: readonly string[];
}

/** A starter file kept for a template. */
export interface StarterRow {
  readonly path: string;
  readonly bytes: number;
  /** Given to the draft itself, and not only to an edition. */
  readonly inDraft: boolean;
}

/** Names on a disk as text; `whole` is false where there were too many. */
export const listingTextSchema = record({ listing: z.string(), whole: z.boolean() });
export type ListingText = z.infer<typeof listingTextSchema>;

export interface FolderChoice {
  readonly folders: readonly string[];
  readonly files: number;
}
