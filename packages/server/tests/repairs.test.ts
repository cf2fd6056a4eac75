/** Findings put right on a real disk with a real database: planned, shown, done, undone; what is in the way of that. */
import { randomUUID } from 'node:crypto';
import {
  existsSync,
  lstatSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  BatchPage,
  BatchRow,
  FindingList,
  FormerName,
  LaterRepair,
  ProposalPage,
  ProposalRow,
  RepairPlan,
  SetAsideRow,
  TemplateRow,
} from '@nesting/contract';
import type { Template } from '@nesting/core/template';
import { beginDueRepairs } from '../src/flows/projects/later-repair';
import { insertEdition } from '../src/index';
import { type Lived, OLD, openTestWorld, startedIn, type TestWorld } from './world';

let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld();
});
afterAll(() => t.close());

let numbers = 71_000;

const started = (more: object = {}): Promise<Lived> => startedIn(t, String(++numbers), more);

async function check(id: string): Promise<FindingList['rows']> {
  await t.ask('artist', 'POST', `/api/projects/${id}/checks`, { what: 'whole' });
  await t.idle();
  return findings(id);
}
const findings = async (id: string): Promise<FindingList['rows']> =>
  ((await (await t.ask('lead', 'GET', `/api/projects/${id}/findings?group=none`)).json()) as FindingList).rows;
const plan = async (id: string, asked: object = {}, who: 'coordinator' | 'artist' = 'coordinator') =>
  (await (await t.ask(who, 'POST', `/api/projects/${id}/repair`, asked)).json()) as RepairPlan;
async function apply(id: string, asked: object = {}, shown?: RepairPlan): Promise<Response> {
  const { fingerprint, now } = shown ?? (await plan(id, asked));
  return t.ask('coordinator', 'POST', `/api/projects/${id}/repair/batches`, {
    ...asked,
    now,
    fingerprint,
    key: randomUUID(),
  });
}
const batchOf = async (response: Response): Promise<string> => ((await response.json()) as { batch: string }).batch;
const codeOf = async (response: Response) => [response.status, ((await response.json()) as { code: string }).code];
const undo = (id: string, batch: string) =>
  t.ask('coordinator', 'POST', `/api/projects/${id}/batches/${batch}/undo`, {});

const treeOf = (root: string): string[] =>
  readdirSync(root, { recursive: true, encoding: 'utf8' })
    .filter((at) => !at.startsWith('.nesting'))
    .map((at) => {
      const entry = lstatSync(path.join(root, at));
      return entry.isDirectory() ? `${at}/` : `${at} ${entry.mtimeMs} ${readFileSync(path.join(root, at), 'utf8')}`;
    })
    .sort();

const window_ = '20_pieces/window-A';
const good = (number: string, version = 'v001') => `${window_}/${number}_A_draw_AR_${version}.svg`;

/** Names, a folder, a reference and something that a system left. */
async function messy(): Promise<Lived> {
  const p = await started();
  p.put(good(p.number, 'V002'), `<svg><image href="../../30_masters/${p.number}_MST_A.mov"/></svg>`);
  p.put(`30_masters/${p.number}_MST_a.mov`, 'a film');
  p.put('.DS_Store');
  renameSync(path.join(p.root, '10_paperwork'), path.join(p.root, '10_paperwrok'));
  return p;
}

