import { subjectAt } from '../../project/runs';
import { isNearName } from '../name-causes';
import { rule } from '../rule';
import { isNoteOf } from './licence-missing';

/**
 * A family of files that the folder does not accept; which folder does, where one is meant for that very name. A file of
 * no family is one as well, unless its name is a slip of one that belongs here.
 */
export const familyNotAccepted = rule({
  code: 'family-not-accepted',
  weight: 'should',
  about: 'file',
  params: { name: 'text', family: 'text', accepts: 'texts', home: 'text' },
  remedy: { act: 'move', to: 'taker' },
  file: (c) => {
    const { rules, line, file, path } = c;
    const { accepts } = line.rules;
    const family = rules.familyOf(file.name);
    if (accepts === null || accepts.length === 0 || (family !== null && accepts.includes(family))) return null;
    if (isNoteOf(line, file.name) || (family === null && (c.conventions.length === 0 || isNearName(c)))) return null;
    const home = rules.homeOf(file.name);
    const params = { name: file.name, family: family ?? '', accepts, home: home?.path ?? '' };
    return { path, ...subjectAt(rules, home, path), params };
  },
});
