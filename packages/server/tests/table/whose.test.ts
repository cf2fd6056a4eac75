/** Nobody touches what is somebody else's: every row of the table whose things are not the house's, asked by another. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { ENDPOINTS, type EndpointName, type Spec } from '@nesting/contract';
import { hashPassword, insertPerson } from '../../src/index';
import { openTestWorld, PASSWORD, type TestWorld } from '../world';
import { addressOf, done, GOOD, type Ground, openGround, type Sent } from './good';
import { differencesOf, snapshotOf } from './snapshot';

let t: TestWorld;
let ground: Ground;
/** Of another artist, and of another coordinator. */
const cookies = new Map<string, string>();
const origin = () => new URL(t.config.publicUrl).origin;

beforeAll(async () => {
  t = await openTestWorld();
  ground = await openGround(t);
  const hash = await hashPassword(PASSWORD);
  for (const [initials, role] of [['ZA', 'artist'] as const, ['ZC', 'coordinator'] as const]) {
    const email = `${initials.toLowerCase()}@x.example`;
    await insertPerson(t.world.db, { name: `Another ${role}`, email, initials, role, hash });
    const signed = await t.app.request('/api/auth/sign-in/email', {
      method: 'POST',
      headers: { origin: origin(), 'content-type': 'application/json' },
      body: JSON.stringify({ email, password: PASSWORD }),
    });
    cookies.set(initials, (signed.headers.get('set-cookie') ?? '').split(';')[0] ?? '');
  }
});
afterAll(() => t.close());

/** The same request, by the other one. */
async function other(name: EndpointName, sent: Sent, who = 'ZA'): Promise<Response> {
  const row: Spec = ENDPOINTS[name];
  return t.app.request(addressOf(row, sent), {
    method: row.method,
    headers: { origin: origin(), cookie: cookies.get(who) ?? '', 'content-type': 'application/json' },
    ...(row.method !== 'GET' && { body: JSON.stringify(sent.body === undefined ? {} : sent.body) }),
  });
}

/** Refused, and all is as it was. */
async function refused(name: EndpointName, sent: Sent, status: number, who = 'ZA'): Promise<void> {
  const before = await snapshotOf(t);
  expect((await other(name, sent, who)).status).toBe(status);
  expect(differencesOf(before, await snapshotOf(t))).toEqual([]);
}

const answer = async (name: EndpointName, sent: Sent, who = 'ZA'): Promise<unknown> =>
  (await other(name, sent, who)).json();
const mine = (name: EndpointName, sent: Sent): Promise<unknown> => done(ground, name, sent);

