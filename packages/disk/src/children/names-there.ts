/** Names in the folders of a project, as they are now and with what is made there beforehand. */
import { grouped } from '@nesting/core';
import { type FileEntry, nameOf, parentOf } from '@nesting/core/listing';
import type { Tree } from '../roots/tree';
import { listFolder } from '../walk';

/** Each folder is listed once. */
export class NamesThere {
  private readonly known = new Map<string, readonly string[]>();
  private readonly files = new Map<string, ReadonlyMap<string, FileEntry>>();
  private readonly madeIn: ReadonlyMap<string, readonly string[]>;

  constructor(
    private readonly tree: Tree,
    made: readonly string[],
  ) {
    this.madeIn = grouped(made, parentOf);
  }

  /** None where there is no such folder. */
  readonly in = (folder: string): readonly string[] => {
    const known = this.known.get(folder);
    if (known !== undefined) return known;
    const listing = listFolder(this.tree, folder, () => undefined);
    const standing =
      listing === null ? [] : [...listing.folders, ...listing.files.map((f) => f.name), ...listing.others];
    const found = [...standing, ...(this.madeIn.get(folder) ?? []).map(nameOf)];
    this.known.set(folder, found);
    this.files.set(folder, new Map(listing?.files.map((file) => [file.name, file])));
    return found;
  };

  /** A plain file; `null` where there is none of just that name. */
  readonly file = (path: string): FileEntry | null => {
    this.in(parentOf(path));
    return this.files.get(parentOf(path))?.get(nameOf(path)) ?? null;
  };
}