describe('put right', () => {
  test('what is sure is shown first, done as one change, found no more, and undone to the same bytes and times', async () => {
    const { id, root, number } = await messy();
    const before = treeOf(root);
    const found = await check(id);
    expect(found.length).toBeGreaterThanOrEqual(4);
    const shown = await plan(id);
    expect(treeOf(root)).toEqual(before);
    expect(shown.refused).toEqual([]);
    const done = await apply(id, {}, shown);
    expect(done.status).toBe(201);
    const batch = await batchOf(done);
    expect(existsSync(path.join(root, good(number, 'v002')))).toBe(true);
    expect(existsSync(path.join(root, '10_paperwork'))).toBe(true);
    await t.idle();
    const ready = new Set(shown.lines.filter((l) => l.state === 'ready').map((l) => l.id));
    expect(ready.size).toBeGreaterThanOrEqual(3);
    expect((await findings(id)).filter((f) => ready.has(f.id))).toEqual([]);
    const page = (await (await t.ask('lead', 'GET', `/api/projects/${id}/batches/${batch}`)).json()) as BatchPage;
    expect(page.what).toBe('repair');
    expect(page.lines.length).toBe(shown.entries);
    expect((await undo(id, batch)).status).toBe(201);
    expect(treeOf(root)).toEqual(before);
    expect((await check(id)).map((f) => f.id).sort()).toEqual(found.map((f) => f.id).sort());
  });

  test('a document follows the file it refers to in the same change', async () => {
    const p = await started();
    p.put(`${window_}/${p.number}_A_draw_AR_V001.png`, 'picture');
    p.put(good(p.number), `<svg><!-- é --><image href="${p.number}_A_draw_AR_V001.png"/></svg>`);
    await check(p.id);
    const shown = await plan(p.id);
    expect(shown.documents).toEqual([
      {
        path: good(p.number),
        after: good(p.number),
        changes: [{ from: `${p.number}_A_draw_AR_V001.png`, to: `${p.number}_A_draw_AR_v001.png` }],
      },
    ]);
    await apply(p.id, {}, shown);
    expect(readFileSync(path.join(p.root, good(p.number)), 'utf8')).toBe(
      `<svg><!-- é --><image href="${p.number}_A_draw_AR_v001.png"/></svg>`,
    );
  });

  test('an answer is a person’s; the same request is one act', async () => {
    const p = await started();
    p.put(`${window_}/99999_A_draw_AR_v001.svg`, '<svg/>');
    await check(p.id);
    const first = await plan(p.id);
    expect(first.lines).toMatchObject([{ rule: 'foreign-project', state: 'ask' }]);
    expect(await codeOf(await apply(p.id, {}, first))).toEqual([409, 'nothing-to-repair']);
    const [line] = first.lines;
    const asked = { answers: { [line?.id ?? '']: { key: line?.options[0]?.key ?? null } } };
    const { fingerprint, now } = await plan(p.id, asked);
    const body = { ...asked, fingerprint, now, key: randomUUID() };
    const twice = await Promise.all(
      [1, 2].map(() => t.ask('coordinator', 'POST', `/api/projects/${p.id}/repair/batches`, body)),
    );
    expect(new Set(await Promise.all(twice.map(batchOf))).size).toBe(1);
    expect(existsSync(path.join(p.root, good(p.number)))).toBe(true);
    const rows = (await (await t.ask('lead', 'GET', `/api/projects/${p.id}/batches`)).json()) as BatchRow[];
    expect(rows.filter((b) => b.what === 'repair')).toHaveLength(1);
  });
});

describe('documents of other programs', () => {
  interface Mentions {
    readonly files: number;
    readonly bytes: number;
    readonly isSearched: boolean;
    readonly references: readonly { readonly document: string; readonly target: string; readonly to: string | null }[];
  }

  test('what they name of that which moves is told before, and after until they are saved anew', async () => {
    const p = await started();
    const [old, right] = [good(p.number, 'V002'), good(p.number, 'v002')];
    p.put(old, 'a piece');
    const document = `20_pieces/window-B/${p.number}_B_draw_AR_v001.blob`;
    const whole = Buffer.from(`\u0000${path.join(p.root, old)}\u0000`, 'utf16le');
    p.put(document, Buffer.concat([Buffer.from([1, 2, 255]), whole]));
    p.put('10_paperwork/list.blob', `\u0001${path.basename(old)}\u0001`);
    // Names of its own, and what programs make along the way, are nobody's to put right.
    p.put('10_paperwork/._list.blob', path.basename(old));
    p.put('10_paperwork/other.blob', `\u0001an-${path.basename(old)}\u0001`);
    const [finding] = (await check(p.id)).filter((f) => f.path === old);
    const asked = { ids: [finding?.id] };
    const before = (await (
      await t.ask('artist', 'POST', `/api/projects/${p.id}/repair/mentions`, asked)
    ).json()) as Mentions;
    expect(before).toMatchObject({ files: 3, isSearched: true });
    expect(before.references).toEqual(
      expect.arrayContaining([
        { document, target: path.join(p.root, old), to: right, why: 'other-format' },
        { document: '10_paperwork/list.blob', target: path.basename(old), to: right, why: 'other-format' },
      ]),
    );
    expect(before.references.length).toBe(2);
    const batch = await batchOf(await apply(p.id, asked));
    const left = async () =>
      (await (await t.ask('lead', 'GET', `/api/projects/${p.id}/batches/${batch}/mentions`)).json()) as readonly {
        readonly document: string;
      }[];
    expect((await left()).map((m) => m.document).sort()).toEqual(['10_paperwork/list.blob', document].sort());
    p.put('10_paperwork/list.blob', path.basename(right));
    expect((await left()).map((m) => m.document)).toEqual([document]);
    await undo(p.id, batch);
    expect(await left()).toEqual([]);
  });

  test('are not searched where nothing moves', async () => {
    const p = await started();
    p.put('10_paperwork/list.blob', 'a list');
    await check(p.id);
    const answer = await t.ask('coordinator', 'POST', `/api/projects/${p.id}/repair/mentions`, {});
    expect(await answer.json()).toEqual({ files: 0, bytes: 0, isSearched: true, references: [] });
  });
});

