/** Readers of media in workers of their own: one that takes too long is ended, and the file is said not to be readable. */
import type { MediaFacts } from '@nesting/core/listing';
import { type Remote, releaseProxy, wrap } from 'comlink';
import type { FactsWork } from './facts-worker';

/** Milliseconds that one file may take. */
const MOST_MS = 20_000;
const READERS = 2;

export class MediaReader {
  private readonly readers = Array.from({ length: READERS }, () => new Reader());
  private next = 0;

  /** Never fails: what cannot be read tells nothing, and that is said. */
  read(file: File): Promise<MediaFacts> {
    const reader = this.readers[this.next++ % READERS] as Reader;
    return reader.read(file);
  }

  close(): void {
    for (const reader of this.readers) reader.end();
  }
}

class Reader {
  private worker: Worker | null = null;
  private remote: Remote<FactsWork> | null = null;
  private queue: Promise<unknown> = Promise.resolve();

  /** One after the other. */
  read(file: File): Promise<MediaFacts> {
    const read = this.queue.then(() => this.ask(file));
    this.queue = read;
    return read;
  }

  end(): void {
    this.remote?.[releaseProxy]();
    this.worker?.terminate();
    this.worker = null;
    this.remote = null;
  }

  private ask(file: File): Promise<MediaFacts> {
    this.worker ??= new Worker(new URL('./facts-worker.ts', import.meta.url), { type: 'module' });
    this.remote ??= wrap<FactsWork>(this.worker);
    const { worker, remote } = this;
    return new Promise((resolve) => {
      const lost = (unread: 'failed' | 'took-too-long') => {
        clearTimeout(timer);
        this.end();
        resolve({ unread });
      };
      const timer = setTimeout(() => lost('took-too-long'), MOST_MS);
      worker.onerror = () => lost('failed');
      remote.facts(file).then(
        (facts) => {
          clearTimeout(timer);
          resolve(facts);
        },
        () => lost('failed'),
      );
    });
  }
}
