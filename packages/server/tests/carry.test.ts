/** A project carried over on a real disk with a real database: to a new one, to one that is there, to a revision. */
import { createHash, randomBytes, randomUUID } from 'node:crypto';
import {
  existsSync,
  lstatSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  symlinkSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  ActivityPage,
  BatchRow,
  CarriedHere,
  CarryPlan,
  FindingList,
  KeptWay,
  ProjectPage,
  TemplateRow,
} from '@nesting/contract';
import { PIECE_BYTES } from '@nesting/core';
import type { Template } from '@nesting/core/template';
import { insertEdition } from '../src/index';
import { type Lived, openTestWorld, startedIn, startOf, type TestWorld } from './world';

let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld();
});
afterAll(() => t.close());

let numbers = 83_000;
const C = 'coordinator';

const started = (more: object = {}): Promise<Lived> => startedIn(t, String(++numbers), more);

const drawn = (number: string, version: string, window = 'A') =>
  `20_pieces/window-${window}/${number}_${window}_draw_AR_${version}.svg`;

/** Two versions, a drawing that refers to a picture, a note that carries the number, a cache. */
async function lived(more: object = {}): Promise<Lived> {
  const p = await started(more);
  p.put(drawn(p.number, 'v001'), '<svg/>');
  p.put(drawn(p.number, 'v002'), `<svg><image href="../../10_paperwork/look ${p.number}.png"/></svg>`);
  p.put(`10_paperwork/look ${p.number}.png`, 'a picture');
  // Of a program that nobody else reads.
  p.put(
    `10_paperwork/cut ${p.number}.cutlist`,
    `\0${p.root}/10_paperwork/look ${p.number}.png\0${p.root}/${drawn(p.number, 'v001')}\0`,
  );
  p.put('90_cache/x.tmp', 'cache');
  return p;
}

const newTarget = (more: object = {}) => {
  const number = String(++numbers);
  return { number, target: { kind: 'new', start: { ...startOf(number), key: randomUUID(), ...more } } };
};

const plan = async (id: string, asked: object): Promise<CarryPlan> =>
  (await (await t.ask(C, 'POST', `/api/projects/${id}/carry`, { way: {}, ...asked })).json()) as CarryPlan;
const apply = (id: string, asked: object, fingerprint: string, key: string = randomUUID()) =>
  t.ask(C, 'POST', `/api/projects/${id}/carry/batches`, { way: {}, ...asked, fingerprint, key }, WAIT);
const WAIT = { prefer: 'wait=60' };

async function codeOf(response: Response): Promise<[number, string]> {
  return [response.status, ((await response.json()) as { code: string }).code];
}

/** Every name with its bytes, time and inode. */
function wholeTree(root: string): string[] {
  return readdirSync(root, { recursive: true })
    .map(String)
    .sort()
    .map((name) => {
      const at = path.join(root, name);
      const { mtimeMs, ino, size } = lstatSync(at);
      return `${name} ${mtimeMs} ${ino} ${lstatSync(at).isFile() ? readFileSync(at, 'base64') : size}`;
    });
}

const rootOf = async (id: string): Promise<string> => {
  const { folder } = (await (await t.ask('lead', 'GET', `/api/projects/${id}`)).json()) as ProjectPage;
  return path.join(t.studio, folder);
};

