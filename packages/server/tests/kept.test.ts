/**
 * An installation of an earlier form, kept as it was: its database before project notes became what the team should
 * know and before marks had meanings, and its volume. It opens, says the same, and its start can still be undone.
 */
import { cpSync, existsSync, mkdirSync, readFileSync } from 'node:fs';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { BatchRow, ProjectRow, TemplateRow } from '@nesting/contract';
import { marksIn } from '@nesting/core/template';
import pg from 'pg';
import { openTestWorld, type TestWorld } from './world';

const KEPT = 'packages/server/tests/kept';
/** The repository keeps no empty folders. */
const EMPTY = ['10-sketches', '20-cutting/heron', '20-cutting/hare', '40-store', '90-paper/letters', '90-paper/quotes'];
let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld({}, async (url, studio) => {
    cpSync(`${KEPT}/volume`, studio, { recursive: true });
    for (const folder of EMPTY) mkdirSync(`${studio}/26040_harvest-walk/${folder}`, { recursive: true });
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    await client.query(readFileSync(`${KEPT}/database.sql`, 'utf8').replaceAll('{studio}', studio));
    await client.end();
  });
});
afterAll(() => t.close());

const json = async <T>(response: Promise<Response>) => (await (await response).json()) as T;
const theProject = async () =>
  (await json<{ rows: ProjectRow[] }>(t.ask('artist', 'GET', '/api/projects?find=26040'))).rows[0] as ProjectRow;

test('its project is there with what the team should know, from nobody known', async () => {
  const { id } = await theProject();
  expect(await json(t.ask('artist', 'GET', `/api/projects/${id}`))).toMatchObject({
    teamNote: { text: 'The glue needs a night to dry.', by: null },
  });
});

test('its template keeps its marks, gets the meanings a house begins with, and comes home as the same', async () => {
  const rows = await json<TemplateRow[]>(t.ask('lead', 'GET', '/api/templates'));
  const template = rows.find((r) => r.name === 'Paper lanterns')?.template;
  expect([...marksIn(template === undefined ? [] : [template.root])].sort()).toEqual(['clay', 'moss', 'teal']);
  expect(await json(t.ask('artist', 'GET', '/api/marks'))).toMatchObject({ moss: 'arrives', clay: 'in work' });
  const file = await t.send('coordinator', 'GET', `/api/templates/${template?.id}/export`);
  const look = await t.send('coordinator', 'POST', '/api/rules/look', new Uint8Array(await file.arrayBuffer()));
  expect(((await look.json()) as { state: string }[]).map((r) => r.state)).not.toContain('new');
});

test('a template file of the earlier form is taken in with the marks it has', async () => {
  const kept = readFileSync(`${KEPT}/volume/26040_harvest-walk/.nesting/template.nest.json`, 'utf8');
  const file = Buffer.from(kept.replace('"id": "paper-lanterns"', '"id": "lanterns-again"'));
  expect(file.toString('utf8')).not.toBe(kept);
  const form = new FormData();
  form.append('file', new Blob([file]), 'lanterns.nest.json');
  form.append('choices', '{}');
  expect((await t.send('coordinator', 'POST', '/api/rules/take', form)).status).toBe(200);
  const rows = await json<TemplateRow[]>(t.ask('lead', 'GET', '/api/templates'));
  const again = rows.find((r) => r.id === 'lanterns-again')?.template;
  expect([...marksIn(again === undefined ? [] : [again.root])].sort()).toEqual(['clay', 'moss', 'teal']);
});

test('its project is checked, and what was added to it can still be undone', async () => {
  const { id } = await theProject();
  const hare = `${t.studio}/26040_harvest-walk/20-cutting/hare`;
  expect((await t.ask('coordinator', 'POST', `/api/projects/${id}/checks`, {})).status).toBe(202);
  await t.world.checks.idle();
  expect((await theProject()).check).toMatchObject({ files: 1, counts: { must: 0 } });
  const [batch] = await json<BatchRow[]>(t.ask('lead', 'GET', `/api/projects/${id}/batches`));
  expect(batch).toMatchObject({ what: 'grow', state: 'done' });
  expect(existsSync(hare)).toBe(true);
  const undone = await t.ask('coordinator', 'POST', `/api/projects/${id}/batches/${batch?.id}/undo`, { keys: null });
  expect([undone.status, existsSync(hare)]).toEqual([201, false]);
});
