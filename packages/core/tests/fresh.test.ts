/** What is made where nobody else can be: in any order, whole or taken back. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyBatch, type Change, HOME, home, MemoryDisk, type Place, takeBackMade } from '../src/change';
import { inMakingOrder } from '../src/planners';
import { batchOf, bytesOf, Notes } from './plans';

const make = (path: string, entry: Change['entry']): Change => ({
  id: path,
  subject: { kind: 'line', line: path },
  group: null,
  entry,
  before: null,
  after: home(path),
  content: entry === 'file' ? { kind: 'text', text: path } : null,
});

const written = (changes: readonly Change[], disk: MemoryDisk) =>
  applyBatch({ ...batchOf(changes), fresh: new Set([HOME]) }, disk, new Notes(3), { bytesOf });

const folders = fc
  .uniqueArray(
    fc.array(fc.constantFrom('a', 'b', 'c'), { minLength: 1, maxLength: 4 }).map((parts) => parts.join('/')),
    { maxLength: 15 },
  )
  .map((all) => [...new Set(all.flatMap((p) => p.split('/').map((_, i, parts) => parts.slice(0, i + 1).join('/'))))]);

describe('a fresh root', () => {
  test('in whatever order changes come, folders are made before what is in them, and files hold their bytes', async () => {
    await fc.assert(
      fc.asyncProperty(folders, fc.nat(), async (all, seed) => {
        const changes = [...all.map((f) => make(f, 'folder')), ...all.map((f) => make(`${f}/x.txt`, 'file'))].sort(
          (a, b) => (seed % 2 ? 1 : -1) * (a.id.length - b.id.length),
        );
        const disk = new MemoryDisk();
        expect((await written(changes, disk)).state).toBe('done');
        const inOrder = inMakingOrder(changes);
        expect(inOrder.ok && inOrder.value.map((made) => made.path).sort()).toEqual(changes.map((c) => c.id).sort());
        for (const { id, entry } of changes) {
          expect(disk.look(home(id))?.kind).toBe(entry);
          if (entry === 'file') expect(Buffer.from(disk.read(home(id))).toString()).toBe(id);
        }
      }),
    );
  });

  test('a plan with a fault makes nothing at all', async () => {
    const twice = [make('a', 'folder'), make('b', 'folder'), make('A', 'folder')];
    expect(inMakingOrder(twice)).toMatchObject({ ok: false, faults: [{ code: 'name-taken' }] });
    const disk = new MemoryDisk();
    expect((await written(twice, disk)).state).toBe('refused');
    expect(disk.tree()).toEqual([]);
    expect(inMakingOrder([make('b/x.txt', 'file'), make('b', 'file')]).ok).toBe(false);
  });

  test('wherever it fails, taking back leaves nothing, and what somebody put there stays', async () => {
    const changes = [
      make('a', 'folder'),
      make('a/b', 'folder'),
      make('c', 'folder'),
      make('a/b/1', 'file'),
      make('c/2', 'file'),
    ];
    for (const meanwhile of [false, true]) {
      for (let failAt = 1; failAt <= 6; failAt++) {
        const disk = new MemoryDisk();
        let acts = 0;
        const act = (work: () => void) => {
          if (++acts === failAt) throw Object.assign(new Error('full'), { code: 'ENOSPC' });
          work();
        };
        const failing = Object.assign(Object.create(disk) as MemoryDisk, {
          make: (at: Place) => act(() => disk.make(at)),
          write: (at: Place, bytes: Uint8Array) => act(() => disk.write(at, bytes)),
        });
        const outcome = await written(changes, failing);
        expect(outcome.state === 'paused' ? outcome.code : outcome.state).toBe(failAt <= 5 ? 'ENOSPC' : 'done');
        if (meanwhile && failAt > 1) disk.write(home('a/theirs'), new Uint8Array(1));
        const stayed = await takeBackMade(changes, disk);
        expect(stayed.map(({ path }) => path)).toEqual(meanwhile && failAt > 1 ? ['a'] : []);
        expect([...disk.places().values()].map(({ path }) => path).sort()).toEqual(
          meanwhile && failAt > 1 ? ['a', 'a/theirs'] : [],
        );
      }
    }
  });
});
