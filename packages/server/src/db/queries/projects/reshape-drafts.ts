import type { ReshapeAsked } from '@nesting/contract';
import type { Client } from '../../client';

export async function readReshapeDraft(client: Client, project: string, person: string): Promise<ReshapeAsked | null> {
  return (
    (
      await client.query<{ body: ReshapeAsked }>(
        'select body from reshape_draft where project_id = $1 and person_id = $2',
        [project, person],
      )
    ).rows[0]?.body ?? null
  );
}

export async function keepReshapeDraft(
  client: Client,
  project: string,
  person: string,
  body: ReshapeAsked | null,
): Promise<void> {
  if (body === null)
    await client.query('delete from reshape_draft where project_id = $1 and person_id = $2', [project, person]);
  else
    await client.query(
      `insert into reshape_draft (project_id, person_id, body) values ($1, $2, $3)
         on conflict (project_id, person_id) do update set body = excluded.body, at = clock_timestamp()`,
      [project, person, JSON.stringify(body)],
    );
}
