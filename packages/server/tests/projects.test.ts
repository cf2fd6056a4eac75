/**
 * Projects beyond their start: lists by page, states, notes, rules of their own, first days, signposts; and starts
 * written otherwise than anew on a volume.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import {
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { ProjectList, ProjectPage, ProjectRow } from '@nesting/contract';
import { filesOf } from '../src/flows/rules/zip';
import { openTestWorld, startOf, type TestWorld } from './world';

let t: TestWorld;
let elsewhere: string;
beforeAll(async () => {
  t = await openTestWorld();
  elsewhere = mkdtempSync(path.join(tmpdir(), 'nesting-elsewhere-'));
});
afterAll(async () => {
  await t.close();
  rmSync(elsewhere, { recursive: true, force: true });
});

const json = async <T>(response: Response) => (await response.json()) as T;
const code = async (response: Response) => [
  response.status,
  response.status >= 400 ? (await json<{ code: string }>(response)).code : '',
];
const start = async (number: string, values = {}, more = {}): Promise<ProjectRow> => {
  const response = await t.ask('coordinator', 'POST', '/api/projects', { ...startOf(number, values), ...more });
  if (response.status !== 201) throw new Error(await response.text());
  return json<ProjectRow>(response);
};
const page = async (id: string) => json<ProjectPage>(await t.ask('lead', 'GET', `/api/projects/${id}`));
const list = async (query: string) => json<ProjectList>(await t.ask('coordinator', 'GET', `/api/projects?${query}`));

/** Every path below a folder with its content, project ids and times left out: they differ from start to start. */
function treeOf(root: string): string[] {
  return readdirSync(root, { recursive: true, encoding: 'utf8' })
    .map((p) => {
      const whole = path.join(root, p);
      if (statSync(whole).isDirectory()) return `${p}/`;
      return `${p} ${readFileSync(whole, 'utf8').replace(/"(project|started)": "[^"]*"/g, '"$1": ""')}`;
    })
    .sort();
}