describe('to a new project', () => {
  test('it is started, what is current comes under its own names and refers to its own; the old one is untouched', async () => {
    const p = await lived();
    await t.ask('artist', 'POST', `/api/projects/${p.id}/checks`, { what: 'whole' });
    await t.idle();
    const before = wholeTree(p.root);
    const next = newTarget();
    const shown = await plan(p.id, next);
    const [v1, v2] = [drawn(p.number, 'v001'), drawn(p.number, 'v002')];
    const lineOf = (from: string) => shown.items.find((i) => i.from === from);
    expect(lineOf(v1)).toMatchObject({ comes: false });
    expect(lineOf(v2)).toMatchObject({ comes: true, by: 'meaning', to: drawn(next.number, 'v001') });
    expect(shown.folders.find(({ path: at }) => at === '20_pieces/window-A')).toMatchObject({ files: 2, coming: 1 });
    expect([shown.refused, shown.hindered]).toEqual([[], 0]);
    expect(readdirSync(t.studio).some((name) => name.startsWith(next.number))).toBe(false);
    const response = await apply(p.id, next, shown.fingerprint);
    expect(response.status).toBe(201);
    const { project, batch } = (await response.json()) as { project: string; batch: string };
    const root = await rootOf(project);
    expect(readFileSync(path.join(root, drawn(next.number, 'v001')), 'utf8')).toContain(
      `href="../../10_paperwork/look%20${next.number}.png"`,
    );
    expect(existsSync(path.join(root, '90_cache/x.tmp'))).toBe(false);
    expect(wholeTree(p.root)).toEqual(before);
    await t.idle();
    const of = async (id: string) =>
      ((await (await t.ask('lead', 'GET', `/api/projects/${id}/findings?group=none`)).json()) as FindingList).rows;
    const oldRules = new Set((await of(p.id)).map(({ rule }) => rule));
    expect((await of(project)).filter(({ rule }) => !oldRules.has(rule))).toEqual([]);
    const told = (await (await t.ask('lead', 'GET', `/api/activity?project=${project}`)).json()) as ActivityPage;
    expect(told.rows[0]).toMatchObject({ what: 'files-carried', params: { files: shown.files, number: p.number } });
    const rows = (await (await t.ask('lead', 'GET', `/api/projects/${project}/batches`)).json()) as BatchRow[];
    expect(rows).toMatchObject([{ id: batch, what: 'carry', source: p.id, state: 'done' }]);
    // A document that only its program writes is listed with where it is to point, until it was saved anew.
    const cut = `10_paperwork/cut ${p.number}.cutlist`;
    expect(shown.byHand.filter(({ why }) => why === 'other-format')).toMatchObject([
      { document: cut, to: path.join(root, `10_paperwork/look ${next.number}.png`) },
      { document: cut, target: path.join(p.root, v1) },
    ]);
    const mentions = async () =>
      (await (await t.ask('artist', 'GET', `/api/projects/${project}/batches/${batch}/mentions`)).json()) as object[];
    const document = `10_paperwork/cut ${next.number}.cutlist`;
    expect(await mentions()).toMatchObject([
      { document, to: path.join(root, `10_paperwork/look ${next.number}.png`) },
      { document, to: null },
    ]);
    const was = readFileSync(path.join(root, document));
    const { mtime } = lstatSync(path.join(root, document));
    writeFileSync(path.join(root, document), `\0${root}/10_paperwork/look ${next.number}.png\0`);
    expect(await mentions()).toEqual([]);
    writeFileSync(path.join(root, document), was);
    utimesSync(path.join(root, document), mtime, mtime);
    // Undone the new project is as it was started, and the old one still as it was.
    expect((await t.ask(C, 'POST', `/api/projects/${project}/batches/${batch}/undo`, {}, WAIT)).status).toBe(201);
    expect(existsSync(path.join(root, drawn(next.number, 'v001')))).toBe(false);
    expect(existsSync(path.join(root, '20_pieces/window-A'))).toBe(true);
    expect(wholeTree(p.root)).toEqual(before);
  });

  test('asked again it is done once; where the source changed meanwhile nothing is started', async () => {
    const p = await lived();
    const next = newTarget();
    const { fingerprint } = await plan(p.id, next);
    p.put('10_paperwork/later.pdf');
    expect(await codeOf(await apply(p.id, next, fingerprint))).toEqual([409, 'disk-changed']);
    expect(readdirSync(t.studio).some((name) => name.startsWith(next.number))).toBe(false);
    const again = await plan(p.id, next);
    const key = randomUUID();
    const first = await apply(p.id, next, again.fingerprint, key);
    p.put('10_paperwork/later still.pdf');
    const second = await apply(p.id, next, again.fingerprint, key);
    expect(await second.json()).toEqual(await first.json());
  });

  test('what the batch could not do is done when it is asked for once more: the project is not started twice', async () => {
    const p = await lived();
    const next = newTarget();
    const shown = await plan(p.id, next);
    // The answer of the start was lost, and somebody has laid a file in the way since.
    await t.ask(C, 'POST', '/api/projects', next.target.start);
    const at = path.join(await rootOf(next.target.start.key), drawn(next.number, 'v001'));
    writeFileSync(at, 'mine');
    expect(await codeOf(await apply(p.id, next, shown.fingerprint))).toEqual([409, 'disk-changed']);
    rmSync(at);
    expect((await apply(p.id, next, shown.fingerprint)).status).toBe(201);
  });

  test('a number that is taken, a plan that is refused, nothing that comes, a source that is away', async () => {
    const [p, other] = [await lived(), await started()];
    const taken = { target: { kind: 'new', start: { ...startOf(other.number), key: randomUUID() } } };
    const shown = await plan(p.id, taken);
    const [status, code] = await codeOf(await apply(p.id, taken, shown.fingerprint));
    expect([status, ['folder-exists', 'number-taken']]).toEqual([409, expect.arrayContaining([code])]);
    const nameless = { target: { kind: 'new', start: { ...startOf(''), key: randomUUID() } }, way: {} };
    expect((await codeOf(await t.ask(C, 'POST', `/api/projects/${p.id}/carry`, nameless)))[0]).toBe(422);
    const none = { ...newTarget(), way: { folders: { root: 'nothing' } } };
    const empty = await plan(p.id, none);
    expect(empty.files).toBe(0);
    expect(await codeOf(await apply(p.id, none, empty.fingerprint))).toEqual([409, 'nothing-to-carry']);
    renameSync(p.root, `${p.root}-away`);
    const away = await t.ask(C, 'POST', `/api/projects/${p.id}/carry`, { ...newTarget(), way: {} });
    expect(await codeOf(away)).toEqual([404, 'path-missing']);
    renameSync(`${p.root}-away`, p.root);
    for (const who of ['artist', 'lead'] as const)
      expect((await t.ask(who, 'POST', `/api/projects/${p.id}/carry`, { ...newTarget(), way: {} })).status).toBe(403);
  });

  test('single files and folders, names and places by hand; what cannot be is said and stays', async () => {
    const p = await lived();
    p.put('30_masters/odd.txt');
    const [v1, note] = [drawn(p.number, 'v001'), `10_paperwork/look ${p.number}.png`];
    const picked = {
      [v1]: { comes: true, name: 'first.svg', folder: '10_paperwork' },
      [note]: { name: 'a:b.png' },
      '30_masters': { comes: false },
    };
    const next = { ...newTarget(), picked };
    const shown = await plan(p.id, next);
    const lineOf = (from: string) => shown.items.find((i) => i.from === from);
    expect(lineOf(v1)).toMatchObject({ to: '10_paperwork/first.svg', by: 'hand', comes: true });
    expect(lineOf(note)?.fault?.code).toContain('name');
    expect(lineOf('30_masters/odd.txt')).toMatchObject({ comes: false });
    expect(shown.hindered).toBe(1);
    const done = (await (await apply(p.id, next, shown.fingerprint)).json()) as { project: string };
    expect(readdirSync(path.join(await rootOf(done.project), '10_paperwork')).sort()).toEqual([
      expect.stringMatching(/^cut /),
      'first.svg',
    ]);
    for (const bad of ['../out', '/../etc', 'a/../b', '.nesting', 'a/con']) {
      const out = await plan(p.id, { ...newTarget(), picked: { [v1]: { comes: true, folder: bad } } });
      expect(out.items.find((i) => i.from === v1)?.fault).not.toBeNull();
    }
  });
});

