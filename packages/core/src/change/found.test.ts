/** Where entries are, when somebody changed what a batch had in hand. */
import { describe, expect, test } from '@jest/globals';
import type { Change, Step } from './change';
import { findEntries } from './found';
import { readyPlace } from './journal';
import { MemoryDisk } from './memory-disk';
import { home } from './place';

const folder = '.nesting/batches/b1';
const same = { subject: { kind: 'file' }, group: null, entry: 'file', content: null } as const;
const move = (before: string, after: string): Change => ({
  ...same,
  id: before,
  before: home(before),
  after: home(after),
});
const written = (after: string): Change => ({
  ...same,
  id: after,
  before: null,
  after: home(after),
  content: { kind: 'text', text: after },
});
const made = (after: string): Change => ({ ...same, id: after, entry: 'folder', before: null, after: home(after) });

const find = (disk: MemoryDisk, changes: readonly Change[], steps: readonly Step[], done = 0) =>
  findEntries({ intents: { changes, ids: {}, steps }, done, left: {}, moreSteps: [], folder }, disk);

describe('entries of a batch', () => {
  test('are where they were, where they are to be, or at a place between', async () => {
    const disk = new MemoryDisk();
    for (const file of ['a', 'y', '.nesting-moving-1']) disk.put(home(file), 'file');
    const changes = [move('a', 'x'), move('b', 'y'), move('c', 'z'), move('d', 'w')];
    const steps: Step[] = [
      { id: 'c', do: 'move', from: home('c'), at: home('.nesting-moving-1') },
      { id: 'c', do: 'move', from: home('.nesting-moving-1'), at: home('z') },
    ];
    const { done, gone } = await find(disk, changes, steps);
    expect(done.map(({ change, at }) => [change.id, at?.path])).toEqual([
      ['a', 'a'],
      ['b', 'y'],
      ['c', '.nesting-moving-1'],
    ]);
    expect(gone).toEqual([{ id: 'd', at: home('w'), code: 'gone' }]);
  });

  test('what still lies ready was not put in place: the file that stands there is somebody else’s', async () => {
    const disk = new MemoryDisk();
    const [first, second] = [written('f'), written('g')];
    const steps: Step[] = [first, second].map((change) => ({
      id: change.id,
      do: 'place',
      at: change.after ?? home(''),
      content: { kind: 'text', text: '' },
    }));
    disk.put(home('f'), 'file');
    disk.put(home('g'), 'file');
    // The first content went into its place; the second one lies ready.
    const [, ready] = steps;
    if (ready?.do !== 'place') throw new Error('no step');
    disk.put(readyPlace(ready.id, ready.at, ready.content, folder), 'file');
    const { done } = await find(disk, [first, second], steps);
    expect(done.map(({ change, at, isWritten }) => [change.id, at?.path ?? null, isWritten])).toEqual([
      ['f', 'f', true],
      ['g', null, false],
    ]);
  });

  test('a folder where one was to be made is the batch’s only when that step seems to be done', async () => {
    const disk = new MemoryDisk();
    disk.put(home('n'), 'folder');
    const steps: Step[] = [{ id: 'n', do: 'make', at: home('n') }];
    expect((await find(disk, [made('n')], steps, 0)).done[0]?.at).toBeNull();
    expect((await find(disk, [made('n')], steps, 1)).done[0]?.at).toEqual(home('n'));
  });

  test('a copy is the batch’s while it is as its original was, and somebody else’s once they wrote there', async () => {
    const disk = new MemoryDisk();
    for (const file of ['a', 'b', 'x', 'y']) disk.put(home(file), 'file', { size: 10, modified: 5000 });
    disk.put(home('y'), 'file', { size: 7, modified: 9000 });
    const crossing = (before: string, after: string): Change => ({
      ...move(before, after),
      expects: { size: 10, modified: 5001 },
    });
    const steps = ['a', 'b'].flatMap((id, i): Step[] => {
      const at = home(i === 0 ? 'x' : 'y');
      const content = { kind: 'copy', from: home(id) } as const;
      return [
        { id, do: 'copy', at, content },
        { id, do: 'place', at, content },
        { id, do: 'remove', at: home(id) },
      ];
    });
    const { done } = await find(disk, [crossing('a', 'x'), crossing('b', 'y')], steps, 5);
    const copies = done.filter(({ change }) => change.id.endsWith('+copy'));
    expect(copies.map(({ at, left }) => [at?.path, left])).toEqual([
      ['x', { size: 10, modified: 5000 }],
      ['y', { size: 10, modified: 5001 }],
    ]);
  });
});
