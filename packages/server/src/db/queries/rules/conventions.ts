import type { ConventionDraft, ConventionRow } from '@nesting/contract';
import type { Convention, Template } from '@nesting/core/template';
import { type Client, momentOf } from '../../client';

export async function listConventions(client: Client): Promise<ConventionRow[]> {
  const result = await client.query<{
    id: string;
    name: string;
    edition: number | null;
    convention: Convention | null;
    draft: ConventionDraft | null;
    used: ConventionRow['usedIn'];
    projects: number;
  }>(`
    select c.id, coalesce(d.body ->> 'name', e.body ->> 'name', c.name) as name, e.edition, e.body as convention,
      case when d.convention_id is null then null else json_build_object('convention', d.body, 'version', d.version, 'by', p.name, 'changedAt', ${momentOf('d.changed_at')}) end as draft,
      (select coalesce(json_agg(json_build_object('template', t.id, 'name', t.name, 'local', u.local_id) order by t.name), '[]')
       from template_convention u join template t on t.id = u.template_id where u.convention_id = c.id) as used,
      (select count(*)::int from project k where k.state = 'running' and exists (select from jsonb_each(k.conventions) own where own.value ->> 'id' = c.id)) as projects
    from convention c
    left join lateral (select edition, body from convention_edition where convention_id = c.id order by edition desc limit 1) e on true
    left join convention_draft d on d.convention_id = c.id
    left join person p on p.id = d.person_id
    order by 2, c.id`);
  return result.rows.map((row) => ({
    id: row.id,
    name: row.name,
    edition: row.edition,
    convention: row.convention,
    draft: row.draft,
    usedIn: row.used,
    projects: row.projects,
  }));
}

/** A convention with a draft and no edition yet. Fails by constraint where the id is taken. */
export async function insertConvention(client: Client, convention: Convention, person: string | null): Promise<void> {
  await client.query('insert into convention (id, name) values ($1, $2)', [convention.id, convention.name]);
  await client.query('insert into convention_draft (convention_id, body, person_id) values ($1, $2, $3)', [
    convention.id,
    JSON.stringify(convention),
    person,
  ]);
}

async function idsLike(client: Client, id: string): Promise<Set<string>> {
  const result = await client.query<{ id: string }>("select id from convention where id = $1 or id like $1 || '-%'", [
    id,
  ]);
  return new Set(result.rows.map((row) => row.id));
}

/** The new version, or `null` where the draft was changed by somebody else since `version`. */
export async function saveDraft(
  client: Client,
  convention: Convention,
  version: number,
  person: string,
): Promise<number | null> {
  const result = await client.query<{ version: number }>(
    `insert into convention_draft as d (convention_id, body, person_id) select $1, $2, $3 where $4 = 0 or exists (select from convention_draft where convention_id = $1)
     on conflict (convention_id) do update set body = excluded.body, person_id = excluded.person_id, version = d.version + 1, changed_at = clock_timestamp() where d.version = $4
     returning version`,
    [convention.id, JSON.stringify(convention), person, version],
  );
  return result.rows[0]?.version ?? null;
}

export async function readDraft(
  client: Client,
  id: string,
): Promise<{ convention: Convention; version: number } | null> {
  const result = await client.query<{ body: Convention; version: number }>(
    'select body, version from convention_draft where convention_id = $1',
    [id],
  );
  const row = result.rows[0];
  return row === undefined ? null : { convention: row.body, version: row.version };
}

/** Puts a draft aside; a convention that was never in force goes with it. */
export async function discardDraft(client: Client, id: string): Promise<void> {
  await client.query('delete from convention_draft where convention_id = $1', [id]);
  await client.query(
    `delete from convention c where id = $1 and not exists (select from convention_edition where convention_id = c.id)
     and not exists (select from template_convention where convention_id = c.id)`,
    [id],
  );
}

/** The draft becomes the next edition. `null` where it is not the one that was looked at. */
export async function putInForce(client: Client, id: string, version: number, person: string): Promise<number | null> {
  const result = await client.query<{ edition: number }>(
    `with gone as (delete from convention_draft where convention_id = $1 and version = $2 returning body)
     insert into convention_edition (convention_id, edition, body, put_by)
     select $1, coalesce((select max(edition) from convention_edition where convention_id = $1), 0) + 1, body, $3 from gone returning edition`,
    [id, version, person],
  );
  const edition = result.rows[0]?.edition ?? null;
  if (edition !== null)
    await client.query(
      `update convention c set name = e.body ->> 'name' from convention_edition e
         where c.id = $1 and e.convention_id = c.id and e.edition = $2`,
      [id, edition],
    );
  return edition;
}

