import { subjectAt } from '../../project/runs';
import { type FileCase, rule } from '../rule';

/** A file beside folders where no files belong: the project's root, above all. */
export const looseFile = rule({
  code: 'loose-file',
  weight: 'should',
  about: 'file',
  params: { name: 'text', folder: 'text' },
  remedy: { act: 'move', to: 'taker' },
  file: (c) =>
    belongsNowhere(c)
      ? {
          path: c.path,
          ...subjectAt(c.rules, c.rules.homeOf(c.file.name), c.path),
          params: { name: c.file.name, folder: c.line.path === '' ? '' : c.line.name },
        }
      : null,
});

/** Accepting nothing says so; a folder that only holds folders and names no family and no convention means it. */
function belongsNowhere({ line }: FileCase): boolean {
  const { accepts, conventions, holdsFolders } = line.rules;
  if (accepts !== null) return accepts.length === 0;
  return conventions === null && (holdsFolders || line.parent === null);
}
