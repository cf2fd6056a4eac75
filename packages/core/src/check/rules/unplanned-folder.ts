import { nameOf } from '../../listing/entry';
import { rule } from '../rule';

/** A folder no rule knows. What is in it is not judged: its place is the cause. */
export const unplannedFolder = rule({
  code: 'unplanned-folder',
  weight: 'should',
  about: 'folder',
  params: { name: 'text', files: 'count', home: 'text' },
  remedy: { act: 'choose', among: ['planned-name', 'move-contents', 'keep-as-own'] },
  end: ({ rules, folders }) =>
    folders.unplanned.map((row) => ({
      path: row.path,
      params: {
        name: nameOf(row.path),
        files: row.files,
        home:
          (row.meant === undefined ? undefined : rules.expansion.lines.find((l) => l.key === row.meant)?.path) ?? '',
      },
    })),
});
