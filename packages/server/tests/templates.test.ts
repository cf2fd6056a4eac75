/**
 * Templates from draft to edition, in and out of zips, by two people at once; what an edition would mean for projects
 * that run.
 */
import { mkdirSync, symlinkSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { EditionRow, StarterRow, TemplateImpactRow, TemplateRow } from '@nesting/contract';
import { LIMITS } from '@nesting/core';
import { NO_REGISTERS } from '@nesting/core/name';
import { expandTemplate, type PlannedLine, setFolder, type Template } from '@nesting/core/template';
import { openTestWorld, startOf, type TestWorld } from './world';

let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld();
});
afterAll(() => t.close());

const code = async (response: Response) => [
  response.status,
  response.ok ? '' : ((await response.json()) as { code: string }).code,
];
const all = async () => (await (await t.ask('lead', 'GET', '/api/templates')).json()) as TemplateRow[];
const rowOf = async (id: string) => (await all()).find((r) => r.id === id) as TemplateRow;
const save = (id: string, template: Template, version: number) =>
  t.ask('coordinator', 'PUT', `/api/templates/${id}/draft`, { template, version });
const json = async <T>(response: Response) => (await response.json()) as T;

const raw = (method: string, address: string, bytes?: Uint8Array) => t.send('coordinator', method, address, bytes);

describe('from a draft to an edition', () => {
  test('a draft is kept, told when it is overtaken, and becomes the next edition with a sentence and its files', async () => {
    const { template } = await rowOf('window-piece');
    const changed: Template = {
      ...template,
      root: setFolder(template.root, 'paper', { purpose: 'Papers of all kinds.' }),
    };
    expect(await json(await save('window-piece', changed, 0))).toEqual({ version: 1 });
    expect(await code(await save('window-piece', changed, 0))).toEqual([409, 'draft-changed']);
    expect(await rowOf('window-piece')).toMatchObject({ edition: 1, draft: { version: 1, by: 'The coordinator' } });
    expect(
      await code(await t.ask('coordinator', 'POST', '/api/templates/window-piece/editions', { version: 9, said: 'x' })),
    ).toEqual([409, 'draft-not-seen']);
    expect(
      await json(
        await t.ask('coordinator', 'POST', '/api/templates/window-piece/editions', {
          version: 1,
          said: 'Papers are told apart.',
        }),
      ),
    ).toEqual({ edition: 2 });
    const editions = await json<EditionRow[]>(await t.ask('artist', 'GET', '/api/templates/window-piece/editions'));
    expect(editions.map((e) => [e.edition, e.said])).toEqual([
      [2, 'Papers are told apart.'],
      [1, ''],
    ]);
    const started = await t.ask('coordinator', 'POST', '/api/projects', { ...startOf('26501'), edition: 2 });
    expect(started.status).toBe(201);
    await t.world.checks.idle();
  });

  test('what cannot be used is not put in force, and says where', async () => {
    const { template } = await rowOf('window-piece');
    const broken = [
      { ...template, root: setFolder(template.root, 'paper', { conventions: ['nothing'] }) },
      { ...template, root: setFolder(template.root, 'window', { onePer: { list: 'nothing', as: 'x' } }) },
      { ...template, root: { ...template.root, starters: [{ id: 'new', name: 'new.md', from: 'starters/new.md' }] } },
    ];
    for (const each of broken) {
      const { version } = await json<{ version: number }>(
        await save('window-piece', each as Template, (await rowOf('window-piece')).draft?.version ?? 0),
      );
      expect(
        (
          await code(await t.ask('coordinator', 'POST', '/api/templates/window-piece/editions', { version, said: '' }))
        )[0],
      ).toBe(422);
    }
    expect(
      (await raw('PUT', '/api/templates/window-piece/starter?path=starters/new.md', Buffer.from('# New'))).status,
    ).toBe(204);
    expect((await raw('PUT', '/api/templates/window-piece/starter?path=../new.md', Buffer.from('x'))).status).toBe(400);
    expect((await raw('PUT', '/api/templates/nothing/starter?path=a.md', Buffer.from('x'))).status).toBe(404);
    // A blank document may be larger than any other request; not without end.
    expect(
      (await raw('PUT', '/api/templates/window-piece/starter?path=starters/large.bin', new Uint8Array(5 * 1024 * 1024)))
        .status,
    ).toBe(204);
    expect(
      (await raw('PUT', '/api/templates/window-piece/starter?path=starters/huge.bin', new Uint8Array(65 * 1024 * 1024)))
        .status,
    ).toBe(413);
    const { version } = (await rowOf('window-piece')).draft as { version: number };
    expect(
      await json(await t.ask('coordinator', 'POST', '/api/templates/window-piece/editions', { version, said: '' })),
    ).toEqual({ edition: 3 });
    expect(await (await raw('GET', '/api/templates/window-piece/starter?path=starters/new.md')).text()).toBe('# New');
  });

  test('what an edition would mean for a running project is counted by its plan', async () => {
    const { template } = await rowOf('window-piece');
    const next: Template = {
      ...template,
      root: {
        ...setFolder(template.root, 'masters', { name: 'deliveries' }),
        folders: [
          ...(setFolder(template.root, 'masters', { name: 'deliveries' }).folders ?? []),
          { id: 'press', name: 'press', number: 9 },
        ],
      },
    };
    const [row] = await json<TemplateImpactRow[]>(
      await t.ask('coordinator', 'POST', '/api/templates/window-piece/impact', { template: next }),
    );
    expect(row).toMatchObject({ gains: 2, renames: 1, project: { number: '26501', edition: 2 } });
    expect(row?.examples).toContain('+ 09_press');
  });

  test('what a project leaves out on purpose is not said to be gained by the next edition', async () => {
    const { template, edition } = await rowOf('window-piece');
    const expansion = expandTemplate(
      template,
      { number: '26777', title: 'x', client: 'MSW', windows: 'A' },
      NO_REGISTERS,
    );
    const left = expansion.lines.find((l) => l.kind === 'folder' && l.parent !== null) as PlannedLine;
    const made = await t.ask('coordinator', 'POST', '/api/projects', {
      ...startOf('26777'),
      edition: edition - 1,
      adjusted: { [left.key]: { make: false } },
    });
    expect(made.status).toBe(201);
    const rows = await json<TemplateImpactRow[]>(
      await t.ask('coordinator', 'POST', '/api/templates/window-piece/impact', { template }),
    );
    const row = rows.find((r) => r.project.number === '26777');
    expect(row?.examples ?? []).not.toContain(`+ ${left.path}`);
  });

  test('a word in an address is decoded once', async () => {
    for (const [word, status] of [
      ['window%2Dpiece', 204],
      ['window%252Dpiece', 404],
      ['100%25', 404],
      ['100%', 404],
    ] as const) {
      const response = await t.ask('coordinator', 'POST', `/api/templates/${word}/archive`, { archived: false });
      expect([word, response.status]).toEqual([word, status]);
    }
  });
});

