/** Blocks shared by several templates: kept once, changed once, taken up by each template with what it made of them. */
import { z } from 'zod';
import { short, word } from './field';
import { meaningsSchema } from './marks';
import { amount, list, moment, record } from './reply';
import { folderSchema } from './template';

/** A house block as a file of its own: `*.block.json`. */
export const blockFileSchema = z
  .object({
    format: z.literal('nesting/block'),
    formatVersion: z.literal(1),
    id: word,
    name: word,
    edition: z.int().min(1),
    folders: z.array(folderSchema).max(10_000).readonly(),
    /** What its marks mean; files of older versions do not say it. */
    marks: meaningsSchema.optional(),
  })
  .readonly();
export type BlockFile = z.infer<typeof blockFileSchema>;

/** A block as it is written: its name and its folders. */
const blockBodySchema = z.object({ name: word, folders: z.array(folderSchema).max(10_000).readonly() }).readonly();
export type BlockBody = z.infer<typeof blockBodySchema>;

const blockDraftSchema = record({
  body: blockBodySchema,
  version: amount,
  by: z.string().nullable(),
  changedAt: moment,
});
export type BlockDraft = z.infer<typeof blockDraftSchema>;

export const blockRowSchema = record({
  id: z.string(),
  name: z.string(),
  edition: amount,
  folders: list(folderSchema),
  draft: blockDraftSchema.nullable(),
  /** Templates that hold it, in force or in draft. */
  usedIn: list(record({ template: z.string(), name: z.string(), edition: amount })),
});
export type BlockRow = z.infer<typeof blockRowSchema>;

export const blockEditionRowSchema = record({
  edition: amount,
  said: z.string(),
  at: moment,
  by: z.string().nullable(),
  name: z.string(),
  folders: list(folderSchema),
});
export type BlockEditionRow = z.infer<typeof blockEditionRowSchema>;

export const blockSharedSchema = record({ id: z.string(), edition: amount, folders: list(folderSchema) });

/** What a template has in a block becomes the house's; its starter files go along. */
export const shareBlockSchema = z.object({ template: word, body: blockBodySchema });
export const saveBlockSchema = z.object({ body: blockBodySchema, version: z.int().min(0) });
/**
 * Which templates take the new edition up; where both sides changed one setting, the block's way is taken for those
 * named in `theirs`.
 */
export const putBlockInForceSchema = z.object({
  version: z.int().min(1),
  said: short,
  take: z.array(z.object({ template: word, theirs: z.array(z.string().max(500)).max(10_000).default([]) })).max(500),
});
export type PutBlockInForce = z.infer<typeof putBlockInForceSchema>;

/** How a clash is called in `theirs`. */
export const clashKeyOf = (clash: { readonly id: string; readonly what: string }): string =>
  `${clash.id} ${clash.what}`;

export const blockInForceSchema = record({
  edition: amount,
  /** What became of each template that takes it up: its next edition, or none where only a draft holds it. */
  templates: list(record({ template: z.string(), edition: amount.nullable() })),
});
export type BlockInForce = z.infer<typeof blockInForceSchema>;
