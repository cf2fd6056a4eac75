/** Packages by endpoints, on a real disk: made by a job, proved, sent by a link, fetched in pieces. */
import { randomUUID } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  symlinkSync,
  truncateSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { CameBack, KeptPackWay, PackageRow, PackPlan, Sent } from '@nesting/contract';
import { wakePackages } from '../src/flows/packages/run-package';
import { rangeOf } from '../src/http/range';
import { openTestWorld, startedIn, type TestWorld } from './world';

let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld();
});
afterAll(() => t.close());

const OLD = Date.UTC(2026, 2, 6) / 1000;
const DAY = 86_400_000;
const inDays = (days: number) => new Date(Date.now() + days * DAY).toISOString().slice(0, 10);

async function lived(number: string) {
  const { id, root } = await startedIn(t, number);
  const put = (at: string, content: string | Uint8Array) => {
    mkdirSync(path.dirname(path.join(root, at)), { recursive: true });
    writeFileSync(path.join(root, at), content);
    utimesSync(path.join(root, at), OLD, OLD);
  };
  put('20_pieces/window-A/notes.txt', 'one');
  put(
    '20_pieces/window-A/large.mov',
    new Uint8Array(5_000_000).map((_, i) => (i * 7919) >> 3),
  );
  return { id, root, put };
}

const json = async <T>(response: Response): Promise<T> => (await response.json()) as T;

async function plan(id: string, selection: object = {}): Promise<PackPlan> {
  const response = await t.ask('coordinator', 'POST', `/api/projects/${id}/pack`, { selection });
  expect(response.status).toBe(200);
  return json(response);
}

async function ask(id: string, more: object = {}) {
  const selection = { withGenerated: false };
  const { fingerprint, name } = await plan(id, selection);
  const body = {
    selection,
    kind: 'zip',
    volume: 'studio',
    folder: 'out',
    name,
    fingerprint,
    key: randomUUID(),
    ...more,
  };
  return t.ask('coordinator', 'POST', `/api/projects/${id}/packages`, body);
}

async function rows(id: string): Promise<readonly PackageRow[]> {
  await t.world.packages.idle();
  return json(await t.ask('artist', 'GET', `/api/packages?project=${id}`));
}

async function done(id: string, more: object = {}): Promise<PackageRow> {
  const response = await ask(id, more);
  if (response.status !== 201) throw new Error(await response.text());
  const { id: made } = await json<PackageRow>(response);
  const row = (await rows(id)).find((one) => one.id === made);
  if (row === undefined) throw new Error('no row');
  return row;
}

const code = async (response: Response) => [response.status, (await json<{ code: string }>(response)).code];

