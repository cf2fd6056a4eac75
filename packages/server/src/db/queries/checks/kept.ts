/** What the last check saw, kept for whoever plans, compares or packs: listings by folder, and references both ways. */
import type { References } from '@nesting/contract';
import type { KeptListing } from '@nesting/disk';
import type { Client } from '../../client';
import { copyRows } from '../../copy';

/** Folders written by one statement. */
const AT_ONCE = 2000;

/**
 * Listings of the folders that were listed; those whose listing is the same are not written again. Folders that are no
 * longer counted go.
 */
export async function storeListings(client: Client, project: string, listings: readonly KeptListing[]): Promise<void> {
  for (let from = 0; from < listings.length; from += AT_ONCE) {
    const some = listings.slice(from, from + AT_ONCE);
    await client.query(
      `insert into kept_listing (project_id, path, body) select $1, t.path, t.body
         from unnest($2::text[], $3::bytea[]) t (path, body)
         on conflict (project_id, md5(path)) do update set body = excluded.body
         where kept_listing.body is distinct from excluded.body`,
      [project, some.map((l) => l.path), some.map((l) => Buffer.from(l.body))],
    );
  }
  await client.query(
    `delete from kept_listing k where k.project_id = $1
       and not exists (select from folder_count c where c.project_id = k.project_id and c.path = k.path)`,
    [project],
  );
}

export async function readListings(client: Client, project: string): Promise<KeptListing[]> {
  const { rows } = await client.query<{ path: string; body: Buffer }>(
    'select path, body from kept_listing where project_id = $1 order by path',
    [project],
  );
  return rows;
}

export interface Reference {
  readonly document: string;
  /** As it stands in the document. */
  readonly written: string;
  /** From the project's root; `null` where it leads out of the project. */
  readonly target: string | null;
}

export interface ChangedReferences {
  /** Documents whose references as they were go first; `null` for all. */
  readonly gone: readonly string[] | null;
  /** Of documents that are new, or refer to others than before. */
  readonly references: readonly Reference[];
}

export async function storeReferences(
  client: Client,
  project: string,
  { gone, references }: ChangedReferences,
): Promise<void> {
  if (gone === null) await client.query('delete from document_reference where project_id = $1', [project]);
  else if (gone.length > 0)
    await client.query(
      `delete from document_reference d using unnest($2::text[]) g (document)
         where d.project_id = $1 and left(d.document, 500) = left(g.document, 500) and d.document = g.document`,
      [project, gone],
    );
  await copyRows(
    client,
    'document_reference (project_id, document, written, target)',
    references.map((r) => [project, r.document, r.written, r.target]),
  );
}

/** What each document refers to, as it is written. */
export async function readReferences(
  client: Client,
  project: string,
): Promise<{ readonly path: string; readonly targets: readonly string[] }[]> {
  const { rows } = await client.query<{ path: string; targets: string[] }>(
    `select document path, array_agg(written order by written) targets from document_reference
       where project_id = $1 group by document order by document`,
    [project],
  );
  return rows;
}

/** References of one file, or of everything in a folder, that are told. */
const MOST_TOLD = 200;

/** The path itself, or something below it: by as much of it as the index holds, and then whole. */
const isAt = (column: 'target' | 'document'): string =>
  `((left(${column}, 500) = left($2, 500) and ${column} = $2)
     or (left(${column}, 500) >= left($3, 500) and left(${column}, 500) <= left($4, 500) and ${column} >= $3 and ${column} < $4))`;

/** What refers to a file, or to something in a folder, and what it refers to itself. */
export async function referencesOf(client: Client, project: string, path: string): Promise<References> {
  // What is in a folder stands right behind it with a slash; the sign after a slash is a nought.
  const below = [`${path}/`, `${path}0`];
  const by = await client.query<References['by'][number]>(
    `select distinct document, target from document_reference
       where project_id = $1 and ${isAt('target')} order by 1, 2 limit ${MOST_TOLD}`,
    [project, path, ...below],
  );
  const to = await client.query<References['to'][number]>(
    `select document, written, target from document_reference
       where project_id = $1 and ${isAt('document')} order by 1, 2 limit ${MOST_TOLD}`,
    [project, path, ...below],
  );
  return { by: by.rows, to: to.rows };
}
