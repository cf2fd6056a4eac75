/** Conventions from draft to edition, what a draft would do to files on the disk, and names that are asked for. */

import { randomUUID } from 'node:crypto';
import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  ConventionImpact,
  ConventionRow,
  HeldName,
  ProjectNames,
  ProjectPage,
  ProjectRow,
  TemplateRow,
} from '@nesting/contract';
import type { Convention } from '@nesting/core/template';
import { migrate, openDb } from '../src/index';
import { admin, openTestWorld, startOf, type TestWorld } from './world';

let t: TestWorld;
let project: ProjectRow;
let folder = '';
const put = (...names: string[]) => {
  for (const name of names) writeFileSync(path.join(folder, name), 'x');
};

beforeAll(async () => {
  t = await openTestWorld();
  project = (await (await t.ask('coordinator', 'POST', '/api/projects', startOf('26401'))).json()) as ProjectRow;
  await t.world.checks.idle();
});
afterAll(() => t.close());

async function rowOf(id: string): Promise<ConventionRow> {
  const rows = (await (await t.ask('lead', 'GET', '/api/conventions')).json()) as ConventionRow[];
  const row = rows.find((r) => r.id === id);
  if (row === undefined) throw new Error(`no convention ${id} among ${rows.map((r) => r.id).join()}`);
  return row;
}
const page = async () => (await (await t.ask('lead', 'GET', `/api/projects/${project.id}`)).json()) as ProjectPage;
const code = async (response: Response) => [response.status, ((await response.json()) as { code: string }).code];

describe('from a draft to an edition', () => {
  let row: ConventionRow;

  test('conventions a template brings are in force, with where they are used', async () => {
    row = await rowOf('working-file');
    expect(row).toMatchObject({
      edition: 1,
      draft: null,
      projects: 1,
      usedIn: [{ template: 'window-piece', local: 'working-file' }],
    });
  });

  test('a draft is kept, told when it is overtaken, and put aside', async () => {
    const convention = { ...(row.convention as Convention), name: 'Working document' };
    const save = (version: number) =>
      t.ask('coordinator', 'PUT', '/api/conventions/working-file/draft', { convention, version });
    expect(await (await save(0)).json()).toEqual({ version: 1 });
    expect(await (await save(1)).json()).toEqual({ version: 2 });
    expect(await code(await save(1))).toEqual([409, 'draft-changed']);
    expect(await code(await save(0))).toEqual([409, 'draft-changed']);
    expect(await rowOf('working-file')).toMatchObject({
      name: 'Working document',
      edition: 1,
      draft: { version: 2, by: 'The coordinator' },
    });
    expect((await t.ask('coordinator', 'DELETE', '/api/conventions/working-file/draft')).status).toBe(204);
    expect(await rowOf('working-file')).toMatchObject({ draft: null, edition: 1 });
    expect(
      await code(await t.ask('coordinator', 'PUT', '/api/conventions/gone/draft', { convention, version: 0 })),
    ).toEqual([404, 'convention-gone']);
  });

  test('what cannot be used, or breaks its own examples, is not put in force', async () => {
    const convention = row.convention as Convention;
    const attempt = async (change: Partial<Convention>) => {
      const { version } = (await (
        await t.ask('coordinator', 'PUT', '/api/conventions/working-file/draft', {
          convention: { ...convention, ...change },
          version: (await rowOf('working-file')).draft?.version ?? 0,
        })
      ).json()) as { version: number };
      return t.ask('coordinator', 'POST', '/api/conventions/working-file/editions', { version });
    };
    expect(await code(await attempt({ pattern: '{number}_{task' }))).toEqual([422, 'draft-unusable']);
    expect(await code(await attempt({ families: ['nothing of ours'] }))).toEqual([422, 'draft-unusable']);
    expect(await code(await attempt({ good: ['not a name'] }))).toEqual([422, 'draft-unusable']);
    expect(await code(await attempt({ bad: ['26401_A_anim_AR_v001.usda'] }))).toEqual([422, 'draft-unusable']);
    expect(
      await code(await t.ask('coordinator', 'POST', '/api/conventions/working-file/editions', { version: 1 })),
    ).toEqual([409, 'draft-not-seen']);
    expect((await rowOf('working-file')).edition).toBe(1);
    await t.ask('coordinator', 'DELETE', '/api/conventions/working-file/draft');
  });

  test('a new convention has an id of its own, and goes with its draft', async () => {
    const make = async () =>
      (
        (await (
          await t.ask('coordinator', 'POST', '/api/conventions', {
            convention: { name: 'Working file', pattern: '{title:kebab}.{ext}' },
          })
        ).json()) as { id: string }
      ).id;
    expect([await make(), await make()]).toEqual(['working-file-2', 'working-file-3']);
    expect(await rowOf('working-file-2')).toMatchObject({ edition: null, convention: null, usedIn: [] });
    for (const id of ['working-file-2', 'working-file-3'])
      await t.ask('coordinator', 'DELETE', `/api/conventions/${id}/draft`);
    await expect(rowOf('working-file-2')).rejects.toThrow();
  });
});