describe('a package', () => {
  test('is made by a job, has its name once, and is proved again', async () => {
    const { id } = await lived('82001');
    const row = await done(id, { name: 'for the council', recipient: 'Ottermoor', note: 'Dear all' });
    expect(row).toMatchObject({
      state: 'done',
      path: 'out/for the council.zip',
      recipient: 'Ottermoor',
      isWhole: null,
    });
    const file = path.join(t.studio, row.path);
    expect(readFileSync(`${file}.sha256`, 'utf8')).toBe(`${row.sha256}  for the council.zip\n`);
    expect(readFileSync(file).length).toBe(row.size);
    expect(await code(await ask(id, { name: 'FOR THE COUNCIL' }))).toEqual([409, 'package-there']);
    await t.ask('artist', 'POST', `/api/packages/${row.id}/prove`);
    expect((await rows(id))[0]).toMatchObject({ isWhole: true, act: null, actFailure: '' });
    const bytes = readFileSync(file);
    bytes[2_000_000] = (bytes[2_000_000] ?? 0) ^ 4;
    writeFileSync(file, bytes);
    await t.ask('artist', 'POST', `/api/packages/${row.id}/prove`);
    expect((await rows(id))[0]).toMatchObject({ isWhole: false });
    const verdict = await json<{ changed: { path: string }[] }>(
      await t.ask('artist', 'GET', `/api/packages/${row.id}/verdict`),
    );
    expect(verdict.changed.map((one) => one.path)).toEqual(['for the council/20_pieces/window-A/large.mov']);
    rmSync(file);
    expect((await t.ask('artist', 'POST', `/api/packages/${row.id}/prove`)).status).toBe(204);
    const [gone] = await rows(id);
    expect([gone?.isWhole, gone?.actFailure]).toEqual([null, expect.stringMatching(/./)]);
  });

  test('asked for twice with one key is made once; another plan than was shown is refused', async () => {
    const { id, put } = await lived('82002');
    const key = randomUUID();
    const [first, second] = [await ask(id, { key }), await ask(id, { key, name: 'another' })];
    expect([first.status, second.status, (await rows(id)).length]).toEqual([201, 201, 1]);
    const { fingerprint } = await plan(id);
    put('20_pieces/window-A/new.txt', 'new');
    expect(await code(await ask(id, { fingerprint, name: 'later' }))).toEqual([409, 'package-changed']);
    expect(await code(await ask(id, { volume: 'nowhere', name: 'x' }))).toEqual([404, 'no-volume']);
    for (const name of ['../x', 'a/b', '.x', 'x.', 'a:b', '']) expect((await ask(id, { name })).status).toBe(400);
  });

  test('lies in no project, and holds what goes only', async () => {
    const { id, root, put } = await lived('82003');
    const folder = path.relative(t.studio, path.join(root, '10_paperwork'));
    expect(await code(await ask(id, { folder }))).toEqual([409, 'package-in-project']);
    expect(await code(await ask(id, { folder: '../out' }))).toEqual([400, 'path-refused']);
    put('=cmd.txt', 'x');
    const { staying, must } = await plan(id, { within: '20_pieces' });
    expect([staying.map((one) => one.stays), must]).toEqual([['elsewhere'], 0]);
    const nothing = await t.ask('coordinator', 'POST', `/api/projects/${id}/pack`, {
      selection: { document: 'no.usda' },
    });
    expect(await code(nothing)).toEqual([404, 'no-document']);
  });

  test('cut short by a server that died it is gone on with by another', async () => {
    const { id } = await lived('82004');
    const row = await done(id, { name: 'cut' });
    // As if the server had died before it was put in its place, and before anything was.
    for (const isBegun of [true, false]) {
      const file = path.join(t.studio, 'out/cut.zip');
      const bytes = readFileSync(file);
      rmSync(file);
      if (isBegun) writeFileSync(`${file}.part`, bytes.subarray(0, 3_000_000));
      await t.world.db.query(`update package set state = 'packing', shown = null where id = $1`, [row.id]);
      await wakePackages(t.world);
      expect((await rows(id))[0]).toMatchObject({ state: 'done', sha256: row.sha256 });
      expect(readdirSync(path.join(t.studio, 'out')).filter((name) => name.startsWith('cut'))).toEqual([
        'cut.zip',
        'cut.zip.sha256',
      ]);
    }
  });

  test('a server that died after all was done, and before it was noted: it is done all the same', async () => {
    const { id } = await lived('82007');
    const run = t.world.disks.run.bind(t.world.disks);
    // Nothing is forgotten, and the row is as it was before the end.
    t.world.disks.run = ((task, input, asking) =>
      task === 'forgetLog' ? Promise.reject(new Error('died')) : run(task, input, asking)) as typeof run;
    const row = await done(id, { name: 'noted' }).finally(() => {
      t.world.disks.run = run;
    });
    await t.world.db.query(`update package set state = 'packing', shown = null, sha256 = null where id = $1`, [row.id]);
    await wakePackages(t.world);
    const [now] = await rows(id);
    expect(now).toMatchObject({ state: 'done', failure: '', files: row.files, size: row.size });
    expect(readdirSync(path.join(t.studio, 'out')).filter((name) => name.startsWith('noted'))).toEqual([
      'noted.zip',
      'noted.zip.sha256',
    ]);
  });

  test('stopped it waits, goes on, or is taken back with what was written', async () => {
    const { id } = await lived('82005');
    const row = await done(id, { name: 'stopped' });
    const file = path.join(t.studio, row.path);
    expect(await code(await t.ask('coordinator', 'POST', `/api/packages/${row.id}/stop`))).toEqual([
      409,
      'package-over',
    ]);
    rmSync(file);
    await t.world.db.query(`update package set state = 'queued', stop_asked = true where id = $1`, [row.id]);
    await wakePackages(t.world);
    expect((await rows(id))[0]).toMatchObject({ state: 'stopped' });
    await t.ask('coordinator', 'POST', `/api/packages/${row.id}/go-on`, {});
    expect((await rows(id))[0]).toMatchObject({ state: 'done' });
    expect(await code(await t.ask('coordinator', 'DELETE', `/api/packages/${row.id}`))).toEqual([
      409,
      'package-under-way',
    ]);
    expect(existsSync(file)).toBe(true);
    rmSync(file);
    writeFileSync(`${file}.part`, 'half');
    await t.world.db.query(`update package set state = 'stopped' where id = $1`, [row.id]);
    expect((await t.ask('coordinator', 'DELETE', `/api/packages/${row.id}`)).status).toBe(204);
    expect([
      await rows(id),
      readdirSync(path.join(t.studio, 'out')).filter((name) => name.startsWith('stopped')),
    ]).toEqual([[], []]);
  });

  test('a name that somebody took meanwhile stays theirs', async () => {
    const { id } = await lived('82006');
    mkdirSync(path.join(t.studio, 'out'), { recursive: true });
    writeFileSync(path.join(t.studio, 'out/mine.zip'), 'somebody’s');
    const row = await done(id, { name: 'mine' });
    expect([row.state, row.failure]).toEqual(['failed', expect.stringContaining('there already')]);
    expect(readFileSync(path.join(t.studio, 'out/mine.zip'), 'utf8')).toBe('somebody’s');
  });
});

