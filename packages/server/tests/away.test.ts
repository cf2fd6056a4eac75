/** The database goes away at every stage of a start and of a change; and two servers work on one database. */
import { randomUUID } from 'node:crypto';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { type AddressInfo, connect, createServer, type Server, type Socket } from 'node:net';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { HeldName, ProjectPage, ProjectRow, ReshapePlan } from '@nesting/contract';
import { pino } from 'pino';
import { takeOverSilentChecks } from '../src/flows/checks/check-project';
import { closeWorld, makeApp, makeAuth, openWorld, type World, workBatches } from '../src/index';
import { settleLost } from '../src/serve';
import { openTestWorld, startOf, type TestWorld } from './world';

/** Stands between server and database, and cuts every connection when it hears what it waits for. */
class Cable {
  private readonly sockets = new Set<Socket>();
  private server: Server | null = null;
  private awaited: { readonly texts: string[]; readonly passesOn: boolean } | null = null;
  isCut = false;

  async open(host: string, port: number): Promise<number> {
    const server = createServer((near) => {
      if (this.isCut) {
        near.destroy();
        return;
      }
      const far = connect(port, host);
      for (const socket of [near, far]) {
        this.sockets.add(socket);
        socket.on('error', () => undefined);
        socket.on('close', () => this.sockets.delete(socket));
      }
      near.on('data', (bytes) => this.hear(bytes, far));
      far.on('data', (bytes) => near.write(bytes));
      near.on('close', () => far.destroy());
      far.on('close', () => near.destroy());
    });
    this.server = server;
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    return (server.address() as AddressInfo).port;
  }

  /** Cuts when the texts have been heard one after another; the last one reaches the database, or does not. */
  cutAt(texts: readonly string[], passesOn: boolean): void {
    this.awaited = { texts: [...texts], passesOn };
  }

  mend(): void {
    this.isCut = false;
    this.awaited = null;
  }

  close(): void {
    this.cut();
    this.server?.close();
  }

  private hear(bytes: Buffer, far: Socket): void {
    const { awaited } = this;
    const [next] = awaited?.texts ?? [];
    if (awaited !== null && next !== undefined && bytes.includes(next)) awaited.texts.shift();
    if (awaited === null || awaited.texts.length > 0 || this.isCut) {
      far.write(bytes);
      return;
    }
    this.isCut = true;
    if (!awaited.passesOn) {
      this.cut();
      return;
    }
    // Done there, and never heard of here.
    far.removeAllListeners('data');
    far.once('data', () => this.cut());
    far.write(bytes);
  }

  private cut(): void {
    for (const socket of this.sockets) socket.destroy();
  }
}

let t: TestWorld;
let world: World;
let app: ReturnType<typeof makeApp>;
const cable = new Cable();
beforeAll(async () => {
  // Batches are done where the cable is cut, until two servers share them.
  t = await openTestWorld({ NESTING_LEASE_SECONDS: '1', NESTING_BATCHES: 'elsewhere' });
  const url = new URL(t.config.databaseUrl);
  url.port = String(await cable.open(url.hostname, Number(url.port)));
  const config = { ...t.config, databaseUrl: url.href, worksBatches: true };
  world = await openWorld(config, pino({ level: 'silent' }));
  await workBatches(world);
  app = makeApp(world, makeAuth(world.db, config), pino({ level: 'silent' }));
});
afterAll(async () => {
  cable.mend();
  await closeWorld(world);
  cable.close();
  await t.close();
});

let cookie = '';
async function ask(method: string, address: string, body?: unknown): Promise<Response> {
  const { origin } = new URL(t.config.publicUrl);
  if (cookie === '') {
    const signed = await app.request('/api/auth/sign-in/email', {
      method: 'POST',
      headers: { origin, 'content-type': 'application/json' },
      body: JSON.stringify({ email: 'coordinator@tallow-street.example', password: 'a long enough password' }),
    });
    cookie = (signed.headers.get('set-cookie') ?? '').split(';')[0] ?? '';
  }
  const headers = { origin, cookie, 'content-type': 'application/json' };
  return app.request(address, { method, headers, ...(body !== undefined && { body: JSON.stringify(body) }) });
}

