/** Projects that grow, change, take editions, are adopted and undone, on a real disk with a real database. */

import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import {
  appendFileSync,
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  BatchPage,
  BatchRow,
  CopyPlace,
  Fits,
  FoundProject,
  NumberPage,
  ProjectPage,
  ProjectRow,
  ReshapePlan,
  TemplateRow,
} from '@nesting/contract';
import type { Template } from '@nesting/core/template';
import { wakeBatches } from '../src/flows/batches/run-batch';
import { insertEdition } from '../src/index';
import { openTestWorld, startOf, type TestWorld } from './world';

let t: TestWorld;
let template: Template;
beforeAll(async () => {
  t = await openTestWorld();
  template = (await json<TemplateRow[]>(await t.ask('lead', 'GET', '/api/templates')))[0]?.template as Template;
});
afterAll(async () => {
  await t.close();
});

async function json<T>(response: Response): Promise<T> {
  return (await response.json()) as T;
}
const code = async (response: Response) => [
  response.status,
  response.status >= 400 ? (await json<{ code: string }>(response)).code : '',
];
let numbers = 61000;
const next = () => String(++numbers);
async function started(values = {}): Promise<ProjectPage & { at: string }> {
  const row = await json<ProjectRow>(await t.ask('coordinator', 'POST', '/api/projects', startOf(next(), values)));
  return { ...(await page(row.id)), at: path.join(t.studio, row.folder) };
}
const page = async (id: string) => json<ProjectPage>(await t.ask('lead', 'GET', `/api/projects/${id}`));
const asking = (p: ProjectPage, more: Record<string, unknown> = {}, values: Record<string, unknown> = {}) => ({
  version: p.version,
  template: p.template.id,
  edition: p.template.edition,
  values: { ...p.values, ...values },
  adjusted: p.adjusted,
  ...more,
});
const plan = async (p: ProjectPage, asked: object, who: 'coordinator' | 'artist' = 'coordinator') =>
  json<ReshapePlan>(await t.ask(who, 'POST', `/api/projects/${p.id}/plan`, asked));
const apply = async (p: ProjectPage, asked: object, who: 'coordinator' | 'artist' = 'coordinator') =>
  t.ask(who, 'POST', `/api/projects/${p.id}/batches`, {
    ...asked,
    fingerprint: (await plan(p, asked, who)).fingerprint,
  });
const batches = async (p: ProjectPage) => json<BatchRow[]>(await t.ask('lead', 'GET', `/api/projects/${p.id}/batches`));
const undo = (p: ProjectPage, batch: string, ids: string[] | null = null) =>
  t.ask('coordinator', 'POST', `/api/projects/${p.id}/batches/${batch}/undo`, { ids });
/** What a crash left is somebody's turn again. */
async function wokenBatches(): Promise<void> {
  await wakeBatches(t.world);
  await t.world.batches.idle();
}
const batchOf = async (response: Response) => (await json<{ batch: string }>(response)).batch;

function treeOf(root: string): string[] {
  return readdirSync(root, { recursive: true, encoding: 'utf8' })
    .filter((p) => !p.startsWith('.nesting'))
    .map((p) =>
      statSync(path.join(root, p)).isDirectory() ? `${p}/` : `${p} ${readFileSync(path.join(root, p), 'utf8')}`,
    )
    .sort();
}
const marker = (root: string) =>
  JSON.parse(readFileSync(path.join(root, '.nesting/project.json'), 'utf8')) as {
    project: string;
    values: Record<string, unknown>;
    template: { edition: number };
  };

