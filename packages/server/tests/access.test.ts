/** Who may come in, and every way somebody might try without being asked. Each attack is named. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Invited, KeyRow, LinkFound, MailRow, PersonRow, SessionRow } from '@nesting/contract';
import { firstLink } from '../src/flows/people/access';
import { openTestWorld, PASSWORD, type TestWorld } from './world';

let t: TestWorld;
let origin: string;
beforeAll(async () => {
  t = await openTestWorld({ NESTING_DEMO: '1' });
  origin = new URL(t.config.publicUrl).origin;
});
afterAll(() => t.close());

const json = async <T>(response: Response) => (await response.json()) as T;
const code = async (response: Response) => [
  response.status,
  response.status >= 400 ? (await json<{ code?: string }>(response)).code : '',
];
const at = async (
  from: string,
  method: string,
  address: string,
  body?: unknown,
  headers: Record<string, string> = {},
) =>
  t.app.request(
    address,
    {
      method,
      headers: { origin, 'content-type': 'application/json', ...headers },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    },
    { incoming: { socket: { remoteAddress: from } } },
  );
const sign = (email: string, password: string, from = '10.0.0.1') =>
  at(from, 'POST', '/api/auth/sign-in/email', { email, password });
const cookieOf = (response: Response) => (response.headers.get('set-cookie') ?? '').split(';')[0] as string;
const withCookie = (cookie: string, address = '/api/me', method = 'GET') =>
  at('10.0.0.1', method, address, method === 'GET' ? undefined : {}, { cookie });
const people = async () => json<PersonRow[]>(await t.ask('coordinator', 'GET', '/api/people'));
const mails = async () => {
  await t.world.mails.idle();
  return json<MailRow[]>(await t.ask('coordinator', 'GET', '/api/outbox'));
};
const tokenIn = (text: string) => /#(\S+)/.exec(text)?.[1] as string;
const person = (initials: string, more = {}) => ({
  name: `Person ${initials}`,
  email: `${initials}@x.example`,
  initials,
  role: 'artist',
  does: '',
  ...more,
});
const password = 'another long password';

/** Somebody who was invited and chose a password. */
async function joined(initials: string, more = {}): Promise<{ id: string; cookie: string }> {
  const { id } = await json<Invited>(await t.ask('coordinator', 'POST', '/api/people', person(initials, more)));
  const token = tokenIn((await mails())[0]?.body ?? '');
  expect((await at('10.0.0.1', 'POST', '/api/access/accept', { token, password })).status).toBe(200);
  return { id, cookie: cookieOf(await sign(`${initials}@x.example`, password)) };
}

