/** The queue of jobs, as far as its own library does not tell. */
import type { Client } from '../../client';

/** How many of these jobs wait for their turn or run; those that are tried again later do not count. */
export async function countOpenJobs(client: Client, jobs: readonly string[]): Promise<number> {
  const result = await client.query<{ n: number }>(
    `select count(*)::int n from jobs.job
       where id = any($1) and (state in ('created', 'active') or (state = 'retry' and start_after <= now()))`,
    [jobs],
  );
  return result.rows[0]?.n ?? 0;
}

/** Jobs whose turn it is and that nobody does yet, by kind; the oldest one's age in seconds. */
export async function waitingJobs(
  client: Client,
): Promise<{ readonly kind: string; readonly waiting: number; readonly oldest: number }[]> {
  const result = await client.query<{ kind: string; waiting: number; oldest: number }>(
    `select name as kind, count(*)::int as waiting, extract(epoch from now() - min(start_after))::float8 as oldest
       from jobs.job where state in ('created', 'retry') and start_after <= now() group by name order by name`,
  );
  return result.rows;
}
