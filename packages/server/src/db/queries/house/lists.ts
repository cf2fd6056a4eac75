/** The house's lists row by row. What each list is in the database stands in one table here. */
import type { ListEntryRow } from '@nesting/contract';
import { type Cells, type ListName, severalOf } from '@nesting/core/lists';
import type { Client } from '../../client';

export type EditableList = Exclude<ListName, 'people'>;

interface ListSql {
  readonly table: string;
  readonly key: string;
  /** Columns by cell; what is several words is an array there. */
  readonly columns: Readonly<Record<string, { readonly column: string; readonly as?: 'array' | 'flag' }>>;
  /** Counts what uses an entry `t`. */
  readonly used: string;
  readonly join?: string;
}

const LISTS: Readonly<Record<EditableList, ListSql>> = {
  clients: {
    table: 'client',
    key: 'code',
    used: 'coalesce(u.n, 0)',
    join: 'left join (select client_code, count(*)::int as n from project group by 1) u on u.client_code = t.code',
    columns: {
      code: { column: 'code' },
      name: { column: 'name' },
      colour: { column: 'colour' },
      notes: { column: 'notes' },
      retired: { column: 'retired', as: 'flag' },
    },
  },
  families: {
    table: 'family',
    key: 'name',
    used: '0',
    columns: {
      name: { column: 'name' },
      extensions: { column: 'extensions', as: 'array' },
      companions: { column: 'companions', as: 'array' },
      document: { column: 'document' },
    },
  },
  abbreviations: {
    table: 'abbreviation',
    key: 'long',
    used: '0',
    columns: { long: { column: 'long' }, short: { column: 'short' } },
  },
  banned: { table: 'banned_word', key: 'word', used: '0', columns: { word: { column: 'word' } } },
  libraries: {
    table: 'library',
    key: 'path',
    used: '0',
    columns: { path: { column: 'path' }, name: { column: 'name' } },
  },
};

/** `from` is the list's table, or the beginning of it. */
const select = (list: EditableList, where = '', from: string = LISTS[list].table): string => {
  const { key, columns, used, join = '' } = LISTS[list];
  const cells = Object.entries(columns).map(
    ([cell, { column, as }]) =>
      `'${cell}', ${as === 'array' ? `array_to_string(t.${column}, ' ')` : as === 'flag' ? `case when t.${column} then 'yes' else '' end` : `t.${column}`}`,
  );
  return `select t.${key} as key, t.version, json_build_object(${cells.join(', ')}) as cells, ${used} as used
     from ${from} t ${join} ${where} order by lower(t.${key})`;
};

export async function readList(client: Client, list: EditableList): Promise<ListEntryRow[]> {
  return (await client.query<ListEntryRow>(select(list))).rows;
}

/**
 * The whole list as the JSON that is sent: ten thousand entries are not made into objects and back on the way. `head`
 * gives its beginning alone.
 */
export async function readListText(client: Client, list: EditableList, head: number | null): Promise<string> {
  const { table, key } = LISTS[list];
  const from = head === null ? table : `(select * from ${table} order by lower(${key}) limit ${Math.floor(head)})`;
  return (
    (
      await client.query<{ all: string }>(
        `select coalesce(json_agg(x), '[]')::text as all from (${select(list, '', from)}) x`,
      )
    ).rows[0]?.all ?? '[]'
  );
}

export async function readEntry(client: Client, list: EditableList, key: string): Promise<ListEntryRow | null> {
  return (
    (await client.query<ListEntryRow>(select(list, `where lower(t.${LISTS[list].key}) = lower($1)`), [key])).rows[0] ??
    null
  );
}

const valuesOf = (list: EditableList, cells: Cells): unknown[] =>
  Object.entries(LISTS[list].columns).map(([cell, { as }]) =>
    as === 'array' ? severalOf(cells[cell] ?? '') : as === 'flag' ? cells[cell] === 'yes' : (cells[cell] ?? ''),
  );

/** Fails by constraint where the key is there already. */
export async function insertEntry(client: Client, list: EditableList, cells: Cells): Promise<void> {
  const { table, columns } = LISTS[list];
  const names = Object.values(columns).map((c) => c.column);
  await client.query(
    `insert into ${table} (${names.join(', ')}) values (${names.map((_, i) => `$${i + 1}`).join(', ')})`,
    valuesOf(list, cells),
  );
}

/**
 * `false` where somebody changed it since `version`. Fails by constraint where a new key is taken, or the old one used.
 */
export async function updateEntry(
  client: Client,
  list: EditableList,
  key: string,
  cells: Cells,
  version: number,
): Promise<boolean> {
  const { table, columns, key: keyColumn } = LISTS[list];
  const sets = Object.values(columns).map((c, i) => `${c.column} = $${i + 3}`);
  const result = await client.query(
    `update ${table} set ${sets.join(', ')}, version = version + 1 where ${keyColumn} = $1 and version = $2`,
    [key, version, ...valuesOf(list, cells)],
  );
  return (result.rowCount ?? 0) > 0;
}

/** Fails by constraint where it is used. */
export async function deleteEntry(client: Client, list: EditableList, key: string): Promise<boolean> {
  const { table, key: keyColumn } = LISTS[list];
  return ((await client.query(`delete from ${table} where ${keyColumn} = $1`, [key])).rowCount ?? 0) > 0;
}

/** Many at once, in one round trip; entries that are there take the new cells. */
export async function upsertEntries(client: Client, list: EditableList, entries: readonly Cells[]): Promise<void> {
  const { table, columns, key } = LISTS[list];
  const all = Object.entries(columns);
  const typed = all.map(
    ([, { column, as }]) => `${column} ${as === 'array' ? 'text[]' : as === 'flag' ? 'boolean' : 'text'}`,
  );
  const rows = entries.map((cells) =>
    Object.fromEntries(valuesOf(list, cells).map((value, i) => [all[i]?.[1].column, value])),
  );
  const names = all.map(([, { column }]) => column);
  await client.query(
    `insert into ${table} (${names.join(', ')}) select ${names.join(', ')} from jsonb_to_recordset($1) as given(${typed.join(', ')})
     on conflict (${key}) do update set ${names
       .filter((n) => n !== key)
       .map((n) => `${n} = excluded.${n}`)
       .concat(`version = ${table}.version + 1`)
       .join(', ')}`,
    [JSON.stringify(rows)],
  );
}

/** Projects of one client are listed with another from now on; what names on disks say stays. */
export async function moveClientProjects(client: Client, from: string, into: string): Promise<number> {
  const moved = await client.query('update project set client_code = $2 where client_code = $1', [from, into]);
  await client.query('update client set retired = true, merged_into = $2, version = version + 1 where code = $1', [
    from,
    into,
  ]);
  return moved.rowCount ?? 0;
}

/** Templates in force or in draft that name a family of files. */
export async function templatesWithFamily(client: Client, family: string): Promise<string[]> {
  const result = await client.query<{ name: string }>(
    `select distinct t.name from template t join lateral (
       select body from template_edition where template_id = t.id and edition = (select max(edition) from template_edition where template_id = t.id) union all select body from template_draft where template_id = t.id
     ) b on true where jsonb_path_exists(b.body, 'strict $.**.accepts[*] ? (@ == $name)', jsonb_build_object('name', $1::text), true) order by 1`,
    [family],
  );
  return result.rows.map((row) => row.name);
}
