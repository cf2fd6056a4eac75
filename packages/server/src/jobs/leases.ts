/**
 * Work that this server is at. A lease in the database says so to all others, and is renewed as long as the work goes
 * on. Whoever cannot renew in time stops the work before others may take it up.
 */
import { randomUUID } from 'node:crypto';
import { type Db, openDb } from '../db/client';
import { endLease, renewLeases, takeLease } from '../db/queries/house/leases';

export interface Lease {
  /** Aborted when it may be somebody else's: the work is ended at once. */
  readonly lost: AbortSignal;
  /** After the work. Where the database is away it ends by itself. */
  release(): Promise<void>;
}

interface Held {
  readonly stop: AbortController;
  readonly released: Promise<void>;
  /** When it was certainly this server's, by this process's own clock. */
  renewed: number;
}

/** Renewed this often within a lease, and given up when so much of it has gone by without. */
const RENEWALS = 4;
const GIVEN_UP = 0.75;

export class Leases {
  private readonly owner = randomUUID();
  private readonly held = new Map<string, Held>();
  /** What was let go of, until it has ended. */
  private readonly ending: Promise<void>[] = [];
  private readonly clock: NodeJS.Timeout;

  /** Has a connection of its own: renewing never waits behind those whose leases are renewed. */
  private readonly db: Db;

  constructor(
    databaseUrl: string,
    private readonly ms: number,
  ) {
    this.db = openDb(databaseUrl, 1);
    this.clock = setInterval(() => {
      this.giveUpLate();
      void this.renew();
    }, ms / RENEWALS).unref();
  }

  /** `null` where somebody else is at it. */
  async take(work: string): Promise<Lease | null> {
    const renewed = performance.now();
    if (this.held.has(work) || !(await takeLease(this.db, this.owner, this.ms, work))) return null;
    let tellReleased: () => void = () => undefined;
    const released = new Promise<void>((resolve) => {
      tellReleased = resolve;
    });
    const held: Held = { stop: new AbortController(), released, renewed };
    this.held.set(work, held);
    return {
      lost: held.stop.signal,
      release: async () => {
        this.held.delete(work);
        await endLease(this.db, this.owner, work).catch(() => undefined);
        tellReleased();
      },
    };
  }

  /** What is still at work is ended where it is: whoever starts next goes on with it. */
  letGo(): void {
    clearInterval(this.clock);
    const working = [...this.held.values()];
    this.ending.push(...working.map((held) => held.released));
    for (const held of working) held.stop.abort();
  }

  /** After all work has ended. */
  async close(): Promise<void> {
    this.letGo();
    await Promise.all(this.ending);
    await this.db.end();
  }

  private async renew(): Promise<void> {
    if (this.held.size === 0) return;
    const asked = performance.now();
    // Those that are taken meanwhile are not in the answer.
    const those = [...this.held];
    const works = those.map(([work]) => work);
    const mine = await renewLeases(this.db, this.owner, this.ms, works).catch(() => null);
    for (const [work, held] of those) {
      if (mine?.has(work)) held.renewed = asked;
      else if (mine !== null && this.held.get(work) === held) this.lose(work, held);
    }
  }

  /** Before the lease is over by the database's clock: the work has time to end. */
  private giveUpLate(): void {
    const now = performance.now();
    for (const [work, held] of this.held) if (now - held.renewed > this.ms * GIVEN_UP) this.lose(work, held);
  }

  private lose(work: string, held: Held): void {
    this.held.delete(work);
    held.stop.abort();
  }
}
