/** Batches on a real disk: done, undone, killed by SIGKILL at any call, settled; and what stands in their way. */

import { spawnSync } from 'node:child_process';
import {
  chmodSync,
  existsSync,
  linkSync,
  lstatSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  symlinkSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, test } from '@jest/globals';
import { type Change, codeOf, home, type MemoryDisk } from '@nesting/core/change';
import { build } from 'esbuild';
import fc from 'fast-check';
import { bytesOf, plans } from '../../core/tests/plans';
import {
  applyOnDisk,
  BatchOpen,
  batchesIn,
  COPYING,
  closeOnDisk,
  type DiskBatch,
  moveAcross,
  onlyHome,
  openIn,
  openStale,
  Root,
  readBatch,
  settleOnDisk,
  sweepOldBatches,
  undoneIds,
  undoOnDisk,
  undoPlan,
} from '../src/index';

const all: string[] = [];
const at = (folder: string): Root => Root.open({ base: folder, folder: '' });
const on = (folder: string) => onlyHome(at(folder));
const fresh = (): string => {
  const folder = mkdtempSync(path.join(tmpdir(), 'nesting batches '));
  all.push(folder);
  mkdirSync(path.join(folder, '.nesting'));
  return folder;
};
afterAll(() => {
  for (const folder of all) rmSync(folder, { recursive: true, force: true });
});

/** Every path with its content and time; folders with a `/`. */
function treeOf(root: string, below = ''): string[] {
  return readdirSync(path.join(root, below), { withFileTypes: true })
    .flatMap((e) => {
      const at = path.posix.join(below, e.name);
      if (at === '.nesting') return [];
      if (e.isDirectory()) return [`${at}/`, ...treeOf(root, at)];
      return [`${at} ${readFileSync(path.join(root, at), 'utf8')} ${lstatSync(path.join(root, at)).mtimeMs}`];
    })
    .sort();
}

function laid(root: string, disk: MemoryDisk): void {
  for (const at of [...disk.places().values()].map((place) => place.path).sort()) {
    if (at.startsWith('.nesting')) continue;
    if (disk.look(home(at))?.kind === 'folder') mkdirSync(path.join(root, at), { recursive: true });
    else {
      writeFileSync(path.join(root, at), disk.read(home(at)));
      utimesSync(path.join(root, at), 1, 1);
    }
  }
}

const nodeBytes = (content: { readonly kind: string; readonly text?: string }) => Buffer.from(bytesOf(content));
const batch = (root: string, changes: readonly Change[], id = 'b1', more: Partial<DiskBatch> = {}) =>
  applyOnDisk({
    roots: on(root),
    id,
    what: 'test',
    by: 'p',
    at: '2026-11-25T00:00:00Z',
    changes,
    bytesOf: nodeBytes,
    ...more,
  });
const undo = (root: string, of: string, id: string, ids: ReadonlySet<string> | null = null) =>
  undoOnDisk({ roots: on(root), batch: of, id, by: 'p', at: '', ids });
const same = { subject: { kind: 'file' }, group: null } as const;
const move = (before: string, after: string, entry: Change['entry'] = 'file'): Change => ({
  ...same,
  id: before,
  entry,
  before: home(before),
  after: home(after),
  content: null,
});
const write = (after: string): Change => ({
  ...same,
  id: `+${after}`,
  entry: 'file',
  before: null,
  after: home(after),
  content: { kind: 'text', text: `text of ${after}` },
});

describe('laws on a real disk', () => {
  test('any plan ends in what was meant; undone, every path, byte and time is as it was', async () => {
    await fc.assert(
      fc.asyncProperty(plans, async (plan) => {
        const root = fresh();
        const disk = plan.before();
        laid(root, disk);
        const start = treeOf(root);
        const outcome = await batch(root, plan.changes);
        expect(outcome.state).toBe('done');
        expect(
          treeOf(root)
            .map((l) => (l.endsWith('/') ? l.slice(0, -1) : (l.split(' ')[0] as string)))
            .sort(),
        ).toEqual(plan.after);
        expect((await undo(root, 'b1', 'b2'))?.state).toBe('done');
        expect(treeOf(root)).toEqual(start);
        expect(openIn(at(root))).toBeNull();
        rmSync(root, { recursive: true });
      }),
      { numRuns: 60 },
    );
  });
});

