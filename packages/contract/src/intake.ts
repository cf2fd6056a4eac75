/** Loose files brought into a project, from a folder of a volume. */

import { HOLDS, type MediaFacts } from '@nesting/core/listing';
import { CONFIDENCES } from '@nesting/core/name';
import {
  type ClockShift,
  type HeapCopies,
  INTAKE_STATES,
  type IntakeItem,
  type IntakeSummary,
  type NewEntry,
  type Pair,
  PLACE_REASONS,
} from '@nesting/core/planners';
import { z } from 'zod';
import { type Same, same } from './equal';
import { word } from './field';
import { coded } from './repair';
import { amount, list, moment, record, uuid } from './reply';

const path = z.string().max(4096);

/** A folder of loose files, as its volume knows it. */
const heapSchema = { volume: z.string().min(1).max(200), folder: path };
export const readIntakeSchema = z.object(heapSchema);
export type HeapPlace = z.infer<typeof readIntakeSchema>;

/** So far. */
export const heapReadingSchema = record({ files: amount, bytes: amount });
export type HeapReading = z.infer<typeof heapReadingSchema>;

const pairSchema = z.strictObject({ picture: path, sound: path });

export const intakeSchema = z.object({
  ...heapSchema,
  /** By path in the heap: what is said of a file, or of a folder and all that is in it. */
  placed: z
    .record(
      path,
      z.strictObject({
        comes: z.boolean().optional(),
        folder: path.optional(),
        name: z.string().min(1).max(255).optional(),
        values: z.record(word, z.string().max(255)).optional(),
        replaces: z.boolean().optional(),
        isCard: z.boolean().optional(),
      }),
    )
    .default({}),
  pairing: z
    .strictObject({
      /** Seconds. */
      tolerance: z.number().min(0).max(3600).default(2),
      shift: z.number().min(-1e9).max(1e9).nullable().default(null),
      joined: z.array(pairSchema).max(10_000).readonly().default([]),
      parted: z.array(pairSchema).max(10_000).readonly().default([]),
    })
    .prefault({}),
  /** The heap's own files come, not copies of them. */
  isMove: z.boolean().default(false),
  /** Copies are made once more where the project's volume has its double; what is moved is not. */
  isDoubled: z.boolean().default(true),
});
export type IntakeRequest = z.input<typeof intakeSchema>;
export type IntakeAsked = z.infer<typeof intakeSchema>;

export const applyIntakeSchema = intakeSchema.extend({
  fingerprint: z.string().length(64),
  /** Made up by who asks: the same request asked again is done once. It is the batch's id. */
  key: z.uuid().optional(),
});
export type ApplyIntake = z.infer<typeof applyIntakeSchema>;

/** What a batch is asked for that brings loose files. */
export type IntakeBatchAsked = IntakeAsked;

const facts = record({
  content: z.string().optional(),
  has: z.enum(HOLDS).optional(),
  taken: z.string().optional(),
  seconds: z.number().optional(),
  timecode: z.string().optional(),
  frameRate: z.number().optional(),
  width: z.number().optional(),
  height: z.number().optional(),
  sampleRate: z.number().optional(),
  channels: z.number().optional(),
  device: z.string().optional(),
  metresPerUnit: z.number().optional(),
  unread: z.enum(['failed', 'took-too-long']).optional(),
});
same<Same<z.infer<typeof facts>, MediaFacts>>(true);

const item = record({
  from: z.string(),
  to: z.string().nullable(),
  size: amount,
  modified: z.number(),
  family: z.string().nullable(),
  state: z.enum(INTAKE_STATES),
  confidence: z.enum(CONFIDENCES).nullable(),
  reasons: list(record({ code: z.enum(PLACE_REASONS), value: z.string() })),
  folders: list(z.string()),
  missing: list(z.string()),
  derived: list(z.string()),
  isByHand: z.boolean(),
  run: z.string().nullable(),
  burst: z.string().nullable(),
  card: z.string().nullable(),
  same: record({ where: z.enum(['project', 'heap']), path: z.string() }).nullable(),
  lie: z.string().nullable(),
  foreign: z.string().nullable(),
  facts,
  differing: list(record({ setting: z.string(), agreed: z.string(), found: z.string() })),
  fault: coded.nullable(),
  clash: z.boolean(),
  inWay: record({ size: amount, modified: z.number(), referrers: amount, keptAs: z.string().nullable() }).nullable(),
});
same<Same<z.infer<typeof item>, IntakeItem>>(true);

