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
  /** Folders walked here before workers are called; 0 hands all of them over, as a server must. */
  readonly here?: number;
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

export async function checkOnDisk(check: DiskCheck): Promise<DiskOutcome> {
  const ground = new CheckGround(check.input);
  const checker = new Checker(ground);
  const unseen: Unseen[] = [];
  const queue = [''];
  const limit = check.worker ? (check.here ?? 200) : Infinity;
  let folders = 0;
  let files = 0;
  while (queue.length > 0 && folders < limit && !check.cancel?.aborted) {
    const listing = listFolder(check.root, queue.pop() as string, (u) => unseen.push(u));
    if (listing === null) continue;
    checker.folder(listing);
    folders++;
    files += listing.files.length;
    for (const name of listing.folders) queue.push(join(listing.path, name));
    if (folders % 500 === 0) check.progress?.({ files, folders });
  }
  const parts: CheckPart[] = [checker.part()];
  if (queue.length > 0 && check.worker && !check.cancel?.aborted) {
    const shared = await shareOut(check, check.worker, queue, { files, folders });
    for (const s of shared) {
      parts.push(s.part);
      unseen.push(...s.unseen);
    }
  }
  const outcome = mergeChecks(ground, parts);
  check.progress?.({ files: outcome.summary.files, folders: outcome.summary.folders });
  return { ...outcome, unseen: unseen.sort((a, b) => (a.path < b.path ? -1 : 1)), cancelled: check.cancel?.aborted ?? false };
}

/** Folders one worker is given at a time: enough to be worth a message, few enough to end together. */
const SHARE = 32;

async function shareOut(check: DiskCheck, script: URL, queue: string[], before: CheckProgress): Promise<Extract<FromWorker, { kind: 'part' }>[]> {
  const count = Math.max(1, check.workers ?? 2);
  let { files, folders } = before;
  const idle: Worker[] = [];
  let busy = 0;
  const feed = () => {
    while (idle.length > 0 && queue.length > 0 && !check.cancel?.aborted) {
      const worker = idle.pop() as Worker;
      busy++;
      const share = Math.max(1, Math.min(SHARE, Math.ceil(queue.length / count)));
      worker.postMessage({ kind: 'folders', paths: queue.splice(-share) } satisfies ToWorker);
    }
    if (busy === 0) for (const worker of idle.splice(0)) worker.postMessage({ kind: 'end' } satisfies ToWorker);
  };
  const workers = Array.from({ length: count }, () => new Worker(script));
  try {
    return await Promise.all(
      workers.map(
        (worker) =>
          new Promise<Extract<FromWorker, { kind: 'part' }>>((resolve, reject) => {
            worker.on('error', reject);
            worker.on('exit', (code) => reject(new Error(`the worker ended with ${code}`)));
            worker.on('message', (message: FromWorker) => {
              if (message.kind === 'part') return resolve(message);
              busy--;
              files += message.files;
              folders += message.folders;
              queue.push(...message.rest);
              idle.push(worker);
              check.progress?.({ files, folders });
              feed();
            });
            busy++;
            worker.postMessage({ kind: 'begin', root: check.root, input: check.input } satisfies ToWorker);
          }),
      ),
    );
  } finally {
    await Promise.all(workers.map((worker) => worker.terminate()));
  }
}
