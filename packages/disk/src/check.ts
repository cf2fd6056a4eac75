/**
 * Checks a project on this machine's disk. Small ones are walked where they are asked for; larger ones by worker threads that share
 * the folders out among them: each walks, reads and judges its share with a ground of its own.
 */
import { Worker } from 'node:worker_threads';
import { type Cancellation, Checker, CheckGround, type CheckInput, type CheckOutcome, type CheckPart, join, mergeChecks } from '@nesting/core';
import { listFolder, type Unseen } from './walk';

export interface CheckProgress {
  readonly files: number;
  readonly folders: number;
}

export interface DiskCheck {
  readonly root: string;
  readonly input: CheckInput;
  /** The built worker; without one everything is walked here. */
  readonly worker?: URL | null;
  readonly workers?: number;
  /** Whether this thread may walk too. A server's must not: it has others to answer. */
  readonly here?: boolean;
  readonly cancel?: Cancellation;
  readonly progress?: (progress: CheckProgress) => void;
}

export interface DiskOutcome extends CheckOutcome {
  readonly unseen: readonly Unseen[];
  readonly cancelled: boolean;
}

export type ToWorker = { readonly kind: 'begin'; readonly root: string; readonly input: CheckInput } | { readonly kind: 'folders'; readonly paths: readonly string[] } | { readonly kind: 'end' };

export type FromWorker =
  /** Done with what it was given; folders it found and did not walk are handed back. */
  | { readonly kind: 'hungry'; readonly files: number; readonly folders: number; readonly rest: readonly string[] }
  | { readonly kind: 'part'; readonly part: CheckPart; readonly unseen: readonly Unseen[] };

/** Folders walked here before workers are worth starting. */
const SMALL = 200;
/** Folders one worker is given at a time: enough to be worth a message, few enough to end together. */
const SHARE = 64;
/** Folders walked here between two looks at what the workers say. */
const SLICE = 16;

export async function checkOnDisk(check: DiskCheck): Promise<DiskOutcome> {
  const workers = startWorkers(check);
  try {
    const ground = new CheckGround(check.input);
    const walking = new Walking(check, new Checker(ground));
    if (check.here || workers.length === 0) walking.walkHere(workers.length === 0 ? Number.POSITIVE_INFINITY : SMALL);
    const shared = walking.queue.length === 0 ? [] : await walking.shareOut(workers);
    const outcome = mergeChecks(ground, [walking.checker.part(), ...shared.map((s) => s.part)], (path) => listFolder(check.root, path, () => undefined));
    const unseen = [...walking.unseen, ...shared.flatMap((s) => s.unseen)];
    check.progress?.({ files: outcome.summary.files, folders: outcome.summary.folders });
    return { ...outcome, unseen: unseen.sort((a, b) => (a.path < b.path ? -1 : 1)), cancelled: check.cancel?.aborted ?? false };
  } finally {
    // Those that have done their part end by themselves; nobody waits for the others.
    for (const worker of workers) void worker.terminate();
  }
}

/** Started before anything else: they make their ground while this thread makes its own. */
function startWorkers({ worker, workers, here, root, input }: DiskCheck): Worker[] {
  if (!worker) return [];
  return Array.from({ length: workers ?? (here ? 1 : 2) }, () => {
    // A larger nursery: what is read of a folder is rubbish a moment later (a tenth of the time, measured).
    const made = new Worker(worker, { resourceLimits: { maxYoungGenerationSizeMb: 32 } });
    made.postMessage({ kind: 'begin', root, input } satisfies ToWorker);
    return made;
  });
}

type Part = Extract<FromWorker, { kind: 'part' }>;

/** The folders still to be walked, and who walks them. */
class Walking {
  readonly queue: string[] = [''];
  readonly unseen: Unseen[] = [];
  private files = 0;
  private folders = 0;
  private readonly idle: Worker[] = [];
  private busy = 0;
  /** Wakes this thread when a worker has said something. */
  private wake: () => void = () => undefined;

  constructor(
    private readonly check: DiskCheck,
    readonly checker: Checker,
  ) {}

  walkHere(most: number): void {
    for (let n = 0; n < most && this.queue.length > 0 && !this.check.cancel?.aborted; n++) {
      const listing = listFolder(this.check.root, this.queue.pop() as string, (u) => this.unseen.push(u));
      if (listing === null) continue;
      this.checker.folder(listing);
      this.folders++;
      this.files += listing.files.length;
      for (const name of listing.folders) this.queue.push(join(listing.path, name));
    }
    this.check.progress?.({ files: this.files, folders: this.folders });
  }

  async shareOut(workers: readonly Worker[]): Promise<Part[]> {
    const parts = Promise.all(workers.map((worker) => this.listen(worker)));
    await Promise.race([parts, this.drive(workers.length)]);
    return parts;
  }

  /** Shares folders out until none is left, taking part itself where this thread may be kept busy. */
  private async drive(count: number): Promise<void> {
    for (;;) {
      if (this.check.cancel?.aborted) this.queue.length = 0;
      while (this.idle.length > 0 && this.queue.length > 0) {
        // The oldest ones are the shallowest, with the most below them.
        const share = Math.max(1, Math.min(SHARE, Math.ceil(this.queue.length / (count + 1))));
        this.busy++;
        (this.idle.pop() as Worker).postMessage({ kind: 'folders', paths: this.queue.splice(0, share) } satisfies ToWorker);
      }
      if (this.queue.length === 0 && this.busy === 0) break;
      if (this.check.here && this.queue.length > 0) {
        this.walkHere(SLICE);
        await new Promise((resolve) => setImmediate(resolve));
      } else await new Promise<void>((resolve) => { this.wake = resolve; });
    }
    for (const worker of this.idle.splice(0)) worker.postMessage({ kind: 'end' } satisfies ToWorker);
  }

  private listen(worker: Worker): Promise<Part> {
    this.busy++;
    return new Promise((resolve, reject) => {
      worker.on('error', reject);
      worker.on('exit', (code) => reject(new Error(`the worker ended with ${code}`)));
      worker.on('message', (message: FromWorker) => {
        if (message.kind === 'part') return resolve(message);
        this.busy--;
        this.files += message.files;
        this.folders += message.folders;
        this.queue.push(...message.rest);
        this.idle.push(worker);
        this.check.progress?.({ files: this.files, folders: this.folders });
        this.wake();
      });
    });
  }
}