test('a way of packing is kept with its template, packs another project, and is forgotten', async () => {
  const ways = '/api/templates/window-piece/selections';
  const way = {
    ...{ kind: 'bag', isSideBySide: false, purpose: 'handover' },
    selection: { comes: 'current', folders: { pieces: 'nothing' }, isForOutsiders: false },
  };
  const { id } = await lived('82090');
  expect((await t.ask('coordinator', 'PUT', `${ways}/For%20the%20shelf`, { way })).status).toBe(204);
  const [kept] = await json<KeptPackWay[]>(await t.ask('coordinator', 'GET', ways));
  expect(kept).toMatchObject({ name: 'For the shelf', way: { ...way, selection: { ...way.selection, within: '' } } });
  const asIs = await plan(id);
  const byWay = await plan(id, kept?.way.selection);
  expect(byWay.items.filter(({ path: at, stays }) => at.startsWith('20_pieces') && stays === null)).toEqual([]);
  expect(byWay.files).toBeLessThan(asIs.files);
  // It is none of carrying over, and single files are not kept.
  expect(await json(await t.ask('coordinator', 'GET', '/api/templates/window-piece/ways'))).toEqual([]);
  const picked = { ...way, selection: { ...way.selection, picked: { 'a.txt': true } } };
  expect((await t.ask('coordinator', 'PUT', `${ways}/Picked`, { way: picked })).status).toBe(400);
  expect((await t.ask('coordinator', 'DELETE', `${ways}/For%20the%20shelf`)).status).toBe(204);
  expect(await code(await t.ask('coordinator', 'DELETE', `${ways}/For%20the%20shelf`))).toEqual([404, 'no-way']);
});

