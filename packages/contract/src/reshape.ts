/**
 * A project that grows or changes: what it is to become, the plan of it, and the batches that were done. Times are ISO
 * 8601.
 */
import type { ApplyFault, Ended } from '@nesting/core/change';
import type { Values } from '@nesting/core/name';
import { RESHAPE_SIGNS, type ReshapeLine } from '@nesting/core/planners';
import { z } from 'zod';
import type { CarryBatchAsked } from './carry-over';
import { changeSchema } from './change';
import { type Same, same } from './equal';
import { valuesSchema, word } from './field';
import type { IntakeBatchAsked } from './intake';
import type { RepairAsked } from './repair';
import { amount, list, moment, record, uuid } from './reply';
import { adjustmentsSchema } from './template';

const short = z.string().min(1).max(400);

export const reshapeSchema = z.object({
  /** The project's own, so that nobody's change is written over. */
  version: z.int().min(1),
  template: word,
  edition: z.int().min(1),
  values: valuesSchema,
  adjusted: adjustmentsSchema.default({}),
  /** By list: entries that are called otherwise from now on. */
  renamed: z.record(short, z.record(short, short)).default({}),
  /** A starter file once more, in a folder. */
  extra: z
    .array(z.object({ starter: short, folder: short, name: z.string().min(1).max(255) }).readonly())
    .max(100)
    .readonly()
    .default([]),
  /** Keys of files whose names stay. */
  keep: z.array(z.string().max(5000)).max(50_000).readonly().default([]),
  /** The project's own folder is not renamed, whatever its pattern writes now. */
  keepFolder: z.boolean().default(false),
});
export type ReshapeRequest = z.input<typeof reshapeSchema>;
export type ReshapeAsked = z.infer<typeof reshapeSchema>;

const reshapeLineSchema = record({
  key: z.string(),
  what: z.enum(['folder', 'file']),
  sign: z.enum(RESHAPE_SIGNS),
  before: z.string().nullable(),
  after: z.string().nullable(),
  count: amount,
  convention: z.string().nullable(),
});
same<Same<z.infer<typeof reshapeLineSchema>, ReshapeLine>>(true);

const folderRenamed = record({ from: z.string(), to: z.string() }).nullable();

export const reshapePlanSchema = record({
  /** At most so many as one looks through; `all` says how many there are. */
  lines: list(reshapeLineSchema),
  all: amount,
  counts: z.partialRecord(z.enum(RESHAPE_SIGNS), amount).readonly(),
  kept: amount,
  /** The project's own folder, where it gets another name. */
  folder: folderRenamed,
  /** Why nothing can be done yet; empty where it can. */
  refused: list(z.string()),
  /** Stands for all that is planned: another one, another plan. */
  fingerprint: z.string(),
  longest: amount,
  budget: amount,
});
export type ReshapePlan = z.infer<typeof reshapePlanSchema>;

export const applyReshapeSchema = reshapeSchema.extend({
  fingerprint: z.string().length(64),
  /** Made up by who asks: the same request asked again is done once. It is the batch's id. */
  key: z.uuid().optional(),
});

export const PLAN_FORMS = ['text', 'csv', 'json', 'sh', 'powershell'] as const;
export type PlanForm = (typeof PLAN_FORMS)[number];

const BATCH_STATES = ['running', 'paused', 'done', 'taken-back', 'closed', 'refused'] as const;
export type BatchState = (typeof BATCH_STATES)[number];

