/** Two who know nothing of each other at one batch, as a server and somebody at the command line: one of them is. */
import { mkdirSync, mkdtempSync, readdirSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, afterEach, describe, expect, jest, test } from '@jest/globals';
import { type Change, home } from '@nesting/core/change';
import { applyOnDisk, BatchOpen, onlyHome, openIn, Root, readBatch, settleOnDisk } from '../src/index';
import { Lock } from '../src/roots/lock';

const all: string[] = [];
afterAll(() => {
  for (const folder of all) rmSync(folder, { recursive: true, force: true });
});
afterEach(() => void jest.restoreAllMocks());

const COUNT = 450;
const changes = Array.from(
  { length: COUNT },
  (_, i): Change => ({
    id: `f${i}`,
    subject: { kind: 'file' },
    group: null,
    entry: 'file',
    before: home(`f${i}`),
    after: home(`g${i}`),
    content: null,
  }),
);

function laid(): string {
  const folder = mkdtempSync(path.join(tmpdir(), 'nesting lock '));
  all.push(folder);
  mkdirSync(path.join(folder, '.nesting'));
  for (let i = 0; i < COUNT; i++) writeFileSync(path.join(folder, `f${i}`), '');
  return folder;
}

const on = (folder: string) => onlyHome(Root.open({ base: folder, folder: '' }));
const named = (folder: string, letter: string) => readdirSync(folder).filter((name) => name.startsWith(letter)).length;
const lockIn = (folder: string) => path.join(folder, '.nesting/batches/open');
const taking = { by: 'p', at: '' };

/** Somebody does something in the middle of a batch: after its second hundred of steps. */
const whileAtIt = (folder: string, work: () => Promise<void>) => {
  let breaths = 0;
  const yieldNow = async () => {
    if (++breaths === 2) await work();
  };
  return applyOnDisk({
    ...{ roots: on(folder), id: 'b1', what: 'test', by: 'p', at: '', changes, yieldNow },
    bytesOf: () => new Uint8Array(),
  });
};

/** This process's own clock goes on by so many milliseconds. */
const pass = (ms: number) => {
  const real = performance.now.bind(performance);
  jest.spyOn(performance, 'now').mockImplementation(() => real() + ms);
};

describe('a batch that somebody is at', () => {
  test('is settled by nobody else', async () => {
    const folder = laid();
    let told: unknown = null;
    const outcome = await whileAtIt(folder, async () => {
      told = await settleOnDisk(on(folder), 'take-back', taking).catch((error: unknown) => error);
    });
    expect([outcome.state, told]).toEqual(['done', expect.any(BatchOpen)]);
    expect([named(folder, 'g'), openIn(Root.open({ base: folder, folder: '' }))]).toEqual([COUNT, null]);
  });

  test('is renewed as long as it goes on', async () => {
    const folder = laid();
    let age = 0;
    let breaths = 0;
    const yieldNow = async () => {
      const { mtimeMs } = statSync(lockIn(folder));
      if (++breaths === 2) {
        utimesSync(lockIn(folder), 1000, 1000);
        pass(3000);
      }
      if (breaths === 3) age = Date.now() - mtimeMs;
    };
    await applyOnDisk({
      ...{ roots: on(folder), id: 'b1', what: 'test', by: 'p', at: '', changes, yieldNow },
      bytesOf: () => new Uint8Array(),
    });
    expect(age).toBeLessThan(60_000);
    expect(named(folder, 'g')).toBe(COUNT);
  });

  test('and whose process stood still meanwhile is taken over, and left by who had it', async () => {
    for (const way of ['finish', 'take-back'] as const) {
      const folder = laid();
      const first = whileAtIt(folder, async () => {
        // A machine that slept, or a disk that hung.
        pass(20_000);
        const stale = (Date.now() - 20_000) / 1000;
        utimesSync(lockIn(folder), stale, stale);
        const settled = await settleOnDisk(on(folder), way, taking);
        expect(settled.state).toBe(way === 'finish' ? 'done' : 'taken-back');
      });
      await expect(first).rejects.toMatchObject({ code: 'LOCK-LOST' });
      expect([named(folder, 'f'), named(folder, 'g')]).toEqual(way === 'finish' ? [0, COUNT] : [COUNT, 0]);
      const root = Root.open({ base: folder, folder: '' });
      expect([openIn(root), readBatch(root, 'b1')?.ended?.ended]).toEqual([
        null,
        way === 'finish' ? 'done' : 'taken-back',
      ]);
      jest.restoreAllMocks();
    }
  });
});

test('who loses it in the middle of a long copy writes nothing more down', async () => {
  const folder = laid();
  writeFileSync(path.join(folder, 'long'), Buffer.alloc(5 << 20, 1));
  const real = performance.now.bind(performance);
  let asked = 0;
  // The machine sleeps when the third megabyte is read.
  jest.spyOn(performance, 'now').mockImplementation(() => real() + (++asked > 4 ? 20_000 : 0));
  const copy: Change = {
    ...{ id: 'copy', subject: { kind: 'file' }, group: null, entry: 'file', before: null, after: home('twice') },
    content: { kind: 'copy', from: home('long') },
  };
  const batch = { roots: on(folder), id: 'b1', what: 'test', by: 'p', at: '', changes: [copy] };
  await expect(applyOnDisk({ ...batch, bytesOf: () => new Uint8Array() })).rejects.toMatchObject({ code: 'LOCK-LOST' });
  const root = Root.open({ base: folder, folder: '' });
  expect([openIn(root), readBatch(root, 'b1')?.outcomes]).toEqual(['b1', []]);
  expect(readdirSync(folder)).not.toContain('twice');
});

describe('a lock', () => {
  const at = '.nesting/batches/open';
  const root = () => {
    const folder = laid();
    mkdirSync(path.join(folder, '.nesting/batches'));
    return { folder, root: Root.open({ base: folder, folder: '' }) };
  };
  const age = (folder: string, seconds: number) => {
    const then = Date.now() / 1000 - seconds;
    utimesSync(lockIn(folder), then, then);
  };

  test('gets its time from the disk when it is renewed, and not more often than need be', () => {
    const { folder, root: home } = root();
    const lock = Lock.take(home, at, 'b1');
    age(folder, 10);
    lock.renew();
    expect(Date.now() - statSync(lockIn(folder)).mtimeMs).toBeGreaterThan(9000);
    pass(3000);
    lock.renew();
    expect(Date.now() - statSync(lockIn(folder)).mtimeMs).toBeLessThan(5000);
  });

  test('is taken over by one of two, and only when it is old', () => {
    const { folder, root: home } = root();
    const lock = Lock.take(home, at, 'b1');
    expect(Lock.takeOver(home, at, 'b1')).toBeNull();
    age(folder, 60);
    const [first, second] = [Lock.takeOver(home, at, 'b1'), Lock.takeOver(home, at, 'b1')];
    expect([first, second]).toEqual([expect.any(Lock), null]);
    pass(3000);
    expect(() => lock.renew()).toThrow(/LOCK-LOST/);
    first?.rest();
    expect(Lock.takeOver(home, at, 'b1')).toEqual(expect.any(Lock));
  });

  test('that is gone, because somebody settled the batch just now, is not made again', () => {
    const { folder, root: home } = root();
    expect(Lock.takeOver(home, at, 'b1', 0)).toBeNull();
    expect(readdirSync(path.join(folder, '.nesting/batches'))).toEqual([]);
  });
});
