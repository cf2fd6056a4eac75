/**
 * A process that packs, killed by SIGKILL at calls of the file system, or whose disk is full from one call on: never
 * half a package under its name, and whoever packs again goes on to a whole one.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';

const repo = process.cwd();
let dir = '';
let source = '';
let failing = '';
/** Places along the way where it goes wrong; more of them now and then. */
const TRIES = Number(process.env.NESTING_KILLS ?? 5);

/** Loaded before the program: calls that write are counted, and from one of them on it goes wrong. */
const FAILING = `
import fs from 'node:fs';
import { syncBuiltinESMExports } from 'node:module';
import { isMainThread } from 'node:worker_threads';
const { KILLED_AT, FULL_AT, COUNTED } = process.env;
let calls = 0;
for (const name of !isMainThread ? [] : ['openSync', 'writeSync', 'writevSync', 'writeFileSync', 'renameSync', 'linkSync', 'mkdirSync', 'fsyncSync', 'unlinkSync', 'rmSync', 'ftruncateSync']) {
  const real = fs[name];
  fs[name] = (...args) => {
    const call = calls++;
    if (call === Number(KILLED_AT)) process.kill(process.pid, 'SIGKILL');
    if (call >= Number(FULL_AT) && /^write/.test(name)) throw Object.assign(new Error('ENOSPC'), { code: 'ENOSPC' });
    return real(...args);
  };
}
syncBuiltinESMExports();
if (COUNTED && isMainThread) process.on('exit', () => process.stderr.write('calls ' + calls + '\\n'));
`;

function nesting(args: readonly string[], env: Readonly<Record<string, string>> = {}) {
  const run = spawnSync(
    process.execPath,
    ['--import', pathToFileURL(failing).href, path.join(repo, 'bin/nesting.js'), ...args],
    { cwd: dir, encoding: 'utf8', env: { ...process.env, ...env } },
  );
  return { status: run.status, signal: run.signal, out: run.stdout, err: run.stderr };
}

beforeAll(() => {
  dir = mkdtempSync(path.join(tmpdir(), 'nesting killed '));
  failing = path.join(dir, 'failing.mjs');
  writeFileSync(failing, FAILING);
  const values = ['number=26014', 'title=Harbour', 'client=QHT'].flatMap((value) => ['--set', value]);
  writeFileSync(path.join(dir, 'small.nest.json'), JSON.stringify(TEMPLATE));
  expect(nesting(['create', 'small.nest.json', '--into', dir, ...values]).status).toBe(0);
  source = path.join(dir, '26014');
  for (let i = 0; i < 12; i++)
    writeFileSync(path.join(source, `clips/clip-${i}.mov`), `${i} `.repeat(100_000 * (i + 1)));
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

describe.each(['zip', 'bag', 'bag-zip'])('as a %s', (kind) => {
  const packed = (out: string, env: Readonly<Record<string, string>> = {}) =>
    nesting(['pack', source, '--to', out, '--as', kind], env);
  const nameOf = (out: string) => path.join(out, `26014${kind === 'bag' ? '' : '.zip'}`);
  const into = (name: string) => {
    const out = path.join(dir, `${kind} ${name}`);
    mkdirSync(out);
    return out;
  };

  test('wherever it goes wrong', () => {
    const whole = into('whole');
    const counted = packed(whole, { COUNTED: 'yes' });
    const calls = Number(/calls (\d+)/.exec(counted.err)?.[1]);
    expect([counted.status, calls > 20]).toEqual([0, true]);
    const left = readdirSync(whole).sort();
    const ended = { killed: 0, full: 0 };
    for (let i = 0; i < TRIES; i++)
      for (const way of ['KILLED_AT', 'FULL_AT'] as const) {
        const out = into(`${way} ${i}`);
        const at = String(Math.floor(((i + 0.5) * calls) / TRIES));
        const first = packed(out, { [way]: at });
        if (first.signal === 'SIGKILL') ended.killed++;
        else if (first.status !== 0) ended.full++;
        // What has the name is whole, by a program that knows nothing of how it was made.
        if (existsSync(nameOf(out))) expect([at, nesting(['verify', nameOf(out)]).status]).toEqual([at, 0]);
        else expect([way, at, first.status]).not.toEqual([way, at, 0]);
        const again = packed(out);
        if (again.status !== 0)
          expect([way, at, existsSync(nameOf(out)), again.err]).toEqual([way, at, true, again.err]);
        expect(nesting(['verify', nameOf(out)]).out).toMatch(/^whole: /m);
        expect([way, at, readdirSync(out).sort()]).toEqual([way, at, left]);
        rmSync(out, { recursive: true });
      }
    expect(ended.killed).toBeGreaterThan(2);
    expect(ended.full).toBeGreaterThan(1);
  }, 240_000);
});

const TEMPLATE = {
  ...{ format: 'nesting/template', formatVersion: 1, id: 'small', name: 'Small', conventions: [] },
  fields: [{ key: 'title', type: 'text' }],
  registers: {
    families: [{ name: 'moving image', extensions: ['mov'] }],
    clients: [{ code: 'QHT', name: 'Quillhaven Trust' }],
  },
  root: { id: 'root', name: '{number}', folders: [{ id: 'clips', name: 'clips', accepts: ['moving image'] }] },
};
