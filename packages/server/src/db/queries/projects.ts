import type { ProjectPage, ProjectRow } from '@nesting/contract';
import { type Convention, type Template, type Values, withConventions } from '@nesting/core';
import type { Client } from '../client';

export interface NewProject {
  readonly id: string;
  readonly number: string;
  readonly client: string | null;
  readonly title: string;
  readonly template: string;
  readonly edition: number;
  /** Editions of conventions it is started with, by their id in the template. */
  readonly conventions: Readonly<Record<string, { readonly id: string; readonly edition: number }>>;
  readonly values: Values;
  readonly volume: string;
  readonly folder: string;
  readonly person: string;
}

/** Fails by constraint `project_number_once` or `project_folder_once` where either is taken. */
export async function insertProject(client: Client, p: NewProject): Promise<void> {
  await client.query(
    `insert into project (id, number, client_code, title, template_id, edition, "values", volume, folder, state, started_by, conventions)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, 'starting', $10, $11)`,
    [p.id, p.number, p.client, p.title, p.template, p.edition, JSON.stringify(p.values), p.volume, p.folder, p.person, JSON.stringify(p.conventions)],
  );
}

export async function setProjectState(client: Client, id: string, state: ProjectRow['state']): Promise<void> {
  await client.query('update project set state = $2 where id = $1', [id, state]);
}

/** Only for a start that came to nothing: its number is free again. */
export async function removeUnstarted(client: Client, id: string): Promise<string | null> {
  return (await client.query<{ number: string }>("delete from project where id = $1 and state = 'starting' returning number", [id])).rows[0]?.number ?? null;
}

export async function listUnstarted(client: Client): Promise<{ id: string; volume: string; folder: string }[]> {
  const result = await client.query<{ id: string; volume: string; folder: string }>("select id, volume, folder from project where state = 'starting'");
  return result.rows;
}

interface Row {
  id: string;
  number: string;
  client_code: string | null;
  client_name: string | null;
  title: string;
  template_id: string;
  template_name: string;
  edition: number;
  volume: string;
  folder: string;
  state: ProjectRow['state'];
  started_at: Date;
  started_by: string;
  check_at: Date | null;
  must: number;
  should: number;
  note: number;
  files: number;
  bytes: number;
}

const SELECT = `
  select p.id, p.number, p.client_code, c.name as client_name, p.title, p.template_id, t.name as template_name, p.edition, p.volume, p.folder, p.state,
    p.started_at, who.name as started_by, k.ended_at as check_at, k.must, k.should, k.note, k.files, k.bytes
  from project p
  join template t on t.id = p.template_id
  join person who on who.id = p.started_by
  left join client c on c.code = p.client_code
  left join lateral (select * from check_run where project_id = p.id and state = 'done' order by started_at desc limit 1) k on true`;

export async function listProjects(client: Client): Promise<ProjectRow[]> {
  const result = await client.query<Row>(`${SELECT} order by p.number desc`);
  return result.rows.map(rowOf);
}

export async function readProject(client: Client, id: string): Promise<Omit<ProjectPage, 'root'> | null> {
  const result = await client.query<Row & { values: Values; body: Template; conventions: Record<string, Convention> | null }>(
    `select x.*, v."values", e.body,
       (select jsonb_object_agg(own.key, k.body) from jsonb_each(v.conventions) own join convention_edition k on k.convention_id = own.value ->> 'id' and k.edition = (own.value ->> 'edition')::int) as conventions
     from (${SELECT} where p.id = $1) x join project v on v.id = x.id
     join template_edition e on e.template_id = v.template_id and e.edition = v.edition`,
    [id],
  );
  const row = result.rows[0];
  return row === undefined ? null : { ...rowOf(row), values: row.values, body: withConventions(row.body, row.conventions ?? {}) };
}

/** What stands in the way of a start: a project of that number, a project of that folder. */
export async function projectsAt(client: Client, number: string, volume: string, folder: string): Promise<{ number: boolean; folder: boolean }> {
  const result = await client.query<{ number: boolean; folder: boolean }>(
    'select exists(select from project where number = $1) as number, exists(select from project where volume = $2 and lower(folder) = lower($3)) as folder',
    [number, volume, folder],
  );
  return result.rows[0] ?? { number: false, folder: false };
}

function rowOf(row: Row): ProjectRow {
  return {
    id: row.id,
    number: row.number,
    client: row.client_code,
    clientName: row.client_name,
    title: row.title,
    template: { id: row.template_id, name: row.template_name, edition: row.edition },
    volume: row.volume,
    folder: row.folder,
    state: row.state,
    startedAt: row.started_at.toISOString(),
    startedBy: row.started_by,
    check: row.check_at === null ? null : { at: row.check_at.toISOString(), counts: { must: row.must, should: row.should, note: row.note }, files: row.files, bytes: row.bytes },
  };
}

export interface PlacedProject {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly volume: string;
  readonly folder: string;
}

/** Where every project that has a folder should lie. */
export async function placedProjects(client: Client): Promise<PlacedProject[]> {
  return (await client.query<PlacedProject>("select id, number, title, volume, folder from project where state = 'running' order by number")).rows;
}

/** Moves a project's row; answers where it was. Fails by constraint where another project lies there. */
export async function placeProject(client: Client, id: string, volume: string, folder: string): Promise<{ volume: string; folder: string } | null> {
  const was = (await client.query<{ volume: string; folder: string }>('select volume, folder from project where id = $1 for update', [id])).rows[0];
  if (was !== undefined) await client.query('update project set volume = $2, folder = $3 where id = $1', [id, volume, folder]);
  return was ?? null;
}
