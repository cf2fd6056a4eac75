import type { Marker } from '@nesting/core/planners';
import { PROFILE_NAMES } from '@nesting/core/portable';
import {
  type Convention,
  type FolderNode,
  MARKS,
  PRESENCES,
  SETTING_FACTS,
  type Template,
  WEIGHTS,
} from '@nesting/core/template';
import { z } from 'zod';
import { type Same, same } from './equal';
import { fieldSchema, short, someRegistersSchema, valuesSchema, word } from './field';
import { meaningsSchema } from './marks';

const pattern = z.string().min(1).max(1000);
const onlyWhen = z
  .object({ field: word, is: z.union([z.string().max(200), z.array(z.string().max(200)).max(200).readonly()]) })
  .readonly();
/** From a folder to what is in it; never out of it. */
const pathInside = z
  .string()
  .min(1)
  .max(400)
  .regex(/^(?!\/)(?!(?:.*\/)?\.{0,2}(?:\/|$))[^\\\0]+$/);
const starter = z
  .object({
    id: word,
    name: pattern,
    from: z.string().min(1).max(500),
    files: z.array(pathInside).min(1).max(1000).readonly().optional(),
    fill: z.boolean().optional(),
    onlyWhen: onlyWhen.optional(),
  })
  .readonly();
const numbering = z
  .object({
    digits: z.int().min(1).max(6),
    joiner: z.string().max(5),
    reserved: z
      .array(z.object({ number: z.int().min(0).max(999_999), label: short.optional() }).readonly())
      .max(500)
      .readonly()
      .optional(),
  })
  .readonly();

const folderShape = {
  id: word,
  name: pattern.optional(),
  number: z.int().min(0).max(999_999).optional(),
  unnumbered: z.boolean().optional(),
  purpose: z.string().max(2000).optional(),
  mark: z.enum(MARKS).optional(),
  presence: z.enum(PRESENCES).optional(),
  artistsMayAdd: z.boolean().optional(),
  accepts: z.array(word).max(200).readonly().optional(),
  conventions: z.array(word).max(200).readonly().optional(),
  free: z.boolean().optional(),
  onePer: z.object({ list: word, as: word }).readonly().optional(),
  onlyWhen: onlyWhen.optional(),
  signpost: word.optional(),
  stable: z.boolean().optional(),
  licensed: z.boolean().optional(),
  cards: z.boolean().optional(),
  checksums: z.boolean().optional(),
  outsiders: z.boolean().optional(),
  deliveries: z
    .array(
      z
        .object({
          name: word,
          onePer: z.object({ list: word, as: word }).readonly().optional(),
          convention: word.optional(),
          family: word.optional(),
          due: z
            .object({ field: word, days: z.int().min(-10_000).max(10_000) })
            .readonly()
            .optional(),
        })
        .readonly(),
    )
    .max(100)
    .readonly()
    .optional(),
  limitBytes: z.int().min(0).optional(),
  filledWithinDays: z.int().min(1).max(10_000).optional(),
  frames: word.optional(),
  older: z
    .object({ folder: word, keep: z.int().min(0).optional() })
    .readonly()
    .optional(),
  numbering: numbering.optional(),
  block: word.optional(),
};

export const folderSchema: z.ZodType<FolderNode> = z.lazy(() =>
  z
    .object({
      ...folderShape,
      folders: z.array(folderSchema).max(10_000).readonly().optional(),
      starters: z.array(starter).max(1000).readonly().optional(),
    })
    .readonly(),
);
/** As written by hand: ids may be absent, and are given on import. */
const looseFolder: z.ZodType<Omit<FolderNode, 'id'> & { readonly id?: string | undefined }> = z.lazy(() =>
  z
    .object({
      ...folderShape,
      id: word.optional(),
      folders: z.array(looseFolder).max(10_000).readonly().optional(),
      starters: z
        .array(starter.unwrap().partial({ id: true }).readonly())
        .max(1000)
        .readonly()
        .optional(),
    })
    .readonly(),
) as never;