test('what came back is held against what was sent: worked on, new, thrown away', async () => {
  const { id } = await lived('82031');
  const row = await done(id, { name: 'to a freelancer' });
  const put = (at: string, text: string | Uint8Array) => {
    mkdirSync(path.dirname(path.join(t.studio, 'back', at)), { recursive: true });
    writeFileSync(path.join(t.studio, 'back', at), text);
  };
  put('82031/20_pieces/window-A/notes.txt', 'one, and more');
  put(
    '82031/20_pieces/large.mov',
    new Uint8Array(5_000_000).map((_, i) => (i * 7919) >> 3),
  );
  put('82031/20_pieces/window-A/new.svg', '<svg/>');
  const ask = (folder: string) =>
    t.ask('coordinator', 'POST', `/api/packages/${row.id}/returned`, { volume: 'studio', folder });
  const { rows: found, counts } = await json<CameBack>(await ask('back'));
  expect(counts).toEqual({ changed: 1, new: 1, same: 1, 'not-back': row.files - 2 });
  expect(found.slice(0, 3).map(({ state, sent }) => [state, sent])).toEqual([
    ['changed', '20_pieces/window-A/notes.txt'],
    ['new', null],
    ['same', '20_pieces/window-A/large.mov'],
  ]);
  expect(await code(await ask('nowhere'))).toEqual([404, 'path-missing']);
  truncateSync(path.join(t.studio, row.path), 1000);
  expect(await code(await ask('back'))).toEqual([409, 'package-not-whole']);
});

