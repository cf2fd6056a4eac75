/**
 * Reads what media tell, in threads of their own: what a hostile file does to a reader it does to nobody else. One that
 * takes too long is stopped, and said to.
 */
import { existsSync } from 'node:fs';
import { Worker } from 'node:worker_threads';
import type { MediaFacts } from '@nesting/core/listing';
import { withPlainFileAsync } from '../roots/plain-file';
import type { Root } from '../roots/root';
import type { AskedFacts } from './worker';

/** Milliseconds that one file may take, and megabytes that a thread may hold. */
const MOST_MS = 20_000;
const MOST_MEGABYTES = 512;
const THREADS = 2;

export interface MediaReaderOptions {
  /** The built worker. */
  readonly script: URL;
  readonly mostMs?: number;
}

export class MediaReader {
  private readonly threads: Thread[];
  private next = 0;

  constructor(options: MediaReaderOptions) {
    this.threads = Array.from({ length: THREADS }, () => new Thread({ mostMs: MOST_MS, ...options }));
  }

  /** @throws where the file cannot be opened */
  read(root: Root, path: string): Promise<MediaFacts> {
    const thread = this.threads[this.next++ % this.threads.length] as Thread;
    return thread.do(() => withPlainFileAsync(root, path, ({ fd, size }) => thread.ask(fd, size)));
  }

  close(): void {
    for (const thread of this.threads) thread.stop();
  }
}

class Thread {
  private worker: Worker | null = null;
  private queue: Promise<unknown> = Promise.resolve();
  private id = 0;

  constructor(private readonly options: Required<MediaReaderOptions>) {}

  /** One after the other. */
  do<T>(work: () => Promise<T>): Promise<T> {
    const done = this.queue.then(work, work);
    this.queue = done.catch(() => undefined);
    return done;
  }

  ask(fd: number, size: number): Promise<MediaFacts> {
    this.worker ??= this.begin();
    const { worker } = this;
    const asked: AskedFacts = { id: this.id++, fd, size };
    return new Promise((resolve) => {
      const end = (facts: MediaFacts, isLost: boolean) => {
        clearTimeout(timer);
        worker.off('message', told).off('error', died).off('exit', died);
        if (isLost) this.stop();
        resolve(facts);
      };
      const told = (answer: { readonly id: number; readonly facts: MediaFacts }) => {
        if (answer.id === asked.id) end(answer.facts, false);
      };
      const died = () => end({ unread: 'failed' }, true);
      const timer = setTimeout(() => end({ unread: 'took-too-long' }, true), this.options.mostMs);
      worker.on('message', told).on('error', died).on('exit', died);
      worker.postMessage(asked);
    });
  }

  stop(): void {
    void this.worker?.terminate();
    this.worker = null;
  }

  private begin(): Worker {
    const worker = new Worker(this.options.script, {
      resourceLimits: { maxOldGenerationSizeMb: MOST_MEGABYTES },
    });
    // Whoever waits for nothing is not held up by it.
    worker.unref();
    return worker;
  }
}

/** `null` where it was not built beside this program. */
export function mediaReaderBeside(address: string): MediaReader | null {
  const script = new URL('./media-worker.js', address);
  return existsSync(script) ? new MediaReader({ script }) : null;
}