describe('names asked for', () => {
  let where = '';
  const ask = async (who: 'artist' | 'coordinator', values: Record<string, string | number> = {}) =>
    t.ask(who, 'POST', `/api/projects/${project.id}/names`, {
      convention: 'working-file',
      folder: where,
      values: { task: 'anim', ext: 'usda', ...values },
    });
  const name = async (who: 'artist' | 'coordinator', values = {}) =>
    ((await (await ask(who, values)).json()) as HeldName).name;

  test('the next version that is free on the disk, the same again until it is saved', async () => {
    where = '20_pieces/window-A';
    folder = path.join(t.studio, project.folder, where);
    const first = await name('artist');
    expect(first).toMatch(/^26401_A_anim_AR_v001\.usda$/);
    expect(await name('artist')).toBe(first);
    put(first);
    expect(await name('artist')).toBe(first.replace('v001', 'v002'));
    put(first.replace('v001', 'v007'));
    expect(await name('artist', { task: 'anim' })).toBe(first.replace('v001', 'v008'));
  });

  test('forty who ask at once, as two people, get two names', async () => {
    const asked = await Promise.all(
      Array.from({ length: 40 }, (_, i) => name(i % 2 === 0 ? 'artist' : 'coordinator', { person: 'AR' })),
    );
    expect(new Set(asked.filter((_, i) => i % 2 === 0)).size).toBe(1);
    expect(new Set(asked).size).toBe(2);
  });

  test('what is missing, unknown or out of the project is said', async () => {
    expect(await code(await ask('artist', { ext: 'doc' }))).toEqual([422, 'values-missing']);
    expect(
      await code(
        await t.ask('artist', 'POST', `/api/projects/${project.id}/names`, {
          convention: 'working-file',
          folder: '../..',
          values: {},
        }),
      ),
    ).toEqual([404, 'no-convention']);
    expect(
      await code(
        await t.ask('artist', 'POST', `/api/projects/${project.id}/names`, {
          convention: 'nothing',
          folder: where,
          values: {},
        }),
      ),
    ).toEqual([404, 'no-convention']);
  });
});

