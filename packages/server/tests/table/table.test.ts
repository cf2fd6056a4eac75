/**
 * The table of endpoints, walked: every row is done once as it should be, and many times as it should not. Whatever is
 * refused has changed nothing, in the database or on a volume; nothing fails, and nothing is never answered.
 *
 * `NESTING_FUZZ` says how many broken requests are sent to each row, `NESTING_FUZZ_SEED` from which seed.
 */
import { createHash } from 'node:crypto';
import { lstatSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { ENDPOINTS, type EndpointName, type Spec } from '@nesting/contract';
import fc from 'fast-check';
import { ROUTES } from '../../src/http/routes';
import { hashPassword, insertPerson } from '../../src/index';
import { DEMO_PASSWORD } from '../../src/sign-in/demo';
import { openTestWorld, type TestWorld } from '../world';
import { broken, type Raw } from './breaks';
import { addressOf, ask, GOOD, type Ground, openGround, type Sent, settled } from './good';

const EACH = Number(process.env.NESTING_FUZZ ?? 6);
const SEED = Number(process.env.NESTING_FUZZ_SEED ?? 26_014);

let t: TestWorld;
let ground: Ground;
beforeAll(async () => {
  t = await openTestWorld({ NESTING_DEMO: '1', NESTING_METRICS: '1' });
  const hash = await hashPassword(DEMO_PASSWORD);
  const demo = { name: 'Somebody of the demo', email: 'demo@x.example', initials: 'DE', role: 'lead' as const };
  await insertPerson(t.world.db, { ...demo, hash });
  ground = await openGround(t);
});
afterAll(() => t.close());

/** What is there, but for what is noted of whoever asks: when they were last seen, and that they tried. */
async function whatIsThere(): Promise<string> {
  const { rows: tables } = await t.world.db.query<{ name: string }>(
    `select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'
       and table_name not in ('session', 'sign_in_attempt', 'verification', 'access_key', 'check_memory') order by 1`,
  );
  const of = ({ name }: { name: string }) =>
    `select '${name}' as name, (select md5(coalesce(string_agg(r::text, '|' order by r::text), '')) from ${name} r${EXCEPT[name] ?? ''}) as hash`;
  const { rows } = await t.world.db.query(tables.map(of).join(' union all '));
  return JSON.stringify([rows, treeOf(t.studio)]);
}

/** A change that was refused stays in the database until who asked was told; a knock at the door is written down. */
const EXCEPT: Readonly<Record<string, string>> = {
  batch: " where not (r.state = 'refused' and r.told)",
  activity: " where r.what <> 'sign-in-refused'",
};

function treeOf(folder: string): string {
  const hash = createHash('sha256');
  const walk = (at: string) => {
    for (const name of readdirSync(at).sort()) {
      const whole = path.join(at, name);
      const { size, mtimeMs } = lstatSync(whole);
      const isFolder = lstatSync(whole).isDirectory();
      hash.update(`${whole}|${isFolder ? '' : `${size}|${mtimeMs}`}\n`);
      if (isFolder) walk(whole);
    }
  };
  walk(folder);
  return hash.digest('hex');
}

async function rawOf(row: Spec, sent: Sent): Promise<Raw> {
  const { origin } = new URL(t.config.publicUrl);
  const isFile = row.sentAs === 'file';
  const cookie = sent.as === null ? '' : await t.cookieOf(sent.as);
  return {
    method: row.method,
    address: addressOf(row, sent),
    headers: { origin, cookie, 'content-type': isFile ? 'application/octet-stream' : 'application/json' },
    body: row.method === 'GET' ? null : isFile ? (sent.body as Uint8Array) : JSON.stringify(sent.body ?? {}),
  };
}

const LONGEST_MS = 20_000;

async function answered({ method, address, headers, body }: Raw): Promise<Response> {
  let clock: NodeJS.Timeout | undefined;
  const never = new Promise<never>((_, reject) => {
    clock = setTimeout(() => reject(new Error('it was never answered')), LONGEST_MS);
  });
  const sent = { method, headers, ...(body !== null && { body: typeof body === 'string' ? body : Buffer.from(body) }) };
  return Promise.race([t.app.request(address, sent), never]).finally(() => clearTimeout(clock));
}

const isJson = ({ sentAs, method }: Spec): boolean => sentAs === undefined && method !== 'GET';

describe('the table of endpoints', () => {
  test('has every route of the server, and no other', () => {
    expect(ROUTES.map((route) => route.name).sort()).toEqual(Object.keys(ENDPOINTS).sort());
  });

  test.each(Object.keys(ENDPOINTS) as EndpointName[])(
    '%s: done as it should be, refused as it should not',
    async (name) => {
      const row: Spec = ENDPOINTS[name];
      const sentOnce = await GOOD[name](ground);
      await settled(t);
      const good = await rawOf(row, sentOnce);
      const draws = fc.sample(broken(good, isJson(row) ? (sentOnce.body ?? {}) : undefined), {
        numRuns: EACH,
        seed: SEED + Object.keys(ENDPOINTS).indexOf(name),
      });
      let before = await whatIsThere();
      for (const raw of draws) {
        const shown = `seed ${SEED}: ${raw.method} ${raw.address.slice(0, 200)} ${JSON.stringify(raw.headers).slice(0, 300)} ${String(raw.body).slice(0, 400)}`;
        const response = await answered(raw);
        const said = await response.text();
        expect([shown, response.status, said.slice(0, 300)]).toEqual([shown, expect.any(Number), said.slice(0, 300)]);
        if (response.status >= 500 && response.status !== 503) throw new Error(`${shown}\n${response.status} ${said}`);
        await settled(t);
        const after = await whatIsThere();
        if (!response.ok && after !== before)
          throw new Error(`${shown}\n${response.status} ${said}\nchanged ${differ(before, after)}`);
        before = after;
      }
      await t.world.db.query('delete from sign_in_attempt');
      const response = await ask(t, name, await GOOD[name](ground));
      await settled(t);
      if (name === 'makingOf') expect(response.status).toBe(404);
      else if (!response.ok) throw new Error(`${name}: ${response.status} ${await response.text()}`);
    },
  );
});

function differ(before: string, after: string): string {
  const [a, b] = [before, after].map((text) => JSON.parse(text) as [{ name: string; hash: string }[], string]);
  const tables = a?.[0].filter((row, i) => row.hash !== b?.[0][i]?.hash).map((row) => row.name) ?? [];
  return [...tables, ...(a?.[1] === b?.[1] ? [] : ['the volume'])].join(', ');
}
