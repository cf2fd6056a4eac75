/** Findings put right: what is asked for, the plan of it, what it leaves to be done by hand. */
import { RULE_CODES } from '@nesting/core/check';
import { CONFIDENCES } from '@nesting/core/name';
import {
  BY_HAND_REASONS,
  type ByHand,
  REPAIR_STATES,
  type RepairLine,
  type RewrittenDocument,
  WAYS,
} from '@nesting/core/planners';
import { z } from 'zod';
import { type Same, same } from './equal';
import { amount, list, moment, record, uuid } from './reply';

/** Findings of one plan. */
export const MOST_REPAIRED = 100_000;

const findingId = z.string().regex(/^[0-9a-f]{16}$/);

/** From the project's root, which is the empty one. */
const folderPath = z.string().max(4096);

export const repairSchema = z.object({
  /** These findings; all that stand where absent. */
  ids: z.array(findingId).min(1).max(MOST_REPAIRED).readonly().nullable().default(null),
  rule: z.enum(RULE_CODES).nullable().default(null),
  /** Everything in it. */
  folder: z.string().max(4096).nullable().default(null),
  /** Initials of whoever is to put it right. */
  person: z.string().max(8).nullable().default(null),
  /** Ways of this confidence and better are taken without being asked for; none where it is null. */
  from: z.enum(CONFIDENCES).nullable().default('sure'),
  /** By finding: the way that was taken, or none; another name or folder in place of the proposed one. */
  answers: z
    .record(
      findingId,
      z
        .object({
          key: z.string().max(4200).nullable(),
          name: z.string().min(1).max(255).optional(),
          folder: folderPath.optional(),
        })
        .readonly(),
    )
    .default({}),
  /** The clock of the plan that was shown, milliseconds since 1970: what waits there waits here too. */
  now: z.int().min(0).nullable().default(null),
});
export type RepairRequest = z.input<typeof repairSchema>;
export type RepairAsked = z.infer<typeof repairSchema>;

export const coded = record({
  code: z.string(),
  params: z.record(z.string(), z.union([z.string(), z.number(), list(z.string())])).readonly(),
});

const option = record({
  key: z.string(),
  way: z.enum(WAYS),
  confidence: z.enum(CONFIDENCES),
  to: z.string().nullable(),
  value: z.string().nullable(),
  facts: record({ modified: z.number(), size: amount, referrers: amount }).optional(),
});
export type RepairOption = z.infer<typeof option>;

const line = record({
  id: z.string(),
  rule: z.enum(RULE_CODES),
  weight: z.string(),
  path: z.string(),
  entry: z.enum(['folder', 'file']),
  state: z.enum(REPAIR_STATES),
  options: list(option),
  chosen: z.string().nullable(),
  after: z.string().nullable(),
  clash: record({ at: z.string(), other: z.string().nullable() }).nullable(),
  free: z.string().nullable(),
  fault: coded.nullable(),
  count: amount,
  bytes: amount,
  modified: z.number().nullable(),
  family: z.string().nullable(),
});
same<Same<z.infer<typeof line>, RepairLine>>(true);

export const rewritten = record({
  path: z.string(),
  after: z.string(),
  changes: list(record({ from: z.string(), to: z.string() })),
});
same<Same<z.infer<typeof rewritten>, RewrittenDocument>>(true);

export const byHand = record({
  document: z.string(),
  target: z.string(),
  to: z.string().nullable(),
  why: z.enum(BY_HAND_REASONS),
});
same<Same<z.infer<typeof byHand>, ByHand>>(true);

export const repairPlanSchema = record({
  /** At most so many as one looks through; `all` says how many there are. */
  lines: list(line),
  all: amount,
  counts: z.partialRecord(z.enum(REPAIR_STATES), amount).readonly(),
  /** Documents that are rewritten, and references that somebody must put right. */
  documents: list(rewritten),
  byHand: list(byHand),
  /** Entries that change, and bytes of the files among them. */
  entries: amount,
  bytes: amount,
  /** Whether whoever asks may carry it out; else it can be proposed. */
  mayApply: z.boolean(),
  /** Why nothing can be done yet; empty where it can. */
  refused: list(z.string()),
  /** The clock it was planned by, milliseconds since 1970. */
  now: amount,
  /** Stands for all that is planned: another one, another plan. */
  fingerprint: z.string(),
});
export type RepairPlan = z.infer<typeof repairPlanSchema>;

/** The same plan, and whether everything is searched, however much it is. */
export const mentionsAskedSchema = repairSchema.extend({ isAll: z.boolean().default(false) });

/** What documents that only their programs can read name of that which moves. */
export const mentionedSchema = record({
  /** Documents there are to be searched, and their bytes. */
  files: amount,
  bytes: amount,
  /** Not where they are more than is searched without being asked. */
  isSearched: z.boolean(),
  references: list(byHand),
});
export type MentionedReply = z.infer<typeof mentionedSchema>;

/** What was shown begins at an hour. */
export const laterRepairSchema = repairSchema.extend({
  fingerprint: z.string().length(64),
  beginsAt: z.iso.datetime({ offset: true }),
});

export const laterRepairRowSchema = record({
  id: uuid,
  by: z.string(),
  beginsAt: moment,
  findings: amount,
});
export type LaterRepair = z.infer<typeof laterRepairRowSchema>;

export const applyRepairSchema = repairSchema.extend({
  fingerprint: z.string().length(64),
  /** Made up by who asks: the same request asked again is done once. It is the batch's id. */
  key: z.uuid().optional(),
  /** The proposal that this carries out, as it was or in part. */
  proposal: z.uuid().optional(),
});
