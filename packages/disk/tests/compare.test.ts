/** Two folders on a real disk side by side: what is read, what is not, and what is said of it. */
import { chmodSync, mkdirSync, mkdtempSync, renameSync, rmSync, symlinkSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { ALL_OF_IT, type CompareTask, compareFolders } from '../src/children/compare';

let base: string;
let made = 0;
beforeAll(() => {
  base = mkdtempSync(path.join(tmpdir(), 'nesting-compare-'));
});
afterAll(() => rmSync(base, { recursive: true, force: true }));

/** Seconds since 1970. */
const THEN = Date.UTC(2026, 2, 6) / 1000;

type Files = Readonly<Record<string, string>>;

function folderOf(files: Files, written = THEN): string {
  const root = path.join(base, String(++made));
  mkdirSync(root);
  for (const [at, text] of Object.entries(files)) {
    mkdirSync(path.dirname(path.join(root, at)), { recursive: true });
    writeFileSync(path.join(root, at), text);
    utimesSync(path.join(root, at), written, written);
  }
  return root;
}

const sideOf = (root: string): CompareTask['left'] => ({
  ...{ where: { base: root, folder: '' }, mounts: [], rules: null, ...ALL_OF_IT },
});

async function compared(
  left: string,
  right: string,
  { mostRead = 2 ** 30, cancel = new AbortController().signal } = {},
) {
  const task = { left: sideOf(left), right: sideOf(right), mostRead };
  const { rows, unseen } = await compareFolders(task, { cancel, tell: async () => undefined });
  return {
    unseen: unseen.map((u) => [u.side, u.path]),
    rows: rows.map((r) => [r.state, r.isUnread ? 'unread' : r.evidence, r.left?.path ?? null, r.right?.path ?? null]),
  };
}

test('a copy that lost its times is read, and is the same', async () => {
  const files = { 'a/one.txt': 'one', 'a/two.txt': 'two', 'b/three.txt': 'three' };
  const { rows } = await compared(folderOf(files), folderOf(files, THEN + 5000));
  expect(rows.map(([state]) => state)).toEqual(['same', 'same', 'same']);
});

test('as long, and not the same: it was changed', async () => {
  const left = folderOf({ 'a.txt': 'one', 'b.txt': 'one' });
  const right = folderOf({ 'a.txt': 'two', 'b.txt': 'one' }, THEN + 5000);
  expect((await compared(left, right)).rows).toEqual([
    ['changed', 'path', 'a.txt', 'a.txt'],
    ['same', 'path', 'b.txt', 'b.txt'],
  ]);
});

test('what was moved and touched is found by what stands in it', async () => {
  const left = folderOf({ 'a/one.txt': 'first', 'a/two.txt': 'other' });
  const right = folderOf({ 'b/uno.txt': 'first', 'b/due.txt': 'OTHER' }, THEN + 5000);
  expect((await compared(left, right)).rows).toEqual([
    ['renamed', 'content', 'a/one.txt', 'b/uno.txt'],
    ['only-left', null, 'a/two.txt', null],
    ['only-right', null, null, 'b/due.txt'],
  ]);
});

test('empty files are nobody’s counterpart but by their path', async () => {
  const { rows } = await compared(folderOf({ a: '', b: '' }), folderOf({ a: '', c: '' }));
  expect(rows.map(([state]) => state)).toEqual(['same', 'only-left', 'only-right']);
});

test('what is too much to be read is not called the same', async () => {
  const [left, right] = [folderOf({ 'a.txt': 'as long' }), folderOf({ 'a.txt': 'as long' }, THEN + 5000)];
  expect((await compared(left, right, { mostRead: 6 })).rows).toEqual([['changed', 'unread', 'a.txt', 'a.txt']]);
});

test('links are not followed, the program’s own folder is no part of it, and what cannot be read is said', async () => {
  const left = folderOf({ 'a.txt': 'secret', '.nesting/marker.json': '{}' });
  const right = folderOf({ 'a.txt': 'SECRET' }, THEN + 5000);
  symlinkSync('/etc', path.join(left, 'etc'));
  renameSync(path.join(right, 'a.txt'), path.join(right, 'b.txt'));
  symlinkSync('b.txt', path.join(right, 'a.txt'));
  expect((await compared(left, right)).rows).toEqual([
    ['only-left', null, 'a.txt', null],
    ['only-right', null, null, 'b.txt'],
  ]);
  const closed = folderOf({ 'a.txt': 'secret' }, THEN + 9000);
  chmodSync(path.join(closed, 'a.txt'), 0);
  const { rows, unseen } = await compared(left, closed);
  // Whoever may read everything reads this too.
  if (process.getuid?.() === 0) expect(rows).toEqual([['same', 'path', 'a.txt', 'a.txt']]);
  else expect([rows, unseen]).toEqual([[['changed', 'unread', 'a.txt', 'a.txt']], [['right', 'a.txt']]]);
});

test('it ends when nobody waits for it', async () => {
  const [left, right] = [folderOf({ 'a.txt': 'one' }), folderOf({ 'a.txt': 'one' })];
  const stop = new AbortController();
  stop.abort();
  await expect(compared(left, right, { cancel: stop.signal })).rejects.toThrow('stopped');
});
