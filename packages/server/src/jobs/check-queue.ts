/**
 * Checks waiting their turn, in a queue kept in the database: any process that works takes the next one, one at a time,
 * for each uses all cores already.
 */
import PgBoss from 'pg-boss';
import type { Logger } from 'pino';

const QUEUE = 'check';
/** Asks whose turn it is at least this often, in seconds; who asks in this process is heard at once. */
const POLL = 1;

export class CheckQueue {
  private readonly boss: PgBoss;
  private worker: string | null = null;
  /** Checks asked for here that have not ended. */
  private readonly open = new Set<string>();
  private readonly waiting: (() => void)[] = [];

  constructor(
    databaseUrl: string,
    private readonly log: Logger,
  ) {
    // Schedules are told by the projects themselves, and a check that falls silent is taken over: neither is the
    // queue's business.
    this.boss = new PgBoss({ connectionString: databaseUrl, schema: 'jobs', max: 3, schedule: false });
    this.boss.on('error', (error) => log.warn({ error }, 'the queue of checks has trouble'));
  }

  /** `run` is given a check's id. Without it this process only asks for checks, and others do them. */
  async start(run: ((id: string) => Promise<void>) | null): Promise<void> {
    await this.boss.start();
    await this.boss.createQueue(QUEUE, { name: QUEUE, policy: 'short', retryLimit: 0, expireInHours: 12 });
    if (run === null) return;
    this.worker = await this.boss.work<{ id: string }>(
      QUEUE,
      { batchSize: 1, pollingIntervalSeconds: POLL },
      async ([job]) => {
        if (job === undefined) return;
        const { id } = job.data;
        try {
          await run(id);
        } catch (error) {
          this.log.error({ error, check: id }, 'a check ended early');
        } finally {
          this.ended(id);
          // The next one need not wait for the clock.
          if (this.worker !== null) this.boss.notifyWorker(this.worker);
        }
      },
    );
  }

  /** A check waits in the queue once, however often it is asked for. */
  async add(id: string): Promise<void> {
    if (this.worker !== null) this.open.add(id);
    await this.boss.send(QUEUE, { id }, { singletonKey: id });
    if (this.worker !== null) this.boss.notifyWorker(this.worker);
  }

  /** Resolves when no check that was asked for here waits or runs. */
  async idle(): Promise<void> {
    while (this.open.size > 0) await new Promise<void>((resolve) => this.waiting.push(resolve));
  }

  /** A check that runs is left to end; what waits stays in the queue. */
  async stop(): Promise<void> {
    this.worker = null;
    await this.boss.stop({ graceful: true, wait: true, timeout: 30_000 });
  }

  private ended(id: string): void {
    this.open.delete(id);
    for (const wake of this.waiting.splice(0)) wake();
  }
}
