/**
 * Looks into files: hashes those that may be the same, reads references out of open formats, and searches all others
 * for the project's own path.
 */
import { createHash } from 'node:crypto';
import { lstatSync } from 'node:fs';
import { codeOf } from '@nesting/core/change';
import { type ContentFact, type ContentWants, contentTasks, type Run } from '@nesting/core/check';
import { type FileEntry, type FolderListing, join, type MediaFacts } from '@nesting/core/listing';
import type { ProjectRules } from '@nesting/core/project';
import { distinctTargets, isReadAsText, refFormatOf, stretchesOf } from '@nesting/core/references';
import { eachChunk, hashOf, type PlainFile, readPlain, withPlainFile } from './roots/plain-file';
import type { Tree } from './roots/tree';
import type { Unseen } from './walk';

/** What is known of one file, for as long as its size, time and inode stay what they were. */
export interface FileFacts {
  readonly path: string;
  readonly size: number;
  readonly modified: number;
  readonly inode: number;
  /** Of a sequence, whose path has a `#` for its frame: its first frame. */
  readonly first?: string;
  /** Frames of a sequence, whose hash is that of its frames' hashes; 1 for a file. */
  readonly frames: number;
  readonly sha256?: string;
  readonly targets?: readonly string[];
  readonly holdsRoot?: boolean;
  /** What its content tells; only where that was asked for. */
  readonly media?: MediaFacts;
}

export interface FactsOptions {
  readonly wants: ContentWants;
  /** Whole paths of the project's root, as each system has it. */
  readonly roots: readonly string[];
  readonly known: ReadonlyMap<string, FileFacts>;
}

/** What is larger is not hashed, and that is said: it would take hours, and nobody would wait for the check. */
const MOST_HASHED = 256 * 2 ** 30;

export class FactsReader {
  readonly facts: FileFacts[] = [];
  private readonly needles: readonly Buffer[];

  constructor(
    private readonly tree: Tree,
    private readonly rules: ProjectRules,
    private readonly request: FactsOptions,
    private readonly unseen: (unseen: Unseen) => void,
  ) {
    this.needles = request.roots
      .filter((r) => r.length > 3)
      .flatMap((r) => [Buffer.from(r, 'utf8'), Buffer.from(r, 'utf16le')]);
  }

  folder(listing: FolderListing): void {
    const { hash, runs, search } = contentTasks(this.rules, listing, this.request.wants);
    const hashed = new Set(hash);
    const searched = new Set(search);
    for (const run of runs) this.run(listing, run);
    for (const file of new Set([...hash, ...search]))
      this.file(join(listing.path, file.name), file, hashed.has(file), searched.has(file));
  }

  private file(path: string, file: FileEntry, hash: boolean, search: boolean): void {
    const tooLarge = hash && file.size > MOST_HASHED;
    if (tooLarge) this.unseen({ path, code: 'TOO-LARGE' });
    try {
      const inode = this.inode(path);
      const known = this.known(path, file.size, file.modified, inode);
      const sha256 = hash && !tooLarge ? (known?.sha256 ?? this.hash(path)) : known?.sha256;
      const found = known?.targets !== undefined || !search ? known : this.references(path, file);
      this.facts.push({
        path,
        size: file.size,
        modified: file.modified,
        inode,
        frames: 1,
        ...(sha256 !== undefined && { sha256 }),
        ...(found?.targets !== undefined && { targets: found.targets, holdsRoot: found.holdsRoot === true }),
      });
    } catch (error) {
      this.unseen({ path, code: codeOf(error) });
    }
  }

  /** A sequence is hashed by its frames in their order: the same frames under other names are the same. */
  private run(listing: FolderListing, run: Run): void {
    const path = `${join(listing.path, run.head)}#${run.tail}`;
    const frames = [...run.names].sort();
    try {
      const inode = this.inode(join(listing.path, frames[0] ?? ''));
      const known = this.known(path, run.bytes, run.newest, inode);
      const whole = createHash('sha256');
      if (known?.sha256 === undefined) for (const name of frames) whole.update(this.hash(join(listing.path, name)));
      this.facts.push({
        path,
        first: join(listing.path, frames[0] ?? run.first),
        size: run.bytes,
        modified: run.newest,
        inode,
        frames: run.frames.length,
        sha256: known?.sha256 ?? whole.digest('hex'),
      });
    } catch (error) {
      this.unseen({ path, code: codeOf(error) });
    }
  }

  private inode(path: string): number {
    return lstatSync(this.tree.rootOf(path).at(path)).ino;
  }

  private hash(path: string): string {
    return withPlainFile(this.tree.rootOf(path), path, hashOf);
  }

  private known(path: string, size: number, modified: number, inode: number): FileFacts | undefined {
    const known = this.request.known.get(path);
    return known !== undefined && known.size === size && known.modified === modified && known.inode === inode
      ? known
      : undefined;
  }

  private references(path: string, file: FileEntry): { targets: readonly string[]; holdsRoot: boolean } {
    const root = this.tree.rootOf(path);
    const format = refFormatOf(file.name);
    if (format !== null && isReadAsText(file.size)) {
      // It may have grown a little since it was listed.
      const found = format.find(readPlain(root, path, file.size + MOST_GROWN).toString('utf8'));
      return { targets: distinctTargets(found), holdsRoot: false };
    }
    if (this.needles.length === 0) return { targets: [], holdsRoot: false };
    return { targets: [], holdsRoot: withPlainFile(root, path, (plain) => holds(plain, this.needles)) };
  }
}

/** Bytes that a text may have more than when it was listed. */
const MOST_GROWN = 1 << 20;

function holds(file: PlainFile, needles: readonly Buffer[]): boolean {
  const longest = Math.max(...needles.map((n) => n.length));
  for (const stretch of stretchesOf(file.size)) {
    let tail = Buffer.alloc(0);
    let found = false;
    eachChunk(file, stretch, (bytes) => {
      const joined = tail.length === 0 ? bytes : Buffer.concat([tail, bytes]);
      found = needles.some((needle) => joined.includes(needle));
      // A path may stand across two chunks.
      tail = Buffer.from(joined.subarray(Math.max(0, joined.length - longest)));
      return !found;
    });
    if (found) return true;
  }
  return false;
}

/** What was looked at, as facts to be judged. */
export function contentFactsOf(facts: readonly FileFacts[]): ContentFact[] {
  return facts.flatMap((l): ContentFact[] => [
    ...(l.sha256 === undefined
      ? []
      : [
          {
            kind: 'hash' as const,
            path: l.first ?? l.path,
            frames: l.frames,
            size: l.size,
            modified: l.modified,
            sha256: l.sha256,
          },
        ]),
    ...(l.targets === undefined
      ? []
      : [
          {
            kind: 'references' as const,
            path: l.path,
            modified: l.modified,
            targets: l.targets,
            holdsRoot: l.holdsRoot === true,
          },
        ]),
    ...(l.media === undefined ? [] : [{ kind: 'told' as const, path: l.path, modified: l.modified, facts: l.media }]),
  ]);
}
