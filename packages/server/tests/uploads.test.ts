/** Files of somebody's computer, sent in pieces: gone on with after anything, proved, and in nobody's way. */
import { createHash } from 'node:crypto';
import {
  appendFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  symlinkSync,
  truncateSync,
  unlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Inbox, Upload } from '@nesting/contract';
import { PIECE_BYTES } from '@nesting/core';
import { sweepUploads } from '../src/flows/projects/uploads';
import { openTestWorld, type TestWorld } from './world';

let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld();
  await t.ask('coordinator', 'PUT', '/api/volumes/studio/inbox', { isInbox: true });
});
afterAll(() => t.close());

const A = 'artist';
const TIME = Date.UTC(2026, 2, 5, 8);
const hashOf = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

/** Bytes that no two places of a file have alike. */
function content(size: number): Buffer {
  const bytes = Buffer.alloc(size);
  for (let i = 0, n = 1; i < size; i++) {
    n = (Math.imul(n, 1_103_515_245) + 12_345) >>> 0;
    bytes[i] = n >>> 16;
  }
  return bytes;
}

const listed = (files: Readonly<Record<string, Buffer>>) =>
  Object.entries(files).map(([at, { length: size }]) => ({ path: at, size, modified: TIME }));
const begin = (name: string, files: Readonly<Record<string, Buffer>>, who: 'artist' | 'coordinator' = A) =>
  t.ask(who, 'POST', '/api/uploads', { volume: 'studio', name, files: listed(files) });
const begun = async (name: string, files: Readonly<Record<string, Buffer>>): Promise<Upload> =>
  (await (await begin(name, files)).json()) as Upload;
const codeOf = async (response: Response) => [response.status, ((await response.json()) as { code: string }).code];

async function send(id: string, file: number, at: number, bytes: Buffer): Promise<number> {
  const response = await t.send(A, 'PUT', `/api/uploads/${id}/piece?file=${file}&at=${at}`, bytes);
  expect(response.status).toBe(200);
  return ((await response.json()) as { received: number }).received;
}

const pieces = (whole: Buffer): Buffer[] =>
  Array.from({ length: Math.ceil(whole.length / PIECE_BYTES) }, (_, i) =>
    whole.subarray(i * PIECE_BYTES, (i + 1) * PIECE_BYTES),
  );

async function end(id: string, file: number, whole: Buffer) {
  const response = await t.ask(A, 'POST', `/api/uploads/${id}/file`, { file, pieces: pieces(whole).map(hashOf) });
  return (await response.json()) as { state: string; received: number };
}

async function sendAll(id: string, file: number, whole: Buffer, from = 0) {
  for (let at = from; at < whole.length; )
    at = await send(id, file, at, whole.subarray(at, Math.min(whole.length, at + PIECE_BYTES)));
  return end(id, file, whole);
}

const treeOf = (folder: string): string[] =>
  readdirSync(path.join(t.studio, folder), { recursive: true, encoding: 'utf8' })
    .filter((at) => statSync(path.join(t.studio, folder, at)).isFile())
    .sort();
const partOf = (folder: string, index: number) => path.join(t.studio, folder, '.nesting/arriving', String(index));

describe('sent', () => {
  test('each file lies in its place with its bytes and its time, and nothing of ours beside it', async () => {
    const files = {
      'a/letter.txt': Buffer.from('a letter'),
      'empty.txt': Buffer.alloc(0),
      'film.mov': content(PIECE_BYTES + 77),
    };
    const { id, folder, received } = await begun('laptop', files);
    expect(received).toEqual([0, 0, 0]);
    for (const [index, whole] of Object.values(files).entries())
      expect(await sendAll(id, index, whole)).toEqual({ state: 'placed', received: whole.length });
    const told = (await (await t.ask(A, 'GET', `/api/uploads/${id}`)).json()) as Upload;
    expect(told.received).toEqual([null, null, null]);
    expect((await t.ask(A, 'DELETE', `/api/uploads/${id}`)).status).toBe(204);
    expect(treeOf(folder)).toEqual(Object.keys(files).sort());
    for (const [at, whole] of Object.entries(files)) {
      expect(readFileSync(path.join(t.studio, folder, at)).equals(whole)).toBe(true);
      expect(statSync(path.join(t.studio, folder, at)).mtimeMs).toBe(TIME);
    }
    expect(existsSync(path.join(t.studio, folder, '.nesting'))).toBe(false);
    expect(await codeOf(await t.ask(A, 'GET', `/api/uploads/${id}`))).toEqual([404, 'no-upload']);
  });

  test('a folder of that name is never written into: the new one gets a number', async () => {
    mkdirSync(path.join(t.studio, 'taken'));
    expect((await begun('taken', { x: Buffer.from('x') })).folder).toBe('taken-2');
  });

  test('the inbox says that it is still being sent, and by whom', async () => {
    const { folder } = await begun('on its way', { x: Buffer.from('x') });
    const inboxes = (await (await t.ask('coordinator', 'GET', '/api/inboxes')).json()) as Inbox[];
    const heap = inboxes.flatMap(({ heaps }) => heaps).find((one) => one.folder === folder);
    expect(heap?.arriving).toMatch(/^[A-Z]{2}$/);
  });
});