const pair = record({
  picture: z.string(),
  sound: z.string(),
  by: z.enum(['timecode', 'time', 'name', 'hand']),
  offset: z.number().nullable(),
  overlap: z.number(),
});
same<Same<z.infer<typeof pair>, Pair>>(true);

const shift = record({ seconds: z.number(), pairs: amount });
same<Same<z.infer<typeof shift>, ClockShift>>(true);

const entry = record({ list: z.string(), outer: z.string().nullable(), entry: z.string() });
same<Same<z.infer<typeof entry>, NewEntry>>(true);

export const intakePlanSchema = record({
  items: list(item),
  /** At most so many as one looks through are told. */
  all: amount,
  cards: list(record({ path: z.string(), to: z.string().nullable(), files: amount })),
  pairs: list(pair),
  shift: shift.nullable(),
  /** Entries that lists of the project get by it. */
  entries: list(entry),
  counts: record({
    comes: amount,
    look: amount,
    orphan: amount,
    there: amount,
    twice: amount,
    left: amount,
    system: amount,
  }),
  files: amount,
  bytes: amount,
  hindered: amount,
  families: list(record({ family: z.string().nullable(), files: amount, bytes: amount })),
  /** Folders and files that the new entries begin with. */
  made: amount,
  /** Bytes free where the project lies; `null` where that is not known. */
  free: amount.nullable(),
  /** The volume on which each copy is made once more; `null` for none. */
  double: record({ volume: z.string(), free: amount.nullable() }).nullable(),
  /** When the heap was looked through. */
  readAt: moment,
  /** Files that could not be looked at, the first of them. */
  unseen: list(record({ path: z.string(), code: z.string() })),
  /** The heap has more files than are looked at. */
  isCut: z.boolean(),
  refused: list(z.string()),
  fingerprint: z.string(),
});
export type IntakePlan = z.infer<typeof intakePlanSchema>;
same<Same<Pick<IntakePlan, Shared>, Pick<IntakeSummary, Shared>>>(true);
type Shared = Exclude<keyof IntakeSummary, 'orderFaults'>;

const heapCopiesSchema = record({
  files: amount,
  bytes: amount,
  inTwo: amount,
  inOne: amount,
  inNone: amount,
  alone: list(z.string()),
  volumes: list(z.string()),
  unproved: list(z.string()),
});
same<Same<z.infer<typeof heapCopiesSchema>, HeapCopies>>(true);

export const heapCopiesToldSchema = record({
  /** `null` where nothing was brought, or some of the heap cannot be looked at. */
  copies: heapCopiesSchema.nullable(),
  /** The last time that something of it was brought. */
  last: record({ at: moment, by: z.string() }).nullable(),
});
export type HeapCopiesTold = z.infer<typeof heapCopiesToldSchema>;

export const intakeAnswerSchema = record({ batch: uuid, isDone: z.boolean() });

export const INTAKE_FORMS = ['text', 'csv', 'json', 'pairs', 'otio'] as const;

/** What lies where loose material arrives: the folders at its top, and files beside them. */
export const inboxSchema = record({
  volume: z.string(),
  isThere: z.boolean(),
  /** Zips beside the folders: they are unpacked before they are brought in. */
  zips: list(record({ name: z.string(), size: amount })),
  heaps: list(
    record({
      /** Empty for files that lie in no folder. */
      folder: z.string(),
      /** Files beside folders, where it is all of them that are meant. */
      files: amount,
      /** Initials of whoever is still sending it; `null` where it is all there. */
      arriving: z.string().nullable(),
      /** Where it was brought to the last time. */
      brought: record({ project: uuid, number: z.string(), title: z.string(), at: moment }).nullable(),
    }),
  ),
});
export type Inbox = z.infer<typeof inboxSchema>;
