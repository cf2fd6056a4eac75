/** Batches are jobs: the row is the truth, whoever works is woken, and nobody needs to wait for the end. */
import { randomUUID } from 'node:crypto';
import { existsSync, mkdirSync } from 'node:fs';
import path from 'node:path';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { BatchAnswer, BatchPage, BatchRow, ProjectPage, ProjectRow, ReshapePlan } from '@nesting/contract';
import { pino } from 'pino';
import { wakeBatches } from '../src/flows/batches/run-batch';
import { sweepBatches } from '../src/flows/batches/sweep';
import { closeWorld, openWorld, takeOverSilentChecks, type World, workBatches } from '../src/index';
import { Leases } from '../src/jobs/leases';
import { openTestWorld, startOf, type TestWorld } from './world';

/** Answers requests, and does no batch itself. */
let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld({ NESTING_BATCHES: 'elsewhere' });
});
afterAll(() => t.close());

/** Another server on the same database, which does them. */
let worker: World | null = null;
afterEach(async () => {
  if (worker !== null) await closeWorld(worker);
  worker = null;
});
async function letWork(): Promise<void> {
  worker = await openWorld({ ...t.config, worksBatches: true }, pino({ level: 'silent' }));
  await wakeBatches(worker);
  await workBatches(worker);
}

const json = async <T>(response: Response): Promise<T> => (await response.json()) as T;

let numbers = 71_000;
let project: ProjectPage;
let ask: (body: object, wait?: number) => Promise<Response>;
let request: { readonly key: string; readonly fingerprint: string };
beforeEach(async () => {
  const row = await json<ProjectRow>(await t.ask('coordinator', 'POST', '/api/projects', startOf(String(++numbers))));
  project = await json<ProjectPage>(await t.ask('lead', 'GET', `/api/projects/${row.id}`));
  const asked = {
    version: project.version,
    template: 'window-piece',
    edition: 1,
    values: { ...project.values, windows: ['A', 'B', 'C'] },
  };
  const plan = await json<ReshapePlan>(await t.ask('coordinator', 'POST', `/api/projects/${project.id}/plan`, asked));
  request = { ...asked, fingerprint: plan.fingerprint, key: randomUUID() };
  ask = (body, wait) =>
    t.ask(
      'coordinator',
      'POST',
      `/api/projects/${project.id}/batches`,
      body,
      wait === undefined ? {} : { prefer: `wait=${wait}` },
    );
});
const rows = async () => json<BatchRow[]>(await t.ask('lead', 'GET', `/api/projects/${project.id}/batches`));
async function ended(): Promise<void> {
  while ((await rows()).some((batch) => batch.state === 'running'))
    await new Promise((resolve) => setImmediate(resolve));
}
const ofC = () => path.join(t.studio, project.folder, '20_pieces/window-C');
const set = (change: string) => t.world.db.query(`update batch set ${change} where id = $1`, [request.key]);
async function refusal(response: Response): Promise<unknown[]> {
  return [response.status, (await json<{ code: string }>(response)).code];
}

