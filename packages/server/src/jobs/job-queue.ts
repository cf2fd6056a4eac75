/**
 * Jobs of one kind, in a queue kept in the database: any process that works takes the next one, one at a time, and a
 * crash loses none.
 */
import PgBoss from 'pg-boss';
import type { Logger } from 'pino';
import type { Client, Db } from '../db/client';
import { countOpenJobs } from '../db/queries/house/jobs';
import { onBehalfOf, requestId } from '../request-context';
import type { QueueDb } from './queue-db';

export interface JobKind {
  readonly name: string;
  /** Seconds between two looks at whose turn it is; who asks in this process is heard at once. */
  readonly pollSeconds: number;
  /** Hours after which one that tells nothing more is over. */
  readonly expireInHours: number;
  /** How often one that failed is tried again, each time after twice the seconds. */
  readonly retries: number;
  readonly retrySeconds: number;
  /** Jobs of the kind that one process does at once. */
  readonly atOnce: number;
}

/** What ends early is taken over by its lease, not by the queue. */
const LEASED = { pollSeconds: 1, expireInHours: 12, retries: 0, retrySeconds: 1 };

/** A check uses all cores already. */
export const CHECKS: JobKind = { name: 'check', ...LEASED, atOnce: 1 };
/** Batches wait for disks more than they work. */
export const BATCHES: JobKind = { name: 'batch', ...LEASED, atOnce: 3 };

/** Packages are read and written from end to end: one after another. */
export const PACKAGES: JobKind = { name: 'package', ...LEASED, atOnce: 2 };

export function openBoss(db: QueueDb, log: Logger): PgBoss {
  // Projects keep their own schedules.
  const boss = new PgBoss({ db, schema: 'jobs', schedule: false });
  boss.on('error', (error) => log.warn({ error }, 'the queue of jobs has trouble'));
  return boss;
}

/** Milliseconds between two looks of who waits until nothing is left to do. */
const LOOK_MS = 20;

interface JobData {
  readonly id: string;
  /** Who asked for it; jobs of older versions do not say. */
  readonly request?: string | null;
}

export class JobQueue {
  private readonly workers: string[] = [];
  /** Jobs asked for here that did not end here yet. */
  private readonly asked = new Set<string>();

  constructor(
    private readonly db: Db,
    private readonly boss: PgBoss,
    private readonly kind: JobKind,
    private readonly log: Logger,
  ) {}

  /** `run` is given a job's id, and throws where it is to be tried again. Without it others do the jobs. */
  async start(run: ((id: string) => Promise<void>) | null): Promise<void> {
    const { name, pollSeconds, expireInHours, retries, retrySeconds } = this.kind;
    const settings = { policy: 'short' as const, expireInHours, retryLimit: retries, retryDelay: retrySeconds };
    await this.boss.createQueue(name, { name, ...settings, retryBackoff: true });
    if (run === null) return;
    const options = { batchSize: 1, pollingIntervalSeconds: pollSeconds };
    const work = async ([job]: { id: string; data: JobData }[]) => {
      if (job === undefined) return;
      const { id, request = null } = job.data;
      try {
        await onBehalfOf(request, () => this.run(id, run));
      } finally {
        this.asked.delete(job.id);
        // The next one need not wait for the clock.
        this.wake();
      }
    };
    while (this.workers.length < this.kind.atOnce)
      this.workers.push(await this.boss.work<JobData>(name, options, work));
  }

  private async run(id: string, run: (id: string) => Promise<void>): Promise<void> {
    try {
      await run(id);
    } catch (error) {
      this.log.error({ error, kind: this.kind.name, id }, 'a job ended early');
      throw error;
    }
  }

  /** A job waits in the queue once, however often it is asked for. In a transaction it is asked for when that ends. */
  async add(id: string, client?: Client): Promise<void> {
    const db = client && { executeSql: (text: string, values: unknown[]) => client.query(text, values) };
    const job = await this.boss.send(
      this.kind.name,
      { id, request: requestId() },
      { singletonKey: id, ...(db && { db }) },
    );
    if (this.workers.length === 0) return;
    if (job !== null) this.asked.add(job);
    this.wake();
  }

  /** Whose turn it is here is asked at once. */
  wake(): void {
    for (const worker of this.workers) this.boss.notifyWorker(worker);
  }

  /** Resolves when no job asked for here waits or runs. One that is tried again later is not waited for. */
  async idle(): Promise<void> {
    while ((await countOpenJobs(this.db, [...this.asked])) > 0)
      await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  }
}