describe('where a start is written', () => {
  test('a volume, a zip, a shell script and the steps of a browser give exactly the same tree', async () => {
    const folder = (await start('41001')).folder;
    const wanted = treeOf(path.join(t.studio, folder));
    expect(wanted.length).toBeGreaterThan(8);
    const request = startOf('41001');
    const write = async (as: string) =>
      new Uint8Array(await (await t.ask('coordinator', 'POST', `/api/projects/write?as=${as}`, request)).arrayBuffer());
    // The zip by the unzip of another program.
    const zipped = path.join(elsewhere, 'zip');
    mkdirSync(zipped);
    writeFileSync(path.join(zipped, 'p.zip'), await write('zip'));
    execFileSync('python3', ['-m', 'zipfile', '-e', 'p.zip', '.'], { cwd: zipped });
    expect(treeOf(path.join(zipped, folder))).toEqual(wanted);
    expect((await filesOf(await write('zip'))).size).toBeGreaterThan(3);
    // The script by a real shell; run twice, or where something of that name stands, it makes nothing.
    const shell = path.join(elsewhere, 'sh');
    mkdirSync(shell);
    writeFileSync(path.join(shell, 'p.sh'), await write('sh'));
    const run = () => spawnSync('sh', ['p.sh'], { cwd: shell, encoding: 'utf8' });
    expect(run().status).toBe(0);
    expect(treeOf(path.join(shell, folder))).toEqual(wanted);
    writeFileSync(path.join(shell, folder, 'mine.txt'), 'mine');
    expect(run()).toMatchObject({ status: 1, stderr: expect.stringContaining('nothing was made') });
    expect(readFileSync(path.join(shell, folder, 'mine.txt'), 'utf8')).toBe('mine');
    // Steps and PowerShell by their text: every path and content is in them.
    const steps = JSON.parse(Buffer.from(await write('steps')).toString()) as {
      root: string;
      steps: { do: string; path: string; base64?: string }[];
    };
    const told = steps.steps.map((s) =>
      s.do === 'make'
        ? `${s.path}/`
        : `${s.path} ${Buffer.from(s.base64 ?? '', 'base64')
            .toString()
            .replace(/"(project|started)": "[^"]*"/g, '"$1": ""')}`,
    );
    expect([steps.root, told.sort()]).toEqual([folder, wanted]);
    const powershell = Buffer.from(await write('powershell')).toString();
    for (const s of steps.steps) expect(powershell).toContain(`'${s.path.replaceAll('/', '\\')}'`);
    expect(powershell.match(/WriteAllBytes/g)?.length).toBe(steps.steps.filter((s) => s.do === 'write').length);
    expect(await code(await t.ask('coordinator', 'POST', '/api/projects/write?as=tar', request))).toEqual([
      400,
      'not-as-expected',
    ]);
  });

  test.each(['.nesting', '.Nesting', '.NESTING-volume'])(
    'a folder that would be called %s: nothing is written, and no number is used',
    async (name) => {
      const { body } = await page((await list('find=41001')).rows[0]?.id ?? '');
      const given = { ...startOf('41020'), adjusted: { [body.root.folders?.[0]?.id ?? '']: { name } } };
      const refused = await t.ask('coordinator', 'POST', '/api/projects', given);
      expect([refused.status, await refused.json()]).toEqual([
        422,
        expect.objectContaining({
          code: 'plan-refused',
          params: expect.objectContaining({ because: { code: 'name-own', params: { at: 0, name } } }),
          message: expect.stringContaining('Nesting keeps for its own files'),
        }),
      ]);
      expect(readdirSync(t.studio).filter((n) => n.includes('41020'))).toEqual([]);
    },
  );

  test('into a folder that is there: what is there stays, what is missing is added; a file, a link or a project in the way stops it before it began', async () => {
    const folder = '41002_MSW_piece-41002';
    const root = path.join(t.studio, folder);
    const first = readdirSync(path.join(t.studio, '41001_MSW_piece-41001'), { withFileTypes: true })
      .filter((e) => e.isDirectory() && e.name !== '.nesting')
      .map((e) => e.name)[0] as string;
    mkdirSync(path.join(root, first), { recursive: true });
    writeFileSync(path.join(root, first, 'mine.pdf'), 'mine');
    writeFileSync(path.join(root, '41002_brief.md'), 'my own brief');
    expect(await code(await t.ask('coordinator', 'POST', '/api/projects', startOf('41002')))).toEqual([
      409,
      'folder-exists',
    ]);
    expect(
      await json<string[]>(
        await t.ask('coordinator', 'POST', '/api/projects/there', {
          volume: 'studio',
          folder,
          paths: [first, 'nothing', '41002_brief.md', '../41001_MSW_piece-41001'],
        }),
      ),
    ).toEqual([first, '41002_brief.md']);
    const project = await start('41002', {}, { into: true });
    expect(project.state).toBe('running');
    expect(readFileSync(path.join(root, '41002_brief.md'), 'utf8')).toBe('my own brief');
    expect(readFileSync(path.join(root, first, 'mine.pdf'), 'utf8')).toBe('mine');
    const names = (of: string) =>
      treeOf(path.join(t.studio, of))
        .map((l) =>
          l
            .replace(/ [\s\S]*/, '')
            .replaceAll('41001', 'N')
            .replaceAll('41002', 'N'),
        )
        .filter((l) => !l.endsWith('mine.pdf') && !l.startsWith('.nesting/batches'));
    expect(names(folder)).toEqual(names('41001_MSW_piece-41001'));
    // Another project's folder, a file where a folder is planned, a link that leads out.
    expect(
      await code(
        await t.ask('coordinator', 'POST', '/api/projects', { ...startOf('41003', { title: 'x' }), into: true }),
      ),
    ).toEqual([404, 'no-folder']);
    for (const [number, make] of [
      ['41004', (at: string) => writeFileSync(path.join(at, first), 'a file')],
      ['41005', (at: string) => symlinkSync('/tmp', path.join(at, first))],
    ] as const) {
      const at = path.join(t.studio, `${number}_MSW_piece-${number}`);
      mkdirSync(at);
      make(at);
      const before = readdirSync(at);
      expect((await t.ask('coordinator', 'POST', '/api/projects', { ...startOf(number), into: true })).status).toBe(
        409,
      );
      expect(readdirSync(at)).toEqual(before);
      expect((await t.world.db.query('select 1 from project where number = $1', [number])).rowCount).toBe(0);
    }
  });

  test('lines left out, renamed and made for one project are so on the disk, in its marker, and for its check', async () => {
    const plain = readdirSync(path.join(t.studio, '41001_MSW_piece-41001'))
      .filter((n) => !n.startsWith('.') && !n.includes('brief'))
      .sort();
    const body = (await page((await list('find=41001')).rows[0]?.id as string)).body;
    const [gone, other] =
      body.root.folders?.filter(
        (f) => f.onePer === undefined && f.presence === undefined && f.onlyWhen === undefined,
      ) ?? [];
    if (gone === undefined || other === undefined) throw new Error('the template is too small');
    const project = await start(
      '41006',
      {},
      { adjusted: { [gone.id]: { leaveOut: true }, [other.id]: { name: 'elsewhere' } } },
    );
    const there = readdirSync(path.join(t.studio, project.folder)).filter(
      (n) => !n.startsWith('.') && !n.includes('brief'),
    );
    expect(there).toContain('elsewhere');
    expect(there).toHaveLength(plain.length - 1);
    expect(
      JSON.parse(readFileSync(path.join(t.studio, project.folder, '.nesting/template.nest.json'), 'utf8')).adjusted,
    ).toEqual({ [gone.id]: { leaveOut: true }, [other.id]: { name: 'elsewhere' } });
    await t.world.checks.idle();
    expect((await page(project.id)).check?.counts).toEqual({ must: 0, should: 0, note: 0 });
    // The command line goes by the same rules, from the folder alone.
    const run = spawnSync(process.execPath, ['bin/nesting.js', 'check', path.join(t.studio, project.folder)], {
      encoding: 'utf8',
    });
    expect([run.status, run.stderr]).toEqual([0, '']);
    expect(
      await code(
        await t.ask('coordinator', 'POST', '/api/projects', {
          ...startOf('41007'),
          adjusted: { [other.id]: { name: 'a/b' } },
        }),
      ),
    ).toEqual([422, 'plan-refused']);
  });

  test('a folder redirected to another volume lies there whole, is not missed here, and has its signpost; what fails half way is taken back on both', async () => {
    const own = await openTestWorld();
    const away = own.config.volumes.get('away') as string;
    const request = (number: string, adjusted: object) =>
      own.ask('coordinator', 'POST', '/api/projects', { ...startOf(number), adjusted });
    try {
      const node = 'cache';
      expect(await code(await request('43001', { [node]: { volume: 'away' } }))).toEqual([503, 'volume-missing']);
      mkdirSync(away);
      expect(await code(await request('43001', { [node]: { volume: 'away' } }))).toEqual([409, 'volume-new']);
      expect((await own.ask('coordinator', 'POST', '/api/volumes/away/take-up', {})).status).toBe(204);
      expect(await code(await request('43001', { [node]: { volume: 'studio' } }))).toEqual([422, 'same-volume']);
      const project = await json<ProjectRow>(await request('43001', { [node]: { volume: 'away' } }));
      const here = readdirSync(path.join(own.studio, project.folder), { recursive: true, encoding: 'utf8' });
      const there = readdirSync(path.join(away, project.folder), { recursive: true, encoding: 'utf8' });
      expect(there.length).toBeGreaterThan(0);
      expect(here.filter((p) => there.includes(p))).toEqual([]);
      await own.world.checks.idle();
      const { check } = await json<ProjectPage>(await own.ask('lead', 'GET', `/api/projects/${project.id}`));
      expect(check?.counts).toEqual({ must: 0, should: 0, note: 0 });
      const signposts = await json<Record<string, string>>(await own.ask('lead', 'GET', '/api/signposts/43001'));
      expect(Object.values(signposts).filter((p) => p.startsWith(`${away}/`))).toEqual([
        path.join(away, project.folder, there[0] as string),
      ]);
      // In the way on the project's own volume: the other one is left as it was.
      mkdirSync(path.join(own.studio, '43002_MSW_piece-43002'));
      expect((await request('43002', { [node]: { volume: 'away' } })).status).toBe(409);
      expect(readdirSync(away).sort()).toEqual(['.nesting-volume', project.folder]);
      // In the way on the other volume: nothing here.
      mkdirSync(path.join(away, '43003_MSW_piece-43003'));
      expect((await request('43003', { [node]: { volume: 'away' } })).status).toBe(409);
      expect(readdirSync(own.studio).filter((n) => n.includes('43003'))).toEqual([]);
    } finally {
      await own.close();
    }
  });

  test('a start that is stopped while it is written leaves nothing behind, and its number is free', async () => {
    const { startProject, makingOf } = await import('../src/flows/projects/start-project');
    const key = '11111111-1111-4111-8111-111111111111';
    const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
    // Long enough that it is still being written when the word reaches it.
    const given = startOf('41009', { windows: letters.flatMap((a) => letters.map((b) => `${a}${b}`)) });
    const stop = new AbortController();
    const started = startProject(t.world, t.people.coordinator, { ...given, key }, stop.signal);
    const ended = started.then(
      () => true,
      () => true,
    );
    const tick = () => new Promise((resolve) => setImmediate(() => resolve(false)));
    while (makingOf(key) === null && !(await Promise.race([ended, tick()])));
    stop.abort();
    await expect(started).rejects.toMatchObject({
      code: 'start-cancelled',
      message: 'Stopped before it was made. Nothing was left behind.',
    });
    expect(makingOf(key)).toBeNull();
    expect(readdirSync(t.studio).filter((n) => n.includes('41009') || n.startsWith('.nesting-unfinished'))).toEqual([]);
    expect(
      (await t.world.db.query("select what from number_event where number = '41009' order by id desc limit 1")).rows,
    ).toEqual([{ what: 'freed' }]);
    await start('41009');
  });

  test('many entries, dates that do not exist and values of the wrong sort are answered', async () => {
    expect(
      (
        await t.ask(
          'coordinator',
          'POST',
          '/api/projects',
          startOf('41008', { windows: Array.from({ length: 100_000 }, (_, i) => `w${i}`) }),
        )
      ).status,
    ).toBe(400);
    expect(
      (await t.ask('coordinator', 'POST', '/api/projects', startOf('41008', { windows: '1..99999999' }))).status,
    ).toBe(422);
    expect((await t.ask('coordinator', 'POST', '/api/projects', startOf('41008', { date: '2026-02-31' }))).status).toBe(
      422,
    );
    expect(readdirSync(t.studio).filter((n) => n.includes('41008'))).toEqual([]);
  });
});

