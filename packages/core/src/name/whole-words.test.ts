import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { changeWords, type WordChange, wordsIn } from './whole-words';

const to = (old: string, now: string | null): WordChange => ({ words: wordsIn(old), now: () => now });

describe('whole words become others', () => {
  test.each([
    ['26014_QHT_plan.pdf', [to('26014', '27003')], '27003_QHT_plan.pdf'],
    // Part of another number, of a date, of a longer word: no word.
    ['126014_a.pdf', [to('26014', '27003')], '126014_a.pdf'],
    ['2026-01-4_a.pdf', [to('26014', '27003')], '2026-01-4_a.pdf'],
    ['harbourside.pdf', [to('harbour', 'quay')], 'harbourside.pdf'],
    // Several words, whatever stands between them.
    ['Harbour Lights_board.pdf', [to('harbour-lights', 'Quay')], 'Quay_board.pdf'],
    ['harbour_LIGHTS.pdf', [to('Harbour Lights', 'quay')], 'quay.pdf'],
    // The longer one counts where both begin at one word.
    ['harbour-lights-2.pdf', [to('harbour', 'x'), to('harbour lights', 'y')], 'y-2.pdf'],
    // All at once: a new word that is another's old one stays.
    ['a_b.pdf', [to('a', 'b'), to('b', 'a')], 'b_a.pdf'],
    // What goes takes one separator along.
    ['a_draft_b.pdf', [to('draft', null)], 'a_b.pdf'],
    ['draft_b.pdf', [to('draft', null)], 'b.pdf'],
    ['a_draft.pdf', [to('draft', null)], 'a.pdf'],
    ['été_plan.pdf', [to('ete', 'x')], 'été_plan.pdf'],
  ])('%s', (name, changes, after) => expect(changeWords(name, changes)).toBe(after));

  test('there and back are the same name', () => {
    const word = fc.stringMatching(/^[a-z0-9]{1,6}$/);
    const name = fc.array(fc.tuple(word, fc.constantFrom('_', '-', ' ', '.', '__'))).map((p) => p.flat().join(''));
    fc.assert(
      fc.property(name, word, word, (text, old, now) => {
        fc.pre(!wordsIn(text).includes(now));
        expect(changeWords(changeWords(text, [to(old, now)]), [to(now, old)])).toBe(text);
      }),
    );
  });

  test('nothing but the words changes', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.string({ minLength: 1 }), (text, old) => {
        const words = wordsIn(old);
        fc.pre(words.length > 0);
        expect(changeWords(text, [{ words, now: (found) => found }])).toBe(text);
      }),
    );
  });
});
