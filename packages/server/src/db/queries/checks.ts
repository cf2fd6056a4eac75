import type { CheckRow, ChecksOfProject, FindingRow, FolderCount } from '@nesting/contract';
import type { CheckOutcome } from '@nesting/core';
import type { Client } from '../client';

interface Row {
  id: string;
  state: CheckRow['state'];
  files: number;
  folders: number;
  bytes: number;
  must: number;
  should: number;
  note: number;
  said: string[];
  started_at: Date;
  ended_at: Date | null;
}

const COLUMNS = 'id, state, files, folders, bytes, must, should, note, said, started_at, ended_at';

export async function insertCheck(client: Client, id: string, project: string, person: string | null): Promise<void> {
  await client.query("insert into check_run (id, project_id, state, asked_by) values ($1, $2, 'queued', $3)", [id, project, person]);
}

/** A check of this project that is waiting or running: asking again gives that one. */
export async function openCheck(client: Client, project: string): Promise<string | null> {
  const result = await client.query<{ id: string }>("select id from check_run where project_id = $1 and state in ('queued', 'running') order by started_at limit 1", [project]);
  return result.rows[0]?.id ?? null;
}

export async function setCheckProgress(client: Client, id: string, files: number, folders: number): Promise<void> {
  await client.query("update check_run set state = 'running', files = $2, folders = $3 where id = $1 and state in ('queued', 'running')", [id, files, folders]);
}

export async function failCheck(client: Client, id: string, said: string): Promise<void> {
  await client.query("update check_run set state = 'failed', said = array[$2], ended_at = clock_timestamp() where id = $1", [id, said]);
}

/** Checks that were running when the server stopped. */
export async function failOpenChecks(client: Client, said: string): Promise<void> {
  await client.query("update check_run set state = 'failed', said = array[$1], ended_at = clock_timestamp() where state in ('queued', 'running')", [said]);
}

/** Stores what a check found, in three round trips however much it is. */
export async function storeOutcome(client: Client, id: string, outcome: CheckOutcome, findings: readonly FindingRow[], said: readonly string[]): Promise<void> {
  const { summary: s } = outcome;
  await client.query(
    `insert into finding (check_id, place, id, rule, weight, path, body)
     select $1, * from unnest($2::int[], $3::text[], $4::text[], $5::text[], $6::text[], $7::jsonb[])`,
    [id, findings.map((_, i) => i), findings.map((f) => f.id), findings.map((f) => f.rule), findings.map((f) => f.weight), findings.map((f) => f.path), findings.map((f) => JSON.stringify(f))],
  );
  const rows = outcome.rows;
  await client.query(
    'insert into folder_count (check_id, path, files, bytes, state) select $1, * from unnest($2::text[], $3::int[], $4::bigint[], $5::text[])',
    [id, rows.map((r) => r.path), rows.map((r) => r.files), rows.map((r) => r.bytes), rows.map((r) => r.state)],
  );
  await client.query(
    `with done as (update project set last_check = $1 where id = (select project_id from check_run where id = $1)) update check_run set state = 'done', files = $2, folders = $3, bytes = $4, must = $5, should = $6, note = $7, said = $8, ended_at = clock_timestamp() where id = $1`,
    [id, s.files, s.folders, outcome.bytes, s.must, s.should, s.note, said],
  );
}

/** Older checks keep their counts; only the last few keep every finding and folder. */
export async function thinOut(client: Client, project: string, keep: number): Promise<void> {
  const old = `select id from check_run where project_id = $1 order by started_at desc offset $2`;
  await client.query(`delete from finding where check_id in (${old})`, [project, keep]);
  await client.query(`delete from folder_count where check_id in (${old})`, [project, keep]);
}

export async function readCheck(client: Client, id: string): Promise<CheckRow | null> {
  const result = await client.query<Row>(`select ${COLUMNS} from check_run where id = $1`, [id]);
  return result.rows[0] ? rowOf(result.rows[0]) : null;
}

/** The newest check of a project in any state, and the newest that ended well. */
export async function checksOfProject(client: Client, project: string): Promise<ChecksOfProject> {
  const result = await client.query<Row>(
    `(select ${COLUMNS} from check_run where project_id = $1 order by started_at desc limit 1)
     union (select ${COLUMNS} from check_run where project_id = $1 and state = 'done' order by started_at desc limit 1) order by started_at desc`,
    [project],
  );
  const rows = result.rows.map(rowOf);
  return { newest: rows[0] ?? null, done: rows.find((row) => row.state === 'done') ?? null };
}

/** Findings by key: those after a place, at most `limit`. */
export async function readFindings(client: Client, check: string, after: number, limit: number): Promise<FindingRow[]> {
  const result = await client.query<{ body: FindingRow }>('select body from finding where check_id = $1 and place > $2 order by place limit $3', [check, after, limit]);
  return result.rows.map((row) => row.body);
}

export async function readFolders(client: Client, check: string): Promise<FolderCount[]> {
  const result = await client.query<FolderCount>('select path, files, bytes, state from folder_count where check_id = $1 order by path', [check]);
  return result.rows;
}

function rowOf(row: Row): CheckRow {
  const { must, should, note } = row;
  return {
    id: row.id,
    state: row.state,
    files: row.files,
    folders: row.folders,
    bytes: row.bytes,
    counts: { must, should, note },
    startedAt: row.started_at.toISOString(),
    endedAt: row.ended_at?.toISOString() ?? null,
    said: row.said,
  };
}
