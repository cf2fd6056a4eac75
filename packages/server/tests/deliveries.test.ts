/** What is late is found, listed with its day, and gone once it is there: on a real disk, by a quick check too. */
import { readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { type DueLine, type FindingList, parseTemplate } from '@nesting/contract';
import { starterPaths } from '@nesting/core/template';
import { insertEdition } from '../src/index';
import { openTestWorld, startedIn, type TestWorld } from './world';

let t: TestWorld;
let edition = 1;
beforeAll(async () => {
  t = await openTestWorld();
  const parsed = parseTemplate(readFileSync('demo/templates/dome-film.nest.json', 'utf8'));
  if (!parsed.ok) throw new Error(parsed.faults[0]);
  edition = parsed.value.edition ?? 1;
  await insertEdition(
    t.world.db,
    parsed.value,
    new Map(starterPaths(parsed.value).map((at) => [at, Buffer.from('{number}')])),
  );
});
afterAll(() => t.close());

test('a film that was due two weeks before it opens', async () => {
  const values = {
    ...{ number: '97001', title: 'Small Hours', client: 'QHT', date: '2026-03-20', size: '4k' },
    ...{ scenes: 's01..s02', languages: ['en'] },
  };
  const p = await startedIn(t, '97001', { template: 'dome-film', edition, values });
  const late = async () => {
    await t.ask('coordinator', 'POST', `/api/projects/${p.id}/checks`, { kind: 'quick' });
    await t.world.checks.idle();
    const found = await t.ask('lead', 'GET', `/api/projects/${p.id}/findings?group=none`);
    return ((await found.json()) as FindingList).rows.filter(({ rule }) => rule === 'missing-delivery').length;
  };
  const due = async () => (await (await t.ask('artist', 'GET', `/api/projects/${p.id}/due`)).json()) as DueLine[];
  expect(await late()).toBe(1);
  const [line] = await due();
  expect(line).toEqual({
    ...{ name: 'Master in 4K', folder: line?.folder, entry: null, by: '2026-03-06', file: null, isLate: true },
  });
  const at = `${line?.folder}/small-hours.mov`;
  p.put(at, 'a film');
  expect(await late()).toBe(0);
  expect((await due())[0]).toMatchObject({ file: at, isLate: false });
  rmSync(path.join(p.root, at));
  expect(await late()).toBe(1);
  // Only what its size asks for is due.
  expect(await due()).toHaveLength(1);
});
