/** Folders that become links while they are worked in: nothing outside is read or written. */
import { spawn, spawnSync } from 'node:child_process';
import { lstatSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, expect, test } from '@jest/globals';
import { type Change, home } from '@nesting/core/change';
import { NO_REGISTERS } from '@nesting/core/name';
import { normaliseTemplate } from '@nesting/core/template';
import { build } from 'esbuild';
import { Disks } from '../src/index';

const template = normaliseTemplate({
  format: 'nesting/template',
  formatVersion: 1,
  name: 'Show',
  fields: [],
  conventions: [],
  root: { name: '{number}', folders: [{ name: 'a', folders: [{ name: 'b' }] }, { name: 'c' }, { name: 'd' }] },
});

/** However quick the other program is. */
const ROUNDS = 100;

const folder = mkdtempSync(path.join(tmpdir(), 'nesting-attack-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

interface Told {
  readonly hits: Readonly<Record<string, number>>;
  readonly said: readonly string[];
}

async function attacked(more: Readonly<Record<string, string>>): Promise<Told> {
  const script = path.join(folder, 'attack.mjs');
  await build({
    entryPoints: ['packages/disk/tests/swaps/attack.ts'],
    outfile: script,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'error',
  });
  const rules = {
    NESTING_SWAP_TEMPLATE: JSON.stringify(template),
    NESTING_SWAP_REGISTERS: JSON.stringify(NO_REGISTERS),
  };
  const env = { ...process.env, ...rules, ...more };
  const ran = spawnSync(process.execPath, [script], { encoding: 'utf8', maxBuffer: 1e8, env });
  expect(ran.stderr).toBe('');
  return JSON.parse(ran.stdout) as Told;
}

test('at the calls of every task a folder becomes a link', async () => {
  const { hits, said } = await attacked({});
  process.stdout.write(`calls at which a folder became a link: ${JSON.stringify(hits)}\n`);
  expect(said).toEqual([]);
  expect(Object.values(hits).reduce((a, b) => a + b)).toBeGreaterThan(2500);
}, 300_000);

test('the same attack gets out where paths are used', async () => {
  const { said } = await attacked({
    NESTING_WITHOUT_HANDLES: '1',
    NESTING_SWAP_ONLY: 'batch',
    NESTING_SWAP_EACH: '17',
  });
  expect(said.length).toBeGreaterThan(0);
}, 300_000);

test('another program swaps folders ten thousand times while processes work in them', async () => {
  const [studio, outside] = ['studio', 'outside'].map((name) => path.join(folder, name)) as [string, string];
  const show = path.join(studio, 'show');
  for (const at of ['a/b', '.nesting']) mkdirSync(path.join(show, at), { recursive: true });
  for (const at of ['b', 'a']) mkdirSync(path.join(outside, at), { recursive: true });
  for (let n = 0; n < 20; n++) writeFileSync(path.join(show, `a/b/f${n}`), String(n));
  for (const at of ['', 'b']) writeFileSync(path.join(outside, at, 'SECRET.txt'), 'SECRET');
  const before = pictureOf(outside);
  const swapper = path.join(folder, 'swapper.mjs');
  writeFileSync(
    swapper,
    `import fs from 'node:fs';
    const [, , at, outside] = process.argv;
    for (let n = 0; ; n++) {
      if (n === 10000) console.log('enough');
      // Somebody else may have made something of that name: it is left.
      try {
        fs.renameSync(at, at + '.was');
        fs.symlinkSync(outside, at);
        fs.unlinkSync(at);
        fs.renameSync(at + '.was', at);
      } catch { try { fs.renameSync(at + '.was', at); } catch {} }
    }`,
  );
  const program = spawn(process.execPath, [swapper, path.join(show, 'a'), outside], {
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  let isEnough = false;
  program.stdout.once('data', () => {
    isEnough = true;
  });
  const kind = { most: 2, memory: 512, bound: null, patience: 10_000, nice: 0 };
  const limits = { look: { ...kind, bound: 10_000 }, walk: kind, batch: kind, check: kind };
  const disks = new Disks(new URL(`file://${path.join(process.cwd(), 'dist/disk-child.js')}`), limits);
  const where = { base: studio, folder: 'show' };
  const input = { template, values: { number: '26014' }, registers: NO_REGISTERS };
  const made: Change = {
    id: 'in',
    subject: { kind: 'file' },
    group: null,
    entry: 'folder',
    before: null,
    after: home('in'),
    content: null,
  };
  const told: unknown[] = [];
  let rounds = 0;
  const ask = async (work: Promise<unknown>) => void told.push(await work.catch((error: unknown) => String(error)));
  try {
    for (; !isEnough || rounds < ROUNDS; rounds++) {
      const changes = Array.from({ length: 20 }, (_, n) => ({
        id: `f${n}`,
        subject: { kind: 'file' as const },
        group: null,
        entry: 'file' as const,
        before: home(rounds % 2 === 0 ? `a/b/f${n}` : `a/g${n}`),
        after: home(rounds % 2 === 0 ? `a/g${n}` : `a/b/f${n}`),
        content: null,
      }));
      const id = `b${rounds}`;
      const batch = { where, others: [], id, what: 'test', by: '', at: '', undoes: null, changes, contents: new Map() };
      const contents = { roots: ['/srv/show'], known: [] };
      await Promise.all([
        ask(
          disks
            .run('applyBatch', batch)
            .then(() =>
              disks.run('settleBatch', { where, others: [], id, way: 'take-back', by: '', at: '', lockMs: 0 }),
            ),
        ),
        ask(disks.run('namesBelow', { where, most: 1000 })),
        ask(disks.run('folder', { where, mounts: [], path: 'a/b' })),
        ask(disks.run('check', { where, input, helper: null, gatherEvery: 1e9, contents })),
        ask(
          disks.run('start', {
            where: { base: show, folder: 'a' },
            folder: `p${rounds}`,
            project: `p${rounds}`,
            changes: [made],
            contents: new Map(),
          }),
        ),
      ]);
    }
  } finally {
    program.kill();
    await disks.close();
  }
  process.stdout.write(`${rounds} rounds of five tasks during ten thousand swaps and more\n`);
  expect(JSON.stringify(told)).not.toContain('SECRET');
  expect(pictureOf(outside)).toEqual(before);
}, 120_000);

function pictureOf(at: string): string[] {
  return readdirSync(at, { withFileTypes: true }).flatMap((entry) => {
    const whole = path.join(at, entry.name);
    const stats = lstatSync(whole);
    return [`${whole} ${stats.ino} ${stats.ctimeMs}`, ...(entry.isDirectory() ? pictureOf(whole) : [])];
  });
}