describe('growing', () => {
  test('an entry more: planned, applied, in the marker and the rules; undone, the tree is what it was and so is the project', async () => {
    const p = await started();
    const before = treeOf(p.at);
    const asked = asking(p, {}, { windows: ['A', 'B', 'C'] });
    const planned = await plan(p, asked);
    expect(planned.lines.length).toBeGreaterThan(0);
    expect(planned.lines.every((l) => l.sign === 'made')).toBe(true);
    expect(treeOf(p.at)).toEqual(before);
    const batch = await batchOf(await apply(p, asked));
    expect(treeOf(p.at).length).toBe(before.length + planned.lines.length);
    expect([(await page(p.id)).values.windows, marker(p.at).values.windows]).toEqual([
      ['A', 'B', 'C'],
      ['A', 'B', 'C'],
    ]);
    const shown = await json<BatchPage>(await t.ask('lead', 'GET', `/api/projects/${p.id}/batches/${batch}`));
    expect([
      shown.state,
      shown.what,
      shown.by,
      shown.lines.length,
      shown.lines.every((l) => !l.undone && l.hindrance === null),
    ]).toEqual(['done', 'grow', 'The coordinator', planned.lines.length, true]);
    const undone = await batchOf(await undo(p, batch));
    expect(treeOf(p.at)).toEqual(before);
    expect([(await page(p.id)).values.windows, marker(p.at).values.windows]).toEqual([
      ['A', 'B'],
      ['A', 'B'],
    ]);
    expect(await code(await undo(p, batch))).toEqual([409, 'nothing-to-undo']);
    // Undone again, it is there again.
    expect((await undo(p, undone)).status).toBe(201);
    expect([(await page(p.id)).values.windows, treeOf(p.at).length]).toEqual([
      ['A', 'B', 'C'],
      before.length + planned.lines.length,
    ]);
  });

  test('undone in part: what is taken back alone is the project’s own from then on, and the next plan does not bring it again', async () => {
    const p = await started();
    const batch = await batchOf(await apply(p, asking(p, {}, { windows: ['A', 'B', 'C', 'D'] })));
    const { lines } = await json<BatchPage>(await t.ask('lead', 'GET', `/api/projects/${p.id}/batches/${batch}`));
    const ofD = lines.filter((l) => l.change.id.includes('=D'));
    // What is no line of the batch is refused, with all that was asked beside it.
    const [first] = ofD;
    expect(await code(await undo(p, batch, [first?.change.id ?? '', 'no-such-line']))).toEqual([422, 'line-unknown']);
    expect((await page(p.id)).adjusted).toEqual({});
    expect(
      (
        await undo(
          p,
          batch,
          ofD.map((l) => l.change.id),
        )
      ).status,
    ).toBe(201);
    const now = await page(p.id);
    expect([
      treeOf(p.at).some((l) => /(^|\/)D\//.test(l)),
      Object.values(now.adjusted).every((a) => a.leaveOut),
    ]).toEqual([false, true]);
    expect((await plan(now, asking(now))).lines).toEqual([]);
    const again = await json<BatchPage>(await t.ask('lead', 'GET', `/api/projects/${p.id}/batches/${batch}`));
    expect(again.lines.filter((l) => l.undone)).toHaveLength(ofD.length);
  });

  test('artists add what the template lets them, and nothing else', async () => {
    const open: Template = {
      ...template,
      id: 'open-piece',
      edition: 1,
      fields: template.fields.map((f) => (f.type === 'list' ? { ...f, artistsMayAdd: true } : f)),
    };
    await insertEdition(t.world.db, open, new Map([['starters/window-brief.md', Buffer.from('x')]]));
    const closed = await started();
    expect(
      await code(
        await t.ask(
          'artist',
          'POST',
          `/api/projects/${closed.id}/plan`,
          asking(closed, {}, { windows: ['A', 'B', 'C'] }),
        ),
      ),
    ).toEqual([403, 'artist-not-allowed']);
    const row = await json<ProjectRow>(
      await t.ask('coordinator', 'POST', '/api/projects', { ...startOf(next()), template: 'open-piece' }),
    );
    const p = await page(row.id);
    expect((await apply(p, asking(p, {}, { windows: ['A', 'B', 'C'] }), 'artist')).status).toBe(201);
    const now = await page(p.id);
    for (const values of [{ windows: ['A'] }, { title: 'Mine now' }, { number: '99' }])
      expect(await code(await t.ask('artist', 'POST', `/api/projects/${p.id}/plan`, asking(now, {}, values)))).toEqual([
        403,
        'artist-not-allowed',
      ]);
    // What they did themselves they undo, and nobody else's.
    const act = async (batch: string, what: string, body: object) =>
      code(await t.ask('artist', 'POST', `/api/projects/${p.id}/batches/${batch}/${what}`, body));
    const theirs = (await batches(p))[0]?.id ?? '';
    const others = await batchOf(await apply(now, asking(now, {}, { windows: ['A', 'B', 'C', 'D'] })));
    expect(await act(others, 'undo', {})).toEqual([403, 'not-your-change']);
    expect(await act(others, 'stop', {})).toEqual([403, 'not-your-change']);
    expect(await act(others, 'settle', { way: 'close' })).toEqual([403, 'not-your-change']);
    expect((await undo(p, others)).status).toBe(201);
    expect(await act(theirs, 'undo', {})).toEqual([201, '']);
    expect(await code(await t.ask('lead', 'POST', `/api/projects/${p.id}/plan`, asking(await page(p.id))))).toEqual([
      403,
      'role-not-allowed',
    ]);
  });
});

describe('changing', () => {
  test('another number and title: the folder, its marker and the names that carry them; undone, all of it', async () => {
    const p = await started();
    const [folder] = readdirSync(p.at).filter((n) => !n.startsWith('.'));
    writeFileSync(path.join(p.at, folder as string, 'untouched.txt'), 'mine');
    const before = treeOf(p.at);
    const number = next();
    const asked = asking(p, {}, { number, title: 'Better Name' });
    const planned = await plan(p, asked);
    expect([planned.refused, planned.folder]).toEqual([[], { from: p.folder, to: `${number}_MSW_better-name` }]);
    const batch = await batchOf(await apply(p, asked));
    const now = await page(p.id);
    expect([now.number, now.title, now.folder, existsSync(p.at)]).toEqual([
      number,
      'Better Name',
      `${number}_MSW_better-name`,
      false,
    ]);
    const at = path.join(t.studio, now.folder);
    expect([marker(at).values.number, marker(at).project]).toEqual([number, p.id]);
    expect((await undo(p, batch)).status).toBe(201);
    expect([treeOf(p.at), (await page(p.id)).number, marker(p.at).values.number]).toEqual([before, p.number, p.number]);
    // The number given up stood on a disk: another project may have it once a coordinator has released it.
    const refused = await t.ask('coordinator', 'POST', '/api/projects', startOf(number));
    expect(await code(refused)).toEqual([409, 'number-reserved']);
    const { reserved } = await json<NumberPage>(await t.ask('lead', 'GET', '/api/numbers'));
    expect(reserved.find((r) => r.number === number)?.why).toMatch(
      new RegExp(`^It stood in ${number}_\\S+ on studio, until its project became ${p.number}\\.$`),
    );
    expect((await t.ask('artist', 'DELETE', `/api/numbers/reserved/${number}`)).status).toBe(403);
    expect((await t.ask('coordinator', 'DELETE', `/api/numbers/reserved/${number}`)).status).toBe(204);
    expect((await t.ask('coordinator', 'POST', '/api/projects', startOf(number))).status).toBe(201);
  });

  test('a number, a folder, a plan that is not what it was: refused, and nothing is changed', async () => {
    const [p, other] = [await started(), await started()];
    expect((await plan(p, asking(p, {}, { number: other.number }))).refused).toEqual([
      `The number ${other.number} belongs to another project.`,
    ]);
    mkdirSync(path.join(t.studio, `${p.number}_MSW_taken`));
    expect((await plan(p, asking(p, {}, { title: 'Taken' }))).refused).toEqual([
      `A folder ${p.number}_MSW_taken is there already on studio.`,
    ]);
    expect((await plan(p, asking(p, { keepFolder: true }, { title: 'Taken' }))).refused).toEqual([]);
    const asked = asking(p, {}, { windows: ['A', 'B', 'C'] });
    const { fingerprint, lines } = await plan(p, asked);
    // Somebody makes one of the folders by hand meanwhile.
    mkdirSync(path.join(p.at, lines.find((l) => l.what === 'folder')?.after as string), { recursive: true });
    expect(
      await code(await t.ask('coordinator', 'POST', `/api/projects/${p.id}/batches`, { ...asked, fingerprint })),
    ).toEqual([409, 'disk-changed']);
    expect((await plan(p, asked)).lines[0]?.sign).toBe('there');
    expect(
      await code(
        await t.ask('coordinator', 'POST', `/api/projects/${p.id}/batches`, {
          ...asked,
          version: p.version + 1,
          fingerprint,
        }),
      ),
    ).toEqual([409, 'project-changed']);
    expect([await batches(p), (await page(p.id)).version]).toEqual([[], p.version]);
  });

  test('the scripts of a plan do what applying does', async () => {
    const p = await started();
    const asked = asking(p, { keepFolder: true }, { title: 'By Hand', windows: ['A', 'B', 'C'] });
    const copy = path.join(path.dirname(t.studio), 'by hand');
    cpSync(p.at, copy, { recursive: true, preserveTimestamps: true });
    const text = async (as: string) =>
      (await t.ask('coordinator', 'POST', `/api/projects/${p.id}/plan/print?as=${as}`, asked)).text();
    const script = await text('sh');
    expect(spawnSync('sh', ['-c', script], { cwd: copy, encoding: 'utf8' }).stderr).toBe('');
    expect((await text('csv')).split('\n')[0]).toBe('what,before,after,content\r');
    expect(JSON.parse(await text('json'))).toHaveLength((await plan(p, asked)).all);
    expect([await text('text'), await text('powershell')]).toEqual([
      expect.stringContaining('make '),
      expect.stringContaining('New-Item'),
    ]);
    expect((await apply(p, asked)).status).toBe(201);
    expect(treeOf(copy)).toEqual(treeOf(p.at));
    expect([marker(copy).values]).toEqual([marker(p.at).values]);
    expect(spawnSync('sh', ['-c', script], { cwd: copy }).status).not.toBe(0);
  });
});

describe('a new edition', () => {
  test('all of it, or part: what is left out is the project’s own', async () => {
    const [whole, part] = [await started(), await started()];
    const [first, ...rest] = template.root.folders ?? [];
    const edition: Template = {
      ...template,
      edition: 2,
      root: {
        ...template.root,
        folders: [
          { ...first, id: first?.id ?? '', name: 'renamed' },
          ...rest,
          { id: 'brand-new', name: 'extras', number: 40 },
        ],
      },
    };
    await insertEdition(
      t.world.db,
      edition,
      new Map([['starters/window-brief.md', Buffer.from('# {title} {nobody}\n')]]),
    );
    const planned = await plan(whole, asking(whole, { edition: 2 }));
    expect(planned.counts).toMatchObject({ renamed: 1, made: 1 });
    expect((await apply(whole, asking(whole, { edition: 2 }))).status).toBe(201);
    expect([
      (await page(whole.id)).template.edition,
      marker(whole.at).template.edition,
      existsSync(path.join(whole.at, '40_extras')),
    ]).toEqual([2, 2, true]);
    const renamed = planned.lines.find((l) => l.sign === 'renamed');
    const adjusted = { 'brand-new': { leaveOut: true }, [renamed?.key as string]: { name: renamed?.before } };
    const little = asking(part, { edition: 2, adjusted });
    expect((await plan(part, little)).lines).toEqual([]);
    expect((await apply(part, little)).status).toBe(201);
    const now = await page(part.id);
    expect([
      now.template.edition,
      existsSync(path.join(part.at, renamed?.before as string)),
      (await plan(now, asking(now))).lines,
    ]).toEqual([2, true, []]);
  });
});

describe('what is in the way', () => {
  test('whoever asks leaves at once: it is done all the same', async () => {
    const p = await started();
    const asked = asking(p, {}, { windows: ['A', 'B', 'C'] });
    const { fingerprint } = await plan(p, asked);
    const key = randomUUID();
    await t.app.request(`/api/projects/${p.id}/batches`, {
      method: 'POST',
      headers: {
        origin: new URL(t.config.publicUrl).origin,
        cookie: await t.cookieOf('coordinator'),
        'content-type': 'application/json',
      },
      body: JSON.stringify({ ...asked, fingerprint, key }),
      signal: AbortSignal.abort(),
    });
    expect((await batches(p)).map((b) => [b.id, b.state, b.why])).toEqual([[key, 'done', '']]);
  });

  test('two at once: one is done, the other is refused; nothing is lost', async () => {
    const p = await started();
    const asked = asking(p, {}, { windows: ['A', 'B', 'C', 'D', 'E'] });
    const { fingerprint } = await plan(p, asked);
    const answers = await Promise.all(
      [1, 2, 3].map(() => t.ask('coordinator', 'POST', `/api/projects/${p.id}/batches`, { ...asked, fingerprint })),
    );
    const codes = await Promise.all(answers.map(code));
    expect(codes.filter(([status]) => status === 201)).toHaveLength(1);
    expect(codes.filter(([status]) => status === 409).map(([, c]) => c)).toEqual([
      expect.stringMatching(/batch-open|project-changed|disk-changed|plan-stale/),
      expect.stringMatching(/batch-open|project-changed|disk-changed|plan-stale/),
    ]);
    expect((await batches(p)).map((b) => b.state)).toEqual(['done']);
  });

  test('a batch that a crash cut short before its last row: settled at the next start by what the disk says', async () => {
    const p = await started();
    const batch = await batchOf(await apply(p, asking(p, {}, { windows: ['A', 'B', 'C'], title: 'After The Crash' })));
    const now = await page(p.id);
    // As a crash leaves it: all is on the disk, the folder not yet renamed, the rows as they were before.
    renameSync(path.join(t.studio, now.folder), p.at);
    await t.world.db.query("update batch set state = 'running', ended_at = null where id = $1", [batch]);
    await t.world.db.query('update project set folder = $2, title = $3, "values" = $4 where id = $1', [
      p.id,
      p.folder,
      p.title,
      JSON.stringify(p.values),
    ]);
    await wokenBatches();
    const settled = await page(p.id);
    expect([
      settled.title,
      settled.folder,
      existsSync(path.join(t.studio, settled.folder)),
      (await batches(p))[0]?.state,
    ]).toEqual(['After The Crash', now.folder, true, 'done']);
    // One that had not begun is none.
    await t.world.db.query(
      "insert into batch (id, project_id, what, state, shape_from, shape_to) select gen_random_uuid(), id, 'grow', 'running', '{\"folder\":\"x\",\"values\":{}}', jsonb_build_object('folder', folder, 'values', '{}'::jsonb) from project where id = $1",
      [p.id],
    );
    await wokenBatches();
    expect(await batches(p)).toHaveLength(1);
  });

  test('a batch that nobody can finish is closed: the project is what it came to, and free for other changes', async () => {
    const p = await started();
    const batch = await batchOf(await apply(p, asking(p, {}, { title: 'Never Its Name', windows: ['A', 'B', 'C'] })));
    const now = await page(p.id);
    const settle = (way: string) =>
      t.ask('coordinator', 'POST', `/api/projects/${p.id}/batches/${batch}/settle`, { way });
    // As a crash leaves it, and then somebody takes the new name for a folder of his own, and works on what was made.
    renameSync(path.join(t.studio, now.folder), p.at);
    mkdirSync(path.join(t.studio, now.folder));
    writeFileSync(path.join(p.at, '20_pieces/window-C/theirs.txt'), 'theirs');
    await t.world.db.query("update batch set state = 'paused', ended_at = null where id = $1", [batch]);
    await t.world.db.query('update project set folder = $2, title = $3, "values" = $4 where id = $1', [
      p.id,
      p.folder,
      p.title,
      JSON.stringify(p.values),
    ]);
    expect(await code(await settle('finish'))).toEqual([409, 'batch-paused']);
    expect(await code(await settle('take-back'))).toEqual([409, 'batch-paused']);
    expect((await settle('close')).status).toBe(200);
    const closed = await page(p.id);
    expect([closed.title, closed.folder, existsSync(path.join(p.at, '20_pieces/window-C/theirs.txt'))]).toEqual([
      'Never Its Name',
      p.folder,
      true,
    ]);
    rmSync(path.join(t.studio, now.folder), { recursive: true });
    expect(await code(await apply(closed, asking(closed, {}, { windows: ['A', 'B', 'C', 'D'] })))).toEqual([201, '']);
  });

  test('closed on the disk before a crash: closed here too, once, whoever presses what', async () => {
    const p = await started();
    const batch = await batchOf(await apply(p, asking(p, {}, { windows: ['A', 'B', 'C'] })));
    appendFileSync(path.join(p.at, '.nesting/batches', batch, 'journal.ndjson'), '{"ended":"closed","rest":[]}\n');
    await t.world.db.query("update batch set state = 'paused', ended_at = null where id = $1", [batch]);
    const settle = (way: string) =>
      t.ask('coordinator', 'POST', `/api/projects/${p.id}/batches/${batch}/settle`, { way });
    const answers = await Promise.all([settle('finish'), settle('take-back'), settle('close')]);
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409, 409]);
    expect((await batches(p)).map((b) => b.state)).toEqual(['closed']);
  });

  test('the folder’s new name is taken while the batch runs: paused with the reason, finished once the way is free', async () => {
    const p = await started();
    const asked = asking(p, {}, { title: 'Late Comer', windows: ['A', 'B', 'C'] });
    const { fingerprint } = await plan(p, asked);
    const rename = path.join(t.studio, `${p.number}_MSW_late-comer`);
    // It comes between the look and the last act, as soon as the journal is written.
    const key = randomUUID();
    const asked2 = t.ask('coordinator', 'POST', `/api/projects/${p.id}/batches`, { ...asked, fingerprint, key });
    const journal = path.join(p.at, '.nesting/batches', key, 'journal.ndjson');
    const poll = setInterval(() => existsSync(journal) && mkdirSync(rename, { recursive: true }), 0);
    const answer = await asked2;
    clearInterval(poll);
    if (!existsSync(path.join(rename, '.nesting')) && existsSync(rename)) {
      expect(await code(answer)).toEqual([409, 'batch-paused']);
      const [row] = await batches(p);
      expect([row?.state, row?.why]).toEqual(['paused', expect.stringContaining('is taken')]);
      expect(await code(await apply(p, asking(p, {}, { windows: ['A'] })))).toEqual([409, 'batch-open']);
      expect(
        await code(
          await t.ask('coordinator', 'POST', `/api/projects/${p.id}/batches/${row?.id}/settle`, { way: 'finish' }),
        ),
      ).toEqual([409, 'batch-paused']);
      rmSync(rename, { recursive: true });
      expect(
        (await t.ask('coordinator', 'POST', `/api/projects/${p.id}/batches/${row?.id}/settle`, { way: 'finish' }))
          .status,
      ).toBe(200);
    } else expect(answer.status).toBe(201);
    expect([
      (await page(p.id)).title,
      existsSync(path.join(rename, '.nesting/project.json')),
      (await batches(p)).map((b) => b.state),
    ]).toEqual(['Late Comer', true, ['done']]);
  });

  test('the volume away, the folder gone or a link, a packed project', async () => {
    const p = await started();
    renameSync(p.at, `${p.at} moved`);
    expect(await code(await t.ask('coordinator', 'POST', `/api/projects/${p.id}/plan`, asking(p)))).toEqual([
      404,
      'path-missing',
    ]);
    symlinkSync(`${p.at} moved`, p.at);
    expect(await code(await t.ask('coordinator', 'POST', `/api/projects/${p.id}/plan`, asking(p)))).toEqual([
      404,
      'path-link',
    ]);
    rmSync(p.at);
    renameSync(`${p.at} moved`, p.at);
    await t.ask('coordinator', 'PUT', `/api/projects/${p.id}`, { version: p.version, state: 'packed' });
    expect(
      await code(await t.ask('coordinator', 'POST', `/api/projects/${p.id}/plan`, asking(await page(p.id)))),
    ).toEqual([409, 'not-running']);
    renameSync(t.studio, `${t.studio}-away`);
    try {
      const q = await page(p.id);
      expect(
        (await code(await t.ask('coordinator', 'POST', `/api/projects/${q.id}/plan`, asking(q))))[0],
      ).toBeGreaterThanOrEqual(400);
    } finally {
      renameSync(`${t.studio}-away`, t.studio);
    }
  });

  test('drafts are kept for each person until they are thrown away', async () => {
    const p = await started();
    const draft = asking(p, {}, { title: 'Perhaps' });
    expect((await t.ask('coordinator', 'PUT', `/api/projects/${p.id}/reshape`, draft)).status).toBe(204);
    expect(await json(await t.ask('coordinator', 'GET', `/api/projects/${p.id}/reshape`))).toMatchObject({
      values: { title: 'Perhaps' },
    });
    expect(await json(await t.ask('artist', 'GET', `/api/projects/${p.id}/reshape`))).toBeNull();
    await t.ask('coordinator', 'PUT', `/api/projects/${p.id}/reshape`, null);
    expect(await json(await t.ask('coordinator', 'GET', `/api/projects/${p.id}/reshape`))).toBeNull();
  });
});