const batchShape = {
  id: uuid,
  what: z.string(),
  by: z.string(),
  /** Whoever asked for it, by id: they may undo it as a coordinator may. */
  person: z.string().nullable(),
  at: moment,
  endedAt: moment.nullable(),
  state: z.enum(BATCH_STATES),
  /** Lines it changed on the disk. */
  changes: amount,
  undoes: uuid.nullable(),
  /** Why it is paused, was closed, or was refused. */
  why: z.string(),
  /** How far it is, while it runs. */
  done: amount,
  all: amount,
  /** When its journal and what it kept were cleared away; `null` while it can be undone. */
  sweptAt: moment.nullable(),
  /** The project that its files were carried over from. */
  source: uuid.nullable(),
  /** The folder of loose files it brought; `null` for anything else. */
  heap: record({ volume: z.string(), folder: z.string() }).nullable(),
};
export const batchRowSchema = record(batchShape);
export type BatchRow = z.infer<typeof batchRowSchema>;

const batchLineSchema = record({
  change: changeSchema,
  undone: z.boolean(),
  /** Why it cannot be undone now; of a closed batch, why it stayed. */
  hindrance: z.string().nullable(),
});
export type BatchLine = z.infer<typeof batchLineSchema>;

export const batchPageSchema = record({
  ...batchShape,
  lines: list(batchLineSchema),
  folder: folderRenamed,
  /** Why its lines cannot be read: the volume is away, or the folder gone. */
  unread: z.string().nullable(),
});
export type BatchPage = z.infer<typeof batchPageSchema>;

/** What a batch keeps so that it can be undone: files set aside, old contents. */
export const setAsideRowSchema = record({
  batch: uuid,
  project: record({ id: uuid, number: z.string(), title: z.string() }),
  what: z.string(),
  by: z.string(),
  at: moment,
  /** When it goes by itself; `null` for never. */
  until: moment.nullable(),
  files: amount,
  bytes: amount,
});
export type SetAsideRow = z.infer<typeof setAsideRowSchema>;

/** What a file or folder was called before a change gave it another name: paths from the project's root. */
export const formerNameSchema = record({
  project: record({ id: uuid, number: z.string(), title: z.string() }),
  before: z.string(),
  after: z.string(),
  batch: uuid,
  at: moment,
});
export type FormerName = z.infer<typeof formerNameSchema>;

/** The project's number, written by whoever frees its space. */
export const freeSchema = z.object({ number: z.string().max(100) });

/** What a batch that was asked for is told by; it goes on where it was not done in time. */
export const batchAnswerSchema = record({ batch: uuid, isDone: z.boolean() });
export type BatchAnswer = z.infer<typeof batchAnswerSchema>;

export const undoSchema = z.object({
  /** Of the lines' changes; all of them where null. */
  ids: z.array(z.string().max(5000)).max(100_000).readonly().nullable().default(null),
  /** Made up by who asks: the same request asked again is done once. It is the undoing batch's id. */
  key: z.uuid().optional(),
});
export const settleSchema = z.object({ way: z.enum(['finish', 'take-back', 'close']) });
export type SettleWay = z.infer<typeof settleSchema>['way'];

/** What a batch was asked to do: it is planned again by whoever does it. */
export type BatchAsked =
  | { readonly kind: 'reshape'; readonly asked: ReshapeAsked; readonly fingerprint: string }
  | {
      readonly kind: 'repair';
      readonly asked: RepairAsked;
      readonly fingerprint: string;
      /** The proposal that it carries out. */
      readonly proposal?: string | undefined;
    }
  | { readonly kind: 'carry'; readonly asked: CarryBatchAsked; readonly fingerprint: string }
  | { readonly kind: 'intake'; readonly asked: IntakeBatchAsked; readonly fingerprint: string }
  /** Lists of what a batch brought, where the template asks for them. */
  | { readonly kind: 'checksums'; readonly batch: string }
  | { readonly kind: 'undo'; readonly batch: string; readonly ids: readonly string[] | null };

/** What a project is by its rules: what a batch turns from one to another. */
export interface ProjectShape {
  readonly template: string;
  readonly edition: number;
  readonly conventions: Readonly<Record<string, { readonly id: string; readonly edition: number }>>;
  readonly values: Values;
  readonly adjusted: z.infer<typeof adjustmentsSchema>;
  readonly folder: string;
}

export type { ApplyFault, Ended };
