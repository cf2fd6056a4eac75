/** Where entries are, when somebody changed what a batch had in hand. */
import { describe, expect, test } from '@jest/globals';
import type { Change, Step } from './change';
import { findEntries } from './found';
import { MemoryDisk } from './memory-disk';

const folder = '.nesting/batches/b1';
const move = (before: string, after: string): Change => ({ key: before, what: 'file', before, after, content: null });
const written = (after: string): Change => ({
  key: after,
  what: 'file',
  before: null,
  after,
  content: { kind: 'text', text: after },
});
const made = (after: string): Change => ({ key: after, what: 'folder', before: null, after, content: null });

const find = (disk: MemoryDisk, changes: readonly Change[], steps: readonly Step[], done = 0) =>
  findEntries({ intents: { changes, ids: {}, steps }, done, moreSteps: [], folder }, disk);

describe('entries of a batch', () => {
  test('are where they were, where they are to be, or at a place between', async () => {
    const disk = new MemoryDisk();
    for (const file of ['a', 'y', '.nesting-moving-1']) disk.put(file, 'file');
    const changes = [move('a', 'x'), move('b', 'y'), move('c', 'z'), move('d', 'w')];
    const steps: Step[] = [
      { key: 'c', do: 'move', from: 'c', path: '.nesting-moving-1' },
      { key: 'c', do: 'move', from: '.nesting-moving-1', path: 'z' },
    ];
    const { done, gone } = await find(disk, changes, steps);
    expect(done.map(({ change, at }) => [change.key, at])).toEqual([
      ['a', 'a'],
      ['b', 'y'],
      ['c', '.nesting-moving-1'],
    ]);
    expect(gone).toEqual([{ key: 'd', path: 'w', code: 'gone' }]);
  });

  test('what still lies ready was not put in place: the file that stands there is somebody else’s', async () => {
    const disk = new MemoryDisk();
    const [first, second] = [written('f'), written('g')];
    const steps: Step[] = [first, second].map((change) => ({
      key: change.key,
      do: 'write',
      path: change.after ?? '',
      content: { kind: 'text', text: '' },
    }));
    disk.put('f', 'file');
    disk.put('g', 'file');
    // The first content went into its place; the second one lies ready.
    const { readyPath } = await import('./apply');
    const [, ready] = steps;
    if (ready?.do !== 'write') throw new Error('no step');
    disk.put(readyPath(ready, folder), 'file');
    const { done } = await find(disk, [first, second], steps);
    expect(done.map(({ change, at, written: isWritten }) => [change.key, at, isWritten])).toEqual([
      ['f', 'f', true],
      ['g', null, false],
    ]);
  });

  test('a folder where one was to be made is the batch’s only when that step seems to be done', async () => {
    const disk = new MemoryDisk();
    disk.put('n', 'folder');
    const steps: Step[] = [{ key: 'n', do: 'make', path: 'n' }];
    expect((await find(disk, [made('n')], steps, 0)).done[0]?.at).toBeNull();
    expect((await find(disk, [made('n')], steps, 1)).done[0]?.at).toBe('n');
  });
});
