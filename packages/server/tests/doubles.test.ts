/** What is brought in stands in two places, on real disks: until it does, nobody is told that a card may be erased. */
import { createHash, randomUUID } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  symlinkSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { type BatchAnswer, type HeapCopiesTold, type IntakePlan, parseTemplate } from '@nesting/contract';
import { cameraCard, type HeapFile } from '../../../demo/heaps';
import { insertEdition } from '../src/index';
import { type Lived, laidIn, openTestWorld, startedIn, type TestWorld } from './world';

const C = 'coordinator';
const WAIT = { prefer: 'wait=60' };
let t: TestWorld;
let second = '';
let numbers = 95_000;

beforeAll(async () => {
  t = await openTestWorld();
  const parsed = parseTemplate(readFileSync('demo/templates/making-of.nest.json', 'utf8'));
  if (!parsed.ok) throw new Error(parsed.faults[0]);
  await insertEdition(t.world.db, parsed.value, new Map());
  second = path.join(path.dirname(t.studio), 'away');
  mkdirSync(second, { recursive: true });
  expect((await t.ask(C, 'POST', '/api/volumes/away/take-up', { isAnother: false })).status).toBe(204);
  expect(await saved('away')).toBe(204);
});
afterAll(() => t.close());

const saved = async (double: string | null, volume = 'studio') =>
  (await t.ask(C, 'PUT', `/api/volumes/${volume}/double`, { double })).status;

const film = (): Promise<Lived> => {
  const number = String(++numbers);
  const values = { number, title: 'Ropes', client: 'QHT', places: ['pier'], days: ['2026-03-02'], cameras: ['a'] };
  return startedIn(t, number, { template: 'making-of', values });
};

const lay = (files: readonly HeapFile[]): string => laidIn(t, files);

const planned = async (p: Lived, folder: string, said: object = {}): Promise<IntakePlan> => {
  const place = { volume: 'studio', folder };
  expect((await t.ask(C, 'POST', `/api/projects/${p.id}/intake/read`, place)).status).toBe(204);
  return (await (await t.ask(C, 'POST', `/api/projects/${p.id}/intake`, { ...place, ...said })).json()) as IntakePlan;
};

async function brought(p: Lived, folder: string, said: object = {}): Promise<string> {
  const { fingerprint } = await planned(p, folder, said);
  const body = { volume: 'studio', folder, ...said, fingerprint, key: randomUUID() };
  const response = await t.ask(C, 'POST', `/api/projects/${p.id}/intake/batches`, body, WAIT);
  expect(response.status).toBe(201);
  return ((await response.json()) as BatchAnswer).batch;
}

const told = async (p: Lived, folder: string): Promise<HeapCopiesTold> =>
  (await (
    await t.ask(C, 'GET', `/api/projects/${p.id}/intake/copies?volume=studio&folder=${folder}`)
  ).json()) as HeapCopiesTold;

const filesIn = (root: string): string[] =>
  readdirSync(root, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && !path.join(entry.parentPath, entry.name).includes('.nesting'))
    .map((entry) => path.relative(root, path.join(entry.parentPath, entry.name)))
    .sort();
const hashOf = (at: string) => createHash('sha256').update(readFileSync(at)).digest('hex');
const named = (p: Lived) => path.join(second, path.basename(p.root));

test('a card stands in the project and on its volume’s double, byte for byte; then it may be erased; undone, both are gone', async () => {
  const p = await film();
  const folder = lay(cameraCard());
  expect((await told(p, folder)).last).toBeNull();
  const before = filesIn(second);
  const shown = await planned(p, folder);
  expect([shown.files, shown.double?.volume]).toEqual([11, 'away']);
  const batch = await brought(p, folder);
  const made = filesIn(named(p));
  expect(made).toHaveLength(11);
  for (const at of made) expect(hashOf(path.join(named(p), at))).toBe(hashOf(path.join(p.root, at)));
  expect(await told(p, folder)).toMatchObject({
    copies: { files: 11, inTwo: 11, inOne: 0, inNone: 0, alone: [], volumes: ['away', 'studio'] },
    last: { by: expect.any(String) },
  });
  expect((await t.ask(C, 'POST', `/api/projects/${p.id}/batches/${batch}/undo`, {}, WAIT)).status).toBe(201);
  expect(filesIn(second)).toEqual(before);
  expect(await told(p, folder)).toMatchObject({ copies: { inTwo: 0, inOne: 0, inNone: 11 } });
});

test('what is gone, other, new or cannot be seen keeps a card from being erased', async () => {
  const p = await film();
  const folder = lay(cameraCard());
  await brought(p, folder);
  const [first, other] = filesIn(named(p)) as [string, string];
  // Taken away on the double, and cut short in the project.
  rmSync(path.join(named(p), first));
  writeFileSync(path.join(p.root, other), 'short');
  const heap = path.join(t.studio, folder);
  const inHeap = (at: string) => at.split(`${folder}/`)[1] ?? '';
  expect(await told(p, folder)).toMatchObject({ copies: { files: 11, inTwo: 9, inOne: 2, inNone: 0 } });
  expect((await told(p, folder)).copies?.alone).toEqual([inHeap(first), inHeap(other)].sort());
  // One more on the card, and one that somebody wrote to.
  writeFileSync(path.join(heap, 'CLIPS/C0999.MP4'), 'one more');
  const touched = filesIn(heap).find((at) => at !== inHeap(first) && at !== inHeap(other) && !at.includes('C0999'));
  writeFileSync(path.join(heap, touched ?? ''), 'other bytes');
  expect(await told(p, folder)).toMatchObject({ copies: { files: 12, inTwo: 8, inOne: 2, inNone: 2 } });
  // What a system leaves behind is nobody's material.
  writeFileSync(path.join(heap, 'Thumbs.db'), 'x');
  expect((await told(p, folder)).copies?.files).toBe(12);
  // A link may lead to anything: nobody says yes beside one.
  symlinkSync(p.root, path.join(heap, 'more'));
  expect((await told(p, folder)).copies).toBeNull();
});