describe('a file of another project', () => {
  const strayed = async () => {
    const [here, there] = [await started(), await started()];
    const at = `${window_}/${there.number}_A_draw_AR_v001.svg`;
    here.put(at, '<svg><image href="../../30_masters/a.png"/></svg>');
    here.put(good(here.number), `<svg><image href="${path.basename(at)}"/></svg>`);
    await check(here.id);
    const { lines } = await plan(here.id, { rule: 'foreign-project' });
    const option = lines[0]?.options.find((o) => o.way === 'move-to-project');
    const answers = { [lines[0]?.id ?? '']: { key: option?.key ?? '' } };
    return { here, there, at, line: lines[0], option, asked: { rule: 'foreign-project', answers } };
  };

  test('goes to the folder of that project that takes it, is said there too, and comes back whole', async () => {
    const { here, there, at, option, asked } = await strayed();
    rmSync(path.join(there.root, window_), { recursive: true });
    const before = [treeOf(here.root), treeOf(there.root)];
    expect(option?.value).toBe(`${path.basename(there.root)}/${at}`);
    const shown = await plan(here.id, asked);
    expect(shown.lines).toMatchObject([{ state: 'ready', after: null }]);
    // A reference from here to it, and one of its own, are nobody's to follow.
    expect(shown.byHand.map((b) => [b.document, b.why, b.to])).toEqual([
      [good(here.number), 'other-project', `${path.basename(there.root)}/${at}`],
      [at, 'other-project', null],
    ]);
    // A script runs in this project's folder: the list says what goes, the script leaves it.
    const printed = async (as: string) =>
      (await t.ask('coordinator', 'POST', `/api/projects/${here.id}/repair/print?as=${as}`, asked)).text();
    expect(await printed('csv')).toContain(`${path.basename(there.root)}/${at}`);
    expect(await printed('sh')).not.toContain(at);
    const batch = await batchOf(await apply(here.id, asked, shown));
    await t.idle();
    expect(existsSync(path.join(here.root, at))).toBe(false);
    expect(lstatSync(path.join(there.root, at)).mtimeMs).toBe(OLD * 1000);
    expect((await findings(here.id)).filter((f) => f.rule === 'foreign-project')).toEqual([]);
    // It was looked at there, by that project's rules.
    expect((await findings(there.id)).flatMap((f) => (f.path === at ? [f.rule] : []))).toEqual(['broken-reference']);
    const told = await (await t.ask('lead', 'GET', `/api/activity?project=${there.id}`)).text();
    expect(told).toContain('files-arrived');
    const former = await t.ask('artist', 'GET', `/api/former-names?find=${path.basename(at)}`);
    expect(await former.json()).toMatchObject([{ before: at, after: `studio/${path.basename(there.root)}/${at}` }]);
    await undo(here.id, batch);
    expect([treeOf(here.root), treeOf(there.root)]).toEqual(before);
  });

  test('is in the way of what lies there; nothing is overwritten', async () => {
    const { here, there, at, asked } = await strayed();
    there.put(at.toUpperCase().replace('20_PIECES/WINDOW-A', window_), 'their own');
    const shown = await plan(here.id, asked);
    expect(shown.lines).toMatchObject([{ state: 'clash', clash: { at, other: null } }]);
    expect(await codeOf(await apply(here.id, asked, shown))).toEqual([409, 'nothing-to-repair']);
  });

  test('stays where it is while something else is under way there', async () => {
    const { here, there, asked } = await strayed();
    const before = [treeOf(here.root), treeOf(there.root)];
    const shown = await plan(here.id, asked);
    mkdirSync(path.join(there.root, '.nesting/batches'), { recursive: true });
    writeFileSync(path.join(there.root, '.nesting/batches/open'), randomUUID());
    expect(await codeOf(await apply(here.id, asked, shown))).toEqual([409, 'batch-open']);
    expect([treeOf(here.root), treeOf(there.root)]).toEqual(before);
    rmSync(path.join(there.root, '.nesting/batches/open'));
    expect((await apply(here.id, asked, shown)).status).toBe(201);
  });

  test('is nothing that an artist moves, and goes to no project that does not run', async () => {
    const { here, there, line } = await strayed();
    const ways = async (who: 'coordinator' | 'artist') =>
      (await plan(here.id, { ids: [line?.id ?? ''] }, who)).lines[0]?.options.map((o) => o.way);
    expect(await ways('artist')).toEqual(['take-number']);
    expect(await ways('coordinator')).toEqual(['take-number', 'move-to-project']);
    await t.world.db.query("update project set state = 'closed' where id = $1", [there.id]);
    expect(await ways('coordinator')).toEqual(['take-number']);
  });
});

