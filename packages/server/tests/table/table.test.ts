/**
 * The table of endpoints, walked: every row is done once as it should be, and many times as it should not. Whatever is
 * refused has changed nothing, in the database or on a volume; nothing fails, and nothing is never answered.
 *
 * `NESTING_FUZZ` says how many broken requests are sent to each row, `NESTING_FUZZ_SEED` from which seed.
 */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { ENDPOINTS, type EndpointName, type Spec } from '@nesting/contract';
import fc from 'fast-check';
import { ROUTES } from '../../src/http/routes';
import { hashPassword, insertPerson } from '../../src/index';
import { DEMO_PASSWORD } from '../../src/sign-in/demo';
import { openTestWorld, type TestWorld } from '../world';
import { broken, type Raw } from './breaks';
import { addressOf, ask, GOOD, type Ground, openGround, type Sent, settled } from './good';
import { differencesOf, snapshotOf } from './snapshot';

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
      let before = await snapshotOf(t);
      for (const raw of draws) {
        const shown = `seed ${SEED}: ${raw.method} ${raw.address.slice(0, 200)} ${JSON.stringify(raw.headers).slice(0, 300)} ${String(raw.body).slice(0, 400)}`;
        const response = await answered(raw);
        const said = await response.text();
        if (response.status >= 500 && response.status !== 503) throw new Error(`${shown}\n${response.status} ${said}`);
        await settled(t);
        const after = await snapshotOf(t);
        const changed = differencesOf(before, after);
        if (!response.ok && changed.length > 0)
          throw new Error([shown, `${response.status} ${said}`, `changed ${changed.join(', ')}`].join('\n'));
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
