/**
 * Work on disks, beside the process that asks. Each kind of work has a few processes of its own, so that a look at one
 * folder never waits behind a check; one that does not answer in its time is ended, and whoever asked is told.
 */

import { DiskError, failureOf } from '../failure';
import { Child } from './child';
import type { FromChild, ToChild } from './protocol';
import { type Kind, TASKS, type TaskInput, type TaskName, type TaskOutput, type TaskTold } from './tasks';

export interface KindLimits {
  /** Processes at once. */
  readonly most: number;
  /** Megabytes of one. */
  readonly memory: number;
  /** Milliseconds a task may take; `null` where it may take as long as it goes on. */
  readonly bound: number | null;
  /** Milliseconds that a task has to come to an end of its own after it was cancelled. */
  readonly patience: number;
  /** As `nice` has it: processes of which others go first where the machine is busy. Requests come before all. */
  readonly nice: number;
}

/** Two cores are usual; batches wait for disks more than they work. */
const KIND_LIMITS: Readonly<Record<Kind, KindLimits>> = {
  look: { most: 4, memory: 256, bound: 10_000, patience: 0, nice: 0 },
  walk: { most: 2, memory: 2048, bound: 180_000, patience: 0, nice: 5 },
  batch: { most: 4, memory: 2048, bound: null, patience: 60_000, nice: 10 },
  check: { most: 2, memory: 4096, bound: null, patience: 10_000, nice: 15 },
};

/** Milliseconds after which a process that has nothing to do is let go. */
const IDLE_MS = 30_000;

export interface Asking<Told> {
  readonly signal?: AbortSignal | undefined;
  /** Ends the task at once, wherever it is: it may be somebody else's by now. */
  readonly lost?: AbortSignal | undefined;
  /** The task may wait until it is taken care of. */
  readonly told?: ((value: Told) => void | Promise<void>) | undefined;
}

interface Job {
  readonly task: TaskName;
  readonly input: unknown;
  readonly asking: Asking<never>;
  readonly resolve: (value: unknown) => void;
  readonly reject: (error: DiskError) => void;
}

const cancelled = () => new DiskError({ code: 'CANCELLED', message: 'nobody waits for it', path: '', detail: '' });

export class Disks {
  private readonly pools = new Map<Kind, Pool>();

  /** Without a script, as in tests of one part, tasks run in the process that asks. */
  constructor(
    private readonly script: URL | null,
    private readonly limits: Readonly<Record<Kind, KindLimits>> = KIND_LIMITS,
  ) {}

  /** @throws DiskError */
  run<K extends TaskName>(task: K, input: TaskInput<K>, asking: Asking<TaskTold<K>> = {}): Promise<TaskOutput<K>> {
    const { script } = this;
    if (script === null) return runHere(task, input, asking);
    const { kind } = TASKS[task];
    const pool = this.pools.get(kind) ?? new Pool(script, this.limits[kind]);
    this.pools.set(kind, pool);
    return pool.ask(task, input, asking) as Promise<TaskOutput<K>>;
  }

  async close(): Promise<void> {
    await Promise.all([...this.pools.values()].map((pool) => pool.close()));
  }
}

async function runHere<K extends TaskName>(
  task: K,
  input: TaskInput<K>,
  { signal, told }: Asking<TaskTold<K>>,
): Promise<TaskOutput<K>> {
  const run = TASKS[task].run as (input: TaskInput<K>, context: object) => TaskOutput<K> | Promise<TaskOutput<K>>;
  try {
    return await run(input, {
      cancel: signal ?? new AbortController().signal,
      tell: async (value: TaskTold<K>) => told?.(value),
    });
  } catch (error) {
    throw new DiskError(failureOf(error));
  }
}

/** The processes of one kind, and who waits for one. */
class Pool {
  private readonly waiting: Job[] = [];
  private readonly workers = new Set<PoolWorker>();

  constructor(
    private readonly script: URL,
    private readonly limits: KindLimits,
  ) {}

  ask(task: TaskName, input: unknown, asking: Asking<never>): Promise<unknown> {
    return new Promise((resolve, reject) => {
      const { signal, lost } = asking;
      if (signal?.aborted || lost?.aborted) return reject(cancelled());
      const job: Job = { task, input, asking, resolve, reject };
      // What waits still is not begun.
      for (const end of [signal, lost]) end?.addEventListener('abort', () => this.withdraw(job), { once: true });
      this.waiting.push(job);
      this.next();
    });
  }

