import type { EditionRow, StarterRow } from '@nesting/contract';
import type { Template } from '@nesting/core/template';
import type { Client } from '../../client';

export async function insertTemplateDraft(client: Client, template: Template, person: string): Promise<void> {
  await client.query('insert into template (id, name) values ($1, $2)', [template.id, template.name]);
  await client.query('insert into template_draft (template_id, body, person_id) values ($1, $2, $3)', [
    template.id,
    JSON.stringify(template),
    person,
  ]);
}

export async function templateIdsLike(client: Client, id: string): Promise<Set<string>> {
  const result = await client.query<{ id: string }>("select id from template where id = $1 or id like $1 || '-%'", [
    id,
  ]);
  return new Set(result.rows.map((row) => row.id));
}

/**
 * The new version, or `null` where the draft was changed by somebody else since `version`. Fails by foreign key where
 * there is no template.
 */
export async function saveTemplateDraft(
  client: Client,
  template: Template,
  version: number,
  person: string,
): Promise<number | null> {
  const result = await client.query<{ version: number }>(
    `insert into template_draft as d (template_id, body, person_id) select $1, $2, $3 where $4 = 0 or exists (select from template_draft where template_id = $1)
     on conflict (template_id) do update set body = excluded.body, person_id = excluded.person_id, version = d.version + 1, changed_at = clock_timestamp() where d.version = $4
     returning version`,
    [template.id, JSON.stringify(template), person, version],
  );
  return result.rows[0]?.version ?? null;
}

export async function readTemplateDraft(
  client: Client,
  id: string,
): Promise<{ template: Template; version: number } | null> {
  const result = await client.query<{ body: Template; version: number }>(
    'select body, version from template_draft where template_id = $1',
    [id],
  );
  const row = result.rows[0];
  return row === undefined ? null : { template: row.body, version: row.version };
}

/** Puts a draft aside with its new files; a template that was never in force goes with it. */
export async function discardTemplateDraft(client: Client, id: string): Promise<void> {
  await client.query('delete from draft_starter where template_id = $1', [id]);
  await client.query('delete from template_draft where template_id = $1', [id]);
  await client.query(
    'delete from template t where id = $1 and not exists (select from template_edition where template_id = t.id)',
    [id],
  );
}

/**
 * The draft becomes the next edition; `null` where it is not the one that was looked at. Its files are put beside it by
 * `copyStarters`.
 */
export async function putTemplateInForce(
  client: Client,
  id: string,
  version: number,
  said: string,
  person: string,
): Promise<{ edition: number; template: Template } | null> {
  const result = await client.query<{ edition: number; body: Template }>(
    `with gone as (delete from template_draft where template_id = $1 and version = $2 returning body), next as (
       select coalesce(max(edition), 0) + 1 as edition from template_edition where template_id = $1
     )
     insert into template_edition (template_id, edition, body, said, put_by)
     select $1, next.edition, body || jsonb_build_object('edition', next.edition), $3, $4 from gone, next returning edition, body`,
    [id, version, said, person],
  );
  const row = result.rows[0];
  if (row === undefined) return null;
  await client.query('update template set name = $2 where id = $1', [id, row.body.name]);
  return { edition: row.edition, template: row.body };
}

/** Files of an edition: the draft's own, else those of the edition before. */
export async function copyStarters(
  client: Client,
  id: string,
  edition: number,
  paths: readonly string[],
): Promise<string[]> {
  const result = await client.query<{ path: string }>(
    `insert into starter_file (template_id, edition, path, bytes)
     select $1, $2, wanted.path, coalesce(d.bytes, s.bytes) from unnest($3::text[]) wanted(path)
     left join draft_starter d on d.template_id = $1 and d.path = wanted.path
     left join starter_file s on s.template_id = $1 and s.edition = $2 - 1 and s.path = wanted.path
     where coalesce(d.bytes, s.bytes) is not null returning path`,
    [id, edition, paths],
  );
  await client.query('delete from draft_starter where template_id = $1', [id]);
  return result.rows.map((row) => row.path);
}

export async function putDraftStarter(client: Client, id: string, path: string, bytes: Uint8Array): Promise<void> {
  await client.query(
    `insert into draft_starter (template_id, path, bytes) values ($1, $2, $3)
       on conflict (template_id, path) do update set bytes = excluded.bytes`,
    [id, path, bytes],
  );
}

/** One file as the draft would have it. */
export async function readDraftStarter(client: Client, id: string, path: string): Promise<Uint8Array | null> {
  const result = await client.query<{ bytes: Buffer }>(
    `select bytes from draft_starter where template_id = $1 and path = $2
     union all (select bytes from starter_file where template_id = $1 and path = $2 order by edition desc limit 1) limit 1`,
    [id, path],
  );
  return result.rows[0]?.bytes ?? null;
}

/** Every file the draft could name, with its bytes; those given to the draft itself can be dropped. */
export async function listDraftStarters(client: Client, id: string): Promise<StarterRow[]> {
  const result = await client.query<{ path: string; bytes: number; inDraft: boolean }>(
    `select distinct on (path) path, bytes, "inDraft" from (
       select path, octet_length(bytes) as bytes, true as "inDraft", 1000000 as edition from draft_starter where template_id = $1
       union all select path, octet_length(bytes), false, edition from starter_file where template_id = $1
     ) each order by path, edition desc`,
    [id],
  );
  return result.rows;
}

export async function dropDraftStarter(client: Client, id: string, path: string): Promise<void> {
  await client.query('delete from draft_starter where template_id = $1 and path = $2', [id, path]);
}

export async function listEditions(client: Client, id: string): Promise<EditionRow[]> {
  const result = await client.query<{ edition: number; said: string; at: Date; by: string | null; body: Template }>(
    `select e.edition, e.said, e.in_force_at as at, p.name as by, e.body from template_edition e left
       join person p on p.id = e.put_by where e.template_id = $1 order by e.edition desc`,
    [id],
  );
  return result.rows.map((row) => ({
    edition: row.edition,
    said: row.said,
    at: row.at.toISOString(),
    by: row.by,
    template: row.body,
  }));
}

export async function setArchived(client: Client, id: string, archived: boolean): Promise<boolean> {
  const result = await client.query('update template set archived = $2 where id = $1', [id, archived]);
  return (result.rowCount ?? 0) > 0;
}

/** Running projects on any edition of a template before this one. */
export async function projectsOnEarlier(client: Client, id: string): Promise<string[]> {
  const result = await client.query<{ id: string }>(
    "select id from project where template_id = $1 and state = 'running' order by number",
    [id],
  );
  return result.rows.map((row) => row.id);
}
