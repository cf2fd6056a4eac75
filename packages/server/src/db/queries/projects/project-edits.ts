/** What people write of a project on its page: its state, what the team should know, what is done on the first day. */
import type { ProjectRow } from '@nesting/contract';
import type { Convention, OwnRules, Template } from '@nesting/core/template';
import type { Client } from '../../client';

export interface ProjectEdit {
  readonly state?: ProjectRow['state'] | undefined;
  readonly teamNote?: string | undefined;
  readonly settings?: Readonly<Record<string, string>> | undefined;
  readonly own?: OwnRules | undefined;
}

/** `false` where somebody changed it since `version`, or it is not made. */
export async function editProject(
  client: Client,
  id: string,
  person: string,
  version: number,
  e: ProjectEdit,
): Promise<boolean> {
  const result = await client.query(
    `update project set version = version + 1, state = coalesce($3, state), state_at = case when $3::text is null or $3 = state then state_at else clock_timestamp() end, settings = coalesce($5, settings), own = coalesce($6, own),
       team_note = coalesce($4, team_note), team_note_by = case when $4::text is null then team_note_by else $7 end, team_note_at = case when $4::text is null then team_note_at else clock_timestamp() end
     where id = $1 and version = $2 and state not in ('starting', 'failed')`,
    [
      id,
      version,
      e.state ?? null,
      e.teamNote ?? null,
      e.settings === undefined ? null : JSON.stringify(e.settings),
      e.own === undefined ? null : JSON.stringify(e.own),
      person,
    ],
  );
  return (result.rowCount ?? 0) > 0;
}

/** The rules a project's own stand in place of. */
export async function readOwnRulesBase(
  client: Client,
  id: string,
): Promise<{ body: Template; conventions: Record<string, Convention> } | null> {
  const result = await client.query<{ body: Template; conventions: Record<string, Convention> | null }>(
    `select e.body, (select jsonb_object_agg(own.key, k.body) from jsonb_each(p.conventions) own join convention_edition k on k.convention_id = own.value ->> 'id' and k.edition = (own.value ->> 'edition')::int) as conventions
     from project p join template_edition e on e.template_id = p.template_id and e.edition = p.edition where p.id = $1`,
    [id],
  );
  const row = result.rows[0];
  return row === undefined ? null : { body: row.body, conventions: row.conventions ?? {} };
}

export async function markProject(client: Client, person: string, id: string, pinned: boolean | null): Promise<void> {
  await client.query(
    `insert into project_mark (person_id, project_id, pinned, opened_at) values ($1, $2, coalesce($3, false), clock_timestamp())
     on conflict (person_id, project_id) do update set pinned = coalesce($3, project_mark.pinned), opened_at = clock_timestamp()`,
    [person, id, pinned],
  );
}

export async function insertFirstDay(client: Client, id: string, lines: readonly string[]): Promise<void> {
  await client.query(
    `insert into first_day (project_id, place, words) select $1, place, words
       from unnest($2::text[]) with ordinality given(words, place)`,
    [id, lines],
  );
}

export async function tickFirstDay(client: Client, id: string, place: number, person: string | null): Promise<boolean> {
  const result = await client.query(
    `update first_day set done_by = $3, done_at = case when $3::text is null then null else clock_timestamp() end
       where project_id = $1 and place = $2`,
    [id, place, person],
  );
  return (result.rowCount ?? 0) > 0;
}
