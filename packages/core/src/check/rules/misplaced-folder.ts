import { nameOf } from '../../listing/entry';
import { rule } from '../rule';

/** A folder that is expected at another place, or lies doubled in itself. */
export const misplacedFolder = rule({
  code: 'misplaced-folder',
  weight: 'should',
  about: 'folder',
  params: { name: 'text', home: 'text', doubled: 'count' },
  remedy: { act: 'move', to: 'home' },
  end: ({ folders }) =>
    folders.misplaced.map(({ row, line, doubled }) => ({
      path: row.path,
      params: { name: nameOf(row.path), home: line.path, doubled: doubled ? 1 : 0 },
    })),
});
