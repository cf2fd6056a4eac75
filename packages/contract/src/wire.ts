/** What crosses between server and screens. Times are ISO 8601, sizes bytes. */
import { z } from 'zod';
import { templateDraftSchema } from './authoring';
import { word } from './field';
import { amount, list, moment, record, uuid } from './reply';
import { ROLES } from './roles';
import { templateSchema } from './template';

export const meSchema = record({
  id: z.string(),
  name: z.string(),
  initials: z.string(),
  role: z.enum(ROLES),
  demo: z.boolean(),
});
export type Me = z.infer<typeof meSchema>;

/** Shown before sign-in: whether this is a demo, and whom it offers. */
export const entranceSchema = record({
  demo: z.boolean(),
  /** Nobody may sign in yet: the first coordinator comes by the link that the server prints. */
  empty: z.boolean(),
  /** Whether a forgotten password can be mailed. */
  mails: z.boolean(),
  people: list(record({ initials: z.string(), name: z.string(), role: z.enum(ROLES), does: z.string() })),
});
export type Entrance = z.infer<typeof entranceSchema>;

export const templateRowSchema = record({
  id: z.string(),
  name: z.string(),
  purpose: z.string(),
  /** The newest one in force; nought where there is none yet, and the template is its draft. */
  edition: amount,
  projects: amount,
  template: templateSchema,
  draft: templateDraftSchema.nullable(),
  archived: z.boolean(),
});
export type TemplateRow = z.infer<typeof templateRowSchema>;

export const healthSchema = record({
  isWell: z.boolean(),
  database: z.enum(['there', 'away']),
  jobs: record({ waiting: amount, oldestSeconds: z.number().min(0) }),
  volumes: record({ there: amount, away: amount }),
});

export const volumeRowSchema = record({
  name: z.string(),
  /** Where it is mounted, as the server sees it; counted into paths. */
  root: z.string(),
  /** `new`: nobody took it up yet. `other`: what is found there is not the volume that was taken up. */
  state: z.enum(['ready', 'read-only', 'missing', 'new', 'other']),
  freeBytes: amount.nullable(),
  projects: amount,
  /** Loose material arrives there. */
  isInbox: z.boolean(),
  /** Where what is brought in here is copied once more; `null` for nowhere. */
  double: z.string().nullable(),
  /** How each system's people see the root; empty where nobody said. */
  prefixes: record({ windows: z.string(), macos: z.string(), linux: z.string() }),
});
export type VolumeRow = z.infer<typeof volumeRowSchema>;

export const holdSchema = z.object({
  year: z.int().min(2000).max(2999),
  month: z.int().min(1).max(12).default(1),
  client: z.string().max(40).nullable().default(null),
  template: z.string().max(200).nullable().default(null),
});
export type HoldRequest = z.input<typeof holdSchema>;
export const holdReplySchema = record({ number: z.string(), until: moment });
export type Hold = z.infer<typeof holdReplySchema>;

export const countsShape = { must: amount, should: amount, note: amount };
export const findingCountsSchema = record(countsShape);
export type FindingCounts = z.infer<typeof findingCountsSchema>;

const CHECK_STATES = ['queued', 'running', 'done', 'failed', 'cancelled'] as const;
export type CheckState = (typeof CHECK_STATES)[number];

export const checkRowSchema = record({
  id: uuid,
  state: z.enum(CHECK_STATES),
  files: amount,
  folders: amount,
  bytes: amount,
  counts: findingCountsSchema,
  startedAt: moment,
  endedAt: moment.nullable(),
  /** What the check could not see, or why it ended early. */
  said: list(z.string()),
  what: z.enum(['whole', 'quick']),
  stage: z.enum(['walking', 'reading']),
  /** Findings that came and went with it. */
  appeared: amount,
  solved: amount,
  /** It was cancelled and can go on from where it was. */
  canGoOn: z.boolean(),
});
export type CheckRow = z.infer<typeof checkRowSchema>;

/** What stands in the way of a start, looked up while the form is filled in. */
export const lookSchema = z.object({ number: z.string().max(200), volume: word, folder: z.string().max(500) });
export const lookReplySchema = record({
  numberTaken: z.boolean(),
  numberHeldBy: z.string().nullable(),
  /** Why the number is reserved; `null` where it is not. */
  numberReserved: z.string().nullable(),
  /** What is odd about a number written by hand, in words. */
  numberNote: z.string().nullable(),
  folderTaken: z.boolean(),
  folderOnDisk: z.boolean(),
});
export type Look = z.infer<typeof lookReplySchema>;

export const trendPointSchema = record({ at: moment, ...countsShape, bytes: amount });
export type TrendPoint = z.infer<typeof trendPointSchema>;

/** The newest check in any state, and the newest that ended well: its findings stand until the next one is done. */
export const checksOfProjectSchema = record({
  newest: checkRowSchema.nullable(),
  done: checkRowSchema.nullable(),
  /** Whole checks that ended well, oldest first, a few dozen of them. */
  trend: list(trendPointSchema),
  /** Minutes between checks it gets by itself; `null` for none. */
  every: amount.nullable(),
});
export type ChecksOfProject = z.infer<typeof checksOfProjectSchema>;

export const folderCountSchema = record({
  path: z.string(),
  files: amount,
  bytes: amount,
  state: z.enum(['planned', 'free', 'unplanned', 'inside-unplanned']),
  /** Bytes by family; of none under an empty name. */
  families: z.record(z.string(), amount).readonly(),
});
export type FolderCount = z.infer<typeof folderCountSchema>;

export const folderQuerySchema = z.object({ path: z.string().max(4096) });

export const folderFilesSchema = record({
  path: z.string(),
  files: list(record({ name: z.string(), size: amount, modified: moment })),
});
export type FolderFiles = z.infer<typeof folderFilesSchema>;