describe('nobody waits', () => {
  test('it is accepted, and done by another server that is started later; asked again, it is the same one', async () => {
    const answer = await ask(request, 0);
    expect([answer.status, answer.headers.get('preference-applied')]).toEqual([202, 'wait=0']);
    expect(await json<BatchAnswer>(answer)).toEqual({ batch: request.key, isDone: false });
    expect([(await rows()).map((b) => b.state), existsSync(ofC())]).toEqual([['running'], false]);
    // Another one has to wait until this one has ended.
    expect(await refusal(await ask({ ...request, key: randomUUID() }, 0))).toEqual([409, 'batch-open']);
    await letWork();
    expect(await json<BatchAnswer>(await ask(request))).toEqual({ batch: request.key, isDone: true });
    expect([(await rows()).map((b) => b.state), existsSync(ofC())]).toEqual([['done'], true]);
  });

  test('stopped through another server before it began: nothing was changed, and the list says so', async () => {
    await ask(request, 0);
    const stop = `/api/projects/${project.id}/batches/${request.key}/stop`;
    expect(await json(await t.ask('coordinator', 'POST', stop))).toEqual({ stopped: true });
    await letWork();
    await ended();
    expect([(await rows()).map((b) => [b.state, b.why]), existsSync(ofC())]).toEqual([
      [['refused', 'This change was stopped before it began. Nothing was changed.']],
      false,
    ]);
    expect(await json(await t.ask('coordinator', 'POST', stop))).toEqual({ stopped: false });
  });

  test('what has changed by the time it is done refuses it; once that was told it is listed no more', async () => {
    await ask(request, 0);
    mkdirSync(ofC());
    await letWork();
    await ended();
    expect((await rows()).map((b) => b.state)).toEqual(['refused']);
    expect(await refusal(await ask(request))).toEqual([409, 'disk-changed']);
    expect(await rows()).toEqual([]);
  });

  test('who asked for it may do so no more when it is done', async () => {
    await ask(request, 0);
    await t.world.db.query('update person set retired = true where id = $1', [t.people.coordinator]);
    await letWork();
    await ended();
    await t.world.db.query('update person set retired = false where id = $1', [t.people.coordinator]);
    expect([(await rows()).map((b) => b.state), existsSync(ofC())]).toEqual([['refused'], false]);
  });
});

test('a key that is asked again is answered by what became of it since, and means one request', async () => {
  await letWork();
  expect((await ask(request)).status).toBe(201);
  const other = { ...request, fingerprint: 'f'.repeat(64) };
  expect(await refusal(await ask(other))).toEqual([409, 'key-used']);
  await set("state = 'paused', ended_at = null");
  const settle = `/api/projects/${project.id}/batches/${request.key}/settle`;
  expect((await t.ask('coordinator', 'POST', settle, { way: 'take-back' })).status).toBe(200);
  expect(await refusal(await ask(request))).toEqual([409, 'taken-back']);
  expect(existsSync(ofC())).toBe(false);
});

describe('cut short', () => {
  test('after its row said what it makes of the project, and before the disk was touched: planned again and done', async () => {
    await ask(request, 0);
    await set("claimed = true, shape_to = jsonb_set(shape_to, '{values,number}', '\"99999\"')");
    await letWork();
    expect((await ask(request)).status).toBe(201);
    const now = await json<ProjectPage>(await t.ask('lead', 'GET', `/api/projects/${project.id}`));
    expect([now.number, now.values.windows, existsSync(ofC())]).toEqual([project.number, ['A', 'B', 'C'], true]);
  });

  test('three times: given up, with nothing changed', async () => {
    await ask(request, 0);
    await set('tries = 3');
    await letWork();
    expect(await refusal(await ask(request))).toEqual([503, 'gave-up']);
    expect(existsSync(ofC())).toBe(false);
  });

  test('while somebody settles it: it is settled the way that was asked for', async () => {
    await letWork();
    expect((await ask(request)).status).toBe(201);
    await set(
      `state = 'running', ended_at = null, settling = '{"way":"take-back","person":"${t.people.coordinator}"}'`,
    );
    await wakeBatches(worker as World);
    await ended();
    expect([(await rows()).map((b) => b.state), existsSync(ofC())]).toEqual([['taken-back'], false]);
  });

  test('what is taken while others are renewed is not taken for lost', async () => {
    // Renewed three times a second, while ten at a time are taken, each behind the one before.
    const leases = new Leases(t.config.databaseUrl, 1200);
    const taken = [];
    for (let round = 0; round < 150; round++)
      taken.push(...(await Promise.all(Array.from({ length: 10 }, () => leases.take(randomUUID())))));
    expect(taken.filter((lease) => lease === null || lease.lost.aborted)).toEqual([]);
    await Promise.all(taken.map((lease) => lease?.release()));
    await leases.close();
  });

  test('a server that is stopped lets go of what it is at, so that the next one need not wait', async () => {
    const work = randomUUID();
    const leases = new Leases(t.config.databaseUrl, 600_000);
    const lease = await leases.take(work);
    lease?.lost.addEventListener('abort', () => void lease.release());
    await leases.close();
    const other = await t.world.leases.take(work);
    expect(other).not.toBeNull();
    await other?.release();
  });
});