describe('the archive', () => {
  const act = (id: string, what: 'free' | 'bring-back' | 'bring-part', body: object) =>
    t.ask('coordinator', 'POST', `/api/packages/${id}/${what}`, body);
  const stateOf = async (id: string) => {
    const { state, volume } = await json<{ state: string; volume: string }>(
      await t.ask('lead', 'GET', `/api/projects/${id}`),
    );
    return [state, volume];
  };
  const shelf = { purpose: 'archive', kind: 'bag-zip', selection: { isForOutsiders: false } };
  async function shelved(number: string) {
    const project = await lived(number);
    project.put('loose =cmd.txt', 'one that no rule knows');
    const { fingerprint } = await plan(project.id, shelf.selection);
    const row = await done(project.id, { ...shelf, name: `shelf ${number}`, fingerprint });
    return { ...project, row };
  }
  const treeOf = (root: string) =>
    readdirSync(root, { recursive: true, encoding: 'utf8' })
      .filter((at) => !at.startsWith('.nesting'))
      .sort()
      .map((at) => [at, statSync(path.join(root, at)).isFile() ? readFileSync(path.join(root, at), 'utf8') : null]);

  test('takes a project, lets the original go, is found, and gives it back byte by byte', async () => {
    const { id, root, row } = await shelved('82021');
    const before = treeOf(root);
    expect(await stateOf(id)).toEqual(['packed', 'studio']);
    expect(await code(await act(row.id, 'free', { number: '82022' }))).toEqual([422, 'number-other']);
    expect((await act(row.id, 'free', { number: '82021' })).status).toBe(204);
    expect((await rows(id))[0]).toMatchObject({
      act: null,
      actFailure: '',
      isWhole: true,
      freedAt: expect.any(String),
    });
    expect([existsSync(root), readdirSync(t.studio).filter((name) => name.startsWith('.nesting-leaving'))]).toEqual([
      false,
      [],
    ]);
    const found = await json<{ path: string; package: string }[]>(
      await t.ask('artist', 'GET', '/api/packages/files?find=large'),
    );
    expect(found).toMatchObject([
      { number: '82021', path: '20_pieces/window-A/large.mov', package: 'shelf 82021.zip' },
    ]);
    for (const none of ['%25', 'la_ge', 'nowhere'])
      expect(await json(await t.ask('artist', 'GET', `/api/packages/files?find=${none}x`))).toEqual([]);
    // Somebody needs one folder of it: the project stays in the archive.
    const part = { volume: 'studio', within: '/20_pieces/window-A/' };
    expect((await act(row.id, 'bring-part', part)).status).toBe(204);
    expect((await rows(id))[0]).toMatchObject({ act: null, actFailure: '', backAt: null });
    const taken = path.join(t.studio, `${path.basename(root)}_window-A`);
    const inPart = before.filter(([at]) => at?.startsWith('20_pieces/window-A/'));
    expect(inPart.length).toBeGreaterThan(1);
    expect(treeOf(taken).filter(([at]) => at?.startsWith('20_pieces/window-A/'))).toEqual(inPart);
    expect(treeOf(taken).filter(([at]) => /^\.nesting|^10_/.test(at ?? ''))).toEqual([]);
    expect(await stateOf(id)).toEqual(['packed', 'studio']);
    await act(row.id, 'bring-part', part);
    expect((await rows(id))[0]?.actFailure).toContain('Something is called');
    await act(row.id, 'bring-part', { ...part, within: '20_pieces/nowhere' });
    expect((await rows(id))[0]?.actFailure).toContain('20_pieces/nowhere');
    await act(row.id, 'bring-part', { ...part, within: '../20_pieces' });
    expect((await rows(id))[0]?.actFailure).toContain('../20_pieces');
    rmSync(taken, { recursive: true });
    expect((await act(row.id, 'bring-back', { volume: 'studio' })).status).toBe(204);
    expect((await rows(id))[0]).toMatchObject({ actFailure: '', backAt: expect.any(String) });
    // It was unpacked, and whoever did it died before that was noted.
    await t.world.checks.idle();
    await t.world.db.query('update package set back_at = null where id = $1', [row.id]);
    await t.world.db.query(`update project set state = 'packed' where id = $1`, [id]);
    await act(row.id, 'bring-back', { volume: 'studio' });
    expect((await rows(id))[0]).toMatchObject({ actFailure: '', backAt: expect.any(String) });
    await t.world.checks.idle();
    expect([await stateOf(id), treeOf(root)]).toEqual([['running', 'studio'], before]);
    expect(await json(await t.ask('artist', 'GET', '/api/packages/files?find=large'))).toEqual([]);
    // It runs again: it is no original to be freed any more, and nothing needs to be brought back.
    expect(await code(await act(row.id, 'free', { number: '82021' }))).toEqual([409, 'not-archived']);
    await act(row.id, 'bring-back', { volume: 'studio' });
    expect((await rows(id))[0]?.actFailure).toContain('is there on studio');
    expect(treeOf(root)).toEqual(before);
  });

  test('lets nothing go that is not in it: changed, new, or a package that is not whole', async () => {
    const { id, root, put, row } = await shelved('82023');
    put('20_pieces/window-A/after.txt', 'written after it was packed');
    await act(row.id, 'free', { number: '82023' });
    expect((await rows(id))[0]?.actFailure).toContain('after.txt');
    rmSync(path.join(root, '20_pieces/window-A/after.txt'));
    put('20_pieces/window-A/notes.txt', 'two');
    await act(row.id, 'free', { number: '82023' });
    expect((await rows(id))[0]?.actFailure).toContain('notes.txt');
    put('20_pieces/window-A/notes.txt', 'one');
    const link = path.join(root, '20_pieces/link');
    symlinkSync('/etc/hostname', link);
    await act(row.id, 'free', { number: '82023' });
    expect((await rows(id))[0]?.actFailure).toContain('20_pieces/link');
    rmSync(link);
    const noText = Buffer.concat([Buffer.from(`${root}/`), Buffer.from([0x66, 0xff])]);
    writeFileSync(noText, 'no text');
    await act(row.id, 'free', { number: '82023' });
    expect((await rows(id))[0]?.actFailure).toContain('One file is not in the package');
    rmSync(noText);
    // What a change has set aside lies in the project's own folder alone.
    await t.world.db.query(
      `insert into batch (id, project_id, what, state, kept_files, shape_from, shape_to) values (gen_random_uuid(), $1, 'repair', 'done', 2, '{}', '{}')`,
      [id],
    );
    await act(row.id, 'free', { number: '82023' });
    expect((await rows(id))[0]?.actFailure).toContain('2 files are set aside');
    await t.world.db.query(`update batch set kept_files = 0, state = 'paused' where project_id = $1`, [id]);
    await act(row.id, 'free', { number: '82023' });
    expect((await rows(id))[0]?.actFailure).toMatch(/change/);
    await t.world.db.query('delete from batch where project_id = $1', [id]);
    const file = path.join(t.studio, row.path);
    const bytes = readFileSync(file);
    bytes[1_000_000] = (bytes[1_000_000] ?? 0) ^ 1;
    writeFileSync(file, bytes);
    for (const [what, body] of [
      ['free', { number: '82023' }],
      ['bring-back', { volume: 'studio' }],
    ] as const) {
      await act(row.id, what, body);
      expect((await rows(id))[0]).toMatchObject({ isWhole: false, actFailure: expect.stringContaining('not whole') });
    }
    expect(readFileSync(path.join(root, '20_pieces/window-A/notes.txt'), 'utf8')).toBe('one');
    expect(readdirSync(t.studio).filter((name) => name.startsWith('.nesting-'))).toEqual(['.nesting-volume']);
  });

  test('a removal that was cut short is gone on with, and only what was meant goes', async () => {
    const { id, root, row } = await shelved('82024');
    renameSync(root, path.join(t.studio, `.nesting-leaving-${row.id}`));
    rmSync(path.join(t.studio, `.nesting-leaving-${row.id}/20_pieces`), { recursive: true });
    await act(row.id, 'free', { number: '82024' });
    expect((await rows(id))[0]).toMatchObject({ actFailure: '', freedAt: expect.any(String) });
    expect(readdirSync(t.studio).filter((name) => name.startsWith('.nesting-'))).toEqual(['.nesting-volume']);
    // What is handed over is no archive.
    const other = await lived('82025');
    const given = await done(other.id, { name: 'handed over' });
    expect(await stateOf(other.id)).toEqual(['running', 'studio']);
    expect(await code(await act(given.id, 'free', { number: '82025' }))).toEqual([409, 'not-archived']);
    expect(await code(await act(given.id, 'bring-back', { volume: 'studio' }))).toEqual([409, 'not-archived']);
  });
});

