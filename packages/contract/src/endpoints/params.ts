/** What stands in addresses. */
import { z } from 'zod';

/** Ids that the program makes up. */
export const id = { id: z.uuid() };
/** Ids of rules, initials, codes: words of the house's own. */
export const ownWord = { id: z.string().min(1).max(200) };
export const ofBatch = { id: z.uuid(), batch: z.uuid() };

export const nothing = { nothing: true } as const;
/** How many it came to. */
export const counted = { json: z.strictObject({ count: z.int().min(0) }) };