test('a check that runs while something is changed is done once more: it has seen what was before', async () => {
  await letWork();
  const world = worker as World;
  const checks = async () =>
    (
      await t.world.db.query<{ state: string; again: boolean }>(
        'select state, again from check_run where project_id = $1 order by started_at',
        [project.id],
      )
    ).rows;
  const allEnded = async () => {
    while ((await checks()).some(({ state }) => state === 'queued' || state === 'running'))
      await new Promise((resolve) => setImmediate(resolve));
  };
  await allEnded();
  // Another worker is in the middle of it.
  await t.world.db.query(
    "insert into check_run (id, project_id, state, what, runner, seen_at) values (gen_random_uuid(), $1, 'running', 'whole', gen_random_uuid(), clock_timestamp())",
    [project.id],
  );
  expect((await ask(request)).status).toBe(201);
  while (!(await checks()).some(({ again }) => again)) await new Promise((resolve) => setImmediate(resolve));
  expect((await checks()).map(({ again }) => again)).toEqual([false, true]);
  await t.world.db.query("update check_run set seen_at = seen_at - interval '1 hour' where again");
  await takeOverSilentChecks(world);
  while ((await checks()).length < 3) await new Promise((resolve) => setImmediate(resolve));
  await allEnded();
  expect(await checks()).toEqual(Array.from({ length: 3 }, () => ({ state: 'done', again: false })));
});

describe('room on the volume', () => {
  const reserve = (work: string) =>
    t.world.db.query("insert into space_reserved (work, volume, bytes) values ($1, 'studio', 9e15)", [work]);

  test('what others are about to write is not free; what nobody writes any more is', async () => {
    await letWork();
    const lease = await t.world.leases.take(randomUUID());
    const held = (await t.world.db.query<{ work: string }>('select work from lease where until > clock_timestamp()'))
      .rows;
    for (const { work } of held) await reserve(work);
    expect(await refusal(await ask(request))).toEqual([507, 'no-room']);
    const started = await t.ask('coordinator', 'POST', '/api/projects', startOf(String(++numbers)));
    expect(await refusal(started)).toEqual([507, 'no-room']);
    await lease?.release();
    expect((await ask(request)).status).toBe(201);
    // The one that has just ended lets go a moment after its answer; the others' are nobody's.
    const left = async () => (await t.world.db.query('select 1 from space_reserved')).rowCount;
    while ((await left()) !== 0) await wakeBatches(t.world);
    expect(await left()).toBe(0);
  });
});

test('what ended long ago cannot be undone any more: its journal is gone, its line in the history stays', async () => {
  await letWork();
  const world = worker as World;
  expect((await ask(request)).status).toBe(201);
  const page = async () =>
    json<BatchPage>(await t.ask('lead', 'GET', `/api/projects/${project.id}/batches/${request.key}`));
  // A day too early nothing goes.
  await set("ended_at = ended_at - interval '181 days'");
  await sweepBatches(world, Date.now() + 179 * 86_400_000);
  expect([(await page()).sweptAt, (await page()).lines.length > 0]).toEqual([null, true]);
  await t.world.db.query('update project set swept_at = null where id = $1', [project.id]);
  await sweepBatches(world, Date.now() + 181 * 86_400_000);
  expect([(await page()).state, (await page()).unread]).toEqual(['done', expect.stringContaining('cleared away')]);
  const undo = await t.ask('coordinator', 'POST', `/api/projects/${project.id}/batches/${request.key}/undo`, {});
  expect(await refusal(undo)).toEqual([404, 'no-journal']);
  expect(existsSync(ofC())).toBe(true);
});
