/**
 * The house's lists, numbers, volumes and activity: exact under many at once and across a kill, and told in words where
 * something is refused.
 */
import { spawn } from 'node:child_process';
import { cpSync, mkdirSync, readdirSync, renameSync, symlinkSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  ActivityPage,
  ActivityRow,
  FoundProject,
  Imported,
  ListEntryRow,
  NumberPage,
  ProjectList,
  ProjectRow,
  VolumeRow,
} from '@nesting/contract';
import { ACTIVITY_WORDS, activityWords } from '@nesting/core/words';
import { ACTIVITY } from '../src/db/queries/house/activity';
import { insertProject } from '../src/db/queries/projects/projects';
import { claimNumber, giveBackNumber, holdNumber } from '../src/flows/house/numbers';
import { transaction } from '../src/index';
import { settleLost } from '../src/serve';
import { openTestWorld, startOf, type TestWorld } from './world';

let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld();
});
afterAll(() => t.close());

const json = async <T>(response: Response) => (await response.json()) as T;
const get = async <T>(address: string) => json<T>(await t.ask('coordinator', 'GET', address));
const answer = async (method: string, address: string, body?: unknown) => {
  const response = await t.ask('coordinator', method, address, body);
  return [response.status, response.status >= 400 ? (await json<{ code: string }>(response)).code : ''];
};
const entry = async (list: string, key: string) =>
  (await get<ListEntryRow[]>(`/api/lists/${list}`)).find((e) => e.key === key) as ListEntryRow;

