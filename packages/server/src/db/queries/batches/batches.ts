import type { BatchAsked, BatchRow, BatchState, ProjectShape, SettleWay } from '@nesting/contract';
import { type Told, toldWords } from '@nesting/core/words';
import { requestId } from '../../../request-context';
import type { Client } from '../../client';

export interface NewBatch {
  readonly id: string;
  readonly project: string;
  readonly what: string;
  readonly person: string;
  readonly undoes: string | null;
  readonly asked: BatchAsked;
  /** The project as it is: what it becomes stands here once that is planned. */
  readonly shape: ProjectShape;
}

/** Fails by constraint `batch_open_once` where another one is under way or paused. */
export async function insertBatch(client: Client, b: NewBatch): Promise<void> {
  const shape = JSON.stringify(b.shape);
  await client.query(
    `insert into batch (id, project_id, what, person_id, undoes, asked, shape_from, shape_to, state, claimed, request)
     values ($1, $2, $3, $4, $5, $6, $7, $7, 'running', false, $8)`,
    [b.id, b.project, b.what, b.person, b.undoes, JSON.stringify(b.asked), shape, requestId()],
  );
}

export interface BatchClaim {
  readonly what: string;
  readonly from: ProjectShape;
  readonly to: ProjectShape;
}

/** What it makes of the project stands in the row before anything is touched. */
export async function claimBatch(client: Client, id: string, { what, from, to }: BatchClaim): Promise<void> {
  await client.query('update batch set claimed = true, what = $2, shape_from = $3, shape_to = $4 where id = $1', [
    id,
    what,
    JSON.stringify(from),
    JSON.stringify(to),
  ]);
}

