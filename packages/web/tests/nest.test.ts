import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compareNames } from '../src/anatomy/compare';
import { layoutNest, type NestNode } from '../src/nest/layout';

const grow = (depth: number): fc.Arbitrary<NestNode> =>
  fc
    .record({
      size: fc.integer({ min: 1, max: 500 }),
      children: depth === 0 ? fc.constant<NestNode[]>([]) : fc.array(grow(depth - 1), { maxLength: 6 }),
    })
    .map(({ size, children }) => ({
      key: '',
      name: 'x',
      mark: null,
      state: 'planned' as const,
      size: size + children.reduce((n, c) => n + c.size, 0),
      children,
    }));
const tree = grow(3);

describe('the nest', () => {
  test('boxes lie inside their frame and siblings do not overlap, whatever the hierarchy', () => {
    fc.assert(
      fc.property(tree, fc.integer({ min: 40, max: 400 }), fc.integer({ min: 30, max: 300 }), (root, width, height) => {
        const boxes = layoutNest(root, width, height, 2, 2);
        for (const b of boxes) {
          expect(b.x).toBeGreaterThanOrEqual(-0.01);
          expect(b.y).toBeGreaterThanOrEqual(-0.01);
          expect(b.x + b.w).toBeLessThanOrEqual(width + 0.01);
          expect(b.y + b.h).toBeLessThanOrEqual(height + 0.01);
        }
        const first = boxes.filter((b) => b.depth === 1);
        for (const a of first)
          for (const b of first)
            if (a !== b)
              expect(
                a.x + a.w <= b.x + 0.01 ||
                  b.x + b.w <= a.x + 0.01 ||
                  a.y + a.h <= b.y + 0.01 ||
                  b.y + b.h <= a.y + 0.01,
              ).toBe(true);
      }),
    );
  });

  test('what has more in it is larger', () => {
    const leaf = (key: string, size: number): NestNode => ({
      key,
      name: key,
      mark: null,
      state: 'there',
      size,
      children: [],
    });
    const boxes = layoutNest(
      { ...leaf('root', 110), children: [leaf('large', 100), leaf('small', 4)] },
      200,
      100,
      2,
      2,
    );
    const area = (key: string) => boxes.filter((b) => b.node.key === key).map((b) => b.w * b.h)[0] ?? 0;
    expect(area('large')).toBeGreaterThan(2 * area('small'));
  });
});

describe('two names side by side', () => {
  test('what differs is marked in both, word by word', () => {
    const { before, after } = compareNames('26014_s03_animation_BO_final_v4.usda', '26014_s03_anim_BO_v004.usda');
    expect(before.filter((p) => !p.same).map((p) => p.text)).toEqual(['animation', 'final_', '4']);
    expect(after.filter((p) => !p.same).map((p) => p.text)).toEqual(['anim', '004']);
  });

  test('both sides are whole, and what is the same is the same on both', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 30 }), fc.string({ maxLength: 30 }), (a, b) => {
        const { before, after } = compareNames(a, b);
        expect(before.map((p) => p.text).join('')).toBe(a);
        expect(after.map((p) => p.text).join('')).toBe(b);
        const same = (all: typeof before) =>
          all
            .filter((p) => p.same)
            .map((p) => p.text)
            .join('');
        expect(same(before)).toBe(same(after));
      }),
    );
  });
});