describe('registers', () => {
  test('an entry is added, changed, found in its history, and changed by one person at a time', async () => {
    expect(await answer('POST', '/api/lists/clients', { cells: { code: 'FNR', name: ' Fennel & Rook ' } })).toEqual([
      201,
      '',
    ]);
    const { version, cells } = await entry('clients', 'FNR');
    expect(cells).toEqual({ code: 'FNR', name: 'Fennel & Rook', colour: '', notes: '', retired: '' });
    expect(
      await answer('PUT', '/api/lists/clients/FNR', { cells: { ...cells, name: 'Fennel & Rook Theatre' }, version }),
    ).toEqual([200, '']);
    expect(await answer('PUT', '/api/lists/clients/FNR', { cells: { ...cells, notes: 'x' }, version })).toEqual([
      409,
      'entry-changed',
    ]);
    const history = await get<ActivityRow[]>('/api/lists/clients/fnr/history');
    expect(history.map((h) => h.what)).toEqual(['entry-changed', 'entry-added']);
    expect(activityWords('entry-changed', history[0]?.params ?? {})).toBe(
      'changed the client FNR: name: Fennel & Rook → Fennel & Rook Theatre',
    );
  });

  test('codes that are taken, alike but for their case, or no codes are refused, and nothing changes', async () => {
    const before = await get<ListEntryRow[]>('/api/lists/clients');
    for (const code of ['QHT', 'qht'])
      expect(await answer('POST', '/api/lists/clients', { cells: { code, name: 'x' } })).toEqual([409, 'entry-there']);
    for (const code of ['a/b', 'a b', '🦦', '', 'É', '../x', 'x'.repeat(13)])
      expect([code, ...(await answer('POST', '/api/lists/clients', { cells: { code, name: 'x' } }))]).toEqual([
        code,
        422,
        'cell-refused',
      ]);
    expect(await answer('POST', '/api/lists/abbreviations', { cells: { long: 'music', short: 'MUS' } })).toEqual([
      201,
      '',
    ]);
    expect(await answer('POST', '/api/lists/abbreviations', { cells: { long: 'museum', short: 'mus' } })).toEqual([
      409,
      'short-there',
    ]);
    expect(await answer('GET', '/api/lists/people')).toEqual([404, 'not-found']);
    expect(await get<ListEntryRow[]>('/api/lists/clients')).toEqual(before);
  });

  test('what projects use is never deleted, and its code stays; it is retired, or merged', async () => {
    expect((await t.ask('coordinator', 'POST', '/api/projects', startOf('35001'))).status).toBe(201);
    const msw = await entry('clients', 'MSW');
    expect(msw.used).toBe(1);
    expect(await answer('DELETE', '/api/lists/clients/MSW')).toEqual([409, 'entry-used']);
    expect(
      await answer('PUT', '/api/lists/clients/MSW', { cells: { ...msw.cells, code: 'MOW' }, version: msw.version }),
    ).toEqual([409, 'entry-in-names']);
    expect(
      await answer('POST', '/api/lists/clients', { cells: { code: 'MSW2', name: 'Museum of small Weather' } }),
    ).toEqual([201, '']);
    expect(await answer('POST', '/api/lists/clients/merge', { from: 'MSW', into: 'MSW2' })).toEqual([204, '']);
    expect(await entry('clients', 'MSW')).toMatchObject({ used: 0, cells: { retired: 'yes' } });
    expect(await entry('clients', 'MSW2')).toMatchObject({ used: 1 });
    expect(await answer('POST', '/api/lists/clients/merge', { from: 'MSW2', into: 'MSW' })).toEqual([
      409,
      'entry-retired',
    ]);
    expect(await answer('POST', '/api/lists/clients/merge', { from: 'QHT', into: 'QHT' })).toEqual([
      404,
      'two-entries',
    ]);
    // What the project's names say stays what it was.
    const [project] = (await get<ProjectList>('/api/projects')).rows;
    expect(project).toMatchObject({ client: 'MSW2', folder: '35001_MSW_piece-35001' });
    await answer('POST', '/api/lists/clients', { cells: { code: 'GONE', name: 'x' } });
    expect(await answer('DELETE', '/api/lists/clients/GONE')).toEqual([204, '']);
  });

  test('a family that templates name stays; two families become one', async () => {
    const { template } = (await get<{ template: { root: object } }[]>('/api/templates'))[0] as {
      template: { root: { folders: { accepts?: string[] }[] } };
    };
    const named = JSON.stringify(template.root).match(/"accepts":\["([^"]+)"/)?.[1] as string;
    expect(await answer('POST', '/api/lists/families', { cells: { name: named, extensions: 'png' } })).toEqual([
      201,
      '',
    ]);
    expect(await answer('POST', '/api/lists/families', { cells: { name: 'photo', extensions: 'jpg, .PNG' } })).toEqual([
      201,
      '',
    ]);
    expect(await answer('DELETE', `/api/lists/families/${encodeURIComponent(named)}`)).toEqual([409, 'entry-used']);
    expect(await answer('POST', '/api/lists/families/merge', { from: 'photo', into: named })).toEqual([204, '']);
    expect((await entry('families', named)).cells.extensions).toBe('png jpg');
  });

  test('a table is looked at anew and taken in whole, or not at all', async () => {
    const table = [
      ['Code', 'Name'],
      ['BRO', 'Brindlecombe Observatory'],
      ['QHT', 'Quillhaven Harbour Trust, anew'],
      ['a/b', 'x'],
      ['SAK', '=cmd()'],
    ];
    const before = await get<ListEntryRow[]>('/api/lists/clients');
    expect(await answer('POST', '/api/lists/clients/import', { table, lines: [2, 3, 4] })).toEqual([
      422,
      'table-refused',
    ]);
    expect(await get<ListEntryRow[]>('/api/lists/clients')).toEqual(before);
    expect(
      await json<Imported>(
        await t.ask('coordinator', 'POST', '/api/lists/clients/import', { table, lines: [2, 3, 5] }),
      ),
    ).toEqual({ added: 2, changed: 1 });
    expect((await entry('clients', 'SAK')).cells.name).toBe('=cmd()');
    expect((await get<ActivityRow[]>('/api/lists/clients/qht/history'))[0]).toMatchObject({
      what: 'entry-changed',
      params: { imported: 1, was: { name: 'Quillhaven Harbour Trust' } },
    });
    expect(await answer('POST', '/api/lists/clients/import', { table: [['Titel'], ['x']], lines: [2] })).toEqual([
      422,
      'table-refused',
    ]);
    const many = [['Code', 'Name'], ...Array.from({ length: 10_000 }, (_, i) => [`N${i}`, `Client ${i}`])];
    expect(
      await json<Imported>(
        await t.ask('coordinator', 'POST', '/api/lists/clients/import', {
          table: many,
          lines: many.slice(1).map((_, i) => i + 2),
        }),
      ),
    ).toEqual({ added: 10_000, changed: 0 });
  });
});