describe('former names', () => {
  test('are found while the new ones hold, and not any more when they are undone', async () => {
    const p = await started();
    p.put(good(p.number, 'V002'), '<svg/>');
    await check(p.id);
    const batch = await batchOf(await apply(p.id));
    const find = async () =>
      (await (await t.ask('artist', 'GET', `/api/former-names?find=${p.number}_a_DRAW`)).json()) as FormerName[];
    expect(await find()).toMatchObject([
      { project: { id: p.id }, before: good(p.number, 'V002'), after: good(p.number, 'v002'), batch },
    ]);
    expect((await t.ask('artist', 'GET', '/api/former-names?find=a')).status).toBe(400);
    await undo(p.id, batch);
    expect(await find()).toEqual([]);
  });
});

describe('what is in the way', () => {
  test('a file written, moved or gone since the plan was shown: nothing is changed, and it is said', async () => {
    for (const meddle of [
      (at: string) => writeFileSync(at, 'other work'),
      (at: string) => renameSync(at, `${at}.moved`),
      (at: string) => rmSync(at),
    ]) {
      const p = await started();
      p.put(good(p.number, 'V002'), '<svg/>');
      await check(p.id);
      const shown = await plan(p.id);
      meddle(path.join(p.root, good(p.number, 'V002')));
      const before = treeOf(p.root);
      expect(await codeOf(await apply(p.id, {}, shown))).toEqual([409, 'disk-changed']);
      expect(treeOf(p.root)).toEqual(before);
    }
  });

  test('findings of an old check: what is gone or elsewhere is said of each line, and the rest is done', async () => {
    const p = await started();
    p.put(good(p.number, 'V002'), '<svg/>');
    p.put('._one');
    await check(p.id);
    rmSync(path.join(p.root, '._one'));
    const shown = await plan(p.id);
    expect(shown.lines.map((l) => l.state).sort()).toEqual(['gone', 'ready']);
    expect((await apply(p.id, {}, shown)).status).toBe(201);
  });

  test('a file that was written a moment ago waits', async () => {
    const p = await started();
    await check(p.id);
    writeFileSync(path.join(p.root, good(p.number, 'V002')), '<svg/>');
    await check(p.id);
    expect((await plan(p.id)).lines).toMatchObject([{ state: 'held' }]);
  });

  test('two plans of one project: one at a time, and the second is planned anew', async () => {
    const p = await messy();
    await check(p.id);
    const [one, two] = [await plan(p.id), await plan(p.id)];
    const both = await Promise.all([apply(p.id, {}, one), apply(p.id, {}, two)]);
    const codes = both.map((r) => r.status).sort();
    expect(codes[0]).toBe(201);
    expect(codes[1]).toBe(409);
    expect((await plan(p.id)).entries).toBe(0);
  });

  test('what is no finding, no way, or no path of the project', async () => {
    const p = await started();
    p.put(good(p.number, 'V002'), '<svg/>');
    await check(p.id);
    const [line] = (await plan(p.id)).lines;
    expect((await plan(p.id, { ids: ['0123456789abcdef'] })).all).toBe(0);
    expect((await plan(p.id, { answers: { [line?.id ?? '']: { key: 'no such way' } } })).lines).toMatchObject([
      { state: 'ask' },
    ]);
    const named = (name: string) => ({ answers: { [line?.id ?? '']: { key: line?.options[0]?.key ?? '', name } } });
    for (const name of ['../../../etc/passwd', 'a/b.svg', 'con.svg', '.nesting'])
      expect((await plan(p.id, named(name))).lines).toMatchObject([{ state: 'clash' }]);
    expect((await t.ask('coordinator', 'POST', `/api/projects/${p.id}/repair`, { ids: ['nope'] })).status).toBe(400);
    expect(existsSync(path.join(p.root, good(p.number, 'V002')))).toBe(true);
  });
});

