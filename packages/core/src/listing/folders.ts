/**
 * Path lines → folders with what is directly in them. Each line is looked at once; most stand in the folder of the one
 * before, and most say nothing but a path.
 */
import { elementAt } from '../element';
import { mayRepeat } from '../text/hash';
import { type FileEntry, type FolderListing, nameOf, parentOf } from './entry';
import { formatOfListing, isParted, type PathLine, parseListing, pathIn } from './text';

type Facts = Pick<PathLine, 'folder' | 'size' | 'modified'>;

const NO_FACTS: Facts = { folder: null, size: 0, modified: 0 };

/** A folder whose content is found line by line. */
interface Growing {
  readonly path: string;
  readonly names: string[];
  /** By place among the names, where a line says more than a path. */
  readonly facts: Map<number, Facts>;
  /** Folders in it that hold something. */
  readonly folders: Set<string>;
}

class Grower {
  private readonly grown = new Map<string, Growing>();
  private last = this.folderAt('');

  add(path: string, facts: Facts): void {
    if (path === '' || path === '.') return;
    const slash = path.lastIndexOf('/');
    const isBeside = slash > 0 ? slash === this.last.path.length && path.startsWith(this.last.path) : false;
    if (!isBeside) this.last = this.folderAt(slash < 0 ? '' : path.slice(0, slash));
    const { names, facts: known } = this.last;
    if (facts !== NO_FACTS) known.set(names.length, facts);
    names.push(slash < 0 ? path : path.slice(slash + 1));
  }

  /** The path that stands in a text at this place, of which nothing else is said. */
  addPart(text: string, from: number, to: number): void {
    const slash = text.lastIndexOf('/', to - 1);
    const { path } = this.last;
    const isBeside = slash - from === path.length && path !== '' && text.startsWith(path, from);
    if (!isBeside) this.last = this.folderAt(slash < from ? '' : text.slice(from, slash));
    this.last.names.push(text.slice(slash < from ? from : slash + 1, to));
  }

  listings(): FolderListing[] {
    const listings: FolderListing[] = [];
    for (const folder of this.grown.values()) {
      const { listing, bare } = listingOf(folder);
      listings.push(listing);
      for (const name of bare)
        listings.push({
          path: folder.path === '' ? name : `${folder.path}/${name}`,
          folders: [],
          files: [],
          others: [],
        });
    }
    return listings;
  }

  private folderAt(path: string): Growing {
    const known = this.grown.get(path);
    if (known !== undefined) return known;
    const made = this.made(path);
    // The folders above, one by one: however deep it is, each is made once.
    for (let at = path; at !== ''; at = parentOf(at)) {
      const parent = this.grown.get(parentOf(at));
      (parent ?? this.made(parentOf(at))).folders.add(nameOf(at));
      if (parent !== undefined) break;
    }
    return made;
  }

  private made(path: string): Growing {
    const made: Growing = { path, names: [], facts: new Map(), folders: new Set() };
    this.grown.set(path, made);
    return made;
  }
}

/** `bare` are folders of which nothing else is said. */
function listingOf({ path, names, facts, folders }: Growing): { listing: FolderListing; bare: string[] } {
  const files: FileEntry[] = [];
  const bare = new Set<string>();
  // A million names are not put into a set to learn that no two are alike.
  const seen = mayRepeat(names) ? new Set<string>() : null;
  for (let i = 0; i < names.length; i++) {
    const name = elementAt(names, i);
    if (folders.size > 0 && folders.has(name)) continue;
    const { folder, size, modified } = facts.size === 0 ? NO_FACTS : (facts.get(i) ?? NO_FACTS);
    if (folder ?? !name.includes('.')) bare.add(name);
    // One that is said twice is one.
    else if (seen === null || seen.size !== seen.add(name).size) files.push({ name, size, modified });
  }
  return { listing: { path, folders: [...folders, ...bare], files, others: [] }, bare: [...bare] };
}

/** `root` is a folder to start from: what is not in it is passed over. */
export function foldersFrom(lines: Iterable<PathLine>, root: string | null = null): FolderListing[] {
  const grower = new Grower();
  const prefix = root === null || root === '' ? '' : `${root}/`;
  for (const { path, ...facts } of lines) if (path.startsWith(prefix)) grower.add(path.slice(prefix.length), facts);
  return grower.listings();
}

/** @throws SyntaxError where the text is JSON and no listing */
export function foldersInText(text: string): FolderListing[] {
  if (formatOfListing(text) !== 'paths') return foldersFrom(parseListing(text));
  // Path lists may be of millions of lines: of most only the name is taken out of the text.
  const grower = new Grower();
  const isWindows = !isParted(text);
  const isPlain = !isWindows && !text.includes('//');
  const end = text.includes('\n') ? '\n' : '\r';
  for (let from = text.startsWith('\ufeff') ? 1 : 0; from < text.length; ) {
    const at = text.indexOf(end, from);
    const next = at < 0 ? text.length : at;
    const to = text.charCodeAt(next - 1) === RETURN ? next - 1 : next;
    if (!isPlain || !isPlainLine(text, from, to)) {
      const line = text.slice(from, to);
      const written = isWindows ? line.replaceAll('\\', '/') : line;
      if (line.trim() !== '') grower.add(pathIn(written), written.endsWith('/') ? FOLDER : NO_FACTS);
    } else grower.addPart(text, from, to);
    from = next + 1;
  }
  return grower.listings();
}

const [RETURN, BLANK, DOT, STROKE] = [13, 32, 46, 47];

/** A path as it stands: no blank line, nothing to be taken off its ends. */
function isPlainLine(text: string, from: number, to: number): boolean {
  const first = text.charCodeAt(from);
  return to > from && first > BLANK && first !== DOT && first !== STROKE && text.charCodeAt(to - 1) !== STROKE;
}

const FOLDER: Facts = { folder: true, size: 0, modified: 0 };
