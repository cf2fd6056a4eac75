/** Two projects side by side. */
import { COMPARED, type ComparedSums, EVIDENCE, type ToldRow } from '@nesting/core/compare';
import { z } from 'zod';
import { type Same, same } from './equal';
import { amount, list, moment, record, uuid } from './reply';

export const compareQuerySchema = z.object({
  left: z.uuid(),
  right: z.uuid(),
  /** One folder of each, from its root, where not all of it is compared: two scenes, two revisions. */
  leftFolder: z.string().max(4096).default(''),
  rightFolder: z.string().max(4096).default(''),
  /** Or one revision of each, where a template has them: an entry of its list. */
  leftRevision: z.string().max(200).default(''),
  rightRevision: z.string().max(200).default(''),
  /** Or what one change of each project left. */
  leftBatch: z.uuid().or(z.literal('')).default(''),
  rightBatch: z.uuid().or(z.literal('')).default(''),
  /** What is the same on both sides is counted, and told only where it is asked for. */
  same: z.stringbool().default(false),
});
export type CompareQuery = z.output<typeof compareQuerySchema>;

export const COMPARISON_FORMS = ['csv', 'json'] as const;
export type ComparisonForm = (typeof COMPARISON_FORMS)[number];

const item = record({
  /** From the project's root; of a sequence with `#` for its frame. */
  path: z.string(),
  size: amount,
  /** Milliseconds since 1970. */
  modified: z.number(),
  frames: amount,
});

const row = record({
  state: z.enum(COMPARED),
  evidence: z.enum(EVIDENCE).nullable(),
  isUnread: z.boolean(),
  left: item.nullable(),
  right: item.nullable(),
});
export type ComparisonRow = z.infer<typeof row>;

same<Same<ComparisonRow, ToldRow>>(true);

const ofStates = record({
  same: amount,
  renamed: amount,
  changed: amount,
  'only-left': amount,
  'only-right': amount,
});

const side = record({
  ...{ id: uuid, number: z.string(), title: z.string(), folder: z.string() },
  /** The one folder that was compared; empty for all of it. */
  within: z.string(),
  revision: z.string(),
  /** The change of which that was compared that it left; `null` for all. */
  batch: record({ id: uuid, what: z.string(), at: moment }).nullable(),
});

export const comparisonSchema = record({
  left: side,
  right: side,
  /** At most so many as one looks through; `all` says how many there are. */
  rows: list(row),
  all: amount,
  counts: ofStates,
  bytes: ofStates,
  /** What could not be looked at, or read. */
  unseen: list(record({ side: z.enum(['left', 'right']), path: z.string(), code: z.string() })),
});
export type Comparison = z.infer<typeof comparisonSchema>;
same<Same<Pick<Comparison, 'counts' | 'bytes'>, ComparedSums>>(true);