describe('starter files', () => {
  test('what no folder names can be dropped from the draft, never from an edition; a file that is too large is refused before it is read', async () => {
    const path = 'starters/left-over.md';
    expect((await raw('PUT', `/api/templates/window-piece/starter?path=${path}`, Buffer.from('x'))).status).toBe(204);
    const listed = async () => json<StarterRow[]>(await t.ask('artist', 'GET', '/api/templates/window-piece/starters'));
    expect(await listed()).toContainEqual({ path, bytes: 1, inDraft: true });
    const kept = (await listed()).find((f) => !f.inDraft) as StarterRow;
    for (const each of [path, kept.path])
      expect((await raw('DELETE', `/api/templates/window-piece/starter?path=${each}`)).status).toBe(204);
    expect((await listed()).map((f) => f.path)).toContain(kept.path);
    expect((await listed()).map((f) => f.path)).not.toContain(path);
    const huge = new Uint8Array(LIMITS.starterBytes + 1);
    expect(await code(await raw('PUT', `/api/templates/window-piece/starter?path=${path}`, huge))).toEqual([
      413,
      'too-large',
    ]);
    expect((await t.ask('artist', 'DELETE', `/api/templates/window-piece/starter?path=${path}`)).status).toBe(403);
  });
});

describe('folders to derive from', () => {
  test('only what lies on a volume is listed: no way out by dots, absolute paths or links', async () => {
    mkdirSync(join(t.studio, 'old/one/in'), { recursive: true });
    writeFileSync(join(t.studio, 'old/one/in/a.png'), '');
    symlinkSync('/etc', join(t.studio, 'old/out'));
    const ask = (what: string, path: string) =>
      t.ask('coordinator', 'GET', `/api/volumes/studio/${what}?path=${encodeURIComponent(path)}`);
    expect(await json(await ask('folders', 'old'))).toEqual({ folders: ['one'], files: 0 });
    expect((await json<{ listing: string }>(await ask('listing', 'old'))).listing.split('\n').sort()).toEqual([
      'old/one/',
      'old/one/in/',
      'old/one/in/a.png',
    ]);
    for (const act of ['folders', 'listing']) {
      for (const path of ['..', '/etc', 'old/../..', 'old/out', 'nothing'])
        expect([path, ...(await code(await ask(act, path)))]).toEqual([path, 404, 'no-folder']);
      expect(await code(await ask(act, 'old\u0000'))).toEqual([400, 'not-as-expected']);
    }
    expect((await t.ask('artist', 'GET', '/api/volumes/studio/listing?path=old')).status).toBe(403);
  });
});

describe('copies and the archive', () => {
  test('a template is doubled with its files, archived, and a draft never in force goes when it is put aside', async () => {
    const { template, edition } = await rowOf('window-piece');
    const { id } = await json<{ id: string }>(
      await t.ask('coordinator', 'POST', '/api/templates', {
        template: { ...template, name: 'Window piece, small' },
        from: { template: 'window-piece', edition },
      }),
    );
    expect(id).toBe('window-piece-small');
    expect((await raw('GET', `/api/templates/${id}/starter?path=starters/new.md`)).status).toBe(200);
    expect((await t.ask('coordinator', 'DELETE', `/api/templates/${id}/draft`)).status).toBe(204);
    expect(await rowOf(id)).toBeUndefined();
    expect((await t.ask('coordinator', 'POST', '/api/templates/window-piece/archive', { archived: true })).status).toBe(
      204,
    );
    expect((await rowOf('window-piece')).archived).toBe(true);
    expect(
      await code(
        await t.ask('coordinator', 'POST', '/api/templates', {
          template: {
            format: 'nesting/template',
            formatVersion: 1,
            name: 'x',
            root: { name: 'x', folders: [{ name: 5 }] },
          },
        }),
      ),
    ).toEqual([400, 'not-as-expected']);
  });
});
