import { describe, expect, test } from '@jest/globals';
import { foldersFrom, parseListing } from '../listing';
import type { FileEntry, FolderListing } from '../listing/entry';
import { Documents, withWholeDocuments } from './documents';

const documents = new Documents([
  { name: 'scene', extensions: ['set', 'tar.set'], document: { folder: true } },
  { name: 'map', extensions: ['shp', 'dbf'], document: { stem: true } },
]);

describe('folders that are one document', () => {
  const isDocument = (path: string) => documents.isFolder(path.slice(path.lastIndexOf('/') + 1));
  const inListing = (lines: string) => withWholeDocuments(isDocument, foldersFrom(parseListing(lines)));

  test('stand among the files, with all that is in them; folders in them are none', () => {
    const found = inListing('a/\na/one.set/\na/one.set/x\na/one.set/deep.set/\na/one.set/deep.set/y\na/b.txt\n');
    expect(found.map((l) => l.path)).toEqual(['', 'a']);
    expect(found[1]).toMatchObject({
      folders: [],
      files: [{ name: 'b.txt' }, { name: 'one.set', isFolder: true }],
    });
  });

  test('by any of their endings, and by no other', () => {
    expect(
      ['a.set', 'A.SET', 'a.tar.set', 'set', '.set', 'a.sets', 'a.set.d'].map((n) => documents.isFolder(n)),
    ).toEqual([true, true, true, false, false, false, false]);
  });
});

describe('files that share a name', () => {
  const listing = (...names: string[]): FolderListing => ({
    path: '',
    folders: [],
    files: names.map((name): FileEntry => ({ name, size: 1, modified: 1 })),
    others: [],
  });
  const partsOf = (...names: string[]) =>
    Object.fromEntries(
      [...documents.partsIn(listing(...names))].map(([main, parts]) => [main, parts.map((p) => p.file.name)]),
    );

  test('belong to the one whose extension the family names first', () => {
    expect(partsOf('bay.dbf', 'bay.shp', 'BAY.dbf', 'bay.prj', 'coast.dbf')).toEqual({
      'bay.shp': ['bay.dbf', 'BAY.dbf', 'bay.prj'],
    });
  });

  test('belong to the longest name that stands whole in theirs', () => {
    expect(partsOf('bay.shp', 'bay_north.shp', 'bay_north_2.idx', 'thumb bay.png', 'bayou.idx', 'abay.png')).toEqual({
      'bay_north.shp': ['bay_north_2.idx'],
      'bay.shp': ['thumb bay.png'],
    });
  });

  test('are called as their document is', () => {
    const folder = listing('bay.shp', 'thumb bay.png', 'bay.shp.xml', 'bay-2.idx');
    const parts = documents.partsIn(folder).get('bay.shp') ?? [];
    expect(parts.map((part) => documents.renamedPart(part, 'bay.shp', 'cove_v02.shp'))).toEqual([
      'thumb cove_v02.png',
      'cove_v02.shp.xml',
      'cove_v02-2.idx',
    ]);
  });
});