describe('cut short', () => {
  const whole = content(2 * PIECE_BYTES + 500);

  test('the same asked for again goes on where it was, in the same folder', async () => {
    const { id, folder } = await begun('cut', { 'film.mov': whole });
    expect(await send(id, 0, 0, whole.subarray(0, PIECE_BYTES))).toBe(PIECE_BYTES);
    const again = await begun('cut', { 'film.mov': whole });
    expect(again).toMatchObject({ id, folder, received: [PIECE_BYTES] });
    expect(await sendAll(id, 0, whole, PIECE_BYTES)).toEqual({ state: 'placed', received: whole.length });
  });

  test('half a piece that a crash left is sent anew', async () => {
    const { id, folder } = await begun('half', { 'film.mov': whole });
    await send(id, 0, 0, whole.subarray(0, PIECE_BYTES));
    appendFileSync(partOf(folder, 0), whole.subarray(PIECE_BYTES, PIECE_BYTES + 1234));
    expect((await begun('half', { 'film.mov': whole })).received).toEqual([PIECE_BYTES]);
    expect(await sendAll(id, 0, whole, PIECE_BYTES)).toMatchObject({ state: 'placed' });
    expect(readFileSync(path.join(t.studio, folder, 'film.mov')).equals(whole)).toBe(true);
  });

  test('a piece that comes twice, too early or cut off is not written, and it is said where to go on', async () => {
    const { id, folder } = await begun('order', { 'film.mov': whole });
    const [first, second] = pieces(whole) as [Buffer, Buffer];
    expect(await send(id, 0, PIECE_BYTES, second)).toBe(0);
    expect(await send(id, 0, 0, first.subarray(0, 10))).toBe(0);
    expect(await send(id, 0, 0, first)).toBe(PIECE_BYTES);
    expect(await send(id, 0, 0, second)).toBe(PIECE_BYTES);
    expect(readFileSync(partOf(folder, 0)).equals(first)).toBe(true);
    expect(await end(id, 0, whole)).toEqual({ state: 'differs', received: PIECE_BYTES });
  });

  test('two who send the same at once: one file, whole', async () => {
    const { id, folder } = await begun('twice', { 'film.mov': whole });
    await Promise.all([sendAll(id, 0, whole), sendAll(id, 0, whole)]);
    expect(await end(id, 0, whole)).toMatchObject({ state: 'placed' });
    expect(readFileSync(path.join(t.studio, folder, 'film.mov')).equals(whole)).toBe(true);
  });

  test('a byte that turned on the disk is found before the file takes its place, wherever it is', async () => {
    for (const at of [0, PIECE_BYTES - 1, PIECE_BYTES, 2 * PIECE_BYTES + 499]) {
      const { id, folder } = await begun(`rot ${at}`, { 'film.mov': whole });
      for (const [i, piece] of pieces(whole).entries()) await send(id, 0, i * PIECE_BYTES, piece);
      const bytes = readFileSync(partOf(folder, 0));
      bytes[at] = (bytes[at] ?? 0) ^ 1;
      writeFileSync(partOf(folder, 0), bytes);
      const received = Math.floor(at / PIECE_BYTES) * PIECE_BYTES;
      expect(await end(id, 0, whole)).toEqual({ state: 'differs', received });
      expect(existsSync(path.join(t.studio, folder, 'film.mov'))).toBe(false);
      expect(await sendAll(id, 0, whole, received)).toMatchObject({ state: 'placed' });
    }
  });

  test('a piece that was another when it arrived is found at the end, and sent anew', async () => {
    const { id, folder } = await begun('changed', { 'film.mov': whole });
    const wrong = Buffer.from(whole);
    wrong[PIECE_BYTES + 5] = (wrong[PIECE_BYTES + 5] ?? 0) ^ 1;
    for (const [i, piece] of pieces(wrong).entries()) await send(id, 0, i * PIECE_BYTES, piece);
    expect(await end(id, 0, whole)).toEqual({ state: 'differs', received: PIECE_BYTES });
    expect(await sendAll(id, 0, whole, PIECE_BYTES)).toMatchObject({ state: 'placed' });
    expect(readFileSync(path.join(t.studio, folder, 'film.mov')).equals(whole)).toBe(true);
  });

  test('what was cut off, or taken away, is sent anew', async () => {
    const { id, folder } = await begun('gone', { 'film.mov': whole });
    await send(id, 0, 0, whole.subarray(0, PIECE_BYTES));
    truncateSync(partOf(folder, 0), 3);
    expect((await begun('gone', { 'film.mov': whole })).received).toEqual([0]);
    expect(await sendAll(id, 0, whole)).toMatchObject({ state: 'placed' });
  });

  test('ended by hand, what is whole stays, and what is not goes', async () => {
    const files = { 'a.txt': Buffer.from('whole'), 'film.mov': whole };
    const { id, folder } = await begun('ended', files);
    await sendAll(id, 0, files['a.txt']);
    await send(id, 1, 0, whole.subarray(0, PIECE_BYTES));
    expect((await t.ask(A, 'DELETE', `/api/uploads/${id}`)).status).toBe(204);
    expect(treeOf(folder)).toEqual(['a.txt']);
    const { id: nothing, folder: empty } = await begun('nothing', files);
    await t.ask(A, 'DELETE', `/api/uploads/${nothing}`);
    expect(existsSync(path.join(t.studio, empty))).toBe(false);
  });
});

