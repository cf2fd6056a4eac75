/**
 * Documents that are more than a file, as their families say: a folder of a certain ending, or files that share a
 * name, with words in front or behind.
 */
import { type FileEntry, type FolderListing, join, parentOf } from '../listing/entry';
import { extensionOf } from '../listing/extension';
import type { Family } from '../name/pattern/field';
import { Remembered } from '../remembered';

/** A file that belongs to the document of its name. */
export interface Part {
  readonly file: FileEntry;
  /** Letters before the document's name in its own. */
  readonly at: number;
}

export class Documents {
  private readonly folders = new Set<string>();
  /** How early its extension stands in its family: of files that share a name the earliest is the document. */
  private readonly ranks = new Map<string, number>();

  constructor(families: readonly Family[]) {
    for (const { extensions, document } of families)
      for (const [rank, ext] of extensions.entries()) {
        if (document?.folder === true) this.folders.add(ext.toLowerCase());
        if (document?.stem === true) this.ranks.set(ext.toLowerCase(), rank);
      }
  }

  get anyFolders(): boolean {
    return this.folders.size > 0;
  }

  /** Whether a folder of this name is one document. */
  isFolder(name: string): boolean {
    return this.folders.has(extensionOf(name, this.folders));
  }

  /** Of each document of the folder, by its name, what belongs to it. */
  partsIn(listing: FolderListing): ReadonlyMap<string, readonly Part[]> {
    return this.ranks.size === 0 ? NO_PARTS : this.parts.of(listing);
  }

  /** Whether this file of the folder belongs to a document beside it. */
  isPart(listing: FolderListing, name: string): boolean {
    return this.ranks.size > 0 && this.belonging.of(listing).has(name);
  }

  private readonly parts = new Remembered(({ files }: FolderListing): ReadonlyMap<string, readonly Part[]> => {
    const mains = this.mainsIn(files);
    const out = new Map<string, Part[]>();
    for (const file of mains.size === 0 ? [] : files) {
      const found = this.mainOf(file.name, mains);
      if (found === null || found.main === file.name) continue;
      const known = out.get(found.main);
      const part = { file, at: found.at };
      if (known === undefined) out.set(found.main, [part]);
      else known.push(part);
    }
    return out;
  });

  private readonly belonging = new Remembered(
    (listing: FolderListing): ReadonlySet<string> =>
      new Set([...this.parts.of(listing).values()].flatMap((parts) => parts.map(({ file }) => file.name))),
  );

  /** Documents by their names without extension, in small letters. */
  private mainsIn(files: readonly FileEntry[]): ReadonlyMap<string, string> {
    const mains = new Map<string, { readonly name: string; readonly rank: number }>();
    for (const { name } of files) {
      const rank = this.ranks.get(extensionOf(name, this.ranks));
      const stem = this.stemOf(name);
      const known = mains.get(stem);
      if (rank !== undefined && (known === undefined || rank < known.rank)) mains.set(stem, { name, rank });
    }
    return new Map([...mains].map(([stem, { name }]) => [stem, name]));
  }

  /** The document with the longest name that stands whole at the beginning of this name, or at its end. */
  private mainOf(name: string, mains: ReadonlyMap<string, string>): { main: string; at: number } | null {
    const small = name.toLowerCase();
    const own = this.ranks.has(extensionOf(name, this.ranks)) ? mains.get(this.stemOf(name)) : undefined;
    if (own !== undefined) return { main: own, at: 0 };
    for (let end = small.length - 1; end > 0; end--) {
      const main = PARTING.test(small.charAt(end)) ? mains.get(small.slice(0, end)) : undefined;
      if (main !== undefined) return { main, at: 0 };
    }
    const dot = small.lastIndexOf('.');
    for (let at = 1; at < dot; at++) {
      const main = PARTING.test(small.charAt(at - 1)) ? mains.get(small.slice(at, dot)) : undefined;
      if (main !== undefined) return { main, at };
    }
    return null;
  }

  private stemOf(name: string): string {
    return stemBefore(name, extensionOf(name, this.ranks)).toLowerCase();
  }

  /** What a part is called once its document is called otherwise. */
  renamedPart({ file, at }: Part, before: string, after: string): string {
    const length = this.stemOf(before).length;
    const stem = stemBefore(after, extensionOf(after, this.ranks));
    return file.name.slice(0, at) + stem + file.name.slice(at + length);
  }
}

const NO_PARTS: ReadonlyMap<string, readonly Part[]> = new Map();

/** What parts a document's name from words in front or behind. */
const PARTING = /[ ._+-]/;

const stemBefore = (name: string, ext: string): string => (ext === '' ? name : name.slice(0, -ext.length - 1));

/** Bytes of all that is in a folder, and when the last of it was written, milliseconds since 1970. */
export interface Inside {
  readonly size: number;
  readonly modified: number;
}

/** The folder with those folders in it that are documents among its files. */
export function documentsAsFiles(
  isDocument: (path: string) => boolean,
  listing: FolderListing,
  insideOf: (path: string) => Inside,
): FolderListing {
  const whole = listing.folders.filter((name) => isDocument(join(listing.path, name)));
  if (whole.length === 0) return listing;
  const among = new Set(whole);
  return {
    ...listing,
    folders: listing.folders.filter((name) => !among.has(name)),
    files: [
      ...listing.files,
      ...whole.map((name): FileEntry => ({ name, ...insideOf(join(listing.path, name)), isFolder: true })),
    ],
  };
}

/** The same for listings of a whole project: folders inside of documents are none of their own. */
export function withWholeDocuments(
  isDocument: (path: string) => boolean,
  listings: readonly FolderListing[],
): readonly FolderListing[] {
  const within = (path: string): string | null => {
    let top: string | null = null;
    for (let at = path; at !== ''; at = parentOf(at)) if (isDocument(at)) top = at;
    return top;
  };
  const inside = new Map<string, { size: number; modified: number }>();
  const outside: FolderListing[] = [];
  for (const listing of listings) {
    const top = within(listing.path);
    if (top === null) {
      outside.push(listing);
      continue;
    }
    const sum = inside.get(top) ?? { size: 0, modified: 0 };
    for (const { size, modified } of listing.files) {
      sum.size += size;
      sum.modified = Math.max(sum.modified, modified);
    }
    inside.set(top, sum);
  }
  if (outside.length === listings.length) return listings;
  return outside.map((listing) =>
    documentsAsFiles(isDocument, listing, (path) => inside.get(path) ?? { size: 0, modified: 0 }),
  );
}
