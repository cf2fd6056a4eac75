/**
 * The walk of a check.
 *
 * 1. Small projects, and the first folders of large ones where this thread may work, are walked here.
 * 2. What is left is shared out among worker threads.
 * 3. A walk that is stopped hands over what it gathered and what is left, so that a later check goes on there.
 */
import type { Worker } from 'node:worker_threads';
import { Checker, joinPartialResults, type PartialResult } from '@nesting/core/check';
import { join } from '@nesting/core/listing';
import type { ProjectRules } from '@nesting/core/project';
import { listFolder, type Unseen } from '../walk';
import { type DiskCheck, type Gathered, SMALL, startWorkers } from './disk-check';
import { shareOut, type WorkerResult } from './worker-pool';

/** Folders walked here between two looks at what the workers say. */
const SLICE = 16;

/** `known` are folders that need not be walked when they are found again; `null` where none is known. */
export async function walkAll(
  check: DiskCheck,
  rules: ProjectRules,
  early: readonly Worker[],
  start: Gathered | null,
  known: ReadonlySet<string> | null,
): Promise<Pick<Gathered, 'part' | 'unseen'>> {
  const walk = new Walk(check, rules, start, known);
  await walk.here();
  const script = check.worker ?? null;
  if (script !== null && walk.queue.length > 0) {
    const late = early.length > 0 ? [] : startWorkers(check, script, known !== null);
    try {
      await walk.shared([...early, ...late]);
    } finally {
      for (const worker of late) void worker.terminate();
    }
  }
  walk.tell();
  // What was cut off is told, so that it can be gone on with.
  if (check.cancel?.aborted) await walk.keep(walk.queue);
  return { part: walk.part(), unseen: walk.unseen };
}

class Walk {
  readonly queue: string[];
  readonly unseen: Unseen[];
  private readonly checker: Checker;
  private readonly parts: PartialResult[];
  private files = 0;
  private folders = 0;

  constructor(
    private readonly check: DiskCheck,
    rules: ProjectRules,
    start: Gathered | null,
    private readonly known: ReadonlySet<string> | null,
  ) {
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

  /** Everything where there is no worker; a few folders where this thread may work; little where it has others to answer. */
  async here(): Promise<void> {
    const { check, queue, known } = this;
    if ((check.worker ?? null) === null) this.some(Number.POSITIVE_INFINITY);
    else if (check.here) this.some(SMALL);
    else if (known !== null && queue.length <= SMALL)
      // A few folders are listed before a worker has begun; others are let in between.
      for (let n = 0; n < SMALL && queue.length > 0; n += SLICE) {
        this.some(SLICE);
        await new Promise((resolve) => setImmediate(resolve));
      }
  }

  async shared(workers: readonly Worker[]): Promise<void> {
    const { check } = this;
    this.take(
      await shareOut({
        workers,
        queue: this.queue,
        wanted: (path) => this.wants(path),
        cancel: check.cancel,
        here: check.here ? () => this.some(SLICE) : null,
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

  private take(taken: readonly WorkerResult[]): void {
    for (const { part, unseen } of taken) {
      if (part !== null) this.parts.push(part);
      this.unseen.push(...unseen);
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
      const listing = listFolder(check.root, path, (u) => this.unseen.push(u), check.mounts);
      if (listing === null) continue;
      this.checker.folder(listing);
      this.folders++;
      this.files += listing.files.length;
      for (const name of listing.folders) {
        const below = join(listing.path, name);
        if (this.wants(below)) queue.push(below);
      }
    }
  }
}
