import { grouped } from '../../grouped';
import { join, nameOf, parentOf } from '../../listing/entry';
import { rule } from '../rule';

/** More of them beside each other are one thing: nobody looks at a thousand lines of the same. */
const MOST_APART = 1000;

/**
 * A folder no rule knows. What is in it is not judged: its place is the cause. Very many beside each other are one
 * finding, told of the first.
 */
export const unplannedFolder = rule({
  code: 'unplanned-folder',
  weight: 'should',
  about: 'folder',
  params: { name: 'text', files: 'count', home: 'text', more: 'count?' },
  remedy: { act: 'choose', among: ['planned-name', 'move-contents', 'keep-as-own'] },
  end: ({ rules, folders }) =>
    [...grouped(folders.unplanned, (row) => parentOf(row.path))].flatMap(([parent, rows]) => {
      const isMany = rows.length > MOST_APART;
      return (isMany ? rows.slice(0, 1) : rows).map((row) => ({
        path: row.path,
        ...(isMany && { subject: join(parent, '*') }),
        params: {
          name: nameOf(row.path),
          files: row.files,
          home:
            (row.meant === undefined ? undefined : rules.expansion.lines.find((l) => l.key === row.meant)?.path) ?? '',
          ...(isMany && { more: rows.length - 1 }),
        },
      }));
    }),
});
