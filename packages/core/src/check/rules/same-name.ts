import { elementAt } from '../../element';
import { grouped } from '../../grouped';
import { type FolderListing, join } from '../../listing/entry';
import { textHash } from '../../text/hash';
import { itemsOf } from '../items';
import { stateOf } from '../match';
import { repeatedIn, rowOf } from '../number-table';
import { type EndCase, rule } from '../rule';

/** One file name in two folders, where nothing else is wrong with either. A sequence has one name. */
export const sameName = rule({
  code: 'same-name',
  weight: 'note',
  about: 'file',
  params: { name: 'text', count: 'count' },
  remedy: { act: 'choose', among: ['next-version', 'another-name'] },
  end: (c) => {
    const { names } = c.part;
    const rows = new Set<number>();
    const wanted = new Set<number>();
    for (const places of repeatedIn(names.values)) {
      const of = new Set(places.map((place) => rowOf(names, place)));
      if (of.size < 2) continue;
      wanted.add(elementAt(names.values, elementAt(places, 0)));
      for (const row of of) rows.add(row);
    }
    // The hash brought them together; their names decide.
    const named = [...rows].flatMap((row) => namedIn(c, row, wanted));
    return [...grouped(named, (f) => f.key)].flatMap(([key, alike]) => {
      const [first, ...others] = [...alike].sort((a, b) => (a.path < b.path ? -1 : 1));
      if (first === undefined || others.length === 0) return [];
      return [
        {
          path: first.path,
          subject: `same-name/${key}`,
          params: { name: first.name, count: alike.length },
          related: others.map((o) => o.path),
          modified: alike.reduce((n, f) => Math.max(n, f.modified), 0),
        },
      ];
    });
  },
});

interface Named {
  readonly key: string;
  readonly path: string;
  readonly name: string;
  readonly modified: number;
}

function namedIn({ rules, part, again }: EndCase, row: number, wanted: ReadonlySet<number>): Named[] {
  const listing: FolderListing | null = again(part.rows[row]?.path ?? '');
  if (listing === null) return [];
  const items = itemsOf(rules, listing, stateOf(rules, listing.path));
  const singles = [...items.read, ...items.open].map(
    ({ file }): Named => ({
      key: file.name.toLowerCase(),
      path: join(listing.path, file.name),
      name: file.name,
      modified: file.modified,
    }),
  );
  const runs = items.runs.map(
    (run): Named => ({
      key: `${run.head}#${run.tail}`.toLowerCase(),
      path: join(listing.path, run.first),
      name: run.first,
      modified: run.newest,
    }),
  );
  return [...singles, ...runs].filter(({ key }) => wanted.has(textHash(key)));
}
