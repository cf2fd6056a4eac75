/** The house's own lists, its numbers, people, volumes and what was done. */
import { type Cells, LIST_NAMES, type ListName } from '@nesting/core/lists';
import { type NumberSeries, RESETS } from '@nesting/core/numbers';
import { z } from 'zod';
import { type Same, same } from './equal';
import { short, word } from './field';
import { ROLES, type Role } from './roles';

const cells = z.record(z.string().max(40), z.string().max(4000));

export interface ListEntryRow {
  readonly key: string;
  readonly version: number;
  readonly cells: Cells;
  /** Projects that use it; nothing used is deleted. */
  readonly used: number;
}

export const listNameSchema = z.enum(LIST_NAMES);
export const addEntrySchema = z.object({ cells });
export const saveEntrySchema = z.object({ cells, version: z.int().min(1) });
export const mergeEntriesSchema = z.object({ from: word, into: word });
/** Lines of a table that are taken in: those that are new or changed, looked at anew by the server. */
export const importSchema = z.object({
  table: z
    .array(z.array(z.string().max(4000)).max(60))
    .min(1)
    .max(20_001),
  lines: z.array(z.int().min(2)).max(20_000),
});
export interface Imported {
  readonly added: number;
  readonly changed: number;
}

const seriesSchema = z.object({
  pattern: z.string().max(200),
  reset: z.enum(RESETS),
  start: z.int().min(0).max(1_000_000),
  kinds: z.record(z.string().max(200), z.string().regex(/^[A-Za-z0-9-]{1,12}$/)).readonly(),
});
same<Same<z.infer<typeof seriesSchema>, { -readonly [K in keyof NumberSeries]: NumberSeries[K] }>>(true);
export const saveSeriesSchema = z.object({ series: seriesSchema, version: z.int().min(1) });
export const reserveSchema = z.object({ number: z.string().min(1).max(60), why: z.string().trim().min(1).max(200) });

export type NumberEventCode =
  | 'held'
  | 'given-back'
  | 'expired'
  | 'used'
  | 'freed'
  | 'reserved'
  | 'released'
  | 'passed-over';
/** A counted number, and what became of it. */
export interface NumberLine {
  readonly number: string;
  readonly n: number;
  readonly state: 'project' | 'held' | 'reserved' | 'free' | 'unexplained';
  /** The project's folder, who holds it, why it is reserved, or what happened to it last. */
  readonly what: NumberEventCode | null;
  readonly project: { readonly id: string; readonly folder: string } | null;
  readonly by: string | null;
  readonly at: string | null;
  readonly why: string;
}

export interface NumberPage {
  readonly series: NumberSeries;
  readonly version: number;
  /** What would be given out now; words where a value is missing for it. */
  readonly next: string | null;
  readonly scope: string;
  readonly scopes: readonly string[];
  readonly lines: readonly NumberLine[];
  readonly reserved: readonly {
    readonly number: string;
    readonly why: string;
    readonly by: string | null;
    readonly at: string;
  }[];
}

export interface PersonRow {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly email: string;
  readonly initials: string;
  readonly role: Role;
  readonly does: string;
  /** `invited` has no password yet. */
  readonly state: 'invited' | 'active' | 'left';
  readonly lastSeen: string | null;
  readonly projects: number;
}

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
export interface Invited {
  readonly id: string;
  readonly link: string | null;
}

const password = z.string().min(12, 'a password has at least 12 characters').max(128);
export const acceptSchema = z.object({
  token: z.string().min(20).max(200),
  password,
  first: z.object({ name: personShape.name, email: personShape.email, initials: personShape.initials }).optional(),
});
export const forgotSchema = z.object({ email: z.string().max(200) });
export const changePasswordSchema = z.object({ old: z.string().max(128), password });
export const tokenSchema = z.object({ token: z.string().max(200) });
export interface LinkFound {
  readonly purpose: 'first' | 'invite' | 'reset';
  readonly name: string;
  readonly email: string;
}

export const newKeySchema = z.object({
  name: z.string().trim().min(1).max(80),
  days: z.int().min(1).max(3650).nullable(),
});
export interface KeyRow {
  readonly id: string;
  readonly name: string;
  readonly head: string;
  readonly madeAt: string;
  readonly expiresAt: string | null;
  readonly lastUsedAt: string | null;
}
export interface SessionRow {
  readonly id: string;
  readonly since: string;
  readonly lastSeen: string;
  readonly from: string;
  readonly browser: string;
  readonly here: boolean;
}

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

/** A project's folder that lies elsewhere than its row says, or twice. */
export interface FoundProject {
  readonly project: string;
  readonly number: string;
  readonly title: string;
  readonly was: { readonly volume: string; readonly folder: string };
  readonly places: readonly { readonly volume: string; readonly folder: string }[];
  /** `copied` lies in its place and in others too; `missing` lies nowhere; `unread` has a marker that cannot be read. */
  readonly state: 'moved' | 'copied' | 'missing' | 'unread';
  /** Of one that cannot be read: the system's code. */
  readonly why?: string | undefined;
}
export const relinkSchema = z.object({ project: z.string().max(60), volume: word, folder: z.string().min(1).max(500) });

export interface ActivityRow {
  readonly id: number;
  readonly at: string;
  readonly by: string | null;
  readonly what: string;
  readonly subject: string | null;
  readonly project: { readonly id: string; readonly folder: string } | null;
  readonly from: string | null;
  readonly params: Readonly<Record<string, unknown>>;
}
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
export interface ActivityPage {
  readonly rows: readonly ActivityRow[];
  readonly more: boolean;
}

export interface MailRow {
  readonly id: number;
  readonly at: string;
  readonly recipient: string;
  readonly subject: string;
  readonly body: string;
  readonly state: 'waiting' | 'sent' | 'failed' | 'kept';
  readonly said: string;
}
export type { ListName };
