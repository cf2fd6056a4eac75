/** Heaps of loose files that were looked through for a project, and volumes on which such arrive. */
import type { Client } from '../../client';

export interface HeapOfProject {
  readonly project: string;
  readonly volume: string;
  readonly folder: string;
}

export async function keepIntake(
  client: Client,
  { project, volume, folder }: HeapOfProject,
  found: Buffer,
): Promise<void> {
  await client.query(
    `insert into intake (project_id, volume, folder, found) values ($1, $2, $3, $4)
       on conflict (project_id, volume, folder) do update set found = excluded.found, read_at = clock_timestamp()`,
    [project, volume, folder, found],
  );
}

export async function readIntakeRow(
  client: Client,
  { project, volume, folder }: HeapOfProject,
): Promise<{ readonly found: Buffer; readonly readAt: Date } | null> {
  const { rows } = await client.query<{ found: Buffer; readAt: Date }>(
    'select found, read_at "readAt" from intake where project_id = $1 and volume = $2 and folder = $3',
    [project, volume, folder],
  );
  return rows[0] ?? null;
}

/** What was found in it is known by other projects too. */
export async function latestIntake(client: Client, volume: string, folder: string): Promise<Buffer | null> {
  const { rows } = await client.query<{ found: Buffer }>(
    'select found from intake where volume = $1 and folder = $2 order by read_at desc limit 1',
    [volume, folder],
  );
  return rows[0]?.found ?? null;
}

export async function noteBrought(client: Client, { project, volume, folder }: HeapOfProject): Promise<void> {
  await client.query(
    'update intake set brought_at = clock_timestamp() where project_id = $1 and volume = $2 and folder = $3',
    [project, volume, folder],
  );
}

export interface BroughtHeap extends HeapOfProject {
  readonly number: string;
  readonly title: string;
  readonly at: Date;
}

/** The last time each heap was brought anywhere. */
export async function broughtHeaps(client: Client): Promise<readonly BroughtHeap[]> {
  const { rows } = await client.query<BroughtHeap>(
    `select distinct on (i.volume, i.folder) i.volume, i.folder, i.project_id "project", p.number, p.title,
            i.brought_at "at"
       from intake i join project p on p.id = i.project_id
      where i.brought_at is not null
      order by i.volume, i.folder, i.brought_at desc`,
  );
  return rows;
}

export async function readInboxes(client: Client): Promise<ReadonlySet<string>> {
  const { rows } = await client.query<{ volume: string }>('select volume from volume_inbox');
  return new Set(rows.map(({ volume }) => volume));
}

export async function writeInbox(client: Client, volume: string, isInbox: boolean): Promise<void> {
  if (isInbox) await client.query('insert into volume_inbox (volume) values ($1) on conflict do nothing', [volume]);
  else await client.query('delete from volume_inbox where volume = $1', [volume]);
}

/** By volume: where what is brought in on it is copied once more. */
export async function readDoubles(client: Client): Promise<ReadonlyMap<string, string>> {
  const { rows } = await client.query<{ volume: string; double: string }>('select volume, double from volume_double');
  return new Map(rows.map(({ volume, double }) => [volume, double]));
}

export async function writeDouble(client: Client, volume: string, double: string | null): Promise<void> {
  if (double === null) await client.query('delete from volume_double where volume = $1', [volume]);
  else
    await client.query(
      `insert into volume_double (volume, double) values ($1, $2)
         on conflict (volume) do update set double = excluded.double, at = clock_timestamp()`,
      [volume, double],
    );
}
