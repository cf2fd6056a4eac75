/**
 * The whole of an installation as one file, and back into an empty one, by PostgreSQL's own tools. Volumes are backed
 * up as every disk is.
 */

import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { delimiter, join } from 'node:path';
import { elementAt } from '@nesting/core';
import type { Db } from './db/client';
import { migrate } from './db/migrate';
import { recordActivity } from './db/queries/house/activity';

/**
 * What must not come back: ways in that were open, and mails with links in them; and what a check remembers, which it
 * finds out anew.
 */
const LEFT_OUT = [
  'session',
  'access_key',
  'verification',
  'access_link',
  'finding_link',
  'package_link',
  'sign_in_attempt',
  'mail',
  'check_memory',
  'check_gathered',
  'kept_listing',
  'document_reference',
];

export class Unusable extends Error {}

function tool(name: string): string {
  const debian = existsSync('/usr/lib/postgresql')
    ? readdirSync('/usr/lib/postgresql')
        .sort((a, b) => Number(b) - Number(a))
        .map((v) => `/usr/lib/postgresql/${v}/bin`)
    : [];
  const found = [...debian, ...(process.env.PATH ?? '').split(delimiter)]
    .map((folder) => join(folder, name))
    .find((file) => existsSync(file));
  if (found === undefined) throw new Unusable(`${name} is not installed: it comes with PostgreSQL`);
  return found;
}

/** The password goes by the environment: arguments are seen by everybody on the machine. */
function run(name: string, url: string | null, args: readonly string[]): string {
  const at = url === null ? null : new URL(url);
  const env =
    at === null
      ? {}
      : {
          PGHOST: at.hostname,
          PGPORT: at.port || '5432',
          PGUSER: decodeURIComponent(at.username),
          PGPASSWORD: decodeURIComponent(at.password),
          PGDATABASE: decodeURIComponent(at.pathname.slice(1)),
        };
  const result = spawnSync(tool(name), args, {
    env: { PATH: process.env.PATH ?? '', LC_ALL: 'C.UTF-8', ...env },
    encoding: 'utf8',
    maxBuffer: 64 * 1024 * 1024,
  });
  if (result.status !== 0)
    throw new Unusable(
      `${name} failed: ${(result.stderr || String(result.error ?? '')).trim().split('\n').slice(-3).join(' ')}`,
    );
  return result.stdout;
}

/** Writes beside its place first: a backup that was cut short never has the name of a whole one. */
export function backup(url: string, file: string): string {
  if (file === '') throw new Unusable('say where to: backup FILE');
  if (existsSync(file)) throw new Unusable(`${file} exists already: nothing was written`);
  const part = `${file}.part`;
  try {
    run('pg_dump', url, [
      '--format=custom',
      '--no-owner',
      '--no-privileges',
      '--schema=public',
      ...LEFT_OUT.map((table) => `--exclude-table-data=public.${table}`),
      `--file=${part}`,
    ]);
    run('pg_restore', null, ['--list', part]);
  } catch (error) {
    rmSync(part, { force: true });
    throw error;
  }
  renameSync(part, file);
  return `${file}: ${statSync(file).size} bytes; the database whole, with starter files; sessions, access keys, open links and mails are left out`;
}

/**
 * Only into an installation without people, rules and projects, and only from a program that is not newer than this
 * one.
 */
export async function restore(db: Db, url: string, migrations: string, file: string): Promise<string> {
  if (!existsSync(file))
    throw new Unusable(`${file === '' ? 'say from where: restore FILE' : `${file} does not exist`}`);
  const known = new Set(readdirSync(migrations).map((f) => f.replace(/\.sql$/, '')));
  const copied = run('pg_restore', null, ['--data-only', '--table=migration', '--file=-', file]);
  const names = [...copied.matchAll(/^\d+\t(\S+)\t/gm)].map((m) => elementAt(m, 1));
  if (names.length === 0) throw new Unusable(`${file} is no backup of this program`);
  const newer = names.find((name) => !known.has(name));
  if (newer !== undefined)
    throw new Unusable(`the backup is newer than this program: it has ${newer}; nothing was changed`);
  const there = await db.query<{ person: string | null }>("select to_regclass('public.person')::text as person");
  if (there.rows[0]?.person) {
    const used = await db.query<{ used: boolean }>(
      'select exists(select from person) or exists(select from project) or exists(select from template) as used',
    );
    if (used.rows[0]?.used)
      throw new Unusable('this installation is not empty: a backup is restored into an empty one; nothing was changed');
  }
  await db.query('drop schema public cascade; create schema public');
  run('pg_restore', url, [
    '--no-owner',
    '--no-privileges',
    '--single-transaction',
    '--exit-on-error',
    `--dbname=${decodeURIComponent(new URL(url).pathname.slice(1))}`,
    '--schema=public',
    file,
  ]);
  await migrate(db, url, migrations);
  // Backups of older versions hold keys: those that were ended since would open everything again.
  await db.query('update access_key set revoked_at = clock_timestamp() where revoked_at is null');
  await recordActivity(db, 'backup-restored', null, null, { of: statSync(file).mtime.toISOString() });
  const counts = await db.query<{ people: number; projects: number }>(
    'select (select count(*)::int from person) as people, (select count(*)::int from project) as projects',
  );
  return `restored: ${counts.rows[0]?.people} people, ${counts.rows[0]?.projects} projects; everybody signs in anew, and makes their access keys anew`;
}
