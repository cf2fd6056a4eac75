/**
 * Shares folders out among worker threads: each takes some, hands back what it found below them, and gives its part
 * when asked.
 */

import { Worker } from 'node:worker_threads';
import { present } from '@nesting/core';
import type { Cancellation } from '@nesting/core/change';
import type { ContentWants, PartialResult } from '@nesting/core/check';
import type { CheckInput } from '@nesting/core/project';
import type { FileFacts } from '../file-facts';
import type { Mount, Unseen } from '../walk';

/** What workers are to look for in files. */
export interface FactsRequest {
  readonly wants: ContentWants;
  readonly roots: readonly string[];
  readonly known: readonly FileFacts[];
}

export type ToWorker =
  | {
      readonly kind: 'begin';
      readonly root: string;
      readonly mounts: readonly Mount[];
      readonly input: CheckInput /** Folders below are handed back, and not walked. */;
      readonly shallow: boolean;
      readonly request?: FactsRequest;
    }
  | { readonly kind: 'folders'; readonly paths: readonly string[] }
  /** Asks for what was found since the last time. */
  | { readonly kind: 'take'; readonly last: boolean };

export type FromWorker =
  /** Done with what it was given; folders it found and did not walk are handed back. */
  | { readonly kind: 'idle'; readonly files: number; readonly folders: number; readonly rest: readonly string[] }
  | ({ readonly kind: 'part' } & WorkerResult);

export interface WorkerResult {
  readonly part: PartialResult | null;
  readonly facts: readonly FileFacts[];
  readonly unseen: readonly Unseen[];
}

/** Folders one worker is given at a time: enough to be worth a message, few enough to end together. */
const SHARE = 64;

export function startWorker(script: URL, begin: Omit<Extract<ToWorker, { kind: 'begin' }>, 'kind'>): Worker {
  // What is read of a folder is rubbish a moment later: a larger nursery is a little quicker and holds more. At 8, 16,
  // 32, 64 MB a million files took 6.5, 6.2, 6.1, 5.9 s and 270, 295, 325, 375 MB.
  const made = new Worker(script, { resourceLimits: { maxYoungGenerationSizeMb: 8 } });
  made.postMessage({ kind: 'begin', ...begin } satisfies ToWorker);
  return made;
}

export interface Sharing {
  readonly workers: readonly Worker[];
  /** Folders still to be looked at; grows while workers find more. */
  readonly queue: string[];
  /** Of the folders that a worker hands back, those to be walked. */
  readonly wanted: (path: string) => boolean;
  /** This thread takes part between two looks at the workers, where it may be kept busy. */
  readonly here: (() => void) | null;
  readonly cancel: Cancellation | undefined;
  readonly progress: (files: number, folders: number) => void;
  /** Milliseconds after which all is gathered and handed over, so that a check can go on from there. */
  readonly gatherEvery: number;
  readonly gathered: (parts: readonly WorkerResult[], queue: readonly string[]) => Promise<void>;
}

/** Resolves with what the workers found since it was gathered last. A worker that ends early rejects. */
export async function shareOut(sharing: Sharing): Promise<WorkerResult[]> {
  const pool = new WorkerPool(sharing);
  try {
    return await Promise.race([pool.run(), pool.broken]);
  } finally {
    pool.release();
  }
}

class WorkerPool {
  readonly broken: Promise<never>;
  private readonly idle: Worker[] = [];
  private busy: number;
  private parts: WorkerResult[] = [];
  private asked = 0;
  private last = Date.now();
  private done = false;
  /** Wakes the driver when a worker has said something. */
  private wake: () => void = () => undefined;

  constructor(private readonly sharing: Sharing) {
    this.busy = sharing.workers.length;
    this.broken = new Promise((_, reject) => {
      for (const worker of sharing.workers) {
        worker.on('error', reject);
        worker.on('exit', (code) => this.done || reject(new Error(`the worker ended with ${code}`)));
      }
    });
    // Whoever waits is told; nobody else need be.
    this.broken.catch(() => undefined);
    for (const worker of sharing.workers)
      worker.on('message', (message: FromWorker) => this.onMessage(worker, message));
  }

  async run(): Promise<WorkerResult[]> {
    const { sharing } = this;
    for (;;) {
      if (sharing.cancel?.aborted) break;
      const due = sharing.queue.length > 0 && Date.now() - this.last > sharing.gatherEvery;
      if (!due) this.handOut();
      if (this.busy === 0 && sharing.queue.length === 0) break;
      if (due && this.busy === 0) await this.gather();
      else if (!due && sharing.here !== null && sharing.queue.length > 0) {
        sharing.here();
        await new Promise((resolve) => setImmediate(resolve));
      } else await this.nextMessage();
    }
    while (this.busy > 0) await this.nextMessage();
    this.done = true;
    return this.take(true);
  }

  release(): void {
    this.done = true;
    for (const worker of this.sharing.workers) worker.removeAllListeners('message');
  }

  private handOut(): void {
    const { queue, workers } = this.sharing;
    while (this.idle.length > 0 && queue.length > 0) {
      // The oldest ones are the shallowest, with the most below them.
      const share = Math.max(1, Math.min(SHARE, Math.ceil(queue.length / (workers.length + 1))));
      this.busy++;
      present(this.idle.pop()).postMessage({ kind: 'folders', paths: queue.splice(0, share) } satisfies ToWorker);
    }
  }

  private async gather(): Promise<void> {
    await this.sharing.gathered(await this.take(false), this.sharing.queue);
    this.last = Date.now();
  }

  private async take(last: boolean): Promise<WorkerResult[]> {
    this.parts = [];
    this.asked = this.idle.length;
    for (const worker of this.idle) worker.postMessage({ kind: 'take', last } satisfies ToWorker);
    while (this.parts.length < this.asked) await this.nextMessage();
    return this.parts;
  }

  private nextMessage(): Promise<void> {
    return new Promise<void>((resolve) => {
      this.wake = resolve;
    });
  }

  private onMessage(worker: Worker, message: FromWorker): void {
    if (message.kind === 'part') this.parts.push(message);
    else {
      this.busy--;
      this.idle.push(worker);
      for (const path of message.rest) if (this.sharing.wanted(path)) this.sharing.queue.push(path);
      this.sharing.progress(message.files, message.folders);
    }
    this.wake();
  }
}
