/** What the house means by its marks: changed by coordinators, carried by template files, mapped on taking in. */
import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { parseMeanings, parseTemplate, type RuleSetRow, type TemplateRow } from '@nesting/contract';
import { MARKS, type Mark, type Meanings, marksIn } from '@nesting/core/template';
import { filesOf } from '../src/flows/rules/zip';
import { insertEdition } from '../src/index';
import { openTestWorld, type TestWorld } from './world';

let house: TestWorld;
let other: TestWorld;
const FACADE = readFileSync('demo/templates/facade-show.nest.json', 'utf8');
beforeAll(async () => {
  house = await openTestWorld();
  other = await openTestWorld({}, true);
  const parsed = parseTemplate(FACADE);
  if (!parsed.ok) throw new Error(parsed.faults[0]);
  await insertEdition(house.world.db, parsed.value, new Map());
});
afterAll(async () => {
  await house.close();
  await other.close();
});

const meaningsOf = async (t: TestWorld) => (await (await t.ask('artist', 'GET', '/api/marks')).json()) as Meanings;
const give = async (t: TestWorld, mark: string, words: string, was: string) => {
  const answer = await t.ask('coordinator', 'PUT', `/api/marks/${mark}`, { words, was });
  return answer.status === 204 ? 204 : [answer.status, ((await answer.json()) as { code: string }).code];
};
const marksOf = async (t: TestWorld, id: string): Promise<ReadonlySet<Mark>> => {
  const rows = (await (await t.ask('lead', 'GET', '/api/templates')).json()) as TemplateRow[];
  const template = rows.find((r) => r.id === id)?.template;
  return marksIn(template === undefined ? [] : [template.root]);
};
const look = async (t: TestWorld, file: Uint8Array) =>
  (await (await t.send('coordinator', 'POST', '/api/rules/look', file)).json()) as RuleSetRow[];
const take = (t: TestWorld, file: Uint8Array) => {
  const form = new FormData();
  form.append('file', new Blob([Buffer.from(file)]), 'rules.zip');
  form.append('choices', '{}');
  return t.send('coordinator', 'POST', '/api/rules/take', form);
};
const exported = async (t: TestWorld) =>
  new Uint8Array(await (await t.send('coordinator', 'GET', '/api/templates/facade-show/export')).arrayBuffer());

describe('meanings of marks', () => {
  test('are changed against what they were, told apart from each other, and freed', async () => {
    expect(await meaningsOf(house)).toMatchObject({ moss: 'arrives', ink: 'generated' });
    expect(await give(house, 'teal', 'weather', '')).toBe(204);
    expect(await give(house, 'teal', 'roof', '')).toEqual([409, 'meaning-changed']);
    expect(await give(house, 'straw', 'Weather', '')).toEqual([409, 'meaning-taken']);
    expect(await give(house, 'teal', '', 'weather')).toBe(204);
    expect(await give(house, 'neon', 'roof', '')).toEqual([404, 'not-found']);
    expect(await give(house, 'teal', 'x'.repeat(41), '')).toEqual([400, 'not-as-expected']);
    for (const unseen of ['ro\0of', 'roof\u202e', 'ro\nof'])
      expect(await give(house, 'teal', unseen, '')).toEqual([400, 'not-as-expected']);
    expect(Object.keys(await meaningsOf(house))).toHaveLength(6);
    const artist = await house.ask('artist', 'PUT', '/api/marks/teal', { words: 'mine', was: '' });
    expect(artist.status).toBe(403);
  });

  test('are carried by a template file: those it uses, and no others', async () => {
    const files = await filesOf(await exported(house));
    const body = files.get('facade-show.nest.json')?.toString('utf8') ?? '';
    const carried = parseMeanings(body);
    expect(parseTemplate(body).ok).toBe(true);
    const ours = await meaningsOf(house);
    const used = await marksOf(house, 'facade-show');
    expect(carried.ok && carried.value).toEqual(
      Object.fromEntries(MARKS.filter((m) => used.has(m)).map((m) => [m, ours[m]])),
    );
    expect((await look(house, await exported(house))).map((r) => r.state)).not.toContain('new');
  });

  test('bring the marks of another house to those of the same meaning here', async () => {
    // Here what arrives is straw, moss is something else, and the mark of paperwork is free.
    expect(await give(other, 'moss', 'greenery', 'arrives')).toBe(204);
    expect(await give(other, 'straw', 'arrives', '')).toBe(204);
    expect(await give(other, 'slate', '', 'paperwork')).toBe(204);
    const file = await exported(house);
    expect((await look(other, file)).find((r) => r.id === 'facade-show')).toMatchObject({ state: 'new' });
    expect((await take(other, file)).status).toBe(200);
    const before = await marksOf(house, 'facade-show');
    const after = await marksOf(other, 'facade-show');
    expect(before.has('moss') && before.has('slate')).toBe(true);
    expect([after.has('moss'), after.has('straw'), after.has('slate')]).toEqual([false, true, true]);
    expect(await meaningsOf(other)).toMatchObject({ moss: 'greenery', straw: 'arrives', slate: 'paperwork' });
    // What came in once is the same when it comes again.
    expect((await look(other, file)).find((r) => r.id === 'facade-show')?.state).toBe('same');
  });

  test('a template of the form without meanings keeps its marks, and one with unknown marks is refused', async () => {
    const renamed = FACADE.replace('"id": "facade-show"', '"id": "old-facade"');
    expect((await take(house, Buffer.from(renamed))).status).toBe(200);
    expect(await marksOf(house, 'old-facade')).toEqual(await marksOf(house, 'facade-show'));
    const wrong = { ...(JSON.parse(renamed) as object), marks: { neon: 'roof' } };
    const answer = await house.send('coordinator', 'POST', '/api/rules/look', Buffer.from(JSON.stringify(wrong)));
    expect(answer.status).toBe(422);
  });
});