describe('killed by SIGKILL', () => {
  /** Renames in a circle, capitals, nested folders, new files and files written anew; enough for several outcomes. */
  const changes: Change[] = [
    ...Array.from({ length: 6 }, (_, i) => move(`f${i}`, `f${(i + 1) % 6}`)),
    move('Big', 'big', 'folder'),
    move('Big/inner', 'other', 'folder'),
    move('other', 'big/inner', 'folder'),
    ...Array.from({ length: 30 }, (_, i) => move(`Big/x${i}`, `big/y${i}`)),
    ...Array.from({ length: 5 }, (_, i) => write(`new${i}`)),
    { ...move('note', 'note'), content: { kind: 'text', text: 'another' } },
  ];
  const lay = (root: string) => {
    for (const folder of ['Big/inner', 'other']) mkdirSync(path.join(root, folder), { recursive: true });
    for (const file of [
      'Big/inner/in',
      'other/out',
      'note',
      ...Array.from({ length: 6 }, (_, i) => `f${i}`),
      ...Array.from({ length: 30 }, (_, i) => `Big/x${i}`),
    ]) {
      writeFileSync(path.join(root, file), file);
      utimesSync(path.join(root, file), 1, 1);
    }
  };

  test('at every so many-th call of the disk, finished or taken back: whole each time', async () => {
    const tools = mkdtempSync(path.join(tmpdir(), 'nesting-killed-'));
    all.push(tools);
    const script = path.join(tools, 'child.mjs');
    await build({
      entryPoints: ['packages/disk/src/index.ts'],
      outfile: path.join(tools, 'disk.mjs'),
      bundle: true,
      platform: 'node',
      format: 'esm',
      target: 'node20',
      logLevel: 'error',
    });
    writeFileSync(
      script,
      `
      import fs from 'node:fs';
      import { syncBuiltinESMExports } from 'node:module';
      let calls = 0;
      for (const name of ['renameSync', 'linkSync', 'mkdirSync', 'openSync', 'writeSync', 'rmdirSync', 'unlinkSync']) {
        const real = fs[name];
        fs[name] = (...args) => {
          if (calls++ === Number(process.argv[3])) process.kill(process.pid, 'SIGKILL');
          return real(...args);
        };
      }
      syncBuiltinESMExports();
      const { applyOnDisk, settleOnDisk, Root, onlyHome } = await import('./disk.mjs');
      const roots = onlyHome(Root.open({ base: process.argv[2], folder: '' }));
      if (process.argv[4] === 'settle') await settleOnDisk(roots, process.argv[5], { by: 'p', at: '', lockMs: 0 });
      else await applyOnDisk({ roots, id: 'b1', what: 'test', by: 'p', at: '', changes: ${JSON.stringify(changes)}, bytesOf: (c) => Buffer.from(c.text) });
      console.log('ended', calls);
    `,
    );
    const run = (root: string, at: number, ...more: string[]) =>
      spawnSync(process.execPath, [script, root, String(at), ...more], { encoding: 'utf8' });
    const whole = fresh();
    lay(whole);
    const start = treeOf(whole);
    const ran = run(whole, -1);
    const calls = Number(/ended (\d+)/.exec(ran.stdout)?.[1]);
    const timeless = (tree: string[]) => tree.map((l) => l.replace(/^((?:new\d|note) .*) [\d.]+$/, '$1'));
    const meant = timeless(treeOf(whole));
    expect(calls).toBeGreaterThan(60);
    let [notBegun, finished, takenBack] = [0, 0, 0];
    for (let call = 0; call < calls; call += 4) {
      const root = fresh();
      lay(root);
      expect(run(root, call).signal).toBe('SIGKILL');
      const way = call % 8 === 0 ? 'finish' : 'take-back';
      // Killed once more while it is settled, at another place each time.
      run(root, call % 17, 'settle', way);
      const settled = await settleOnDisk(on(root), way, { by: 'p', at: '', lockMs: 0 });
      const begun = readBatch(at(root), 'b1');
      if (begun === null) {
        expect(treeOf(root)).toEqual(start);
        notBegun++;
      } else if (begun.ended?.ended === 'taken-back') {
        expect(treeOf(root)).toEqual(start);
        takenBack++;
      } else {
        expect([call, settled.state, begun.ended?.ended]).toEqual([call, expect.stringMatching(/done|none/), 'done']);
        expect(timeless(treeOf(root))).toEqual(meant);
        finished++;
      }
      expect(openIn(at(root))).toBeNull();
      rmSync(root, { recursive: true });
    }
    expect(Math.min(notBegun, finished, takenBack)).toBeGreaterThan(3);
  }, 120_000);
});

