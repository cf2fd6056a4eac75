import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { takesWhole } from '../automaton/scan';
import { shapeText, TEXT_SHAPES, type TextShape } from './shape';

const shaped = (text: string, shape: TextShape) => {
  const s = shapeText(text, shape);
  return s.ok ? s.text : s.letters;
};

describe('shapes', () => {
  test.each([
    ['Harbour Lights', 'kebab', 'harbour-lights'],
    ['Été à la Straße', 'kebab', 'ete-a-la-strasse'],
    ["The ship's bell", 'snake', 'the_ships_bell'],
    ['west front 2', 'camel', 'westFront2'],
    ['west front', 'pascal', 'WestFront'],
    ['west FRONT', 'title', 'West Front'],
    ['Łódź', 'upper', 'LODZ'],
    ['  e\u0301 ', 'as-is', 'é'],
  ] as const)('%s as %s is %s', (text, shape, meant) => {
    expect(shaped(text, shape)).toBe(meant);
  });

  test('letters without a plain domain are named, never dropped', () => {
    expect(shaped('Мост 3', 'kebab')).toEqual(['М', 'о', 'с', 'т']);
  });

  test('what a shape writes, it reads, and writes again unchanged', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme', maxLength: 40 }),
        fc.constantFrom(...TEXT_SHAPES.filter((s) => s !== 'as-is')),
        (text, shape) => {
          const once = shapeText(text, shape);
          if (!once.ok || once.text === '') return;
          expect(takesWhole({ kind: 'text', shape, max: 255, chars: null }, once.text)).toBe(true);
          expect(shapeText(once.text, shape)).toEqual(once);
        },
      ),
    );
  });
});
