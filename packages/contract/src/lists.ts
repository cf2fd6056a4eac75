/** The house's own lists, its numbers, people, volumes and what was done. */
import { LIST_NAMES, type ListName } from '@nesting/core/lists';
import { type NumberSeries, RESETS } from '@nesting/core/numbers';
import { z } from 'zod';
import { type Same, same } from './equal';
import { short, word } from './field';
import { amount, list, moment, record } from './reply';
import { ROLES } from './roles';

const cells = z.record(z.string().max(40), z.string().max(4000));

export const listEntryRowSchema = record({
  key: z.string(),
  version: amount,
  cells: z.record(z.string(), z.string()).readonly(),
  /** Projects that use it; nothing used is deleted. */
  used: amount,
});
export type ListEntryRow = z.infer<typeof listEntryRowSchema>;

export const listNameSchema = z.enum(LIST_NAMES);
/** Lists that are edited entry by entry; people have ways of their own. */
export const editableListSchema = listNameSchema.exclude(['people']);
export type EditableList = z.infer<typeof editableListSchema>;
export const addEntrySchema = z.object({ cells });
export const saveEntrySchema = z.object({ cells, version: z.int().min(1) });
export const mergeEntriesSchema = z.object({ from: word, into: word });
/** Lines of a table that are taken in: those that are new or changed, looked at anew by the server. */
export const importSchema = z.object({
  table: z
    .array(z.array(z.string().max(4000)).max(60).readonly())
    .min(1)
    .max(20_001)
    .readonly(),
  lines: z.array(z.int().min(2)).max(20_000).readonly(),
});
export const importedSchema = record({ added: amount, changed: amount });
export type Imported = z.infer<typeof importedSchema>;

const seriesSchema = z.object({
  pattern: z.string().max(200),
  reset: z.enum(RESETS),
  start: z.int().min(0).max(1_000_000),
  kinds: z.record(z.string().max(200), z.string().regex(/^[A-Za-z0-9-]{1,12}$/)).readonly(),
});
same<Same<z.infer<typeof seriesSchema>, { -readonly [K in keyof NumberSeries]: NumberSeries[K] }>>(true);
export const saveSeriesSchema = z.object({ series: seriesSchema, version: z.int().min(1) });
export const reserveSchema = z.object({ number: z.string().min(1).max(60), why: z.string().trim().min(1).max(200) });

const NUMBER_EVENTS = [
  'held',
  'given-back',
  'expired',
  'used',
  'freed',
  'reserved',
  'released',
  'passed-over',
] as const;
export type NumberEventCode = (typeof NUMBER_EVENTS)[number];

/** A counted number, and what became of it. */
const numberLineSchema = record({
  number: z.string(),
  n: amount,
  state: z.enum(['project', 'held', 'reserved', 'free', 'unexplained']),
  /** The project's folder, who holds it, why it is reserved, or what happened to it last. */
  what: z.enum(NUMBER_EVENTS).nullable(),
  project: record({ id: z.string(), folder: z.string() }).nullable(),
  by: z.string().nullable(),
  at: moment.nullable(),
  why: z.string(),
});
export type NumberLine = z.infer<typeof numberLineSchema>;

export const numberPageSchema = record({
  series: seriesSchema.readonly(),
  version: amount,
  /** What would be given out now; words where a value is missing for it. */
  next: z.string().nullable(),
  scope: z.string(),
  scopes: list(z.string()),
  lines: list(numberLineSchema),
  reserved: list(record({ number: z.string(), why: z.string(), by: z.string().nullable(), at: moment })),
});
export type NumberPage = z.infer<typeof numberPageSchema>;

export const personRowSchema = record({
  id: z.string(),
  version: amount,
  name: z.string(),
  email: z.string(),
  initials: z.string(),
  role: z.enum(ROLES),
  does: z.string(),
  /** `invited` has no password yet. */
  state: z.enum(['invited', 'active', 'left']),
  lastSeen: moment.nullable(),
  projects: amount,
});
export type PersonRow = z.infer<typeof personRowSchema>;

const personShape = {
  name: z.string().trim().min(1).max(120),
  email: z.email().max(200),
  initials: z.string().regex(/^[A-Z]{1,4}$/),
  role: z.enum(ROLES),
  does: z.string().max(120),
};
export const inviteSchema = z.object(personShape);
export const savePersonSchema = z.object({ ...personShape, version: z.int().min(1) });
export type Invite = z.infer<typeof inviteSchema>;
/** `link` is given where no mail goes out: it is handed over by hand. */
export const invitedSchema = record({ id: z.string(), link: z.string().nullable() });
export type Invited = z.infer<typeof invitedSchema>;

