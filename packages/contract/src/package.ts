/** Packages: a project, or a part of it, for somebody else or for the shelf. */
import { PACKAGE_FAULTS, PACKAGE_FORMS, PACKAGE_KINDS, RETURNED, type Verdict } from '@nesting/core/package';
import {
  COMES,
  type LicensedItem,
  type PackRow,
  type PackSummary,
  type Selection,
  STAYS,
} from '@nesting/core/planners';
import { z } from 'zod';
import { carryWaySchema } from './carry';
import { type Same, same } from './equal';
import { word } from './field';
import { amount, list, moment, record, uuid } from './reply';

const path = z.string().max(4096);
const way = carryWaySchema.shape;

export const selectionSchema = z.strictObject({
  within: path.default(''),
  comes: z.enum(['current', 'everything']).default('everything'),
  withGenerated: z.boolean().default(false),
  folders: z.record(word, z.enum(COMES)).default({}),
  take: way.take,
  leave: way.leave,
  picked: z.record(path, z.boolean()).default({}),
  document: path.nullable().default(null),
  isForOutsiders: z.boolean().default(true),
});
export type SelectionAsked = z.input<typeof selectionSchema>;
same<z.output<typeof selectionSchema> extends Selection ? true : false>(true);

const PACKAGE_PURPOSES = ['handover', 'archive'] as const;
/** For somebody else, or for the shelf. */
export type PackagePurpose = (typeof PACKAGE_PURPOSES)[number];

export const packSchema = z.object({ selection: selectionSchema, kind: z.enum(PACKAGE_KINDS).default('zip') });
export type PackRequest = z.input<typeof packSchema>;
export type PackAsked = z.output<typeof packSchema>;

/** What a kept way of packing says: single files and documents belong to one project, and are not kept. */
const packWaySchema = z.strictObject({
  selection: selectionSchema.omit({ picked: true, document: true }),
  kind: z.enum(PACKAGE_KINDS),
  isSideBySide: z.boolean(),
  purpose: z.enum(PACKAGE_PURPOSES),
});
export const keepPackWaySchema = z.object({ way: packWaySchema });

/** A way of packing that is kept with a template. */
export const keptPackWaySchema = record({ name: z.string(), way: packWaySchema, by: z.string(), at: moment });
export type KeptPackWay = z.infer<typeof keptPackWaySchema>;

