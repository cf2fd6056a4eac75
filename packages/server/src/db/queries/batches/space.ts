/** Bytes that work under a lease is going to write on a volume. What is left of work that is over counts no more. */
import type { Client } from '../../client';

/** Bytes of others. No two ask for one volume at once until the transaction ends. */
export async function reservedBeside(client: Client, volume: string, work: string): Promise<number> {
  await client.query("select pg_advisory_xact_lock(hashtextextended('space ' || $1, 0))", [volume]);
  const { rows } = await client.query<{ bytes: string }>(
    `select coalesce(sum(s.bytes), 0) as bytes from space_reserved s
     join lease l on l.work = s.work and l.until > clock_timestamp()
     where s.volume = $1 and s.work <> $2`,
    [volume, work],
  );
  return Number(rows[0]?.bytes ?? 0);
}

export async function reserveBytes(client: Client, work: string, volume: string, bytes: number): Promise<void> {
  await client.query(
    `insert into space_reserved (work, volume, bytes) values ($1, $2, $3)
     on conflict (work, volume) do update set bytes = excluded.bytes`,
    [work, volume, bytes],
  );
}

export async function releaseBytes(client: Client, work: string): Promise<void> {
  await client.query('delete from space_reserved where work = $1', [work]);
}

/** What work that ended early left here. */
export async function releaseLost(client: Client): Promise<void> {
  await client.query(
    `delete from space_reserved s
       where not exists (select 1 from lease l where l.work = s.work and l.until > clock_timestamp())`,
  );
}
