import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Bounded, Recent, Remembered } from './remembered';

describe('what is worked out once', () => {
  test('an object is asked about once, even where the answer is nothing', () => {
    let asked = 0;
    const made = new Remembered((key: { readonly n: number | undefined }) => {
      asked++;
      return key.n;
    });
    const [one, none] = [{ n: 1 }, { n: undefined }];
    expect(made.known(one)).toBeUndefined();
    expect([made.of(one), made.of(one), made.of(none), made.of(none)]).toEqual([1, 1, undefined, undefined]);
    expect(asked).toBe(2);
    expect(made.known(one)).toBe(1);
    // The same content is another object.
    expect(made.of({ n: 1 })).toBe(1);
    expect(asked).toBe(3);
  });

  test('texts are answered rightly however many there are, and a text asked for again at once is not worked out anew', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5 }),
        fc.array(fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f')),
        (most, all) => {
          let asked = 0;
          const made = new Bounded(most, (text) => {
            asked++;
            return text.toUpperCase();
          });
          for (const text of all) {
            expect(made.of(text)).toBe(text.toUpperCase());
            const before = asked;
            made.of(text);
            expect(asked).toBe(before);
          }
        },
      ),
    );
  });

  test('of things used lately those unused for longest go', () => {
    const step = fc.record({ set: fc.boolean(), key: fc.constantFrom('a', 'b', 'c', 'd', 'e') });
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 4 }), fc.array(step, { maxLength: 60 }), (most, steps) => {
        const recent = new Recent<number>(most);
        // The model: a list, the newest at its end.
        let model: [string, number][] = [];
        steps.forEach(({ set, key }, n) => {
          const there = model.find(([k]) => k === key);
          if (set) {
            recent.set(key, n);
            model = [...model.filter(([k]) => k !== key), [key, n] as [string, number]].slice(-most);
          } else {
            expect(recent.get(key)).toBe(there?.[1]);
            if (there) model = [...model.filter(([k]) => k !== key), there];
          }
        });
        for (const key of ['a', 'b', 'c', 'd', 'e']) expect(recent.get(key)).toBe(model.find(([k]) => k === key)?.[1]);
      }),
    );
  });
});