test('to a project that is there: what it has stays, what is in the way is said; not to itself', async () => {
  const [p, q] = [await lived(), await started()];
  q.put(`10_paperwork/look ${q.number}.png`, 'mine');
  const target = { target: { kind: 'there', project: q.id } };
  const shown = await plan(p.id, target);
  expect(shown.items.find(({ from }) => from.endsWith('.png'))).toMatchObject({ clash: true });
  expect((await apply(p.id, target, shown.fingerprint)).status).toBe(201);
  expect(readFileSync(path.join(q.root, `10_paperwork/look ${q.number}.png`), 'utf8')).toBe('mine');
  expect(existsSync(path.join(q.root, drawn(q.number, 'v001')))).toBe(true);
  const itself = { target: { kind: 'there', project: p.id }, way: {} };
  expect(await codeOf(await t.ask(C, 'POST', `/api/projects/${p.id}/carry`, itself))).toEqual([
    409,
    'carry-into-itself',
  ]);
});

describe('to a folder on somebody’s computer', () => {
  const hereOf = ({ target: { start } }: ReturnType<typeof newTarget>, path_ = '') => ({
    target: { kind: 'here', start, path: path_ },
  });

  test('what is started there and what comes along is told, and nothing is started here', async () => {
    const p = await lived();
    p.put('10_paperwork/whole.svg', `<svg><image href="${p.root}/10_paperwork/look ${p.number}.png"/></svg>`);
    const next = newTarget();
    const shown = await plan(p.id, hereOf(next));
    expect(shown).toMatchObject({ refused: [], into: { volume: '' }, free: null });
    // Nobody knows where it will lie: what says a whole path is put right by hand.
    const whole = `${p.root}/10_paperwork/look ${p.number}.png`;
    expect(shown.byHand).toContainEqual({
      document: '10_paperwork/whole.svg',
      target: whole,
      to: null,
      why: 'root-unknown',
    });
    const known = await plan(p.id, hereOf(next, '/home/ines/work/'));
    expect(known.byHand.some(({ why }) => why === 'root-unknown')).toBe(false);
    expect(known.documents.find(({ path: at }) => at === '10_paperwork/whole.svg')?.changes).toEqual([
      { from: whole, to: `/home/ines/work/${shown.into.folder}/10_paperwork/look ${next.number}.png` },
    ]);
    const ask = (fingerprint: string) =>
      t.ask(C, 'POST', `/api/projects/${p.id}/carry/here`, { way: {}, ...hereOf(next), fingerprint });
    expect(await codeOf(await ask(known.fingerprint))).toEqual([409, 'disk-changed']);
    const given = (await (await ask(shown.fingerprint)).json()) as CarriedHere;
    expect(given.folder).toBe(shown.into.folder);
    expect(given.start).toContainEqual({ do: 'make', path: '20_pieces/window-A' });
    expect(given.changes.filter(({ entry }) => entry === 'file')).toHaveLength(shown.files);
    expect(readdirSync(t.studio).some((name) => name.startsWith(next.number))).toBe(false);
    // The server carries out nothing of it.
    expect((await apply(p.id, hereOf(next), shown.fingerprint)).status).toBe(400);
    const [told] = ((await (await t.ask('lead', 'GET', `/api/activity?project=${p.id}`)).json()) as ActivityPage).rows;
    expect(told).toMatchObject({ what: 'carried-here', params: { files: shown.files, folder: given.folder } });
  });

  test('a file is given in pieces with their checksums, while it is as it was; paths lead nowhere else', async () => {
    const p = await started();
    const bytes = randomBytes(PIECE_BYTES + 1234);
    p.put('10_paperwork/large.bin', '');
    const at = path.join(p.root, '10_paperwork/large.bin');
    writeFileSync(at, bytes);
    const { size, mtimeMs } = lstatSync(at);
    const piece = (from: number, more: object = {}) => {
      const asked = { path: '10_paperwork/large.bin', at: `${from}`, size: `${size}`, modified: `${mtimeMs}`, ...more };
      return t.ask(C, 'GET', `/api/projects/${p.id}/piece?${new URLSearchParams(asked)}`);
    };
    const parts: Buffer[] = [];
    for (let from = 0; from < size; from += PIECE_BYTES) {
      const answer = await piece(from);
      const part = Buffer.from(await answer.arrayBuffer());
      const digest = createHash('sha256').update(part).digest('base64');
      expect(answer.headers.get('content-digest')).toBe(`sha-256=:${digest}:`);
      parts.push(part);
    }
    expect(Buffer.concat(parts).equals(bytes)).toBe(true);
    expect((await (await piece(size)).arrayBuffer()).byteLength).toBe(0);
    expect((await (await piece(size + 10_000)).arrayBuffer()).byteLength).toBe(0);
    symlinkSync('/etc', path.join(p.root, 'out'));
    for (const other of ['../large.bin', '/etc/hostname', 'out/hostname', '10_paperwork', 'gone.bin'])
      expect([other, (await piece(0, { path: other })).status]).toEqual([other, 404]);
    for (const other of ['', 'a\0b']) expect((await piece(0, { path: other })).status).toBe(400);
    expect((await piece(-1)).status).toBe(400);
    const url = `/api/projects/${p.id}/piece?path=10_paperwork%2Flarge.bin&at=0&size=${size}&modified=${mtimeMs}`;
    for (const who of ['artist', 'lead'] as const) expect((await t.ask(who, 'GET', url)).status).toBe(403);
    writeFileSync(at, bytes.subarray(1));
    expect(await codeOf(await piece(0))).toEqual([409, 'disk-changed']);
  });
});