/** A name that every system can have. */
const fileName = z
  .string()
  .min(1)
  .max(200)
  .regex(/^[^/\\:*?"<>|\p{Cc}]+$/u, 'a name without / \\ : * ? " < > |')
  .regex(/^(?!\.)(?!.*[. ]$)/u, 'a name that does not begin with a dot, or end with one or with a blank');

export const applyPackSchema = packSchema.extend({
  /** Made up by who asks: the same request asked again is done once. It is the package's id. */
  key: z.uuid().optional(),
  fingerprint: z.string().length(64),
  volume: z.string().min(1).max(200),
  /** From the volume's root; made where it is not there. */
  folder: path.default(''),
  /** Without the ending that its kind gives it. */
  name: fileName,
  isSideBySide: z.boolean().default(false),
  purpose: z.enum(PACKAGE_PURPOSES).default('handover'),
  recipient: z.string().max(200).default(''),
  note: z.string().max(2000).default(''),
});
export type ApplyPack = z.output<typeof applyPackSchema>;

const notPacked = record({ path: z.string(), code: z.string() });

const torn = record({ document: z.string(), target: z.string() });

const row = record({
  path: z.string(),
  size: amount,
  modified: z.number(),
  family: z.string().nullable(),
  stays: z.enum(STAYS).nullable(),
  frames: amount,
});
same<Same<z.infer<typeof row>, PackRow>>(true);

const summary = {
  items: list(row),
  /** At most so many as one looks through are told: a file, or a sequence. */
  all: amount,
  files: amount,
  bytes: amount,
  families: list(record({ family: z.string().nullable(), files: amount, bytes: amount })),
  staying: list(record({ stays: z.enum(STAYS), files: amount, bytes: amount })),
  needed: list(torn),
  outside: list(torn),
  totals: record({ needed: amount, outside: amount }),
};

const licensed = record({
  path: z.string(),
  note: z.string().nullable(),
  use: z.string(),
  until: z.string(),
  day: z.string().nullable(),
  givenTo: z.string(),
});
same<Same<z.infer<typeof licensed>, LicensedItem>>(true);

export const packPlanSchema = record({
  ...summary,
  fingerprint: z.string(),
  /** Bytes that the package takes at most. */
  most: amount,
  /** A name for it, without its ending. */
  name: z.string(),
  /** What cannot go: links, names that are no text, what may not be looked at; the first of so many. */
  cannot: list(notPacked),
  cannotAll: amount,
  /** Findings that must be put right, among what goes. */
  must: amount,
  /** Licensed material that goes, the first of it, with what its notes say. */
  licensed: list(licensed),
});
export type PackPlan = z.infer<typeof packPlanSchema>;
const {
  name: _name,
  must: _must,
  licensed: _licensed,
  most: _most,
  fingerprint: _fingerprint,
  cannot: _cannot,
  cannotAll: _all,
  ...told
} = packPlanSchema.unwrap().shape;
same<Same<z.infer<z.ZodObject<typeof told>>, { -readonly [K in keyof PackSummary]: PackSummary[K] }>>(true);

const PACKAGE_STATES = ['queued', 'packing', 'proving', 'waits', 'stopped', 'done', 'failed'] as const;
/** `waits` until somebody says what becomes of files that cannot be read. */
export type PackageState = (typeof PACKAGE_STATES)[number];

/** Read again; the original removed, after proof; the project brought back. */
const PACKAGE_ACTS = ['prove', 'free', 'back', 'part'] as const;

export const verdictSchema = record({
  form: z.enum(PACKAGE_FORMS),
  isWhole: z.boolean(),
  root: z.string(),
  proved: amount,
  bytes: amount,
  missing: list(z.string()),
  changed: list(record({ path: z.string(), isUnreadable: z.boolean() })),
  extra: list(z.string()),
  faults: list(record({ code: z.enum(PACKAGE_FAULTS), path: z.string() })),
  beside: list(z.string()),
});
same<Same<z.infer<typeof verdictSchema>, Verdict>>(true);

export const packageRowSchema = record({
  id: uuid,
  project: uuid,
  number: z.string(),
  title: z.string(),
  kind: z.enum(PACKAGE_KINDS),
  purpose: z.enum(PACKAGE_PURPOSES),
  volume: z.string(),
  /** From the volume's root, its name behind it. */
  path: z.string(),
  recipient: z.string(),
  note: z.string(),
  state: z.enum(PACKAGE_STATES),
  /** Of what was planned, and how far it is. */
  files: amount,
  bytes: amount,
  doneFiles: amount,
  doneBytes: amount,
  /** Bytes on the disk, and the checksum of the whole; `null` until it is done. */
  size: amount.nullable(),
  sha256: z.string().nullable(),
  leftOut: list(notPacked),
  /** Files that it waits for. */
  notPacked: list(notPacked),
  /** Why it failed, in a sentence; empty where it did not. */
  failure: z.string(),
  by: z.string(),
  at: moment,
  endedAt: moment.nullable(),
  /** When it was last proved, and how that came out; `null` where it was not since it was written. */
  provedAt: moment.nullable(),
  isWhole: z.boolean().nullable(),
  /** What is being done with it. */
  act: z.enum(PACKAGE_ACTS).nullable(),
  /** Why the last such thing was not done; empty where it was. */
  actFailure: z.string(),
  /** When the original was removed from its volume, and when the project was brought back from here. */
  freedAt: moment.nullable(),
  backAt: moment.nullable(),
  /** Ways to get it that are open. */
  links: list(
    record({
      id: uuid,
      until: moment,
      hasWord: z.boolean(),
      opened: amount,
      lastAt: moment.nullable(),
      by: z.string(),
    }),
  ),
});
export type PackageRow = z.infer<typeof packageRowSchema>;

export const goOnPackageSchema = z.object({ mayLeaveOut: z.boolean().default(false) });

/** The project's number, said once more by whoever frees its space. */
export const freeOriginalSchema = z.object({ number: z.string().max(200) });
export const bringBackSchema = z.object({ volume: z.string().min(1).max(200) });

export const bringPartSchema = bringBackSchema.extend({
  /** A folder or a file of the project. */
  within: path.min(1),
});
export type BringPart = z.infer<typeof bringPartSchema>;

export const returnedFolderSchema = z.object({ volume: z.string().min(1).max(200), folder: path.min(1) });
export const returnedSchema = record({
  /** The first of so many. */
  rows: list(record({ state: z.enum(RETURNED), sent: z.string().nullable(), back: z.string().nullable() })),
  counts: record({ changed: amount, new: amount, same: amount, 'not-back': amount }),
  unseen: list(z.string()),
});
export type CameBack = z.infer<typeof returnedSchema>;

export const foundInPackageSchema = record({
  id: uuid,
  number: z.string(),
  title: z.string(),
  package: z.string(),
  path: z.string(),
});

export const sendPackageSchema = z.object({
  until: z.iso.date(),
  /** To be said by whoever opens it; none where it is `null`. */
  word: z.string().min(4).max(100).nullable().default(null),
});
export const sentLinkSchema = record({ link: z.string() });

/** Behind the hash sign of a link, and the word that goes with it. */
export const openSentSchema = z.object({ secret: z.string().min(20).max(100), word: z.string().max(100).default('') });
export const sentSchema = record({
  name: z.string(),
  size: amount,
  sha256: z.string(),
  files: amount,
  from: z.string(),
  recipient: z.string(),
  note: z.string(),
  at: moment,
  until: moment,
  /** Where the file itself is. */
  download: z.string(),
});
export type Sent = z.infer<typeof sentSchema>;