describe('what stands in the way', () => {
  const small = () => {
    const root = fresh();
    mkdirSync(path.join(root, 'a'));
    for (const file of ['a/x', 'a/y', 'z']) writeFileSync(path.join(root, file), file);
    return root;
  };

  test('a second batch is refused while one is under way, and nothing of it is left', async () => {
    const root = small();
    let second: unknown = null;
    const first = batch(root, [move('z', 'y'), write('n')], 'b1', {
      bytesOf: async (c) => {
        second = await batch(root, [move('a/x', 'a/w')], 'b2').catch((e: unknown) => e);
        return nodeBytes(c as { kind: string });
      },
    });
    expect((await first).state).toBe('done');
    expect(second).toBeInstanceOf(BatchOpen);
    expect([existsSync(path.join(root, 'a/x')), batchesIn(at(root))]).toEqual([true, ['b1']]);
  });

  test('links on the way are not followed, whichever end they stand at', async () => {
    const root = small();
    const outside = fresh();
    writeFileSync(path.join(outside, 'secret'), 's');
    symlinkSync(outside, path.join(root, 'link'));
    expect(await batch(root, [move('link/secret', 'mine')])).toMatchObject({
      state: 'refused',
      faults: [{ code: 'unseen', detail: 'ELOOP' }],
    });
    expect(await batch(root, [move('z', 'link/z')])).toMatchObject({
      state: 'refused',
      faults: [{ code: 'unseen', detail: 'ELOOP' }],
    });
    expect(await batch(root, [move('link', 'other')])).toMatchObject({
      state: 'refused',
      faults: [{ code: 'other-kind' }],
    });
    expect(await batch(root, [move('../z', 'q')])).toMatchObject({
      state: 'refused',
      faults: [{ code: 'unseen', detail: 'EREFUSED' }],
    });
    expect([readdirSync(outside), batchesIn(at(root))]).toEqual([['.nesting', 'secret'], []]);
  });

  test('a file opened and written to between plan and applying stops the batch before it began', async () => {
    const root = small();
    const was = lstatSync(path.join(root, 'z'));
    const changes: Change[] = [
      { ...move('a/x', 'a/w') },
      { ...move('z', 'y'), expects: { size: was.size, modified: was.mtimeMs } },
    ];
    writeFileSync(path.join(root, 'z'), 'longer than it was');
    expect(await batch(root, changes)).toMatchObject({
      state: 'refused',
      faults: [{ code: 'changed', at: home('z') }],
    });
    expect([existsSync(path.join(root, 'a/x')), openIn(at(root)), batchesIn(at(root))]).toEqual([true, null, []]);
  });

  test('paused half way by what came meanwhile: said, kept open, then taken back or finished', async () => {
    for (const way of ['finish', 'take-back'] as const) {
      const root = small();
      const before = treeOf(root);
      // Somebody makes a folder of the wanted name once the contents lie ready.
      const outcome = await batch(root, [move('a/x', 'a/w'), move('z', 'a/q'), write('n')], 'b1', {
        bytesOf: (c) => {
          mkdirSync(path.join(root, 'n'));
          return nodeBytes(c as { kind: string });
        },
      });
      expect(outcome).toMatchObject({ state: 'paused', at: home('n'), code: 'EEXIST' });
      await expect(batch(root, [move('a/y', 'a/v')], 'b9')).rejects.toBeInstanceOf(BatchOpen);
      expect(await settleOnDisk(on(root), 'finish', { by: 'p', at: '' })).toMatchObject({
        state: 'paused',
        at: home('n'),
        code: 'EEXIST',
      });
      if (way === 'finish') rmSync(path.join(root, 'n'), { recursive: true });
      expect((await settleOnDisk(on(root), way, { by: 'p', at: '' })).state).toBe(
        way === 'finish' ? 'done' : 'taken-back',
      );
      expect(openIn(at(root))).toBeNull();
      if (way === 'finish') expect(readFileSync(path.join(root, 'n'), 'utf8')).toBe('text of n');
      else expect(treeOf(root)).toEqual([...before, 'n/'].sort());
    }
  });

  test('undo in part, the rest later; each line that cannot be undone says why; undo of an undo', async () => {
    const root = small();
    const before = treeOf(root);
    await batch(root, [move('a/x', 'a/w'), move('z', 'a/q'), write('n'), write('m')]);
    writeFileSync(path.join(root, 'm'), 'somebody worked on it');
    renameSync(path.join(root, 'a/q'), path.join(root, 'a/elsewhere'));
    const lines = await undoPlan(on(root), 'b1');
    expect(lines?.map((l) => [l.change.id, l.hindrance?.code ?? null])).toEqual([
      ['a/x', null],
      ['z', 'gone'],
      ['+n', null],
      ['+m', 'changed'],
    ]);
    expect((await undo(root, 'b1', 'b2', new Set(['+n'])))?.state).toBe('done');
    expect(existsSync(path.join(root, 'n'))).toBe(false);
    expect((await undo(root, 'b1', 'b3'))?.state).toBe('refused');
    expect((await undo(root, 'b2', 'b4'))?.state).toBe('done');
    expect(readFileSync(path.join(root, 'n'), 'utf8')).toBe('text of n');
    expect([...undoneIds(at(root), 'b1')]).toEqual([]);
    renameSync(path.join(root, 'a/elsewhere'), path.join(root, 'a/q'));
    expect((await undo(root, 'b1', 'b5', new Set(['a/x', 'z', '+n'])))?.state).toBe('done');
    expect(treeOf(root).filter((l) => !l.startsWith('m '))).toEqual(before);
    expect(readFileSync(path.join(root, 'm'), 'utf8')).toBe('somebody worked on it');
  });

  test('a journal cut off, forged or of another program is no batch', () => {
    const root = small();
    for (const [id, text] of [
      ['cut', '{"format":"nesting/ba'],
      ['foreign', '{"format":"x"}'],
      ['later', '{"format":"nesting/batch","formatVersion":9}'],
    ] as const) {
      mkdirSync(path.join(root, '.nesting/batches', id), { recursive: true });
      writeFileSync(path.join(root, '.nesting/batches', id, 'intents.json'), text);
      expect(readBatch(at(root), id)).toBeNull();
    }
    const head =
      '{"format":"nesting/batch","formatVersion":2,"id":"x","what":"","by":"","at":"","undoes":null,"steps":"own"}';
    for (const [id, lines] of [
      ['no end', [head, '{"change":{}}']],
      ['no change', [head, '{"change":null}', '{"intends":"all"}']],
      ['no place', [head, '{"change":{"id":"a","entry":"file","before":"a","after":null}}', '{"intends":"all"}']],
      ['no step', [head, '{"step":{"id":"a","do":"format","at":{"root":"home","path":"a"}}}', '{"intends":"all"}']],
      ['no head', ['{"intends":"all"}', '7', '[]', 'null']],
    ] as const) {
      const folder = path.join(root, '.nesting/batches', id.replace(' ', '-'));
      mkdirSync(folder, { recursive: true });
      writeFileSync(path.join(folder, 'journal.ndjson'), lines.join('\n'));
      expect([id, readBatch(at(root), id.replace(' ', '-'))]).toEqual([id, null]);
    }
    expect(readBatch(at(root), '../..')).toBeNull();
  });
});