describe('to the next revision', () => {
  /** Its windows are its revisions. */
  async function revised(): Promise<Lived> {
    const rows = (await (await t.ask('lead', 'GET', '/api/templates')).json()) as TemplateRow[];
    const template = rows.find(({ id }) => id === 'window-piece')?.template as Template;
    const fields = template.fields.map((f) => (f.key === 'windows' ? { ...f, revisions: 'window' } : f));
    const edition = { ...template, edition: 2, fields };
    if (rows.every((row) => row.edition < 2))
      await insertEdition(t.world.db, edition, new Map([['starters/window-brief.md', Buffer.from('# {title}\n')]]));
    const number = String(numbers + 1);
    return lived({ edition: 2, values: { ...startOf(number).values, windows: 'A' } });
  }

  test('the entry is made, what is current of the one before comes as its own, and both stand beside each other', async () => {
    const p = await revised();
    const target = { target: { kind: 'revision', was: 'A' } };
    const shown = await plan(p.id, target);
    expect(shown.now).toBe('B');
    // Paperwork belongs to no revision.
    expect(shown.items.map(({ from, comes }) => [from, comes])).toEqual([
      [drawn(p.number, 'v001'), false],
      [drawn(p.number, 'v002'), true],
    ]);
    const response = await apply(p.id, target, shown.fingerprint);
    expect([response.status, ((await response.json()) as { project: string }).project]).toEqual([201, p.id]);
    expect(readFileSync(path.join(p.root, drawn(p.number, 'v001', 'B')), 'utf8')).toContain(
      `href="../../10_paperwork/look ${p.number}.png"`,
    );
    expect(existsSync(path.join(p.root, drawn(p.number, 'v002')))).toBe(true);
    const page = (await (await t.ask('lead', 'GET', `/api/projects/${p.id}`)).json()) as ProjectPage;
    expect(page.values.windows).toEqual(['A', 'B']);
    const [batch] = (await (await t.ask('lead', 'GET', `/api/projects/${p.id}/batches`)).json()) as BatchRow[];
    expect(batch).toMatchObject({ what: 'carry', source: null });
    // Undone the entry is gone with all that was made for it.
    expect((await t.ask(C, 'POST', `/api/projects/${p.id}/batches/${batch?.id}/undo`, {}, WAIT)).status).toBe(201);
    expect(existsSync(path.join(p.root, '20_pieces/window-B'))).toBe(false);
    expect(
      ((await (await t.ask('lead', 'GET', `/api/projects/${p.id}`)).json()) as ProjectPage).values.windows,
    ).toEqual(['A']);
  });

  test('without such a list, or of an entry that is not there, there is none', async () => {
    const [plain, p] = [await lived(), await revised()];
    for (const [id, was] of [
      [plain.id, 'A'],
      [p.id, 'Q'],
    ] as const) {
      const asked = { target: { kind: 'revision', was }, way: {} };
      expect(await codeOf(await t.ask(C, 'POST', `/api/projects/${id}/carry`, asked))).toEqual([409, 'no-revisions']);
    }
  });
});

