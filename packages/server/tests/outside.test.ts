/** How the server is watched, what holds a request together, and how much of anything it takes at once. */
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { readdirSync, readFileSync, renameSync } from 'node:fs';
import { connect } from 'node:net';
import path from 'node:path';
import { Writable } from 'node:stream';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { VitalSigns } from '../src/flows/house/vitals';
import { Bodies } from '../src/http/bodies';
import { makeApp, makeAuth, openWorld, startServer } from '../src/index';
import { openLog } from '../src/log';
import { GOOD, type Ground, openGround } from './table/good';
import { openTestWorld, type TestWorld } from './world';

let t: TestWorld;
let ground: Ground;
beforeAll(async () => {
  t = await openTestWorld({ NESTING_METRICS: '1' });
  ground = await openGround(t);
});
afterAll(() => t.close());

describe('from outside', () => {
  test('health tells what is there and what is away, and names nothing', async () => {
    expect(await new VitalSigns(t.world).read()).toMatchObject({
      isDatabaseThere: true,
      volumes: [
        { name: 'studio', isThere: true },
        { name: 'away', isThere: false },
      ],
    });
    const text = await (await t.ask(null, 'GET', '/health')).text();
    expect(JSON.parse(text)).toEqual({
      isWell: true,
      database: 'there',
      jobs: { waiting: 0, oldestSeconds: 0 },
      volumes: { there: 1, away: 1 },
    });
    const elsewhere = `${t.studio}-elsewhere`;
    renameSync(t.studio, elsewhere);
    try {
      const ill = makeApp(t.world, makeAuth(t.world.db, t.config), openLog('silent'));
      expect((await ill.request('/health')).status).toBe(503);
    } finally {
      renameSync(elsewhere, t.studio);
    }
  });

  test('a job that waits is counted, with its age', async () => {
    await t.world.boss.createQueue('nobody-works-this');
    await t.world.boss.send('nobody-works-this', {});
    const { jobs } = await new VitalSigns(t.world).read();
    expect(jobs).toEqual([{ kind: 'nobody-works-this', waiting: 1, oldest: expect.any(Number) }]);
    await t.world.boss.purgeQueue('nobody-works-this');
  });

  test('metrics are in the OpenMetrics form, and there only where they were asked for', async () => {
    await t.ask('lead', 'GET', '/api/me');
    const response = await t.ask(null, 'GET', '/metrics');
    expect(response.headers.get('content-type')).toBe('application/openmetrics-text; version=1.0.0; charset=utf-8');
    const lines = (await response.text()).split('\n');
    expect(lines.at(-2)).toBe('# EOF');
    expect(lines).toContainEqual(
      expect.stringMatching(/^nesting_request_seconds_count\{endpoint="me",status="200"\} [1-9]/),
    );
    expect(lines).toContain('nesting_database_up 1');
    expect(lines).toContain('nesting_volume_up{volume="away"} 0');
    for (const line of lines.filter((l) => l !== ''))
      expect(line).toMatch(/^(?:# (?:HELP|TYPE|UNIT|EOF).*|[a-zA-Z_:]\w*(?:\{[^{}]*\})? \S+)$/);
    const own = await openTestWorld({}, true);
    try {
      expect((await own.ask(null, 'GET', '/metrics')).status).toBe(404);
    } finally {
      await own.close();
    }
  });

  test('one id leads from a request to its log line, job, batch, journal, check and activity', async () => {
    const lines: { request?: string; endpoint?: string }[] = [];
    const to = new Writable({
      write: (chunk: Buffer, _encoding, next) => {
        lines.push(JSON.parse(chunk.toString()) as { request?: string });
        next();
      },
    });
    const app = makeApp(t.world, makeAuth(t.world.db, t.config), openLog('info', to));
    const { params, body } = await GOOD.applyReshape(ground);
    const id = `asked-${randomUUID()}`;
    const headers = {
      origin: new URL(t.config.publicUrl).origin,
      cookie: await t.cookieOf('coordinator'),
      'content-type': 'application/json',
      'x-request-id': id,
    };
    const sent = { method: 'POST', headers, body: JSON.stringify(body) };
    const response = await app.request(`/api/projects/${params?.id}/batches`, sent);
    expect([response.status, response.headers.get('x-request-id')]).toEqual([201, id]);
    // The check is asked for once the batch is written down as done.
    await t.world.batches.idle();
    await t.world.checks.idle();
    expect(lines).toContainEqual(expect.objectContaining({ request: id, endpoint: 'applyReshape', status: 201 }));
    const { db } = t.world;
    const { batch } = (await response.json()) as { batch: string };
    const { rows: batches } = await db.query('select request from batch where id = $1', [batch]);
    expect(batches).toEqual([{ request: id }]);
    const { rows: jobs } = await db.query("select data from jobs.job where name = 'batch' and data ->> 'id' = $1", [
      batch,
    ]);
    expect(jobs).toEqual([{ data: { id: batch, request: id } }]);
    const { rows: acts } = await db.query('select what from activity where request = $1', [id]);
    expect(acts).toEqual([{ what: 'project-reshaped' }]);
    const { rows: checks } = await db.query('select state from check_run where request = $1', [id]);
    expect(checks).toHaveLength(1);
    const journals = path.join(ground.root, '.nesting/batches');
    const texts = readdirSync(journals, { recursive: true, encoding: 'utf8' })
      .filter((name) => name.endsWith('journal.ndjson'))
      .map((name) => readFileSync(path.join(journals, name), 'utf8'));
    expect(texts.filter((text) => text.includes(id))).toHaveLength(1);
    // What somebody makes up that is no id is not taken for one.
    const odd = await app.request('/api/entrance', { headers: { 'x-request-id': '../../x' } });
    expect(odd.headers.get('x-request-id')).toMatch(/^[0-9a-f-]{36}$/);
  });
});

describe('bodies', () => {
  const chunk = new Uint8Array(1000);
  const request = (body: ReadableStream<Uint8Array>) =>
    new Request('http://localhost/', { method: 'POST', body, duplex: 'half' } as RequestInit);
  /** Sends so many chunks, and then ends, or never does. */
  const sending = (chunks: number, ends = true) => {
    let sent = 0;
    return new ReadableStream<Uint8Array>({
      pull: (stream) => {
        if (sent++ < chunks) return stream.enqueue(chunk);
        if (ends) return stream.close();
        return new Promise(() => undefined);
      },
    });
  };
  const lengthOf = async (whole: Request) => (await whole.arrayBuffer()).byteLength;

  test('come whole, up to their own bound', async () => {
    const bodies = new Bodies({ total: 100_000, ms: 60_000 });
    expect(await bodies.during(request(sending(5)), 5000, lengthOf)).toBe(5000);
    await expect(bodies.during(request(sending(6)), 5000, lengthOf)).rejects.toMatchObject({ code: 'too-large' });
  });

  test('are bounded all together, and what was let go of is free again', async () => {
    const bodies = new Bodies({ total: 10_000, ms: 60_000 });
    let letGo: () => void = () => undefined;
    let all: Promise<void> = Promise.resolve();
    await new Promise<void>((began) => {
      all = bodies.during(
        request(sending(8)),
        9000,
        () =>
          new Promise<void>((resolve) => {
            letGo = resolve;
            began();
          }),
      );
    });
    const refused = bodies.during(request(sending(8)), 9000, lengthOf);
    await expect(refused).rejects.toMatchObject({ code: 'too-busy', status: 503 });
    letGo();
    await all;
    for (let i = 0; i < 20; i++) expect(await bodies.during(request(sending(8)), 9000, lengthOf)).toBe(8000);
  });

  test('that are half sent and never end are ended, and hold nothing', async () => {
    const bodies = new Bodies({ total: 10_000, ms: 30 });
    for (let i = 0; i < 5; i++)
      await expect(bodies.during(request(sending(8, false)), 9000, lengthOf)).rejects.toMatchObject({
        code: 'too-slow',
      });
    expect(await bodies.during(request(sending(8)), 9000, lengthOf)).toBe(8000);
  });

  test('of a whole request: half sent, it is answered', async () => {
    const own = await openTestWorld({ NESTING_BODY_SECONDS: '0.05' }, true);
    try {
      const headers = { origin: new URL(own.config.publicUrl).origin, cookie: await own.cookieOf('artist') };
      const init = { method: 'POST', headers, body: sending(2, false), duplex: 'half' } as RequestInit;
      const response = await own.app.request(new Request('http://localhost/api/me/keys', init));
      expect([response.status, await response.json()]).toEqual([408, expect.objectContaining({ code: 'too-slow' })]);
    } finally {
      await own.close();
    }
  });

  test('over a real connection: half sent, it is answered and let go of', async () => {
    const log = openLog('silent');
    const short = { ...t.config, port: 0, bodies: { ...t.config.bodies, ms: 50 } };
    const server = await startServer(await openWorld(short, log), log);
    try {
      const socket = connect(server.port, '127.0.0.1');
      socket.write('POST /api/access/forgot HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\n');
      socket.write('Content-Length: 100\r\n\r\n{"em');
      const [answer] = (await once(socket, 'data')) as [Buffer];
      expect(answer.toString('latin1')).toMatch(/^HTTP\/1\.1 408 /);
      socket.destroy();
    } finally {
      await server.stop();
    }
  });
});