describe('a disk that goes away in the middle', () => {
  const gone = () => Object.assign(new Error('gone'), { code: 'EIO' });

  test('while contents are laid ready: nothing has begun, and the way is free', async () => {
    const root = fresh();
    for (const file of ['a', 'z']) writeFileSync(path.join(root, file), file);
    const before = treeOf(root);
    const bytesOf = () => {
      throw gone();
    };
    expect(await batch(root, [move('z', 'y'), write('n')], 'b1', { bytesOf })).toMatchObject({
      state: 'refused',
      faults: [{ code: 'not-ready', detail: 'EIO' }],
    });
    expect([treeOf(root), openIn(at(root)), batchesIn(at(root))]).toEqual([before, null, []]);
  });

  test('a lock that somebody left is believed while it is young, and no longer', async () => {
    const root = fresh();
    writeFileSync(path.join(root, 'z'), 'z');
    mkdirSync(path.join(root, '.nesting/batches/b1/new'), { recursive: true });
    writeFileSync(path.join(root, '.nesting/batches/open'), 'b1');
    await expect(batch(root, [move('z', 'y')], 'b2')).rejects.toBeInstanceOf(BatchOpen);
    expect([openStale(on(root), Date.now()), openStale(on(root), Date.now() + 3_600_000)]).toEqual([false, true]);
    expect((await batch(root, [move('z', 'y')], 'b3')).state).toBe('done');
  });

  test('between two steps: what was done is told by the disk when it is back, and it is finished or taken back', async () => {
    for (const way of ['finish', 'take-back'] as const) {
      const root = fresh();
      for (let i = 0; i < 300; i++) writeFileSync(path.join(root, `f${i}`), String(i));
      const before = treeOf(root);
      const changes = Array.from({ length: 300 }, (_, i) => move(`f${i}`, `g${i}`));
      // At a breath, in the middle of the group: nothing of it is written down yet.
      let breaths = 0;
      const yieldNow = async () => {
        if (++breaths === 2) throw gone();
      };
      await expect(batch(root, changes, 'b1', { yieldNow })).rejects.toMatchObject({ code: 'EIO' });
      expect(existsSync(path.join(root, 'g150')) && existsSync(path.join(root, 'f250'))).toBe(true);
      expect((await settleOnDisk(on(root), way, { by: '', at: '' })).state).toBe(
        way === 'finish' ? 'done' : 'taken-back',
      );
      if (way === 'take-back') expect(treeOf(root)).toEqual(before);
      else expect(readdirSync(root).filter((n) => n.startsWith('g'))).toHaveLength(300);
      expect(openIn(at(root))).toBeNull();
    }
  });

  test('a folder that is moved away whole stays the one that is worked in', async () => {
    const root = fresh();
    for (let i = 0; i < 300; i++) writeFileSync(path.join(root, `f${i}`), String(i));
    let breaths = 0;
    const yieldNow = async () => {
      if (++breaths !== 2) return;
      renameSync(root, `${root} away`);
      all.push(`${root} away`);
      mkdirSync(path.join(root, '.nesting'), { recursive: true });
      writeFileSync(path.join(root, 'f299'), 'another project’s');
    };
    const changes = Array.from({ length: 300 }, (_, i) => move(`f${i}`, `g${i}`));
    expect((await batch(root, changes, 'b1', { yieldNow })).state).toBe('done');
    expect(readdirSync(`${root} away`).filter((n) => n.startsWith('g'))).toHaveLength(300);
    expect(treeOf(root)).toEqual([expect.stringMatching(/^f299 another project’s /)]);
  });

  test.each([
    ['file', (root: string) => linkSync(path.join(root, 'f1100'), path.join(root, 'g1100'))],
    ['folder', (root: string) => mkdirSync(path.join(root, 'g1100'))],
  ] as const)('the move of a %s cut between its two calls is settled like any other', async (what, cut) => {
    for (const way of ['finish', 'take-back'] as const) {
      const root = fresh();
      for (let i = 1000; i < 1200; i++)
        if (what === 'file') writeFileSync(path.join(root, `f${i}`), String(i));
        else mkdirSync(path.join(root, `f${i}`));
      const before = treeOf(root);
      const yieldNow = async () => {
        throw gone();
      };
      const changes = Array.from({ length: 200 }, (_, i) => move(`f${1000 + i}`, `g${1000 + i}`, what));
      await expect(batch(root, changes, 'b1', { yieldNow })).rejects.toMatchObject({ code: 'EIO' });
      expect([existsSync(path.join(root, 'g1099')), existsSync(path.join(root, 'g1100'))]).toEqual([true, false]);
      cut(root);
      expect((await settleOnDisk(on(root), way, { by: '', at: '' })).state).toBe(
        way === 'finish' ? 'done' : 'taken-back',
      );
      if (way === 'take-back') expect(treeOf(root)).toEqual(before);
      else expect(treeOf(root).every((line) => line.startsWith('g'))).toBe(true);
      expect(treeOf(root)).toHaveLength(200);
    }
  });
});