describe('project numbers', () => {
  const at = (year: number) => ({ year, month: 1, client: null, template: null });
  const unexplained = (page: NumberPage) => page.lines.filter((l) => l.state === 'unexplained').map((l) => l.number);

  test('five hundred who start at once, some of whom leave: no number twice, no hole unexplained', async () => {
    const { db } = t.world;
    await db.query(
      "insert into person (id, name, email, initials, role) select 'p' || n, 'P' || n, 'p' || n || '@x.example', 'Z' || chr(65 + n / 26) || chr(65 + n % 26), 'coordinator' from generate_series(0, 499) n",
    );
    const make = async (i: number): Promise<string | null> => {
      const { number } = await holdNumber(t.world, `p${i}`, at(2031));
      if (i % 7 === 3) {
        await giveBackNumber(t.world, `p${i}`, number);
        return null;
      }
      await transaction(db, async (client) => {
        await claimNumber(client, `p${i}`, number, number);
        await insertProject(client, {
          id: `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`,
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
          folder: number,
          person: `p${i}`,
        });
      });
      return number;
    };
    const numbers = (await Promise.all(Array.from({ length: 500 }, (_, i) => make(i)))).filter((n) => n !== null);
    expect(new Set(numbers).size).toBe(numbers.length);
    expect(numbers.length).toBe(500 - 71);
    const page = await get<NumberPage>('/api/numbers?scope=31');
    expect(unexplained(page)).toEqual([]);
    expect(page.lines.filter((l) => l.state === 'project')).toHaveLength(numbers.length);
    // Numbers that came back are offered first, the lowest of them.
    const free = page.lines
      .filter((l) => l.state === 'free')
      .map((l) => l.number)
      .sort();
    const next = await holdNumber(t.world, 'p3', at(2031));
    expect(next.number).toBe(free[0] ?? `31${String(page.lines.length + 1).padStart(3, '0')}`);
    await db.query("delete from project where number like '31%'");
  });

  test('a server killed while many start leaves no number twice and no hole unexplained', async () => {
    const own = await openTestWorld();
    const port = 20_000 + Math.floor(Math.random() * 20_000);
    const env = {
      ...process.env,
      NESTING_DATABASE: own.config.databaseUrl,
      NESTING_SECRET: 'x'.repeat(40),
      NESTING_VOLUMES: `studio=${own.studio}`,
      NESTING_PORT: String(port),
      NESTING_LOG: 'info',
      NESTING_LEASE_SECONDS: '1',
    };
    try {
      const origin = `http://127.0.0.1:${port}`;
      for (const killedAfter of [3, 9]) {
        const server = spawn(process.execPath, ['dist/server.js'], { env, stdio: ['ignore', 'pipe', 'inherit'] });
        const gone = new Promise((resolve) => server.once('exit', resolve));
        await new Promise<void>((resolve) =>
          server.stdout.on('data', (line: Buffer) => line.includes('Nesting is at') && resolve()),
        );
        const signed = await fetch(`${origin}/api/auth/sign-in/email`, {
          method: 'POST',
          headers: { origin, 'content-type': 'application/json' },
          body: JSON.stringify({ email: 'coordinator@tallow-street.example', password: 'a long enough password' }),
        });
        const headers = {
          origin,
          cookie: (signed.headers.get('set-cookie') ?? '').split(';')[0] as string,
          'content-type': 'application/json',
        };
        let done = 0;
        const start = async (i: number): Promise<void> => {
          const response = await fetch(`${origin}/api/projects`, {
            method: 'POST',
            headers,
            body: JSON.stringify(startOf(`27${String(killedAfter * 20 + i).padStart(3, '0')}`)),
          });
          // Killed by what has happened, not by the clock.
          if (response.status === 201 && ++done === killedAfter) server.kill('SIGKILL');
        };
        await Promise.allSettled(Array.from({ length: 18 }, (_, i) => start(i)));
        if (done < killedAfter) server.kill('SIGKILL');
        await gone;
      }
      // Another server settles what was cut short, once the leases of the killed one are over.
      const isLeft = async () =>
        ((await own.world.db.query("select 1 from project where state = 'starting'")).rowCount ?? 0) > 0;
      while (await isLeft()) await settleLost(own.world);
      const page = await json<NumberPage>(await own.ask('coordinator', 'GET', '/api/numbers?scope=27'));
      expect(page.lines.length).toBeGreaterThan(12);
      expect(unexplained(page)).toEqual([]);
      const projects = (await json<ProjectList>(await own.ask('coordinator', 'GET', '/api/projects'))).rows;
      expect(projects.every((p) => p.state === 'running')).toBe(true);
      const folders = readdirSync(own.studio).filter((name) => name !== '.nesting-volume');
      expect(folders.sort()).toEqual(projects.map((p) => p.folder).sort());
      expect(
        page.lines
          .filter((l) => l.state === 'project')
          .map((l) => l.number)
          .sort(),
      ).toEqual(projects.map((p) => p.number).sort());
    } finally {
      await own.close();
    }
  });

  test('a number written by hand is looked at: of another form, passing over others, reserved', async () => {
    const look = (number: string) =>
      t
        .ask('coordinator', 'POST', '/api/projects/look', { number, volume: 'studio', folder: 'x' })
        .then((r) => json<{ numberNote: string | null; numberReserved: string | null }>(r));
    expect((await look('P-17')).numberNote).toContain('not of the house');
    expect((await look('36005')).numberNote).toBe('It passes over 4 numbers.');
    expect(await answer('POST', '/api/numbers/reserved', { number: '36002', why: 'The festival' })).toEqual([204, '']);
    expect(await answer('POST', '/api/numbers/reserved', { number: '36002', why: 'Again' })).toEqual([
      409,
      'number-taken',
    ]);
    expect((await look('36002')).numberReserved).toBe('The festival');
    expect((await t.ask('coordinator', 'POST', '/api/projects', startOf('36002'))).status).toBe(409);
    expect((await t.ask('coordinator', 'POST', '/api/projects', startOf('36005', { client: 'QHT' }))).status).toBe(201);
    const page = await get<NumberPage>('/api/numbers?scope=36');
    expect(page.lines.map((l) => [l.number, l.state, l.what])).toEqual([
      ['36005', 'project', 'used'],
      ['36004', 'free', 'passed-over'],
      ['36003', 'free', 'passed-over'],
      ['36002', 'reserved', 'passed-over'],
      ['36001', 'free', 'passed-over'],
    ]);
    const next = async () =>
      (await json<{ number: string }>(await t.ask('coordinator', 'POST', '/api/numbers/hold', { year: 2036 }))).number;
    expect(await next()).toBe('36006');
    expect(await answer('DELETE', '/api/numbers/reserved/36002')).toEqual([204, '']);
    expect(await answer('DELETE', '/api/numbers/hold/36006')).toEqual([204, '']);
    expect(await next()).toBe('36002');
  });

  test('another series counts by client from what is there; one that would give a number twice is refused', async () => {
    const { series, version } = await get<NumberPage>('/api/numbers');
    const save = (change: object, v = version) =>
      answer('PUT', '/api/numbers/series', { series: { ...series, ...change }, version: v });
    expect(await save({ pattern: '{n:000}' })).toEqual([422, 'series-refused']);
    expect(await save({ pattern: '{yy}{what}' })).toEqual([422, 'series-refused']);
    expect(await save({ pattern: '{client}-{yy}-{n:00}', reset: 'client-yearly' })).toEqual([204, '']);
    expect(await save({ start: 5 })).toEqual([409, 'series-changed']);
    const hold = (body: object) => t.ask('coordinator', 'POST', '/api/numbers/hold', { year: 2037, ...body });
    expect((await hold({})).status).toBe(422);
    expect((await json<{ number: string }>(await hold({ client: 'QHT' }))).number).toBe('QHT-37-01');
    expect((await json<{ number: string }>(await hold({ client: 'FNR' }))).number).toBe('FNR-37-01');
    expect(await save({ pattern: series.pattern, reset: series.reset }, version + 1)).toEqual([204, '']);
  });
});

