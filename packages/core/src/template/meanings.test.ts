import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type Meanings, marksIn, settleMarks, withMarks } from './meanings';
import { type FolderNode, MARKS, type Mark } from './node';

const WORDS = ['arrives', 'Thought out', 'in work', 'goes out', 'paperwork', 'generated', 'weather', 'kitchen', 'roof'];
/** Each mark with words of its own, or free. */
const meanings = fc
  .shuffledSubarray(WORDS, { minLength: 0, maxLength: 8 })
  .chain((words) =>
    fc
      .shuffledSubarray([...MARKS], { minLength: words.length, maxLength: words.length })
      .map((marks): Meanings => Object.fromEntries(marks.map((mark, i) => [mark, words[i]]))),
  );
const used = fc.subarray([...MARKS]).map((marks) => new Set<Mark>(marks));

describe('marks from elsewhere', () => {
  test('keep their meaning, or lose their mark; what the house has never changes', () => {
    fc.assert(
      fc.property(used, meanings, meanings, (marks, theirs, ours) => {
        const settled = settleMarks(marks, theirs, ours);
        const after: Meanings = { ...settled.meanings, ...ours };
        const stays = (mark: Mark) => marks.has(mark) && theirs[mark] === undefined;
        for (const mark of marks) {
          const given = settled.marks.get(mark);
          const words = theirs[mark];
          if (words === undefined) expect(given).toBe(mark);
          else if (given === null) expect(MARKS.filter((m) => after[m] === undefined && !stays(m))).toEqual([]);
          else {
            expect(after[given as Mark]).toBe(words);
            expect(stays(given as Mark) && ours[given as Mark] === undefined).toBe(false);
          }
        }
        for (const [mark, words] of Object.entries(settled.meanings)) expect(after[mark as Mark]).toBe(words);
      }),
    );
  });

  test('stay as they are when a file comes home', () => {
    fc.assert(
      fc.property(used, meanings, (marks, ours) => {
        for (const [mark, given] of settleMarks(marks, ours, ours).marks) expect(given).toBe(mark);
      }),
    );
  });

  test('go by words, whatever their letters; then by what is free', () => {
    const ours: Meanings = { plum: 'Arrives', moss: 'in work' };
    const { marks, meanings: after } = settleMarks(
      new Set<Mark>(['moss', 'clay', 'rose']),
      { moss: ' arrives', clay: 'roof', rose: 'in work' },
      ours,
    );
    expect([...marks].sort()).toEqual([
      ['clay', 'clay'],
      ['moss', 'plum'],
      ['rose', 'moss'],
    ]);
    expect(after).toEqual({ plum: 'Arrives', clay: 'roof', moss: 'in work' });
  });

  test('are replaced in every folder, and nothing else is', () => {
    const root: FolderNode = { id: 'a', mark: 'moss', folders: [{ id: 'b', name: 'x', mark: 'clay' }, { id: 'c' }] };
    expect(marksIn([root])).toEqual(new Set(['moss', 'clay']));
    const marks = new Map<Mark, Mark | null>([
      ['moss', 'ink'],
      ['clay', null],
    ]);
    expect(withMarks(root, marks)).toEqual({ id: 'a', mark: 'ink', folders: [{ id: 'b', name: 'x' }, { id: 'c' }] });
  });
});
