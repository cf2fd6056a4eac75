import { nameOf } from '../../listing/entry';
import type { Rule } from '../rule';

/** A folder that is expected at another place, or lies doubled in itself. */
export const misplacedFolder: Rule = {
  code: 'misplaced-folder',
  scope: 'end',
  judge: ({ folders }) =>
    folders.misplaced.map(({ row, line, doubled }) => ({
      path: row.path,
      params: { name: nameOf(row.path), home: line.path, doubled: doubled ? 1 : 0 },
    })),
};
