/** The built command line, as a person runs it: output, exit status, standard error. */
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmdirSync,
  rmSync,
  statSync,
  symlinkSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { home } from '@nesting/core/change';
import { applyOnDisk, onlyHome, Root } from '@nesting/disk';

const repo = process.cwd();
const TEMPLATE = path.join(repo, 'demo/templates/facade-show.nest.json');
let dir = '';
let values = '';
const registers = path.join(repo, 'demo/registers.json');

beforeAll(() => {
  dir = mkdtempSync(path.join(tmpdir(), 'nesting cli '));
  values = path.join(dir, 'values.json');
  writeFileSync(
    values,
    JSON.stringify({
      number: '26014',
      title: 'Harbour Lights',
      client: 'QHT',
      person: 'IT',
      date: '2026-11-27',
      surfaces: ['west-front', 'clock-tower'],
      scenes: 's01..s03',
      stands: ['pier', 'mill-roof'],
      nights: '2026-03-02',
      speech: 'spoken',
      languages: ['nl'],
    }),
  );
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

function nesting(args: readonly string[], input = '') {
  const run = spawnSync(process.execPath, [path.join(repo, 'bin/nesting.js'), ...args], {
    cwd: dir,
    input,
    encoding: 'utf8',
    maxBuffer: 1 << 28,
  });
  return { status: run.status, out: run.stdout, err: run.stderr };
}
const shared = () => ['--values', values, '--registers', registers];

describe('name and read', () => {
  const pattern = '{number}_{client.code}_{title:kebab}_v{version:000}.{ext}';

  test('writes one name', () => {
    expect(nesting(['name', '-p', pattern, ...shared(), '--set', 'version=3', '--set', 'ext=pdf'])).toEqual({
      status: 0,
      out: '26014_QHT_harbour-lights_v003.pdf\n',
      err: '',
    });
    expect(nesting(['name', '-p', pattern, ...shared()])).toMatchObject({
      status: 1,
      err: expect.stringContaining('version has no value yet'),
    });
  });

  test('reads a JSON line for each name, and says why one does not read', () => {
    const { status, out } = nesting(
      ['read', '-p', pattern, ...shared()],
      '26014_QHT_harbour-lights_v003.pdf\n26014_QHT_harbour-lights_V3.pdf\n',
    );
    const [good, bad] = out
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Record<string, unknown>);
    expect(status).toBe(1);
    expect(good).toEqual({
      name: '26014_QHT_harbour-lights_v003.pdf',
      ok: true,
      values: { number: '26014', client: 'QHT', title: 'harbour-lights', version: 3, ext: 'pdf' },
    });
    expect(bad).toMatchObject({
      ok: false,
      problems: expect.arrayContaining([{ part: 'version', at: 26, expected: 'a number of 3 digits', found: '3' }]),
      suggestions: expect.arrayContaining([
        expect.objectContaining({ name: '26014_QHT_harbour-lights_v003.pdf', confidence: 'sure' }),
      ]),
    });
  });

  test('proves that a rule reads one way, or shows the shortest name that reads two', () => {
    expect(nesting(['prove', '-p', '{title:kebab}_{part:kebab}'])).toMatchObject({
      status: 0,
      out: '{"oneWay":true}\n',
    });
    const { status, out } = nesting(['prove', '-p', '{title:kebab}-{part:kebab}']);
    expect([status, JSON.parse(out)]).toMatchObject([
      1,
      { oneWay: false, example: { name: expect.stringMatching(/^\w-\w-\w$/), readings: [{}, {}] } },
    ]);
  });

  test('learns a convention file that reads the very names it came from, and tells what fits none', () => {
    const names = ['tower', 'west-front', 'old-mill', 'crane', 'gate'].flatMap((t, i) =>
      [1, 2, 3].map((v) => `26014_${t}_s0${i + 1}_v00${v}.usda`),
    );
    const learned = nesting(['learn', '--registers', registers], `${names.join('\n')}\n26014 tower s1 V3.usda\n`);
    expect(learned).toMatchObject({ status: 1, err: expect.stringContaining('fits none: 26014 tower s1 V3.usda') });
    const file = path.join(dir, 'learned.convention.json');
    writeFileSync(file, learned.out);
    expect(JSON.parse(learned.out)).toMatchObject({
      format: 'nesting/convention',
      pattern: '{number}_{title:kebab}_{scene}_v{version:000}.{ext}',
    });
    expect(nesting(['read', file, '--registers', registers], `${names.join('\n')}\n`)).toMatchObject({ status: 0 });
    expect(nesting(['prove', file, '--registers', registers])).toMatchObject({ status: 0 });
    expect(nesting(['learn'], '')).toMatchObject({ status: 2, out: '' });
  });

  test('a convention file is a rule too', () => {
    const file = path.join(dir, 'w.convention.json');
    writeFileSync(
      file,
      JSON.stringify({
        format: 'nesting/convention',
        formatVersion: 1,
        id: 'w',
        name: 'W',
        pattern: '{task}_{scene}',
        fields: [
          { key: 'task', type: 'choice', options: [{ code: 'anim' }] },
          { key: 'scene', type: 'text', like: 's00' },
        ],
      }),
    );
    expect(nesting(['read', file], 'anim_s01\n')).toMatchObject({
      status: 0,
      out: `${JSON.stringify({ name: 'anim_s01', ok: true, values: { task: 'anim', scene: 's01' } })}\n`,
    });
  });

  test.each([
    [['read', '-p', '{a'], 'character 1'],
    [['read', 'gone.convention.json'], 'cannot be read'],
    [['name'], 'give a convention file'],
    [['expand', 'values.json'], 'values.json'],
    [['frobnicate'], 'no command'],
    [['check', 'nowhere'], 'no such folder'],
    [['check', '.'], 'no marker'],
    [['expand', TEMPLATE, '--as', 'cake'], 'one of paths'],
    [['check', TEMPLATE, '.'], 'cannot be worked out'],
  ])('%j is unusable, in one line', (args, words) => {
    const { status, out, err } = nesting(args);
    expect({ status, out, lines: err.trim().split('\n').length }).toEqual({ status: 2, out: '', lines: 1 });
    expect(err).toContain(words);
  });
});

describe('a convention that nobody can read', () => {
  const broken = (pattern: string, more: object = {}): string => {
    const template = JSON.parse(readFileSync(TEMPLATE, 'utf8')) as { conventions: object[] };
    template.conventions[0] = { ...template.conventions[0], pattern, ...more };
    const at = path.join(mkdtempSync(path.join(dir, 'broken-')), 'facade-show.nest.json');
    writeFileSync(at, JSON.stringify(template));
    return at;
  };

  test.each([
    ['a brace that is open', '{number}_{surface', {}],
    ['a shape that there is none of', '{number}_{surface:kebob}', {}],
    ['a family that nobody knows', '{number}.{ext}', { families: ['3D scenes'] }],
    ['a choice without options', '{number}_{task}', { fields: [{ key: 'task', type: 'choice' }] }],
    ['one text twice', '{title}_{title}', {}],
  ])('%s: nothing is made, and nothing is judged', (_, pattern, more) => {
    const at = broken(pattern, more);
    const into = mkdtempSync(path.join(dir, 'nothing-'));
    const made = nesting(['create', at, '--into', into, ...shared()]);
    expect([made.status, readdirSync(into)]).toEqual([1, []]);
    const root = path.join(into, '26014_QHT_harbour-lights');
    expect(nesting(['create', TEMPLATE, '--into', into, ...shared()]).status).toBe(0);
    const judged = nesting(['check', at, root, ...shared()]);
    expect([judged.status, judged.out, judged.err]).toEqual([
      2,
      '',
      expect.stringMatching(/convention .*cannot be read/),
    ]);
  });
});

describe('expand, create, check', () => {
  test('every way of making a project makes the same tree', () => {
    const trees = ['disk', 'sh', 'zip'].map((way) => {
      const into = path.join(dir, way);
      mkdirSync(into);
      if (way === 'disk') expect(nesting(['create', TEMPLATE, '--into', into, ...shared()]).status).toBe(0);
      else if (way === 'sh') {
        writeFileSync(path.join(dir, 'make.sh'), nesting(['expand', TEMPLATE, ...shared(), '--as', 'sh']).out);
        execFileSync('sh', [path.join(dir, 'make.sh')], { cwd: into });
        expect(spawnSync('sh', [path.join(dir, 'make.sh')], { cwd: into }).status).toBe(1);
      } else {
        const zip = spawnSync(process.execPath, [
          path.join(repo, 'bin/nesting.js'),
          'expand',
          TEMPLATE,
          ...shared(),
          '--as',
          'zip',
        ]);
        writeFileSync(path.join(dir, 'make.zip'), zip.stdout);
        execFileSync('python3', ['-m', 'zipfile', '-e', path.join(dir, 'make.zip'), into]);
      }
      return listed(into);
    });
    expect(trees[0]?.length).toBeGreaterThan(50);
    expect(trees[1]).toEqual(trees[0]);
    expect(trees[2]).toEqual(trees[0]);
    const paths = nesting(['expand', TEMPLATE, ...shared()])
      .out.trim()
      .split('\n')
      .map((l) => l.replace(/\/$/, ''));
    expect(paths.sort()).toEqual(
      trees[0]
        ?.map((l) => l.split('=')[0] as string)
        .filter((l) => !l.includes('.nesting'))
        .sort(),
    );
  });

  test('PowerShell is quoted so that no name can run', () => {
    const evil = path.join(dir, 'evil.json');
    writeFileSync(
      evil,
      JSON.stringify({
        format: 'nesting/template',
        formatVersion: 1,
        name: 'x',
        root: { name: '{number}', folders: [{ name: "a'$((rm))\u2019b" }] },
      }),
    );
    expect(nesting(['expand', evil, '--set', 'number=1', '--as', 'powershell']).out).toContain(
      "'a''$(rm)\u2019\u2019b'",
    );
    expect(nesting(['expand', evil, '--set', 'number=1', '--as', 'sh']).out).toContain(
      "mkdir './1/a'\\''$(rm)\u2019b'",
    );
  });

  test('a start is refused where it cannot be whole, and nothing is written', () => {
    const into = path.join(dir, 'refused');
    mkdirSync(into);
    expect(nesting(['create', TEMPLATE, '--into', into, ...shared(), '--set', 'client=ZZZ'])).toMatchObject({
      status: 1,
      err: expect.stringContaining('nothing was written'),
    });
    expect(nesting(['create', TEMPLATE, '--into', into, ...shared(), '--dry-run']).status).toBe(0);
    expect(readdirSync(into)).toEqual([]);
    mkdirSync(path.join(into, '26014_QHT_harbour-lights'));
    expect(nesting(['create', TEMPLATE, '--into', into, ...shared()])).toMatchObject({
      status: 1,
      err: expect.stringContaining('exists already'),
    });
    const gone = path.join(dir, 'gone-starter.json');
    writeFileSync(
      gone,
      JSON.stringify({
        format: 'nesting/template',
        formatVersion: 1,
        name: 'x',
        root: { name: '{number}', starters: [{ name: 'a', from: '../../etc/passwd' }] },
      }),
    );
    expect(nesting(['create', gone, '--into', into, '--set', 'number=1'])).toMatchObject({
      status: 2,
      err: expect.stringContaining('leads out'),
    });
    expect(existsSync(path.join(into, '1'))).toBe(false);
  });

  test('killed at any moment, a project is whole or not there, and starting again works', async () => {
    const large = path.join(dir, 'large.json');
    writeFileSync(
      large,
      JSON.stringify({
        format: 'nesting/template',
        formatVersion: 1,
        name: 'Large',
        fields: [{ key: 'days', type: 'list', of: { type: 'count' } }],
        root: { name: '{number}', folders: [{ name: 'd{day:0000}', onePer: { list: 'days', as: 'day' } }] },
      }),
    );
    const args = (into: string) => [
      path.join(repo, 'bin/nesting.js'),
      'create',
      large,
      '--into',
      into,
      '--set',
      'number=1',
      '--set',
      'days=1..6000',
    ];
    let cut = 0;
    for (const when of [1, 400, 3000]) {
      const into = path.join(dir, `killed-${when}`);
      mkdirSync(into);
      const child = spawn(process.execPath, args(into), { stdio: 'ignore' });
      const ended = new Promise((resolve) => child.once('exit', resolve));
      // Killed as soon as so many folders are there, or let go when it was quicker than that.
      for (let there = 0; there < when && child.exitCode === null; ) {
        const unfinished = readdirSync(into).find((n) => n.startsWith('.nesting-unfinished-'));
        there = unfinished === undefined ? 0 : readdirSync(path.join(into, unfinished)).length;
        await new Promise((resolve) => setImmediate(resolve));
      }
      child.kill('SIGKILL');
      await ended;
      const names = readdirSync(into);
      if (names.includes('1')) expect(readdirSync(path.join(into, '1'))).toHaveLength(6001);
      else cut++;
      expect(names.filter((n) => n !== '1' && !n.startsWith('.nesting-unfinished-'))).toEqual([]);
      if (!names.includes('1')) expect(spawnSync(process.execPath, args(into)).status).toBe(0);
      expect(readdirSync(path.join(into, '1'))).toHaveLength(6001);
    }
    expect(cut).toBeGreaterThan(0);
  });

  test('a project just made is in order; damage is found, in every form, and by a listing too', () => {
    const into = path.join(dir, 'checked');
    mkdirSync(into);
    nesting(['create', TEMPLATE, '--into', into, ...shared()]);
    const project = path.join(into, '26014_QHT_harbour-lights');
    expect(nesting(['check', project])).toMatchObject({ status: 0, out: expect.stringContaining('0 must') });
    writeFileSync(path.join(project, '40_motion/west-front/s02/working/26014_west-front_s02_animation_BO_v3.usda'), '');
    writeFileSync(path.join(project, '=cmd.txt'), '');
    rmSync(path.join(project, '30_design/type'), { recursive: true });
    const { status, out } = nesting(['check', project, '--json']);
    const result = JSON.parse(out) as { summary: Record<string, number>; findings: Record<string, unknown>[] };
    expect(status).toBe(1);
    expect(result.summary).toEqual({
      must: 2,
      should: 1,
      note: 0,
      files: 4,
      folders: readdirSync(project, { recursive: true, withFileTypes: true }).filter((e) => e.isDirectory()).length - 1,
    });
    expect(result.findings.map((f) => [f.rule, f.path, f.suggestion])).toEqual([
      ['missing-folder', '30_design/type', undefined],
      [
        'name-mismatch',
        '40_motion/west-front/s02/working/26014_west-front_s02_animation_BO_v3.usda',
        '26014_west-front_s02_anim_BO_v003.usda',
      ],
      ['loose-file', '=cmd.txt', undefined],
    ]);
    expect(nesting(['check', project, '--as', 'csv']).out).toContain("'=cmd.txt");
    const sarif = JSON.parse(nesting(['check', project, '--as', 'sarif']).out) as {
      version: string;
      runs: { results: unknown[] }[];
    };
    expect([sarif.version, sarif.runs[0]?.results.length]).toEqual(['2.1.0', 3]);
    const find = execFileSync('find', ['.'], { cwd: into, encoding: 'utf8' });
    expect(
      JSON.parse(nesting(['check', TEMPLATE, '--listing', '-', ...shared(), '--json'], find).out).findings,
    ).toEqual(result.findings);
    renameSync(project, path.join(into, 'moved'));
    expect(JSON.parse(nesting(['check', path.join(into, 'moved'), '--json']).out).findings).toEqual(result.findings);
  });
});

/** Paths with what is in the files; what a start makes anew each time (its id and hour) left out. */
function listed(folder: string): string[] {
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .map((e) => {
      const whole = path.join(e.parentPath, e.name);
      return e.isFile()
        ? `${path.relative(folder, whole)}=${readFileSync(whole, 'utf8').replace(/"(project|started)": "[^"]*"/g, '')}`
        : path.relative(folder, whole);
    })
    .sort();
}

describe('undo', () => {
  test('lists a project’s batches, shows what taking one back would do, takes it back, and says what stays', async () => {
    const root = path.join(dir, 'undo project');
    mkdirSync(path.join(root, '.nesting'), { recursive: true });
    for (const file of ['a.txt', 'b.txt']) writeFileSync(path.join(root, file), file);
    const change = (before: string, after: string) => ({
      ...{ id: before, subject: { kind: 'file' as const }, group: null, entry: 'file' as const },
      ...{ before: home(before), after: home(after), content: null },
    });
    const outcome = await applyOnDisk({
      roots: onlyHome(Root.open({ base: root, folder: '' })),
      id: 'b1',
      what: 'test',
      by: 'IT',
      at: '2026-11-25T10:00:00Z',
      changes: [change('a.txt', 'c.txt'), change('b.txt', 'd.txt')],
      bytesOf: () => new Uint8Array(),
    });
    expect(outcome.state).toBe('done');
    expect(nesting(['undo', root])).toMatchObject({
      status: 0,
      out: 'b1  2026-11-25T10:00:00Z  test  2 changes  done  IT\n',
    });
    expect(nesting(['undo', root, 'b1', '--dry-run'])).toEqual({
      status: 0,
      out: 'move c.txt → a.txt\nmove d.txt → b.txt\n',
      err: '',
    });
    rmSync(path.join(root, 'd.txt'));
    const undone = nesting(['undo', root, 'b1', '--json']);
    expect([undone.status, undone.err, JSON.parse(undone.out)]).toEqual([
      1,
      'stays: d.txt is not there any more.\n',
      { batch: expect.any(String), lines: 1, stay: 1 },
    ]);
    expect(readdirSync(root).sort()).toEqual(['.nesting', 'a.txt']);
    expect(nesting(['undo', root]).out).toContain('2 changes  done, 1 undone  IT');
    expect(nesting(['undo', root, 'b1'])).toMatchObject({
      status: 1,
      err: expect.stringContaining('nothing of it can be undone now'),
    });
    expect(nesting(['undo', root, 'nobody'])).toMatchObject({
      status: 2,
      err: expect.stringContaining('has no batch nobody'),
    });
    expect(nesting(['undo', path.join(dir, 'nowhere')])).toMatchObject({ status: 2 });
  });

  test('a batch that a crash left half way is taken back whole', async () => {
    const root = path.join(dir, 'half way');
    mkdirSync(path.join(root, '.nesting'), { recursive: true });
    writeFileSync(path.join(root, 'a.txt'), 'a');
    const same = { subject: { kind: 'file' as const }, group: null };
    const changes = [
      { ...same, id: 'n', entry: 'folder' as const, before: null, after: home('n'), content: null },
      { ...same, id: 'a', entry: 'file' as const, before: home('a.txt'), after: home('n/a.txt'), content: null },
      {
        ...{ ...same, id: 'f', entry: 'file' as const, before: null, after: home('f') },
        content: { kind: 'text' as const, text: 'f' },
      },
    ];
    const outcome = await applyOnDisk({
      roots: onlyHome(Root.open({ base: root, folder: '' })),
      id: 'b1',
      what: 'test',
      by: '',
      at: '',
      changes,
      bytesOf: () => {
        writeFileSync(path.join(root, 'f'), 'somebody’s');
        return Buffer.from('f');
      },
    });
    expect(outcome).toMatchObject({ state: 'paused', at: home('f') });
    expect(nesting(['undo', root]).out).toContain('open');
    expect(nesting(['undo', root, 'b1'])).toMatchObject({ status: 0, out: 'took batch b1 back\n' });
    expect(readdirSync(root).sort()).toEqual(['.nesting', 'a.txt', 'f']);
  });

  test('one that was done, and that a crash left open, is undone as any other', async () => {
    const root = path.join(dir, 'done and open');
    mkdirSync(path.join(root, '.nesting'), { recursive: true });
    const change = {
      ...{ id: 'f', subject: { kind: 'file' as const }, group: null, entry: 'file' as const },
      ...{ before: null, after: home('f'), content: { kind: 'text' as const, text: 'f' } },
    };
    const roots = onlyHome(Root.open({ base: root, folder: '' }));
    const given = { roots, id: 'b1', what: 'test', by: '', at: '', changes: [change], bytesOf: () => Buffer.from('f') };
    expect(await applyOnDisk(given)).toMatchObject({ state: 'done' });
    const open = path.join(root, '.nesting/batches/open');
    writeFileSync(open, 'b1');
    utimesSync(open, 0, 0);
    expect(nesting(['undo', root, 'b1'])).toMatchObject({ status: 0, out: expect.stringContaining('undid 1 lines') });
    expect(readdirSync(root)).toEqual(['.nesting']);
  });
});

describe('repair', () => {
  const old = Date.UTC(2026, 2, 6) / 1000;

  /** A project with a week's mess in it, nothing of it written a moment ago. */
  function messy(name: string): string {
    const parent = path.join(dir, name);
    mkdirSync(parent);
    expect(nesting(['create', TEMPLATE, '--into', parent, ...shared()]).status).toBe(0);
    const root = path.join(parent, '26014_QHT_harbour-lights');
    const put = (at: string, text: string) => {
      writeFileSync(path.join(root, at), text);
      utimesSync(path.join(root, at), old, old);
    };
    const working = '40_motion/west-front/s01/working';
    put(
      `${working}/26014_west-front_s01_anim_BO_V004.usda`,
      '#usda 1.0\n(a = @../../../../50_sound/music/26014_MUS_V01.wav@) # é\n',
    );
    put('50_sound/music/26014_MUS_V01.wav', 'music');
    put("20_survey/it's mine.DS", 'x');
    put('.DS_Store', 'left behind');
    put('10_paperwork/quotes/2026-02-11:quote_harbour-lights.pdf', 'pdf');
    renameSync(path.join(root, '30_design'), path.join(root, '30 desing'));
    rmdirSync(path.join(root, '20_survey/measurements'));
    return root;
  }

  const treeOf = (root: string): string[] =>
    readdirSync(root, { recursive: true, encoding: 'utf8' })
      .filter((at) => !at.startsWith('.nesting'))
      .map((at) => {
        const entry = statSync(path.join(root, at));
        return entry.isDirectory() ? `${at}/` : `${at} ${entry.size} ${readFileSync(path.join(root, at), 'utf8')}`;
      })
      .sort();
  const timesOf = (root: string): string[] =>
    treeOf(root).map((line) => {
      const at = line.replace(/ \d+ [\s\S]*$/, '');
      return at.endsWith('/') ? at : `${at} ${statSync(path.join(root, at)).mtimeMs}`;
    });

  test('what is sure is done, the rest is said; it is undone to the same bytes and times', () => {
    const root = messy('repair one');
    const [tree, times] = [treeOf(root), timesOf(root)];
    const dry = nesting(['repair', root, '--dry-run']);
    expect(dry.status).toBe(1);
    expect(dry.out).toContain('move 30 desing → 30_design');
    expect(treeOf(root)).toEqual(tree);
    const done = nesting(['repair', root, '--json']);
    expect(done.status).toBe(1);
    const { batch, right, stay } = JSON.parse(done.out) as { batch: string; right: number; stay: number };
    expect(right).toBeGreaterThanOrEqual(6);
    expect(done.err.split('\n').filter((l) => l.startsWith('stays: '))).toHaveLength(stay);
    const working = readFileSync(
      path.join(root, '40_motion/west-front/s01/working/26014_west-front_s01_anim_BO_v004.usda'),
      'utf8',
    );
    expect(working).toContain('@../../../../50_sound/music/26014_MUS_v01.wav@');
    expect(existsSync(path.join(root, '.DS_Store'))).toBe(false);
    expect(nesting(['repair', root, '--dry-run']).out).toBe('');
    expect(nesting(['undo', root, batch]).status).toBe(0);
    expect(treeOf(root)).toEqual(tree);
    expect(timesOf(root)).toEqual(times);
  });

  test('the script, run, gives the same tree', () => {
    const [root, other] = [messy('repair two'), messy('repair three')];
    const script = nesting(['repair', other, '--as', 'sh']);
    expect(script.status).toBe(1);
    const run = spawnSync('sh', [], { cwd: other, input: script.out, encoding: 'utf8' });
    expect([run.status, run.stderr]).toEqual([0, '']);
    nesting(['repair', root]);
    expect(treeOf(other)).toEqual(treeOf(root));
  });

  test('one rule alone, likely too, and what cannot be meant', () => {
    const root = messy('repair four');
    const only = nesting(['repair', root, '--dry-run', '--only', 'missing-folder', '--as', 'json']);
    expect((JSON.parse(only.out) as { lines: { rule: string; to: string }[] }).lines).toMatchObject([
      { rule: 'missing-folder', to: '20_survey/measurements' },
    ]);
    expect(nesting(['repair', root, '--only', 'no-such-rule']).status).toBe(2);
    expect(nesting(['repair', root, '--confidence', 'guess']).status).toBe(2);
    expect(nesting(['repair', root, '--as', 'xml']).status).toBe(2);
    expect(nesting(['repair', path.join(dir, 'nowhere')]).status).toBe(2);
    expect(nesting(['repair', root, '--confidence', 'likely', '--dry-run']).status).toBe(1);
    // Where no journal can be kept nothing is done: it could not be undone.
    rmSync(path.join(root, '.nesting'), { recursive: true });
    const unmarked = nesting(['repair', TEMPLATE, root, ...shared()]);
    expect([unmarked.status, unmarked.err.includes('could not be undone')]).toEqual([2, true]);
    expect(nesting(['repair', TEMPLATE, root, '--dry-run', ...shared()]).status).toBe(1);
  });
});

describe('compare', () => {
  const written = (root: string, files: Readonly<Record<string, string>>) => {
    for (const [at, text] of Object.entries(files)) {
      mkdirSync(path.dirname(path.join(root, at)), { recursive: true });
      writeFileSync(path.join(root, at), text);
      utimesSync(path.join(root, at), 1_772_755_200, 1_772_755_200);
    }
    return root;
  };

  test('two folders of anything: what differs line by line, and the same as a table and as JSON', () => {
    const left = written(path.join(dir, 'then'), { 'a/one.txt': 'one', 'a/two.txt': 'two', 'b.txt': 'same' });
    const right = written(path.join(dir, 'now'), { 'c/one.txt': 'one', 'a/two.txt': 'three', 'b.txt': 'same' });
    const { status, out } = nesting(['compare', left, right]);
    expect([status, out]).toEqual([
      1,
      [
        'renamed: a/one.txt → c/one.txt',
        'changed: a/two.txt',
        'same: 1, renamed: 1, changed: 1, only-left: 0, only-right: 0\n',
      ].join('\n'),
    ]);
    const { rows } = JSON.parse(nesting(['compare', left, right, '--json']).out) as { rows: { state: string }[] };
    expect(rows.map((r) => r.state)).toEqual(['renamed', 'changed', 'same']);
    expect(nesting(['compare', left, right, '--as', 'csv']).out.split('\n')[1]).toMatch(
      /^renamed,content,a\/one\.txt,3,/,
    );
    expect(nesting(['compare', left, left]).status).toBe(0);
  });

  test('two projects by what their names mean', () => {
    const made = (number: string) => {
      const parent = path.join(dir, `compared ${number}`);
      mkdirSync(parent);
      const { status } = nesting(['create', TEMPLATE, '--into', parent, ...shared(), '--set', `number=${number}`]);
      expect(status).toBe(0);
      return path.join(parent, readdirSync(parent)[0] ?? '');
    };
    const name = (number: string) => `50_sound/music/${number}_MUS_v01.wav`;
    const [left, right] = ['26014', '26015'].map((number) => written(made(number), { [name(number)]: 'a song' }));
    expect(nesting(['compare', left ?? '', right ?? '']).out).toContain(
      `renamed: ${name('26014')} → ${name('26015')}\n`,
    );
  });

  test('what cannot be compared is said, and nothing is printed', () => {
    for (const args of [[], [dir], [dir, path.join(dir, 'nowhere')], [dir, TEMPLATE], [dir, dir, '--as', 'xml']]) {
      const { status, out, err } = nesting(['compare', ...args]);
      expect([status, out, err.split('\n').length]).toEqual([2, '', 2]);
    }
  });
});

describe('sort', () => {
  /** A project, and a heap beside it. */
  function sorted(name: string, template = TEMPLATE): { readonly root: string; readonly heap: string } {
    const [parent, heap] = [path.join(dir, name), path.join(dir, `${name} heap`)];
    for (const at of [parent, path.join(heap, 'x')]) mkdirSync(at, { recursive: true });
    expect(nesting(['create', template, '--into', parent, ...shared()]).status).toBe(0);
    writeFileSync(path.join(heap, '26014_MUS_v01.wav'), 'a song');
    writeFileSync(path.join(heap, 'x/26014_MUS_v01 (1).wav'), 'a song');
    writeFileSync(path.join(heap, 'Untitled.pdf'), 'nobody knows');
    return { root: path.join(parent, '26014_QHT_harbour-lights'), heap };
  }
  const song = '50_sound/music/26014_MUS_v01.wav';

  test('what has a place is brought, doubled ones once, orphans are said; a dry run writes nothing; undone', () => {
    const { root, heap } = sorted('sorted');
    const dry = nesting(['sort', '--from', heap, '--into', root, '--dry-run', '--json']);
    const said = JSON.parse(dry.out) as {
      routes: { from: string; to: string }[];
      orphans: string[];
      duplicates: object[];
    };
    expect([dry.status, existsSync(path.join(root, song))]).toEqual([1, false]);
    expect(said.routes).toMatchObject([{ from: '26014_MUS_v01.wav', to: song, confidence: 'sure' }]);
    expect(said.orphans).toEqual(['Untitled.pdf']);
    expect(said.duplicates).toMatchObject([{ from: 'x/26014_MUS_v01 (1).wav', where: 'heap' }]);
    const done = nesting(['sort', '--from', heap, '--into', root]);
    expect([done.status, readFileSync(path.join(root, song), 'utf8')]).toEqual([1, 'a song']);
    expect(readdirSync(heap).sort()).toEqual(['26014_MUS_v01.wav', 'Untitled.pdf', 'x']);
    const batch = /batch (\S+)/.exec(done.err)?.[1] ?? '';
    expect(nesting(['undo', root, batch]).status).toBe(0);
    expect(existsSync(path.join(root, song))).toBe(false);
  });

  test('where the template says so a list of checksums is laid beside what came, by a batch of its own', () => {
    const flagged = JSON.parse(readFileSync(TEMPLATE, 'utf8')) as { root: { folders: { name?: string }[] } };
    const folders = flagged.root.folders.map((node) => (node.name === 'sound' ? { ...node, checksums: true } : node));
    cpSync(path.dirname(TEMPLATE), path.join(dir, 'listing'), { recursive: true });
    const template = path.join(dir, 'listing', path.basename(TEMPLATE));
    writeFileSync(template, JSON.stringify({ ...flagged, root: { ...flagged.root, folders } }));
    const { root, heap } = sorted('listed', template);
    const done = nesting(['sort', '--from', heap, '--into', root]);
    const list = readdirSync(path.join(root, '50_sound')).find((name) => name.endsWith('.sha256')) ?? '';
    expect(readFileSync(path.join(root, '50_sound', list), 'utf8')).toMatch(
      /^[0-9a-f]{64} {2}music\/26014_MUS_v01\.wav\n$/,
    );
    const [, batch = ''] = /batch (\S+): checksums/.exec(done.err) ?? [];
    expect(nesting(['undo', root, batch]).status).toBe(0);
    expect([existsSync(path.join(root, '50_sound', list)), existsSync(path.join(root, song))]).toEqual([false, true]);
  });

  test('in two places at once: each copy proved by itself, and both go again where both places are named', () => {
    const { root, heap } = sorted('twice');
    const second = path.join(dir, 'twice second');
    mkdirSync(second);
    const done = nesting(['sort', '--from', heap, '--into', root, '--second', second]);
    const twin = path.join(second, path.basename(root), song);
    expect([done.status, readFileSync(twin, 'utf8')]).toEqual([1, 'a song']);
    const [, batch = ''] = /batch (\S+)/.exec(done.err) ?? [];
    // What is not named is not reached: it stays, and that is said.
    const half = nesting(['undo', root, batch]);
    expect([half.status, existsSync(path.join(root, song)), existsSync(twin)]).toEqual([1, false, true]);
    const whole = nesting(['undo', root, batch, '--second', second]);
    expect([whole.status, existsSync(twin)]).toEqual([0, false]);
    // What lies there already is not written over.
    mkdirSync(path.dirname(twin), { recursive: true });
    writeFileSync(twin, 'another');
    const taken = nesting(['sort', '--from', heap, '--into', root, '--second', second]);
    expect([taken.status, readFileSync(twin, 'utf8'), existsSync(path.join(root, song))]).toEqual([
      2,
      'another',
      false,
    ]);
    for (const wrong of [heap, root, path.dirname(root), path.join(dir, 'nowhere')])
      expect(nesting(['sort', '--from', heap, '--into', root, '--second', wrong]).status).toBe(2);
    expect(nesting(['sort', '--from', heap, '--into', root, '--second', second, '--move']).status).toBe(2);
  });

  test('what was moved goes back where it came from, when that is named', () => {
    const { root, heap } = sorted('moved back');
    const [, batch = ''] = /batch (\S+)/.exec(nesting(['sort', '--from', heap, '--into', root, '--move']).err) ?? [];
    expect(existsSync(path.join(heap, '26014_MUS_v01.wav'))).toBe(false);
    expect(nesting(['undo', root, batch, '--from', heap]).status).toBe(0);
    expect(readFileSync(path.join(heap, '26014_MUS_v01.wav'), 'utf8')).toBe('a song');
    expect(existsSync(path.join(root, song))).toBe(false);
  });

  test('moved, with a folder given by a value; unusable input is one line', () => {
    const { root, heap } = sorted('moved');
    expect(nesting(['sort', '--from', heap, '--into', root, '--move', '--as', 'csv']).out).toContain(song);
    expect([existsSync(path.join(heap, '26014_MUS_v01.wav')), existsSync(path.join(root, song))]).toEqual([
      false,
      true,
    ]);
    expect(existsSync(path.join(heap, '.nesting'))).toBe(false);
    for (const given of [
      ['--into', root],
      ['--from', heap],
      ['--from', root, '--into', root],
      ['--from', heap, '--into', heap],
    ]) {
      const refused = nesting(['sort', ...given]);
      expect([refused.status, refused.out, refused.err.trim().split('\n')]).toEqual([2, '', [expect.any(String)]]);
    }
    expect(nesting(['sort', '--from', heap, '--into', root, '--set', 'stand']).status).toBe(2);
  });
});

describe('carry', () => {
  const old = Date.UTC(2026, 2, 6) / 1000;
  const song = '50_sound/music/26014_MUS_v03.wav';
  const scene = '40_motion/west-front/s01/working/26014_west-front_s01_anim_BO_v004.usda';

  /** Worked on for a while. */
  function lived(name: string): { readonly root: string; readonly to: string } {
    const [parent, to] = [path.join(dir, name), path.join(dir, `${name} next`)];
    for (const at of [parent, to]) mkdirSync(at);
    expect(nesting(['create', TEMPLATE, '--into', parent, ...shared()]).status).toBe(0);
    const root = path.join(parent, '26014_QHT_harbour-lights');
    const put = (at: string, text: string) => {
      mkdirSync(path.dirname(path.join(root, at)), { recursive: true });
      writeFileSync(path.join(root, at), text);
      utimesSync(path.join(root, at), old, old);
    };
    put(song, 'a song');
    put('50_sound/music/26014_MUS_v02.wav', 'an older one');
    put(scene, `#usda 1.0\n@../../../../${song}@ @${root}/${song}@ # é\n`);
    put('70_library/stock/Harbour Lights gulls.wav', 'gulls');
    put('70_library/stock/Harbour Lights gulls.licence.txt', 'free');
    put('90_cache/west.cache', 'made by a program');
    return { root, to };
  }

  const wholeTree = (root: string): string[] =>
    readdirSync(root, { recursive: true, encoding: 'utf8' })
      .sort()
      .map((at) => {
        const entry = statSync(path.join(root, at));
        return entry.isDirectory() ? `${at}/` : `${at} ${entry.mtimeMs} ${readFileSync(path.join(root, at), 'utf8')}`;
      });

  const batchesOf = (root: string) =>
    nesting(['undo', root, '--json'])
      .out.split('\n')
      .filter((line) => line !== '')
      .map((line) => JSON.parse(line) as { batch: string; what: string; state: string });

  const next = ['--set', 'number=27003', '--set', 'title=Quay', '--set', 'client=OTM'];
  const carry = (root: string, to: string, ...more: string[]) =>
    nesting(['carry', root, '--to', to, '--registers', registers, ...next, ...more]);

  test('the next project has what is current under its own names, refers to its own, and is undone; the old one is as it was', () => {
    const { root, to } = lived('carried');
    const before = wholeTree(root);
    const dry = carry(root, to, '--dry-run', '--json');
    expect([dry.status, readdirSync(to)]).toEqual([0, []]);
    const said = JSON.parse(dry.out) as { root: string; changes: { from: string; to: string }[]; references: object[] };
    expect(said.changes).toContainEqual({ from: song, to: '50_sound/music/27003_MUS_v01.wav' });
    expect(said.references).toHaveLength(2);
    const done = carry(root, to);
    expect([done.status, done.err]).toEqual([0, '']);
    expect(wholeTree(root)).toEqual(before);
    const there = path.join(to, '27003_OTM_quay');
    const read = (at: string) => readFileSync(path.join(there, at), 'utf8');
    const now = '50_sound/music/27003_MUS_v01.wav';
    expect([read(now), statSync(path.join(there, now)).mtimeMs]).toEqual(['a song', old * 1000]);
    expect(read('40_motion/west-front/s01/working/27003_west-front_s01_anim_BO_v001.usda')).toBe(
      `#usda 1.0\n@../../../../${now}@ @${there}/${now}@ # é\n`,
    );
    expect(read('70_library/stock/Quay gulls.wav')).toBe('gulls');
    expect(existsSync(path.join(there, '90_cache/west.cache'))).toBe(false);
    const check = nesting(['check', there, '--json']);
    expect((JSON.parse(check.out) as { findings: object[] }).findings).toEqual([]);
    // Side by side nothing is new and nothing was worked on but the document that refers to others.
    expect(nesting(['compare', root, there]).out).toMatch(/changed: 40_motion[^\n]*\n/);
    expect(carry(root, to).err).toContain('exists already');
    const [batch] = batchesOf(there);
    expect(batch?.what).toBe('carry');
    expect(nesting(['undo', there, batch?.batch ?? '']).status).toBe(0);
    expect(existsSync(path.join(there, now))).toBe(false);
    expect(wholeTree(root)).toEqual(before);
  });

  test('a way says what comes and what it is called; one that cannot be is refused before anything is written', () => {
    const { root, to } = lived('by a way');
    const way = (body: object) => {
      const at = path.join(dir, 'way.carry.json');
      writeFileSync(at, JSON.stringify({ format: 'nesting/carry', formatVersion: 1, ...body }));
      return at;
    };
    const names = (at: string): string[] => {
      const { out, status } = carry(root, to, '--dry-run', '--json', '--way', at);
      expect(status).toBe(0);
      return (JSON.parse(out) as { changes: { to: string }[] }).changes.map((c) => path.basename(c.to));
    };
    const words = [{ old: 'gulls', new: 'terns' }];
    const kept = names(way({ version: 'keep', leave: [{ family: '3D scene' }], words }));
    expect(kept).toEqual(expect.arrayContaining(['27003_MUS_v03.wav', 'Quay terns.wav', 'Quay terns.licence.txt']));
    expect(kept.some((name) => name.endsWith('.usda'))).toBe(false);
    for (const bad of [{ version: 'twice' }, { words: [{ old: '', new: 'x' }] }, { more: 1 }, { formatVersion: 2 }]) {
      const { status, out, err } = carry(root, to, '--way', way(bad));
      expect([status, out, err.split('\n').length, readdirSync(to)]).toEqual([2, '', 2, []]);
    }
    expect(nesting(['carry', root]).status).toBe(2);
    // Into itself, by a link too, and one whose plan is refused: the old project stays as it is.
    const before = wholeTree(root);
    symlinkSync(root, path.join(dir, 'a way in'));
    for (const at of [root, path.join(root, '70_library'), path.join(dir, 'a way in')])
      expect([carry(root, at).status, wholeTree(root)]).toEqual([2, before]);
    expect([carry(root, to, '--set', 'surfaces=con').status, readdirSync(to)]).toEqual([2, []]);
    expect(nesting(['carry', path.join(dir, 'nowhere'), '--to', to]).status).toBe(2);
  });

  test('killed at any moment the old project is as it was, and what was begun is taken back', async () => {
    const { root, to } = lived('killed');
    for (let i = 0; i < 200; i++) writeFileSync(path.join(root, `70_library/stock/a ${i}.txt`), `${i}`);
    const before = wholeTree(root);
    const begun = performance.now();
    expect(carry(root, to).status).toBe(0);
    const whole = performance.now() - begun;
    rmSync(path.join(to, '27003_OTM_quay'), { recursive: true });
    for (const part of [0.5, 0.6, 0.7, 0.8, 0.85, 0.9, 0.95]) {
      const child = spawn(process.execPath, [
        path.join(repo, 'bin/nesting.js'),
        ...['carry', root, '--to', to, '--registers', registers, ...next],
      ]);
      const ended = new Promise((resolve) => child.once('exit', resolve));
      setTimeout(() => child.kill('SIGKILL'), whole * part);
      await ended;
      expect(wholeTree(root)).toEqual(before);
      const there = path.join(to, '27003_OTM_quay');
      if (!existsSync(there)) continue;
      for (const { batch, state } of batchesOf(there))
        if (state !== 'done') {
          // Whoever died a moment ago is waited for; here that is long ago.
          utimesSync(path.join(there, '.nesting/batches/open'), old, old);
          expect(nesting(['undo', there, batch]).status).toBe(0);
          expect(existsSync(path.join(there, song.replaceAll('26014', '27003').replace('v03', 'v01')))).toBe(false);
        }
      rmSync(there, { recursive: true });
    }
  });
});
