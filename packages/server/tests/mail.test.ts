/**
 * Mails by SMTP, against a small mail server of our own: sent once, kept while it is away, and without their text once
 * they are gone.
 */

import type { AddressInfo } from 'node:net';
import { createServer, type Server, type Socket } from 'node:net';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { configOf, Misconfigured } from '../src/index';
import { openTestWorld, type TestWorld } from './world';

let t: TestWorld;
let server: Server;
const got: string[] = [];
let refusing = false;

/** Just enough of RFC 5321 for one mail after another. */
function talk(socket: Socket): void {
  let data: string | null = null;
  let rest = '';
  socket.write('220 here\r\n');
  socket.on('error', () => undefined);
  socket.on('data', (chunk) => {
    rest += chunk.toString('utf8');
    for (let end = rest.indexOf('\r\n'); end >= 0; end = rest.indexOf('\r\n')) {
      const line = rest.slice(0, end);
      rest = rest.slice(end + 2);
      if (data !== null) {
        if (line === '.') {
          got.push(data);
          data = null;
          socket.write('250 kept\r\n');
        } else data += `${line}\n`;
      } else if (/^DATA/i.test(line)) {
        data = '';
        socket.write('354 go on\r\n');
      } else if (/^RCPT/i.test(line) && refusing) socket.write('451 not now\r\n');
      else if (/^QUIT/i.test(line)) socket.end('221 bye\r\n');
      else socket.write('250 fine\r\n');
    }
  });
}

beforeAll(async () => {
  server = createServer(talk);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  t = await openTestWorld({
    NESTING_SMTP: `smtp://127.0.0.1:${(server.address() as AddressInfo).port}`,
    NESTING_MAIL_FROM: 'nesting@tallow-street.example',
  });
});
afterAll(async () => {
  await t.close();
  await new Promise((resolve) => server.close(resolve));
});

const states = async () =>
  (
    await t.world.db.query<{ state: string; tries: number; body: string }>(
      'select state, tries, body from mail order by id',
    )
  ).rows;
const until = async (is: () => Promise<boolean>) => {
  while (!(await is())) await new Promise((resolve) => setTimeout(resolve, 20));
};
const settled = async () => {
  t.world.mails.wake();
  await t.world.mails.idle();
};

test('an invitation goes out by the mail server, and its text with the link is kept nowhere', async () => {
  const invited = await t.ask('coordinator', 'POST', '/api/people', {
    name: 'Nora Quist',
    email: 'nora@x.example',
    initials: 'NQ',
    role: 'artist',
    does: '',
  });
  expect(await invited.json()).toMatchObject({ link: null });
  await settled();
  expect(got).toHaveLength(1);
  expect(got[0]).toContain('To: nora@x.example');
  expect(got[0]).toContain('/welcome#');
  expect(await states()).toEqual([{ state: 'sent', tries: 0, body: '' }]);
  // Nobody reads mails on screen outside a demo.
  expect((await t.ask('coordinator', 'GET', '/api/outbox')).status).toBe(404);
});

test('while the mail server will not have it a mail waits, and goes out once when it will', async () => {
  refusing = true;
  await t.ask('coordinator', 'POST', '/api/people', {
    name: 'Otto Reed',
    email: 'otto@x.example',
    initials: 'OR',
    role: 'artist',
    does: '',
  });
  await settled();
  expect((await states())[1]).toMatchObject({ state: 'waiting', tries: 1 });
  const jobs = () =>
    t.world.db.query<{ state: string; later: boolean }>(
      "select state, start_after > now() later from jobs.job where name = 'mail' and state <> 'completed'",
    );
  await until(async () => (await jobs()).rows[0]?.state !== 'active');
  expect((await jobs()).rows).toEqual([{ state: 'retry', later: true }]);
  refusing = false;
  // Its turn comes: the queue tries again by itself.
  await t.world.db.query("update jobs.job set start_after = now() where name = 'mail'");
  await until(async () => (await states())[1]?.state !== 'waiting');
  await settled();
  expect((await states())[1]).toMatchObject({ state: 'sent', body: '' });
  expect(got).toHaveLength(2);
});

test('a mail server that is none is one line at the start', () => {
  const env = { NESTING_DATABASE: 'postgres://x', NESTING_SECRET: 'x'.repeat(40), NESTING_VOLUMES: 'a=/srv/a' };
  const built = { webFolder: '', migrations: '', diskProgram: null };
  for (const odd of [
    { NESTING_SMTP: 'smtp://x' },
    { NESTING_MAIL_FROM: 'a@b.example' },
    { NESTING_SMTP: 'https://x', NESTING_MAIL_FROM: 'a@b.example' },
    { NESTING_SMTP: 'nothing', NESTING_MAIL_FROM: 'a@b.example' },
  ])
    expect(() => configOf({ ...env, ...odd }, built)).toThrow(Misconfigured);
});