describe('coming in', () => {
  test('somebody invited chooses a password by a link that works once, and is let in', async () => {
    const { id, link } = await json<Invited>(await t.ask('coordinator', 'POST', '/api/people', person('AB')));
    expect(link).toBeNull();
    expect((await people()).find((p) => p.id === id)).toMatchObject({ state: 'invited', lastSeen: null });
    expect((await sign('ab@x.example', '')).status).toBe(401);
    const [mail] = await mails();
    expect(mail).toMatchObject({ recipient: 'AB@x.example', state: 'kept' });
    const token = tokenIn(mail?.body ?? '');
    expect(await json<LinkFound>(await at('', 'POST', '/api/access/link', { token }))).toEqual({
      purpose: 'invite',
      name: 'Person AB',
      email: 'ab@x.example',
    });
    expect(await code(await at('', 'POST', '/api/access/accept', { token, password: 'short' }))).toEqual([
      400,
      'not-as-expected',
    ]);
    // Two who use one link at once: one of them comes in.
    const both = await Promise.all([1, 2].map(() => at('', 'POST', '/api/access/accept', { token, password })));
    expect(both.map((r) => r.status).sort()).toEqual([200, 410]);
    expect((await withCookie(cookieOf(await sign('ab@x.example', password)))).status).toBe(200);
    expect((await people()).find((p) => p.id === id)).toMatchObject({ state: 'active' });
  });

  test('addresses and initials that are taken, or are none, are refused', async () => {
    const ask = async (more: object) =>
      code(await t.ask('coordinator', 'POST', '/api/people', { ...person('CD'), ...more }));
    expect(await ask({ email: 'ARTIST@tallow-street.example' })).toEqual([409, 'person-there']);
    expect(await ask({ initials: 'CO' })).toEqual([409, 'person-there']);
    for (const odd of [{ initials: 'c' }, { initials: '' }, { email: 'nobody' }, { role: 'owner' }, { name: ' ' }])
      expect(await ask(odd)).toEqual([400, 'not-as-expected']);
  });

  test('the first coordinator comes by a link that is there only while nobody coordinates', async () => {
    const own = await openTestWorld({}, true);
    try {
      expect(await firstLink(own.world)).toBeNull();
      await own.world.db.query('delete from credential');
      const link = (await firstLink(own.world)) ?? '';
      const accept = (token: string, body = {}) =>
        own.app.request('/api/access/accept', {
          method: 'POST',
          headers: { origin, 'content-type': 'application/json' },
          body: JSON.stringify({ token, password, ...body }),
        });
      expect(await code(await accept(tokenIn(link)))).toEqual([422, 'first-missing']);
      expect(
        (await accept(tokenIn(link), { first: { name: 'Ada', email: 'ada@x.example', initials: 'AD' } })).status,
      ).toBe(200);
      expect(await firstLink(own.world)).toBeNull();
      expect(
        (await accept(tokenIn(link), { first: { name: 'Eve', email: 'eve@x.example', initials: 'EV' } })).status,
      ).toBe(410);
      const rows = await own.world.db.query("select role from person where initials in ('AD', 'EV')");
      expect(rows.rows).toEqual([{ role: 'coordinator' }]);
      // Without a mail server the link is given to who invites.
      const signed = await own.app.request('/api/auth/sign-in/email', {
        method: 'POST',
        headers: { origin, 'content-type': 'application/json' },
        body: JSON.stringify({ email: 'ada@x.example', password }),
      });
      const invited = await own.app.request('/api/people', {
        method: 'POST',
        headers: { origin, cookie: cookieOf(signed), 'content-type': 'application/json' },
        body: JSON.stringify(person('XY')),
      });
      expect((await json<Invited>(invited)).link).toContain('/welcome#');
    } finally {
      await own.close();
    }
  });
});