describe('a batch that can neither be finished nor taken back whole', () => {
  /** A batch stopped half way, whose own folder somebody renamed, and one of whose files somebody took away. */
  async function stuck(): Promise<string> {
    const root = fresh();
    for (let i = 1000; i < 1200; i++) writeFileSync(path.join(root, `f${i}`), String(i));
    const changes = [
      { ...move('made', 'made', 'folder'), before: null },
      ...Array.from({ length: 200 }, (_, i) => move(`f${1000 + i}`, `made/g${1000 + i}`)),
      write('made/note'),
    ];
    const yieldNow = async () => {
      throw Object.assign(new Error('gone'), { code: 'EIO' });
    };
    await expect(batch(root, changes, 'b1', { yieldNow })).rejects.toMatchObject({ code: 'EIO' });
    renameSync(path.join(root, 'made/g1005'), path.join(root, 'made/mine'));
    return root;
  }

  test('what somebody took away after its step is no hindrance to what is still to come', async () => {
    const root = await stuck();
    expect((await settleOnDisk(on(root), 'finish', { by: '', at: '' })).state).toBe('done');
    expect(treeOf(root).filter((line) => line.startsWith('made/g'))).toHaveLength(199);
  });

  test('the folder it made was renamed: finishing and taking back are refused, closing is not', async () => {
    const root = await stuck();
    renameSync(path.join(root, 'made'), path.join(root, 'theirs'));
    for (const way of ['finish', 'take-back'] as const)
      expect((await settleOnDisk(on(root), way, { by: '', at: '' })).state).toBe('paused');
    const closed = await closeOnDisk(on(root), { by: 'p', at: '' });
    if (closed.state !== 'closed') throw new Error(closed.state);
    expect(closed.rest.length).toBeGreaterThan(50);
    expect(closed.rest.every(({ id, at: where, code }) => id !== '' && where.path !== '' && code !== '')).toBe(true);
    expect(openIn(at(root))).toBeNull();
    expect(readBatch(at(root), 'b1')?.ended).toMatchObject({ ended: 'closed', rest: closed.rest });
    // Nothing is lost: every file is where it was, or where it came to.
    const names = treeOf(root).filter((line) => !line.endsWith('/'));
    expect(names).toHaveLength(200);
    expect((await batch(root, [move('f1150', 'free')], 'b2')).state).toBe('done');
  });

  test('a file of the batch was taken away: all the others go home', async () => {
    const root = await stuck();
    expect((await settleOnDisk(on(root), 'take-back', { by: '', at: '' })).state).toBe('paused');
    const closed = await closeOnDisk(on(root), { by: 'p', at: '' });
    if (closed.state !== 'closed') throw new Error(closed.state);
    expect(closed.rest.map(({ id, code }) => [id, code])).toEqual(
      expect.arrayContaining([
        ['f1005', 'gone'],
        ['made', expect.stringMatching(/ENOTEMPTY/)],
      ]),
    );
    expect(closed.rest).toHaveLength(2);
    const left = treeOf(root);
    expect(left.filter((line) => line.startsWith('f'))).toHaveLength(199);
    expect(left.filter((line) => line.startsWith('made'))).toEqual([
      'made/',
      expect.stringMatching(/^made\/mine 1005/),
    ]);
  });
});

