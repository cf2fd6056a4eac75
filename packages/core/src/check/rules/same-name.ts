import { grouped } from '../../grouped';
import { join, type FolderListing } from '../../listing/entry';
import { hashOf, repeatedIn, rowOf } from '../column';
import { itemsOf } from '../items';
import { stateOf } from '../match';
import type { EndCase, Found, Rule } from '../rule';

/** One file name in two folders, where nothing else is wrong with either. A sequence has one name. */
export const sameName: Rule = {
  code: 'same-name',
  scope: 'end',
  judge: (c) => {
    const { names } = c.part;
    return repeatedIn(names.values).flatMap((places) => named(c, names.values[places[0] as number] as number, [...new Set(places.map((place) => rowOf(names, place)))]));
  },
};

function named({ ground, part, again }: EndCase, hash: number, rows: readonly number[]): Found[] {
  const found = rows.flatMap((row) => {
    const listing: FolderListing | null = again(part.rows[row]?.path ?? '');
    if (listing === null) return [];
    const items = itemsOf(ground, listing, stateOf(ground, listing.path));
    const all = [...items.read.map((f) => f.file), ...items.open.map((f) => f.file)].map((f) => ({ key: f.name.toLowerCase(), path: join(listing.path, f.name), name: f.name, modified: f.modified }));
    const runs = items.runs.map((r) => ({ key: `${r.head}#${r.tail}`.toLowerCase(), path: join(listing.path, r.first), name: r.first, modified: r.newest }));
    return [...all, ...runs].filter(({ key }) => hashOf(key) === hash);
  });
  // The hash brought them together; their names decide.
  return [...grouped(found, (f) => f.key)].flatMap(([key, alike]) => {
    const [first, ...others] = [...alike].sort((a, b) => (a.path < b.path ? -1 : 1));
    return first === undefined || others.length === 0 ? [] : [{ path: first.path, subject: `same-name/${key}`, params: { name: first.name, count: alike.length }, related: others.map((o) => o.path), modified: alike.reduce((n, f) => Math.max(n, f.modified), 0) }];
  });
}
