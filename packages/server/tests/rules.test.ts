/** Rules from one installation into another, and blocks shared by several templates. */
import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import {
  type BlockInForce,
  type BlockRow,
  parseTemplate,
  type RuleChoices,
  type RuleSetRow,
  type RulesTaken,
  type TemplateRow,
} from '@nesting/contract';
import { placeBlock, setFolder, type Template } from '@nesting/core/template';
import { zipOf } from '../src/flows/rules/zip';
import { insertEdition } from '../src/index';
import { openTestWorld, type TestWorld } from './world';

let house: TestWorld;
let other: TestWorld;
beforeAll(async () => {
  house = await openTestWorld();
  other = await openTestWorld({}, true);
  const parsed = parseTemplate(readFileSync('demo/templates/facade-show.nest.json', 'utf8'));
  if (!parsed.ok) throw new Error(parsed.faults[0]);
  await insertEdition(
    house.world.db,
    parsed.value,
    new Map([
      ['starters/brief.md', Buffer.from('# {title}\n')],
      ['starters/show.otio', Buffer.from([0, 255, 7])],
    ]),
  );
});
afterAll(async () => {
  await house.close();
  await other.close();
});

const json = async <T>(response: Response) => (await response.json()) as T;
const code = async (response: Response) => [
  response.status,
  response.ok ? '' : (await json<{ code: string }>(response)).code,
];
const rowOf = async (t: TestWorld, id: string) =>
  (await json<TemplateRow[]>(await t.ask('lead', 'GET', '/api/templates'))).find((r) => r.id === id) as TemplateRow;
const bytesOf = async (t: TestWorld, address: string) =>
  new Uint8Array(await (await t.send('coordinator', 'GET', address)).arrayBuffer());
const look = (t: TestWorld, bytes: Uint8Array) => t.send('coordinator', 'POST', '/api/rules/look', bytes);
const take = (t: TestWorld, bytes: Uint8Array, choices: RuleChoices = {}) => {
  const form = new FormData();
  form.append('file', new Blob([Buffer.from(bytes)]), 'rules.zip');
  form.append('choices', JSON.stringify(choices));
  return t.send('coordinator', 'POST', '/api/rules/take', form);
};
const states = (rows: readonly RuleSetRow[]) => Object.fromEntries(rows.map((r) => [`${r.kind}:${r.id}`, r.state]));