describe('a project’s life', () => {
  test('its state, and what the team should know, by one person at a time; a closed one is found by its state', async () => {
    const { id } = await start('42001', { title: 'Reed Lanterns' });
    const { version } = await page(id);
    expect(
      (
        await t.ask('coordinator', 'PUT', `/api/projects/${id}`, {
          version,
          state: 'closed',
          teamNote: 'Poles are in the yard.',
        })
      ).status,
    ).toBe(204);
    expect(await code(await t.ask('coordinator', 'PUT', `/api/projects/${id}`, { version, state: 'running' }))).toEqual(
      [409, 'project-changed'],
    );
    expect(
      await code(await t.ask('coordinator', 'PUT', `/api/projects/${id}`, { version: version + 1, state: 'starting' })),
    ).toEqual([400, 'not-as-expected']);
    expect(
      (await t.ask('artist', 'PUT', `/api/projects/${id}`, { version: version + 1, state: 'running' })).status,
    ).toBe(403);
    expect((await list('state=closed')).rows.map((p) => p.number)).toEqual(['42001']);
    expect((await list('find=poles+yard')).rows.map((p) => p.number)).toEqual(['42001']);
    expect((await list('find=42001')).states).toEqual({ closed: 1 });
    expect((await list('find=%25')).rows).toEqual([]);
  });

  test('pinned ones stand in front, then those opened last; pages follow one another without a gap', async () => {
    const all = (await list('by=number&down=false')).rows;
    const [first] = all;
    await t.ask('coordinator', 'POST', `/api/me/projects/${first?.id}`, { pinned: true });
    await t.ask('coordinator', 'POST', `/api/me/projects/${all[2]?.id}`, {});
    expect((await list('')).rows.slice(0, 2).map((p) => p.id)).toEqual([first?.id, all[2]?.id]);
    // One's own pins are nobody else's.
    expect((await json<ProjectList>(await t.ask('lead', 'GET', '/api/projects'))).rows.every((p) => !p.pinned)).toBe(
      true,
    );
    const paged: string[] = [];
    for (let from = 0, more = true; more; from += 2) {
      const { rows, more: next } = await list(`by=title&limit=2&from=${from}`);
      paged.push(...rows.map((p) => p.id));
      more = next;
    }
    expect(paged.sort()).toEqual(all.map((p) => p.id).sort());
    for (const by of ['client', 'template', 'state', 'check', 'findings', 'size', 'volume', 'by', 'started'])
      expect((await list(`by=${by}`)).rows).toHaveLength(all.length);
    expect(await code(await t.ask('coordinator', 'GET', '/api/projects?by=number;drop'))).toEqual([
      400,
      'not-as-expected',
    ]);
  });

  test('a convention of its own counts for its names and its check, and for no other project', async () => {
    const { id, folder } = await start('42002');
    const { version, body } = await page(id);
    const convention = body.conventions[0];
    if (convention === undefined) throw new Error('no convention');
    const own = { conventions: { [convention.id]: { ...convention, pattern: 'DELIVERY-{number}.{ext}' } } };
    expect((await t.ask('coordinator', 'PUT', `/api/projects/${id}`, { version, own })).status).toBe(204);
    const after = await page(id);
    expect(after.body.conventions[0]?.pattern).toBe('DELIVERY-{number}.{ext}');
    expect((await page((await list('find=41001')).rows[0]?.id as string)).body.conventions[0]?.pattern).toBe(
      convention.pattern,
    );
    expect(folder).toContain('42002');
    // As the template's again it is no longer its own.
    expect(
      (
        await t.ask('coordinator', 'PUT', `/api/projects/${id}`, {
          version: after.version,
          own: { conventions: { [convention.id]: convention } },
        })
      ).status,
    ).toBe(204);
    expect((await page(id)).own).toEqual({});
  });
});