/** Nothing of it is on a disk any more: it can be planned again. */
export async function unclaimBatch(client: Client, id: string): Promise<void> {
  await client.query('delete from batch_root where batch_id = $1', [id]);
  await client.query('update batch set claimed = false, shape_to = shape_from where id = $1', [id]);
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

export interface BatchEnd {
  readonly state: Exclude<BatchState, 'running' | 'refused'>;
  /** Lines it changed; `null` where that is known already. */
  readonly changes: number | null;
  /** Why it stopped, or what was left. */
  readonly because?: Told | null;
}

export async function endBatch(
  client: Client,
  id: string,
  { state, changes, because = null }: BatchEnd,
): Promise<void> {
  await client.query(
    `update batch set state = $2, because = $3, changes = coalesce($4, changes), settling = null, stop_asked = false,
       ended_at = case when $2 = 'paused' then null else clock_timestamp() end
     where id = $1`,
    [id, state, JSON.stringify(because), changes],
  );
}

export async function refuseBatch(client: Client, id: string, refusal: Told): Promise<void> {
  await client.query("update batch set state = 'refused', refusal = $2, ended_at = clock_timestamp() where id = $1", [
    id,
    JSON.stringify(refusal),
  ]);
}

/** Who asked knows by now why it was refused: it is listed no more. */
export async function refusalTold(client: Client, id: string): Promise<void> {
  await client.query("update batch set told = true where id = $1 and state = 'refused'", [id]);
}

/** One that never began was none. */
export async function removeBatch(client: Client, id: string): Promise<void> {
  await client.query('delete from batch where id = $1', [id]);
}

/** The same request asked again. */
export async function removeRefused(client: Client, id: string): Promise<void> {
  await client.query("delete from batch where id = $1 and state = 'refused'", [id]);
}

/** Whether it was paused, and is to be settled now. */
export async function askToSettle(client: Client, id: string, way: SettleWay, person: string): Promise<boolean> {
  const { rowCount } = await client.query(
    "update batch set state = 'running', settling = $2, done = 0, steps = 0 where id = $1 and state = 'paused'",
    [id, JSON.stringify({ way, person })],
  );
  return rowCount === 1;
}

/** Whether it is under way. */
export async function askToStop(client: Client, project: string, id: string): Promise<boolean> {
  const { rowCount } = await client.query(
    "update batch set stop_asked = true where project_id = $1 and id = $2 and state = 'running'",
    [project, id],
  );
  return rowCount === 1;
}

/** How often it was begun by now. */
export async function countTry(client: Client, id: string): Promise<number> {
  const { rows } = await client.query<{ tries: number }>(
    'update batch set tries = tries + 1 where id = $1 returning tries',
    [id],
  );
  return rows[0]?.tries ?? 0;
}

/** Whether somebody wants it stopped. */
export async function setBatchProgress(client: Client, id: string, done: number, steps: number): Promise<boolean> {
  const { rows } = await client.query<{ stop_asked: boolean }>(
    'update batch set done = $2, steps = $3 where id = $1 returning stop_asked',
    [id, done, steps],
  );
  return rows[0]?.stop_asked ?? false;
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
  done: number;
  steps: number;
  swept_at: Date | null;
  shape_from: ProjectShape;
  shape_to: ProjectShape;
  person_id: string | null;
  asked: BatchAsked | null;
  claimed: boolean;
  stop_asked: boolean;
  settling: { way: SettleWay; person: string } | null;
  refusal: Told | null;
  because: Told | null;
  request: string | null;
}

export interface StoredBatch extends Omit<BatchRow, 'source' | 'heap'> {
  readonly project: string;
  readonly from: ProjectShape;
  readonly to: ProjectShape;
  readonly job: BatchJob;
}

/** What whoever does it needs to know. */
export interface BatchJob {
  readonly asked: BatchAsked | null;
  readonly isClaimed: boolean;
  readonly isStopAsked: boolean;
  readonly settling: { readonly way: SettleWay; readonly person: string } | null;
  readonly refusal: Told | null;
  /** The request it was asked for by. */
  readonly request: string | null;
}

const SELECT = 'select b.*, p.name as by from batch b left join person p on p.id = b.person_id';

/** In rows of older versions the sentence itself. */
function whyOf({ because, refusal, why }: Row): string {
  const said = because ?? refusal;
  return said === null ? why : toldWords(said);
}

const rowOf = (r: Row): StoredBatch => ({
  id: r.id,
  project: r.project_id,
  what: r.what,
  by: r.by ?? '',
  person: r.person_id,
  at: r.at.toISOString(),
  endedAt: r.ended_at?.toISOString() ?? null,
  state: r.state,
  why: whyOf(r),
  changes: r.changes,
  undoes: r.undoes,
  done: r.done,
  all: r.steps,
  sweptAt: r.swept_at?.toISOString() ?? null,
  from: r.shape_from,
  to: r.shape_to,
  job: {
    asked: r.asked,
    isClaimed: r.claimed,
    isStopAsked: r.stop_asked,
    settling: r.settling,
    refusal: r.refusal,
    request: r.request,
  },
});

export async function batchesOf(client: Client, project: string, limit: number): Promise<StoredBatch[]> {
  const { rows } = await client.query<Row>(
    `${SELECT} where b.project_id = $1 and not (b.state = 'refused' and b.told) order by b.at desc limit $2`,
    [project, limit],
  );
  return rows.map(rowOf);
}

/** The change that laid lists of checksums beside what another one brought; `null` where none did. */
export async function listsBeside(client: Client, project: string, batch: string): Promise<string | null> {
  const { rows } = await client.query<{ id: string }>(
    `select id from batch where project_id = $1 and state = 'done' and swept_at is null
       and asked->>'kind' = 'checksums' and asked->>'batch' = $2`,
    [project, batch],
  );
  return rows[0]?.id ?? null;
}

/** Changes that brought files from a heap, the newest first. */
export async function intakesFrom(
  client: Client,
  { volume, folder }: { readonly volume: string; readonly folder: string },
  limit: number,
): Promise<StoredBatch[]> {
  const { rows } = await client.query<Row>(
    `${SELECT} where b.what = 'intake' and b.state = 'done' and b.swept_at is null
         and b.asked->'asked'->>'volume' = $1 and b.asked->'asked'->>'folder' = $2
       order by b.at desc limit $3`,
    [volume, folder, limit],
  );
  return rows.map(rowOf);
}

export async function readBatchRow(client: Client, project: string, id: string): Promise<StoredBatch | null> {
  const { rows } = await client.query<Row>(`${SELECT} where b.project_id = $1 and b.id = $2`, [project, id]);
  const [row] = rows;
  return row === undefined ? null : rowOf(row);
}

export async function readBatchJob(client: Client, id: string): Promise<StoredBatch | null> {
  const [row] = (await client.query<Row>(`${SELECT} where b.id = $1`, [id])).rows;
  return row === undefined ? null : rowOf(row);
}

const NOBODY_AT_IT = 'not exists (select 1 from lease l where l.work = b.id and l.until > clock_timestamp())';

/** Ids of those that are to be done, and that nobody is at. */
export async function batchesLeft(client: Client): Promise<string[]> {
  const { rows } = await client.query<{ id: string }>(
    `select id from batch b where state = 'running' and ${NOBODY_AT_IT}`,
  );
  return rows.map((row) => row.id);
}

export async function isNobodyAt(client: Client, id: string): Promise<boolean> {
  const { rowCount } = await client.query(
    `select 1 from batch b where id = $1 and state = 'running' and ${NOBODY_AT_IT}`,
    [id],
  );
  return rowCount === 1;
}