test('one copy is not two: without a double, with the same volume twice, with what was moved', async () => {
  const p = await film();
  const folder = lay(cameraCard());
  const alone = await planned(p, folder, { isDoubled: false });
  expect(alone.double).toBeNull();
  await brought(p, folder, { isDoubled: false });
  expect(existsSync(named(p))).toBe(false);
  expect(await told(p, folder)).toMatchObject({ copies: { inTwo: 0, inOne: 11, volumes: ['studio'] } });
  // Brought to a second project of the same volume it still stands on one volume, and on its double by that.
  const q = await film();
  await brought(q, folder, { isDoubled: false });
  expect(await told(q, folder)).toMatchObject({ copies: { inTwo: 0, inOne: 11 } });
  const moved = await planned(q, lay([{ path: 'x.pdf', bytes: Buffer.from('x'), modified: '2026-03-02T08:00:00Z' }]), {
    isMove: true,
  });
  expect(moved.double).toBeNull();
});

test('what lies on the double already is told, and nothing is brought; a corrected file gives way in both', async () => {
  const p = await film();
  const one = (text: string): HeapFile[] => [
    { path: 'plan.pdf', bytes: Buffer.from(text), modified: '2026-03-02T08:00:00Z' },
  ];
  const placed = { 'plan.pdf': { folder: '10_paperwork', name: 'plan.pdf', comes: true } };
  const folder = lay(one('first'));
  mkdirSync(path.join(named(p), '10_paperwork'), { recursive: true });
  writeFileSync(path.join(named(p), '10_paperwork/plan.pdf'), 'somebody’s');
  const shown = await planned(p, folder, { placed });
  expect(shown.refused).toEqual([`away has ${path.basename(p.root)}/10_paperwork/plan.pdf already.`]);
  const body = { volume: 'studio', folder, placed, fingerprint: shown.fingerprint };
  const refused = await t.ask(C, 'POST', `/api/projects/${p.id}/intake/batches`, body, WAIT);
  expect([refused.status, ((await refused.json()) as { code: string }).code]).toEqual([422, 'plan-refused']);
  rmSync(path.join(named(p), '10_paperwork/plan.pdf'));
  await brought(p, folder, { placed });
  const week = new Date(Date.now() - 7 * 86_400_000);
  for (const root of [p.root, named(p)]) utimesSync(path.join(root, '10_paperwork/plan.pdf'), week, week);
  const corrected = lay(one('the corrected one'));
  const batch = await brought(p, corrected, { placed: { 'plan.pdf': { ...placed['plan.pdf'], replaces: true } } });
  const now = () => [p.root, named(p)].map((root) => readFileSync(path.join(root, '10_paperwork/plan.pdf'), 'utf8'));
  expect(now()).toEqual(['the corrected one', 'the corrected one']);
  expect((await t.ask(C, 'POST', `/api/projects/${p.id}/batches/${batch}/undo`, {}, WAIT)).status).toBe(201);
  expect(now()).toEqual(['first', 'first']);
});

test('a double is another volume that there is; one that went away stops before anything is brought', async () => {
  expect(await saved('studio')).toBe(409);
  expect(await saved('nowhere')).toBe(404);
  const p = await film();
  const folder = lay(cameraCard());
  await planned(p, folder);
  const hidden = `${second}-hidden`;
  renameSync(second, hidden);
  const place = { volume: 'studio', folder };
  const response = await t.ask(C, 'POST', `/api/projects/${p.id}/intake`, place);
  expect([response.status, ((await response.json()) as { code: string }).code]).toEqual([503, 'volume-missing']);
  // Its mount point is there, and the volume is not.
  mkdirSync(second);
  const empty = await t.ask(C, 'POST', `/api/projects/${p.id}/intake`, place);
  expect([empty.status, ((await empty.json()) as { code: string }).code]).toEqual([503, 'volume-other']);
  expect(readdirSync(second)).toEqual([]);
  rmSync(second, { recursive: true });
  renameSync(hidden, second);
  expect((await planned(p, folder)).double?.volume).toBe('away');
  // What lies on a volume that is not there stands nowhere now.
  await brought(p, folder);
  expect(await told(p, folder)).toMatchObject({ copies: { inTwo: 11 } });
  renameSync(second, hidden);
  expect(await told(p, folder)).toMatchObject({ copies: { inTwo: 0, inOne: 11 } });
  renameSync(hidden, second);
  expect(await told(p, folder)).toMatchObject({ copies: { inTwo: 11 } });
  expect(await saved(null)).toBe(204);
  expect((await planned(p, folder)).double).toBeNull();
});
