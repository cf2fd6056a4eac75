/** Checks as jobs: quick ones, stopped and gone on with, killed in the middle; and what people do with findings. */
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdirSync, readdirSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  CheckRow,
  ChecksOfProject,
  ExceptionRow,
  FindingList,
  PersonFindings,
  ProjectRow,
} from '@nesting/contract';
import { pino } from 'pino';
import {
  failCheck,
  insertCheck,
  keepGathered,
  readGathered,
  setCheckProgress,
  takeUpCheck,
} from '../src/db/queries/checks/checks';
import { closeWorld, openWorld, runCheck, takeOverSilentChecks } from '../src/index';
import { openTestWorld, startOf, type TestWorld } from './world';

let t: TestWorld;
beforeAll(async () => {
  t = await openTestWorld({ NESTING_DEMO: '1', NESTING_GATHER_EVERY: '0.001', NESTING_LEASE_SECONDS: '2' });
});
afterAll(() => t.close());

async function started(number: string): Promise<{ project: ProjectRow; root: string }> {
  const response = await t.ask('coordinator', 'POST', '/api/projects', startOf(number));
  expect(response.status).toBe(201);
  await t.world.checks.idle();
  return { project: (await response.json()) as ProjectRow, root: path.join(t.studio, `${number}_MSW_piece-${number}`) };
}

const checks = async (id: string) =>
  (await (await t.ask('lead', 'GET', `/api/projects/${id}/checks`)).json()) as ChecksOfProject;
const findings = async (id: string, query = '') =>
  (await (await t.ask('lead', 'GET', `/api/projects/${id}/findings?group=none${query}`)).json()) as FindingList;
async function check(id: string, what = 'whole'): Promise<CheckRow> {
  expect((await t.ask('artist', 'POST', `/api/projects/${id}/checks`, { what })).status).toBe(202);
  await t.world.checks.idle();
  return (await checks(id)).newest as CheckRow;
}
const post = (who: 'coordinator' | 'artist', id: string, act: string, body: unknown) =>
  t.ask(who, 'POST', `/api/projects/${id}/findings/${act}`, body);
const paths = (list: FindingList) => list.rows.map((f) => `${f.rule} ${f.path}`);

/** Milliseconds for tests that write and check many thousand files, on a machine that does other things besides. */
const WITH_MANY_FILES = 300_000;

