import type { Params } from '@nesting/core';
import type { Client } from '../client';

export type ActivityCode = 'project-started' | 'start-failed' | 'start-taken-back' | 'convention-drafted' | 'convention-in-force' | 'convention-draft-discarded' | 'template-drafted' | 'template-in-force' | 'template-draft-discarded' | 'template-archived' | 'rules-taken-in' | 'block-shared' | 'block-in-force' | 'block-draft-discarded';

export async function recordActivity(client: Client, what: ActivityCode, person: string | null, project: string | null, params: Params): Promise<void> {
  await client.query('insert into activity (person_id, what, project_id, params) values ($1, $2, $3, $4)', [person, what, project, JSON.stringify(params)]);
}
