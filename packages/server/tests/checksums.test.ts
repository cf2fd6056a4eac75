/** Lists of checksums laid beside what is brought in, on a real disk with a real database. */
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { existsSync, lstatSync, readdirSync, readFileSync, utimesSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { type BatchAnswer, type BatchRow, type FindingList, type IntakePlan, parseTemplate } from '@nesting/contract';
import type { FolderNode } from '@nesting/core/template';
import { cameraCard } from '../../../demo/heaps';
import { insertEdition } from '../src/index';
import { type Lived, laidIn, openTestWorld, startedIn, type TestWorld } from './world';

let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld();
  const parsed = parseTemplate(readFileSync('demo/templates/making-of.nest.json', 'utf8'));
  if (!parsed.ok) throw new Error(parsed.faults[0]);
  const folders = parsed.value.root.folders?.map(
    (node): FolderNode => (node.id === 'cards' ? { ...node, checksums: true } : node),
  );
  await insertEdition(t.world.db, { ...parsed.value, root: { ...parsed.value.root, folders } }, new Map());
});
afterAll(() => t.close());

const WAIT = { prefer: 'wait=60' };
let numbers = 97_000;

const film = (): Promise<Lived> => {
  const number = String(++numbers);
  const values = { number, title: 'Ropes', client: 'QHT', places: ['pier'], days: ['2026-03-01'], cameras: ['a'] };
  return startedIn(t, number, { template: 'making-of', values });
};

async function brought(p: Lived, folder: string): Promise<string> {
  const heap = { volume: 'studio', folder };
  await t.ask('coordinator', 'POST', `/api/projects/${p.id}/intake/read`, heap);
  const shown = (await (await t.ask('coordinator', 'POST', `/api/projects/${p.id}/intake`, heap)).json()) as IntakePlan;
  const body = { ...heap, fingerprint: shown.fingerprint, key: randomUUID() };
  const done = await t.ask('coordinator', 'POST', `/api/projects/${p.id}/intake/batches`, body, WAIT);
  expect(done.status).toBe(201);
  await t.idle();
  return ((await done.json()) as BatchAnswer).batch;
}

const batches = async (p: Lived) =>
  (await (await t.ask('lead', 'GET', `/api/projects/${p.id}/batches`)).json()) as BatchRow[];
const listsIn = (p: Lived): string[] => readdirSync(path.join(p.root, '20_cards')).filter((n) => n.endsWith('.sha256'));

test('a card brings its list along, which an independent program checks; it is no finding; undone together, nothing is left', async () => {
  const p = await film();
  const folder = laidIn(t, cameraCard());
  const batch = await brought(p, folder);
  expect((await batches(p)).map(({ what, state }) => [what, state])).toEqual([
    ['checksums', 'done'],
    ['intake', 'done'],
  ]);
  const [list = ''] = listsIn(p);
  const text = readFileSync(path.join(p.root, '20_cards', list), 'utf8');
  expect(text.trim().split('\n')).toHaveLength(cameraCard().length);
  const check = () =>
    execFileSync('sha256sum', ['-c', '--strict', '--quiet', list], {
      cwd: path.join(p.root, '20_cards'),
      stdio: 'pipe',
    });
  expect(check).not.toThrow();
  await t.ask('artist', 'POST', `/api/projects/${p.id}/checks`, { what: 'whole' });
  await t.idle();
  const found = (await (await t.ask('lead', 'GET', `/api/projects/${p.id}/findings?group=none`)).json()) as FindingList;
  // A take at another rate is one; the list is none.
  expect(found.rows.map(({ rule }) => rule)).toEqual(['setting-mismatch']);
  // It tells of a byte that is another.
  const [first = ''] = cameraCard().map(({ path: at }) => at);
  const at = path.join(p.root, `20_cards/2026-03-02/${folder}`, first);
  const [was, { atime, mtime }] = [readFileSync(at), lstatSync(at)];
  writeFileSync(at, 'another');
  expect(check).toThrow();
  writeFileSync(at, was);
  utimesSync(at, atime, mtime);
  const undo = await t.ask('coordinator', 'POST', `/api/projects/${p.id}/batches/${batch}/undo`, {}, WAIT);
  expect(undo.status).toBe(201);
  expect(listsIn(p)).toEqual([]);
});

test('a second card has a list of its own; where nothing new came there is none', async () => {
  const p = await film();
  const card = cameraCard();
  const folder = laidIn(t, card);
  await brought(p, folder);
  writeFileSync(path.join(t.studio, folder, 'CLIPS/C0119.IDX'), 'one more');
  await brought(p, folder);
  const rows = await batches(p);
  expect(rows.map(({ what }) => what)).toEqual(['checksums', 'intake', 'checksums', 'intake']);
  const lines = listsIn(p)
    .map(
      (name) =>
        readFileSync(path.join(p.root, '20_cards', name), 'utf8')
          .trim()
          .split('\n').length,
    )
    .sort();
  expect(lines).toEqual([1, card.length]);
});

test('a list that somebody wrote to stays when the card goes back, and nothing is lost', async () => {
  const p = await film();
  const folder = laidIn(t, cameraCard());
  const batch = await brought(p, folder);
  const [list = ''] = listsIn(p);
  writeFileSync(path.join(p.root, '20_cards', list), 'my own notes');
  const undo = await t.ask('coordinator', 'POST', `/api/projects/${p.id}/batches/${batch}/undo`, {}, WAIT);
  expect(undo.status).toBe(201);
  expect(readFileSync(path.join(p.root, '20_cards', list), 'utf8')).toBe('my own notes');
  expect(existsSync(path.join(p.root, '20_cards/2026-03-02'))).toBe(false);
});