describe('a disk that refuses', () => {
  const mount = (root: string, options: string): boolean =>
    spawnSync('mount', ['-t', 'tmpfs', '-o', options, 'tmpfs', root], { stdio: 'ignore' }).status === 0;

  test('full while contents are laid ready: nothing is touched, and what was laid ready is gone', async () => {
    const root = fresh();
    // Without the right to mount, a content larger than any disk stands for a full one.
    const mounted = mount(root, 'size=256k');
    try {
      mkdirSync(path.join(root, '.nesting'), { recursive: true });
      writeFileSync(path.join(root, 'z'), 'z');
      const before = treeOf(root);
      const content = () => {
        if (!mounted) throw Object.assign(new Error('full'), { code: 'ENOSPC' });
        return Buffer.alloc(150_000);
      };
      expect(await batch(root, [move('z', 'y'), write('m'), write('n')], 'b1', { bytesOf: content })).toMatchObject({
        state: 'refused',
        faults: [{ code: 'not-ready', detail: 'ENOSPC' }],
      });
      expect([treeOf(root), batchesIn(at(root)), openIn(at(root))]).toEqual([before, [], null]);
      expect((await batch(root, [move('z', 'y')], 'b2')).state).toBe('done');
    } finally {
      if (mounted) spawnSync('umount', ['-l', root]);
    }
  });

  test('the right to write is taken away half way: it stops there, and goes on once the right is back', async () => {
    for (const way of ['finish', 'take-back'] as const) {
      const root = fresh();
      const mounted = mount(root, 'size=4m');
      try {
        mkdirSync(path.join(root, '.nesting'), { recursive: true });
        mkdirSync(path.join(root, 'd'));
        for (let i = 0; i < 300; i++) writeFileSync(path.join(root, `d/f${i}`), String(i));
        const before = treeOf(root);
        const forbid = () =>
          mounted ? spawnSync('mount', ['-o', 'remount,ro', root]) : chmodSync(path.join(root, 'd'), 0o500);
        const allow = () =>
          mounted ? spawnSync('mount', ['-o', 'remount,rw', root]) : chmodSync(path.join(root, 'd'), 0o700);
        let breaths = 0;
        const changes = Array.from({ length: 300 }, (_, i) => move(`d/f${i}`, `d/g${i}`));
        const outcome = await batch(root, changes, 'b1', {
          yieldNow: async () => {
            if (++breaths === 2) forbid();
          },
        }).catch((e: unknown) => e);
        expect(mounted ? codeOf(outcome) : outcome).toEqual(
          mounted ? 'EROFS' : expect.objectContaining({ state: 'paused', code: 'EACCES' }),
        );
        allow();
        expect((await settleOnDisk(on(root), way, { by: '', at: '', lockMs: 0 })).state).toBe(
          way === 'finish' ? 'done' : 'taken-back',
        );
        if (way === 'take-back') expect(treeOf(root)).toEqual(before);
        else expect(readdirSync(path.join(root, 'd')).every((n) => n.startsWith('g'))).toBe(true);
      } finally {
        if (mounted) spawnSync('umount', ['-l', root]);
      }
    }
  });
});