describe('blocks of the house', () => {
  const blocks = async () => json<BlockRow[]>(await house.ask('artist', 'GET', '/api/blocks'));

  test('a block is shared, changed once, and taken up by each template with what it made of its copy', async () => {
    const { template } = await rowOf(house, 'facade-show');
    const paperwork = template.blocks?.find((b) => b.id === 'paperwork');
    const shared = await json<{ id: string; edition: number }>(
      await house.ask('coordinator', 'POST', '/api/blocks', {
        template: 'facade-show',
        body: { name: 'Paperwork', folders: paperwork?.folders },
      }),
    );
    expect(shared).toMatchObject({ id: 'paperwork', edition: 1 });
    const held: Template = {
      ...template,
      blocks: template.blocks?.map((b) =>
        b.id === 'paperwork' ? { ...b, shared: { block: 'paperwork', edition: 1 } } : b,
      ),
    };
    // The other template calls one of its folders otherwise.
    const window = (await rowOf(house, 'window-piece')).template;
    const own = {
      id: 'papers',
      name: 'Papers',
      shared: { block: 'paperwork', edition: 1 },
      folders:
        setFolder({ id: 'x', folders: paperwork?.folders ?? [] }, 'quotes', { name: 'offers', purpose: 'Ours.' })
          .folders ?? [],
    };
    const both: [string, Template][] = [
      ['facade-show', held],
      ['window-piece', placeBlock({ ...window, blocks: [own] }, 'paper', 'papers')],
    ];
    for (const [id, body] of both) {
      const { version } = await json<{ version: number }>(
        await house.ask('coordinator', 'PUT', `/api/templates/${id}/draft`, { template: body, version: 0 }),
      );
      expect(
        (
          await house.ask('coordinator', 'POST', `/api/templates/${id}/editions`, {
            version,
            said: 'Shared paperwork.',
          })
        ).status,
      ).toBe(201);
    }
    expect((await blocks())[0]).toMatchObject({
      id: 'paperwork',
      edition: 1,
      usedIn: [
        { template: 'facade-show', edition: 1 },
        { template: 'window-piece', edition: 1 },
      ],
    });

    // Changed once: one folder more, and a purpose where the window piece has its own.
    const next = {
      name: 'Paperwork',
      folders: [
        ...(setFolder({ id: 'x', folders: paperwork?.folders ?? [] }, 'quotes', { purpose: 'Theirs.' }).folders ?? []),
        { id: 'insurance', name: 'insurance' },
      ],
    };
    expect(
      await json(await house.ask('coordinator', 'PUT', '/api/blocks/paperwork/draft', { body: next, version: 0 })),
    ).toEqual({ version: 1 });
    expect(
      await code(await house.ask('coordinator', 'PUT', '/api/blocks/paperwork/draft', { body: next, version: 0 })),
    ).toEqual([409, 'draft-changed']);
    expect(
      await code(
        await house.ask('coordinator', 'POST', '/api/blocks/paperwork/editions', { version: 5, said: '', take: [] }),
      ),
    ).toEqual([409, 'draft-not-seen']);
    const put = await json<BlockInForce>(
      await house.ask('coordinator', 'POST', '/api/blocks/paperwork/editions', {
        version: 1,
        said: 'Insurance has its folder.',
        take: [{ template: 'facade-show' }, { template: 'window-piece' }],
      }),
    );
    expect(put).toEqual({
      edition: 2,
      templates: [
        { template: 'facade-show', edition: 5 },
        { template: 'window-piece', edition: 3 },
      ],
    });
    const [show, piece] = [await rowOf(house, 'facade-show'), await rowOf(house, 'window-piece')];
    expect(show.template.blocks?.[0]?.folders.map((f) => [f.name, f.purpose])).toContainEqual(['quotes', 'Theirs.']);
    expect(piece.template.blocks?.[0]?.folders.map((f) => [f.name, f.purpose])).toEqual([
      ['offers', 'Ours.'],
      ...next.folders.slice(1).map((f) => [f.name, f.purpose]),
    ]);
    expect(piece.template.blocks?.[0]?.shared).toEqual({ block: 'paperwork', edition: 2 });
  });

  test('a draft that holds the block gets the change too, and a clash goes the way that is said', async () => {
    const window = (await rowOf(house, 'window-piece')).template;
    await house.ask('coordinator', 'PUT', '/api/templates/window-piece/draft', {
      template: { ...window, purpose: 'Being written.' },
      version: 0,
    });
    const now = (await blocks())[0] as BlockRow;
    const folders = setFolder({ id: 'x', folders: now.folders }, 'quotes', { purpose: 'Anew.' }).folders ?? [];
    const { version } = await json<{ version: number }>(
      await house.ask('coordinator', 'PUT', '/api/blocks/paperwork/draft', {
        body: { name: 'Paperwork', folders },
        version: 0,
      }),
    );
    await house.ask('coordinator', 'POST', '/api/blocks/paperwork/editions', {
      version,
      said: '',
      take: [{ template: 'window-piece', theirs: ['quotes purpose'] }],
    });
    const piece = await rowOf(house, 'window-piece');
    expect(piece.template.blocks?.[0]?.folders[0]).toMatchObject({ name: 'offers', purpose: 'Anew.' });
    expect(piece.draft).toMatchObject({ version: 2, template: { purpose: 'Being written.' } });
    expect(piece.draft?.template.blocks?.[0]?.folders[0]).toMatchObject({ purpose: 'Anew.' });
    // Who did not take it up keeps what they have.
    expect((await blocks())[0]?.usedIn.map((u) => [u.template, u.edition])).toEqual([
      ['facade-show', 2],
      ['window-piece', 3],
    ]);
  });

  test('a file of a block is never another one under its path: editions share it', async () => {
    const put = (path: string, bytes: string) =>
      house.send('coordinator', 'PUT', `/api/blocks/paperwork/starter?path=${path}`, Buffer.from(bytes));
    expect((await put('starters/paperwork/form.md', 'one')).status).toBe(204);
    expect((await put('starters/paperwork/form.md', 'one')).status).toBe(204);
    expect(await code(await put('starters/paperwork/form.md', 'two'))).toEqual([409, 'file-there']);
    for (const path of ['starters/form.md', 'starters/library/x.md', 'starters/paperwork/../x.md'])
      expect(await code(await put(path, 'x'))).toEqual([400, 'block-starter-path']);
    expect(
      Buffer.from(await bytesOf(house, '/api/blocks/paperwork/starter?path=starters/paperwork/form.md')).toString(),
    ).toBe('one');
  });

  test('what cannot be used in one template puts nothing in force anywhere', async () => {
    const now = (await blocks())[0] as BlockRow;
    const folders = [...now.folders, { id: 'odd', name: '{nobody:' }];
    const { version } = await json<{ version: number }>(
      await house.ask('coordinator', 'PUT', '/api/blocks/paperwork/draft', {
        body: { name: 'Paperwork', folders },
        version: 0,
      }),
    );
    expect(
      await code(
        await house.ask('coordinator', 'POST', '/api/blocks/paperwork/editions', {
          version,
          said: '',
          take: [{ template: 'facade-show' }],
        }),
      ),
    ).toEqual([422, 'block-unusable']);
    expect((await blocks())[0]).toMatchObject({ edition: 3, draft: { version } });
    expect((await rowOf(house, 'facade-show')).edition).toBe(5);
    expect((await house.ask('coordinator', 'DELETE', '/api/blocks/paperwork/draft')).status).toBe(204);
    expect(
      await code(
        await house.ask('coordinator', 'PUT', '/api/blocks/nothing/draft', {
          body: { name: 'x', folders: [] },
          version: 0,
        }),
      ),
    ).toEqual([404, 'no-block']);
  });
});

