/** A project's folder as a plan looks at it. */
import { type FolderListing, join, nameOf, parentOf } from '@nesting/core/listing';
import type { DocumentFacts, DocumentText, MentioningDocument, ProjectView, Unread } from '@nesting/core/planners';
import { OWN_FOLDER, type ProjectRules } from '@nesting/core/project';
import { distinctTargets, isReadAsText, type NamesSought, refFormatOf } from '@nesting/core/references';
import { type KeptListing, listingOf } from '../check/kept-listing';
import { listItems } from '../list-items';
import { mayMention, pathsMentioned } from '../mentions';
import { readPlain } from '../roots/plain-file';
import type { Tree } from '../roots/tree';

export interface Searchable {
  readonly files: number;
  readonly bytes: number;
}

/** Each folder is listed once, and all of them only where a file is looked for and nothing was kept. */
export class Looking implements ProjectView {
  private readonly listings = new Map<string, FolderListing | null>();
  private paths: ReadonlyMap<string, readonly string[]> | null = null;

  constructor(
    private readonly tree: Tree,
    private readonly rules: ProjectRules,
    private readonly kept: readonly KeptListing[],
  ) {}

  readonly list = (folder: string): FolderListing | null => {
    const known = this.listings.get(folder);
    if (known !== undefined) return known;
    const listing = listItems(this.tree, this.rules, folder, () => undefined);
    this.listings.set(folder, listing);
    return listing;
  };

  readonly find = (name: string): readonly string[] => {
    this.paths ??= this.byName();
    // What was kept may be gone by now.
    return (this.paths.get(name) ?? []).filter((path) =>
      this.list(parentOf(path))?.files.some((file) => file.name === name),
    );
  };

  readonly targets = (path: string): readonly string[] => {
    const format = refFormatOf(nameOf(path));
    const found = format === null ? 'unreadable' : this.read(path);
    return format === null || typeof found === 'string' ? [] : distinctTargets(format.find(found.text));
  };

  readonly read = (path: string): DocumentText | Unread => {
    const file = this.list(parentOf(path))?.files.find((f) => f.name === nameOf(path));
    if (file === undefined) return 'unreadable';
    if (!isReadAsText(file.size)) return 'too-large';
    try {
      const bytes = readPlain(this.tree.rootOf(path), path, file.size);
      const expects = { size: file.size, modified: file.modified };
      return { text: new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(bytes), expects };
    } catch (error) {
      return error instanceof TypeError ? 'not-utf-8' : 'unreadable';
    }
  };

  /** Every document of an open format, read anew. */
  documents(): readonly DocumentFacts[] {
    return [...this.everyFile()].flatMap((path): DocumentFacts[] => {
      const targets = this.targets(path);
      return targets.length === 0 ? [] : [{ path, targets }];
    });
  }

  /** Documents that name whole paths in these roots; of open formats only where they are wanted too. */
  mentioning(roots: readonly string[], { withOpen = false } = {}): readonly DocumentFacts[] {
    return [...this.everyListing()].flatMap(({ path: folder, files }) =>
      files.flatMap((file): DocumentFacts[] => {
        if (file.isFolder || !mayMention(file) || (!withOpen && refFormatOf(file.name) !== null)) return [];
        const path = join(folder, file.name);
        const targets = this.mentioned(path, file.size, roots);
        return targets.length === 0 ? [] : [{ path, targets }];
      }),
    );
  }

  /** How many documents of other programs there are, and their bytes: what programs make along the way is none. */
  searchable(): Searchable {
    const files = [...this.everySearched()];
    return { files: files.length, bytes: files.reduce((sum, { size }) => sum + size, 0) };
  }

  /** Documents of other programs that name whole paths in these roots, or one of these names. */
  naming(roots: readonly string[], sought: NamesSought): readonly MentioningDocument[] {
    return [...this.everySearched()].flatMap(({ path, size }): MentioningDocument[] => {
      try {
        const bytes = readPlain(this.tree.rootOf(path), path, size);
        const found = { path, paths: pathsMentioned(bytes, roots), names: sought.in(bytes.toString('latin1')) };
        return found.paths.length + found.names.length === 0 ? [] : [found];
      } catch {
        // What cannot be read now names nothing that could be told.
        return [];
      }
    });
  }

  private *everySearched(): Generator<{ readonly path: string; readonly size: number }> {
    for (const { path: folder, files } of this.everyListing())
      for (const file of files)
        if (!file.isFolder && mayMention(file) && refFormatOf(file.name) === null && !this.rules.isGenerated(file.name))
          yield { path: join(folder, file.name), size: file.size };
  }

  private mentioned(path: string, size: number, roots: readonly string[]): readonly string[] {
    try {
      return pathsMentioned(readPlain(this.tree.rootOf(path), path, size), roots);
    } catch {
      // What cannot be read is not copied either: that is said where it is.
      return [];
    }
  }

  private byName(): ReadonlyMap<string, readonly string[]> {
    const out = new Map<string, string[]>();
    for (const path of this.kept.length === 0 ? this.everyFile() : this.everyKept()) {
      const known = out.get(nameOf(path));
      if (known === undefined) out.set(nameOf(path), [path]);
      else known.push(path);
    }
    return out;
  }

  private *everyKept(): Generator<string> {
    for (const kept of this.kept) for (const { name } of listingOf(kept)?.files ?? []) yield join(kept.path, name);
  }

  private *everyFile(): Generator<string> {
    for (const { path, files } of this.everyListing()) for (const { name } of files) yield join(path, name);
  }

  private *everyListing(): Generator<FolderListing> {
    const queue = [''];
    for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
      const listing = this.list(path);
      if (listing !== null) yield listing;
      for (const name of listing?.folders ?? []) if (join(path, name) !== OWN_FOLDER) queue.push(join(path, name));
    }
  }
}
