/**
 * A project beyond its start: found in lists, its state and notes, what it has otherwise, what its programs are set to.
 */
import { z } from 'zod';
import { short, valuesSchema, word } from './field';
import { prefixesSchema } from './lists';
import { amount, list, moment, record, uuid } from './reply';
import { adjustmentsSchema, conventionSchema, templateSchema } from './template';
import { findingCountsSchema } from './wire';

const PROJECT_STATES = ['starting', 'running', 'waiting', 'closed', 'packed', 'failed'] as const;
export type ProjectState = (typeof PROJECT_STATES)[number];
/** Those a person gives a project. */
export const GIVEN_STATES = ['running', 'waiting', 'closed', 'packed'] as const;

const projectShape = {
  id: uuid,
  number: z.string(),
  client: z.string().nullable(),
  clientName: z.string().nullable(),
  title: z.string(),
  template: record({ id: z.string(), name: z.string(), edition: amount }),
  volume: z.string(),
  folder: z.string(),
  state: z.enum(PROJECT_STATES),
  startedAt: moment,
  startedBy: z.string(),
  /** Kept in front by whoever asks. */
  pinned: z.boolean(),
  openedAt: moment.nullable(),
  check: record({ at: moment, counts: findingCountsSchema, files: amount, bytes: amount }).nullable(),
};
export const projectRowSchema = record(projectShape);
export type ProjectRow = z.infer<typeof projectRowSchema>;

export const PROJECT_ORDERS = [
  'recent',
  'number',
  'client',
  'title',
  'template',
  'state',
  'check',
  'findings',
  'size',
  'volume',
  'by',
  'started',
] as const;
export type ProjectOrder = (typeof PROJECT_ORDERS)[number];

export const projectQuerySchema = z.object({
  find: z.string().max(200).default(''),
  state: z.enum(PROJECT_STATES).nullable().default(null),
  by: z.enum(PROJECT_ORDERS).default('recent'),
  down: z.stringbool().default(true),
  from: z.coerce.number().int().min(0).max(1_000_000).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(200),
});
export type ProjectQuery = z.infer<typeof projectQuerySchema>;

export const projectListSchema = record({
  rows: list(projectRowSchema),
  /** How many are found in each state, whatever state is asked for. */
  states: z.partialRecord(z.enum(PROJECT_STATES), amount).readonly(),
  more: z.boolean(),
});
export type ProjectList = z.infer<typeof projectListSchema>;

const firstDayLineSchema = record({
  place: amount,
  words: z.string(),
  by: z.string().nullable(),
  at: moment.nullable(),
});
export type FirstDayLine = z.infer<typeof firstDayLineSchema>;

/** What the team should know: the text, and who wrote it last and when, where anybody did. */
const teamNoteSchema = record({ text: z.string(), by: z.string().nullable(), at: moment.nullable() });
export type TeamNote = z.infer<typeof teamNoteSchema>;

const ownFolder = z
  .object({
    accepts: z.array(word).max(100).readonly().optional(),
    conventions: z.array(word).max(100).readonly().optional(),
    free: z.boolean().optional(),
    stable: z.boolean().optional(),
    purpose: z.string().max(2000).optional(),
  })
  .readonly();
const ownRulesSchema = z
  .object({
    conventions: z.record(z.string().max(200), conventionSchema).optional(),
    folders: z.record(z.string().max(400), ownFolder).optional(),
  })
  .readonly();

export const projectPageSchema = record({
  ...projectShape,
  values: valuesSchema,
  /** Its rules as they are for it: the template's, its conventions' editions, and what is its own. */
  body: templateSchema,
  root: z.string(),
  prefixes: prefixesSchema.readonly(),
  teamNote: teamNoteSchema,
  version: amount,
  adjusted: adjustmentsSchema,
  own: ownRulesSchema,
  settings: z.record(z.string(), z.string()).readonly(),
  firstDay: list(firstDayLineSchema),
});
export type ProjectPage = z.infer<typeof projectPageSchema>;

export const startSchema = z.object({
  template: word,
  edition: z.int().min(1),
  volume: word,
  values: valuesSchema,
  adjusted: adjustmentsSchema.default({}),
  settings: z.record(short, short).default({}),
  /** Into a folder that is there already: what is there is kept, what is missing is added. */
  into: z.boolean().default(false),
  /**
   * Made up by who asks: by it one is told how far it is, and the same request asked again is done once. It is the
   * project's id.
   */
  key: z.uuid().optional(),
});
export type StartRequest = z.input<typeof startSchema>;
export type StartGiven = z.infer<typeof startSchema>;

/** How far a start is that is being written. */
export const makingSchema = record({ done: amount, all: amount });
export type Making = z.infer<typeof makingSchema>;

export const WRITTEN_AS = ['zip', 'sh', 'powershell', 'steps'] as const;
export type WrittenAs = (typeof WRITTEN_AS)[number];

export const thereSchema = z.object({
  volume: word,
  folder: z.string().min(1).max(500),
  paths: z.array(z.string().max(4096)).max(50_000),
});

export const editProjectSchema = z.object({
  version: z.int().min(1),
  state: z.enum(GIVEN_STATES).optional(),
  teamNote: z.string().max(20_000).optional(),
  settings: z.record(short, short).optional(),
  own: ownRulesSchema.optional(),
});
export type EditProject = z.infer<typeof editProjectSchema>;
export const pinSchema = z.object({ pinned: z.boolean() });
export const tickSchema = z.object({ done: z.boolean() });

export const dueLineSchema = record({
  name: z.string(),
  folder: z.string(),
  entry: z.string().nullable(),
  /** A day, as ISO 8601. */
  by: z.string().nullable(),
  /** The file it came as. */
  file: z.string().nullable(),
  isLate: z.boolean(),
});
export type DueLine = z.infer<typeof dueLineSchema>;
