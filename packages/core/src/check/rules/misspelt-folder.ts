import { nameOf } from '../../listing/entry';
import type { Rule } from '../rule';

/**
 * A folder that is nearly an expected one, while that one is absent. What is in it is not judged: its name is the
 * cause.
 */
export const misspeltFolder: Rule = {
  code: 'misspelt-folder',
  scope: 'end',
  judge: ({ folders }) =>
    folders.misspelt.map(({ row, line }) => ({
      path: row.path,
      params: { name: nameOf(row.path), meant: line.name, home: line.path },
    })),
};