describe('from one file system to another', () => {
  const other =
    existsSync('/dev/shm') && lstatSync('/dev/shm').dev !== lstatSync(tmpdir()).dev
      ? mkdtempSync('/dev/shm/nesting-')
      : null;
  if (other !== null) all.push(other);

  (other === null ? test.skip : test)(
    'copied, verified, put in place, then removed: content and times are kept',
    () => {
      const root = fresh();
      mkdirSync(path.join(root, 'a/b'), { recursive: true });
      writeFileSync(path.join(root, 'a/b/x'), Buffer.alloc(3_000_000, 7));
      utimesSync(path.join(root, 'a/b/x'), 5, 5);
      moveAcross(at('/'), path.join(root, 'a').slice(1), path.join(other as string, 'moved').slice(1));
      expect(existsSync(path.join(root, 'a'))).toBe(false);
      expect(treeOf(other as string)).toEqual([
        'moved/',
        'moved/b/',
        // biome-ignore lint/suspicious/noControlCharactersInRegex: it is what the file holds
        expect.stringMatching(/^moved\/b\/x \x07+ 5000$/),
      ]);
      expect(() => renameSync(path.join(other as string, 'moved'), path.join(root, 'back'))).toThrow(/EXDEV/);
    },
  );

  test('what cannot be copied leaves the original, and nothing beside', () => {
    const root = fresh();
    mkdirSync(path.join(root, 'a'));
    mkdirSync(path.join(root, 'to'));
    writeFileSync(path.join(root, 'a/x'), 'x');
    symlinkSync('x', path.join(root, 'a/link'));
    expect(() => moveAcross(at(root), 'a', 'to/a')).toThrow(/ELOOP/);
    expect([
      readdirSync(path.join(root, 'a')).sort(),
      readdirSync(path.join(root, 'to')),
      COPYING.startsWith('.nesting'),
    ]).toEqual([['link', 'x'], [], true]);
  });
});