  async close(): Promise<void> {
    await Promise.all([...this.workers].map((worker) => worker.end()));
  }

  private next(): void {
    const [job] = this.waiting;
    if (job === undefined) return;
    const idle = [...this.workers].find((worker) => worker.isIdle) ?? this.started();
    if (idle === null) return;
    this.waiting.shift();
    idle.run(job);
  }

  private started(): PoolWorker | null {
    if (this.workers.size >= this.limits.most) return null;
    const made: PoolWorker = new PoolWorker(
      this.script,
      this.limits,
      () => this.next(),
      () => {
        this.workers.delete(made);
        this.next();
      },
    );
    this.workers.add(made);
    return made;
  }

  private withdraw(job: Job): void {
    const at = this.waiting.indexOf(job);
    if (at < 0) return;
    this.waiting.splice(at, 1);
    job.reject(cancelled());
  }
}

class PoolWorker {
  private readonly child: Child<ToChild, FromChild>;
  private job: Job | null = null;
  private last = 0;
  private isLate = false;
  /** Being ended: it takes no job more. */
  private isEnding = false;
  private clock: NodeJS.Timeout | undefined;

  constructor(
    script: URL,
    private readonly limits: KindLimits,
    private readonly onIdle: () => void,
    onEnd: () => void,
  ) {
    const { memory, nice } = limits;
    this.child = new Child(script, { role: 'tasks', memory, nice }, (message) => this.hear(message));
    void this.child.ended.then((why) => {
      this.end(why);
      onEnd();
    });
  }

  get isIdle(): boolean {
    return this.job === null && !this.isEnding;
  }

  run(job: Job): void {
    clearTimeout(this.clock);
    this.job = job;
    this.last++;
    this.child.hold(true);
    this.child.send({ kind: 'run', id: this.last, task: job.task, input: job.input });
    if (this.limits.bound !== null) this.killAfter(this.limits.bound);
    job.asking.signal?.addEventListener('abort', () => this.cancel(job), { once: true });
    job.asking.lost?.addEventListener('abort', () => this.job === job && this.kill(), { once: true });
  }

  /** Resolves when its process has ended. */
  async end(why?: Error): Promise<void> {
    clearTimeout(this.clock);
    if (why === undefined) {
      this.kill();
      await this.child.ended;
      return;
    }
    // What changes a disk and was ended in the middle was not cancelled: nobody knows how far it came.
    const isOnlyLook = this.limits.bound !== null;
    const code = isOnlyLook && this.isLate ? 'DISK-SILENT' : 'DISK-ENDED';
    this.job?.reject(
      isOnlyLook && this.job.asking.signal?.aborted
        ? cancelled()
        : new DiskError({ code, message: why.message, path: '', detail: this.job.task }),
    );
    this.job = null;
  }

  /** What only looks is ended at once; what changes a disk comes to an end of its own, where it can. */
  private cancel(job: Job): void {
    if (this.job !== job) return;
    this.child.send({ kind: 'cancel', id: this.last });
    this.killAfter(this.limits.patience);
  }

  private kill(): void {
    this.isEnding = true;
    this.child.kill();
  }

  private killAfter(ms: number): void {
    clearTimeout(this.clock);
    this.clock = setTimeout(() => {
      this.isLate = true;
      this.kill();
    }, ms);
  }

  private hear(message: FromChild): void {
    const { job } = this;
    if (job === null || message.id !== this.last) return;
    if (message.kind === 'told') {
      void this.pass(job, message.value);
      return;
    }
    clearTimeout(this.clock);
    this.job = null;
    this.child.hold(false);
    if (message.kind === 'done') job.resolve(message.value);
    else job.reject(new DiskError(message.error));
    this.onIdle();
    if (this.isIdle) this.clock = setTimeout(() => this.kill(), IDLE_MS).unref();
  }

  private async pass(job: Job, value: unknown): Promise<void> {
    const id = this.last;
    try {
      const told: ((value: never) => void | Promise<void>) | undefined = job.asking.told;
      await told?.(value as never);
    } finally {
      this.child.send({ kind: 'heard', id });
    }
  }
}
