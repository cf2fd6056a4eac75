/** Runs of checks: asked for, under way, done; and what they leave behind. */

import type { CheckRow, ChecksOfProject, FolderCount } from '@nesting/contract';
import type { CheckOutcome } from '@nesting/core/check';
import { requestId } from '../../../request-context';
import type { Client } from '../../client';
import { copyRows } from '../../copy';

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
  what: CheckRow['what'];
  stage: CheckRow['stage'];
  appeared: number;
  solved: number;
  can_go_on: boolean;
}

const COLUMNS =
  "id, state, files, folders, bytes, must, should, note, said, started_at, ended_at, what, stage, appeared, solved, (state = 'cancelled' and exists (select from check_gathered g where g.check_id = check_run.id)) can_go_on";

export async function insertCheck(
  client: Client,
  id: string,
  project: string,
  person: string | null,
  what: 'whole' | 'quick',
): Promise<void> {
  await client.query(
    `insert into check_run (id, project_id, state, asked_by, what, seen_at, request)
       values ($1, $2, 'queued', $3, $4, clock_timestamp(), $5)`,
    [id, project, person, what, requestId()],
  );
}

/** A check of this project that is waiting or running: asking again gives that one. */
export async function openCheck(client: Client, project: string): Promise<string | null> {
  const result = await client.query<{ id: string }>(
    "select id from check_run where project_id = $1 and state in ('queued', 'running')",
    [project],
  );
  return result.rows[0]?.id ?? null;
}

/** Whether one runs, which is done once more when it ends: it has seen what was before. */
export async function askAgain(client: Client, project: string): Promise<boolean> {
  const { rowCount } = await client.query(
    "update check_run set again = true where project_id = $1 and state = 'running'",
    [project],
  );
  return rowCount === 1;
}

/** The project of a check that ended and is wanted once more: for one of those who ask. */
export async function takeWantedAgain(client: Client, id: string): Promise<string | null> {
  const { rows } = await client.query<{ project: string }>(
    `update check_run set again = false where id = $1 and again and state not in ('queued', 'running')
     returning project_id as project`,
    [id],
  );
  return rows[0]?.project ?? null;
}

export async function checksWantedAgain(client: Client): Promise<string[]> {
  const { rows } = await client.query<{ id: string }>(
    "select id from check_run where again and state not in ('queued', 'running')",
  );
  return rows.map((row) => row.id);
}

export interface CheckTaken {
  readonly project: string;
  readonly what: 'whole' | 'quick';
  /** The request it was asked for by; `null` where its time had come. */
  readonly request: string | null;
}

/**
 * Takes a check up; `null` where it is done, or somebody works on it. `silent` in milliseconds is how long one may say
 * nothing before it counts as killed.
 */
export async function takeUpCheck(
  client: Client,
  id: string,
  runner: string,
  silent: number,
): Promise<CheckTaken | null> {
  const result = await client.query<CheckTaken>(
    `update check_run set state = 'running', seen_at = clock_timestamp(), runner = $3
     where id = $1 and (state = 'queued' or (state = 'running' and seen_at < clock_timestamp() - $2 * interval '1 millisecond')) returning project_id project, what, request`,
    [id, silent, runner],
  );
  return result.rows[0] ?? null;
}

/** Says how far it is, and that it lives; whether it is to stop. */
export async function setCheckProgress(
  client: Client,
  id: string,
  runner: string,
  files: number,
  folders: number,
  stage: CheckRow['stage'],
): Promise<boolean> {
  const result = await client.query<{ stop: boolean }>(
    `update check_run set files = $2, folders = $3, stage = $4, seen_at = clock_timestamp()
       where id = $1 and state = 'running' and runner = $5 returning stop`,
    [id, files, folders, stage, runner],
  );
  // One that somebody else has taken over or ended is to stop too.
  return result.rows[0]?.stop ?? true;
}

/** Only by who has it in hand. */
export async function failCheck(client: Client, id: string, runner: string, said: string): Promise<void> {
  await client.query(
    `update check_run set state = 'failed', said = array[$2], ended_at = clock_timestamp()
       where id = $1 and state = 'running' and runner = $3`,
    [id, said, runner],
  );
}