const password = z.string().min(12, 'a password has at least 12 characters').max(128);
export const acceptSchema = z.object({
  token: z.string().min(20).max(200),
  password,
  first: z.object({ name: personShape.name, email: personShape.email, initials: personShape.initials }).optional(),
});
export const forgotSchema = z.object({ email: z.string().max(200) });
/** Keys end with the password they were made under, unless who changes it says otherwise. */
export const changePasswordSchema = z.object({
  old: z.string().max(128),
  password,
  keepKeys: z.boolean().default(false),
});
export const tokenSchema = z.object({ token: z.string().max(200) });
export const linkFoundSchema = record({
  purpose: z.enum(['first', 'invite', 'reset']),
  name: z.string(),
  email: z.string(),
});
export type LinkFound = z.infer<typeof linkFoundSchema>;

export const newKeySchema = z.object({
  name: z.string().trim().min(1).max(80),
  days: z.int().min(1).max(3650).nullable(),
});
export const keyRowSchema = record({
  id: z.string(),
  name: z.string(),
  head: z.string(),
  madeAt: moment,
  expiresAt: moment.nullable(),
  lastUsedAt: moment.nullable(),
});
export type KeyRow = z.infer<typeof keyRowSchema>;
export const sessionRowSchema = record({
  id: z.string(),
  since: moment,
  lastSeen: moment,
  from: z.string(),
  browser: z.string(),
  here: z.boolean(),
});
export type SessionRow = z.infer<typeof sessionRowSchema>;

export const SYSTEMS = ['windows', 'macos', 'linux'] as const;
export type System = (typeof SYSTEMS)[number];
export const prefixesSchema = z.object({
  windows: z.string().max(200),
  macos: z.string().max(200),
  linux: z.string().max(200),
});
export type Prefixes = z.infer<typeof prefixesSchema>;
/** `isAnother`: said by who knows that what is mounted there now is to be the volume. */
export const takeUpSchema = z.object({ isAnother: z.boolean().default(false) });

const placeSchema = record({ volume: z.string(), folder: z.string() });
/** A project's folder that lies elsewhere than its row says, or twice. */
export const foundProjectSchema = record({
  project: z.string(),
  number: z.string(),
  title: z.string(),
  was: placeSchema,
  places: list(placeSchema),
  /** `copied` lies in its place and in others too; `missing` lies nowhere; `unread` has a marker that cannot be read. */
  state: z.enum(['moved', 'copied', 'missing', 'unread']),
  /** Of one that cannot be read: the system's code. */
  why: z.string().optional(),
});
export type FoundProject = z.infer<typeof foundProjectSchema>;
export const relinkSchema = z.object({ project: z.string().max(60), volume: word, folder: z.string().min(1).max(500) });

export const activityRowSchema = record({
  id: amount,
  at: moment,
  by: z.string().nullable(),
  what: z.string(),
  subject: z.string().nullable(),
  project: record({ id: z.string(), folder: z.string() }).nullable(),
  from: z.string().nullable(),
  /** The request it was done by, as log lines name it. */
  request: z.string().nullable(),
  /** Of any form: rows of every version of the program that ever wrote one stay readable. */
  params: z.record(z.string(), z.unknown()).readonly(),
});
export type ActivityRow = z.infer<typeof activityRowSchema>;
export const activityQuerySchema = z.object({
  before: z.coerce.number().int().optional(),
  person: short.optional(),
  what: short.optional(),
  subject: short.optional(),
  text: short.optional(),
  since: z.iso.date().optional(),
  until: z.iso.date().optional(),
});
export type ActivityQuery = z.infer<typeof activityQuerySchema>;
export const activityPageSchema = record({ rows: list(activityRowSchema), more: z.boolean() });
export type ActivityPage = z.infer<typeof activityPageSchema>;

export const mailRowSchema = record({
  id: amount,
  at: moment,
  recipient: z.string(),
  subject: z.string(),
  body: z.string(),
  state: z.enum(['waiting', 'sent', 'failed', 'kept']),
  said: z.string(),
});
export type MailRow = z.infer<typeof mailRowSchema>;
export type { ListName };