describe('a check as a job', () => {
  test('a quick one looks again only where something changed, and finds what a whole one finds', async () => {
    const { project, root } = await started('41001');
    const into = path.join(root, '20_pieces/window-A');
    writeFileSync(path.join(into, 'broken name.png'), 'x');
    writeFileSync(path.join(root, 'loose.txt'), 'a');
    await check(project.id);
    writeFileSync(path.join(root, '20_pieces/window-B/another broken.png'), 'y');
    rmSync(path.join(root, 'loose.txt'));
    mkdirSync(path.join(root, '20_pieces/stuff/deep'), { recursive: true });
    const quick = await check(project.id, 'quick');
    expect(quick).toMatchObject({ what: 'quick', state: 'done', appeared: 2, solved: 1, said: [] });
    const after = paths(await findings(project.id));
    await check(project.id);
    expect(paths(await findings(project.id))).toEqual(after);
    expect(after).toContain('unplanned-folder 20_pieces/stuff');
  });

  test('findings that an earlier version stored are said as they were said then, until the next check', async () => {
    const { project, root } = await started('41107');
    writeFileSync(path.join(root, 'loose.txt'), 'a');
    await check(project.id);
    const { db } = t.world;
    const { rows } = await db.query('select body from finding where project_id = $1', [project.id]);
    expect(rows[0]?.body).not.toHaveProperty('message');
    const old = { message: 'As it was said then.', params: { file: 'loose.txt' } };
    await db.query('update finding set body = body || $2, print = 0 where project_id = $1', [
      project.id,
      JSON.stringify(old),
    ]);
    const said = async () => (await findings(project.id)).rows.map((f) => f.message);
    expect(await said()).toEqual(['As it was said then.']);
    await check(project.id);
    expect(await said()).toEqual(["loose.txt lies loose in the project's root, where only folders belong."]);
  });

  test('references and copies are found, and stand while a quick check does not look into those files', async () => {
    const { project, root } = await started('41002');
    const into = path.join(root, '20_pieces/window-A');
    for (const name of ['41002_A_anim_CO_v001.png', '41002_A_anim_CO_v002.png'])
      writeFileSync(path.join(into, name), 'the same bytes');
    writeFileSync(
      path.join(into, '41002_A_anim_CO_v001.svg'),
      '<svg><image href="../../../elsewhere/x.png"/><image href="gone.png"/><image href="/Users/somebody/Desktop/y.png"/></svg>',
    );
    writeFileSync(
      path.join(into, '41002_A_anim_CO_v002.blob'),
      Buffer.concat([Buffer.alloc(1_048_570), Buffer.from(`${root}/x.png`, 'utf16le')]),
    );
    // What was just written is left in peace.
    const old = new Date(Date.now() - 3_600_000);
    for (const name of readdirSync(into)) utimesSync(path.join(into, name), old, old);
    await check(project.id);
    const of = async () =>
      (await findings(project.id)).rows
        .filter((f) => f.rule === 'same-content' || f.rule.endsWith('reference'))
        .map((f) => `${f.rule} ${f.path.slice(f.path.lastIndexOf('/') + 1)}`);
    const found = [
      'absolute-reference 41002_A_anim_CO_v001.svg',
      'absolute-reference 41002_A_anim_CO_v002.blob',
      'broken-reference 41002_A_anim_CO_v001.svg',
      'outside-reference 41002_A_anim_CO_v001.svg',
      'same-content 41002_A_anim_CO_v001.png',
    ];
    expect((await of()).sort()).toEqual(found);
    writeFileSync(path.join(root, 'loose.txt'), 'a');
    await check(project.id, 'quick');
    expect((await of()).sort()).toEqual(found);
    // A copy in another folder of a file that no quick check would list again.
    writeFileSync(path.join(root, '20_pieces/window-B/41002_B_anim_CO_v001.png'), 'the same bytes');
    utimesSync(path.join(root, '20_pieces/window-B/41002_B_anim_CO_v001.png'), old, old);
    await check(project.id, 'quick');
    expect((await findings(project.id)).rows.find((f) => f.rule === 'same-content')?.related).toHaveLength(2);
  });

  test('one that was stopped goes on where it was, and finds what one in one piece finds', async () => {
    const { project, root } = await started('41003');
    for (let f = 0; f < 300; f++) {
      mkdirSync(path.join(root, `20_pieces/window-A/f${f}`));
      writeFileSync(path.join(root, `20_pieces/window-A/f${f}/x.txt`), 'x');
    }
    await check(project.id);
    const whole = paths(await findings(project.id));
    // Left half way: half its folders seen, the rest in the queue.
    const id = randomUUID();
    await insertCheck(t.world.db, id, project.id, null, 'whole');
    await t.ask('artist', 'POST', `/api/checks/${id}/stop`, {});
    expect((await checks(project.id)).newest).toMatchObject({ state: 'cancelled', canGoOn: false });
    expect((await t.ask('artist', 'POST', `/api/checks/${id}/go-on`, {})).status).toBe(409);
    const running = randomUUID();
    await insertCheck(t.world.db, running, project.id, null, 'whole');
    expect(await takeUpCheck(t.world.db, running, randomUUID(), 60_000)).toMatchObject({ project: project.id });
    await t.world.db.query('update check_run set stop = true where id = $1', [running]);
    await t.world.db.query("update check_run set state = 'queued' where id = $1", [running]);
    await runCheck(t.world, running);
    const state = (await checks(project.id)).newest;
    // It may have been through before it was heard that it is to stop.
    if (state?.state === 'cancelled') {
      expect(state.canGoOn).toBe(true);
      expect(await readGathered(t.world.db, running)).not.toBeNull();
      await t.ask('artist', 'POST', `/api/checks/${running}/go-on`, {});
      await t.world.checks.idle();
    }
    expect((await checks(project.id)).newest?.state).toBe('done');
    expect(paths(await findings(project.id))).toEqual(whole);
  });

  test('what cannot be read of an earlier one is no hindrance', async () => {
    const { project } = await started('41004');
    const id = randomUUID();
    await insertCheck(t.world.db, id, project.id, null, 'whole');
    await t.world.db.query('insert into check_gathered (check_id, body) values ($1, $2)', [
      id,
      Buffer.from('nonsense'),
    ]);
    await t.world.db.query("update check_memory set part = 'nonsense', looked = 'nonsense' where project_id = $1", [
      project.id,
    ]);
    await runCheck(t.world, id);
    expect((await checks(project.id)).newest).toMatchObject({ id, state: 'done' });
    // Whoever looks at the page meanwhile is no worse off.
    await t.world.db.query("update check_memory set part = 'nonsense' where project_id = $1", [project.id]);
    const looked = await t.ask('lead', 'POST', `/api/me/projects/${project.id}/look`, {});
    expect([looked.status, ((await looked.json()) as { check: string | null }).check]).toEqual([
      200,
      expect.any(String),
    ]);
    await t.world.checks.idle();
    expect((await checks(project.id)).newest).toMatchObject({ state: 'done', what: 'quick' });
  });

  test('a schedule makes it due, and a check under way is not asked for again', async () => {
    const { project } = await started('41005');
    expect((await t.ask('coordinator', 'PUT', `/api/projects/${project.id}/schedule`, { every: 60 })).status).toBe(204);
    expect((await t.ask('artist', 'PUT', `/api/projects/${project.id}/schedule`, { every: null })).status).toBe(403);
    expect((await t.ask('coordinator', 'PUT', `/api/projects/${project.id}/schedule`, { every: 1 })).status).toBe(400);
    const before = (await checks(project.id)).newest?.id;
    await takeOverSilentChecks(t.world);
    await t.world.checks.idle();
    expect((await checks(project.id)).newest?.id).toBe(before);
    await t.world.db.query(
      "update check_run set started_at = started_at - interval '61 minutes' where project_id = $1",
      [project.id],
    );
    await takeOverSilentChecks(t.world);
    await t.world.checks.idle();
    expect(await checks(project.id)).toMatchObject({ every: 60, newest: { state: 'done', what: 'whole' } });
    expect((await checks(project.id)).newest?.id).not.toBe(before);
  });

  test(
    'a worker killed in the middle loses nothing: another takes the check over, and it is whole',
    async () => {
      const { project, root } = await started('41006');
      for (let f = 0; f < 1500; f++) {
        mkdirSync(path.join(root, `20_pieces/window-A/g${f}`));
        for (let n = 0; n < 10; n++) writeFileSync(path.join(root, `20_pieces/window-A/g${f}/${n}.txt`), String(n));
      }
      await check(project.id);
      const whole = paths(await findings(project.id));
      // As soon as it is there, while it walks, once something of it is kept, while it looks into files.
      const moments = [
        'true',
        "state = 'running' and files > 0",
        'exists (select from check_gathered where check_id = $1)',
        "stage = 'reading'",
      ];
      for (const moment of moments) {
        const id = randomUUID();
        await t.world.db.query('delete from kept_listing where project_id = $1', [project.id]);
        await insertCheck(t.world.db, id, project.id, null, 'whole');
        const env = {
          ...process.env,
          NESTING_DATABASE: t.config.databaseUrl,
          NESTING_SECRET: 'x'.repeat(40),
          NESTING_VOLUMES: `studio=${t.studio}`,
          NESTING_LOG: 'silent',
          NESTING_GATHER_EVERY: '0.01',
        };
        const worker = spawn(process.execPath, ['dist/check-only.js', id], {
          env,
          stdio: ['ignore', 'pipe', 'inherit'],
        });
        // It says when it has begun; then it is killed, at another moment each time, or when it was too quick for that.
        await new Promise((resolve) => worker.stdout.once('data', resolve));
        const has = async (what: string) =>
          ((await t.world.db.query(`select from check_run where id = $1 and (${what})`, [id])).rowCount ?? 0) > 0;
        while (!(await has(`state = 'done' or (${moment})`)));
        worker.kill('SIGKILL');
        if (worker.exitCode === null && worker.signalCode === null)
          await new Promise((resolve) => worker.once('exit', resolve));
        await t.world.db.query("update check_run set seen_at = seen_at - interval '1 minute' where id = $1", [id]);
        await takeOverSilentChecks(t.world);
        await t.world.checks.idle();
        expect((await checks(project.id)).newest).toMatchObject({ id, state: 'done' });
        expect(paths(await findings(project.id))).toEqual(whole);
        const { rows } = await t.world.db.query<{ kept: string; folders: string }>(
          `select (select count(*) from kept_listing where project_id = $1) kept,
           (select count(*) from folder_count where project_id = $1) folders`,
          [project.id],
        );
        expect(rows[0]?.kept).toBe(rows[0]?.folders);
      }
    },
    WITH_MANY_FILES,
  );

  test('who fell silent and was overtaken has no say in the check any more', async () => {
    const { project } = await started('41008');
    const { db } = t.world;
    const [id, slow, quick] = [randomUUID(), randomUUID(), randomUUID()];
    await insertCheck(db, id, project.id, null, 'whole');
    await takeUpCheck(db, id, slow, 60_000);
    await db.query("update check_run set seen_at = seen_at - interval '2 minutes' where id = $1", [id]);
    expect(await takeUpCheck(db, id, quick, 60_000)).not.toBeNull();
    expect(await takeUpCheck(db, id, slow, 60_000)).toBeNull();
    await failCheck(db, id, slow, 'I was asleep.');
    await keepGathered(db, id, slow, Buffer.from('old'));
    expect([
      await setCheckProgress(db, id, slow, 1, 1, 'walking'),
      await setCheckProgress(db, id, quick, 2, 2, 'walking'),
    ]).toEqual([true, false]);
    expect((await checks(project.id)).newest).toMatchObject({ id, state: 'running', files: 2 });
    expect(await readGathered(db, id)).toBeNull();
    await failCheck(db, id, quick, 'Enough.');
    expect((await checks(project.id)).newest).toMatchObject({ state: 'failed', said: ['Enough.'] });
  });

  test('two processes do one check once', async () => {
    const { project } = await started('41007');
    const other = await openWorld({ ...t.config, diskProgram: null }, pino({ level: 'silent' }));
    try {
      const id = randomUUID();
      await insertCheck(t.world.db, id, project.id, null, 'whole');
      await Promise.all([runCheck(t.world, id), runCheck(other, id)]);
      expect((await checks(project.id)).newest).toMatchObject({ id, state: 'done', said: [] });
    } finally {
      await closeWorld(other);
    }
  });
});