describe('attacks', () => {
  test('a thousand tries to sign in: after ten the door is shut, whatever the password, for that account and address alone', async () => {
    let refused = 0;
    let argon = 0;
    for (let i = 0; i < 1000; i += 50) {
      const batch = await Promise.all(
        Array.from({ length: 50 }, (_, k) => sign('lead@tallow-street.example', `guess ${i + k}`, '10.6.6.6')),
      );
      refused += batch.filter((r) => r.status === 429).length;
      argon += batch.filter((r) => r.status === 401).length;
    }
    expect(argon).toBe(10);
    expect(refused).toBe(990);
    expect((await sign('lead@tallow-street.example', PASSWORD, '10.6.6.6')).status).toBe(429);
    // The account's own address is not shut out by a stranger's hundred tries at once, until they come from everywhere.
    expect(
      (
        await json<{ rows: { what: string }[] }>(
          await t.ask('coordinator', 'GET', '/api/activity?what=sign-in-refused'),
        )
      ).rows.length,
    ).toBeGreaterThan(0);
    await t.world.db.query("update sign_in_attempt set since = since - interval '2 hours'");
    expect((await sign('lead@tallow-street.example', PASSWORD, '10.6.6.6')).status).toBe(200);
  });

  test('tries at many accounts from one address, and an address that somebody only claims', async () => {
    const tries = await Promise.all(
      Array.from({ length: 80 }, (_, i) =>
        at(
          '10.7.7.7',
          'POST',
          '/api/auth/sign-in/email',
          { email: `x${i}@x.example`, password: 'guess' },
          { 'x-forwarded-for': `10.9.9.${i}` },
        ),
      ),
    );
    expect(tries.filter((r) => r.status === 429)).toHaveLength(20);
  });

  test('a stolen cookie changed, a replayed one, an expired one, and one of somebody removed', async () => {
    const { id, cookie } = await joined('EF');
    expect((await withCookie(cookie)).status).toBe(200);
    expect((await withCookie(`${cookie.slice(0, -6)}AAAAAA`)).status).toBe(401);
    const [name, value = ''] = cookie.split('=');
    expect((await withCookie(`${name}=${value.split('.')[0]}`)).status).toBe(401);
    // Signed out: the same cookie opens nothing.
    const second = cookieOf(await sign('ef@x.example', password));
    expect((await withCookie(second, '/api/auth/sign-out', 'POST')).status).toBe(200);
    expect((await withCookie(second)).status).toBe(401);
    const third = cookieOf(await sign('ef@x.example', password));
    await t.world.db.query("update session set expires_at = now() - interval '1 minute' where person_id = $1", [id]);
    expect([(await withCookie(third)).status, (await withCookie(cookie)).status]).toEqual([401, 401]);
    const fourth = cookieOf(await sign('ef@x.example', password));
    const key = (
      await json<{ key: string }>(
        await at('', 'POST', '/api/me/keys', { name: 'script', days: null }, { cookie: fourth }),
      )
    ).key;
    const byKey = () => at('', 'GET', '/api/me', undefined, { authorization: `Bearer ${key}` });
    expect((await byKey()).status).toBe(200);
    expect((await t.ask('coordinator', 'POST', `/api/people/${id}/leave`, {})).status).toBe(204);
    expect([
      (await withCookie(fourth)).status,
      (await byKey()).status,
      await code(await sign('ef@x.example', password)),
    ]).toEqual([401, 401, [401, 'sign-in-wrong']]);
    // Who returns needs a new link: neither the old password nor the old key opens anything.
    expect((await t.ask('coordinator', 'POST', `/api/people/${id}/return`, {})).status).toBe(200);
    expect([(await sign('ef@x.example', password)).status, (await byKey()).status]).toEqual([401, 401]);
  });

  test('nothing that opens anything is made for somebody who has left, whoever makes it, nor outlives their leaving', async () => {
    const { id, cookie } = await joined('EG');
    await at('', 'POST', '/api/me/keys', { name: 'script', days: null }, { cookie });
    expect((await t.ask('coordinator', 'POST', '/api/who/EG/link', {})).status).toBe(200);
    const { db } = t.world;
    const open = async () => {
      const { rows } = await db.query(
        `select (select count(*)::int from session where person_id = $1) as sessions,
           (select count(*)::int from access_key where person_id = $1 and revoked_at is null) as keys,
           (select count(*)::int from access_link where person_id = $1 and used_at is null) as links,
           (select count(*)::int from finding_link where person_id = $1) as lists,
           (select count(*)::int from credential where person_id = $1 and password is not null) as passwords`,
        [id],
      );
      return rows[0];
    };
    expect(await open()).toEqual({ sessions: 1, keys: 1, links: 0, lists: 1, passwords: 1 });
    expect((await t.ask('coordinator', 'POST', `/api/people/${id}/leave`, {})).status).toBe(204);
    const none = { sessions: 0, keys: 0, links: 0, lists: 0, passwords: 0 };
    expect(await open()).toEqual(none);
    // By the library that signs people in, by a race that was lost, by hand: the database lets none of them in.
    for (const sql of [
      "insert into session (id, token, person_id, expires_at) values ('s', 's', $1, now() + interval '1 day')",
      "insert into access_key (id, person_id, name, head, hash) values (gen_random_uuid(), $1, 'k', 'k', 'k')",
      "insert into access_link (hash, purpose, person_id, expires_at) values ('l', 'reset', $1, now() + interval '1 day')",
      "insert into finding_link (hash, person_id, expires_at) values ('f', $1, now() + interval '1 day')",
    ])
      await expect(db.query(sql, [id])).rejects.toMatchObject({ constraint: 'only_who_works_here' });
    expect(await code(await t.ask('coordinator', 'POST', `/api/people/${id}/leave`, {}))).toEqual([409, 'person-gone']);
    expect((await t.ask('coordinator', 'POST', `/api/people/${id}/return`, {})).status).toBe(200);
    expect(await open()).toEqual({ ...none, links: 1 });
    // Whoever works here is not made to choose a new password by a slip of the pointer.
    expect(await code(await t.ask('coordinator', 'POST', `/api/people/${id}/return`, {}))).toEqual([409, 'not-left']);
  });

  test('links that are used, overtaken, too old or guessed', async () => {
    const { id } = await json<Invited>(await t.ask('coordinator', 'POST', '/api/people', person('GH')));
    const old = tokenIn((await mails())[0]?.body ?? '');
    await t.ask('coordinator', 'POST', `/api/people/${id}/link`, {});
    const now = tokenIn((await mails())[0]?.body ?? '');
    const look = async (token: string) => code(await at('', 'POST', '/api/access/link', { token }));
    expect(await look(old)).toEqual([410, 'link-used']);
    expect(await look('x'.repeat(32))).toEqual([404, 'no-link']);
    await t.world.db.query("update access_link set expires_at = now() - interval '1 minute' where person_id = $1", [
      id,
    ]);
    expect(await look(now)).toEqual([410, 'link-expired']);
    expect(await code(await at('', 'POST', '/api/access/accept', { token: now, password }))).toEqual([
      410,
      'link-expired',
    ]);
    // Only their hash is kept.
    expect((await t.world.db.query('select 1 from access_link where hash = $1', [now])).rowCount).toBe(0);
  });

  test('a forgotten password: everybody is answered alike, and whoever had the old one is out', async () => {
    const { cookie } = await joined('IJ');
    const before = (await mails()).length;
    for (const email of ['nobody@x.example', 'ij@x.example'])
      expect((await at('', 'POST', '/api/access/forgot', { email })).status).toBe(204);
    const all = await mails();
    expect(all.length).toBe(before + 1);
    expect(
      (
        await at('', 'POST', '/api/access/accept', {
          token: tokenIn(all[0]?.body ?? ''),
          password: 'a third long password',
        })
      ).status,
    ).toBe(200);
    expect((await withCookie(cookie)).status).toBe(401);
    expect((await sign('ij@x.example', password, '10.0.0.2')).status).toBe(401);
    expect((await sign('ij@x.example', 'a third long password', '10.0.0.2')).status).toBe(200);
    for (let i = 0; i < 20; i++) await at('', 'POST', '/api/access/forgot', { email: 'ij@x.example' });
    expect((await mails()).length).toBeLessThan(before + 7);
  });

  test('what the sign-in library could do beyond signing in is shut', async () => {
    for (const path of [
      'sign-up/email',
      'change-password',
      'reset-password',
      'update-user',
      'delete-user',
      'change-email',
      'revoke-sessions',
      'get-session',
      'list-sessions',
    ]) {
      for (const method of ['GET', 'POST'])
        expect([path, (await at('', method, `/api/auth/${path}`, method === 'POST' ? {} : undefined)).status]).toEqual([
          path,
          404,
        ]);
    }
  });

  test('a key that is wrong, over or ended, and a key that would make keys', async () => {
    const { cookie } = await joined('KL');
    const make = async (name: string) =>
      (await json<{ key: string }>(await at('', 'POST', '/api/me/keys', { name, days: 5 }, { cookie }))).key;
    const key = await make('render farm');
    const by = (bearer: string, method = 'GET', address = '/api/projects', body?: unknown) =>
      at('', method, address, body, { authorization: `Bearer ${bearer}`, cookie });
    expect((await by(key)).status).toBe(200);
    // A wrong key is nobody, even beside a good cookie.
    expect(await code(await by(`${key}x`))).toEqual([401, 'key-unknown']);
    expect(await code(await by(key, 'POST', '/api/me/keys', { name: 'more', days: null }))).toEqual([403, 'by-key']);
    expect((await by(key, 'POST', '/api/people', person('ZZ'))).status).toBe(403);
    await t.world.db.query("update access_key set expires_at = now() - interval '1 minute'");
    expect((await by(key)).status).toBe(401);
    const other = await make('another');
    const rows = await json<KeyRow[]>(await at('', 'GET', '/api/me/keys', undefined, { cookie }));
    expect(rows.map((k) => [k.name, other.startsWith(k.head)])).toContainEqual(['another', true]);
    expect(
      (await at('', 'DELETE', `/api/me/keys/${rows.find((k) => k.name === 'another')?.id}`, undefined, { cookie }))
        .status,
    ).toBe(204);
    expect((await by(other)).status).toBe(401);
  });
});