describe('set aside', () => {
  const listed = async (id: string) =>
    ((await (await t.ask('lead', 'GET', '/api/set-aside')).json()) as SetAsideRow[]).filter((r) => r.project.id === id);

  test('it is listed with its bytes, comes back by undoing, and goes for good only with the project’s number', async () => {
    const p = await started();
    p.put('._litter', 'twelve bytes');
    await check(p.id);
    const batch = await batchOf(await apply(p.id));
    expect(existsSync(path.join(p.root, '._litter'))).toBe(false);
    expect(await listed(p.id)).toMatchObject([{ batch, what: 'repair', files: 1, bytes: 12 }]);
    await undo(p.id, batch);
    expect(readFileSync(path.join(p.root, '._litter'), 'utf8')).toBe('twelve bytes');
    expect(await listed(p.id)).toEqual([]);
    await check(p.id);
    const again = await batchOf(await apply(p.id));
    const free = (number: string, who: 'coordinator' | 'artist' = 'coordinator') =>
      t.ask(who, 'POST', `/api/projects/${p.id}/batches/${again}/free`, { number });
    expect((await free(p.number, 'artist')).status).toBe(403);
    expect(await codeOf(await free('12345'))).toEqual([422, 'number-other']);
    expect(existsSync(path.join(p.root, `.nesting/batches/${again}/kept`))).toBe(true);
    expect((await free(p.number)).status).toBe(204);
    expect(existsSync(path.join(p.root, `.nesting/batches/${again}`))).toBe(false);
    expect(await listed(p.id)).toEqual([]);
    expect((await undo(p.id, again)).status).toBe(404);
  });
});