describe('signposts by address', () => {
  test('a script with a key finds a project’s folders as its own system has them', async () => {
    const get = (query: string) => t.ask('artist', 'GET', `/api/signposts/${query}`);
    const beside = JSON.parse(
      readFileSync(path.join(t.studio, '41001_MSW_piece-41001/.nesting/signposts.json'), 'utf8'),
    ) as Record<string, string>;
    expect(beside.project).toBe('.');
    const linux = await json<Record<string, string>>(await get('41001?as=json&system=linux'));
    expect(linux.project).toBe(path.join(t.studio, '41001_MSW_piece-41001'));
    expect(Object.keys(linux)).toEqual(Object.keys(beside));
    for (const [name, whole] of Object.entries(linux))
      expect(whole).toBe(path.join(t.studio, '41001_MSW_piece-41001', beside[name] as string));
    expect(await code(await get('41001?system=windows'))).toEqual([409, 'prefix-missing']);
    await t.ask('coordinator', 'PUT', '/api/volumes/studio/prefixes', { windows: 'S:\\', macos: '', linux: '' });
    expect(await (await get('41001?as=dotenv&system=windows')).text()).toContain(
      'NESTING_PROJECT="S:\\\\41001_MSW_piece-41001"',
    );
    expect(await code(await get('nothing'))).toEqual([404, 'no-project']);
    expect(await code(await get('41001?as=exe'))).toEqual([400, 'not-as-expected']);
    expect((await t.app.request('/api/signposts/41001')).status).toBe(401);
  });
});