const conventionShape = {
  id: word,
  name: word,
  pattern,
  fields: z.array(fieldSchema).max(200).readonly().optional(),
  families: z.array(word).max(200).readonly().optional(),
  good: z.array(z.string()).max(500).readonly().optional(),
  bad: z.array(z.string()).max(500).readonly().optional(),
};
export const conventionSchema = z.object(conventionShape).readonly();
same<Same<z.infer<typeof conventionSchema>, Convention>>(true);

/** A convention as a file of its own. */
export const conventionFileSchema = z
  .object({
    format: z.literal('nesting/convention'),
    formatVersion: z.literal(1),
    ...conventionShape,
    id: word.optional(),
  })
  .readonly();

const checks = z
  .object({
    rules: z
      .record(z.string(), z.enum([...WEIGHTS, 'off']))
      .readonly()
      .optional(),
    pathBudget: z.int().min(20).max(32_000).optional(),
    profiles: z.array(z.enum(PROFILE_NAMES)).readonly().optional(),
    artistsMayRepair: z.boolean().optional(),
  })
  .readonly();
const setup = z
  .object({
    settings: z
      .array(
        z
          .object({
            label: word,
            value: short,
            allowed: z.array(short).readonly().optional(),
            why: z.string().max(1000).optional(),
            fact: z.enum(SETTING_FACTS).optional(),
            within: z.array(word).max(200).readonly().optional(),
          })
          .readonly(),
      )
      .max(200)
      .readonly()
      .optional(),
    firstDay: z.array(z.string().max(1000)).max(200).readonly().optional(),
  })
  .readonly();

export const adjustmentsSchema = z
  .record(
    z.string().max(2000),
    z
      .object({
        leaveOut: z.boolean().optional(),
        make: z.boolean().optional(),
        name: z.string().min(1).max(255).optional(),
        volume: word.optional(),
      })
      .readonly(),
  )
  .readonly();

const templateHead = {
  format: z.literal('nesting/template'),
  formatVersion: z.literal(1),
  name: word,
  edition: z.int().min(1).optional(),
  purpose: z.string().max(2000).optional(),
  fields: z.array(fieldSchema).max(200).readonly(),
  registers: someRegistersSchema.optional(),
  checks: checks.optional(),
  setup: setup.optional(),
  adjusted: adjustmentsSchema.optional(),
};
const blockShape = {
  id: word,
  name: short.optional(),
  shared: z
    .object({ block: word, edition: z.int().min(1) })
    .readonly()
    .optional(),
};

export const templateSchema = z
  .object({
    ...templateHead,
    id: word,
    conventions: z.array(conventionSchema).max(500).readonly(),
    blocks: z
      .array(z.object({ ...blockShape, folders: z.array(folderSchema).readonly() }).readonly())
      .max(200)
      .readonly()
      .optional(),
    root: folderSchema,
  })
  .readonly();
same<Same<z.infer<typeof templateSchema>, Template>>(true);

/** A template file as people write it: ids may be absent, empty lists left out. */
export const looseTemplateSchema = z
  .object({
    ...templateHead,
    marks: meaningsSchema.optional(),
    id: word.optional(),
    fields: templateHead.fields.default([]),
    conventions: z
      .array(conventionSchema.unwrap().partial({ id: true }).readonly())
      .max(500)
      .readonly()
      .default([]),
    blocks: z
      .array(z.object({ ...blockShape, folders: z.array(looseFolder).readonly() }).readonly())
      .max(200)
      .readonly()
      .optional(),
    root: looseFolder,
  })
  .readonly();

export const markerSchema = z
  .object({
    format: z.literal('nesting/marker'),
    formatVersion: z.literal(1),
    project: word,
    template: z.object({ id: word, name: word, edition: z.int() }).readonly(),
    values: valuesSchema,
    settings: z.record(short, short).readonly().optional(),
    started: z.string().max(40),
  })
  .readonly();
same<Same<z.infer<typeof markerSchema>, Marker>>(true);
