/**
 * Looks at disks beside the thread that answers requests. Tasks are handed to a few worker threads, each to the one
 * that has least to do; a worker is started when it is first needed, and anew when it has died.
 */
import { Worker } from 'node:worker_threads';
import { TASKS, type TaskInput, type TaskName, type TaskOutput } from './tasks';

export interface ReadRequest {
  readonly id: number;
  readonly task: TaskName;
  readonly input: never;
}

export type ReadReply =
  | { readonly id: number; readonly ok: true; readonly value: unknown }
  | { readonly id: number; readonly ok: false; readonly code: string; readonly message: string };

interface Waiting {
  readonly resolve: (value: unknown) => void;
  readonly reject: (error: Error) => void;
}

/** Two, so that a question about one folder does not wait for a walk of a hundred thousand. */
const WORKERS = 2;

export class DiskReads {
  private readonly workers: ReadWorker[] = [];

  /** Without a script, as in tests of one part, tasks run in the thread that asks. */
  constructor(private readonly script: URL | null) {}

  run<K extends TaskName>(task: K, input: TaskInput<K>): Promise<TaskOutput<K>> {
    const { script } = this;
    if (script === null) {
      const here: (input: never) => unknown = TASKS[task];
      return Promise.resolve().then(() => here(input as never) as TaskOutput<K>);
    }
    // What the worker answers is what the same function answers here.
    return this.leastBusy(script).ask(task, input as never) as Promise<TaskOutput<K>>;
  }

  async close(): Promise<void> {
    await Promise.all(this.workers.map((worker) => worker.close()));
  }

  private leastBusy(script: URL): ReadWorker {
    const idle = this.workers.find((worker) => worker.waiting === 0);
    if (idle !== undefined) return idle;
    if (this.workers.length < WORKERS) {
      const made = new ReadWorker(script);
      this.workers.push(made);
      return made;
    }
    return this.workers.reduce((least, worker) => (worker.waiting < least.waiting ? worker : least));
  }
}

class ReadWorker {
  private worker: Worker | null = null;
  private readonly asked = new Map<number, Waiting>();
  private last = 0;

  constructor(private readonly script: URL) {}

  get waiting(): number {
    return this.asked.size;
  }

  ask(task: TaskName, input: never): Promise<unknown> {
    this.worker ??= this.started();
    const { worker } = this;
    const id = ++this.last;
    return new Promise((resolve, reject) => {
      this.asked.set(id, { resolve, reject });
      worker.postMessage({ id, task, input } satisfies ReadRequest);
    });
  }

  async close(): Promise<void> {
    await this.worker?.terminate();
  }

  private started(): Worker {
    const worker = new Worker(this.script);
    worker.unref();
    worker.on('message', (reply: ReadReply) => {
      const waiting = this.asked.get(reply.id);
      this.asked.delete(reply.id);
      if (reply.ok) waiting?.resolve(reply.value);
      else waiting?.reject(Object.assign(new Error(reply.message), { code: reply.code }));
    });
    worker.on('error', (error) => this.died(worker, error));
    worker.on('exit', (code) => this.died(worker, new Error(`the worker that reads disks ended with ${code}`)));
    return worker;
  }

  /** Whoever waits is told; the next question starts another worker. */
  private died(worker: Worker, error: Error): void {
    if (this.worker !== worker) return;
    this.worker = null;
    const left = [...this.asked.values()];
    this.asked.clear();
    for (const { reject } of left) reject(error);
  }
}
