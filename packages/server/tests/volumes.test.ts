/** A volume is known by a file in its root: an empty mount point is never taken for it. */
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { FindingList, FoundProject, ProjectRow, VolumeRow } from '@nesting/contract';
import { settleLost } from '../src/serve';
import { openTestWorld, startOf, type TestWorld } from './world';

let t: TestWorld;
let second: string;
beforeAll(async () => {
  t = await openTestWorld();
  second = path.join(path.dirname(t.studio), 'away');
});
afterAll(async () => {
  await t.close();
});

const json = async <T>(response: Response) => (await response.json()) as T;
const volumes = async () =>
  Object.fromEntries(
    (await json<VolumeRow[]>(await t.ask('lead', 'GET', '/api/volumes'))).map((v) => [v.name, v.state]),
  );
const takeUp = async (name: string, isAnother = false, who: 'coordinator' | 'artist' = 'coordinator') => {
  const response = await t.ask(who, 'POST', `/api/volumes/${name}/take-up`, { isAnother });
  return [response.status, response.status < 300 ? '' : (await json<{ code: string }>(response)).code];
};
const start = async (number: string, volume = 'studio') =>
  t.ask('coordinator', 'POST', '/api/projects', { ...startOf(number), volume });
const identity = (at: string) => JSON.parse(readFileSync(path.join(at, '.nesting-volume'), 'utf8')) as { id: string };

describe('taking a volume up', () => {
  test('until a coordinator does so nothing is written on it; then it is known by its file', async () => {
    mkdirSync(second);
    expect(await volumes()).toEqual({ studio: 'ready', away: 'new' });
    const refused = await start('26001', 'away');
    expect([refused.status, (await json<{ code: string }>(refused)).code]).toEqual([409, 'volume-new']);
    expect(readdirSync(second)).toEqual([]);
    expect(await takeUp('away', false, 'artist')).toEqual([403, 'role-not-allowed']);
    expect(await takeUp('nowhere')).toEqual([404, 'no-volume']);
    expect(await takeUp('away')).toEqual([204, '']);
    expect(await takeUp('away')).toEqual([204, '']);
    expect(await volumes()).toEqual({ studio: 'ready', away: 'ready' });
    expect(identity(second)).toEqual({ format: 'nesting/volume', id: expect.any(String), name: 'away' });
    expect((await start('26001', 'away')).status).toBe(201);
  });

  test('two volumes with one identity are refused', async () => {
    rmSync(path.join(second, '.nesting-volume'));
    cpSync(path.join(t.studio, '.nesting-volume'), path.join(second, '.nesting-volume'));
    expect(await volumes()).toEqual({ studio: 'ready', away: 'other' });
    expect(await takeUp('away', true)).toEqual([409, 'volume-twice']);
    expect(await volumes()).toEqual({ studio: 'ready', away: 'other' });
  });

  test('one that was brought back without its file is taken up only where somebody says that it is the volume', async () => {
    rmSync(path.join(second, '.nesting-volume'));
    expect(await volumes()).toEqual({ studio: 'ready', away: 'other' });
    expect(await takeUp('away')).toEqual([409, 'volume-changed']);
    expect(await takeUp('away', true)).toEqual([204, '']);
    expect(await volumes()).toEqual({ studio: 'ready', away: 'ready' });
    const { rows } = await t.world.db.query("select id from volume_identity where volume = 'away'");
    expect(rows).toEqual([{ id: identity(second).id }]);
  });

  test.each(['', '{', 'null', '[]', '{"format":"nesting/volume"}', '{"format":"other","id":"x"}'])(
    'a file that says %j is none',
    async (text) => {
      const file = path.join(second, '.nesting-volume');
      const before = readFileSync(file, 'utf8');
      const { writeFileSync } = await import('node:fs');
      writeFileSync(file, text);
      expect((await volumes()).away).toBe('other');
      writeFileSync(file, before);
      expect((await volumes()).away).toBe('ready');
    },
  );
});

describe('a mount point without its volume', () => {
  test('nothing is written, judged, missed or settled there; all is as it was when the volume is back', async () => {
    const project = await json<ProjectRow>(await start('26010'));
    await t.world.checks.idle();
    const findings = async () =>
      (await json<FindingList>(await t.ask('lead', 'GET', `/api/projects/${project.id}/findings`))).rows.length;
    const before = await findings();
    // A start that is done on the disk, and whose last row a crash kept from being written.
    const half = await json<ProjectRow>(await start('26011'));
    await t.world.checks.idle();
    await t.world.db.query("update project set state = 'starting' where id = $1", [half.id]);
    const kept = `${t.studio} unmounted`;
    renameSync(t.studio, kept);
    mkdirSync(t.studio);
    try {
      expect((await volumes()).studio).toBe('other');
      const refused = await start('26012');
      expect([refused.status, (await json<{ code: string }>(refused)).code]).toEqual([503, 'volume-other']);
      await settleLost(t.world);
      const { rows } = await t.world.db.query('select state from project where id = $1', [half.id]);
      expect(rows).toEqual([{ state: 'starting' }]);
      expect(await json<FoundProject[]>(await t.ask('coordinator', 'GET', '/api/volumes/projects'))).toEqual([]);
      await t.ask('coordinator', 'POST', `/api/projects/${project.id}/checks`, {});
      await t.world.checks.idle();
      expect(await findings()).toBe(before);
      expect(readdirSync(t.studio)).toEqual([]);
    } finally {
      rmSync(t.studio, { recursive: true });
      renameSync(kept, t.studio);
    }
    expect((await volumes()).studio).toBe('ready');
    await settleLost(t.world);
    const { rows } = await t.world.db.query('select state from project where id = $1', [half.id]);
    expect(rows).toEqual([{ state: 'running' }]);
    expect(existsSync(path.join(t.studio, project.folder, '.nesting/project.json'))).toBe(true);
  });
});
