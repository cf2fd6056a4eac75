/** Leases on work that must be done once: a start, a batch. Times are the database's. */
import type { Client } from '../../client';

const UNTIL = "clock_timestamp() + $2 * interval '1 millisecond'";

/** Whether the work is this owner's now: nobody's, or somebody's whose lease is over. */
export async function takeLease(client: Client, owner: string, ms: number, work: string): Promise<boolean> {
  const { rowCount } = await client.query(
    `insert into lease (work, owner, until) values ($3, $1, ${UNTIL})
     on conflict (work) do update set owner = excluded.owner, until = excluded.until
     where lease.until < clock_timestamp()`,
    [owner, ms, work],
  );
  return rowCount === 1;
}

/** Of these, the works that are still this owner's; their leases are longer now. */
export async function renewLeases(
  client: Client,
  owner: string,
  ms: number,
  works: readonly string[],
): Promise<ReadonlySet<string>> {
  const { rows } = await client.query<{ work: string }>(
    `update lease set until = ${UNTIL} where owner = $1 and work = any($3) returning work`,
    [owner, ms, works],
  );
  return new Set(rows.map((row) => row.work));
}

export async function endLease(client: Client, owner: string, work: string): Promise<void> {
  await client.query('delete from lease where work = $1 and owner = $2', [work, owner]);
}
