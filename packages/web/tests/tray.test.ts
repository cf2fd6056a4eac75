import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { flatten, type TreeNode, type TreeRow } from '../src/tray/flatten';

const node = (key: string, depth: number, more: Partial<TreeNode> = {}): TreeNode => ({
  key,
  depth,
  kind: 'folder',
  pieces: [{ text: key, field: null }],
  mark: null,
  state: 'planned',
  open: true,
  ...more,
});
const keys = (rows: readonly TreeRow[]) => rows.map((r) => r.key);

const scenes = (open = true) => [
  node('root', 0),
  node('motion', 1),
  ...['s01', 's02', 's03', 's04', 's05'].flatMap((s, i) => [
    node(s, 2, { group: 'scenes', open: i === 0 && open }),
    node(`${s}/work`, 3),
  ]),
  node('sound', 1),
];

describe('the rows of a tree', () => {
  test('alike siblings behind the first are one row, until it is opened', () => {
    const rows = flatten(scenes(), new Map());
    expect(keys(rows)).toEqual(['root', 'motion', 's01', 's01/work', 'fold:scenes', 'sound']);
    expect(rows[4]?.fold).toEqual({ group: 'scenes', words: 's02 … s05', count: 4 });
    expect(keys(flatten(scenes(), new Map([['fold:scenes', true]])))).toEqual([
      'root',
      'motion',
      's01',
      's01/work',
      's02',
      's03',
      's04',
      's05',
      'sound',
    ]);
  });

  test('three alike are shown one by one', () => {
    expect(keys(flatten(scenes().slice(0, 8), new Map()))).toEqual(['root', 'motion', 's01', 's01/work', 's02', 's03']);
  });

  test('a fold carries the heaviest weight of what it hides', () => {
    const nodes = scenes().map((n) =>
      n.key === 's04' ? { ...n, weight: 'must' as const } : n.key === 's02' ? { ...n, weight: 'note' as const } : n,
    );
    expect(flatten(nodes, new Map())[4]?.node.weight).toBe('must');
  });

  test('what is closed hides what is in it; closing wins over the default', () => {
    expect(keys(flatten(scenes(), new Map([['motion', false]])))).toEqual(['root', 'motion', 'sound']);
    expect(keys(flatten(scenes(), new Map([['root', false]])))).toEqual(['root']);
  });

  test('trays begin at their folder and end with the last row in it', () => {
    const rows = flatten(scenes(), new Map());
    expect(rows.map((r) => r.trays.map((t) => `${t.depth}${t.first ? 'f' : ''}${t.last ? 'l' : ''}`))).toEqual([
      [],
      ['1f'],
      ['1', '2f'],
      ['1', '2l'],
      ['1l'],
      [],
    ]);
  });

  test('of any hierarchy: every tray has one beginning and one end, every parent stands above, and opening all shows all', () => {
    const hierarchy = fc.array(fc.nat(4), { maxLength: 40 }).map((depths) => {
      let last = 0;
      return [
        node('n0', 0),
        ...depths.map((d, i) => {
          last = Math.min(d + 1, last + 1);
          return node(`n${i + 1}`, last);
        }),
      ];
    });
    fc.assert(
      fc.property(hierarchy, fc.array(fc.nat(40)), (nodes, closed) => {
        const rows = flatten(nodes, new Map(closed.map((i) => [`n${i}`, false])));
        const trays = rows.flatMap((r) => r.trays);
        expect(trays.filter((t) => t.first).length).toBe(trays.filter((t) => t.last).length);
        for (const [i, r] of rows.entries())
          expect(r.parent === null || keys(rows.slice(0, i)).includes(r.parent)).toBe(true);
        expect(keys(flatten(nodes, new Map()))).toEqual(nodes.map((n) => n.key));
      }),
    );
  });
});
