import type { SetAsideRow } from '@nesting/contract';
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

/** What a batch keeps by now. */
export async function setKept(
  client: Client,
  kept: readonly { readonly id: string; readonly files: number; readonly bytes: number }[],
): Promise<void> {
  for (const { id, files, bytes } of kept)
    await client.query('update batch set kept_files = $2, kept_bytes = $3 where id = $1', [id, files, bytes]);
}

/** What lies set aside in all projects, the largest first. */
export async function batchesKeeping(client: Client, days: number): Promise<SetAsideRow[]> {
  const { rows } = await client.query<Omit<SetAsideRow, 'at' | 'until'> & { at: Date; until: Date | null }>(
    `select b.id batch, b.what, coalesce(a.name, '') "by", b.ended_at at, b.kept_files files, b.kept_bytes::float8 bytes,
       case when $1 = 0 then null else b.ended_at + $1 * interval '1 day' end "until",
       json_build_object('id', p.id, 'number', p.number, 'title', p.title) project
     from batch b join project p on p.id = b.project_id left join person a on a.id = b.person_id
     where b.kept_files > 0 and b.swept_at is null and b.state in ('done', 'closed')
     order by b.kept_bytes desc, b.ended_at limit 2000`,
    [days],
  );
  return rows.map((row) => ({ ...row, at: row.at.toISOString(), until: row.until?.toISOString() ?? null }));
}
