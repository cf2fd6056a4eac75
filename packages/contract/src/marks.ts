/** What the house means by its marks, as it travels and as template files carry it. */
import { MARKS, type Meanings } from '@nesting/core/template';
import { z } from 'zod';
import { type Same, same } from './equal';

/** In letters that can be seen: no control characters, no marks of direction. */
const meaning = z
  .string()
  .trim()
  .min(1)
  .max(40)
  .regex(/^\P{C}*$/u);
export const markSchema = z.enum(MARKS);
export const meaningsSchema = z.partialRecord(markSchema, meaning).readonly();
same<Same<z.infer<typeof meaningsSchema>, Meanings>>(true);

/** Empty words free the mark. */
export const saveMeaningSchema = z.object({ words: z.union([z.literal(''), meaning]), was: z.string().max(40) });

/** The meanings a template or a shared part brings along; files of older versions bring none. */
export const carriedMeaningsSchema = z.object({ marks: meaningsSchema.optional() });