test('a way is kept with its template, used again, put in place of another, and forgotten', async () => {
  const ways = '/api/templates/window-piece/ways';
  const way = { folders: { pieces: 'everything' }, version: 'keep', words: [{ old: 'look', new: 'view' }] };
  expect((await t.ask(C, 'PUT', `${ways}/As%20always`, { way })).status).toBe(204);
  const [kept] = (await (await t.ask(C, 'GET', ways)).json()) as KeptWay[];
  expect(kept).toMatchObject({ name: 'As always', way: { ...way, take: [], leave: [] } });
  const p = await lived();
  const shown = await plan(p.id, { ...newTarget(), way: kept?.way });
  expect(shown.items.filter(({ from }) => from.startsWith('20_pieces')).every(({ comes }) => comes)).toBe(true);
  expect(shown.words.find(({ old }) => old === 'look')).toEqual({ old: 'look', now: 'view', names: 1, isAdded: true });
  expect((await t.ask(C, 'PUT', `${ways}/As%20always`, { way: { version: 'drop' } })).status).toBe(204);
  expect(((await (await t.ask(C, 'GET', ways)).json()) as KeptWay[]).map((w) => w.way.version)).toEqual(['drop']);
  expect((await t.ask(C, 'DELETE', `${ways}/As%20always`)).status).toBe(204);
  expect(await codeOf(await t.ask(C, 'DELETE', `${ways}/As%20always`))).toEqual([404, 'no-way']);
  expect(await codeOf(await t.ask(C, 'PUT', '/api/templates/none/ways/x', { way: {} }))).toEqual([404, 'no-template']);
});
