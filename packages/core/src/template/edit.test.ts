import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  absorbNumbers,
  duplicateFolders,
  findFolder,
  freeNumber,
  groupFolders,
  idsIn,
  indentFolders,
  insertFolders,
  moveFolders,
  outdentFolders,
  removeFolders,
  renumberFolders,
  setFolder,
  shiftFolders,
  typedName,
} from './edit';
import type { FolderNode } from './node';

const leaf = (id: string, number?: number): FolderNode => ({ id, name: id, ...(number !== undefined && { number }) });
const numbered: FolderNode = {
  id: 'root',
  name: 'r',
  numbering: { digits: 2, joiner: '_', reserved: [{ number: 4 }] },
  folders: [leaf('a', 1), leaf('b', 2), leaf('c', 5), leaf('d', 6)],
};
const numbers = (root: FolderNode) => Object.fromEntries((root.folders ?? []).map((f) => [f.id, f.number]));

test('a folder keeps its number when a neighbour goes; one put between takes a free number, or none is free', () => {
  expect(numbers(removeFolders(numbered, ['b']))).toEqual({ a: 1, c: 5, d: 6 });
  expect(numbers(insertFolders(numbered, { parent: 'root', index: 2 }, [leaf('x')]))).toEqual({
    a: 1,
    b: 2,
    x: 3,
    c: 5,
    d: 6,
  });
  expect(freeNumber(numbered, 1)).toBeNull();
  expect(freeNumber(numbered, 3)).toBeNull();
  expect(freeNumber(numbered, 4)).toBe(7);
  expect(numbers(renumberFolders(removeFolders(numbered, ['b']), 'root'))).toEqual({ a: 1, c: 2, d: 3 });
  expect(numbers(renumberFolders(insertFolders(numbered, { parent: 'root', index: 1 }, [leaf('x')]), 'root'))).toEqual({
    a: 1,
    x: 2,
    b: 3,
    c: 5,
    d: 6,
  });
});

test('moving among siblings keeps numbers where it can and never leaves them out of order', () => {
  expect(numbers(shiftFolders(numbered, ['c'], -1))).toEqual({ a: 1, c: 2, b: 5, d: 6 });
  expect(numbers(moveFolders(numbered, ['a'], { parent: 'root', index: 4 }))).toEqual({ b: 2, c: 5, d: 6, a: 7 });
});

test('a name typed with its number is both', () => {
  expect(typedName(numbered, '40_motion')).toEqual({ name: 'motion', number: 40 });
  expect(typedName(numbered, '2026')).toEqual({ name: '2026' });
  expect(typedName(null, '40_motion')).toEqual({ name: '40_motion' });
  const typed = insertFolders(numbered, { parent: 'root', index: 4 }, [{ id: 'x', name: '80_masters' }]);
  expect(findFolder(absorbNumbers(typed, ['x', 'a']), 'x')?.node).toEqual({ id: 'x', name: 'masters', number: 80 });
});

test('what is left alone stays the very same', () => {
  const deep: FolderNode = {
    id: 'root',
    name: 'r',
    folders: [
      { id: 'a', name: 'a', folders: [leaf('x')] },
      { id: 'b', name: 'b', folders: [leaf('y')] },
    ],
  };
  const changed = setFolder(deep, 'x', { purpose: 'for x' });
  expect(changed.folders?.[1]).toBe(deep.folders?.[1]);
  expect(findFolder(changed, 'x')?.node.purpose).toBe('for x');
  expect(setFolder(changed, 'x', { purpose: undefined })).toEqual(deep);
  expect(removeFolders(deep, ['gone'])).toBe(deep);
});

const tree: fc.Arbitrary<FolderNode> = fc
  .array(fc.tuple(fc.nat(30), fc.boolean()), { minLength: 1, maxLength: 25 })
  .map((edges) => {
    interface Making {
      id: string;
      name: string;
      numbering?: FolderNode['numbering'];
      folders: Making[];
    }
    const nodes: Making[] = [{ id: 'root', name: 'root', folders: [] }];
    edges.forEach(([parent, numbers], i) => {
      const node: Making = {
        id: `n${i}`,
        name: `n${i}`,
        folders: [],
        ...(numbers && { numbering: { digits: 2, joiner: '_' } }),
      };
      (nodes[parent % nodes.length] as Making).folders.push(node);
      nodes.push(node);
    });
    return nodes[0] as FolderNode;
  });
const act = fc.tuple(
  fc.constantFrom('move', 'indent', 'outdent', 'up', 'down', 'group', 'duplicate', 'remove', 'renumber'),
  fc.array(fc.nat(30), { minLength: 1, maxLength: 3 }),
  fc.nat(30),
  fc.nat(5),
);

test('whatever is done, ids stay unique, nothing is lost but what is removed, and no tree holds itself', () => {
  fc.assert(
    fc.property(tree, fc.array(act, { maxLength: 12 }), (start, acts) => {
      let root = start;
      for (const [kind, picks, other, index] of acts) {
        const all = [...idsIn(root)].filter((id) => id !== 'root');
        if (all.length === 0) break;
        const ids = picks.map((p) => all[p % all.length] as string);
        const target = ['root', ...all][other % (all.length + 1)] as string;
        const before = new Set(all);
        const next =
          kind === 'move'
            ? moveFolders(root, ids, {
                parent: target,
                index: Math.min(index, findFolder(root, target)?.node.folders?.length ?? 0),
              })
            : kind === 'indent'
              ? indentFolders(root, ids)
              : kind === 'outdent'
                ? outdentFolders(root, ids)
                : kind === 'up'
                  ? shiftFolders(root, ids, -1)
                  : kind === 'down'
                    ? shiftFolders(root, ids, 1)
                    : kind === 'group'
                      ? groupFolders(root, ids, 'group').root
                      : kind === 'duplicate'
                        ? duplicateFolders(root, ids).root
                        : kind === 'renumber'
                          ? renumberFolders(root, target)
                          : removeFolders(root, ids);
        const list: string[] = [];
        const walk = (node: FolderNode): void => {
          list.push(node.id);
          node.folders?.forEach(walk);
        };
        walk(next);
        expect(new Set(list).size).toBe(list.length);
        if (kind !== 'remove') for (const id of before) expect(list).toContain(id);
        if (['move', 'indent', 'outdent', 'up', 'down', 'renumber'].includes(kind))
          expect(list.length).toBe(before.size + 1);
        root = next;
      }
    }),
    { seed: 4, numRuns: 300 },
  );
});

test('up then down, in then out, gives the tree back where nothing is numbered', () => {
  fc.assert(
    fc.property(tree, fc.nat(30), (start, pick) => {
      const bare = JSON.parse(
        JSON.stringify(start, (key, value) => (key === 'numbering' ? undefined : value)),
      ) as FolderNode;
      const all = [...idsIn(bare)].filter((id) => id !== 'root');
      const id = all[pick % all.length] as string;
      const up = shiftFolders(bare, [id], -1);
      if (up !== bare) expect(shiftFolders(up, [id], 1)).toEqual(bare);
      const into = indentFolders(bare, [id]);
      if (into !== bare) expect(outdentFolders(into, [id])).toEqual(bare);
    }),
    { seed: 5, numRuns: 300 },
  );
});