describe('artists', () => {
  test('put right what is theirs, where the template lets them, and nothing else', async () => {
    const p = await started();
    p.put(good(p.number, 'V002'), '<svg/>');
    p.put('._litter');
    const ofTheirs = async (id: string) => (await check(id)).find((f) => f.rule === 'version-style')?.id ?? '';
    const asked = { ids: [await ofTheirs(p.id)] };
    const theirs = await plan(p.id, asked, 'artist');
    expect([theirs.mayApply, theirs.entries]).toEqual([false, 1]);
    const carryOut = (id: string, body: object) => t.ask('artist', 'POST', `/api/projects/${id}/repair/batches`, body);
    const { fingerprint: theirFingerprint, now: then } = theirs;
    expect(await codeOf(await carryOut(p.id, { ...asked, now: then, fingerprint: theirFingerprint }))).toEqual([
      403,
      'not-yours-to-repair',
    ]);
    const template = ((await (await t.ask('lead', 'GET', '/api/templates')).json()) as TemplateRow[])[0]
      ?.template as Template;
    const allowed = { ...template, edition: 2, checks: { artistsMayRepair: true } };
    await insertEdition(t.world.db, allowed, new Map([['starters/window-brief.md', Buffer.from('# {title}\n')]]));
    const q = await started({ edition: 2 });
    q.put(good(q.number, 'V002'), '<svg/>');
    q.put('._litter');
    const mine = { ids: [await ofTheirs(q.id)] };
    const { fingerprint, now } = await plan(q.id, mine, 'artist');
    const done = await carryOut(q.id, { ...mine, now, fingerprint });
    expect(done.status).toBe(201);
    expect(existsSync(path.join(q.root, good(q.number, 'v002')))).toBe(true);
    expect((await plan(q.id, {}, 'artist')).mayApply).toBe(false);
    expect((await t.ask('lead', 'POST', `/api/projects/${q.id}/repair`, mine)).status).toBe(403);
  });

  test('hand in what they may not carry out: coordinators hear of it, take it in part or refuse it with a word', async () => {
    const p = await started();
    p.put(good(p.number, 'V002'), '<svg/>');
    p.put('._litter');
    await check(p.id);
    const shown = await plan(p.id, {}, 'artist');
    const answers = { [shown.lines.find((l) => l.rule === 'stray-generated')?.id ?? '']: { key: null } };
    const propose = async (note: string) =>
      (
        (await (
          await t.ask('artist', 'POST', `/api/projects/${p.id}/proposals`, { asked: { answers }, note })
        ).json()) as { id: string }
      ).id;
    const [first, second] = [await propose('The litter may stay.'), await propose('Again.')];
    expect(await codeOf(await t.ask('artist', 'POST', `/api/proposals/${first}/refuse`, { word: 'no' }))).toEqual([
      403,
      'role-not-allowed',
    ]);
    const listed = (await (await t.ask('coordinator', 'GET', '/api/proposals')).json()) as ProposalRow[];
    expect(listed.filter((row) => row.project.id === p.id).map((row) => [row.state, row.note])).toEqual([
      ['open', 'The litter may stay.'],
      ['open', 'Again.'],
    ]);
    const { asked } = (await (await t.ask('coordinator', 'GET', `/api/proposals/${first}`)).json()) as ProposalPage;
    expect(asked.answers).toEqual(answers);
    const { fingerprint, now, entries } = await plan(p.id, asked);
    expect(entries).toBe(1);
    const other = await started();
    const elsewhere = { ...asked, fingerprint, now, proposal: first };
    const wrong = await t.ask('coordinator', 'POST', `/api/projects/${other.id}/repair/batches`, elsewhere);
    expect(await codeOf(wrong)).toEqual([404, 'no-proposal']);
    const body = { ...elsewhere, key: randomUUID() };
    const batch = await batchOf(await t.ask('coordinator', 'POST', `/api/projects/${p.id}/repair/batches`, body));
    expect(existsSync(path.join(p.root, '._litter'))).toBe(true);
    // The same request is the same act; another one comes too late.
    expect(await batchOf(await t.ask('coordinator', 'POST', `/api/projects/${p.id}/repair/batches`, body))).toBe(batch);
    const late = { ...body, key: randomUUID() };
    expect(await codeOf(await t.ask('coordinator', 'POST', `/api/projects/${p.id}/repair/batches`, late))).toEqual([
      409,
      'proposal-over',
    ]);
    expect(
      (await t.ask('coordinator', 'POST', `/api/proposals/${second}/refuse`, { word: 'Done already.' })).status,
    ).toBe(204);
    expect(
      await codeOf(await t.ask('coordinator', 'POST', `/api/proposals/${second}/refuse`, { word: 'No.' })),
    ).toEqual([409, 'proposal-over']);
    const settled = ((await (await t.ask('artist', 'GET', '/api/proposals')).json()) as ProposalRow[]).filter(
      (row) => row.project.id === p.id,
    );
    expect(settled.map((row) => [row.state, row.word, row.batch]).sort()).toEqual([
      ['refused', 'Done already.', null],
      ['taken', '', batch],
    ]);
  });
});

