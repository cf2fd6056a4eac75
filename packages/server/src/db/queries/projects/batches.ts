import type { BatchRow, BatchState, ProjectShape, ReshapeAsked } from '@nesting/contract';
import type { Client } from '../../client';

export interface NewBatch {
  readonly id: string;
  readonly project: string;
  readonly what: string;
  readonly person: string | null;
  readonly undoes: string | null;
  readonly from: ProjectShape;
  readonly to: ProjectShape;
}

/** Fails by constraint `batch_open_once` where another one is under way or paused. */
export async function insertBatch(client: Client, b: NewBatch): Promise<void> {
  await client.query(
    "insert into batch (id, project_id, what, person_id, undoes, shape_from, shape_to, state) values ($1, $2, $3, $4, $5, $6, $7, 'running')",
    [b.id, b.project, b.what, b.person, b.undoes, JSON.stringify(b.from), JSON.stringify(b.to)],
  );
}

export interface BatchRoot {
  readonly root: string;
  readonly volume: string;
  /** From the volume's root. */
  readonly folder: string;
}

export async function insertBatchRoots(client: Client, batch: string, roots: readonly BatchRoot[]): Promise<void> {
  for (const { root, volume, folder } of roots)
    await client.query('insert into batch_root (batch_id, root, volume, folder) values ($1, $2, $3, $4)', [
      batch,
      root,
      volume,
      folder,
    ]);
}

export const batchRoots = async (client: Client, batch: string): Promise<BatchRoot[]> =>
  (
    await client.query<BatchRoot>('select root, volume, folder from batch_root where batch_id = $1 order by root', [
      batch,
    ])
  ).rows;

export async function endBatch(
  client: Client,
  id: string,
  state: Exclude<BatchState, 'running'>,
  changes: number | null,
  why = '',
): Promise<void> {
  await client.query(
    "update batch set state = $2, why = $3, changes = coalesce($4, changes), ended_at = case when $2 = 'paused' then null else clock_timestamp() end where id = $1",
    [id, state, why, changes],
  );
}

/** One that never began was none. */
export async function removeBatch(client: Client, id: string): Promise<void> {
  await client.query('delete from batch where id = $1', [id]);
}

interface Row {
  id: string;
  project_id: string;
  what: string;
  by: string | null;
  at: Date;
  ended_at: Date | null;
  state: BatchState;
  why: string;
  changes: number;
  undoes: string | null;
  shape_from: ProjectShape;
  shape_to: ProjectShape;
}

export interface StoredBatch extends BatchRow {
  readonly project: string;
  readonly from: ProjectShape;
  readonly to: ProjectShape;
}

const SELECT =
  'select b.id, b.project_id, b.what, p.name as by, b.at, b.ended_at, b.state, b.why, b.changes, b.undoes, b.shape_from, b.shape_to from batch b left join person p on p.id = b.person_id';

const rowOf = (r: Row): StoredBatch => ({
  id: r.id,
  project: r.project_id,
  what: r.what,
  by: r.by ?? '',
  at: r.at.toISOString(),
  endedAt: r.ended_at?.toISOString() ?? null,
  state: r.state,
  why: r.why,
  changes: r.changes,
  undoes: r.undoes,
  done: 0,
  all: 0,
  from: r.shape_from,
  to: r.shape_to,
});

export async function batchesOf(client: Client, project: string, limit: number): Promise<StoredBatch[]> {
  return (
    await client.query<Row>(`${SELECT} where b.project_id = $1 order by b.at desc limit $2`, [project, limit])
  ).rows.map(rowOf);
}

export async function readBatchRow(client: Client, project: string, id: string): Promise<StoredBatch | null> {
  const row = (await client.query<Row>(`${SELECT} where b.project_id = $1 and b.id = $2`, [project, id])).rows[0];
  return row === undefined ? null : rowOf(row);
}

/** Those that run, and that nobody is at: a crash cut them short. */
export async function runningBatches(client: Client): Promise<StoredBatch[]> {
  return (
    await client.query<Row>(
      `${SELECT} where b.state = 'running' and not exists (select 1 from lease l where l.work = b.id and l.until > clock_timestamp())`,
    )
  ).rows.map(rowOf);
}

export async function readReshapeDraft(client: Client, project: string, person: string): Promise<ReshapeAsked | null> {
  return (
    (
      await client.query<{ body: ReshapeAsked }>(
        'select body from reshape_draft where project_id = $1 and person_id = $2',
        [project, person],
      )
    ).rows[0]?.body ?? null
  );
}

export async function keepReshapeDraft(
  client: Client,
  project: string,
  person: string,
  body: ReshapeAsked | null,
): Promise<void> {
  if (body === null)
    await client.query('delete from reshape_draft where project_id = $1 and person_id = $2', [project, person]);
  else
    await client.query(
      'insert into reshape_draft (project_id, person_id, body) values ($1, $2, $3) on conflict (project_id, person_id) do update set body = excluded.body, at = clock_timestamp()',
      [project, person, JSON.stringify(body)],
    );
}

export async function copiesLeft(client: Client): Promise<{ project: string; volume: string; folder: string }[]> {
  return (
    await client.query<{ project: string; volume: string; folder: string }>(
      'select project_id as project, volume, folder from copy_left',
    )
  ).rows;
}

export async function leaveCopy(client: Client, project: string, volume: string, folder: string): Promise<void> {
  await client.query('insert into copy_left (project_id, volume, folder) values ($1, $2, $3) on conflict do nothing', [
    project,
    volume,
    folder,
  ]);
}
