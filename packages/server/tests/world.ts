/**
 * A world for one test file: its own database on the tests' cluster, its own volumes, people of each role, the
 * application in memory.
 */
import { randomUUID } from 'node:crypto';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { ProjectRow, Role } from '@nesting/contract';
import { parseTemplate } from '@nesting/contract';
import { NO_REGISTERS } from '@nesting/core/name';
import type { Hono } from 'hono';
import pg from 'pg';
import { pino } from 'pino';
import type { HeapFile } from '../../../demo/heaps';
import {
  type Config,
  closeWorld,
  configOf,
  hashPassword,
  insertEdition,
  insertPerson,
  makeApp,
  makeAuth,
  openWorld,
  takeUpVolume,
  upsertRegisters,
  type World,
  workBatches,
} from '../src/index';
import { holdReply } from './replies';

export const PASSWORD = 'a long enough password';
const repo = process.cwd();
const silent = pino({ level: 'silent' });

export interface TestWorld {
  readonly world: World;
  readonly app: Hono;
  readonly config: Config;
  readonly studio: string;
  readonly people: Readonly<Record<Role, string>>;
  /** A request as somebody, or as nobody. */
  ask(
    who: Role | null,
    method: string,
    address: string,
    body?: unknown,
    headers?: Record<string, string>,
  ): Promise<Response>;
  /** What a browser of somebody's would send along. */
  cookieOf(who: Role): Promise<string>;
  /** Bytes or a form, as the browser sends files. */
  send(who: Role, method: string, address: string, body?: Uint8Array | FormData): Promise<Response>;
  /** Resolves when every change that was asked for has ended, and then every check that follows from one. */
  idle(): Promise<void>;
  close(): Promise<void>;
}

/** Fills the database and the volume before the installation is opened; the people of each role are in it. */
type Kept = (databaseUrl: string, studio: string) => Promise<void>;

/**
 * With `bare` all rules are left out: an installation as it is on its first day. A function opens one that was kept.
 */
export async function openTestWorld(
  env: Record<string, string> = {},
  bare: boolean | Kept = false,
): Promise<TestWorld> {
  const base = process.env.NESTING_TEST_DATABASE;
  if (base === undefined) throw new Error('no database for tests: run npm test');
  const database = `t_${randomUUID().replaceAll('-', '')}`;
  await admin(base, `create database ${database}`);
  const home = mkdtempSync(path.join(tmpdir(), 'nesting-server-'));
  const studio = path.join(home, 'studio');
  mkdirSync(studio);
  const config = configOf(
    {
      NESTING_DATABASE: base.replace(/\/[^/]*$/, `/${database}`),
      NESTING_SECRET: 'x'.repeat(40),
      NESTING_VOLUMES: `studio=${studio};away=${path.join(home, 'away')}`,
      ...env,
    },
    {
      webFolder: path.join(repo, 'packages/web/dist'),
      migrations: path.join(repo, 'packages/server/src/db/migrations'),
      diskProgram: new URL(`file://${repo}/dist/disk-child.js`),
    },
  );
  if (typeof bare === 'function') await bare(config.databaseUrl, studio);
  const world = await openWorld(config, silent);
  await workBatches(world);
  const app = makeApp(world, makeAuth(world.db, config), silent);
  const people = typeof bare === 'function' ? await peopleIn(world) : await seed(world, bare);
  await takeUpVolume(world, people.coordinator, 'studio', false);
  const cookies = new Map<Role, string>();
  const origin = new URL(config.publicUrl).origin;
  // Signed in once each: the door counts attempts.
  const cookieOf = async (who: Role): Promise<string> => {
    const known = cookies.get(who) ?? (await signIn(app, origin, `${who}@tallow-street.example`));
    cookies.set(who, known);
    return known;
  };
  const ask: TestWorld['ask'] = async (who, method, address, body, more = {}) => {
    const headers: Record<string, string> = {
      ...more,
      origin,
      ...(who !== null && { cookie: await cookieOf(who) }),
      ...(body !== undefined && { 'content-type': 'application/json' }),
    };
    const sent = { method, headers, ...(body !== undefined && { body: JSON.stringify(body) }) };
    const response = await app.request(address, sent);
    await holdReply(method, address, response);
    return response;
  };
  const send: TestWorld['send'] = async (who, method, address, body, more = {}) => {
    const headers: Record<string, string> = {
      ...more,
      origin,
      cookie: await cookieOf(who),
      ...(body instanceof Uint8Array && { 'content-type': 'application/octet-stream' }),
    };
    const sent = {
      method,
      headers,
      ...(body !== undefined && { body: body instanceof Uint8Array ? Buffer.from(body) : body }),
    };
    const response = await app.request(address, sent);
    await holdReply(method, address, response);
    return response;
  };
  const idle = async () => {
    await world.batches.idle();
    await world.checks.idle();
  };
  return {
    world,
    app,
    idle,
    config,
    studio,
    people,
    ask,
    cookieOf,
    send,
    close: async () => {
      await idle();
      await closeWorld(world);
      await admin(base, `drop database ${database} with (force)`);
      rmSync(home, { recursive: true, force: true });
    },
  };
}

