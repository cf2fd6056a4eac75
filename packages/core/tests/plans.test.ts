/**
 * Plans: any changes are ordered and done; undone, every tree is what it was; killed anywhere, a batch is finished or
 * taken back whole.
 */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  applyBatch,
  type Change,
  doneAfter,
  home,
  leftOf,
  MemoryDisk,
  orderAny,
  orderChanges,
  type Place,
  placeKey,
  reverseChanges,
  runSteps,
  stepsDone,
} from '../src/change';
import { batchOf, bytesOf, FOLDER, killedAt, Notes, type Plan, plans, plansInTwo, treeOf, withOwn } from './plans';

const paths = (disk: MemoryDisk) =>
  [...disk.places().values()]
    .filter(({ path }) => !path.startsWith('.nesting'))
    .map(placeKey)
    .sort();
const same = { subject: { kind: 'file' }, group: null } as const;
const move = (before: string, after: string, entry: Change['entry'] = 'folder'): Change => ({
  ...same,
  id: before,
  entry,
  before: home(before),
  after: home(after),
  content: null,
});
const make = (after: string, entry: Change['entry'] = 'folder'): Change => ({
  ...same,
  id: `+${after}`,
  entry,
  before: null,
  after: home(after),
  content: entry === 'file' ? { kind: 'text', text: after } : null,
});

async function applied(disk: MemoryDisk, changes: readonly Change[], id = 'b1', group = 3) {
  const notes = new Notes(group);
  const outcome = await applyBatch(batchOf(changes, id), withOwn(disk, `.nesting/batches/${id}`), notes, { bytesOf });
  return { notes, outcome };
}

describe('order', () => {
  const after = (changes: readonly Change[], there: readonly string[]): string[] => {
    const disk = new MemoryDisk();
    for (const path of there) disk.put(home(path.replace(/\/$/, '')), path.endsWith('/') ? 'folder' : 'file');
    const { steps, faults } = orderChanges(changes);
    expect(faults).toEqual([]);
    for (const step of steps) {
      if (step.do === 'make') disk.make(step.at);
      else if (step.do === 'move') disk.move(step.from, step.at);
      else if (step.do === 'place') disk.write(step.at, bytesOf({ kind: 'text' }));
      else if (step.do === 'unmake') disk.unmake(step.at);
      else disk.remove(step.at);
    }
    return paths(disk);
  };

  test.each<[string, Change[], string[], string[]]>([
    ['two swap names', [move('a', 'b'), move('b', 'a')], ['a/', 'a/x', 'b/', 'b/y'], ['a', 'a/y', 'b', 'b/x']],
    [
      'a chain goes from its end',
      [move('1', '2'), move('2', '3'), move('3', '4')],
      ['1/', '2/', '3/'],
      ['2', '3', '4'],
    ],
    [
      'a folder and what is in it are both renamed',
      [move('a', 'b'), move('a/x', 'b/y', 'file')],
      ['a/', 'a/x', 'a/z'],
      ['b', 'b/y', 'b/z'],
    ],
    ['inside out', [move('a/b', 'a'), move('a', 'a/b')], ['a/', 'a/b/', 'a/x', 'a/b/y'], ['a', 'a/b', 'a/b/x', 'a/y']],
    [
      'a folder into one that is made in its place',
      [make('a'), move('a', 'a/old')],
      ['a/', 'a/x'],
      ['a', 'a/old', 'a/old/x'],
    ],
    [
      'into a folder that comes out of it, two levels down',
      [move('a/b', 'b'), move('a', 'b/c/a')],
      ['a/', 'a/b/', 'a/b/c/'],
      ['b', 'b/c', 'b/c/a'],
    ],
    ['capitals alone', [move('Survey', 'survey')], ['Survey/', 'Survey/x'], ['survey', 'survey/x']],
    [
      'two folders become one',
      [move('b/x', 'a/x', 'file'), move('b/y', 'a/y', 'file'), { ...move('b', 'b'), after: null }],
      ['a/', 'b/', 'b/x', 'b/y'],
      ['a', 'a/x', 'a/y'],
    ],
  ])('%s', (_, changes, there, result) => expect(after(changes, there)).toEqual(result));

  test('capitals alone go by way of another name, for systems that see one', () => {
    expect(orderChanges([move('Survey', 'survey')]).steps.map((s) => s.at.path)).toEqual([
      '.nesting-moving-1',
      'survey',
    ]);
  });

  test.each<[string, Change[], string]>([
    ['two go to one name', [move('a', 'c'), move('b', 'c')], 'changed-twice'],
    ['two names that some system cannot tell apart', [move('a', 'c'), move('b', 'C')], 'name-taken'],
    ['a name that stays taken', [move('a', 'b'), move('b/x', 'y', 'file')], 'name-taken'],
    ['into itself', [move('a', 'a/b')], 'into-itself'],
    ['into each other', [move('a', 'b/a'), move('b', 'a/b')], 'folder-gone'],
    ['into a folder that goes away', [move('a', 'b'), move('x', 'a/x', 'file')], 'folder-gone'],
    ['one entry to two places', [move('a', 'b'), { ...move('a', 'c'), id: 'other' }], 'changed-twice'],
  ])('%s is a fault', (_, changes, code) =>
    expect(orderChanges(changes)).toMatchObject({
      steps: [],
      faults: expect.arrayContaining([expect.objectContaining({ code })]),
    }),
  );

  test('a chain of fifty thousand is no deeper than one', () => {
    const changes = Array.from({ length: 50_000 }, (_, i) => move(`n${i}`, `n${i + 1}`, 'file'));
    const { steps, faults } = orderChanges(changes);
    expect([faults.length, steps.length, steps[0]?.at.path, steps.at(-1)?.at.path]).toEqual([
      0,
      50_000,
      'n50000',
      'n1',
    ]);
  });
});

