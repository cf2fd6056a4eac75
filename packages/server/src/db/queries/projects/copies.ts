/** Copies of a project's folder that somebody said to leave alone. */
import type { Client } from '../../client';

export async function copiesLeft(client: Client): Promise<{ project: string; volume: string; folder: string }[]> {
  return (
    await client.query<{ project: string; volume: string; folder: string }>(
      'select project_id as project, volume, folder from copy_left',
    )
  ).rows;
}

export async function leaveCopy(client: Client, project: string, volume: string, folder: string): Promise<void> {
  await client.query('insert into copy_left (project_id, volume, folder) values ($1, $2, $3) on conflict do nothing', [
    project,
    volume,
    folder,
  ]);
}
