/** Starters that are folders: made at the start, renamed whole, put back where they are missing, carried in a zip. */
import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { FindingList, ProjectPage, RepairPlan, ReshapePlan } from '@nesting/contract';
import { parseTemplate } from '@nesting/contract';
import { expandTemplate } from '@nesting/core/template';
import { filesOf } from '../src/flows/rules/zip';
import { insertEdition } from '../src/index';
import { openTestWorld, startedIn, type TestWorld } from './world';

const FILES = ['session.xml', 'media/empty.txt', 'Icon', '.state/view'];
const TEMPLATE = {
  ...{ format: 'nesting/template', formatVersion: 1, id: 'score', name: 'Score', edition: 1, conventions: [] },
  fields: [
    { key: 'number', type: 'text' },
    { key: 'title', type: 'text' },
  ],
  registers: {
    ...{ clients: [], people: [], abbreviations: [], banned: [] },
    families: [
      { name: 'session', extensions: ['song'], document: { folder: true } },
      { name: 'document', extensions: ['txt', 'xml'] },
    ],
  },
  root: {
    ...{ id: 'root', name: '{number}_{title:kebab}' },
    folders: [
      {
        ...{ id: 'music', name: 'music', accepts: ['session'] },
        starters: [{ id: 'session', name: '{number}_{title:kebab}.song', from: 'starters/blank.song', files: FILES }],
      },
    ],
  },
};

let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld();
  const parsed = parseTemplate(JSON.stringify(TEMPLATE));
  if (!parsed.ok) throw new Error(parsed.faults[0]);
  const bytes = FILES.map((file) => [`starters/blank.song/${file}`, Buffer.from(`{number} ${file}`)] as const);
  await insertEdition(t.world.db, parsed.value, new Map(bytes));
});
afterAll(() => t.close());

let numbers = 56_000;
const started = () => {
  const number = String(++numbers);
  return startedIn(t, number, { template: 'score', edition: 1, values: { number, title: 'Rain' } });
};

function treeOf(root: string): string[] {
  return readdirSync(root, { recursive: true, encoding: 'utf8' })
    .filter((at) => !at.startsWith('.nesting'))
    .map((at) =>
      statSync(path.join(root, at)).isDirectory() ? `${at}/` : `${at}: ${readFileSync(path.join(root, at))}`,
    )
    .sort();
}

async function findings(id: string): Promise<FindingList['rows']> {
  await t.ask('artist', 'POST', `/api/projects/${id}/checks`, { what: 'whole' });
  await t.world.checks.idle();
  return ((await (await t.ask('lead', 'GET', `/api/projects/${id}/findings?group=none`)).json()) as FindingList).rows;
}

const whole = (number: string, title = 'rain') =>
  [
    ...['music/', `music/${number}_${title}.song/`, `music/${number}_${title}.song/.state/`],
    ...[`music/${number}_${title}.song/media/`],
    ...FILES.map((file) => `music/${number}_${title}.song/${file}: {number} ${file}`),
  ].sort();

test('is made with all that is in it, as it is, and has no finding', async () => {
  const { id, number, root } = await started();
  expect(treeOf(root)).toEqual(whole(number));
  expect(await findings(id)).toEqual([]);
});

test('goes with another title whole, with what was made in it since, and comes back', async () => {
  const { id, number, root, put } = await started();
  put(`music/${number}_rain.song/media/take.wav`, 'a take');
  const before = treeOf(root);
  const page = (await (await t.ask('lead', 'GET', `/api/projects/${id}`)).json()) as ProjectPage;
  const asked = {
    ...{ version: page.version, template: 'score', edition: 1, adjusted: page.adjusted },
    values: { ...page.values, title: 'Hail' },
  };
  const plan = (await (await t.ask('coordinator', 'POST', `/api/projects/${id}/plan`, asked)).json()) as ReshapePlan;
  const body = { ...asked, fingerprint: plan.fingerprint };
  const done = await t.ask('coordinator', 'POST', `/api/projects/${id}/batches`, body);
  expect(done.status).toBe(201);
  const moved = path.join(path.dirname(root), `${number}_hail`);
  expect(treeOf(moved)).toEqual([...whole(number, 'hail'), `music/${number}_hail.song/media/take.wav: a take`].sort());
  expect(await findings(id)).toEqual([]);
  const { batch } = (await done.json()) as { batch: string };
  expect((await t.ask('coordinator', 'POST', `/api/projects/${id}/batches/${batch}/undo`, {})).status).toBe(201);
  expect(treeOf(root)).toEqual(before);
});

test('that is missing is found, made again whole, and taken away again by undoing', async () => {
  const { id, number, root } = await started();
  rmSync(path.join(root, `music/${number}_rain.song`), { recursive: true });
  const found = await findings(id);
  expect(found.map(({ rule }) => rule)).toEqual(['missing-starter']);
  const plan = (await (await t.ask('coordinator', 'POST', `/api/projects/${id}/repair`, {})).json()) as RepairPlan;
  const done = await t.ask('coordinator', 'POST', `/api/projects/${id}/repair/batches`, {
    ...{ fingerprint: plan.fingerprint, now: plan.now, key: randomUUID() },
  });
  expect(done.status).toBe(201);
  expect(treeOf(root)).toEqual(whole(number));
  expect(await findings(id)).toEqual([]);
  const { batch } = (await done.json()) as { batch: string };
  expect((await t.ask('coordinator', 'POST', `/api/projects/${id}/batches/${batch}/undo`, {})).status).toBe(201);
  expect(treeOf(root)).toEqual(['music/']);
});

test('travels in the template’s zip with each of its files', async () => {
  const zip = Buffer.from(await (await t.ask('lead', 'GET', '/api/templates/score/export')).arrayBuffer());
  expect([...(await filesOf(zip)).keys()].sort()).toEqual(
    ['score.nest.json', ...FILES.map((file) => `starters/blank.song/${file}`)].sort(),
  );
});

test('whose name no family takes for one document is a fault of the template', () => {
  const { families: _families, ...registers } = TEMPLATE.registers;
  const parsed = parseTemplate(JSON.stringify({ ...TEMPLATE, registers: { ...registers, families: [] } }));
  if (!parsed.ok) throw new Error(parsed.faults[0]);
  const none = { clients: [], people: [], families: [], abbreviations: [], banned: [] };
  const { diagnostics } = expandTemplate(parsed.value, { number: '1', title: 'Rain' }, none);
  expect(diagnostics.map(({ code }) => code)).toContain('starter-no-document');
});

test.each(['../x', '/x', 'a/../x', 'a/./x', 'a//x', '', 'a\\x', 'a/', '..', 'a/..'])(
  '%j is no path in a document',
  (at) => {
    const [music] = TEMPLATE.root.folders;
    const starter = { ...music?.starters[0], files: [at] };
    const root = { ...TEMPLATE.root, folders: [{ ...music, starters: [starter] }] };
    expect(parseTemplate(JSON.stringify({ ...TEMPLATE, root })).ok).toBe(false);
  },
);
