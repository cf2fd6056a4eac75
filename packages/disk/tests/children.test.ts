/** Processes that work on disks: ended when they do not answer, when nobody waits any more, or when somebody else is at it. */

import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, test } from '@jest/globals';
import { Disks } from '../src/index';

const script = new URL(`file://${path.join(process.cwd(), 'dist/disk-child.js')}`);
const kind = { most: 1, memory: 256, bound: null, patience: 60_000, nice: 0 };
const limits = { look: { ...kind, bound: 3000, patience: 0 }, walk: kind, batch: kind, check: kind };
const disks = new Disks(script, limits);
const base = mkdtempSync(path.join(tmpdir(), 'nesting-children-'));
afterAll(async () => {
  await disks.close();
  rmSync(base, { recursive: true, force: true });
});

/** Other tests in this process may have started some of their own. */
const others = new Set<number>();
/** The processes that this test started. */
const children = (): number[] => started().filter((pid) => !others.has(pid));

const started = (): number[] =>
  readFileSync(`/proc/self/task/${process.pid}/children`, 'utf8')
    .split(' ')
    .filter((pid) => pid !== '')
    .map(Number);

const look = () => disks.run('volumeState', { base });
const walk = (lost?: AbortSignal, signal?: AbortSignal) =>
  disks.run('foldersBelow', { where: { base, folder: '' }, most: 10 }, { lost, signal });

describe('work on disks', () => {
  test('a process that does not answer is ended, whoever asked is told, and the next question starts another', async () => {
    for (const pid of started()) others.add(pid);
    expect((await look()).state).toBe('ready');
    const [hung] = children();
    if (hung === undefined) throw new Error('no process');
    process.kill(hung, 'SIGSTOP');
    await expect(look()).rejects.toMatchObject({ code: 'DISK-SILENT' });
    expect((await look()).state).toBe('ready');
    expect(children()).not.toContain(hung);
  });

  test('a process that ends early is told, and what waited behind it is done', async () => {
    await walk();
    const before = new Set(children());
    // Stopped first, so that it cannot answer before it ends.
    for (const pid of before) process.kill(pid, 'SIGSTOP');
    const failing = walk();
    const waiting = walk();
    for (const pid of before) process.kill(pid, 'SIGKILL');
    await expect(failing).rejects.toMatchObject({ code: 'DISK-ENDED' });
    expect((await waiting).folders).toEqual([]);
  });

  test('what waits is not begun once it is somebody else’s, or nobody waits for it', async () => {
    const stop = new AbortController();
    const all = [walk(), walk(stop.signal), walk(undefined, stop.signal)];
    stop.abort();
    const [first, ...others] = await Promise.allSettled(all);
    expect(first?.status).toBe('fulfilled');
    for (const other of others) expect(other).toMatchObject({ status: 'rejected', reason: { code: 'CANCELLED' } });
    await expect(walk(AbortSignal.abort())).rejects.toMatchObject({ code: 'CANCELLED' });
  });

  test('a process has nothing of the environment but what it needs', async () => {
    process.env.NESTING_SECRET_OF_TESTS = 'secret';
    await look();
    for (const pid of children()) expect(readFileSync(`/proc/${pid}/environ`, 'utf8')).not.toContain('secret');
    delete process.env.NESTING_SECRET_OF_TESTS;
  });

  test('what fails says where, and why', async () => {
    await expect(disks.run('reach', { where: { base, folder: 'gone' } })).rejects.toMatchObject({
      code: 'path-missing',
      path: 'gone',
    });
    await expect(disks.run('reach', { where: { base: '/nowhere', folder: '' } })).rejects.toMatchObject({
      code: 'root-missing',
    });
  });
});
