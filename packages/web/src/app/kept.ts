/** What is kept in this browser. Whatever stands there by somebody else's hand is as if nothing did. */
import { useCallback, useState } from 'react';
import type { z } from 'zod';

export function readKept<T>(key: string, schema: z.ZodType<T>, otherwise: T): T {
  try {
    const parsed = schema.safeParse(JSON.parse(localStorage.getItem(key) ?? 'null'));
    return parsed.success ? parsed.data : otherwise;
  } catch {
    return otherwise;
  }
}

/** What was said on a page, kept in this browser until it is `unsaid` again. */
export function useKept<T>(place: string, schema: z.ZodType<T>, unsaid: T): readonly [T, (next: T) => void] {
  const [said, setSaid] = useState<T>(() => readKept(place, schema, unsaid));
  const keep = useCallback(
    (next: T) => {
      setSaid(next);
      if (next === unsaid) localStorage.removeItem(place);
      else localStorage.setItem(place, JSON.stringify(next));
    },
    [place, unsaid],
  );
  return [said, keep];
}