async function signIn(app: Hono, origin: string, email: string): Promise<string> {
  const response = await app.request('/api/auth/sign-in/email', {
    method: 'POST',
    headers: { origin, 'content-type': 'application/json' },
    body: JSON.stringify({ email, password: PASSWORD }),
  });
  if (!response.ok) throw new Error(`sign-in: ${response.status} ${await response.text()}`);
  return (response.headers.get('set-cookie') ?? '').split(';')[0] as string;
}

export async function admin(base: string, sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: base });
  await client.connect();
  await client.query(sql).finally(() => client.end());
}

let hashed: Promise<string> | null = null;

async function peopleIn({ db }: World): Promise<Record<Role, string>> {
  const { rows } = await db.query<{ id: string; role: Role }>('select id, role from person');
  return Object.fromEntries(rows.map((r) => [r.role, r.id])) as Record<Role, string>;
}

async function seed({ db }: World, bare: boolean): Promise<Record<Role, string>> {
  hashed ??= hashPassword(PASSWORD);
  const hash = await hashed;
  const person = (role: Role) =>
    insertPerson(db, {
      name: `The ${role}`,
      email: `${role}@tallow-street.example`,
      initials: role.slice(0, 2).toUpperCase(),
      role,
      hash,
    });
  const people = {
    coordinator: await person('coordinator'),
    artist: await person('artist'),
    lead: await person('lead'),
  };
  if (bare) return people;
  await upsertRegisters(db, {
    ...NO_REGISTERS,
    clients: [
      { code: 'QHT', name: 'Quillhaven Harbour Trust' },
      { code: 'MSW', name: 'Museum of Small Weather' },
    ],
  });
  const parsed = parseTemplate(readFileSync(path.join(repo, 'demo/templates/window-piece.nest.json'), 'utf8'));
  if (!parsed.ok) throw new Error(parsed.faults[0]);
  await insertEdition(db, parsed.value, new Map([['starters/window-brief.md', Buffer.from('# {title} {nobody}\n')]]));
  return people;
}

export const startOf = (number: string, more: Record<string, unknown> = {}) => ({
  template: 'window-piece',
  edition: 1,
  volume: 'studio',
  values: { number, title: `Piece ${number}`, client: 'MSW', windows: 'A..B', ...more },
});

/** Long before any test runs, seconds since 1970: what was written then is quiet. */
export const OLD = Date.UTC(2026, 2, 6) / 1000;

export interface Lived {
  readonly id: string;
  readonly number: string;
  readonly root: string;
  /** Written some days ago. */
  readonly put: (at: string, text?: string | Uint8Array) => void;
}

/** A project that was started and checked, to be lived in. */
export async function startedIn(t: TestWorld, number: string, more: object = {}): Promise<Lived> {
  const response = await t.ask('coordinator', 'POST', '/api/projects', { ...startOf(number), ...more });
  const { id, folder } = (await response.json()) as ProjectRow;
  await t.world.checks.idle();
  const root = path.join(t.studio, folder);
  const put = (at: string, text: string | Uint8Array = at) => {
    mkdirSync(path.dirname(path.join(root, at)), { recursive: true });
    writeFileSync(path.join(root, at), text);
    utimesSync(path.join(root, at), OLD, OLD);
  };
  return { id, number, root, put };
}

/** A heap as it lies on the volume: each has a folder of its own, whose name is given. */
export function laidIn({ studio }: Pick<TestWorld, 'studio'>, files: readonly HeapFile[]): string {
  const folder = `arrived-${randomUUID().slice(0, 8)}`;
  for (const { path: at, bytes, modified } of files) {
    const whole = path.join(studio, folder, at);
    mkdirSync(path.dirname(whole), { recursive: true });
    writeFileSync(whole, bytes);
    utimesSync(whole, new Date(modified), new Date(modified));
  }
  return folder;
}
