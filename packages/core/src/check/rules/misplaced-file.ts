import type { Rule } from '../rule';

/** A name that is right, in another folder: of another scene, or of another convention. */
export const misplacedFile: Rule = {
  code: 'misplaced-file',
  scope: 'file',
  judge: ({ rules, line, file, path }) => {
    const home = rules.homeOf(file.name);
    return home === null || home.key === line.key ? null : { path, params: { name: file.name, home: home.path } };
  },
};
