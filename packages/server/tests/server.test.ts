/**
 * The server against a real PostgreSQL and real folders: who may do what, numbers, starts, checks, and what goes wrong.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import {
  chmodSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import {
  type CheckRow,
  type ChecksOfProject,
  type FindingList,
  type FindingRow,
  type ProjectList,
  type ProjectRow,
  ROLES,
} from '@nesting/contract';
import { insertProject } from '../src/db/queries/projects/projects';
import { configOf, DatabaseNewer, migrate, openDb, ROUTES, settleStarts } from '../src/index';
import { openTestWorld, startOf, type TestWorld } from './world';

let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld();
});
afterAll(() => t.close());

const started = async (number: string, more = {}): Promise<ProjectRow> => {
  const response = await t.ask('coordinator', 'POST', '/api/projects', startOf(number, more));
  expect([response.status, response.status === 201 ? '' : await response.text()]).toEqual([201, '']);
  return (await response.json()) as ProjectRow;
};
const refusal = async (response: Response) => [response.status, ((await response.json()) as { code: string }).code];
const inStudio = (name: string) => path.join(t.studio, name);

async function checkNow(id: string): Promise<{ check: CheckRow; findings: readonly FindingRow[] }> {
  const asked = (await (await t.ask('artist', 'POST', `/api/projects/${id}/checks`, {})).json()) as CheckRow;
  await t.world.checks.idle();
  const { newest } = (await (await t.ask('lead', 'GET', `/api/projects/${id}/checks`)).json()) as ChecksOfProject;
  expect(newest?.id).toBe(asked.id);
  return {
    check: newest as CheckRow,
    findings: ((await (await t.ask('lead', 'GET', `/api/projects/${id}/findings?group=none`)).json()) as FindingList)
      .rows,
  };
}

describe('who may do what', () => {
  const concrete = (address: string) =>
    address.replace(':id', '00000000-0000-4000-8000-000000000000').replace(':number', '26999');
  // Signing out would end the sessions the others ask with.
  const cases = ROUTES.filter((r) => r.path !== '/api/auth/sign-out').flatMap((route) =>
    [null, ...ROLES].map((who) => ({ route, who })),
  );

  test('every route says who may use it', () => {
    expect(ROUTES.length).toBeGreaterThan(15);
    expect(
      ROUTES.filter((r) => r.roles === 'anyone')
        .map((r) => r.path)
        .sort(),
    ).toEqual([
      '/api/access/accept',
      '/api/access/forgot',
      '/api/access/link',
      '/api/auth/sign-in/email',
      '/api/auth/sign-out',
      '/api/demo/sign-in',
      '/api/entrance',
      '/api/openapi.json',
      '/api/sent',
      '/api/sent/:pass/file',
      '/api/yours',
      '/health',
      '/metrics',
    ]);
    expect(
      ROUTES.filter(
        (r) => r.method !== 'GET' && r.roles !== 'anyone' && r.roles.includes('lead') && !r.path.startsWith('/api/me/'),
      ),
    ).toEqual([]);
  });

  test.each(cases.map((c) => [`${c.route.method} ${c.route.path}`, c.who ?? 'nobody', c] as const))(
    '%s as %s',
    async (_route, _who, { route, who }) => {
      const { status } = await t.ask(who, route.method, concrete(route.path), route.method === 'GET' ? undefined : {});
      const may = route.roles === 'anyone' || (who !== null && route.roles.includes(who));
      if (may) expect([401, 403]).not.toContain(status);
      else expect(status).toBe(who === null ? 401 : 403);
    },
  );

  test('a request from another site is refused, whatever it carries, and changes nothing', async () => {
    const projects = async () => (await t.world.db.query('select 1 from project')).rowCount;
    const before = await projects();
    for (const type of ['text/plain', 'application/json'])
      for (const origin of ['https://evil.example', 'http://127.0.0.1:9', 'null', 'not an origin']) {
        const response = await t.app.request('/api/projects', {
          method: 'POST',
          headers: { origin, 'content-type': type, cookie: await t.cookieOf('coordinator') },
          body: JSON.stringify(startOf('33990')),
        });
        expect([response.status, await projects()]).toEqual([403, before]);
      }
  });

  test('nothing is read of a body before it is known who sends it, and no more than they may send', async () => {
    const sent = async (headers: Record<string, string>, method = 'POST', address = '/api/projects') => {
      let chunks = 0;
      const body = new ReadableStream({
        pull: (stream) => (++chunks > 200 ? stream.close() : stream.enqueue(new Uint8Array(1 << 20))),
      });
      const { origin } = new URL(t.config.publicUrl);
      const init = {
        method,
        headers: { origin, 'content-type': 'application/json', ...headers },
        body,
        duplex: 'half',
      };
      const { status } = await t.app.request(new Request(`http://localhost${address}`, init as RequestInit));
      return { status, chunks };
    };
    const ofNobody = await sent({});
    expect([ofNobody.status, ofNobody.chunks < 3]).toEqual([401, true]);
    const ofArtist = await sent({ cookie: await t.cookieOf('artist') });
    expect([ofArtist.status, ofArtist.chunks < 3]).toEqual([403, true]);
    const large = await sent({ cookie: await t.cookieOf('coordinator') });
    expect([large.status, large.chunks < 10]).toEqual([413, true]);
    const atTheDoor = await sent({}, 'POST', '/api/yours');
    expect([atTheDoor.status, atTheDoor.chunks < 4]).toEqual([413, true]);
  });

  test('a wrong password, nobody, and somebody retired are not let in', async () => {
    const sign = (email: string, password: string) =>
      t.ask(null, 'POST', '/api/auth/sign-in/email', { email, password });
    expect((await sign('artist@tallow-street.example', 'wrong password')).status).toBe(401);
    expect((await sign('nobody@tallow-street.example', 'wrong password')).status).toBe(401);
    expect(
      (
        await t.ask(null, 'POST', '/api/auth/sign-up/email', {
          email: 'me@x.example',
          password: 'long enough 123',
          name: 'Me',
        })
      ).status,
    ).toBeGreaterThanOrEqual(400);
    expect((await t.ask('artist', 'GET', '/api/me')).status).toBe(200);
    await t.world.db.query("update person set retired = true where role = 'artist'");
    expect((await t.ask('artist', 'GET', '/api/me')).status).toBe(401);
    await t.world.db.query("update person set retired = false where role = 'artist'");
  });

  test("the demo's one-click sign-in is off unless asked for", async () => {
    expect(await refusal(await t.ask(null, 'POST', '/api/demo/sign-in', { initials: 'CO' }))).toEqual([
      404,
      'not-found',
    ]);
  });
});

describe('numbers', () => {
  test('a number is offered again to whoever holds it, and given back by leaving', async () => {
    const hold = async () =>
      ((await (await t.ask('coordinator', 'POST', '/api/numbers/hold', { year: 2032 })).json()) as { number: string })
        .number;
    expect([await hold(), await hold()]).toEqual(['32001', '32001']);
    expect((await t.ask('coordinator', 'DELETE', '/api/numbers/hold/32001')).status).toBe(204);
    expect(await hold()).toBe('32001');
  });

  test('a number somebody else holds, and one that is taken, are refused', async () => {
    await t.world.db.query(
      "insert into number_hold (number, person_id, until) values ('33001', $1, now() + interval '1 hour')",
      [t.people.artist],
    );
    expect(await refusal(await t.ask('coordinator', 'POST', '/api/projects', startOf('33001')))).toEqual([
      409,
      'number-held',
    ]);
    await started('33002');
    expect(
      await refusal(await t.ask('coordinator', 'POST', '/api/projects', startOf('33002', { title: 'Another' }))),
    ).toEqual([409, 'number-taken']);
  });

  test('twenty starts of one number at once make one project', async () => {
    const all = await Promise.all(
      Array.from({ length: 20 }, () => t.ask('coordinator', 'POST', '/api/projects', startOf('33050'))),
    );
    const answers = await Promise.all(
      all.map(async (r) => `${r.status} ${((await r.json()) as { code?: string }).code ?? ''}`),
    );
    expect(answers.sort()).toEqual(['201 ', ...Array.from({ length: 19 }, () => '409 number-taken')]);
    expect(readdirSync(t.studio).filter((n) => n.includes('33050'))).toEqual(['33050_MSW_piece-33050']);
  });
});

describe('a start', () => {
  test('writes folders, starter files and the marker, checks itself, and is found to be in order', async () => {
    const project = await started('34001', { title: 'Cloud Cabinet' });
    const root = inStudio('34001_MSW_cloud-cabinet');
    expect(readFileSync(path.join(root, '34001_brief.md'), 'utf8')).toBe('# Cloud Cabinet {nobody}\n');
    expect(existsSync(path.join(root, '20_pieces/window-B'))).toBe(true);
    expect(JSON.parse(readFileSync(path.join(root, '.nesting/project.json'), 'utf8'))).toMatchObject({
      project: project.id,
      template: { id: 'window-piece', edition: 1 },
      values: { windows: ['A', 'B'] },
    });
    await t.world.checks.idle();
    const [row] = ((await (await t.ask('lead', 'GET', '/api/projects')).json()) as ProjectList).rows.filter(
      (p) => p.id === project.id,
    );
    expect(row).toMatchObject({
      state: 'running',
      client: 'MSW',
      check: { counts: { must: 0, should: 0, note: 0 }, files: 1 },
    });
    expect(
      (
        await t.world.db.query("select params from activity where what = 'project-started' and project_id = $1", [
          project.id,
        ])
      ).rows,
    ).toHaveLength(1);
  });

  test.each([
    ['a title of 300 letters', { title: 'a'.repeat(300) }],
    ['an unknown client', { client: 'ZZZ' }],
    ['a number that leaves the volume', { number: '../x' }],
    ['no number', { number: '' }],
    ['a right-to-left mark', { number: '34\u200f9' }],
    ['a title of emoji', { title: '🏮' }],
  ])('%s is refused with words, and nothing is written', async (_what, more) => {
    const before = readdirSync(t.studio);
    expect((await t.ask('coordinator', 'POST', '/api/projects', startOf('34900', more))).status).toBe(422);
    expect(readdirSync(t.studio)).toEqual(before);
    expect((await t.world.db.query("select 1 from project where state <> 'running'")).rowCount).toBe(0);
  });

  test('a folder that appears between preview and writing is not touched, and the number stays free', async () => {
    mkdirSync(inStudio('34002_MSW_piece-34002/theirs'), { recursive: true });
    expect(await refusal(await t.ask('coordinator', 'POST', '/api/projects', startOf('34002')))).toEqual([
      409,
      'folder-exists',
    ]);
    expect(readdirSync(inStudio('34002_MSW_piece-34002'))).toEqual(['theirs']);
    expect((await t.world.db.query("select 1 from project where number = '34002'")).rowCount).toBe(0);
    const look = await (
      await t.ask('coordinator', 'POST', '/api/projects/look', {
        number: '34002',
        volume: 'studio',
        folder: '34002_MSW_piece-34002',
      })
    ).json();
    expect(look).toEqual({
      numberTaken: false,
      numberHeldBy: null,
      numberReserved: null,
      numberNote: null,
      folderTaken: false,
      folderOnDisk: true,
    });
  });

  test('a volume that is not mounted, not there, or not configured is said', async () => {
    expect(
      await refusal(await t.ask('coordinator', 'POST', '/api/projects', { ...startOf('34003'), volume: 'away' })),
    ).toEqual([503, 'volume-missing']);
    expect(
      await refusal(await t.ask('coordinator', 'POST', '/api/projects', { ...startOf('34003'), volume: '../etc' })),
    ).toEqual([404, 'no-volume']);
  });

  test('a full volume: what was half written is taken back, and it is said', async () => {
    const small = path.join(t.studio, '..', 'small');
    mkdirSync(small);
    const mounted = (() => {
      try {
        execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=64k,nr_inodes=8', 'tmpfs', small], { stdio: 'ignore' });
        return true;
      } catch {
        // Without the right to mount, a folder nobody may write to stands for a disk that refuses.
        chmodSync(small, 0o500);
        return false;
      }
    })();
    const full = await openTestWorld({ NESTING_VOLUMES: `studio=${small}` });
    try {
      const [status, code] = await refusal(await full.ask('coordinator', 'POST', '/api/projects', startOf('34004')));
      expect([status, code]).toEqual(mounted ? [507, 'no-room'] : [409, 'volume-closed']);
      expect(readdirSync(small)).toEqual(['.nesting-volume']);
      expect((await full.world.db.query('select 1 from project')).rowCount).toBe(0);
      if (mounted) {
        execFileSync('mount', ['-o', 'remount,ro', small]);
        expect((await refusal(await full.ask('coordinator', 'POST', '/api/projects', startOf('34005'))))[1]).toBe(
          'volume-read-only',
        );
      }
    } finally {
      await full.close();
      if (mounted) execFileSync('umount', [small]);
    }
  });

  test('a start that a crash cut short is taken back at the next boot; one that was whole is kept', async () => {
    const { db } = t.world;
    const claim = (id: string, number: string, folder: string) =>
      insertProject(db, {
        id,
        number,
        client: null,
        title: '',
        template: 'window-piece',
        edition: 1,
        conventions: {},
        adjusted: {},
        own: {},
        settings: {},
        values: {},
        volume: 'studio',
        folder,
        person: t.people.coordinator,
      });
    const cut = '00000000-0000-4000-8000-00000000000a';
    const whole = '00000000-0000-4000-8000-00000000000b';
    await claim(cut, '34006', '34006_x');
    mkdirSync(inStudio(`.nesting-unfinished-${cut}/20_pieces`), { recursive: true });
    await claim(whole, '34007', '34007_x');
    mkdirSync(inStudio('34007_x/.nesting'), { recursive: true });
    writeFileSync(inStudio('34007_x/.nesting/project.json'), JSON.stringify({ project: whole }));
    await settleStarts(t.world);
    expect((await db.query("select number, state from project where number in ('34006', '34007')")).rows).toEqual([
      { number: '34007', state: 'running' },
    ]);
    expect(readdirSync(t.studio).filter((n) => n.startsWith('.nesting-unfinished'))).toEqual([]);
    expect((await db.query("select 1 from activity where what = 'start-taken-back'")).rowCount).toBe(1);
  });
});

describe('a check', () => {
  test('finds what is wrong, says how it should read, and changes nothing on the disk', async () => {
    const project = await started('35001');
    const root = inStudio('35001_MSW_piece-35001');
    writeFileSync(path.join(root, '20_pieces/window-A/35001_A_drawn_LE_V2.png'), 'x');
    writeFileSync(path.join(root, '20_pieces/window-A/34001_A_anim_LE_v001.png'), 'x');
    mkdirSync(path.join(root, 'stuff'));
    const before = readdirSync(root, { recursive: true });
    const { check, findings } = await checkNow(project.id);
    expect(check).toMatchObject({ state: 'done', counts: { must: 2, should: 1, note: 0 } });
    expect(findings.map((f) => [f.rule, f.path, f.suggestion?.name ?? null])).toEqual([
      ['foreign-project', '20_pieces/window-A/34001_A_anim_LE_v001.png', null],
      ['name-mismatch', '20_pieces/window-A/35001_A_drawn_LE_V2.png', '35001_A_draw_LE_v002.png'],
      ['unplanned-folder', 'stuff', null],
    ]);
    expect(readdirSync(root, { recursive: true })).toEqual(before);
    const cli = JSON.parse(runCli(['check', root, '--json'])) as { findings: { id: string; message: string }[] };
    expect(cli.findings.map((f) => [f.id, f.message])).toEqual(findings.map((f) => [f.id, f.message]));
  });

  test('a folder that was moved away is said, and the last findings stand', async () => {
    const project = await started('35002');
    await t.world.checks.idle();
    renameSync(inStudio('35002_MSW_piece-35002'), inStudio('elsewhere'));
    const { check } = await checkNow(project.id);
    expect(check).toMatchObject({ state: 'failed', said: [expect.stringContaining('moved, renamed or removed')] });
    const { done } = (await (
      await t.ask('lead', 'GET', `/api/projects/${project.id}/checks`)
    ).json()) as ChecksOfProject;
    expect(done?.state).toBe('done');
  });

  test('a project that became a link is not followed, and no path leads out of one', async () => {
    const project = await started('35003');
    await t.world.checks.idle();
    const folder = (at: string) =>
      t.ask('artist', 'GET', `/api/projects/${project.id}/folder?path=${encodeURIComponent(at)}`);
    symlinkSync('/etc', inStudio('35003_MSW_piece-35003/out'));
    expect(((await (await folder('')).json()) as { files: { name: string }[] }).files.map((f) => f.name)).toEqual([
      '35003_brief.md',
    ]);
    expect(await refusal(await folder('../34001_MSW_cloud-cabinet'))).toEqual([400, 'path-refused']);
    expect(await refusal(await folder('/etc'))).toEqual([400, 'path-refused']);
    expect(await refusal(await folder('out'))).toEqual([404, 'path-link']);
    expect(await refusal(await folder('a\0b'))).toEqual([400, 'not-as-expected']);
    renameSync(inStudio('35003_MSW_piece-35003'), inStudio('real'));
    symlinkSync(inStudio('real'), inStudio('35003_MSW_piece-35003'));
    expect((await checkNow(project.id)).check.said[0]).toContain('is a link');
  });
});

describe('what is looked at', () => {
  test('templates, registers, volumes and who one is', async () => {
    const get = async (address: string) => (await t.ask('lead', 'GET', address)).json();
    expect(await get('/api/me')).toMatchObject({ name: 'The lead', initials: 'LE', role: 'lead', demo: false });
    expect(await get('/api/templates')).toMatchObject([
      { id: 'window-piece', edition: 1, projects: expect.any(Number), template: { name: 'Window piece' } },
    ]);
    expect(await get('/api/registers')).toMatchObject({ clients: [{ code: 'MSW' }, { code: 'QHT' }], banned: [] });
    expect(await get('/api/volumes')).toMatchObject([
      { name: 'studio', state: 'ready', freeBytes: expect.any(Number) },
      { name: 'away', state: 'missing', freeBytes: null },
    ]);
    expect(await (await t.app.request('/api/entrance')).json()).toEqual({
      demo: false,
      empty: false,
      mails: false,
      people: [],
    });
  });

  test('findings come in pages, counted under every filter; folders with their counts', async () => {
    const project = await started('37001');
    const root = inStudio('37001_MSW_piece-37001');
    for (let n = 0; n < 25; n++)
      writeFileSync(path.join(root, `loose ${String(n).padStart(2, '0')}.txt`), 'x'.repeat(n));
    const { findings } = await checkNow(project.id);
    expect(findings).toHaveLength(25);
    const page = async (from: number) =>
      (
        (await (
          await t.ask('lead', 'GET', `/api/projects/${project.id}/findings?from=${from}&limit=10`)
        ).json()) as FindingList
      ).rows.map((f) => f.path);
    expect([...(await page(0)), ...(await page(10)), ...(await page(20))]).toEqual(findings.map((f) => f.path));
    expect((await t.ask('lead', 'GET', `/api/projects/${project.id}/findings?limit=100000`)).status).toBe(400);
    const folders = (await (await t.ask('lead', 'GET', `/api/projects/${project.id}/folders`)).json()) as {
      path: string;
      files: number;
      bytes: number;
    }[];
    expect(folders.find((f) => f.path === '')).toMatchObject({ files: 26, state: 'planned' });
    expect(folders.map((f) => f.path)).toEqual([...folders.map((f) => f.path)].sort());
  });

  test('asking for a check while one waits gives that one', async () => {
    const project = await started('37003');
    const asked = await Promise.all(
      [1, 2, 3].map(
        async () =>
          ((await (await t.ask('artist', 'POST', `/api/projects/${project.id}/checks`, {})).json()) as CheckRow).id,
      ),
    );
    await t.world.checks.idle();
    expect(new Set(asked).size).toBeLessThanOrEqual(2);
  });

  test('a folder’s files are those of this moment', async () => {
    const project = await started('37005');
    const list = async () =>
      (
        (await (await t.ask('lead', 'GET', `/api/projects/${project.id}/folder?path=20_pieces/window-A`)).json()) as {
          files: { name: string; size: number }[];
        }
      ).files;
    expect(await list()).toEqual([]);
    writeFileSync(inStudio('37005_MSW_piece-37005/20_pieces/window-A/new.png'), '12345');
    expect(await list()).toMatchObject([{ name: 'new.png', size: 5 }]);
    expect((await t.ask('lead', 'GET', `/api/projects/${project.id}/folder?path=gone`)).status).toBe(404);
  });
});

describe('an installation given by hand', () => {
  const admin = (args: readonly string[], input = '') =>
    spawnSync(process.execPath, ['dist/admin.js', ...args], {
      input,
      encoding: 'utf8',
      env: { ...process.env, NESTING_DATABASE: t.config.databaseUrl },
    });

  test('a person, an edition and lists are taken in once, and refused in a line where they cannot be', () => {
    expect(
      admin(['person', 'Ada Quill', 'ada@tallow-street.example', 'AQ', 'artist'], 'a long password indeed\n'),
    ).toMatchObject({ status: 0 });
    expect(
      admin(['person', 'Ada Quill', 'ada@tallow-street.example', 'AZ', 'artist'], 'a long password indeed\n'),
    ).toMatchObject({ status: 2, stderr: expect.stringContaining('e-mail address or these initials') });
    expect(admin(['person', 'Ben', 'ben@x.example', 'BX', 'boss'], 'a long password indeed\n').stderr).toContain(
      'with a role of',
    );
    expect(admin(['person', 'Ben', 'ben@x.example', 'BX', 'lead'], 'short\n').stderr).toContain(
      'at least 12 characters',
    );
    expect(admin(['template', 'demo/templates/facade-show.nest.json']).stdout).toContain('edition 3, is in force');
    expect(admin(['template', 'demo/templates/facade-show.nest.json'])).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('raise the number'),
    });
    expect(admin(['registers', 'demo/registers.json']).status).toBe(0);
    expect(admin(['registers', 'package.json'])).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('none of the lists'),
    });
    expect(admin(['template', 'README.md'])).toMatchObject({ status: 2, stderr: expect.stringContaining('not JSON') });
  });
});

describe('what goes wrong around it', () => {
  test('a database that goes away is said at once, and work goes on when it is back', async () => {
    const own = await openTestWorld();
    try {
      for (const who of ROLES) await own.ask(who, 'GET', '/api/me');
      const name = new URL(own.config.databaseUrl).pathname.slice(1);
      await t.world.db.query(`alter database ${name} allow_connections false`);
      await t.world.db.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [name]);
      expect(await refusal(await own.ask('lead', 'GET', '/api/projects'))).toEqual([503, 'database-away']);
      expect(await refusal(await own.ask('coordinator', 'POST', '/api/projects', startOf('36001')))).toEqual([
        503,
        'database-lost',
      ]);
      expect(readdirSync(own.studio)).toEqual(['.nesting-volume']);
      await t.world.db.query(`alter database ${name} allow_connections true`);
      expect((await own.ask('lead', 'GET', '/api/projects')).status).toBe(200);
    } finally {
      await own.close();
    }
  });

  test('a database newer than the program is refused', async () => {
    const db = openDb(t.config.databaseUrl, 2);
    await db.query("insert into migration (name, run_on) values ('9999_from-the-future', now())");
    await expect(migrate(db, t.config.databaseUrl, t.config.migrations)).rejects.toBeInstanceOf(DatabaseNewer);
    await db.query("delete from migration where name like '9999%'");
    await db.end();
  });

  test('requests that are no JSON, too large, or of another form are answered', async () => {
    const origin = new URL(t.config.publicUrl).origin;
    expect((await t.ask('coordinator', 'POST', '/api/projects', { template: 7 })).status).toBe(400);
    expect(
      (await t.ask('coordinator', 'POST', '/api/projects', startOf('36002', { title: 'x'.repeat(5_000_000) }))).status,
    ).toBe(413);
    expect((await t.app.request('/api/nothing', { headers: { origin } })).status).toBe(404);
    expect((await t.ask('lead', 'GET', '/api/projects/not-an-id')).status).toBe(404);
  });

  const env = {
    NESTING_DATABASE: 'postgres://x',
    NESTING_SECRET: 'x'.repeat(40),
    NESTING_VOLUMES: 'studio=/srv/studio',
  };
  test.each([
    ['no database', { NESTING_DATABASE: '' }, 'NESTING_DATABASE'],
    ['a short secret', { NESTING_SECRET: 'short' }, '32 characters'],
    [
      'other machines without HTTPS',
      { NESTING_HOST: '0.0.0.0', NESTING_PUBLIC_URL: 'https://n.example' },
      'without HTTPS',
    ],
    [
      'a public address without HTTPS',
      { NESTING_HOST: '0.0.0.0', NESTING_BEHIND_PROXY: '1', NESTING_PUBLIC_URL: 'http://n.example' },
      'https:',
    ],
    [
      'a demo for other machines',
      {
        NESTING_DEMO: '1',
        NESTING_HOST: '0.0.0.0',
        NESTING_BEHIND_PROXY: '1',
        NESTING_PUBLIC_URL: 'https://n.example',
      },
      'this machine alone',
    ],
    ['the root as a volume', { NESTING_VOLUMES: 'all=/' }, 'below the root'],
    ['a relative volume', { NESTING_VOLUMES: 'all=here' }, 'whole path'],
    ['a certificate without its key', { NESTING_TLS_CERT: '/x' }, 'go together'],
  ])('a start with %s is refused in one line', (_what, more, words) => {
    const built = { webFolder: '', migrations: '', diskProgram: null };
    expect(() => configOf({ ...env, ...more }, built)).toThrow(words);
    expect(configOf(env, built).volumes.get('studio')).toBe('/srv/studio');
  });
});

function runCli(args: readonly string[]): string {
  try {
    return execFileSync(process.execPath, ['bin/nesting.js', ...args], { encoding: 'utf8' });
  } catch (error) {
    return (error as { stdout: string }).stdout;
  }
}
