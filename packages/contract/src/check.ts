/** Checks and findings as they cross the wire: kept, filtered, accepted, given to people. */
import { RULE_CODES, type RuleCode } from '@nesting/core/project';
import { WEIGHTS, type Weight } from '@nesting/core/template';
import { z } from 'zod';
import { short } from './field';
import type { FindingCounts, FindingRow } from './wire';

/** `new` since the whole check before the last one; `solved` since then. */
export const FINDING_VIEWS = ['open', 'new', 'accepted', 'solved'] as const;
export type FindingView = (typeof FINDING_VIEWS)[number];

export const FINDING_GROUPS = ['cause', 'folder', 'person', 'weight', 'none'] as const;
export type FindingGroup = (typeof FINDING_GROUPS)[number];

export const findingQuerySchema = z.object({
  view: z.enum(FINDING_VIEWS).default('open'),
  rule: z.enum(RULE_CODES).optional(),
  weight: z.enum(WEIGHTS).optional(),
  /** Everything in it. */
  folder: z.string().max(4096).optional(),
  /** Initials; `-` for nobody's. */
  person: z.string().max(8).optional(),
  find: z.string().max(200).optional(),
  group: z.enum(FINDING_GROUPS).default('cause'),
  from: z.coerce.number().int().min(0).max(10_000_000).default(0),
  limit: z.coerce.number().int().min(1).max(2000).default(500),
});
export type FindingQuery = z.infer<typeof findingQuerySchema>;

export interface Accepted {
  readonly reason: string;
  readonly by: string;
  readonly at: string;
  /** ISO date; `null` for without end. */
  readonly until: string | null;
  readonly baseline: boolean;
}

/** A finding of a project as it stands now. */
export interface KeptFinding extends FindingRow {
  readonly since: string;
  readonly isNew: boolean;
  readonly solvedAt: string | null;
  readonly accepted: Accepted | null;
  /** Whoever is to put it right, by initials: given by hand, else as its name says. */
  readonly to: string | null;
  readonly given: boolean;
  readonly note: string;
}

export interface FindingFacet {
  readonly key: string;
  readonly count: number;
}

/** A page of findings. What is counted comes with the first page alone; later ones say nothing of it. */
export interface FindingList {
  readonly rows: readonly KeptFinding[];
  readonly total: number;
  readonly views: Readonly<Record<FindingView, number>>;
  /** Each facet counted under all other filters. */
  readonly rules: readonly (FindingFacet & { readonly key: RuleCode; readonly weight: string })[];
  readonly weights: FindingCounts;
  readonly people: readonly FindingFacet[];
  /** Folders below the root. */
  readonly folders: readonly FindingFacet[];
}

/** Findings of one folder, for the map. */
export interface FolderSign {
  readonly path: string;
  readonly rule: RuleCode;
  readonly weight: Weight;
  readonly count: number;
}

const ids = z
  .array(z.string().regex(/^[0-9a-f]{16}$/))
  .min(1)
  .max(5000);

export const acceptFindingsSchema = z.object({
  ids,
  reason: z.string().trim().min(1).max(500),
  until: z.iso.date().nullable().default(null),
});
export const unacceptSchema = z.object({ ids });
export const giveSchema = z.object({
  ids,
  /** Initials; `null` takes it back. */ to: z.string().max(8).nullable().optional(),
  note: z.string().max(2000).optional(),
});
export const baselineSchema = z.object({ reason: z.string().trim().min(1).max(500) });

export interface ExceptionRow {
  readonly id: string;
  readonly project: { readonly id: string; readonly number: string; readonly title: string };
  readonly rule: RuleCode | null;
  readonly path: string | null;
  readonly message: string;
  readonly accepted: Accepted;
  /** It has ended, or what it is about is gone. */
  readonly state: 'holds' | 'ended' | 'gone' | 'touched';
}

/** Other paths kept with one finding: half a million of one content are one finding, and nobody reads them all. */
export const MOST_RELATED = 2000;

export const askCheckSchema = z.object({ what: z.enum(['whole', 'quick']).default('whole') });
export const scheduleSchema = z.object({ every: z.int().min(15).max(40_320).nullable() });

const finding = z.object({
  id: z.string().max(16),
  rule: z.enum(RULE_CODES),
  weight: z.enum(WEIGHTS),
  path: z.string().max(4096),
  message: z.string().max(4000),
  params: z.record(z.string(), z.unknown()),
  problems: z.array(z.unknown()).max(100),
  stretches: z.array(z.unknown()).max(500),
  suggestion: z.unknown().nullable(),
  related: z.array(z.string().max(4096)).max(5000),
});
export const handInSchema = z.object({
  source: short,
  files: z.int().min(0),
  folders: z.int().min(0),
  findings: z.array(finding).max(5000),
});
export interface HandedIn {
  readonly id: string;
  readonly by: string;
  readonly at: string;
  readonly source: string;
  readonly files: number;
  readonly folders: number;
  readonly counts: FindingCounts;
}

export interface PersonFindings {
  readonly initials: string;
  readonly name: string;
  readonly projects: readonly {
    readonly id: string;
    readonly number: string;
    readonly title: string;
    readonly counts: FindingCounts;
    readonly findings: readonly {
      readonly rule: RuleCode;
      readonly weight: string;
      readonly path: string;
      readonly message: string;
      readonly suggestion: string | null;
    }[];
    readonly more: number;
  }[];
}

export interface WhoRow extends FindingCounts {
  readonly initials: string | null;
  readonly name: string;
  readonly projects: number;
}

export interface TrendPoint {
  readonly at: string;
  readonly must: number;
  readonly should: number;
  readonly note: number;
  readonly bytes: number;
}

/** For the charts of all projects. */
export interface Overview {
  /** A day each, all projects summed: the last check of each by then. */
  readonly days: readonly (TrendPoint & { readonly at: string })[];
  readonly sizes: readonly {
    readonly project: string;
    readonly number: string;
    readonly title: string;
    readonly folder: string;
    readonly family: string;
    readonly bytes: number;
  }[];
  readonly causes: readonly { readonly rule: RuleCode; readonly count: number; readonly projects: number }[];
  /** Bytes in folders meant for generated files. */
  readonly clearable: readonly {
    readonly project: string;
    readonly number: string;
    readonly title: string;
    readonly bytes: number;
  }[];
  /** Not checked for a week or ever. */
  readonly unchecked: readonly {
    readonly project: string;
    readonly number: string;
    readonly title: string;
    readonly at: string | null;
  }[];
}