describe('a link', () => {
  const open = (secret: string, word = '') => t.ask(null, 'POST', '/api/sent', { secret, word });
  async function link(id: string, body: object = {}): Promise<string> {
    const response = await t.ask('coordinator', 'POST', `/api/packages/${id}/links`, { until: inDays(7), ...body });
    if (response.status !== 201) throw new Error(await response.text());
    return (await json<{ link: string }>(response)).link.split('#')[1] ?? '';
  }

  test('opens one package to whoever has it, from any byte on, and is counted once', async () => {
    const { id } = await lived('82011');
    const row = await done(id, { name: 'sent', recipient: 'Ottermoor' });
    const secret = await link(row.id);
    const sent = await json<Sent>(await open(secret));
    expect(sent).toMatchObject({ name: 'sent.zip', size: row.size, sha256: row.sha256, recipient: 'Ottermoor' });
    const whole = await t.app.request(sent.download);
    expect([whole.status, whole.headers.get('accept-ranges')]).toEqual([200, 'bytes']);
    const bytes = Buffer.from(await whole.arrayBuffer());
    expect(bytes.equals(readFileSync(path.join(t.studio, row.path)))).toBe(true);
    for (const [range, from, to] of [
      ['bytes=3000000-', 3_000_000, bytes.length],
      ['bytes=5-6', 5, 7],
      ['bytes=-9', bytes.length - 9, bytes.length],
    ] as const) {
      const part = await t.app.request(sent.download, { headers: { range } });
      expect([part.status, part.headers.get('content-range')]).toEqual([
        206,
        `bytes ${from}-${to - 1}/${bytes.length}`,
      ]);
      expect(Buffer.from(await part.arrayBuffer()).equals(bytes.subarray(from, to))).toBe(true);
    }
    const [told] = await rows(id);
    expect(told?.links).toMatchObject([{ opened: 1, hasWord: false }]);
    const stored = JSON.stringify((await t.world.db.query('select * from package_link')).rows);
    expect([stored.includes(secret), stored.includes(sent.download.split('/')[3] ?? '')]).toEqual([false, false]);
  });

  test('with a word opens to who knows both, and guessing ends', async () => {
    const { id } = await lived('82012');
    const row = await done(id, { name: 'with a word' });
    const secret = await link(row.id, { word: 'pier' });
    expect(await code(await open(secret))).toEqual([403, 'word-wrong']);
    const { download } = await json<Sent>(await open(secret, 'pier'));
    expect((await t.app.request(download)).status).toBe(200);
    const other = await link(row.id, { word: 'mole' });
    expect(await code(await open(other, 'pier'))).toEqual([403, 'word-wrong']);
    for (let tries = 0; tries < 20; tries++) await open(other, `guess ${tries}`);
    expect(await code(await open(other, 'mole'))).toEqual([429, 'too-many-tries']);
    await t.world.db.query('delete from sign_in_attempt');
  });

  test('guessed, over, or revoked it opens nothing, and a folder has none', async () => {
    const { id } = await lived('82013');
    const row = await done(id, { name: 'over' });
    expect(await code(await open('x'.repeat(32)))).toEqual([404, 'no-link']);
    expect((await t.app.request(`/api/sent/${'x'.repeat(43)}/file`)).status).toBe(404);
    const secret = await link(row.id);
    const { download } = await json<Sent>(await open(secret));
    await t.world.db.query(`update package_link set expires_at = clock_timestamp() - interval '1 second'`);
    expect(await code(await open(secret))).toEqual([404, 'no-link']);
    expect((await t.app.request(download)).status).toBe(404);
    const second = await link(row.id);
    const pass = (await json<Sent>(await open(second))).download;
    const [told] = await rows(id);
    const [one] = told?.links ?? [];
    expect((await t.ask('coordinator', 'DELETE', `/api/packages/${row.id}/links/${one?.id}`)).status).toBe(204);
    expect([(await open(second)).status, (await t.app.request(pass)).status]).toEqual([404, 404]);
    const make = (made: string, until: string) =>
      t.ask('coordinator', 'POST', `/api/packages/${made}/links`, { until });
    expect(await code(await make(row.id, inDays(-1)))).toEqual([422, 'day-past']);
    expect(await code(await make(row.id, inDays(800)))).toEqual([422, 'day-past']);
    const bag = await done(id, { kind: 'bag', name: 'a folder' });
    expect(await code(await make(bag.id, inDays(3)))).toEqual([409, 'package-is-folder']);
    for (const role of ['artist', 'lead'] as const)
      expect((await t.ask(role, 'POST', `/api/packages/${row.id}/links`, { until: inDays(3) })).status).toBe(403);
  });
});

test('parts of a file are asked for in many ways, and what cannot be is the whole', () => {
  expect(['bytes=0-0', 'bytes=2-', 'bytes=-3', 'bytes=0-999', 'bytes=9-'].map((header) => rangeOf(header, 10))).toEqual(
    [
      { from: 0, to: 1 },
      { from: 2, to: 10 },
      { from: 7, to: 10 },
      { from: 0, to: 10 },
      { from: 9, to: 10 },
    ],
  );
  for (const header of [null, 'bytes=', 'bytes=-', 'bytes=5-4', 'bytes=10-', 'bytes=0-1,3-4', 'lines=0-1', 'bytes=-0'])
    expect(rangeOf(header, 10)).toBeNull();
});