describe('findings in people’s hands', () => {
  test('what is accepted does not count until its day is over; what is new and what was solved is told', async () => {
    const { project, root } = await started('42001');
    writeFileSync(path.join(root, 'a.txt'), 'a');
    writeFileSync(path.join(root, 'b.txt'), 'b');
    expect((await check(project.id)).counts).toMatchObject({ should: 2 });
    const [a, b] = (await findings(project.id)).rows;
    expect((await post('artist', project.id, 'accept', { ids: [a?.id], reason: 'x' })).status).toBe(403);
    expect((await post('coordinator', project.id, 'accept', { ids: [a?.id], reason: '' })).status).toBe(400);
    expect(
      (await post('coordinator', project.id, 'accept', { ids: [a?.id], reason: 'x', until: '2020-01-01' })).status,
    ).toBe(400);
    expect(
      await (
        await post('coordinator', project.id, 'accept', {
          ids: [a?.id, 'f'.repeat(16)],
          reason: 'The client wants it here.',
          until: '2999-01-01',
        })
      ).json(),
    ).toEqual({ count: 1 });
    expect((await checks(project.id)).done?.counts).toMatchObject({ should: 1 });
    const accepted = await findings(project.id, '&view=accepted');
    expect(accepted.rows).toMatchObject([
      {
        path: 'a.txt',
        accepted: { reason: 'The client wants it here.', by: 'CO', until: '2999-01-01', baseline: false },
      },
    ]);
    expect(accepted.views).toMatchObject({ open: 1, accepted: 1 });
    await t.world.db.query('update exception set until = current_date - 1 where finding_id = $1', [a?.id]);
    await check(project.id);
    expect((await checks(project.id)).done?.counts).toMatchObject({ should: 2 });
    expect(
      ((await (await t.ask('lead', 'GET', `/api/exceptions?project=${project.id}`)).json()) as ExceptionRow[]).map(
        (e) => e.state,
      ),
    ).toEqual(['ended']);
    rmSync(path.join(root, 'b.txt'));
    writeFileSync(path.join(root, 'c.txt'), 'c');
    expect(await check(project.id)).toMatchObject({ appeared: 1, solved: 1 });
    expect((await findings(project.id, '&view=new')).rows.map((f) => f.path)).toEqual(['c.txt']);
    expect((await findings(project.id, '&view=solved')).rows.map((f) => [f.id, f.solvedAt !== null])).toEqual([
      [b?.id, true],
    ]);
  });

  test('after a baseline only what is new or touched counts', async () => {
    const { project, root } = await started('42002');
    for (const name of ['a.txt', 'b.txt']) writeFileSync(path.join(root, name), name);
    await check(project.id);
    expect(
      await (
        await t.ask('coordinator', 'POST', `/api/projects/${project.id}/baseline`, { reason: 'As it came to us.' })
      ).json(),
    ).toEqual({ count: 2 });
    expect((await checks(project.id)).done?.counts).toMatchObject({ should: 0 });
    const later = new Date(statSync(path.join(root, 'a.txt')).mtimeMs + 60_000);
    utimesSync(path.join(root, 'a.txt'), later, later);
    writeFileSync(path.join(root, 'new.txt'), 'n');
    await check(project.id);
    expect((await findings(project.id)).rows.map((f) => f.path)).toEqual(['a.txt', 'new.txt']);
  });

  test('people: by initials in names or given by hand; an artist takes for himself; a list is sent, and opened by its link alone', async () => {
    const { project, root } = await started('42003');
    writeFileSync(path.join(root, '20_pieces/window-A/42003_A_drawn_AR_V2.png'), 'x');
    writeFileSync(path.join(root, 'loose.txt'), 'x');
    await check(project.id);
    const list = await findings(project.id);
    const [named, loose] = [
      list.rows.find((f) => f.rule !== 'loose-file'),
      list.rows.find((f) => f.rule === 'loose-file'),
    ];
    expect([named?.to, named?.given, loose?.to]).toEqual(['AR', false, null]);
    expect((await post('artist', project.id, 'give', { ids: [loose?.id], to: 'LE' })).status).toBe(403);
    expect((await post('coordinator', project.id, 'give', { ids: [loose?.id], to: 'QQ' })).status).toBe(404);
    expect((await post('artist', project.id, 'give', { ids: [loose?.id], to: 'AR', note: 'On it.' })).status).toBe(200);
    expect(
      (await findings(project.id, '&person=AR')).rows.map((f) => [f.path.split('/').at(-1), f.given, f.note]),
    ).toEqual([
      ['42003_A_drawn_AR_V2.png', false, ''],
      ['loose.txt', true, 'On it.'],
    ]);
    expect((await t.ask('artist', 'GET', '/api/who/CO')).status).toBe(403);
    await post('coordinator', project.id, 'give', { ids: [named?.id], to: 'CO' });
    // It is the coordinator's now: an artist neither takes it, nor gives it back, nor writes over what is said of it.
    const activity = async () => (await t.world.db.query('select 1 from activity')).rowCount;
    const before = await activity();
    for (const act of [{ to: null }, { to: 'AR' }, { note: 'Mine.' }])
      for (const ids of [[named?.id], [loose?.id, named?.id]])
        expect((await post('artist', project.id, 'give', { ids, ...act })).status).toBe(403);
    expect((await findings(project.id, '&person=CO')).rows.map((f) => f.note)).toEqual(['']);
    expect(await activity()).toBe(before);
    await post('coordinator', project.id, 'give', { ids: [named?.id], to: null });
    expect(await (await t.ask('coordinator', 'POST', '/api/who/AR/send', {})).json()).toEqual({ sent: true });
    const mail = (
      await t.world.db.query<{ body: string; recipient: string }>(
        'select recipient, body from mail order by id desc limit 1',
      )
    ).rows[0];
    expect(mail?.recipient).toBe('artist@tallow-street.example');
    expect(mail?.body).toContain('42003_A_drawn_AR_V2.png');
    const secret = /yours#(\S+)/.exec(mail?.body ?? '')?.[1];
    const yours = (await (await t.ask(null, 'POST', '/api/yours', { secret })).json()) as PersonFindings;
    expect(yours).toMatchObject({ initials: 'AR', projects: [{ number: '42003', counts: { should: 1 } }] });
    expect((await t.ask(null, 'POST', '/api/yours', { secret: `${secret}x` })).status).toBe(410);
    await t.world.db.query("update finding_link set expires_at = now() - interval '1 second'");
    expect((await t.ask(null, 'POST', '/api/yours', { secret })).status).toBe(410);
  });

  test('filters meet, each facet is counted under all others, and nothing typed is a pattern', async () => {
    const { project, root } = await started('42004');
    for (const name of ['100%.txt', 'a_b.txt', "o'brien.txt"]) writeFileSync(path.join(root, name), name);
    mkdirSync(path.join(root, '20_pieces/stuff'));
    await check(project.id);
    expect((await findings(project.id, `&find=${encodeURIComponent('%')}`)).rows.map((f) => f.path)).toEqual([
      '100%.txt',
    ]);
    expect((await findings(project.id, `&find=${encodeURIComponent("'")}`)).total).toBe(1);
    expect((await findings(project.id, '&find=a_b')).total).toBe(1);
    const one = await findings(project.id, '&rule=loose-file&folder=20_pieces');
    expect([one.total, one.rules.map((r) => r.key), one.folders.map((f) => f.count)]).toEqual([
      0,
      ['unplanned-folder'],
      [1, 1, 1],
    ]);
    expect((await findings(project.id, '&person=-')).total).toBe(4);
    for (const bad of ['&rule=nonsense', '&view=all', '&from=-1', '&limit=0'])
      expect((await t.ask('lead', 'GET', `/api/projects/${project.id}/findings?${bad.slice(1)}`)).status).toBe(400);
  });

  test('a check of one’s own folder is handed in, and reports leave out what is accepted', async () => {
    const { project, root } = await started('42005');
    const finding = {
      id: 'a'.repeat(16),
      rule: 'loose-file',
      weight: 'should',
      path: 'x.txt',
      message: 'loose',
      params: {},
      problems: [],
      stretches: [],
      suggestion: null,
      related: [],
    };
    expect(
      (
        await t.ask('artist', 'POST', `/api/projects/${project.id}/handed-in`, {
          source: 'My disk',
          files: 3,
          folders: 1,
          findings: [finding],
        })
      ).status,
    ).toBe(201);
    expect(
      (
        await t.ask('artist', 'POST', `/api/projects/${project.id}/handed-in`, {
          source: 'My disk',
          files: 3,
          folders: 1,
          findings: [{ ...finding, rule: 'nonsense' }],
        })
      ).status,
    ).toBe(400);
    const all = (await (await t.ask('lead', 'GET', `/api/projects/${project.id}/handed-in`)).json()) as {
      id: string;
    }[];
    expect(all).toMatchObject([{ by: 'AR', source: 'My disk', counts: { must: 0, should: 1, note: 0 } }]);
    expect(await (await t.ask('lead', 'GET', `/api/handed-in/${all[0]?.id}`)).json()).toEqual([
      { ...finding, message: 'Loose files' },
    ]);
    for (const name of ['a.txt', 'b.txt']) writeFileSync(path.join(root, name), name);
    await check(project.id);
    await post('coordinator', project.id, 'accept', { ids: [(await findings(project.id)).rows[0]?.id], reason: 'yes' });
    const report = async (as: string) =>
      (await t.ask('lead', 'GET', `/api/projects/${project.id}/findings/report?as=${as}`)).text();
    expect((JSON.parse(await report('json')) as { findings: { path: string }[] }).findings.map((f) => f.path)).toEqual([
      'b.txt',
    ]);
    expect((await report('csv')).split('\n').filter((l) => l !== '')).toHaveLength(2);
    expect((JSON.parse(await report('sarif')) as { runs: { results: unknown[] }[] }).runs[0]?.results).toHaveLength(1);
    expect(await (await t.ask('lead', 'GET', '/api/overview')).json()).toMatchObject({
      causes: expect.arrayContaining([expect.objectContaining({ rule: 'loose-file' })]),
      days: expect.any(Array),
    });
  });

  test('while somebody looks, what changes on the disk is found without being asked for', async () => {
    const { project, root } = await started('42006');
    await check(project.id);
    const look = async () =>
      (
        (await (await t.ask('lead', 'POST', `/api/me/projects/${project.id}/look`, {})).json()) as {
          check: string | null;
        }
      ).check;
    expect(await look()).toBeNull();
    writeFileSync(path.join(root, 'loose.txt'), 'x');
    // Not more often than every few seconds.
    expect(await look()).toBeNull();
    const other = t.world.changePoller as unknown as { known: { values: Map<string, { last: number }> } };
    for (const known of other.known.values.values()) known.last = 0;
    expect(await look()).not.toBeNull();
    await t.world.checks.idle();
    expect((await findings(project.id)).rows.map((f) => f.path)).toEqual(['loose.txt']);
  });
});
