/** Templates as they are written: drafts, editions, what an edition would mean for projects that run. */
import { z } from 'zod';
import { short, word } from './field';
import { amount, list, moment, record } from './reply';
import { looseTemplateSchema, templateSchema } from './template';

export const templateDraftSchema = record({
  template: templateSchema,
  version: amount,
  by: z.string().nullable(),
  changedAt: moment,
});
export type TemplateDraft = z.infer<typeof templateDraftSchema>;

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

export const editionRowSchema = record({
  edition: amount,
  said: z.string(),
  at: moment,
  by: z.string().nullable(),
  template: templateSchema,
});
export type EditionRow = z.infer<typeof editionRowSchema>;

/** One running project on an earlier edition, were the draft taken on by it. */
export const templateImpactRowSchema = record({
  project: record({ id: z.string(), number: z.string(), folder: z.string(), edition: amount }),
  gains: amount,
  loses: amount,
  renames: amount,
  examples: list(z.string()),
});
export type TemplateImpactRow = z.infer<typeof templateImpactRowSchema>;

/** A starter file kept for a template. */
export const starterRowSchema = record({
  path: z.string(),
  bytes: amount,
  /** Given to the draft itself, and not only to an edition. */
  inDraft: z.boolean(),
});
export type StarterRow = z.infer<typeof starterRowSchema>;

/** Names on a disk as text; `whole` is false where there were too many. */
export const listingTextSchema = record({ listing: z.string(), whole: z.boolean() });
export type ListingText = z.infer<typeof listingTextSchema>;

export const folderChoiceSchema = record({ folders: list(z.string()), files: amount });
export type FolderChoice = z.infer<typeof folderChoiceSchema>;