describe('volumes', () => {
  test('a project that was moved is found by its marker and linked again; a copy is told apart; nothing outside is looked at', async () => {
    const [project] = (await get<ProjectList>('/api/projects')).rows;
    const { folder, id } = project as ProjectRow;
    mkdirSync(path.join(t.studio, 'put-away/2035'), { recursive: true });
    const home = path.join(t.studio, folder);
    const moved = path.join(t.studio, 'put-away/2035', folder);
    renameSync(home, moved);
    // A marker somebody wrote, a link out, and a folder of another installation are no projects of ours.
    mkdirSync(path.join(t.studio, 'forged/.nesting'), { recursive: true });
    writeFileSync(path.join(t.studio, 'forged/.nesting/project.json'), '{"format":"nesting/marker","project":5}');
    symlinkSync('/', path.join(t.studio, 'everything'));
    const found = await get<FoundProject[]>('/api/volumes/projects');
    expect(found).toEqual([
      {
        project: id,
        number: project?.number,
        title: project?.title,
        was: { volume: 'studio', folder },
        places: [{ volume: 'studio', folder: `put-away/2035/${folder}` }],
        state: 'moved',
      },
    ]);
    expect(await answer('POST', '/api/volumes/relink', { project: id, volume: 'studio', folder: 'forged' })).toEqual([
      409,
      'not-there',
    ]);
    for (const out of ['..', '/etc', 'everything/etc', `put-away/../../${folder}`])
      expect([
        out,
        ...(await answer('POST', '/api/volumes/relink', { project: id, volume: 'studio', folder: out })),
      ]).toEqual([out, 409, 'not-there']);
    expect(
      await answer('POST', '/api/volumes/relink', { project: id, volume: 'studio', folder: `put-away/2035/${folder}` }),
    ).toEqual([204, '']);
    expect((await get<ProjectList>('/api/projects')).rows.find((p) => p.id === id)?.folder).toBe(
      `put-away/2035/${folder}`,
    );
    expect(await get<FoundProject[]>('/api/volumes/projects')).toEqual([]);
    cpSync(moved, path.join(t.studio, 'careless copy'), { recursive: true });
    expect((await get<FoundProject[]>('/api/volumes/projects')).map((f) => [f.state, f.places])).toEqual([
      ['copied', [{ volume: 'studio', folder: 'careless copy' }]],
    ]);
  });

  test('each system has its own way to a volume; what is none is refused', async () => {
    const put = (prefixes: object) =>
      answer('PUT', '/api/volumes/studio/prefixes', { windows: '', macos: '', linux: '', ...prefixes });
    expect(await put({ windows: 'S:\\', macos: '/Volumes/studio' })).toEqual([204, '']);
    for (const odd of [{ windows: '/mnt/x' }, { windows: 'S:\\a|b' }, { macos: 'S:\\' }, { linux: 'mnt/studio' }])
      expect(await put(odd)).toEqual([422, 'prefix-refused']);
    expect(await answer('PUT', '/api/volumes/elsewhere/prefixes', { windows: '', macos: '', linux: '' })).toEqual([
      404,
      'no-volume',
    ]);
    const rows = await get<VolumeRow[]>('/api/volumes');
    expect(rows.map((v) => [v.name, v.state, v.prefixes.windows])).toEqual([
      ['studio', 'ready', 'S:\\'],
      ['away', 'missing', ''],
    ]);
  });
});