/** `false` where it is not under way. One that waits has nothing to be stopped. */
export async function stopCheck(client: Client, id: string): Promise<boolean> {
  const result = await client.query(
    `update check_run set stop = true, state = case when state = 'queued' then 'cancelled' else state end,
         ended_at = case when state = 'queued' then clock_timestamp() end
       where id = $1 and state in ('queued', 'running')`,
    [id],
  );
  return (result.rowCount ?? 0) > 0;
}

export async function cancelledCheck(client: Client, id: string, runner: string): Promise<void> {
  await client.query(
    `update check_run set state = 'cancelled', ended_at = clock_timestamp()
       where id = $1 and state = 'running' and runner = $2`,
    [id, runner],
  );
}

/** Puts a cancelled check back in the queue; `null` where it cannot go on. */
export async function resumeCheck(client: Client, id: string): Promise<string | null> {
  const result = await client.query<{ project: string }>(
    `update check_run set state = 'queued', stop = false, ended_at = null, seen_at = clock_timestamp()
       where id = $1 and state = 'cancelled' and exists (select from check_gathered where check_id = $1)
       returning project_id project`,
    [id],
  );
  return result.rows[0]?.project ?? null;
}

/** Checks that nobody has spoken for: whoever ran them was killed, or nobody took them up. */
export async function silentChecks(client: Client, silent: number): Promise<string[]> {
  const result = await client.query<{ id: string }>(
    `select id from check_run
       where state in ('queued', 'running') and seen_at < clock_timestamp() - $1 * interval '1 millisecond'`,
    [silent],
  );
  return result.rows.map((row) => row.id);
}

export async function keepGathered(client: Client, id: string, runner: string, body: Buffer): Promise<void> {
  await client.query(
    `insert into check_gathered (check_id, body) select id, $2 from check_run where id = $1 and runner = $3
       on conflict (check_id) do update set body = excluded.body`,
    [id, body, runner],
  );
}

export async function readGathered(client: Client, id: string): Promise<Buffer | null> {
  return (
    (await client.query<{ body: Buffer }>('select body from check_gathered where check_id = $1', [id])).rows[0]?.body ??
    null
  );
}

export async function keepMemory(
  client: Client,
  project: string,
  rules: string,
  part: Buffer,
  looked: Buffer | null,
): Promise<void> {
  await client.query(
    `insert into check_memory (project_id, rules, part, looked) values ($1, $2, $3, coalesce($4, ''::bytea))
       on conflict (project_id) do update
       set rules = excluded.rules, part = excluded.part, looked = coalesce($4, check_memory.looked)`,
    [project, rules, part, looked],
  );
}

export async function readMemory(
  client: Client,
  project: string,
): Promise<{ readonly rules: string; readonly part: Buffer; readonly looked: Buffer } | null> {
  return (
    (
      await client.query<{ rules: string; part: Buffer; looked: Buffer }>(
        'select rules, part, looked from check_memory where project_id = $1',
        [project],
      )
    ).rows[0] ?? null
  );
}

/** What lay in each folder, in place of what was known before. */
export async function storeFolders(client: Client, project: string, rows: CheckOutcome['rows']): Promise<void> {
  await client.query('delete from folder_count where project_id = $1', [project]);
  await copyRows(
    client,
    'folder_count (project_id, path, files, bytes, state, families)',
    rows.map((r) => [project, r.path, r.files, r.bytes, r.state, JSON.stringify(r.families)]),
  );
}

export async function endCheck(
  client: Client,
  id: string,
  runner: string,
  outcome: CheckOutcome,
  more: {
    readonly said: readonly string[];
    readonly appeared: number;
    readonly solved: number;
    readonly sizes: unknown;
    readonly cleared: number;
  },
): Promise<boolean> {
  const { summary: s } = outcome;
  const result = await client.query(
    `update check_run set state = 'done', files = $2, folders = $3, bytes = $4, said = $5, appeared = $6, solved = $7, sizes = $8,
         cleared = $9, ended_at = clock_timestamp()
       where id = $1 and state = 'running' and runner = $10`,
    [
      id,
      s.files,
      s.folders,
      outcome.bytes,
      more.said,
      more.appeared,
      more.solved,
      JSON.stringify(more.sizes),
      more.cleared,
      runner,
    ],
  );
  await client.query('delete from check_gathered where check_id = $1', [id]);
  return (result.rowCount ?? 0) > 0;
}

