/** A backup restored into an empty installation gives the same studio; what cannot be restored changes nothing. */
import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { openDb } from '../src/index';
import { admin, openTestWorld, startOf, type TestWorld } from './world';

let t: TestWorld;
let folder: string;
const made: string[] = [];
beforeAll(async () => {
  t = await openTestWorld();
  folder = mkdtempSync(path.join(tmpdir(), 'nesting-backup-'));
});
afterAll(async () => {
  await t.close();
  for (const name of made)
    await admin(process.env.NESTING_TEST_DATABASE as string, `drop database ${name} with (force)`);
  rmSync(folder, { recursive: true, force: true });
});

async function empty(): Promise<string> {
  const name = `t_${randomUUID().replaceAll('-', '')}`;
  await admin(process.env.NESTING_TEST_DATABASE as string, `create database ${name}`);
  made.push(name);
  return t.config.databaseUrl.replace(/\/[^/]*$/, `/${name}`);
}

const command = (url: string, ...args: string[]) =>
  spawnSync(process.execPath, ['dist/admin.js', ...args], {
    encoding: 'utf8',
    env: { ...process.env, NESTING_DATABASE: url },
  });

async function openKeys(url: string): Promise<number> {
  const db = openDb(url, 1);
  try {
    return (await db.query('select from access_key where revoked_at is null')).rowCount ?? 0;
  } finally {
    await db.end();
  }
}

/** Every row of every table that is kept, as text. */
async function contentOf(url: string): Promise<Record<string, string[]>> {
  const db = openDb(url, 1);
  try {
    const tables = (
      await db.query<{ name: string }>(
        "select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE' order by 1",
      )
    ).rows.map((r) => r.name);
    const all: Record<string, string[]> = {};
    for (const table of tables)
      all[table] = (await db.query<{ line: string }>(`select t::text as line from "${table}" t order by 1`)).rows.map(
        (r) => r.line,
      );
    return all;
  } finally {
    await db.end();
  }
}

test('the same studio comes back, starter files and all; open ways in do not', async () => {
  expect((await t.ask('coordinator', 'POST', '/api/projects', startOf('35001'))).status).toBe(201);
  await t.world.checks.idle();
  expect((await t.ask('artist', 'POST', '/api/me/keys', { name: 'script', days: null })).status).toBe(201);
  const file = path.join(folder, 'house.backup');
  expect(command(t.config.databaseUrl, 'backup', file)).toMatchObject({ status: 0, stderr: '' });
  expect(command(t.config.databaseUrl, 'backup', file)).toMatchObject({
    status: 2,
    stderr: expect.stringContaining('exists already'),
  });
  const url = await empty();
  const restored = command(url, 'restore', file);
  expect(restored).toMatchObject({ status: 0, stderr: '' });
  expect(restored.stdout).toContain('3 people, 1 projects');
  const [before, after] = [await contentOf(t.config.databaseUrl), await contentOf(url)];
  expect(Object.keys(after)).toEqual(Object.keys(before));
  for (const table of Object.keys(before)) {
    if (table === 'activity') expect(after[table]?.slice(0, before[table]?.length)).toEqual(before[table]);
    else
      expect([table, after[table]]).toEqual([
        table,
        [
          'session',
          'access_key',
          'verification',
          'access_link',
          'finding_link',
          'sign_in_attempt',
          'mail',
          'check_memory',
          'check_gathered',
          'kept_listing',
          'document_reference',
        ].includes(table)
          ? []
          : before[table],
      ]);
  }
  // One that was ended since the backup was made would open everything again.
  expect(before.access_key?.length).toBeGreaterThan(0);
  expect(await openKeys(url)).toBe(0);
  expect(before.session?.length).toBeGreaterThan(0);
  expect(before.starter_file?.length).toBeGreaterThan(0);
  // Not into an installation that is in use.
  const again = await contentOf(url);
  expect(command(url, 'restore', file)).toMatchObject({ status: 2, stderr: expect.stringContaining('not empty') });
  expect(await contentOf(url)).toEqual(again);
});

test('files that are no backups, cut short, or of a newer program change nothing', async () => {
  const url = await empty();
  const odd = path.join(folder, 'odd.backup');
  writeFileSync(odd, 'no backup at all');
  for (const file of [odd, path.join(folder, 'nothing'), '']) expect(command(url, 'restore', file).status).toBe(2);
  const whole = path.join(folder, 'newer.backup');
  await t.world.db.query("insert into migration (name, run_on) values ('9999_future', now())");
  expect(command(t.config.databaseUrl, 'backup', whole).status).toBe(0);
  await t.world.db.query("delete from migration where name = '9999_future'");
  expect(command(url, 'restore', whole)).toMatchObject({
    status: 2,
    stderr: expect.stringContaining('newer than this program'),
  });
  expect(await contentOf(url)).toEqual({});
  // A database that is not there leaves no half of a file.
  const none = path.join(folder, 'none.backup');
  expect(command(`${url}x`, 'backup', none).status).toBe(2);
  expect([existsSync(none), existsSync(`${none}.part`)]).toEqual([false, false]);
});
