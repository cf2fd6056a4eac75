/** Checks and findings as they cross the wire: kept, filtered, accepted, given to people. */

import { RULE_CODES } from '@nesting/core/check';
import {
  CHANGE_CODES,
  CONFIDENCES,
  EXPECTATION_CODES,
  type Problem,
  type Stretch,
  type Suggestion,
} from '@nesting/core/name';
import { WEIGHTS } from '@nesting/core/template';
import { z } from 'zod';
import { type Same, same } from './equal';
import { short } from './field';
import { amount, list, moment, record, uuid } from './reply';
import { countsShape, findingCountsSchema, trendPointSchema } from './wire';

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

const acceptedSchema = record({
  reason: z.string(),
  by: z.string(),
  at: moment,
  /** `null` for without end. */
  until: z.iso.date().nullable(),
  baseline: z.boolean(),
});
export type Accepted = z.infer<typeof acceptedSchema>;

const rule = z.enum(RULE_CODES);
const weight = z.enum(WEIGHTS);

const params = z.record(z.string(), z.union([z.string(), z.number(), list(z.string())])).readonly();

const problem = record({
  part: z.string().nullable(),
  at: amount,
  length: amount,
  found: z.string(),
  expected: record({ code: z.enum(EXPECTATION_CODES), params }),
  change: z.enum(CHANGE_CODES),
  meant: z.string().nullable(),
});
same<Same<z.infer<typeof problem>, Problem>>(true);
const stretch = record({ part: z.string().nullable(), at: amount, end: amount, ok: z.boolean() });
same<Same<z.infer<typeof stretch>, Stretch>>(true);
const suggestion = record({
  name: z.string(),
  confidence: z.enum(CONFIDENCES),
  changes: list(record({ code: z.enum(CHANGE_CODES), part: z.string().nullable(), from: z.string(), to: z.string() })),
});
same<Same<z.infer<typeof suggestion>, Suggestion>>(true);

/** A finding as it is stored: what its words are made from. Older versions stored its sentence too. */
const storedShape = {
  id: z.string().max(16),
  rule,
  weight,
  path: z.string().max(4096),
  params,
  problems: z.array(problem).max(100).readonly(),
  stretches: z.array(stretch).max(500).readonly(),
  suggestion: suggestion.nullable(),
  related: z.array(z.string().max(4096)).max(5000).readonly(),
};
export interface StoredFinding extends z.infer<typeof storedOnly> {
  readonly message?: string | undefined;
}
const storedOnly = record(storedShape);

/** As it is shown: with its sentence. */
const findingShape = { ...storedShape, message: z.string() };
export const findingRowSchema = record(findingShape);
export type FindingRow = z.infer<typeof findingRowSchema>;

/** A finding of a project as it stands now. */
const keptFindingSchema = record({
  ...findingShape,
  since: moment,
  isNew: z.boolean(),
  solvedAt: moment.nullable(),
  accepted: acceptedSchema.nullable(),
  /** Whoever is to put it right, by initials: given by hand, else as its name says. */
  to: z.string().nullable(),
  given: z.boolean(),
  note: z.string(),
});
export type KeptFinding = z.infer<typeof keptFindingSchema>;

const findingFacetSchema = record({ key: z.string(), count: amount });
export type FindingFacet = z.infer<typeof findingFacetSchema>;

/** A page of findings. What is counted comes with the first page alone; later ones say nothing of it. */
export const findingListSchema = record({
  rows: list(keptFindingSchema),
  total: amount,
  views: record({ open: amount, new: amount, accepted: amount, solved: amount }),
  /** Each facet counted under all other filters. */
  rules: list(record({ key: rule, count: amount, weight: z.string() })),
  weights: findingCountsSchema,
  people: list(findingFacetSchema),
  /** Folders below the root. */
  folders: list(findingFacetSchema),
});
export type FindingList = z.infer<typeof findingListSchema>;

/** Findings of one folder, for the map. */
export const folderSignSchema = record({ path: z.string(), rule, weight, count: amount });
export type FolderSign = z.infer<typeof folderSignSchema>;

const projectNamedShape = { id: uuid, number: z.string(), title: z.string() };
const projectNamed = record(projectNamedShape);
const ofProject = { project: uuid, number: z.string(), title: z.string() };

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

export const exceptionRowSchema = record({
  id: z.string(),
  project: projectNamed,
  rule: rule.nullable(),
  path: z.string().nullable(),
  message: z.string(),
  accepted: acceptedSchema,
  /** It has ended, or what it is about is gone. */
  state: z.enum(['holds', 'ended', 'gone', 'touched']),
});
export type ExceptionRow = z.infer<typeof exceptionRowSchema>;

/** Other paths kept with one finding: half a million of one content are one finding, and nobody reads them all. */
export const MOST_RELATED = 2000;

export const REPORT_FORMS = ['csv', 'json', 'sarif'] as const;
export type ReportForm = (typeof REPORT_FORMS)[number];

export const askCheckSchema = z.object({ what: z.enum(['whole', 'quick']).default('whole') });
export const scheduleSchema = z.object({ every: z.int().min(15).max(40_320).nullable() });

export const handInSchema = z.object({
  source: short,
  files: z.int().min(0),
  folders: z.int().min(0),
  /** The server makes the sentences itself. */
  findings: z.array(z.object(storedShape)).max(5000),
});
export const handedInSchema = record({
  id: uuid,
  by: z.string(),
  at: moment,
  source: z.string(),
  files: amount,
  folders: amount,
  counts: findingCountsSchema,
});
export type HandedIn = z.infer<typeof handedInSchema>;

const findingOfPerson = record({
  rule,
  weight: z.string(),
  path: z.string(),
  message: z.string(),
  suggestion: z.string().nullable(),
});
export const personFindingsSchema = record({
  initials: z.string(),
  name: z.string(),
  projects: list(
    record({
      ...projectNamedShape,
      counts: findingCountsSchema,
      findings: list(findingOfPerson),
      more: amount,
    }),
  ),
});
export type PersonFindings = z.infer<typeof personFindingsSchema>;

export const whoRowSchema = record({
  ...countsShape,
  initials: z.string().nullable(),
  name: z.string(),
  projects: amount,
});
export type WhoRow = z.infer<typeof whoRowSchema>;

/** For the charts of all projects. */
export const overviewSchema = record({
  /** A day each, all projects summed: the last check of each by then. */
  days: list(trendPointSchema.unwrap().extend({ at: z.iso.date() }).readonly()),
  sizes: list(record({ ...ofProject, folder: z.string(), family: z.string(), bytes: amount })),
  causes: list(record({ rule, count: amount, projects: amount })),
  /** Bytes in folders meant for generated files. */
  clearable: list(record({ ...ofProject, bytes: amount })),
  /** Not checked for a week or ever. */
  unchecked: list(record({ ...ofProject, at: moment.nullable() })),
});
export type Overview = z.infer<typeof overviewSchema>;

/** References of open formats, read both ways. */
export const referencesSchema = z.strictObject({
  /** Documents that refer to it, each to what. */
  by: list(z.strictObject({ document: z.string(), target: z.string() })),
  /** What it refers to as it is written, and where that is in the project; `null` for what leads out of it. */
  to: list(z.strictObject({ document: z.string(), written: z.string(), target: z.string().nullable() })),
});
export type References = z.infer<typeof referencesSchema>;