describe('a plan that begins at an hour', () => {
  const later = async (id: string, asked: object = {}, beginsAt = new Date(Date.now() + 3_600_000).toISOString()) => {
    const { fingerprint, now } = await plan(id, asked);
    return t.ask('coordinator', 'POST', `/api/projects/${id}/repair/later`, { ...asked, now, fingerprint, beginsAt });
  };
  /** The hour has come. */
  const begin = async () => {
    await t.world.db.query("update later_repair set begins_at = clock_timestamp() where state = 'waiting'");
    await beginDueRepairs(t.world);
    await t.idle();
    await t.idle();
  };
  const said = async (id: string) =>
    (
      await t.world.db.query<{ state: string; said: string }>(
        'select state, said from later_repair where project_id = $1 order by at desc limit 1',
        [id],
      )
    ).rows[0];

  test('does then what was shown, leaves what is otherwise by then, and takes what waited until it was quiet', async () => {
    const p = await started();
    p.put(good(p.number, 'V002'), '<svg/>');
    p.put('._one');
    p.put('._two');
    const before = await check(p.id);
    expect(before.length).toBeGreaterThan(1);
    const shown = await plan(p.id);
    const ready = shown.lines.filter((l) => l.state === 'ready');
    expect(ready.length).toBeGreaterThan(1);
    expect((await later(p.id)).status).toBe(201);
    const list = (await (await t.ask('artist', 'GET', `/api/projects/${p.id}/repair/later`)).json()) as LaterRepair[];
    expect(list).toMatchObject([{ findings: ready.length }]);
    // One of them is put right by hand meanwhile.
    const [first, ...others] = [...ready].sort((a) => (a.after === null || a.path.startsWith('.') ? 1 : -1));
    renameSync(path.join(p.root, first?.path ?? ''), path.join(p.root, first?.after ?? ''));
    // Nothing begins before its hour.
    await beginDueRepairs(t.world);
    expect(others.every((l) => existsSync(path.join(p.root, l.path)))).toBe(true);
    await begin();
    for (const line of others) expect(existsSync(path.join(p.root, line.path))).toBe(false);
    expect(await said(p.id)).toMatchObject({ state: 'over', said: expect.stringContaining('Left: 1,') });
    expect(await (await t.ask('artist', 'GET', `/api/projects/${p.id}/repair/later`)).json()).toEqual([]);
    const batches = (await (await t.ask('lead', 'GET', `/api/projects/${p.id}/batches`)).json()) as BatchRow[];
    expect(batches.filter((b) => b.what === 'repair')).toHaveLength(1);
    // Nothing begins twice, though a crash came before the word on it; and what was done is not denied.
    await t.world.db.query(
      "update later_repair set state = 'begun', begun_at = clock_timestamp() - interval '1 hour' where project_id = $1",
      [p.id],
    );
    await begin();
    expect(await said(p.id)).toMatchObject({ state: 'over', said: expect.stringContaining('had begun') });
    expect((await (await t.ask('lead', 'GET', `/api/projects/${p.id}/batches`)).json()) as BatchRow[]).toHaveLength(
      batches.length,
    );
  });

  test('is refused for an hour that is past and for another plan; taken back it does not begin', async () => {
    const p = await started();
    p.put(good(p.number, 'V002'), '<svg/>');
    await check(p.id);
    expect(await (await later(p.id, {}, new Date(Date.now() - 1000).toISOString())).json()).toMatchObject({
      code: 'hour-past',
    });
    const wrong = { fingerprint: '0'.repeat(64), beginsAt: new Date(Date.now() + 3_600_000).toISOString() };
    const refused = await t.ask('coordinator', 'POST', `/api/projects/${p.id}/repair/later`, wrong);
    expect(await refused.json()).toMatchObject({ code: 'disk-changed' });
    const { id } = (await (await later(p.id)).json()) as { id: string };
    const drop = () => t.ask('coordinator', 'DELETE', `/api/projects/${p.id}/repair/later/${id}`);
    expect((await drop()).status).toBe(204);
    expect((await drop()).status).toBe(404);
    await begin();
    expect(existsSync(path.join(p.root, good(p.number, 'V002')))).toBe(true);
  });
});