describe('files that are only renamed', () => {
  test('the quick way takes just those whose order cannot matter, and ends where the other does', () => {
    const names = fc.constantFrom('a', 'b', 'B', 'c', 'd', 'x/a', 'x/b', 'x/B', 'y/c');
    // Into what may be a file that is itself renamed.
    const goals = fc.oneof(names, fc.constant('a/q'));
    fc.assert(
      fc.property(fc.array(fc.tuple(names, goals), { maxLength: 6 }), (pairs) => {
        const changes = pairs.map(([before, after], i): Change => ({ ...move(before, after, 'file'), id: String(i) }));
        const [quick, any] = [orderChanges(changes), orderAny(changes)];
        expect(quick.faults).toEqual(any.faults);
        const ends = (steps: typeof quick.steps): string[] => {
          const disk = new MemoryDisk();
          for (const folder of ['x', 'y']) disk.put(home(folder), 'folder');
          const ids = new Map(changes.map((c) => [disk.put(c.before as Place, 'file'), c.id]));
          if (changes.some((c) => c.after?.path === 'a/q') && disk.look(home('a')) === null)
            disk.put(home('a'), 'folder');
          for (const step of steps) if (step.do === 'move') disk.move(step.from, step.at);
          return [...disk.places()].map(([id, { path }]) => `${ids.get(id) ?? ''} ${path}`).sort();
        };
        if (quick.faults.length === 0) expect(ends(quick.steps)).toEqual(ends(any.steps));
      }),
      { numRuns: 500 },
    );
  });
});

const anyPlans = fc.oneof(plans, plansInTwo);

