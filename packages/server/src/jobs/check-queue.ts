/** Checks waiting their turn: one at a time, for each uses all cores already. What fails is logged, and the next one goes on. */
import type { Logger } from 'pino';

export class CheckQueue {
  private readonly waiting: { readonly id: string; readonly run: () => Promise<void> }[] = [];
  private running: Promise<void> | null = null;

  constructor(private readonly log: Logger) {}

  add(id: string, run: () => Promise<void>): void {
    this.waiting.push({ id, run });
    this.running ??= this.work();
  }

  /** Resolves when nothing waits or runs. */
  async idle(): Promise<void> {
    while (this.running !== null) await this.running;
  }

  private async work(): Promise<void> {
    for (let job = this.waiting.shift(); job !== undefined; job = this.waiting.shift()) {
      try {
        await job.run();
      } catch (error) {
        this.log.error({ error, check: job.id }, 'a check ended early');
      }
    }
    this.running = null;
  }
}