const NOT_MINE: Partial<Record<EndpointName, () => Promise<void>>> = {
  askName: async () => {
    const sent = await GOOD.askName(ground);
    const { name } = (await mine('askName', sent)) as { name: string };
    expect(await mine('askName', sent)).toMatchObject({ name });
    expect(await answer('askName', sent)).not.toMatchObject({ name });
  },
  markProject: async () => {
    const sent = await GOOD.markProject(ground);
    await mine('markProject', sent);
    expect((await other('markProject', { ...sent, body: { pinned: false } })).status).toBe(204);
    expect(await mine('readProject', { as: 'artist', params: { id: ground.project } })).toMatchObject({ pinned: true });
  },
  listProposals: async () => {
    await mine('propose', await GOOD.propose(ground));
    expect(await answer('listProposals', { as: null })).toEqual([]);
  },
  dropLaterRepair: async () =>
    refused('dropLaterRepair', { ...(await GOOD.dropLaterRepair(ground)), as: 'artist' }, 404),
  readProposal: async () => refused('readProposal', await GOOD.readProposal(ground), 404),
  myFormerNames: async () => {
    const before = '40_motion/26014_x_AR_V1.usda';
    await ground.t.world.db.query(
      'insert into former_name (project_id, batch_id, before, after) values ($1, $2, $3, $4)',
      [ground.project, ground.batch, before, before.replace('V1', 'v001')],
    );
    expect(await mine('myFormerNames', { as: 'artist' })).toMatchObject([{ before }]);
    expect(await answer('myFormerNames', { as: null })).toEqual([]);
  },
  me: async () => expect(await answer('me', { as: null })).toMatchObject({ initials: 'ZA' }),
  changePassword: async () => {
    await other('changePassword', { as: null, body: { old: PASSWORD, password: 'quite another password' } });
    const body = { email: 'artist@tallow-street.example', password: PASSWORD };
    await mine('signIn', { as: null, body });
  },
  listKeys: async () => {
    await mine('makeKey', { as: 'artist', body: { name: 'the first artist’s', days: 5 } });
    expect(await answer('listKeys', { as: null })).toEqual([]);
  },
  makeKey: async () => {
    const before = ((await mine('listKeys', { as: 'artist' })) as object[]).length;
    const { key } = (await answer('makeKey', { as: null, body: { name: 'mine', days: 5 } })) as { key: string };
    const asked = await t.app.request('/api/me', { headers: { authorization: `Bearer ${key}` } });
    expect(await asked.json()).toMatchObject({ initials: 'ZA' });
    expect(await mine('listKeys', { as: 'artist' })).toHaveLength(before);
  },
  dropKey: async () => {
    const sent = await GOOD.dropKey(ground);
    await refused('dropKey', sent, 404);
    await mine('dropKey', sent);
  },
  listSessions: async () => {
    const theirs = (await mine('listSessions', { as: 'artist' })) as { id: string }[];
    const seen = (await answer('listSessions', { as: null })) as { id: string }[];
    expect(seen.filter(({ id }) => theirs.some((s) => s.id === id))).toEqual([]);
  },
  endSession: async () => {
    const sent = await GOOD.endSession(ground);
    await refused('endSession', sent, 404);
    await mine('endSession', sent);
  },
  readReshapeDraft: async () => {
    await mine('keepReshapeDraft', await GOOD.keepReshapeDraft(ground));
    expect(await answer('readReshapeDraft', { as: null, params: { id: ground.project } })).toBeNull();
  },
  keepReshapeDraft: async () => {
    const sent = await GOOD.keepReshapeDraft(ground);
    await mine('keepReshapeDraft', sent);
    expect((await other('keepReshapeDraft', { ...sent, body: null })).status).toBe(204);
    expect(await mine('readReshapeDraft', { as: 'artist', params: { id: ground.project } })).toMatchObject(
      sent.body as object,
    );
  },
  handIn: async () => {
    expect((await other('handIn', await GOOD.handIn(ground))).status).toBe(201);
    const [newest] = (await mine('listHandedIn', { as: 'artist', params: { id: ground.project } })) as { by: string }[];
    expect(newest?.by).toBe('ZA');
  },
  myFindings: async () => {
    await mine('giveFindings', await GOOD.giveFindings(ground));
    expect(await answer('myFindings', { as: null })).toMatchObject({ initials: 'ZA', projects: [] });
  },
  giveFindings: async () => {
    const sent = await GOOD.giveFindings(ground);
    await mine('giveFindings', sent);
    const { ids } = sent.body as { ids: string[] };
    for (const body of [
      { ids, to: 'ZA' },
      { ids, to: null },
      { ids, note: 'mine now' },
    ])
      await refused('giveFindings', { ...sent, body }, 403);
  },
  holdNumber: async () => {
    const sent = await GOOD.holdNumber(ground);
    const { number } = (await mine('holdNumber', sent)) as { number: string };
    expect(await answer('holdNumber', sent, 'ZC')).not.toMatchObject({ number });
  },
  giveBackNumber: async () => {
    const sent = await GOOD.giveBackNumber(ground);
    const before = await snapshotOf(t);
    await other('giveBackNumber', sent, 'ZC');
    expect(differencesOf(before, await snapshotOf(t))).toEqual([]);
  },
  undoBatch: async () => refused('undoBatch', await GOOD.undoBatch(ground), 403),
  settleBatch: async () => {
    const sent = await GOOD.settleBatch(ground);
    await refused('settleBatch', sent, 403);
    await mine('settleBatch', sent);
  },
  beginUpload: async () => {
    const sent = await GOOD.beginUpload(ground);
    const { id, folder } = (await mine('beginUpload', sent)) as { id: string; folder: string };
    // The same files under the same name are another's own all the same.
    const theirs = (await answer('beginUpload', sent)) as { id: string; folder: string };
    expect([theirs.id === id, theirs.folder === folder]).toEqual([false, false]);
  },
  readUpload: async () => refused('readUpload', await GOOD.readUpload(ground), 404),
  sendPiece: async () => refused('sendPiece', await GOOD.sendPiece(ground), 404),
  endFile: async () => refused('endFile', await GOOD.endFile(ground), 404),
  endUpload: async () => refused('endUpload', await GOOD.endUpload(ground), 404, 'ZC'),
  stopBatch: async () => {
    const params = { id: ground.project, batch: ground.batch };
    await refused('stopBatch', { as: null, params }, 403);
    // Nor where it is said to be of another project.
    await refused('stopBatch', { as: null, params: { ...params, id: randomUUID() } }, 403);
  },
};

describe('what is somebody’s own', () => {
  const rows = (Object.keys(ENDPOINTS) as EndpointName[]).filter((name) => {
    const row: Spec = ENDPOINTS[name];
    return row.whose !== 'house' && row.roles !== 'anyone';
  });

  test('every row that touches such things is asked here', () => {
    expect(Object.keys(NOT_MINE).sort()).toEqual([...rows].sort());
  });

  test.each(rows)('%s leaves what is another’s', async (name) => NOT_MINE[name]?.());
});
