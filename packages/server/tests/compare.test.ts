/** Projects side by side on a real disk, by endpoints. */
import { cpSync, mkdirSync, readdirSync, renameSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Comparison, ProjectRow } from '@nesting/contract';
import { openTestWorld, startOf, type TestWorld } from './world';

let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld();
});
afterAll(() => t.close());

const OLD = Date.UTC(2026, 2, 6) / 1000;

async function started(number: string) {
  const row = (await (await t.ask('coordinator', 'POST', '/api/projects', startOf(number))).json()) as ProjectRow;
  await t.world.checks.idle();
  return { id: row.id, root: path.join(t.studio, row.folder) };
}

function put(root: string, at: string, text: string): void {
  mkdirSync(path.dirname(path.join(root, at)), { recursive: true });
  writeFileSync(path.join(root, at), text);
  utimesSync(path.join(root, at), OLD, OLD);
}

const asked = (query: Record<string, string>) => `/api/compare?${new URLSearchParams(query)}`;
const compared = async (query: Record<string, string>) =>
  (await (await t.ask('lead', 'GET', asked(query))).json()) as Comparison;

describe('two projects', () => {
  test('are held against each other by meaning; what is the same is told where it is asked for; as a table too', async () => {
    const [left, right] = [await started('81001'), await started('81002')];
    const name = (number: string, version: string) => `20_pieces/window-A/${number}_A_draw_AR_${version}.svg`;
    put(left.root, name('81001', 'v001'), '<svg>one</svg>');
    put(right.root, name('81002', 'v001'), '<svg>one</svg>');
    put(left.root, name('81001', 'v002'), '<svg>two</svg>');
    put(right.root, name('81002', 'v002'), '<svg>two, and more</svg>');
    put(right.root, '=cmd.txt', 'x');
    const query = { left: left.id, right: right.id };
    const { rows, counts, all, unseen } = await compared(query);
    expect(rows.filter((r) => r.left?.path.startsWith('20_pieces') || r.left === null)).toMatchObject([
      { state: 'renamed', evidence: 'meaning', left: { path: name('81001', 'v001') } },
      { state: 'changed', evidence: 'meaning', right: { path: name('81002', 'v002') } },
      { state: 'only-right', right: { path: '=cmd.txt' } },
    ]);
    expect([all, unseen]).toEqual([rows.length, []]);
    const whole = await compared({ ...query, same: 'true' });
    expect(whole.rows).toHaveLength(rows.length + counts.same);
    expect(Object.values(counts).reduce((a, b) => a + b)).toBe(whole.all);
    const csv = await t.ask('artist', 'GET', asked({ ...query, as: 'csv' }).replace('/compare?', '/compare/print?'));
    expect(csv.headers.get('content-disposition')).toContain('81001-81002.csv');
    expect(await csv.text()).toMatch(/\nonly-right,,,,,,'=cmd\.txt,1,2026-03-06T00:00:00\.000Z,1/);
  });

  test('one folder of each: what it was made for is its own, as a number is', async () => {
    const { id, root } = await started('81006');
    const name = (window: string, version: string) =>
      `20_pieces/window-${window}/81006_${window}_draw_AR_${version}.svg`;
    put(root, name('A', 'v001'), '<svg>one</svg>');
    put(root, name('B', 'v001'), '<svg>one</svg>');
    put(root, name('A', 'v002'), '<svg>two</svg>');
    put(root, name('B', 'v002'), '<svg>another</svg>');
    put(root, '20_pieces/window-B/window B only.txt', 'x');
    const query = { left: id, right: id, leftFolder: '20_pieces/window-A', rightFolder: '20_pieces/window-B' };
    const { rows } = await compared(query);
    expect(rows).toMatchObject([
      { state: 'renamed', evidence: 'meaning', left: { path: name('A', 'v001') }, right: { path: name('B', 'v001') } },
      { state: 'changed', evidence: 'meaning', left: { path: name('A', 'v002') }, right: { path: name('B', 'v002') } },
      { state: 'only-right', left: null },
    ]);
    // A folder and itself, and swapped.
    expect((await compared({ ...query, rightFolder: query.leftFolder })).rows).toEqual([]);
    const swapped = await compared({ ...query, leftFolder: query.rightFolder, rightFolder: query.leftFolder });
    expect(swapped.counts).toMatchObject({ renamed: 1, changed: 1, 'only-left': 1, 'only-right': 0 });
    for (const [folder, code] of [
      ['20_pieces/nowhere', 'path-missing'],
      ['../81005', 'path-refused'],
      ['/etc', 'path-refused'],
      [name('A', 'v001'), 'path-missing'],
    ] as const) {
      const response = await t.ask('lead', 'GET', asked({ ...query, leftFolder: folder }));
      expect([folder, ((await response.json()) as { code: string }).code]).toEqual([folder, code]);
    }
  });

  test('what one change left and what another did; a revision that is none, a change that is not there', async () => {
    const { id, root } = await started('81008');
    const brought = async (folder: string, files: Readonly<Record<string, string>>) => {
      for (const [name, text] of Object.entries(files)) put(t.studio, `${folder}/${name}`, text);
      const heap = { volume: 'studio', folder };
      await t.ask('coordinator', 'POST', `/api/projects/${id}/intake/read`, heap);
      const placed = Object.fromEntries(Object.keys(files).map((name) => [name, { folder: '10_paperwork' }]));
      const asked_ = { ...heap, placed };
      const plan = (await (await t.ask('coordinator', 'POST', `/api/projects/${id}/intake`, asked_)).json()) as {
        fingerprint: string;
      };
      const made = await t.ask(
        'coordinator',
        'POST',
        `/api/projects/${id}/intake/batches`,
        { ...asked_, fingerprint: plan.fingerprint },
        { prefer: 'wait=60' },
      );
      return ((await made.json()) as { batch: string }).batch;
    };
    const first = await brought('first card', { 'permit one.pdf': '%PDF-1.4 one', 'permit two.pdf': '%PDF-1.4 two' });
    const second = await brought('second card', { 'again.pdf': '%PDF-1.4 two', 'permit three.pdf': '%PDF-1.4 three' });
    put(root, '10_paperwork/beside.pdf', '%PDF-1.4 one');
    const query = { left: id, right: id, leftBatch: first, rightBatch: second };
    const told = await compared(query);
    expect(told.left.batch).toMatchObject({ id: first, what: 'intake' });
    const names = told.rows.map(({ state, left, right }) => [
      state,
      path.basename(left?.path ?? ''),
      path.basename(right?.path ?? ''),
    ]);
    // What the first card brought already was not brought again.
    expect(names.map(([state]) => state).sort()).toEqual(['only-left', 'only-left', 'only-right']);
    expect(names.flat()).not.toContain('beside.pdf');
    // All of the project against what one of them left.
    const whole = await compared({ left: id, right: id, rightBatch: second, same: 'true' });
    expect([whole.counts.same, whole.counts['only-right']]).toEqual([1, 0]);
    const codeFor = async (more: object) =>
      ((await (await t.ask('lead', 'GET', asked({ ...query, ...more }))).json()) as { code: string }).code;
    expect(await codeFor({ leftBatch: '00000000-0000-4000-8000-000000000000' })).toBe('no-change');
    expect(await codeFor({ leftBatch: 'x' })).toBe('not-as-expected');
    expect(await codeFor({ leftRevision: 'A' })).toBe('no-revisions');
    // A change of another project is none of this one.
    const other = await started('81009');
    expect(await codeFor({ left: other.id })).toBe('no-change');
  });

  test('a project and itself are the same, and so is a copy of it under another folder’s name', async () => {
    const { id, root } = await started('81003');
    put(root, 'loose.txt', 'x');
    const { rows, counts } = await compared({ left: id, right: id });
    expect([rows, counts.same > 0]).toEqual([[], true]);
    const before = readdirSync(root, { recursive: true });
    cpSync(root, `${root}-copy`, { recursive: true, preserveTimestamps: true });
    expect((await compared({ left: id, right: id })).rows).toEqual([]);
    expect(readdirSync(root, { recursive: true })).toEqual(before);
    rmSync(`${root}-copy`, { recursive: true });
  });

  test('one that nobody knows, one that is away, and what is no project at all', async () => {
    const [one, other] = [await started('81004'), await started('81005')];
    const status = async (query: Record<string, string>) => {
      const response = await t.ask('lead', 'GET', asked(query));
      return [response.status, ((await response.json()) as { code: string }).code];
    };
    expect(await status({ left: one.id, right: '00000000-0000-4000-8000-000000000000' })).toEqual([404, 'no-project']);
    expect(await status({ left: one.id, right: 'x' })).toEqual([400, 'not-as-expected']);
    renameSync(other.root, `${other.root}-away`);
    expect(await status({ left: one.id, right: other.id })).toEqual([404, 'path-missing']);
  });
});