/** As somebody does who presses the button again until it is answered. */
async function again(method: string, address: string, body: unknown): Promise<Response> {
  for (;;) {
    const response = await ask(method, address, body);
    if (response.status !== 503 && response.status !== 409) return response;
    const { code } = (await response.clone().json()) as { code: string };
    if (!['under-way', 'not-known', 'database-away', 'database-lost'].includes(code)) return response;
  }
}

/**
 * Until every check of a project has ended. A job whose handing out was cut off stays with nobody in the queue, so the
 * queue is not asked: what counts is that the check is taken over.
 */
async function checked(project: string): Promise<void> {
  const open = "select 1 from check_run where project_id = $1 and state in ('queued', 'running')";
  while ((await t.world.db.query(open, [project])).rowCount !== 0) await takeOverSilentChecks(t.world);
}

const insert = 'insert into project (';
const STAGES: readonly (readonly [what: string, texts: readonly string[]])[] = [
  ['the lease', ['insert into lease']],
  ['the project’s row', [insert]],
  ['the end of the claim', [insert, 'commit']],
  ['the project’s state', [insert, "set state = 'running'"]],
  ['the end of the start', [insert, "set state = 'running'", 'commit']],
  ['the check that follows', [insert, 'insert into check_run']],
];
const EACH = STAGES.flatMap(([what, texts]) => [false, true].map((passesOn) => ({ what, texts, passesOn })));

test('a connection that breaks while it is looked who asks: they are known all the same', async () => {
  for (const passesOn of [false, true]) {
    expect((await ask('GET', '/api/me')).status).toBe(200);
    cable.cutAt(['from "session"'], passesOn);
    const asked = ask('GET', '/api/me');
    // It is back at once, with all connections new.
    while (!cable.isCut) await new Promise((resolve) => setImmediate(resolve));
    cable.mend();
    expect((await asked).status).toBe(200);
  }
});

describe('a start', () => {
  test.each(EACH.map((stage, i) => ({ ...stage, number: String(26_101 + i) })))(
    'the database goes away at $what (reached: $passesOn): the answer is true, and the same request is done once',
    async ({ texts, passesOn, number }) => {
      const request = { ...startOf(number), key: randomUUID() };
      await ask('GET', '/api/me');
      cable.cutAt(texts, passesOn);
      const first = await ask('POST', '/api/projects', request);
      const { message } = (await first.json()) as { message: string };
      expect([first.status, cable.isCut, message]).toEqual([503, true, expect.not.stringMatching(/nothing was/i)]);
      cable.mend();
      const second = await again('POST', '/api/projects', request);
      expect(second.status).toBe(201);
      const project = (await second.json()) as ProjectRow;
      expect([project.id, project.state]).toEqual([request.key, 'running']);
      const { rows } = await t.world.db.query('select id, state from project where number = $1', [number]);
      expect(rows).toEqual([{ id: request.key, state: 'running' }]);
      const marker = readFileSync(path.join(t.studio, project.folder, '.nesting/project.json'), 'utf8');
      expect(marker).toContain(request.key);
      expect(readdirSync(t.studio).filter((name) => name.startsWith('.nesting-unfinished'))).toEqual([]);
    },
  );

  test('nobody asks again: it is settled all the same', async () => {
    const request = { ...startOf('26150'), key: randomUUID() };
    cable.cutAt([insert, "set state = 'running'"], false);
    expect((await ask('POST', '/api/projects', request)).status).toBe(503);
    cable.mend();
    const state = async () =>
      (await t.world.db.query<{ state: string }>('select state from project where id = $1', [request.key])).rows[0]
        ?.state;
    while ((await state()) === 'starting') await settleLost(world).catch(() => undefined);
    expect(await state()).toBe('running');
  });

  test('a key of another start is refused', async () => {
    const request = { ...startOf('26160'), key: randomUUID() };
    expect((await ask('POST', '/api/projects', request)).status).toBe(201);
    const other = await ask('POST', '/api/projects', { ...startOf('26161'), key: request.key });
    expect([other.status, ((await other.json()) as { code: string }).code]).toEqual([409, 'key-used']);
  });
});

