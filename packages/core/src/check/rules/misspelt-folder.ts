import { nameOf } from '../../listing/entry';
import { rule } from '../rule';

/**
 * A folder that is nearly an expected one, while that one is absent. What is in it is not judged: its name is the
 * cause.
 */
export const misspeltFolder = rule({
  code: 'misspelt-folder',
  weight: 'must',
  about: 'folder',
  params: { name: 'text', meant: 'text', home: 'text' },
  remedy: { act: 'rename', to: 'meant' },
  end: ({ folders }) =>
    folders.misspelt.map(({ row, line }) => ({
      path: row.path,
      params: { name: nameOf(row.path), meant: line.name, home: line.path },
    })),
});
