import type { ProjectList, ProjectOrder, ProjectPage, ProjectQuery, ProjectRow, ProjectShape } from '@nesting/contract';
import type { Values } from '@nesting/core/name';
import {
  type Adjustments,
  type Convention,
  type OwnRules,
  type Template,
  withConventions,
  withOwnRules,
} from '@nesting/core/template';
import type { Client } from '../../client';

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
  readonly adjusted: Adjustments;
  readonly own: OwnRules;
  readonly settings: Readonly<Record<string, string>>;
}

/** Fails by constraint `project_number_once` or `project_folder_once` where either is taken. */
export async function insertProject(client: Client, p: NewProject): Promise<void> {
  await client.query(
    `insert into project (id, number, client_code, title, template_id, edition, "values", volume, folder, state, started_by, conventions, adjusted, own, settings)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, 'starting', $10, $11, $12, $13, $14)`,
    [
      p.id,
      p.number,
      p.client,
      p.title,
      p.template,
      p.edition,
      JSON.stringify(p.values),
      p.volume,
      p.folder,
      p.person,
      JSON.stringify(p.conventions),
      JSON.stringify(p.adjusted),
      JSON.stringify(p.own),
      JSON.stringify(p.settings),
    ],
  );
}

export async function isStarting(client: Client, id: string): Promise<boolean> {
  return (await client.query("select 1 from project where id = $1 and state = 'starting'", [id])).rowCount === 1;
}

/** Whether it was still starting: somebody else may have settled it. */
export async function finishStart(client: Client, id: string): Promise<boolean> {
  const { rowCount } = await client.query("update project set state = 'running' where id = $1 and state = 'starting'", [
    id,
  ]);
  return rowCount === 1;
}

/** Only for a start that came to nothing: its number is free again. */
export async function removeUnstarted(client: Client, id: string): Promise<string | null> {
  return (
    (
      await client.query<{ number: string }>(
        "delete from project where id = $1 and state = 'starting' returning number",
        [id],
      )
    ).rows[0]?.number ?? null
  );
}

/** Those that nobody is at. */
export async function listUnstarted(client: Client): Promise<{ id: string; volume: string; folder: string }[]> {
  const result = await client.query<{ id: string; volume: string; folder: string }>(
    `select id, volume, folder from project p
     where state = 'starting' and not exists (select 1 from lease l where l.work = p.id and l.until > clock_timestamp())`,
  );
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
  pinned: boolean;
  opened_at: Date | null;
}

/** `picked` are rows of `project`, in the order of `place`. */
const DETAILS = `
  select p.id, p.number, p.client_code, c.name as client_name, p.title, p.template_id, t.name as template_name, p.edition, p.volume, p.folder, p.state,
    p.started_at, who.name as started_by, k.ended_at as check_at, k.must, k.should, k.note, k.files, k.bytes, coalesce(m.pinned, false) as pinned, m.opened_at
  from project p
  join template t on t.id = p.template_id
  join person who on who.id = p.started_by
  left join client c on c.code = p.client_code
  left join check_run k on k.id = p.last_check
  left join project_mark m on m.project_id = p.id and m.person_id = $1`;

/** What each column of the list is put in order by. */
const ORDERS: Readonly<Record<ProjectOrder, string>> = {
  recent: 'coalesce(m.opened_at, p.started_at)',
  number: 'p.number',
  client: "lower(coalesce(c.name, ''))",
  title: 'lower(p.title)',
  template: 'lower(t.name)',
  state: 'p.state',
  check: 'k.ended_at',
  findings: 'k.must::bigint * 1000000000 + k.should * 1000 + k.note',
  size: 'k.bytes',
  volume: 'p.volume',
  by: 'lower(who.name)',
  started: 'p.started_at',
};