describe('adopting', () => {
  test('a folder without a template: the fitting one, its values, what is otherwise; taken as it is, or with what it lacks', async () => {
    const model = await started();
    for (const [folder, makeMissing] of [
      ['freelancer job', false],
      ['second job', true],
    ] as const) {
      const at = path.join(t.studio, folder);
      cpSync(model.at, at, { recursive: true });
      rmSync(path.join(at, '.nesting'), { recursive: true });
      const [first] = readdirSync(at).filter((n) => statSync(path.join(at, n)).isDirectory());
      const second = '80_masters';
      renameSync(path.join(at, first as string), path.join(at, (first as string).replace(/^\d+_/, '').toUpperCase()));
      rmSync(path.join(at, second), { recursive: true });
      mkdirSync(path.join(at, 'misc'));
      const before = treeOf(at);
      const { fits } = await json<Fits>(
        await t.ask('coordinator', 'POST', '/api/adopt/fits', { volume: 'studio', folder }),
      );
      const best = fits[0];
      expect([best?.otherwise.length, best?.unplanned, best?.missing.includes(second), best?.values.windows]).toEqual([
        1,
        ['misc'],
        true,
        ['A', 'B'],
      ]);
      const number = next();
      const adopted = await t.ask('coordinator', 'POST', '/api/adopt', {
        volume: 'studio',
        folder,
        template: 'window-piece',
        edition: 1,
        values: { ...best?.values, number, title: 'Taken In', client: 'MSW' },
        adjusted: best?.adjusted,
        makeMissing,
      });
      expect(adopted.status).toBe(201);
      const row = await json<ProjectRow>(adopted);
      expect([row.folder, row.number, row.state, marker(at).project]).toEqual([folder, number, 'running', row.id]);
      const lines = treeOf(at);
      expect(lines.filter((l) => before.includes(l))).toEqual(before);
      expect(lines.length > before.length).toBe(makeMissing);
      // It can be changed like any other, and keeps the name its folder has.
      const p = await page(row.id);
      const grown = await apply(p, asking(p, {}, { windows: ['A', 'B', 'C'], title: 'Other Title' }));
      expect([grown.status, (await page(row.id)).folder]).toEqual([201, folder]);
      expect(
        await code(
          await t.ask('coordinator', 'POST', '/api/adopt', {
            volume: 'studio',
            folder,
            template: 'window-piece',
            edition: 1,
            values: { number: next() },
          }),
        ),
      ).toEqual([409, 'folder-taken']);
    }
  });

  test.each([
    ['a folder that is not there', 'nowhere', {}, [404, 'no-folder']],
    ['a number that is another’s', 'plain', { number: 'taken' }, [409, 'number-taken']],
    ['no number', 'plain', {}, [422, 'plan-refused']],
    ['a way out', '../x', { number: '1' }, [404, 'no-folder']],
  ])('%s is refused, and nothing is written', async (_, folder, values, expected) => {
    mkdirSync(path.join(t.studio, 'plain'), { recursive: true });
    const taken = (await started()).number;
    const given = Object.fromEntries(
      Object.entries({ title: 'T', client: 'MSW', windows: ['A'], ...values }).map(([k, v]) => [
        k,
        v === 'taken' ? taken : v,
      ]),
    );
    expect(
      await code(
        await t.ask('coordinator', 'POST', '/api/adopt', {
          volume: 'studio',
          folder,
          template: 'window-piece',
          edition: 1,
          values: given,
        }),
      ),
    ).toEqual(expected);
    expect(readdirSync(path.join(t.studio, 'plain'))).toEqual([]);
  });
});

