import { nameOf } from '../../listing/entry';
import type { Rule } from '../rule';

/** A folder no rule knows. What is in it is not judged: its place is the cause. */
export const unplannedFolder: Rule = {
  code: 'unplanned-folder',
  scope: 'end',
  judge: ({ rules, folders }) =>
    folders.unplanned.map((row) => ({
      path: row.path,
      params: {
        name: nameOf(row.path),
        files: row.files,
        home:
          (row.meant === undefined ? undefined : rules.expansion.lines.find((l) => l.key === row.meant)?.path) ?? '',
      },
    })),
};