const batchRow = 'insert into batch (';
const CHANGE_STAGES = [
  ['the batch’s row', [batchRow]],
  ['the end of the claim', [batchRow, 'commit']],
  ['what it makes of the project', [batchRow, 'update batch set claimed = true']],
  ['the project’s shape', [batchRow, 'update project set']],
  ['the batch’s end', [batchRow, 'update batch set state']],
  ['the end of it all', [batchRow, 'update batch set state', 'commit']],
] as const;

describe('a change', () => {
  test.each(
    CHANGE_STAGES.flatMap(([what, texts]) => [false, true].map((passesOn) => ({ what, texts, passesOn }))).map(
      (stage, i) => ({ ...stage, number: String(26_201 + i) }),
    ),
  )(
    'the database goes away at $what (reached: $passesOn): the answer is true, and the same request is done once',
    async ({ texts, passesOn, number }) => {
      const started = (await (await ask('POST', '/api/projects', startOf(number))).json()) as ProjectRow;
      const page = (await (await ask('GET', `/api/projects/${started.id}`)).json()) as ProjectPage;
      const asked = {
        version: page.version,
        template: 'window-piece',
        edition: 1,
        values: { ...page.values, windows: ['A', 'B', 'C'], title: 'Another' },
        adjusted: {},
      };
      const planned = await ask('POST', `/api/projects/${started.id}/plan`, asked);
      const { fingerprint } = (await planned.json()) as ReshapePlan;
      const request = { ...asked, fingerprint, key: randomUUID() };
      cable.cutAt(texts, passesOn);
      const first = await ask('POST', `/api/projects/${started.id}/batches`, request);
      const { message } = (await first.json()) as { message: string };
      expect([first.status, cable.isCut, message]).toEqual([503, true, expect.not.stringMatching(/nothing was/i)]);
      cable.mend();
      const second = await again('POST', `/api/projects/${started.id}/batches`, request);
      expect([second.status, await second.json()]).toEqual([201, { batch: request.key, isDone: true }]);
      const { rows } = await t.world.db.query('select id, state from batch where project_id = $1', [started.id]);
      expect(rows).toEqual([{ id: request.key, state: 'done' }]);
      const now = (await (await ask('GET', `/api/projects/${started.id}`)).json()) as ProjectPage;
      expect(now.title).toBe('Another');
      expect(existsSync(path.join(t.studio, now.folder, '.nesting/project.json'))).toBe(true);
      expect(existsSync(path.join(t.studio, now.folder, '.nesting/batches/open'))).toBe(false);
    },
  );
});

