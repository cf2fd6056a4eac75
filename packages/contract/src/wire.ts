/** What crosses between server and screens. Times are ISO 8601, sizes bytes. */
import { z } from 'zod';
import type { TemplateDraft } from './authoring';
import { word } from './field';
import { amount, list, moment, record, uuid } from './reply';
import { ROLES, type Role } from './roles';
import type { templateSchema } from './template';

const meSchema = z.object({
  id: z.string(),
  name: z.string(),
  initials: z.string(),
  role: z.enum(ROLES),
  demo: z.boolean(),
});
export type Me = z.infer<typeof meSchema>;

/** Shown before sign-in: whether this is a demo, and whom it offers. */
export interface Entrance {
  readonly demo: boolean;
  /** Nobody may sign in yet: the first coordinator comes by the link that the server prints. */
  readonly empty: boolean;
  /** Whether a forgotten password can be mailed. */
  readonly mails: boolean;
  readonly people: readonly {
    readonly initials: string;
    readonly name: string;
    readonly role: Role;
    readonly does: string;
  }[];
}

export interface TemplateRow {
  readonly id: string;
  readonly name: string;
  readonly purpose: string;
  /** The newest one in force; nought where there is none yet, and the template is its draft. */
  readonly edition: number;
  readonly projects: number;
  readonly template: z.infer<typeof templateSchema>;
  readonly draft: TemplateDraft | null;
  readonly archived: boolean;
}

export interface VolumeRow {
  readonly name: string;
  /** Where it is mounted, as the server sees it; counted into paths. */
  readonly root: string;
  /** `new`: nobody took it up yet. `other`: what is found there is not the volume that was taken up. */
  readonly state: 'ready' | 'read-only' | 'missing' | 'new' | 'other';
  readonly freeBytes: number | null;
  readonly projects: number;
  /** How each system's people see the root; empty where nobody said. */
  readonly prefixes: { readonly windows: string; readonly macos: string; readonly linux: string };
}

export const holdSchema = z.object({
  year: z.int().min(2000).max(2999),
  month: z.int().min(1).max(12).default(1),
  client: z.string().max(40).nullable().default(null),
  template: z.string().max(200).nullable().default(null),
});
export type HoldRequest = z.input<typeof holdSchema>;
export interface Hold {
  readonly number: string;
  readonly until: string;
}

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

/** What the server says when it does not do what was asked: what happened, what was not done, what to do. */
export interface Refusal {
  readonly code: string;
  readonly message: string;
}
