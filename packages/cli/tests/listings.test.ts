/** Listings as they come from anywhere, and names and files that mean no good: one line and a status, or a right answer. */
import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';

const repo = process.cwd();
let dir = '';

const template = {
  format: 'nesting/template',
  formatVersion: 1,
  name: 'T',
  registers: { families: [{ name: 'still', extensions: ['png'] }] },
  conventions: [{ id: 'c', name: 'C', pattern: '{number}_{title:kebab}.{ext}', families: ['still'] }],
  root: {
    name: '{number}_{title:kebab}',
    folders: [{ name: 'in', folders: [{ name: 'stills', conventions: ['c'] }] }, { name: 'out' }],
  },
};
const ROOT = '26014_harbour-lights';
const PATHS = [`${ROOT}/in`, `${ROOT}/in/stills`, `${ROOT}/out`, `${ROOT}/in/stills/26014_harbour-lights.png`];
const windows = PATHS.map((p) => `P:\\jobs\\${p.replaceAll('/', '\\')}`).join('\r\n');

beforeAll(() => {
  dir = mkdtempSync(path.join(tmpdir(), 'nesting listings '));
  writeFileSync(path.join(dir, 't.nest.json'), JSON.stringify(template));
  writeFileSync(path.join(dir, 'v.json'), JSON.stringify({ number: '26014', title: 'Harbour Lights' }));
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

function nesting(args: readonly string[], input: string | Buffer = '') {
  const run = spawnSync(process.execPath, [path.join(repo, 'bin/nesting.js'), ...args], {
    cwd: dir,
    input,
    encoding: 'utf8',
    maxBuffer: 1 << 28,
  });
  return { status: run.status, out: run.stdout, err: run.stderr };
}
const listed = (input: string | Buffer) =>
  nesting(['check', 't.nest.json', '--values', 'v.json', '--listing', '-'], input);

const CLEAN = '1 files in 3 folders: 0 must, 0 should, 0 note.\n';

describe('a listing is aligned with the project, and it is said how', () => {
  test.each([
    ['from inside', PATHS.map((p) => p.slice(ROOT.length + 1)).join('\n'), ''],
    ['from beside', PATHS.join('\n'), 'it is called so'],
    ['with whole paths', PATHS.map((p) => `/srv/studio/${p}`).join('\n'), 'it is called so'],
    ['with a drive and backslashes', windows, 'it is called so'],
    ['in UTF-16 with its mark', Buffer.from(`\ufeff${windows}`, 'utf16le'), 'it is called so'],
    ['in UTF-16 without one', Buffer.from(windows, 'utf16le'), 'it is called so'],
    ['with carriage returns alone', PATHS.join('\r'), 'it is called so'],
    [
      'of a folder with another name',
      PATHS.map((p) => `/srv/${p.replace(ROOT, 'copy of it')}`).join('\n'),
      'most of its planned folders are in it',
    ],
    [
      'among other projects',
      ['/srv/25001_old/in/a.png', '/srv/readme.txt', ...PATHS.map((p) => `/srv/${p}`)].join('\n'),
      'are passed over',
    ],
    [
      'as a tree with its whole path on top',
      `/srv/${ROOT}\n├── in\n│   └── stills\n│       └── 26014_harbour-lights.png\n└── out\n`,
      'it is called so',
    ],
  ])('%s', (_, text, said) => {
    const { status, out, err } = listed(text);
    expect([status, out]).toEqual([0, CLEAN]);
    expect(err).toContain(said);
  });

  test('one folder alone at the top is taken for the root, and that is said', () => {
    const { out, err } = listed(`/srv/somewhere/else.png\n`);
    expect(err).toContain("srv is taken for the project's root: nothing else is at the top of the listing.");
    expect(out).toContain('in is missing');
  });

  test.each([
    ['nothing', ''],
    ['blank lines', '\n \n\r\n'],
    ['an empty list', '[]'],
    ['JSON of another program', '[{"name":"x"},{"name":"y"}]'],
    ['an object without entries', '{"entries":5}'],
    ['JSON nested ten thousand deep', '['.repeat(10_000)],
  ])('%s is no listing: status 2 and one line', (_, text) => {
    const { status, out, err } = listed(text);
    expect([status, out]).toEqual([2, '']);
    expect(err).toMatch(/^nesting: [^\n]+\n$/);
  });

  test('four thousand levels, a line and a cell of millions of letters, a million lines', () => {
    const deep = Array.from({ length: 4000 }, (_, i) => `${ROOT}${'/d'.repeat(i)}/`).join('\n');
    expect(listed(`${PATHS.join('\n')}\n${deep}`).out).toContain('No rule knows the folder d.');
    const long = 'x'.repeat(5_000_000);
    expect(listed(`${PATHS.join('\n')}\n${ROOT}/in/stills/${long}.png`).out).toMatch(
      /^must {3}in\/stills\/x{3900,}[^\n]*…\n/,
    );
    expect(
      listed(
        `path,note\n${PATHS.map((p) => `${p},"${long}"`)
          .slice(0, 2)
          .join('\n')}`,
      ).status,
    ).toBe(1);
    const many = Array.from({ length: 1_000_000 }, (_, i) => `${ROOT}/in/other/${i}`).join('\n');
    expect(listed(`${PATHS.join('\n')}\n${many}`).out).toContain('0 must, 1 should, 0 note.');
  });
});

describe('what means no good', () => {
  const EVIL = '\u001b[31mred\u0007\u202e';

  test('names that would steer a terminal are written out; JSON is exact', () => {
    const lines = [...PATHS, `${ROOT}/in/stills/${EVIL}.png`].join('\n');
    const text = listed(lines);
    // biome-ignore lint/suspicious/noControlCharactersInRegex: these are what must not be there
    expect(text.out + text.err).not.toMatch(/[\u0000-\u0009\u000b-\u001f\u007f-\u009f\u202e]/);
    expect(text.out).toContain('\\x1b[31mred\\x07\\u202e.png');
    const json = nesting(['check', 't.nest.json', '--values', 'v.json', '--listing', '-', '--json'], lines);
    expect(JSON.parse(json.out).findings.map((f: { path: string }) => f.path)).toContain(`in/stills/${EVIL}.png`);
    const csv = nesting(['check', 't.nest.json', '--values', 'v.json', '--listing', '-', '--as', 'csv'], lines);
    // biome-ignore lint/suspicious/noControlCharactersInRegex: these are what must not be there
    expect(csv.out).not.toMatch(/[\u0007\u001b\u202e]/);
  });

  test.each([
    [
      'a template twenty thousand deep',
      `{"name":"x","folders":[${'{"name":"x","folders":['.repeat(20_000)}${']}'.repeat(20_000)}]}`,
    ],
    ['a template that is a list', '[]'],
    ['registers of wrong types', '{"clients":"QHT","people":[1],"families":{"a":1}}'],
    ['JSON cut off', '{"format":"nesting/template","root":'],
    ['not JSON at all', '\u0000\u0001\u0002'],
  ])('%s: one line and status 2, no stack trace, whatever reads it', (_, text) => {
    writeFileSync(path.join(dir, 'bad.json'), text);
    for (const args of [
      ['expand', 'bad.json'],
      ['check', 'bad.json', '--listing', 't.nest.json'],
      ['expand', 't.nest.json', '--registers', 'bad.json'],
      ['expand', 't.nest.json', '--values', 'bad.json'],
      ['read', 'bad.json'],
      ['prove', 'bad.json'],
    ]) {
      const { status, err } = nesting(args, 'x\n');
      // An empty list of values or of nothing may be used; what cannot be is one line.
      if (status === 2) expect([args, err]).toEqual([args, expect.stringMatching(/^nesting: [^\n]+\n$/)]);
      expect(err).not.toMatch(/\n\s+at /);
    }
  });

  test('forged journals and markers: no command trusts them, none prints a stack trace', () => {
    const root = path.join(dir, 'forged');
    mkdirSync(path.join(root, '.nesting/batches/..%2f'), { recursive: true });
    writeFileSync(path.join(root, '.nesting/project.json'), '{"format":"nesting/project","values":[],"template":7}');
    writeFileSync(path.join(root, '.nesting/batches/x.jsonl'), '{"step":\n\u0000{}');
    for (const args of [
      ['check', 'forged'],
      ['undo', 'forged'],
      ['undo', 'forged', '../../x'],
      ['repair', 'forged'],
    ]) {
      const { status, err } = nesting(args);
      expect([args, status === 0 || status === 2]).toEqual([args, true]);
      expect(err).not.toMatch(/\n\s+at /);
    }
  });
});

describe('derive', () => {
  test('a template from a folder on disk makes the same folders; what could not be told is asked', () => {
    const root = path.join(dir, '26014_harbour-lights');
    const folders = ['10_paper', '20_sound', '20_survey', '30_design/boards'];
    for (const folder of folders) mkdirSync(path.join(root, folder), { recursive: true });
    writeFileSync(path.join(root, '30_design/boards/a.png'), '');
    const { status, out, err } = nesting(['derive', '26014_harbour-lights', '--set', 'title=Harbour Lights']);
    expect([status, err]).toEqual([
      1,
      'question: 20_survey: 20_sound, 20_survey have one number: the second keeps it as a part of its name\n',
    ]);
    writeFileSync(path.join(dir, 'derived.nest.json'), out);
    const plan = nesting(['expand', 'derived.nest.json', '--values', 'v.json']);
    expect(plan.out.split('\n').filter((line) => line !== '')).toEqual(
      expect.arrayContaining(folders.map((folder) => expect.stringContaining(folder))),
    );
    expect(nesting(['derive', 'nowhere']).status).toBe(2);
    expect(nesting(['derive', '--listing', '-'], '{}').status).toBe(2);
  });
});
