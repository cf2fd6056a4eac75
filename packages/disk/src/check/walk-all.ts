/**
 * The walk of a check.
 *
 * 1. Small projects, and the first folders of large ones, are walked here.
 * 2. What is left is shared out among processes that help, and this one goes on.
 * 3. A walk that is stopped hands over what it gathered and what is left, so that a later check goes on there.
 */
import { Checker, joinPartialResults, type PartialResult } from '@nesting/core/check';
import { join } from '@nesting/core/listing';
import type { ProjectRules } from '@nesting/core/project';
import { listItems } from '../list-items';
import type { Tree } from '../roots/tree';
import type { Unseen } from '../walk';
import { type DiskCheck, type Gathered, SMALL, startHelpers } from './disk-check';
import { type Helper, type HelperResult, shareOut } from './helpers';
import { type KeptListing, keptListing } from './kept-listing';

/** Folders walked here between two looks at what the others say. */
const SLICE = 16;

export interface Walking {
  readonly check: DiskCheck;
  readonly tree: Tree;
  readonly rules: ProjectRules;
  /** Started before the walk. */
  readonly helpers: readonly Helper[];
}

/** What was seen, by this walk and the one it went on from; listings are of this one alone. */
export interface Walked extends Pick<Gathered, 'part' | 'unseen'> {
  readonly listings: readonly KeptListing[];
}

/** `known` are folders that need not be walked when they are found again; `null` where none is known. */
export async function walkAll(
  walking: Walking,
  start: Gathered | null,
  known: ReadonlySet<string> | null,
): Promise<Walked> {
  const { check, helpers: early } = walking;
  const walk = new Walk(walking, start, known);
  await walk.here();
  const script = check.script ?? null;
  if (script !== null && walk.queue.length > 0) {
    const late = early.length > 0 ? [] : startHelpers(check, script, known !== null);
    try {
      await walk.shared([...early, ...late]);
    } finally {
      for (const helper of late) helper.end();
    }
  }
  walk.tell();
  // What was cut off is told, so that it can be gone on with.
  if (check.cancel?.aborted) await walk.keep(walk.queue);
  return { part: walk.part(), unseen: walk.unseen, listings: walk.listings };
}

class Walk {
  readonly queue: string[];
  readonly unseen: Unseen[];
  readonly listings: KeptListing[] = [];
  private readonly checker: Checker;
  private readonly parts: PartialResult[];
  private files = 0;
  private folders = 0;

  private readonly check: DiskCheck;
  private readonly tree: Tree;
  private readonly rules: ProjectRules;

  constructor(
    { check, tree, rules }: Walking,
    start: Gathered | null,
    private readonly known: ReadonlySet<string> | null,
  ) {
    this.check = check;
    this.tree = tree;
    this.rules = rules;
    this.checker = new Checker(rules);
    this.queue = start === null ? [''] : [...start.queue];
    this.unseen = [...(start?.unseen ?? [])];
    this.parts = start === null ? [] : [start.part];
  }

  part(): PartialResult {
    return joinPartialResults([...this.parts, this.checker.part()]);
  }

  tell(): void {
    this.check.progress?.({ files: this.files, folders: this.folders, stage: 'walking' });
  }

  async keep(queue: readonly string[]): Promise<void> {
    await this.check.gathered?.keep({ part: this.part(), queue, unseen: this.unseen });
  }

  /** Everything where there is no help; else a few folders, so that small projects need none. */
  async here(): Promise<void> {
    const most = (this.check.script ?? null) === null ? Number.POSITIVE_INFINITY : SMALL;
    for (let n = 0; n < most && this.queue.length > 0 && !this.check.cancel?.aborted; n += SLICE) {
      this.some(SLICE);
      // A cancellation is heard in between.
      await new Promise((resolve) => setImmediate(resolve));
    }
  }

  async shared(helpers: readonly Helper[]): Promise<void> {
    const { check } = this;
    this.take(
      await shareOut({
        helpers,
        queue: this.queue,
        wanted: (path) => this.wants(path),
        cancel: check.cancel,
        here: () => this.some(SLICE),
        progress: (files, folders) => {
          this.files += files;
          this.folders += folders;
          this.tell();
        },
        gatherEvery: check.gathered?.every ?? Number.POSITIVE_INFINITY,
        gathered: async (taken, rest) => {
          this.take(taken);
          await this.keep(rest);
        },
      }),
    );
  }

  private take(taken: readonly HelperResult[]): void {
    for (const { part, unseen, listings } of taken) {
      if (part !== null) this.parts.push(part);
      this.unseen.push(...unseen);
      for (const listing of listings) this.listings.push(listing);
    }
  }

  private wants(path: string): boolean {
    return this.known === null || !this.known.has(path);
  }

  private some(most: number): void {
    const { check, queue } = this;
    for (let n = 0; n < most && !check.cancel?.aborted; n++) {
      const path = queue.pop();
      if (path === undefined) return;
      const listing = listItems(this.tree, this.rules, path, (u) => this.unseen.push(u));
      if (listing === null) continue;
      this.checker.folder(listing);
      this.listings.push(keptListing(listing));
      this.folders++;
      this.files += listing.files.length;
      for (const name of listing.folders) {
        const below = join(listing.path, name);
        if (this.wants(below)) queue.push(below);
      }
    }
  }
}
