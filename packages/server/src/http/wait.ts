/** How long an answer may be waited for, by `Prefer: wait=SECONDS` (RFC 7240): what takes longer goes on without it. */
import type { Context } from 'hono';

/** Seconds without the header, and at most with it: many proxies give up after a minute. */
const USUAL = 55;

/** In milliseconds; says in the answer that it was heard. */
export function waitAsked(c: Context): number {
  const asked = /(?:^|[,;\s])wait\s*=\s*"?(\d{1,6})"?/i.exec(c.req.header('prefer') ?? '')?.[1];
  const seconds = Math.min(USUAL, asked === undefined ? USUAL : Number(asked));
  if (asked !== undefined) c.header('preference-applied', `wait=${seconds}`);
  return seconds * 1000;
}