/** A page of projects and how many there are in each state: found by words, filtered, in order; pinned ones first. */
export async function listProjects(client: Client, person: string, q: ProjectQuery): Promise<ProjectList> {
  const words = q.find
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => w !== '')
    .slice(0, 10)
    .map((w) => `%${w.replace(/[\\%_]/g, '\\$&')}%`);
  const order = `coalesce(m.pinned, false) desc, ${ORDERS[q.by]} ${q.down ? 'desc nulls last' : 'asc nulls last'}, p.number desc`;
  // Named even where nothing is sought: every parameter must have a type.
  const found =
    words.length === 0
      ? 'where cardinality($4::text[]) = 0'
      : `where lower(concat_ws(' ', p.number, p.client_code, c.name, p.title, t.name, p.folder, who.name, p.team_note)) like all($4::text[])`;
  // Twenty thousand projects are put in order by what the order needs, and no more; only the page is told in full.
  const sought = words.length > 0;
  const joins = [
    ...(sought || q.by === 'template' ? ['join template t on t.id = p.template_id'] : []),
    ...(sought || q.by === 'by' ? ['join person who on who.id = p.started_by'] : []),
    ...(sought || q.by === 'client' ? ['left join client c on c.code = p.client_code'] : []),
    ...(['check', 'findings', 'size'].includes(q.by) ? ['left join check_run k on k.id = p.last_check'] : []),
    'left join project_mark m on m.project_id = p.id and m.person_id = $1',
  ];
  const result = await client.query<Row & { states: Record<string, number> | null }>(
    `with found as materialized (
       select p.id, p.state, row_number() over (order by ${order}) as place from project p
       ${joins.join(' ')} ${found}
     ), picked as (select id, place from found where ($5::text is null or state = $5) order by place limit $2 offset $3),
     counted as (select state, count(*)::int as n from found group by state)
     select x.*, (select jsonb_object_agg(state, n) from counted) as states from picked join (${DETAILS}) x using (id) order by place`,
    [person, q.limit, q.from, words, q.state],
  );
  const states = result.rows[0]?.states ?? {};
  return { rows: result.rows.map(rowOf), states, more: result.rows.length === q.limit };
}

/** A project as lists show it. */
export async function readProjectRow(client: Client, id: string): Promise<ProjectRow | null> {
  const project = await readProject(client, id);
  if (project === null) return null;
  const {
    values: _v,
    body: _b,
    teamNote: _t,
    version: _n,
    adjusted: _a,
    own: _o,
    settings: _s,
    firstDay: _f,
    ...row
  } = project;
  return row;
}

export async function readProject(
  client: Client,
  id: string,
  person: string | null = null,
): Promise<Omit<ProjectPage, 'root' | 'prefixes'> | null> {
  const result = await client.query<
    Row & {
      values: Values;
      body: Template;
      conventions: Record<string, Convention> | null;
      team_note: string;
      team_note_by: string | null;
      team_note_at: Date | null;
      version: number;
      adjusted: Adjustments;
      own: OwnRules;
      settings: Record<string, string>;
      first_day: ProjectPage['firstDay'];
    }
  >(
    `select x.*, v."values", v.team_note, noter.name as team_note_by, v.team_note_at, v.version, v.adjusted, v.own, v.settings, e.body,
       (select coalesce(json_agg(json_build_object('place', f.place, 'words', f.words, 'by', fp.name, 'at', f.done_at) order by f.place), '[]') from first_day f left join person fp on fp.id = f.done_by where f.project_id = v.id) as first_day,
       (select jsonb_object_agg(own.key, k.body) from jsonb_each(v.conventions) own join convention_edition k on k.convention_id = own.value ->> 'id' and k.edition = (own.value ->> 'edition')::int) as conventions
     from (${DETAILS} where p.id = $2) x join project v on v.id = x.id
     join template_edition e on e.template_id = v.template_id and e.edition = v.edition
     left join person noter on noter.id = v.team_note_by`,
    [person, id],
  );
  const row = result.rows[0];
  if (row === undefined) return null;
  const { values, version, adjusted, own, settings } = row;
  return {
    ...rowOf(row),
    values,
    teamNote: {
      text: row.team_note,
      by: row.team_note_by,
      at: row.team_note_at?.toISOString() ?? null,
    },
    version,
    adjusted,
    own,
    settings,
    firstDay: row.first_day,
    body: adjustedBody(withOwnRules(withConventions(row.body, row.conventions ?? {}), own), adjusted),
  };
}

const adjustedBody = (body: Template, adjusted: Adjustments): Template =>
  Object.keys(adjusted).length === 0 ? body : { ...body, adjusted };