describe('copies', () => {
  test('two folders of one project side by side; one becomes a project of its own, another is left alone, or is the original', async () => {
    const p = await started();
    const [first] = readdirSync(p.at).filter((n) => !n.startsWith('.') && statSync(path.join(p.at, n)).isDirectory());
    for (const name of ['copy one', 'copy two']) cpSync(p.at, path.join(t.studio, name), { recursive: true });
    writeFileSync(path.join(t.studio, 'copy one', first as string, 'newer.txt'), 'only here');
    const places = await json<CopyPlace[]>(await t.ask('coordinator', 'GET', `/api/projects/${p.id}/copies`));
    expect(places.map((c) => [c.folder, c.home, c.only, c.lacks])).toEqual([
      [p.folder, true, 0, 0],
      ['copy one', false, 1, 0],
      ['copy two', false, 0, 0],
    ]);
    expect(places[1]?.examples).toEqual([`${first}/newer.txt`]);
    const number = next();
    expect(
      await code(
        await t.ask('coordinator', 'POST', `/api/projects/${p.id}/copies/own`, {
          volume: 'studio',
          folder: 'copy one',
          number: p.number,
        }),
      ),
    ).toEqual([409, 'number-taken']);
    const own = await json<ProjectRow>(
      await t.ask('coordinator', 'POST', `/api/projects/${p.id}/copies/own`, {
        volume: 'studio',
        folder: 'copy one',
        number,
      }),
    );
    expect([own.number, own.folder, marker(path.join(t.studio, 'copy one')).project, marker(p.at).project]).toEqual([
      number,
      'copy one',
      own.id,
      p.id,
    ]);
    // A copy whose marker cannot be written is no project, and its number is free again.
    const closed = next();
    cpSync(p.at, path.join(t.studio, 'copy three'), { recursive: true });
    rmSync(path.join(t.studio, 'copy three/.nesting/batches'), { recursive: true, force: true });
    writeFileSync(path.join(t.studio, 'copy three/.nesting/batches'), 'in the way');
    const ownThree = () =>
      t.ask('coordinator', 'POST', `/api/projects/${p.id}/copies/own`, {
        volume: 'studio',
        folder: 'copy three',
        number: closed,
      });
    expect(await code(await ownThree())).toEqual([409, 'marker-failed']);
    expect(marker(path.join(t.studio, 'copy three')).project).toBe(p.id);
    rmSync(path.join(t.studio, 'copy three/.nesting/batches'));
    expect((await json<ProjectRow>(await ownThree())).number).toBe(closed);
    expect(
      await code(
        await t.ask('coordinator', 'POST', `/api/projects/${p.id}/copies/own`, {
          volume: 'studio',
          folder: p.folder,
          number: next(),
        }),
      ),
    ).toEqual([409, 'is-original']);
    expect(
      (
        await t.ask('coordinator', 'POST', `/api/projects/${p.id}/copies/leave`, {
          volume: 'studio',
          folder: 'copy two',
        })
      ).status,
    ).toBe(204);
    const found = await json<FoundProject[]>(await t.ask('coordinator', 'GET', '/api/volumes/projects'));
    expect(found.filter((f) => f.project === p.id)).toEqual([]);
  });
});
