/** Hashes a whole file beside what this thread does: a package is held against two kinds of checksums at once. */
import { closeSync, constants, openSync } from 'node:fs';
import { parentPort, Worker, workerData } from 'node:worker_threads';
import { standNowhere } from './handle';
import { hashPastCache } from './past-cache';
import { hashOf } from './plain-file';

let script: URL | null = null;

/** A program that calls `hashIfAsked` first. Without one, as in tests of one part, files are hashed in this thread. */
export const hashThreadsBy = (program: URL | null): void => {
  script = program;
};

interface Asked {
  readonly hash: string;
}

export interface FileHash {
  readonly sha256: string;
  readonly isPastCache: boolean;
}

const isAsked = (data: unknown): data is Asked => typeof data === 'object' && data !== null && 'hash' in data;

/** Whether this is such a thread: then it does nothing else. */
export function hashIfAsked(): boolean {
  const asked: unknown = workerData;
  if (parentPort === null || !isAsked(asked)) return false;
  parentPort.postMessage(hashHere(asked.hash));
  return true;
}

/** @param at - for calls of the system in this process */
export function hashWhole(at: string): Promise<FileHash> {
  const program = script;
  if (program === null) return Promise.resolve().then(() => hashHere(at));
  standNowhere();
  return new Promise((resolve, reject) => {
    const thread = new Worker(program, { workerData: { hash: at } satisfies Asked });
    thread.once('message', resolve);
    thread.once('error', reject);
    thread.once('exit', () => reject(new Error('the thread that hashes ended')));
  });
}

function hashHere(at: string): FileHash {
  const past = hashPastCache(at);
  if (past !== null) return { sha256: past, isPastCache: true };
  const fd = openSync(at, constants.O_RDONLY | constants.O_NOFOLLOW | constants.O_NONBLOCK);
  try {
    return { sha256: hashOf({ fd }), isPastCache: false };
  } finally {
    closeSync(fd);
  }
}