/** The editions of conventions a project goes by, and what it is by its rules. */
export async function readShape(client: Client, id: string): Promise<ProjectShape | null> {
  const row = (
    await client.query<{
      template_id: string;
      edition: number;
      conventions: ProjectShape['conventions'];
      values: Values;
      adjusted: Adjustments;
      folder: string;
    }>('select template_id, edition, conventions, "values", adjusted, folder from project where id = $1', [id])
  ).rows[0];
  return row === undefined
    ? null
    : {
        template: row.template_id,
        edition: row.edition,
        conventions: row.conventions,
        values: row.values,
        adjusted: row.adjusted,
        folder: row.folder,
      };
}

/** Turns a project into another shape. Fails by constraint where its number or its folder is another project's. */
export async function writeShape(client: Client, id: string, s: ProjectShape): Promise<void> {
  const { values } = s;
  await client.query(
    `update project set template_id = $2, edition = $3, conventions = $4, "values" = $5, adjusted = $6, folder = $7,
         number = $8, client_code = $9, title = $10, version = version + 1
       where id = $1`,
    [
      id,
      s.template,
      s.edition,
      JSON.stringify(s.conventions),
      JSON.stringify(values),
      JSON.stringify(s.adjusted),
      s.folder,
      String(values.number),
      typeof values.client === 'string' ? values.client : null,
      typeof values.title === 'string' ? values.title : '',
    ],
  );
}

/** What stands in the way of a start: a project of that number, a project of that folder. */
export async function projectsAt(
  client: Client,
  number: string,
  volume: string,
  folder: string,
): Promise<{ number: boolean; folder: boolean }> {
  const result = await client.query<{ number: boolean; folder: boolean }>(
    `select exists(select from project where number = $1) as number,
         exists(select from project where volume = $2 and lower(folder) = lower($3)) as folder`,
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
    pinned: row.pinned,
    openedAt: row.opened_at?.toISOString() ?? null,
    check:
      row.check_at === null
        ? null
        : {
            at: row.check_at.toISOString(),
            counts: { must: row.must, should: row.should, note: row.note },
            files: row.files,
            bytes: row.bytes,
          },
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
  return (
    await client.query<PlacedProject>(
      `select id, number, title, volume, folder from project where state not in ('starting', 'failed', 'packed')
         order by number`,
    )
  ).rows;
}

/** Moves a project's row; answers where it was. Fails by constraint where another project lies there. */
export async function placeProject(
  client: Client,
  id: string,
  volume: string,
  folder: string,
): Promise<{ volume: string; folder: string } | null> {
  const was = (
    await client.query<{ volume: string; folder: string }>(
      'select volume, folder from project where id = $1 for update',
      [id],
    )
  ).rows[0];
  if (was !== undefined)
    await client.query('update project set volume = $2, folder = $3 where id = $1', [id, volume, folder]);
  return was ?? null;
}

/** Projects that lie in these folders. */
export async function projectsIn(
  client: Client,
  places: readonly Pick<PlacedProject, 'volume' | 'folder'>[],
): Promise<PlacedProject[]> {
  if (places.length === 0) return [];
  const { rows } = await client.query<PlacedProject>(
    `select id, number, title, volume, folder from project
       where (volume, folder) in (select * from unnest($1::text[], $2::text[]))`,
    [places.map((p) => p.volume), places.map((p) => p.folder)],
  );
  return rows;
}

const MOST_OF_A_CLIENT = 8;

interface ToName {
  readonly not: string;
  readonly numbers: readonly string[];
  /** Codes. */
  readonly clients: readonly string[];
}

/** Running projects of these numbers, and the newest ones of these clients. */
export async function projectsNamed(client: Client, { not, numbers, clients }: ToName): Promise<PlacedProject[]> {
  const { rows } = await client.query<PlacedProject>(
    `select id, number, title, volume, folder from project where state = 'running' and id <> $1 and number = any($2)
       union
     select id, number, title, volume, folder from (
       select *, row_number() over (partition by client_code order by started_at desc) as rank
         from project where state = 'running' and id <> $1 and client_code = any($3)) newest
       where rank <= $4
     order by id`,
    [not, numbers, clients, MOST_OF_A_CLIENT],
  );
  return rows;
}

/** A project by its id or its number. */
export async function findProject(client: Client, given: string): Promise<string | null> {
  return (
    (
      await client.query<{ id: string }>(
        'select id from project where id::text = $1 or number = $1 order by id::text = $1 desc limit 1',
        [given],
      )
    ).rows[0]?.id ?? null
  );
}