describe('the whole rule set', () => {
  test('taken into a fresh installation it is all new, and exported from there the same byte for byte', async () => {
    const bytes = await bytesOf(house, '/api/rules/export');
    const rows = await json<RuleSetRow[]>(await look(other, bytes));
    expect(new Set(rows.map((r) => r.state))).toEqual(new Set(['new']));
    expect(states(rows)).toMatchObject({
      'template:facade-show': 'new',
      'block:paperwork': 'new',
      'convention:working-file': 'new',
      'list:clients': 'new',
    });
    const { taken } = await json<RulesTaken>(await take(other, bytes));
    expect(taken).toHaveLength(rows.length);
    expect(Buffer.from(await bytesOf(other, '/api/rules/export')).equals(Buffer.from(bytes))).toBe(true);
    expect(await rowOf(other, 'facade-show')).toMatchObject({
      edition: (await rowOf(house, 'facade-show')).edition,
      draft: null,
    });
    expect((await json<RuleSetRow[]>(await look(other, bytes))).filter((r) => r.state !== 'same')).toEqual([]);
  });

  test('what is otherwise is told in words, and is never changed unseen: a draft, a thing of its own, or left', async () => {
    const mine = await rowOf(other, 'window-piece');
    const changed = { ...mine.template, root: setFolder(mine.template.root, 'paper', { purpose: 'Other papers.' }) };
    const [row] = await json<RuleSetRow[]>(await look(other, Buffer.from(JSON.stringify(changed))));
    expect(row).toMatchObject({ kind: 'template', state: 'differs', acts: ['leave', 'take', 'beside'] });
    expect(row?.words.join(' ')).toContain('what it is for');
    const bytes = Buffer.from(JSON.stringify(changed));
    expect(await json<RulesTaken>(await take(other, bytes))).toEqual({ taken: [] });
    expect(await json<RulesTaken>(await take(other, bytes, { 'template:window-piece': 'beside' }))).toEqual({
      taken: [{ kind: 'template', id: 'window-piece-taken-in', as: 'draft' }],
    });
    expect(await json<RulesTaken>(await take(other, bytes, { 'template:window-piece': 'take' }))).toEqual({
      taken: [{ kind: 'template', id: 'window-piece', as: 'draft' }],
    });
    const after = await rowOf(other, 'window-piece');
    expect(after.template).toEqual(mine.template);
    expect(after.draft?.template.root.folders?.find((f) => f.id === 'paper')?.purpose).toBe('Other papers.');
    // A draft somebody writes is not written over.
    expect(await code(await take(other, bytes, { 'template:window-piece': 'take' }))).toEqual([409, 'draft-there']);
    expect(await code(await take(other, bytes, { 'template:window-piece': 'burn' as 'take' }))).toEqual([
      400,
      'not-as-expected',
    ]);
  });

  test('lists take what is new; entries that are otherwise stay ours unless told', async () => {
    const lists = Buffer.from(
      JSON.stringify({
        clients: [
          { code: 'QHT', name: 'Another name' },
          { code: 'FNR', name: 'Fennel & Rook Theatre' },
        ],
        banned: ['final'],
      }),
    );
    const rows = await json<RuleSetRow[]>(await look(other, lists));
    expect(rows.find((r) => r.id === 'clients')).toMatchObject({
      state: 'differs',
      words: ['New: FNR', 'Otherwise: QHT'],
      acts: ['leave', 'take'],
    });
    await take(other, lists);
    const registers = await json<{ clients: { code: string; name: string }[]; banned: string[] }>(
      await other.ask('lead', 'GET', '/api/registers'),
    );
    expect(registers.clients.map((c) => c.name)).not.toContain('Another name');
    expect(registers.banned).toContain('final');
  });

  test('files that are no rules, lead out of their root, or unpack to too much are refused whole', async () => {
    const good = Buffer.from(JSON.stringify((await rowOf(house, 'window-piece')).template));
    const zip = (files: Record<string, Uint8Array>) => zipOf(new Map(Object.entries(files)));
    const out = Buffer.from(await zip({ 'a.nest.json': good, 'xx/evil.md': Buffer.from('x') }));
    const attacks: Record<string, Uint8Array> = {
      'no zip and no JSON': Buffer.from('no rules at all'),
      'JSON that is something else': Buffer.from('[1,2,3]'),
      'a zip that is cut off': out.subarray(0, out.length - 30),
      'a zip without rules': await zip({ 'readme.txt': Buffer.from('x') }),
      'a foreign format': await zip({ 'a.nest.json': Buffer.from('{"format":"something/else"}') }),
      'a later version': await zip({
        'a.nest.json': Buffer.from(good.toString().replace('"formatVersion":1', '"formatVersion":7')),
      }),
      'a bomb': await zip({ 'a.nest.json': good, 'starters/window-brief.md': new Uint8Array(33 * 1024 * 1024) }),
      'a path that leads out': Buffer.from(out.toString('latin1').replaceAll('xx/evil.md', '../evil.md'), 'latin1'),
      'one bad file among good ones': await zip({ 'a.nest.json': good, 'b.convention.json': Buffer.from('{}') }),
    };
    const before = Buffer.from(await bytesOf(other, '/api/rules/export'));
    for (const [attack, bytes] of Object.entries(attacks)) {
      expect([attack, ...(await code(await look(other, bytes)))]).toEqual([attack, 422, 'file-unusable']);
      expect([attack, ...(await code(await take(other, bytes)))]).toEqual([attack, 422, 'file-unusable']);
    }
    expect(Buffer.from(await bytesOf(other, '/api/rules/export')).equals(before)).toBe(true);
  });
});
