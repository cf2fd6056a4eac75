/** What is kept in this browser. Whatever stands there by somebody else's hand is as if nothing did. */
import type { z } from 'zod';

export function readKept<T>(key: string, schema: z.ZodType<T>, otherwise: T): T {
  try {
    const parsed = schema.safeParse(JSON.parse(localStorage.getItem(key) ?? 'null'));
    return parsed.success ? parsed.data : otherwise;
  } catch {
    return otherwise;
  }
}