test('what nobody went on with for a month leaves no parts behind, and what is younger stays', async () => {
  const files = { 'film.mov': content(100) };
  const [old, young] = [await begun('old', files), await begun('young', files)];
  await t.world.db.query("update upload set begun_at = now() - interval '31 days' where id = $1", [old.id]);
  await sweepUploads(t.world);
  expect([old, young].map(({ folder }) => existsSync(path.join(t.studio, folder)))).toEqual([false, true]);
  expect((await t.ask(A, 'GET', `/api/uploads/${old.id}`)).status).toBe(404);
  expect((await t.ask(A, 'GET', `/api/uploads/${young.id}`)).status).toBe(200);
});

describe('trouble', () => {
  test.each(['../x', '/x', 'a/../../x', '.nesting/project.json', 'a//b', 'a\0b', 'x/', '.', '..'])(
    '%j is no place for a file',
    async (at) => {
      const before = readdirSync(t.studio).sort();
      const response = await begin('paths', { [at]: Buffer.from('x') });
      expect([400, 409, 422]).toContain(response.status);
      expect(readdirSync(t.studio).sort()).toEqual(before);
    },
  );

  test.each(['../x', 'a/b', '.nesting', '..', ''])('%j is no name for the folder', async (name) => {
    const before = readdirSync(path.dirname(t.studio)).sort();
    expect((await begin(name, { x: Buffer.from('x') })).status).toBeGreaterThanOrEqual(400);
    expect(readdirSync(path.dirname(t.studio)).sort()).toEqual(before);
  });

  test('somebody else’s is none, and who only looks sends nothing', async () => {
    const { id } = await begun('mine', { x: Buffer.from('x') });
    expect(await codeOf(await t.ask('coordinator', 'GET', `/api/uploads/${id}`))).toEqual([404, 'no-upload']);
    expect(await codeOf(await t.ask('coordinator', 'DELETE', `/api/uploads/${id}`))).toEqual([404, 'no-upload']);
    expect(
      (
        await t.ask('lead', 'POST', '/api/uploads', {
          volume: 'studio',
          name: 'x',
          files: listed({ x: Buffer.from('x') }),
        })
      ).status,
    ).toBe(403);
  });

  test('a file that was not named, and a piece that is too large', async () => {
    const { id } = await begun('more', { x: Buffer.from('x') });
    const piece = (file: number, bytes: Buffer) =>
      t.send(A, 'PUT', `/api/uploads/${id}/piece?file=${file}&at=0`, bytes);
    expect(await codeOf(await piece(7, Buffer.from('x')))).toEqual([404, 'no-upload']);
    expect((await piece(0, Buffer.alloc(PIECE_BYTES + 1))).status).toBe(413);
  });

  test('what does not fit is refused before anything is made', async () => {
    const before = readdirSync(t.studio).sort();
    const files = [{ path: 'x', size: 2 ** 52, modified: TIME }];
    expect(await codeOf(await t.ask(A, 'POST', '/api/uploads', { volume: 'studio', name: 'huge', files }))).toEqual([
      507,
      'no-room',
    ]);
    expect(readdirSync(t.studio).sort()).toEqual(before);
  });

  test('a volume on which nothing arrives takes nothing', async () => {
    await t.ask('coordinator', 'PUT', '/api/volumes/studio/inbox', { isInbox: false });
    expect(await codeOf(await begin('none', { x: Buffer.from('x') }))).toEqual([422, 'no-inbox']);
    await t.ask('coordinator', 'PUT', '/api/volumes/studio/inbox', { isInbox: true });
  });

  test('a heap that became a link leads nowhere', async () => {
    const { id, folder } = await begun('link', { x: Buffer.from('x') });
    const elsewhere = mkdtempSync(path.join(tmpdir(), 'nesting-elsewhere-'));
    renameSync(path.join(t.studio, folder), path.join(t.studio, `${folder} moved`));
    symlinkSync(elsewhere, path.join(t.studio, folder));
    const piece = await t.send(A, 'PUT', `/api/uploads/${id}/piece?file=0&at=0`, Buffer.from('x'));
    expect(piece.status).toBeGreaterThanOrEqual(400);
    const ended = await t.ask(A, 'POST', `/api/uploads/${id}/file`, { file: 0, pieces: [hashOf(Buffer.from('x'))] });
    expect(ended.status).toBeGreaterThanOrEqual(400);
    expect(readdirSync(elsewhere)).toEqual([]);
    rmSync(elsewhere, { recursive: true });
    unlinkSync(path.join(t.studio, folder));
  });

  test('a part that is longer than its file is cut to it, and proved', async () => {
    const { id, folder } = await begun('long', { 'x.txt': Buffer.from('mine') });
    await send(id, 0, 0, Buffer.from('mine'));
    appendFileSync(partOf(folder, 0), ' and more');
    expect(await end(id, 0, Buffer.from('mine'))).toMatchObject({ state: 'placed' });
    expect(readFileSync(path.join(t.studio, folder, 'x.txt'), 'utf8')).toBe('mine');
  });

  test('nobody begins without end', async () => {
    const { rows } = await t.world.db.query<{ id: string }>("select id from person where role = 'artist' limit 1");
    await t.world.db.query(
      `insert into upload (id, person_id, volume, folder, files, fingerprint)
         select gen_random_uuid(), $1, 'studio', 'many', '[]', n::text from generate_series(1, 100) n`,
      [rows[0]?.id],
    );
    expect(await codeOf(await begin('one more', { x: Buffer.from('x') }))).toEqual([409, 'uploads-full']);
    await t.world.db.query("delete from upload where folder = 'many'");
  });

  test('a name that something else takes meanwhile is not written over', async () => {
    const { id, folder } = await begun('race', { 'x.txt': Buffer.from('mine') });
    await send(id, 0, 0, Buffer.from('mine'));
    // As long as what is sent: only its time tells that it is another.
    writeFileSync(path.join(t.studio, folder, 'x.txt'), 'him!');
    expect(await end(id, 0, Buffer.from('mine'))).toMatchObject({ state: 'taken' });
    expect(readFileSync(path.join(t.studio, folder, 'x.txt'), 'utf8')).toBe('him!');
  });
});
