/** Where a file is expected stands a pipe, a folder, a socket or a file of gigabytes: nothing waits, nothing breaks. */
import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { FoundProject, ProjectRow } from '@nesting/contract';
import { settleStarts } from '../src/flows/projects/start-project';
import { openTestWorld, startOf, type TestWorld } from './world';

let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld();
});
afterAll(async () => {
  await t.close();
});

const start = async (number: string): Promise<ProjectRow & { root: string }> => {
  const response = await t.ask('coordinator', 'POST', '/api/projects', startOf(number));
  const project = (await response.json()) as ProjectRow;
  return { ...project, root: path.join(t.studio, project.folder) };
};

const pipe = (at: string) => {
  rmSync(at, { force: true });
  expect(spawnSync('mkfifo', [at]).status).toBe(0);
};
const folder = (at: string) => {
  rmSync(at, { force: true });
  mkdirSync(at);
};
const gigabytes = (at: string) => {
  writeFileSync(at, '');
  truncateSync(at, 3 * 2 ** 30);
};

test('markers that are no plain files are a line with its reason each, and the others are found', async () => {
  const odd = [
    ['41001', pipe, 'ENOTFILE'],
    ['41002', folder, 'ENOTFILE'],
    ['41003', gigabytes, 'EFBIG'],
  ] as const;
  const whole = await start('41004');
  for (const [number, spoil] of odd) spoil(path.join((await start(number)).root, '.nesting/project.json'));
  const server = createServer();
  const socket = path.join((await start('41005')).root, '.nesting/project.json');
  rmSync(socket);
  await new Promise<void>((resolve) => server.listen(socket, resolve));
  try {
    const found = (await (await t.ask('coordinator', 'GET', '/api/volumes/projects')).json()) as FoundProject[];
    expect(found.map((f) => [f.number, f.state, f.why])).toEqual([
      ...odd.map(([number, , why]) => [number, 'unread', why]),
      ['41005', 'unread', 'ENOTFILE'],
    ]);
    expect((await t.ask('coordinator', 'GET', `/api/projects/${whole.id}`)).status).toBe(200);
  } finally {
    server.close();
  }
});

test('a server starts where the marker of a start that was cut short is a pipe', async () => {
  const { id, root } = await start('41010');
  await t.world.db.query("update project set state = 'starting' where id = $1", [id]);
  pipe(path.join(root, '.nesting/project.json'));
  await settleStarts(t.world);
  const { rows } = await t.world.db.query('select state from project where id = $1', [id]);
  expect(rows).toEqual([{ state: 'starting' }]);
});

test('a change is refused with its reason where a file of the project’s own folder is a pipe', async () => {
  const { id, root } = await start('41020');
  const page = (await (await t.ask('coordinator', 'GET', `/api/projects/${id}`)).json()) as ProjectRow & {
    version: number;
    values: Record<string, unknown>;
  };
  pipe(path.join(root, '.nesting/template.nest.json'));
  const asked = {
    version: page.version,
    template: 'window-piece',
    edition: 1,
    values: { ...page.values, title: 'Another' },
    adjusted: {},
    renamed: {},
    extra: [],
    keep: [],
    keepFolder: false,
  };
  const refused = await t.ask('coordinator', 'POST', `/api/projects/${id}/plan`, asked);
  expect([refused.status, await refused.json()]).toEqual([
    409,
    {
      code: 'disk-refused',
      params: { system: 'ENOTFILE', path: '.nesting/template.nest.json' },
      message: '.nesting/template.nest.json is no plain file.',
    },
  ]);
});

test('a check passes over pipes and folders where it reads files, and says the rest', async () => {
  const { id, root } = await start('41030');
  pipe(path.join(root, 'note.svg'));
  pipe(path.join(root, 'seq.frames.txt'));
  writeFileSync(path.join(root, 'plain.svg'), '<svg><image href="gone.png"/></svg>');
  await t.ask('coordinator', 'POST', `/api/projects/${id}/checks`, {});
  await t.world.checks.idle();
  const { rows } = await t.world.db.query<{ state: string }>(
    'select state from check_run where project_id = $1 order by started_at desc limit 1',
    [id],
  );
  expect(rows).toEqual([{ state: 'done' }]);
  expect(readFileSync(path.join(root, 'plain.svg'), 'utf8')).toContain('gone.png');
});