/** A project's last check is this one; of quick ones only the last is kept, for they come by the minute. */
export async function setLastCheck(client: Client, project: string, id: string): Promise<void> {
  await client.query("delete from check_run where project_id = $1 and what = 'quick' and state = 'done' and id <> $2", [
    project,
    id,
  ]);
  await client.query('update project set last_check = $2 where id = $1', [project, id]);
}

/** The check whose findings stand. */
export async function lastCheck(client: Client, project: string): Promise<string | null> {
  return (
    (await client.query<{ id: string | null }>('select last_check id from project where id = $1', [project])).rows[0]
      ?.id ?? null
  );
}

export async function readCheck(client: Client, id: string): Promise<CheckRow | null> {
  const result = await client.query<Row>(`select ${COLUMNS} from check_run where id = $1`, [id]);
  return result.rows[0] ? rowOf(result.rows[0]) : null;
}

/** Checks shown as a trend: enough for a line, few enough to be read. */
const TREND = 60;

/** The newest check of a project in any state, the newest that ended well, and how it went before. */
export async function checksOfProject(client: Client, project: string): Promise<ChecksOfProject> {
  const result = await client.query<Row>(
    `(select ${COLUMNS} from check_run where project_id = $1 order by started_at desc limit 1)
     union (select ${COLUMNS} from check_run where project_id = $1 and state = 'done' order by started_at desc limit 1) order by started_at desc`,
    [project],
  );
  const trend = await client.query<{ at: Date; must: number; should: number; note: number; bytes: number }>(
    `select coalesce(ended_at, started_at) at, must, should, note, bytes from check_run
       where project_id = $1 and state = 'done' order by started_at desc limit $2`,
    [project, TREND],
  );
  const every = await client.query<{ every: number | null }>('select check_every every from project where id = $1', [
    project,
  ]);
  const rows = result.rows.map(rowOf);
  return {
    newest: rows[0] ?? null,
    done: rows.find((row) => row.state === 'done') ?? null,
    trend: trend.rows.reverse().map((r) => ({ ...r, at: r.at.toISOString() })),
    every: every.rows[0]?.every ?? null,
  };
}

export async function setSchedule(client: Client, project: string, every: number | null): Promise<boolean> {
  return (
    ((await client.query('update project set check_every = $2 where id = $1', [project, every])).rowCount ?? 0) > 0
  );
}

/** Projects whose time has come: running ones, not under check, whose last one began long enough ago. */
export async function dueProjects(client: Client): Promise<string[]> {
  const result = await client.query<{ id: string }>(
    `select p.id from project p where p.check_every is not null and p.state in ('running', 'waiting')
       and not exists (select from check_run k where k.project_id = p.id and (k.state in ('queued', 'running') or (k.what = 'whole' and k.started_at > clock_timestamp() - p.check_every * interval '1 minute')))`,
  );
  return result.rows.map((row) => row.id);
}

export async function readFolders(client: Client, project: string): Promise<FolderCount[]> {
  const result = await client.query<FolderCount>(
    'select path, files, bytes, state, families from folder_count where project_id = $1 order by path',
    [project],
  );
  return result.rows;
}

function rowOf(row: Row): CheckRow {
  const { id, state, files, folders, bytes, said, must, should, note, what, stage, appeared, solved } = row;
  return {
    id,
    state,
    files,
    folders,
    bytes,
    counts: { must, should, note },
    startedAt: row.started_at.toISOString(),
    endedAt: row.ended_at?.toISOString() ?? null,
    said,
    what,
    stage,
    appeared,
    solved,
    canGoOn: row.can_go_on,
  };
}
