/** A listing as a tree of folders, with what stands directly in each. */
import { nameOf } from '../../listing/entry';
import { foldersFrom } from '../../listing/folders';
import type { PathLine } from '../../listing/text';

export interface Seen {
  readonly name: string;
  readonly folders: readonly Seen[];
  readonly files: readonly string[];
}

/** `root` is the name of the folder that all lines stand in, where they have it in front. */
export function treeOf(lines: readonly PathLine[], root: string | null): Seen {
  const listings = new Map(foldersFrom(lines, root).map((l) => [l.path, l]));
  const make = (path: string): Seen => {
    const listing = listings.get(path);
    return {
      name: path === '' ? (root ?? '') : nameOf(path),
      folders: [...(listing?.folders ?? [])]
        .sort((a, b) => (a < b ? -1 : 1))
        .map((name) => make(path === '' ? name : `${path}/${name}`)),
      files: [...(listing?.files ?? [])].map((f) => f.name).sort(),
    };
  };
  return make('');
}
