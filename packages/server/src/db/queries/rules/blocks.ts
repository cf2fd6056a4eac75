import type { BlockBody, BlockDraft, BlockEditionRow, BlockRow } from '@nesting/contract';
import { present } from '@nesting/core';
import type { Template } from '@nesting/core/template';
import { type Client, momentOf } from '../../client';

export async function listBlocks(client: Client): Promise<BlockRow[]> {
  const result = await client.query<{
    id: string;
    name: string;
    edition: number;
    body: BlockBody;
    draft: BlockDraft | null;
    used: BlockRow['usedIn'];
  }>(`
    with newest as (
      select distinct on (template_id) template_id, body from (
        select template_id, body, 1000000 as edition from template_draft union all select template_id, body, edition from template_edition
      ) each order by template_id, edition desc
    ), used as (
      select b -> 'shared' ->> 'block' as block_id, n.template_id, min((b -> 'shared' ->> 'edition')::int) as edition
      from newest n, jsonb_array_elements(coalesce(n.body -> 'blocks', '[]')) b where b -> 'shared' is not null group by 1, 2
    )
    select k.id, coalesce(d.body ->> 'name', e.body ->> 'name') as name, e.edition, e.body,
      case when d.block_id is null then null else json_build_object('body', d.body, 'version', d.version, 'by', p.name, 'changedAt', ${momentOf('d.changed_at')}) end as draft,
      (select coalesce(json_agg(json_build_object('template', t.id, 'name', t.name, 'edition', u.edition) order by t.name), '[]')
       from used u join template t on t.id = u.template_id where u.block_id = k.id) as used
    from block k
    join lateral (select edition, body from block_edition where block_id = k.id order by edition desc limit 1) e on true
    left join block_draft d on d.block_id = k.id
    left join person p on p.id = d.person_id
    order by 2, k.id`);
  return result.rows.map(({ body, used, ...row }) => ({ ...row, folders: body.folders, usedIn: used }));
}

export async function blockEditions(client: Client, id: string): Promise<BlockEditionRow[]> {
  const result = await client.query<{ edition: number; said: string; at: Date; by: string | null; body: BlockBody }>(
    `select e.edition, e.said, e.in_force_at as at, p.name as by, e.body from block_edition e left
       join person p on p.id = e.put_by where e.block_id = $1 order by e.edition desc`,
    [id],
  );
  return result.rows.map(({ body, at, ...row }) => ({ ...row, ...body, at: at.toISOString() }));
}

export async function blockIdsLike(client: Client, id: string): Promise<Set<string>> {
  const result = await client.query<{ id: string }>("select id from block where id = $1 or id like $1 || '-%'", [id]);
  return new Set(result.rows.map((row) => row.id));
}

/** Fails by constraint where this edition exists. */
export async function insertBlockEdition(
  client: Client,
  id: string,
  edition: number,
  body: BlockBody,
  said: string,
  person: string | null,
): Promise<void> {
  await client.query(
    'insert into block (id, name) values ($1, $2) on conflict (id) do update set name = excluded.name',
    [id, body.name],
  );
  await client.query('insert into block_edition (block_id, edition, body, said, put_by) values ($1, $2, $3, $4, $5)', [
    id,
    edition,
    JSON.stringify(body),
    said,
    person,
  ]);
}

/** The new version, or `null` where the draft was changed by somebody else since `version`. */
export async function saveBlockDraft(
  client: Client,
  id: string,
  body: BlockBody,
  version: number,
  person: string,
): Promise<number | null> {
  const result = await client.query<{ version: number }>(
    `insert into block_draft as d (block_id, body, person_id) select $1, $2, $3 where $4 = 0 or exists (select from block_draft where block_id = $1)
     on conflict (block_id) do update set body = excluded.body, person_id = excluded.person_id, version = d.version + 1, changed_at = clock_timestamp() where d.version = $4
     returning version`,
    [id, JSON.stringify(body), person, version],
  );
  return result.rows[0]?.version ?? null;
}

export async function discardBlockDraft(client: Client, id: string): Promise<void> {
  await client.query('delete from block_draft where block_id = $1', [id]);
}

/** The draft becomes the next edition; `null` where it is not the one that was looked at. */
export async function draftInForce(
  client: Client,
  id: string,
  version: number,
  said: string,
  person: string,
): Promise<{ edition: number; body: BlockBody } | null> {
  const result = await client.query<{ edition: number; body: BlockBody }>(
    `with gone as (delete from block_draft where block_id = $1 and version = $2 returning body)
     insert into block_edition (block_id, edition, body, said, put_by)
     select $1, coalesce((select max(edition) from block_edition where block_id = $1), 0) + 1, body, $3, $4 from gone returning edition, body`,
    [id, version, said, person],
  );
  const row = result.rows[0];
  if (row !== undefined) await client.query('update block set name = $2 where id = $1', [id, row.body.name]);
  return row ?? null;
}

/** `false` where the block has another file under this path: editions in force name it. */
export async function putBlockStarter(client: Client, id: string, path: string, bytes: Uint8Array): Promise<boolean> {
  const result = await client.query(
    `with put as (insert into block_starter (block_id, path, bytes) values ($1, $2, $3) on conflict (block_id, path) do nothing returning 1)
     select from put union all select from block_starter where block_id = $1 and path = $2 and bytes = $3`,
    [id, path, bytes],
  );
  return (result.rowCount ?? 0) > 0;
}

/** The block's files among these paths, put into a template's draft. */
export async function lendStartersToDraft(
  client: Client,
  block: string,
  template: string,
  paths: readonly string[],
): Promise<void> {
  await client.query(
    `insert into draft_starter (template_id, path, bytes) select $2, path, bytes from block_starter
       where block_id = $1 and path = any($3) on conflict (template_id, path) do update set bytes = excluded.bytes`,
    [block, template, paths],
  );
}

/**
 * A template's newest edition as the next one with another body: its files stay, the block's files among `paths` come
 * along.
 */
export async function nextEditionWith(
  client: Client,
  template: Template,
  block: string,
  paths: readonly string[],
  said: string,
  person: string,
): Promise<number> {
  const result = await client.query<{ edition: number }>(
    `insert into template_edition (template_id, edition, body, said, put_by)
     select $1, max(edition) + 1, $2::jsonb || jsonb_build_object('edition', max(edition) + 1), $3, $4 from template_edition where template_id = $1 returning edition`,
    [template.id, JSON.stringify(template), said, person],
  );
  const edition = present(result.rows[0]?.edition);
  await client.query(
    `insert into starter_file (template_id, edition, path, bytes)
     select $1::text, $2::int, path, bytes from block_starter where block_id = $3 and path = any($4)
     union all
     select $1::text, $2::int, path, bytes from starter_file where template_id = $1 and edition = $2 - 1 and not (path = any($4) and exists (select from block_starter b where b.block_id = $3 and b.path = starter_file.path))`,
    [template.id, edition, block, paths],
  );
  return edition;
}

export async function blockStarters(client: Client, id: string): Promise<Map<string, Uint8Array>> {
  const result = await client.query<{ path: string; bytes: Buffer }>(
    'select path, bytes from block_starter where block_id = $1 order by path',
    [id],
  );
  return new Map(result.rows.map((row) => [row.path, row.bytes]));
}
