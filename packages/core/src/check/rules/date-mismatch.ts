import { grouped } from '../../grouped';
import { join, nameOf } from '../../listing/entry';
import { dateIn } from '../../project/days';
import type { PlannedLine } from '../../template/expansion';
import { isAhead } from '../days';
import { type ParamsOf, type RawFinding, rule } from '../rule';

const PARAMS = {
  name: 'text',
  date: 'text',
  found: 'text',
  files: 'count?',
  folder: 'count?',
  among: 'count?',
} as const;

/**
 * A dated name whose file was last written before that day: it carries another day's date. In a dated folder the folder
 * says it, where nothing in it is of its day; else each other day is said once.
 */
export const dateMismatch = rule({
  code: 'date-mismatch',
  weight: 'note',
  about: 'file',
  params: PARAMS,
  remedy: { act: 'none' },
  folder: ({ rules, listing, state, items }) => {
    if (state.kind !== 'planned' || rules.datedFolder(state.line) !== null) return [];
    return items.read.flatMap(({ file, by, reading }) => {
      const date = dateIn(by, reading);
      return date === null || !isAhead(date, file.modified)
        ? []
        : [
            {
              path: join(listing.path, file.name),
              params: { name: file.name, date, found: new Date(file.modified).toISOString().slice(0, 10) },
              modified: file.modified,
            },
          ];
    });
  },
  end: ({ rules, rows }) => {
    const lines = new Map(rules.expansion.lines.map((line) => [line.key, line]));
    const counted = rows.flatMap((row) => (row.dates === undefined ? [] : [row.dates]));
    return [...grouped(counted, (d) => d.key)].flatMap(([key, all]): readonly Said[] => {
      const sum = (of: 'before' | 'other' | 'right') => all.reduce((n, d) => n + d[of], 0);
      const line = lines.get(key);
      if (line === undefined) return [];
      if (sum('right') > 0)
        return all.flatMap((d) => strays(line, d.strays ?? [], rules.datedFolder(line)?.date ?? ''));
      return [
        {
          path: line.path,
          subject: key,
          params: {
            name: line.name,
            date: rules.datedFolder(line)?.date ?? '',
            found: all.find((d) => d.found !== '')?.found ?? '',
            files: sum('before') + sum('other'),
            folder: 1,
          },
        },
      ];
    });
  },
});

type Said = RawFinding<ParamsOf<typeof PARAMS>>;

/** Files of other days among those of the folder's own. */
const strays = (
  line: PlannedLine,
  all: readonly { readonly path: string; readonly date: string; readonly count: number }[],
  found: string,
) =>
  all.map(({ path, date, count }) => ({
    path,
    subject: `${line.key}|${date}`,
    params: { name: nameOf(path), date, found, among: count },
  }));
