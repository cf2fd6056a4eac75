import type { FindingRow, HandedIn, StoredFinding } from '@nesting/contract';
import type { Client } from '../../client';
import { withWords } from './findings';

/** Handed-in checks kept of one project: older ones have been worked off, or never will be. */
const KEPT = 20;

export async function insertHandedIn(
  client: Client,
  given: {
    readonly id: string;
    readonly project: string;
    readonly person: string;
    readonly source: string;
    readonly files: number;
    readonly folders: number;
    readonly findings: readonly StoredFinding[];
  },
): Promise<void> {
  await client.query(
    `insert into handed_in (id, project_id, person_id, source, files, folders, findings)
       values ($1, $2, $3, $4, $5, $6, $7)`,
    [given.id, given.project, given.person, given.source, given.files, given.folders, JSON.stringify(given.findings)],
  );
  await client.query(
    'delete from handed_in where id in (select id from handed_in where project_id = $1 order by at desc offset $2)',
    [given.project, KEPT],
  );
}

export async function listHandedIn(client: Client, project: string): Promise<HandedIn[]> {
  const result = await client.query<{
    id: string;
    by: string | null;
    at: Date;
    source: string;
    files: number;
    folders: number;
    must: number;
    should: number;
    note: number;
  }>(
    `select h.id, p.initials "by", h.at, h.source, h.files, h.folders, c.must, c.should, c.note from handed_in h left join person p on p.id = h.person_id,
       lateral (select count(*) filter (where f->>'weight' = 'must')::int must, count(*) filter (where f->>'weight' = 'should')::int should, count(*) filter (where f->>'weight' = 'note')::int note from jsonb_array_elements(h.findings) f) c
     where h.project_id = $1 order by h.at desc`,
    [project],
  );
  return result.rows.map(({ id, by, at, source, files, folders, must, should, note }) => ({
    id,
    by: by ?? '',
    at: at.toISOString(),
    source,
    files,
    folders,
    counts: { must, should, note },
  }));
}

export async function readHandedIn(client: Client, id: string): Promise<FindingRow[] | null> {
  const { rows } = await client.query<{ findings: StoredFinding[] }>('select findings from handed_in where id = $1', [
    id,
  ]);
  return rows[0]?.findings.map(withWords) ?? null;
}