describe('people', () => {
  test('changing a password ends every other session; one of one’s own can be ended from the list', async () => {
    const { cookie } = await joined('MN');
    const other = cookieOf(await sign('mn@x.example', password));
    const change = (old: string) =>
      at('', 'POST', '/api/me/password', { old, password: 'a fourth long password' }, { cookie });
    expect(await code(await change('wrong wrong wrong'))).toEqual([403, 'password-wrong']);
    expect((await change(password)).status).toBe(204);
    expect([(await withCookie(cookie)).status, (await withCookie(other)).status]).toEqual([200, 401]);
    const third = cookieOf(await sign('mn@x.example', 'a fourth long password'));
    const sessions = await json<SessionRow[]>(await withCookie(cookie, '/api/me/sessions'));
    expect(sessions.filter((s) => s.here)).toHaveLength(1);
    const another = sessions.find((s) => !s.here) as SessionRow;
    expect((await at('', 'DELETE', `/api/me/sessions/${another.id}`, undefined, { cookie })).status).toBe(204);
    expect((await withCookie(third)).status).toBe(401);
  });

  test('keys end with the password they were made under, unless they are kept on purpose', async () => {
    const { cookie } = await joined('MO');
    const make = async () =>
      (await json<{ key: string }>(await at('', 'POST', '/api/me/keys', { name: 'script', days: null }, { cookie })))
        .key;
    const opens = async (key: string) =>
      (await at('', 'GET', '/api/me', undefined, { authorization: `Bearer ${key}` })).status;
    const change = (old: string, next: string, more = {}) =>
      at('', 'POST', '/api/me/password', { old, password: next, ...more }, { cookie });
    const [first, second] = ['a fifth long password', 'a sixth long password'];
    const key = await make();
    expect((await change(password, first, { keepKeys: true })).status).toBe(204);
    expect(await opens(key)).toBe(200);
    expect((await change(first, second)).status).toBe(204);
    expect(await opens(key)).toBe(401);
    const another = await make();
    await t.world.db.query('delete from sign_in_attempt');
    await at('', 'POST', '/api/access/forgot', { email: 'mo@x.example' });
    const reset = tokenIn((await mails())[0]?.body ?? '');
    expect((await at('', 'POST', '/api/access/accept', { token: reset, password: first })).status).toBe(200);
    expect(await opens(another)).toBe(401);
    // A key that leaked does not change the password.
    const third = cookieOf(await sign('mo@x.example', first));
    const leaked = (
      await json<{ key: string }>(await at('', 'POST', '/api/me/keys', { name: 'x', days: 1 }, { cookie: third }))
    ).key;
    const byKey = { authorization: `Bearer ${leaked}` };
    expect(await code(await at('', 'POST', '/api/me/password', { old: first, password: second }, byKey))).toEqual([
      403,
      'by-key',
    ]);
  });

  test('roles change; the last coordinator stays one, even when two take each other’s right at once', async () => {
    const { id } = await joined('OP', { role: 'coordinator' });
    const me = (await people()).find((p) => p.id === t.people.coordinator) as PersonRow;
    const other = (await people()).find((p) => p.id === id) as PersonRow;
    const down = (p: PersonRow) =>
      t.ask('coordinator', 'PUT', `/api/people/${p.id}`, {
        name: p.name,
        email: p.email,
        initials: p.initials,
        role: 'lead',
        does: p.does,
        version: p.version,
      });
    const answers = await Promise.all([down(me), down(other)]);
    expect(answers.map((r) => r.status).filter((s) => s === 204)).toHaveLength(1);
    const left = await t.world.db.query(
      "select count(*)::int as n from person where role = 'coordinator' and not retired",
    );
    expect(left.rows[0]).toEqual({ n: 1 });
    await t.world.db.query("update person set role = 'coordinator' where id = any($1)", [[me.id, id]]);
    expect(
      await code(
        await t.ask('coordinator', 'PUT', `/api/people/${id}`, {
          ...person('OP'),
          initials: 'QQ',
          role: 'lead',
          version: 99,
        }),
      ),
    ).toEqual([409, 'initials-used']);
    await t.ask('coordinator', 'POST', `/api/people/${id}/leave`, {});
    expect(await code(await t.ask('coordinator', 'POST', `/api/people/${me.id}/leave`, {}))).toEqual([
      409,
      'last-coordinator',
    ]);
  });
});