describe('what a draft would do', () => {
  test('files that would stop and start following, with examples, before anything is in force', async () => {
    const row = await rowOf('working-file');
    const stem = readdirSync(folder)
      .find((n) => n.endsWith('_v001.usda'))
      ?.replace('_v001.usda', '') as string;
    put(`${stem}_v0012.usda`, `${stem}_v9.usda`, `${stem}_V3.usda`);
    const wider = {
      ...(row.convention as Convention),
      pattern: (row.convention as Convention).pattern.replace('{version:000}', '{version}'),
    };
    const asked = await t.ask('coordinator', 'POST', '/api/conventions/working-file/impact', { convention: wider });
    const effect = (await asked.json()) as ConventionImpact;
    expect(effect.projects).toHaveLength(1);
    expect(effect.projects[0]).toMatchObject({
      still: 0,
      stops: 2,
      starts: 1,
      breaks: 2,
      startExamples: [`${stem}_v9.usda`],
      project: { number: '26401' },
      trouble: null,
    });
    expect(effect.projects[0]?.stopExamples).toContainEqual({ name: `${stem}_v001.usda`, meant: `${stem}_v1.usda` });
    const names = (await (
      await t.ask('lead', 'GET', `/api/projects/${project.id}/names?convention=working-file`)
    ).json()) as ProjectNames;
    expect(names.names).toHaveLength(5);
  });

  test('an edition holds for projects started from then on; running ones keep theirs', async () => {
    const row = await rowOf('working-file');
    const wider = {
      ...(row.convention as Convention),
      pattern: (row.convention as Convention).pattern.replace('{version:000}', '{version:0000}'),
    };
    const { version } = (await (
      await t.ask('coordinator', 'PUT', '/api/conventions/working-file/draft', { convention: wider, version: 0 })
    ).json()) as { version: number };
    const put = await t.ask('coordinator', 'POST', '/api/conventions/working-file/editions', { version });
    expect([put.status, await put.json()]).toEqual([201, { edition: 2 }]);
    const templates = (await (await t.ask('lead', 'GET', '/api/templates')).json()) as TemplateRow[];
    const pattern = (from: { conventions: readonly Convention[] }) =>
      from.conventions.find((c) => c.id === 'working-file')?.pattern;
    expect(pattern((templates[0] as TemplateRow).template)).toContain('{version:0000}');
    expect(pattern((await page()).body)).toContain('{version:000}.');
    const later = (await (await t.ask('coordinator', 'POST', '/api/projects', startOf('26402'))).json()) as ProjectRow;
    await t.world.checks.idle();
    const own = (await (await t.ask('lead', 'GET', `/api/projects/${later.id}`)).json()) as ProjectPage;
    expect(pattern(own.body)).toContain('{version:0000}');
    expect(readFileSync(path.join(t.studio, later.folder, '.nesting/template.nest.json'), 'utf8')).toContain(
      '{version:0000}',
    );
  });
});

describe('migrating', () => {
  test('conventions of templates taken in before become the house’s own', async () => {
    const base = process.env.NESTING_TEST_DATABASE as string;
    const database = `t_${randomUUID().replaceAll('-', '')}`;
    const url = base.replace(/\/[^/]*$/, `/${database}`);
    const all = path.join(process.cwd(), 'packages/server/src/db/migrations');
    const dir = mkdtempSync(path.join(tmpdir(), 'nesting-migrations-'));
    await admin(base, `create database ${database}`);
    const db = openDb(url);
    try {
      mkdirSync(dir, { recursive: true });
      for (const file of ['0001_people.sql', '0002_rules.sql', '0003_projects.sql'])
        cpSync(path.join(all, file), path.join(dir, file));
      await migrate(db, url, dir);
      const body = (pattern: string) => JSON.stringify({ conventions: [{ id: 'take', name: 'Take', pattern }] });
      for (const [id, pattern] of [
        ['a', '{take}'],
        ['b', '{take}'],
        ['c', '{shot}'],
      ] as const) {
        await db.query('insert into template (id, name) values ($1, $1)', [id]);
        await db.query('insert into template_edition (template_id, edition, body) values ($1, 1, $2)', [
          id,
          body(pattern),
        ]);
      }
      await migrate(db, url, all);
      const links = await db.query(
        "select template_id, convention_id, body ->> 'pattern' as pattern from template_convention join convention_edition using (convention_id) order by 1",
      );
      expect(links.rows).toEqual([
        { template_id: 'a', convention_id: 'take', pattern: '{take}' },
        { template_id: 'b', convention_id: 'take', pattern: '{take}' },
        { template_id: 'c', convention_id: 'take-c', pattern: '{shot}' },
      ]);
    } finally {
      await db.end();
      await admin(base, `drop database ${database} with (force)`);
      rmSync(dir, { recursive: true, force: true });
    }
  });
});