describe('two servers on one database', () => {
  beforeAll(() => workBatches({ ...t.world, config: { ...t.config, worksBatches: true } }));

  test('what one is at, the other leaves; the same request to both is done once', async () => {
    const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
    const windows = letters.flatMap((a) => letters.slice(0, 12).map((b) => `${a}${b}`));
    const request = { ...startOf('26300', { windows }), key: randomUUID() };
    let isOver = false;
    const mine = t.ask('coordinator', 'POST', '/api/projects', request).finally(() => {
      isOver = true;
    });
    let looks = 0;
    const theirs = ask('POST', '/api/projects', request);
    for (; !isOver; looks++) await settleLost(world);
    const answers = [(await mine).status, (await theirs).status].sort();
    expect(answers.filter((status) => status === 201).length).toBeGreaterThan(0);
    expect(answers.every((status) => status === 201 || status === 409)).toBe(true);
    expect(looks).toBeGreaterThan(1);
    const { rows } = await t.world.db.query("select id, state from project where number = '26300'");
    expect(rows).toEqual([{ id: request.key, state: 'running' }]);
    const { rows: activities } = await t.world.db.query(
      "select 1 from activity where what in ('project-started', 'start-taken-back') and project_id = $1",
      [request.key],
    );
    expect(activities).toHaveLength(1);
  });

  test('forty names asked of both, as two people: two names', async () => {
    const project = (await (await ask('POST', '/api/projects', startOf('26310'))).json()) as ProjectRow;
    const asked = {
      convention: 'working-file',
      folder: '20_pieces/window-A',
      values: { task: 'anim', ext: 'usda', person: 'AR' },
    };
    await t.ask('artist', 'GET', '/api/me');
    const names = await Promise.all(
      Array.from({ length: 40 }, async (_, i) => {
        const address = `/api/projects/${project.id}/names`;
        const response = await (i % 2 === 0 ? t.ask('artist', 'POST', address, asked) : ask('POST', address, asked));
        return ((await response.json()) as HeldName).name;
      }),
    );
    expect(new Set(names.filter((_, i) => i % 2 === 0)).size).toBe(1);
    expect(new Set(names).size).toBe(2);
  });

  test('a check that the queue hands out, and nobody hears of it, is taken over', async () => {
    cable.cutAt(['insert into check_run', 'SKIP LOCKED'], true);
    const request = { ...startOf('26315'), key: randomUUID() };
    await ask('POST', '/api/projects', request);
    cable.mend();
    expect((await again('POST', '/api/projects', request)).status).toBe(201);
    await checked(request.key);
    const { rows } = await t.world.db.query('select state from check_run where project_id = $1', [request.key]);
    expect(rows).toContainEqual({ state: 'done' });
  });

  test('a schedule that both look at makes one check', async () => {
    const project = (await (await ask('POST', '/api/projects', startOf('26320'))).json()) as ProjectRow;
    await checked(project.id);
    const { db } = t.world;
    await db.query('update project set check_every = 60 where id = $1', [project.id]);
    await db.query("update check_run set started_at = started_at - interval '61 minutes' where project_id = $1", [
      project.id,
    ]);
    const before = (await db.query('select id from check_run where project_id = $1', [project.id])).rowCount ?? 0;
    await Promise.all([0, 1, 2, 3].map((i) => takeOverSilentChecks(i % 2 === 0 ? world : t.world)));
    await checked(project.id);
    const { rows } = await db.query<{ state: string }>('select state from check_run where project_id = $1', [
      project.id,
    ]);
    expect(rows.map((row) => row.state)).toEqual(Array.from({ length: before + 1 }, () => 'done'));
  });

  test('one change asked of both at once is made once; the other says that one is under way, or gives the same', async () => {
    const started = (await (await ask('POST', '/api/projects', startOf('26330'))).json()) as ProjectRow;
    const page = (await (await ask('GET', `/api/projects/${started.id}`)).json()) as ProjectPage;
    const values = { ...page.values, windows: ['A', 'B', 'C'] };
    const asked = { version: page.version, template: 'window-piece', edition: 1, values, adjusted: {} };
    const { fingerprint } = (await (
      await ask('POST', `/api/projects/${started.id}/plan`, asked)
    ).json()) as ReshapePlan;
    const request = { ...asked, fingerprint, key: randomUUID() };
    const address = `/api/projects/${started.id}/batches`;
    const answers = await Promise.all([
      ask('POST', address, request),
      t.ask('coordinator', 'POST', address, request),
      ask('POST', address, request),
    ]);
    const codes = await Promise.all(
      answers.map(async (a) => (a.status === 201 ? 'made' : ((await a.json()) as { code: string }).code)),
    );
    expect(codes).toContain('made');
    expect(codes.filter((code) => code !== 'made' && code !== 'under-way')).toEqual([]);
    const { rows } = await t.world.db.query('select id, state from batch where project_id = $1', [started.id]);
    expect(rows).toEqual([{ id: request.key, state: 'done' }]);
  });
});
