import type { Client } from '../../client';

export async function insertFindingLink(
  client: Client,
  hash: string,
  person: string,
  by: string,
  days: number,
): Promise<void> {
  await client.query(
    `insert into finding_link (hash, person_id, made_by, expires_at)
       values ($1, $2, $3, clock_timestamp() + $4 * interval '1 day')`,
    [hash, person, by, days],
  );
}

/** Initials of whose list it opens; `null` where it opens none any more. */
export async function personOfFindingLink(client: Client, hash: string): Promise<string | null> {
  const result = await client.query<{ initials: string }>(
    `select p.initials from finding_link l join person p on p.id = l.person_id
       where l.hash = $1 and l.expires_at > clock_timestamp() and not p.retired`,
    [hash],
  );
  return result.rows[0]?.initials ?? null;
}
