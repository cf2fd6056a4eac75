/** Packages by the built command line: packed, proved, unpacked, on a real disk. */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';

const repo = process.cwd();
const TEMPLATE = path.join(repo, 'demo/templates/facade-show.nest.json');
const registers = path.join(repo, 'demo/registers.json');
const VALUES = {
  ...{ number: '26014', title: 'Harbour Lights', client: 'QHT', date: '2026-11-27', surfaces: ['west-front'] },
  ...{ scenes: 's01..s03', stands: ['pier'], nights: '2026-03-02', speech: 'spoken', languages: ['nl'] },
};
let dir = '';

beforeAll(() => {
  dir = mkdtempSync(path.join(tmpdir(), 'nesting packages '));
  writeFileSync(path.join(dir, 'values.json'), JSON.stringify(VALUES));
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

function nesting(...args: readonly string[]) {
  const run = spawnSync(process.execPath, [path.join(repo, 'bin/nesting.js'), ...args], { cwd: dir, encoding: 'utf8' });
  return { status: run.status, out: run.stdout, err: run.stderr };
}

/** Worked on for a while, with what nobody outside should have. */
function lived(name: string): string {
  const parent = path.join(dir, name);
  mkdirSync(parent);
  const made = nesting('create', TEMPLATE, '--into', parent, '--values', 'values.json', '--registers', registers);
  expect(made.status).toBe(0);
  const root = path.join(parent, '26014_QHT_harbour-lights');
  writeFileSync(path.join(root, '50_sound/music/26014_MUS_v03.wav'), 'a song');
  writeFileSync(path.join(root, '50_sound/music/26014_MUS_v02.wav'), 'an older one');
  return root;
}

test.each(['zip', 'bag', 'bag-zip'])('a project goes out as a %s and comes back as the same project', (kind) => {
  const root = lived(kind);
  const [out, back] = [path.join(dir, `${kind} out`), path.join(dir, `${kind} back`)];
  for (const at of [out, back]) mkdirSync(at);
  expect(nesting('pack', root, '--to', out, '--as', kind, '--dry-run')).toMatchObject({ status: 0 });
  expect(readdirSync(out)).toEqual([]);
  expect(nesting('pack', root, '--to', out, '--as', kind)).toMatchObject({ status: 0 });
  const file = path.join(out, `26014_QHT_harbour-lights${kind === 'bag' ? '' : '.zip'}`);
  expect(nesting('verify', file).out).toMatch(/^whole: /m);
  expect(nesting('unpack', file, '--into', back).status).toBe(0);
  const again = path.join(back, '26014_QHT_harbour-lights');
  expect(nesting('compare', root, again).out).toBe('same: 4, renamed: 0, changed: 0, only-left: 0, only-right: 0\n');
  // Its rules came along: the same findings, without a template or values.
  expect(nesting('check', again, '--json').out).toBe(nesting('check', root, '--json').out);
  expect(nesting('unpack', file, '--into', back)).toMatchObject({ status: 2, out: '' });
});

test('one byte that is another is found, and nothing of it is unpacked', () => {
  const root = lived('torn');
  const file = path.join(dir, 'torn.zip');
  expect(nesting('pack', root, '--to', file, '--current').status).toBe(0);
  const bytes = readFileSync(file);
  bytes[bytes.length >> 1] = (bytes[bytes.length >> 1] ?? 0) ^ 1;
  writeFileSync(file, bytes);
  expect(nesting('verify', file)).toMatchObject({ status: 1, err: '' });
  const json = JSON.parse(nesting('verify', file, '--json').out) as { isWhole: boolean; isOuterRight: boolean };
  expect([json.isWhole, json.isOuterRight]).toEqual([false, false]);
  mkdirSync(path.join(dir, 'torn back'));
  expect(nesting('unpack', file, '--into', 'torn back')).toMatchObject({ status: 1, out: '' });
  expect(readdirSync(path.join(dir, 'torn back'))).toEqual([]);
});

test('what cannot be is one line, and nothing is written', () => {
  const root = lived('refused');
  for (const args of [
    ['pack'],
    ['pack', root],
    ['pack', root, '--to', root],
    ['pack', root, '--to', path.join(root, '50_sound/x.zip')],
    ['pack', root, '--to', 'x.zip', '--as', 'rar'],
    ['pack', root, '--to', 'x.zip', '--without', 'nothing'],
    ['pack', root, '--to', 'x.zip', '--within', 'nowhere'],
    ['pack', root, '--to', 'no/where/x.zip'],
    ['pack', 'nowhere', '--to', 'x.zip'],
    ['verify'],
    ['verify', 'nowhere'],
    ['verify', root],
    ['verify', root, '--as', 'csv'],
    ['unpack', root, '--into', '.'],
    ['unpack', 'x.zip'],
  ]) {
    const { status, out, err } = nesting(...args);
    expect([args, status, out]).toEqual([args, 2, '']);
    expect(err.trimEnd().split('\n').at(-1)).toMatch(/^nesting: /);
  }
  expect(existsSync(path.join(dir, 'x.zip'))).toBe(false);
  expect(readdirSync(dir).filter((name) => name.includes('.part'))).toEqual([]);
  expect(readdirSync(root).filter((name) => name.includes('.zip'))).toEqual([]);
});
