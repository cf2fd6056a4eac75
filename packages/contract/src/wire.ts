/** What crosses between server and screens. Times are ISO 8601, sizes bytes. */
import type { Params } from '@nesting/core';
import type { Problem, Stretch, Suggestion } from '@nesting/core/name';
import type { RuleCode } from '@nesting/core/project';
import type { Weight } from '@nesting/core/template';
import { z } from 'zod';
import type { TemplateDraft } from './authoring';
import { word } from './field';
import type { templateSchema } from './template';

export const ROLES = ['coordinator', 'artist', 'lead'] as const;
export type Role = (typeof ROLES)[number];

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

export interface FindingCounts {
  readonly must: number;
  readonly should: number;
  readonly note: number;
}

export type CheckState = 'queued' | 'running' | 'done' | 'failed' | 'cancelled';

export interface CheckRow {
  readonly id: string;
  readonly state: CheckState;
  readonly files: number;
  readonly folders: number;
  readonly bytes: number;
  readonly counts: FindingCounts;
  readonly startedAt: string;
  readonly endedAt: string | null;
  /** What the check could not see, or why it ended early. */
  readonly said: readonly string[];
  readonly what: 'whole' | 'quick';
  readonly stage: 'walking' | 'reading';
  /** Findings that came and went with it. */
  readonly appeared: number;
  readonly solved: number;
  /** It was cancelled and can go on from where it was. */
  readonly canGoOn: boolean;
}

/** A finding as it is stored and shown: plain, with its words, and no register in it. */
export interface FindingRow {
  readonly id: string;
  readonly rule: RuleCode;
  readonly weight: Weight;
  readonly path: string;
  readonly message: string;
  readonly params: Params;
  readonly problems: readonly Problem[];
  readonly stretches: readonly Stretch[];
  readonly suggestion: Suggestion | null;
  readonly related: readonly string[];
}

/** What stands in the way of a start, looked up while the form is filled in. */
export const lookSchema = z.object({ number: z.string().max(200), volume: word, folder: z.string().max(500) });
export interface Look {
  readonly numberTaken: boolean;
  readonly numberHeldBy: string | null;
  /** Why the number is reserved; `null` where it is not. */
  readonly numberReserved: string | null;
  /** What is odd about a number written by hand, in words. */
  readonly numberNote: string | null;
  readonly folderTaken: boolean;
  readonly folderOnDisk: boolean;
}

/** The newest check in any state, and the newest that ended well: its findings stand until the next one is done. */
export interface ChecksOfProject {
  readonly newest: CheckRow | null;
  readonly done: CheckRow | null;
  /** Whole checks that ended well, oldest first, a few dozen of them. */
  readonly trend: readonly {
    readonly at: string;
    readonly must: number;
    readonly should: number;
    readonly note: number;
    readonly bytes: number;
  }[];
  /** Minutes between checks it gets by itself; `null` for none. */
  readonly every: number | null;
}

export interface FolderCount {
  readonly path: string;
  readonly files: number;
  readonly bytes: number;
  readonly state: 'planned' | 'free' | 'unplanned' | 'inside-unplanned';
  /** Bytes by family; of none under an empty name. */
  readonly families: Readonly<Record<string, number>>;
}

export const folderQuerySchema = z.object({ path: z.string().max(4096) });

export interface FolderFiles {
  readonly path: string;
  readonly files: readonly { readonly name: string; readonly size: number; readonly modified: string }[];
}

/** What the server says when it does not do what was asked: what happened, what was not done, what to do. */
export interface Refusal {
  readonly code: string;
  readonly message: string;
}
