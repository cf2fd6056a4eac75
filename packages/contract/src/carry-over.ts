/** A project carried over: to a new one, to one that is there, to its own next revision. */
import {
  type CarriedFolder,
  type CarryRow,
  type CarrySummary,
  COMES,
  NAMED_BY,
  type OldWordFound,
} from '@nesting/core/planners';
import { z } from 'zod';
import { carryWaySchema } from './carry';
import { changeSchema } from './change';
import { type Same, same } from './equal';
import { word } from './field';
import { startSchema } from './project';
import { byHand, coded, rewritten } from './repair';
import { amount, list, moment, record, uuid } from './reply';

const path = z.string().max(4096);

/** A kept way without the head of its file. */
export const wayBodySchema = carryWaySchema.omit({ format: true, formatVersion: true });
export type WayBody = z.input<typeof wayBodySchema>;

const pickedSchema = z
  .record(
    path,
    z.strictObject({
      comes: z.boolean().optional(),
      name: z.string().min(1).max(255).optional(),
      folder: path.optional(),
    }),
  )
  .default({});

const ON_VOLUMES = [
  z.strictObject({ kind: z.literal('new'), start: startSchema }),
  z.strictObject({ kind: z.literal('there'), project: z.uuid() }),
  /** The next entry of the list that its template calls its revisions; `now` where it is to be another one. */
  z.strictObject({ kind: z.literal('revision'), was: word, now: word.nullable().default(null) }),
] as const;

/** A folder on the computer of whoever asks: what it lies in, as a whole path, where one knows it. */
const hereSchema = z.strictObject({
  kind: z.literal('here'),
  start: startSchema,
  path: z.string().max(1000).default(''),
});

export const carrySchema = z.object({
  target: z.discriminatedUnion('kind', [...ON_VOLUMES, hereSchema]),
  way: wayBodySchema,
  /** By the path in the source: what is said of a single file, or of a folder and all that is in it. */
  picked: pickedSchema,
});
export type CarryRequest = z.input<typeof carrySchema>;
export type CarryAsked = z.infer<typeof carrySchema>;

/** What the server carries out; a folder on somebody's computer is written by their browser. */
export const applyCarrySchema = carrySchema.extend({
  target: z.discriminatedUnion('kind', ON_VOLUMES),
  fingerprint: z.string().length(64),
  /** Made up by who asks: the same request asked again is done once. It is the batch's id. */
  key: z.uuid().optional(),
});
export type ApplyCarry = z.infer<typeof applyCarrySchema>;
export type CarryToVolume = z.input<typeof applyCarrySchema>;

export const carryHereSchema = carrySchema.extend({ target: hereSchema, fingerprint: z.string().length(64) });
export type CarryHere = z.infer<typeof carryHereSchema>;
export type CarryHereRequest = z.input<typeof carryHereSchema>;

/** What a browser writes of such a plan: the new project as it is started, and then what comes along. */
export const carriedHereSchema = record({
  folder: z.string(),
  start: list(
    z.discriminatedUnion('do', [
      record({ do: z.literal('make'), path: z.string() }),
      record({ do: z.literal('write'), path: z.string(), base64: z.string() }),
    ]),
  ),
  changes: list(changeSchema),
});
export type CarriedHere = z.infer<typeof carriedHereSchema>;

/** A piece of a project's file as it was when it was looked at. */
export const filePieceSchema = z.object({
  path: path.min(1),
  /** Bytes in front of it. */
  at: z.coerce.number().int().min(0),
  /** Bytes of the whole file, and milliseconds since 1970: another one is not given. */
  size: z.coerce.number().int().min(0),
  modified: z.coerce.number(),
});
export type FilePieceAsked = z.infer<typeof filePieceSchema>;

/** What a batch is asked for that brings files into the project it belongs to. */
export interface CarryBatchAsked extends Pick<CarryAsked, 'way' | 'picked'> {
  /** The project they come from. */
  readonly source: string;
  /** The entry that becomes another, where both are one project. */
  readonly revision: { readonly was: string; readonly now: string | null } | null;
}

const item = record({
  from: z.string(),
  to: z.string(),
  size: amount,
  modified: z.number(),
  family: z.string().nullable(),
  by: z.enum(NAMED_BY),
  comes: z.boolean(),
  fault: coded.nullable(),
  clash: z.boolean(),
  frames: amount,
  first: record({ from: z.string(), to: z.string() }).nullable(),
});
same<Same<z.infer<typeof item>, CarryRow>>(true);

const folder = record({
  path: z.string(),
  to: z.string(),
  node: z.string().nullable(),
  comes: z.enum(COMES),
  isSaid: z.boolean(),
  files: amount,
  current: amount,
  coming: amount,
  bytes: amount,
});
same<Same<z.infer<typeof folder>, CarriedFolder>>(true);

const oldWord = record({ old: z.string(), now: z.string().nullable(), names: amount, isAdded: z.boolean() });
same<Same<z.infer<typeof oldWord>, OldWordFound>>(true);

const needed = record({ document: z.string(), target: z.string() });

export const carryPlanSchema = record({
  items: list(item),
  /** At most so many as one looks through are told: a file, or a sequence. */
  all: amount,
  /** Each frame counted. */
  allFiles: amount,
  folders: list(folder),
  files: amount,
  bytes: amount,
  hindered: amount,
  sameNames: amount,
  families: list(record({ family: z.string().nullable(), files: amount, bytes: amount })),
  words: list(oldWord),
  documents: list(rewritten),
  byHand: list(byHand),
  needed: list(needed),
  referring: list(needed),
  outside: list(needed),
  totals: record({ documents: amount, byHand: amount, needed: amount, referring: amount, outside: amount }),
  /** The folder it is carried to, as its volume knows it; without a volume it is one of somebody's computer. */
  into: record({ volume: z.string(), folder: z.string() }),
  /** Of a revision: the entry that is made. */
  now: z.string().nullable(),
  /** Folders and files that the new project, or the new entry, begins with. */
  made: amount,
  /** Bytes free where it is written; `null` where that is not known. */
  free: amount.nullable(),
  /** Why nothing can be done yet; empty where it can. */
  refused: list(z.string()),
  /** Stands for all that is planned: another one, another plan. */
  fingerprint: z.string(),
});
export type CarryPlan = z.infer<typeof carryPlanSchema>;
same<Same<Pick<CarryPlan, Shared>, Pick<CarrySummary, Shared>>>(true);
type Shared = Exclude<keyof CarrySummary, 'orderFaults'>;

/** A document that still names the old project. */
export const mentionSchema = record({ document: z.string(), target: z.string(), to: z.string().nullable() });

/** The project that was carried to, and the batch that brings its files. */
export const carryAnswerSchema = record({ project: uuid, batch: uuid, isDone: z.boolean() });

export const CARRY_FORMS = ['text', 'csv', 'json'] as const;

/** A way that is kept with a template. */
export const keptWaySchema = record({
  name: z.string(),
  way: wayBodySchema,
  by: z.string(),
  at: moment,
});
export type KeptWay = z.infer<typeof keptWaySchema>;

export const keepWaySchema = z.object({ way: wayBodySchema });
