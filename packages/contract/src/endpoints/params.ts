/** What stands in addresses. */
import { z } from 'zod';

/** Ids that the program makes up. */
export const id = { id: z.uuid() };
/** Ids of rules, initials, codes: words of the house's own. */
export const ownWord = { id: z.string().min(1).max(200) };
/** What is kept with a template, by its name. */
export const ofWay = { ...ownWord, name: z.string().min(1).max(100) };
export const ofBatch = { id: z.uuid(), batch: z.uuid() };

export const nothing = { nothing: true } as const;
/** How many it came to. */
export const counted = { json: z.strictObject({ count: z.int().min(0) }) };

/** A file as it is sent: its bytes. */
export const bytes = { body: z.file(), sentAs: 'file' } as const;

/** A draft that was kept: the version to say when it is kept again. */
export const drafted = { json: z.strictObject({ version: z.int().min(0) }) };
export const putInForce = { json: z.strictObject({ edition: z.int().min(1) }), status: 201 } as const;

/** A file by its path in a template or a shared part. */
export const ofFile = z.object({ path: z.string().max(4096) });