describe('sweeping', () => {
  const rename = (from: string, to: string): Change => ({
    id: from,
    subject: { kind: 'file' },
    group: null,
    entry: 'file',
    before: home(from),
    after: home(to),
    content: null,
  });
  const batch = (root: string, id: string, changes: Change[]): DiskBatch => ({
    roots: on(root),
    id,
    what: 'change',
    by: 'Ines',
    at: '2026-11-01T00:00:00Z',
    changes,
    bytesOf,
  });
  /** As if its last word were written so many days ago. */
  const age = (root: string, id: string, days: number): void => {
    const then = Date.now() / 1000 - days * 86_400;
    utimesSync(path.join(root, '.nesting/batches', id, 'journal.ndjson'), then, then);
  };
  const before = Date.now() - 100 * 86_400_000;

  test('what ended long ago goes, and nothing else; what was done since is still undone', async () => {
    const root = fresh();
    writeFileSync(path.join(root, 'a'), 'mine');
    await applyOnDisk(batch(root, 'old', [rename('a', 'b')]));
    await applyOnDisk(batch(root, 'new', [rename('b', 'c')]));
    age(root, 'old', 101);
    age(root, 'new', 99);
    expect(sweepOldBatches(on(root), before)).toEqual(['old']);
    expect(readdirSync(path.join(root, '.nesting/batches'))).toEqual(['new']);
    const undone = await undoOnDisk({ roots: on(root), batch: 'new', id: 'u', by: '', at: '', ids: null });
    expect([undone?.state, readFileSync(path.join(root, 'b'), 'utf8')]).toEqual(['done', 'mine']);
    expect(await undoPlan(on(root), 'old')).toBeNull();
  });

  test('a batch that stopped half way is kept, and so is all that lies beside an open one', async () => {
    const root = fresh();
    writeFileSync(path.join(root, 'a'), 'mine');
    writeFileSync(path.join(root, 'd'), 'mine too');
    await applyOnDisk(batch(root, 'old', [rename('d', 'e')]));
    let looks = 0;
    const cancel = {
      get aborted() {
        return ++looks > 1;
      },
    };
    await applyOnDisk({ ...batch(root, 'half', [rename('a', 'b'), rename('e', 'f')]), cancel });
    expect(openIn(at(root))).toBe('half');
    age(root, 'old', 300);
    age(root, 'half', 300);
    expect(sweepOldBatches(on(root), before)).toEqual([]);
    await settleOnDisk(on(root), 'take-back', { by: '', at: '', lockMs: 0 });
    age(root, 'half', 300);
    expect(sweepOldBatches(on(root), before).sort()).toEqual(['half', 'old']);
    expect([readFileSync(path.join(root, 'a'), 'utf8'), readFileSync(path.join(root, 'e'), 'utf8')]).toEqual([
      'mine',
      'mine too',
    ]);
  });
});
