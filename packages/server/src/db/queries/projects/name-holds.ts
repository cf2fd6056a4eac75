import type { Client } from '../../client';

/** How long a name is kept for who asked for it. */
const HOLD_MINUTES = 10;

export interface NameHold {
  readonly name: string;
  readonly mine: boolean;
  readonly by: string;
}

/**
 * Names held in a folder now. The project's row is locked until the transaction ends: those who ask at once are served
 * one after another.
 */
export async function heldNames(client: Client, project: string, folder: string, person: string): Promise<NameHold[]> {
  await client.query('select from project where id = $1 for update', [project]);
  await client.query('delete from name_hold where until < clock_timestamp()');
  const result = await client.query<{ name: string; mine: boolean; by: string }>(
    `select h.name, h.person_id = $3 as mine, p.name as by from name_hold h join person p on p.id = h.person_id
       where h.project_id = $1 and lower(h.folder) = lower($2) order by h.until, h.name`,
    [project, folder, person],
  );
  return result.rows;
}

export async function holdName(
  client: Client,
  project: string,
  folder: string,
  name: string,
  person: string,
): Promise<Date> {
  const result = await client.query<{ until: Date }>(
    `insert into name_hold (project_id, folder, name, person_id, until) values ($1, $2, $3, $4, clock_timestamp() + make_interval(mins => $5))
     on conflict (project_id, folder, name) do update set until = excluded.until where name_hold.person_id = excluded.person_id returning until`,
    [project, folder, name, person, HOLD_MINUTES],
  );
  const row = result.rows[0];
  if (row === undefined) throw new Error('the name is held by somebody else');
  return row.until;
}
