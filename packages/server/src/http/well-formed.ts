/** What no schema has to say: texts that a database can hold, and no more levels than anybody means. */
import { LIMITS } from '@nesting/core';

export interface Malformed {
  /** Where, by keys from the outside in. */
  readonly at: string;
  readonly says: string;
}

/** The first thing in it that cannot be worked with; `null` where there is none. Goes level by level, without recursion. */
export function malformedIn(data: unknown): Malformed | null {
  let level: readonly (readonly [at: string, value: unknown])[] = [['', data]];
  for (let depth = 0; level.length > 0; depth++) {
    const next: [string, unknown][] = [];
    for (const [at, value] of level) {
      const says = typeof value === 'string' ? textFault(value) : null;
      if (says !== null) return { at, says };
      if (typeof value !== 'object' || value === null || value instanceof Blob) continue;
      for (const [key, inside] of Object.entries(value)) {
        const fault = textFault(key);
        if (fault !== null) return { at, says: fault };
        if (depth < LIMITS.jsonLevels) next.push([at === '' ? key : `${at}.${key}`, inside]);
        else return { at: at.slice(0, 100), says: `it goes deeper than ${LIMITS.jsonLevels} levels` };
      }
    }
    level = next;
  }
  return null;
}

function textFault(text: string): string | null {
  if (text.includes('\0')) return 'it holds a character that ends texts (NUL)';
  return text.isWellFormed() ? null : 'it holds half a character';
}