describe('laws', () => {
  test('any changes at all end in the tree that was meant; undone, every path and every byte is as it was; undone again, as meant', async () => {
    await fc.assert(
      fc.asyncProperty(anyPlans, async (plan: Plan) => {
        const disk = plan.before();
        const start = treeOf(disk);
        const { outcome, notes } = await applied(disk, plan.changes);
        expect(outcome.state).toBe('done');
        expect(paths(disk)).toEqual(plan.after);
        const middle = treeOf(disk);
        const intents = notes.intents as NonNullable<typeof notes.intents>;
        const back = reverseChanges(doneAfter(intents, intents.steps.length, leftOf(notes.outcomes), FOLDER));
        const undone = await applied(disk, back, 'b2');
        expect(undone.outcome.state).toBe('done');
        expect(treeOf(disk)).toEqual(start);
        const again = undone.notes.intents as NonNullable<typeof notes.intents>;
        const forth = reverseChanges(
          doneAfter(again, again.steps.length, leftOf(undone.notes.outcomes), '.nesting/batches/b2'),
        );
        expect((await applied(disk, forth, 'b3')).outcome.state).toBe('done');
        expect(treeOf(disk)).toEqual(middle);
      }),
      { numRuns: 500 },
    );
  });

  test('what comes to a place of the batch along with its folder is told from what was there, killed at any act', async () => {
    const gone = { ...same, entry: 'file', after: null, content: null, isWhole: false } as const;
    const changes: Change[] = [
      { ...gone, id: '-a/b/a', before: home('a/b/a') },
      move('a/b', 'b/a/b'),
      move('b/b', 'a/b'),
      make('a/b/b'),
    ];
    let killed = 0;
    for (let at = 0; at < 40; at++) {
      const disk = new MemoryDisk();
      for (const path of ['a', 'a/b', 'b', 'b/a', 'b/b', '.nesting']) disk.put(home(path), 'folder');
      // The second one comes to where the first one was.
      for (const path of ['a/b/a', 'b/b/a']) disk.put(home(path), 'file', { size: 9, modified: 1000 });
      withOwn(disk, FOLDER);
      const notes = new Notes(5);
      const ended = await applyBatch(batchOf(changes), killedAt(disk, notes, at), notes, { bytesOf }).catch(() => null);
      if (notes.intents === null || ended?.state === 'done') continue;
      killed++;
      expect([at, await stepsDone(notes.intents, notes.outcomes, FOLDER, disk, 5)]).toMatchObject([
        at,
        { clear: true },
      ]);
    }
    expect(killed).toBeGreaterThan(3);
  });

  test('killed before any act, a batch is finished whole or taken back whole, whichever is asked', async () => {
    await fc.assert(
      fc.asyncProperty(
        plans,
        fc.nat(40),
        fc.boolean(),
        fc.constantFrom(1, 2, 5, 100),
        async (plan: Plan, at, finish, group) => {
          const disk = plan.before();
          const start = treeOf(disk);
          const notes = new Notes(group);
          const ended = await applyBatch(batchOf(plan.changes), killedAt(disk, notes, at), notes, { bytesOf }).catch(
            () => null,
          );
          if (notes.intents === null) {
            // Not begun: nothing of the project is touched.
            expect(treeOf(disk)).toEqual(start);
            return;
          }
          if (ended?.state === 'done') return;
          const { intents } = notes;
          const far = await stepsDone(intents, notes.outcomes, FOLDER, disk, group);
          expect(far.clear).toBe(true);
          if (finish) {
            const more = new Notes(group);
            expect(
              (await runSteps({ steps: intents.steps, from: far.done, folder: FOLDER, port: disk, journal: more }, {}))
                .state,
            ).toBe('done');
            expect(paths(disk)).toEqual(plan.after);
          } else {
            const back = reverseChanges(doneAfter(intents, far.done, leftOf(notes.outcomes), FOLDER));
            expect((await applied(disk, back, 'b2')).outcome.state).toBe('done');
            expect(treeOf(disk)).toEqual(start);
          }
        },
      ),
      { numRuns: 600 },
    );
  });
});