/** The conventions a template uses, as they are in force, by their id in the template. */
export async function conventionsOf(
  client: Client,
  template: string,
): Promise<{ bodies: Record<string, Convention>; editions: Record<string, { id: string; edition: number }> }> {
  const result = await client.query<{ local_id: string; convention_id: string; edition: number; body: Convention }>(
    `select distinct on (u.local_id) u.local_id, u.convention_id, e.edition, e.body
     from template_convention u join convention_edition e on e.convention_id = u.convention_id where u.template_id = $1 order by u.local_id, e.edition desc`,
    [template],
  );
  return {
    bodies: Object.fromEntries(result.rows.map((row) => [row.local_id, row.body])),
    editions: Object.fromEntries(
      result.rows.map((row) => [row.local_id, { id: row.convention_id, edition: row.edition }]),
    ),
  };
}

interface Linked {
  readonly convention_id: string;
  readonly same: boolean;
  readonly others: boolean;
}

/**
 * Makes the conventions of a template edition the house's own. One that the house has word for word is shared; one that
 * differs is the next
 * edition where this template alone uses it, else a convention of its own with the template's name added.
 */
export async function adoptConventions(client: Client, template: Template): Promise<void> {
  for (const convention of template.conventions) {
    const known = await client.query<Linked>(
      `select c.id as convention_id, coalesce((select (body - 'id') = ($3::jsonb - 'id') from convention_edition where convention_id = c.id order by edition desc limit 1), false) as same,
         exists (select from template_convention o where o.convention_id = c.id and o.template_id <> $1) as others
       from convention c where c.id = coalesce(
         (select convention_id from template_convention where template_id = $1 and local_id = $2),
         (select o.id from convention o join lateral (select body from convention_edition where convention_id = o.id order by edition desc limit 1) e on true
          where (o.id = $2 or o.id like $2 || '-%') and (e.body - 'id') = ($3::jsonb - 'id') order by o.id = $2 desc, o.id limit 1),
         $2)`,
      [template.id, convention.id, JSON.stringify(convention)],
    );
    const [held] = known.rows;
    const id =
      held === undefined || held.same || !held.others
        ? (held?.convention_id ?? convention.id)
        : await freeId(client, `${convention.id}-${template.id}`);
    if (held === undefined || !held.same) await insertEditionOf(client, { ...convention, id });
    await client.query(
      `insert into template_convention (template_id, local_id, convention_id) values ($1, $2, $3)
         on conflict (template_id, local_id) do update set convention_id = excluded.convention_id`,
      [template.id, convention.id, id],
    );
  }
}

export async function freeId(client: Client, wanted: string): Promise<string> {
  // The screens have a page of that name among the conventions.
  const taken = (await idsLike(client, wanted)).add('learn');
  let id = wanted;
  for (let n = 2; taken.has(id); n++) id = `${wanted}-${n}`;
  return id;
}

export async function insertEditionOf(client: Client, convention: Convention): Promise<void> {
  await client.query(
    'insert into convention (id, name) values ($1, $2) on conflict (id) do update set name = excluded.name',
    [convention.id, convention.name],
  );
  await client.query(
    `insert into convention_edition (convention_id, edition, body) select $1, coalesce(max(edition), 0) + 1, $2
       from convention_edition where convention_id = $1`,
    [convention.id, JSON.stringify(convention)],
  );
}

/** Running projects that use a convention, each with its id there. */
export async function projectsUsing(client: Client, id: string): Promise<{ project: string; local: string }[]> {
  const result = await client.query<{ project: string; local: string }>(
    `select p.id as project, own.key as local from project p, jsonb_each(p.conventions) own
       where p.state = 'running' and own.value ->> 'id' = $1 order by p.number, own.key`,
    [id],
  );
  return result.rows;
}

/** Bodies of given editions, by their id in the template. */
export async function conventionEditions(
  client: Client,
  editions: Readonly<Record<string, { readonly id: string; readonly edition: number }>>,
): Promise<Record<string, Convention>> {
  const result = await client.query<{ key: string; body: Convention }>(
    `select own.key, k.body from jsonb_each($1::jsonb) own
       join convention_edition k on k.convention_id = own.value ->> 'id'
         and k.edition = (own.value ->> 'edition')::int`,
    [JSON.stringify(editions)],
  );
  return Object.fromEntries(result.rows.map((row) => [row.key, row.body]));
}
