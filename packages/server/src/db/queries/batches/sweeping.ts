import type { Client } from '../../client';
import type { BatchRoot } from './batches';

interface ToSweep {
  readonly id: string;
  readonly volume: string;
  readonly folder: string;
}

/** Takes projects with batches that ended so many days ago: each once a day, by one of those who ask. */
export async function takeProjectsToSweep(client: Client, days: number, limit: number): Promise<ToSweep[]> {
  const { rows } = await client.query<ToSweep>(
    `update project set swept_at = clock_timestamp() where id in (
     select p.id from project p
     where (p.swept_at is null or p.swept_at < clock_timestamp() - interval '1 day')
       and exists (
         select 1 from batch b
         where b.project_id = p.id and b.swept_at is null and b.ended_at < clock_timestamp() - $1 * interval '1 day')
     order by p.swept_at nulls first limit $2 for update skip locked)
     returning id, volume, folder`,
    [days, limit],
  );
  return rows;
}

/** All roots that batches of a project have beside its own folder. */
export async function rootsOfProject(client: Client, project: string): Promise<BatchRoot[]> {
  const { rows } = await client.query<BatchRoot>(
    `select distinct r.root || ' ' || r.volume || ' ' || r.folder as root, r.volume, r.folder
     from batch_root r join batch b on b.id = r.batch_id where b.project_id = $1`,
    [project],
  );
  return rows;
}

/** These of its batches cannot be undone any more. Refusals are forgotten with them. */
export async function batchesSwept(client: Client, project: string, ids: readonly string[]): Promise<void> {
  await client.query(
    "update batch set swept_at = clock_timestamp() where project_id = $1 and id::text = any($2) and state <> 'refused'",
    [project, ids],
  );
  await client.query(
    "delete from batch where project_id = $1 and state = 'refused' and ended_at < clock_timestamp() - interval '1 day'",
    [project],
  );
}