describe('what a batch expects', () => {
  const disk = () => {
    const made = new MemoryDisk();
    made.put(home('a/x'), 'file', { size: 3, modified: 1000 });
    made.put(home('b'), 'folder');
    return made;
  };
  const x = (after: string): Change => ({ ...move('a/x', after, 'file'), expects: { size: 3, modified: 1000 } });

  test.each<[string, (d: MemoryDisk) => void, Change[], string]>([
    ['a file changed since', (d) => d.put(home('a/x'), 'file', { size: 4 }), [x('b/x')], 'changed'],
    ['a file written anew since', (d) => d.put(home('a/x'), 'file', { modified: 99_000 }), [x('b/x')], 'changed'],
    ['a file gone since', (d) => d.remove(home('a/x')), [x('b/x')], 'gone'],
    [
      'a folder that became a file',
      (d) => {
        d.unmake(home('b'));
        d.put(home('b'), 'file');
      },
      [move('b', 'c')],
      'other-kind',
    ],
    ['a name taken meanwhile', (d) => d.put(home('b/x'), 'file'), [x('b/x')], 'taken'],
    [
      'a name taken in a folder that is itself moved',
      (d) => d.put(home('b/x'), 'file'),
      [move('b', 'c'), x('c/x')],
      'taken',
    ],
  ])('%s stops it before it began, and is named', async (_, meanwhile, changes, code) => {
    const there = disk();
    meanwhile(there);
    const before = treeOf(there);
    const { outcome, notes } = await applied(there, changes);
    expect(outcome).toMatchObject({ state: 'refused', faults: [{ code }] });
    expect(notes.intents).toBeNull();
    expect(treeOf(there)).toEqual(before);
  });

  test('a content that cannot be laid ready stops it before it began', async () => {
    const there = disk();
    const full = Object.assign(Object.create(there) as MemoryDisk, {
      write: () => {
        throw Object.assign(new Error('full'), { code: 'ENOSPC' });
      },
    });
    const outcome = await applyBatch(
      batchOf([move('b', 'c'), make('n', 'file')]),
      withOwn(full, FOLDER),
      new Notes(1),
      { bytesOf },
    );
    expect(outcome).toMatchObject({ state: 'refused', faults: [{ code: 'not-ready', detail: 'ENOSPC' }] });
    expect(there.look(home('b'))).not.toBeNull();
  });

  test('what fails later pauses it; it is gone on with once the way is free, or taken back', async () => {
    for (const free of [true, false]) {
      const there = withOwn(disk(), FOLDER);
      let once = true;
      const port = Object.assign(Object.create(there) as MemoryDisk, {
        // Somebody makes a folder of that name between the look and the step.
        move: (from: Place, to: Place) => {
          if (once && to.path === 'c') there.make(home('c'));
          once &&= to.path !== 'c';
          there.move(from, to);
        },
      });
      const notes = new Notes(1);
      const changes = [make('0'), x('0/x'), move('b', 'c')];
      expect(await applyBatch(batchOf(changes), port, notes, { bytesOf })).toMatchObject({
        state: 'paused',
        at: home('c'),
        code: 'EEXIST',
      });
      const intents = notes.intents as NonNullable<typeof notes.intents>;
      const far = await stepsDone(intents, notes.outcomes, FOLDER, there, 1);
      if (free) {
        there.unmake(home('c'));
        expect(
          (
            await runSteps(
              { steps: intents.steps, from: far.done, folder: FOLDER, port: there, journal: new Notes(1) },
              {},
            )
          ).state,
        ).toBe('done');
        expect(paths(there)).toEqual(['0', '0/x', 'a', 'c']);
      } else {
        expect(
          (await applied(there, reverseChanges(doneAfter(intents, far.done, {}, FOLDER)), 'b2')).outcome.state,
        ).toBe('done');
        expect(paths(there)).toEqual(['a', 'a/x', 'b', 'c']);
      }
    }
  });

  test('entries called like what every object has are entries like others', async () => {
    const there = new MemoryDisk();
    there.put(home('constructor'), 'folder');
    there.put(home('toString'), 'file', { size: 1, modified: 1000 });
    const changes: Change[] = [
      move('constructor', 'valueOf'),
      { ...make('constructor', 'file'), id: 'hasOwnProperty' },
      {
        ...move('toString', 'toString', 'file'),
        content: { kind: 'text', text: 'y' },
        expects: { size: 1, modified: 1000 },
      },
    ];
    const start = treeOf(there);
    const { notes, outcome } = await applied(there, changes);
    expect(outcome.state).toBe('done');
    const intents = notes.intents as NonNullable<typeof notes.intents>;
    expect(await stepsDone(intents, notes.outcomes, FOLDER, there, 3)).toEqual({
      done: intents.steps.length,
      clear: true,
    });
    expect(
      (
        await applied(
          there,
          reverseChanges(doneAfter(intents, intents.steps.length, leftOf(notes.outcomes), FOLDER)),
          'b2',
        )
      ).outcome.state,
    ).toBe('done');
    expect(treeOf(there)).toEqual(start);
  });

  test('undo leaves what was made and is in use, and says which', async () => {
    const there = disk();
    const { notes } = await applied(there, [make('n'), make('n/f', 'file'), make('m')]);
    there.put(home('n/f'), 'file', { size: 77 });
    const intents = notes.intents as NonNullable<typeof notes.intents>;
    const back = reverseChanges(doneAfter(intents, intents.steps.length, leftOf(notes.outcomes), FOLDER));
    expect((await applied(there, back, 'b2')).outcome).toMatchObject({
      state: 'refused',
      faults: [{ code: 'changed', at: home('n/f') }],
    });
    // The rest can be undone without it.
    expect(
      (
        await applied(
          there,
          back.filter((c) => c.id === '+m'),
          'b3',
        )
      ).outcome.state,
    ).toBe('done');
    expect(paths(there)).toEqual(['a', 'a/x', 'b', 'n', 'n/f']);
  });
});