describe('activity', () => {
  test('everything has its words, who, when and from where; it is filtered, searched, paged by key and exported', async () => {
    expect(ACTIVITY.filter((what) => !ACTIVITY_WORDS.includes(what))).toEqual([]);
    const page = await get<ActivityPage>('/api/activity');
    expect(page.rows.length).toBe(200);
    expect(page.more).toBe(true);
    const next = await get<ActivityPage>(`/api/activity?before=${page.rows.at(-1)?.id}`);
    expect(next.rows[0]?.id).toBeLessThan(page.rows.at(-1)?.id as number);
    const found = await get<ActivityPage>('/api/activity?text=festiv');
    expect(found.rows.map((r) => r.what)).toEqual(['number-reserved']);
    expect((await get<ActivityPage>(`/api/activity?person=${t.people.artist}`)).rows).toEqual([]);
    expect(
      (await get<ActivityPage>('/api/activity?what=entries-merged')).rows.every((r) => r.by === 'The coordinator'),
    ).toBe(true);
    expect((await get<ActivityPage>('/api/activity?until=2020-01-01')).rows).toEqual([]);
    for (const odd of ["text=' or 1=1 --", 'text=%26%7C!()', 'text=:*'])
      expect((await t.ask('coordinator', 'GET', `/api/activity?${odd}`)).status).toBe(200);
    expect(await answer('GET', '/api/activity?since=yesterday')).toEqual([400, 'not-as-expected']);
    expect((await t.ask('artist', 'GET', '/api/activity')).status).toBe(403);
    const csv = await (await t.ask('lead', 'GET', '/api/activity.csv?what=entry-added')).text();
    expect(csv.split('\r\n')[0]).toBe('at,by,what,words,subject,project,from,request,details');
    expect(csv.split('\r\n').length).toBeGreaterThan(10_000);
  });
});
