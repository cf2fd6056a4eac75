import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { duplicateFolders, idsIn, moveFolders, removeFolders, setFolder } from './edit';
import { mergeFolders } from './merge';
import type { FolderNode } from './node';

const rootOf = (folders: readonly FolderNode[]): FolderNode => ({ id: 'top', name: 'top', folders });
const foldersIn = (folders: readonly FolderNode[]): string[] =>
  folders.flatMap((f) => [f.id, ...foldersIn(f.folders ?? [])]);
const shape = (folders: readonly FolderNode[]): unknown =>
  folders.map((f) => ({ ...f, folders: shape(f.folders ?? []) }));

const start: fc.Arbitrary<FolderNode> = fc.array(fc.nat(20), { minLength: 1, maxLength: 14 }).map((parents) => {
  interface Making {
    id: string;
    name: string;
    folders: Making[];
  }
  const nodes: Making[] = [{ id: 'top', name: 'top', folders: [] }];
  parents.forEach((parent, i) => {
    const node: Making = { id: `n${i}`, name: `n${i}`, folders: [] };
    (nodes[parent % nodes.length] as Making).folders.push(node);
    nodes.push(node);
  });
  return nodes[0] as FolderNode;
});

const act = fc.tuple(
  fc.constantFrom('move', 'name', 'purpose', 'remove', 'duplicate', 'starter'),
  fc.nat(30),
  fc.nat(30),
  fc.nat(4),
);
type Act = [string, number, number, number];

/** What somebody did to a hierarchy; `who` is in all that is new, so that two sides never make the same. */
function done(start: FolderNode, acts: readonly Act[], who: string): FolderNode {
  let root = start;
  for (const [kind, pick, other, index] of acts) {
    const all = [...idsIn(root)].filter((id) => id !== 'top' && !id.startsWith('file'));
    const id = all[pick % (all.length || 1)];
    if (id === undefined) break;
    const target = ['top', ...all][other % (all.length + 1)] as string;
    if (kind === 'move') root = moveFolders(root, [id], { parent: target, index });
    else if (kind === 'name') root = setFolder(root, id, { name: `${who}${index}` });
    else if (kind === 'purpose') root = setFolder(root, id, { purpose: `${who}${index}` });
    else if (kind === 'starter')
      root = setFolder(root, id, { starters: [{ id: `file-${who}-${index}`, name: 'x', from: 'x' }] });
    else if (kind === 'remove') root = removeFolders(root, [id]);
    else root = duplicateFolders(root, [id]).root;
  }
  return root;
}
// A copy is given the name's own id: those of the two sides must differ.
const renamed = (root: FolderNode, base: ReadonlySet<string>, who: string): FolderNode => ({
  ...root,
  id: base.has(root.id) ? root.id : `${who}-${root.id}`,
  ...(root.folders && { folders: root.folders.map((f) => renamed(f, base, who)) }),
});

const three = fc.tuple(start, fc.array(act, { maxLength: 8 }), fc.array(act, { maxLength: 8 })).map(([base, a, b]) => {
  const ids = idsIn(base);
  return {
    base: base.folders ?? [],
    mine: renamed(done(base, a, 'mine'), ids, 'mine').folders ?? [],
    theirs: renamed(done(base, b, 'theirs'), ids, 'theirs').folders ?? [],
  };
});

test('what one side alone changed is exactly what comes of it', () => {
  fc.assert(
    fc.property(three, ({ base, mine, theirs }) => {
      expect(shape(mergeFolders(base, base, theirs).folders)).toEqual(shape(theirs));
      expect(shape(mergeFolders(base, mine, base).folders)).toEqual(shape(mine));
      expect(shape(mergeFolders(base, mine, mine).folders)).toEqual(shape(mine));
      expect(mergeFolders(base, mine, base).clashes).toEqual([]);
    }),
    { numRuns: 400 },
  );
});

test('whatever both did, each folder is there once, none is lost that a side made, and the same question is asked of both', () => {
  fc.assert(
    fc.property(three, ({ base, mine, theirs }) => {
      for (const side of ['mine', 'theirs'] as const) {
        const { folders } = mergeFolders(base, mine, theirs, () => side);
        const all = foldersIn(folders);
        expect(new Set(all).size).toBe(all.length);
        const [b, m, t] = [foldersIn(base), foldersIn(mine), foldersIn(theirs)];
        for (const id of [...m, ...t])
          if (!b.includes(id) || (m.includes(id) && t.includes(id))) expect(all).toContain(id);
      }
      const clashes = (a: typeof mine, c: typeof theirs) =>
        mergeFolders(base, a, c)
          .clashes.map((x) => `${x.id} ${x.what}`)
          .sort();
      expect(clashes(mine, theirs)).toEqual(clashes(theirs, mine));
    }),
    { numRuns: 400 },
  );
});

const base: FolderNode[] = [
  { id: 'quotes', name: 'quotes' },
  { id: 'permits', name: 'permits', purpose: 'Power.' },
  { id: 'rights', name: 'rights', folders: [{ id: 'music', name: 'music' }] },
];

test('a clash is told with both ways, and goes the way that is decided', () => {
  const mine = setFolder(rootOf(base), 'permits', { purpose: 'Power and heritage.' }).folders ?? [];
  const theirs =
    setFolder(setFolder(rootOf(base), 'permits', { purpose: 'Road closures.' }), 'quotes', { name: 'offers' })
      .folders ?? [];
  const merged = mergeFolders(base, mine, theirs);
  expect(merged.clashes).toEqual([
    { id: 'permits', what: 'purpose', name: 'permits', mine: 'Power and heritage.', theirs: 'Road closures.' },
  ]);
  expect(merged.folders.map((f) => [f.name, f.purpose])).toEqual([
    ['offers', undefined],
    ['permits', 'Power and heritage.'],
    ['rights', undefined],
  ]);
  expect(mergeFolders(base, mine, theirs, () => 'theirs').folders[1]?.purpose).toBe('Road closures.');
});

test('a folder the block lost stays where the template put something in it, unless it is decided otherwise', () => {
  const mine = setFolder(rootOf(base), 'music', { purpose: 'Ours.' }).folders ?? [];
  const theirs = removeFolders(rootOf(base), ['rights']).folders ?? [];
  expect(mergeFolders(base, mine, theirs).folders.map((f) => f.id)).toEqual(['quotes', 'permits', 'rights']);
  expect(mergeFolders(base, mine, theirs).clashes.map((c) => `${c.id} ${c.what}`)).toEqual(
    expect.arrayContaining(['rights folder', 'music folder']),
  );
  expect(mergeFolders(base, mine, theirs, () => 'theirs').folders.map((f) => f.id)).toEqual(['quotes', 'permits']);
  expect(mergeFolders(base, base, theirs).folders.map((f) => f.id)).toEqual(['quotes', 'permits']);
});

test('two folders put into each other stay as the template has them', () => {
  const flat: FolderNode[] = [
    { id: 'a', name: 'a' },
    { id: 'b', name: 'b' },
  ];
  const mine: FolderNode[] = [{ id: 'b', name: 'b', folders: [{ id: 'a', name: 'a' }] }];
  const theirs: FolderNode[] = [{ id: 'a', name: 'a', folders: [{ id: 'b', name: 'b' }] }];
  expect(mergeFolders(flat, mine, theirs).folders).toEqual(mine);
});
