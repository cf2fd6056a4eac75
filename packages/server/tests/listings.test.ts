/** What a check saw is kept by folder, written only where it changed; references are read both ways. */
import { randomUUID } from 'node:crypto';
import { lstatSync, mkdirSync, readdirSync, renameSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { ChecksOfProject, ProjectRow, References } from '@nesting/contract';
import { listingOf } from '@nesting/disk';
import { readListings } from '../src/db/queries/checks/kept';
import { openTestWorld, startOf, type TestWorld } from './world';

let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld();
});
afterAll(() => t.close());

let numbers = 81_000;

async function started() {
  const number = String(++numbers);
  const response = await t.ask('coordinator', 'POST', '/api/projects', startOf(number));
  const { id, folder } = (await response.json()) as ProjectRow;
  await t.world.checks.idle();
  const root = path.join(t.studio, folder);
  const put = (at: string, text: string = at) => {
    mkdirSync(path.dirname(path.join(root, at)), { recursive: true });
    writeFileSync(path.join(root, at), text);
    utimesSync(path.join(root, at), 1_700_000_000, 1_700_000_000);
  };
  return { id, root, put };
}

async function check(id: string, what: 'whole' | 'quick'): Promise<void> {
  await t.ask('artist', 'POST', `/api/projects/${id}/checks`, { what });
  await t.world.checks.idle();
}

/** As the disk has it: each folder with its names, and the sizes and times of its files. */
function onDisk(root: string): Map<string, unknown> {
  const out = new Map<string, unknown>();
  const look = (at: string) => {
    const entries = readdirSync(path.join(root, at), { withFileTypes: true }).filter((e) => e.name !== '.nesting');
    entries.sort((a, b) => (a.name < b.name ? -1 : 1));
    const folders = entries.filter((e) => e.isDirectory()).map((e) => e.name);
    const files = entries
      .filter((e) => e.isFile())
      .map(({ name }) => {
        const { size, mtimeMs } = lstatSync(path.join(root, at, name));
        return { name, size, modified: Math.floor(mtimeMs) };
      });
    out.set(at, { folders, files });
    for (const name of folders) look(at === '' ? name : `${at}/${name}`);
  };
  look('');
  return out;
}

const kept = async (id: string): Promise<Map<string, unknown>> =>
  new Map(
    (await readListings(t.world.db, id)).map((each) => {
      const listing = listingOf(each);
      return [each.path, listing === null ? null : { folders: listing.folders, files: listing.files }];
    }),
  );

const writtenBy = async (id: string): Promise<Map<string, string>> =>
  new Map(
    (
      await t.world.db.query<{ path: string; by: string }>(
        'select path, xmin::text by from kept_listing where project_id = $1',
        [id],
      )
    ).rows.map((row) => [row.path, row.by]),
  );

test('every folder’s listing is kept as the disk has it; only what changed is written again', async () => {
  const { id, root, put } = await started();
  for (let frame = 1; frame <= 40; frame++) put(`heap/walk.${String(frame).padStart(4, '0')}.exr`, 'x'.repeat(frame));
  put('heap/Été 1.txt');
  put('other/nothing.txt');
  await check(id, 'whole');
  expect(await kept(id)).toEqual(onDisk(root));
  const before = await writtenBy(id);
  put('heap/new.txt');
  rmSync(path.join(root, 'other'), { recursive: true });
  await check(id, 'quick');
  expect(await kept(id)).toEqual(onDisk(root));
  const changed = [...(await writtenBy(id))].filter(([at, by]) => before.get(at) !== by).map(([at]) => at);
  expect(changed.sort()).toEqual(['', 'heap']);
  await check(id, 'whole');
  expect(
    [...(await writtenBy(id))]
      .filter(([at, by]) => before.get(at) !== by)
      .map(([at]) => at)
      .sort(),
  ).toEqual(['', 'heap']);
});

test('references are read both ways, and follow documents that change, move and go', async () => {
  const { id, root, put } = await started();
  const references = async (of: string) =>
    (await (
      await t.ask('artist', 'GET', `/api/projects/${id}/references?of=${encodeURIComponent(of)}`)
    ).json()) as References;
  const planned = readdirSync(root).filter((name) => !name.startsWith('.'))[0] ?? '';
  const at = (name: string) => `${planned}/${name}`;
  put(at('a.md'), '![one](pictures/one.png) and [out](../../elsewhere/b.md) and [two](two.txt)');
  put(at('b.md'), '[one](pictures/one.png)');
  put(at('two.txt'));
  put(at('pictures/one.png'));
  await check(id, 'whole');
  expect((await references(at('pictures/one.png'))).by.map((r) => r.document)).toEqual([at('a.md'), at('b.md')]);
  // A folder stands for what is in it, and not for one whose name only begins like it.
  expect((await references(at('pictures'))).by).toHaveLength(2);
  expect((await references(at('pict'))).by).toEqual([]);
  expect((await references(at('a.md'))).to).toEqual([
    { document: at('a.md'), written: '../../elsewhere/b.md', target: null },
    { document: at('a.md'), written: 'pictures/one.png', target: at('pictures/one.png') },
    { document: at('a.md'), written: 'two.txt', target: at('two.txt') },
  ]);
  rmSync(path.join(root, at('b.md')));
  put(at('a.md'), '[two](two.txt)');
  renameSync(path.join(root, at('a.md')), path.join(root, at('c.md')));
  await check(id, 'quick');
  expect((await references(at('pictures/one.png'))).by).toEqual([]);
  expect((await references(at('two.txt'))).by).toEqual([{ document: at('c.md'), target: at('two.txt') }]);
});

test('references that no path can be, and folders deeper than most systems hold, stand in no check’s way', async () => {
  const { id, root, put } = await started();
  const planned = readdirSync(root).filter((name) => !name.startsWith('.'))[0] ?? '';
  // Letters that do not repeat: nothing makes them fewer.
  const long = Array.from({ length: 40 }, () => randomUUID()).join('');
  put(`${planned}/odd.md`, `![a](${long.repeat(3)}.png) ![b](a\0b.png) ![c](right.png)`);
  let at = root;
  for (let level = 0; level < 16; level++) {
    at = path.join(at, long.slice(level * 60, level * 60 + 200));
    mkdirSync(at);
  }
  await check(id, 'whole');
  const newest = (await (await t.ask('artist', 'GET', `/api/projects/${id}/checks`)).json()) as ChecksOfProject;
  expect(newest.newest).toMatchObject({ state: 'done' });
  const of = encodeURIComponent(`${planned}/right.png`);
  const found = (await (await t.ask('artist', 'GET', `/api/projects/${id}/references?of=${of}`)).json()) as References;
  expect(found.by).toEqual([{ document: `${planned}/odd.md`, target: `${planned}/right.png` }]);
});
