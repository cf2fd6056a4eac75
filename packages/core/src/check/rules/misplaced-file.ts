import { subjectAt } from '../../project/runs';
import { rule } from '../rule';

/** A name that is right, in another folder: of another scene, or of another convention. */
export const misplacedFile = rule({
  code: 'misplaced-file',
  weight: 'should',
  about: 'file',
  params: { name: 'text', home: 'text' },
  remedy: { act: 'move', to: 'home' },
  file: ({ rules, line, file, path }) => {
    const home = rules.homeOf(file.name);
    return home === null || home.key === line.key
      ? null
      : { path, ...subjectAt(rules, home, path), params: { name: file.name, home: home.path } };
  },
});
