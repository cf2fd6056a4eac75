/**
 * Sends what waits in the outbox: by SMTP where that is configured; in a demo mails stay in the outbox and are read
 * there.
 */
import { codeOf } from '@nesting/core/change';
import nodemailer from 'nodemailer';
import type { Logger } from 'pino';
import { type Db, transaction } from '../db/client';
import { nextMail, settleMail } from '../db/queries/house/mails';

export interface Mailing {
  readonly smtp: string;
  readonly from: string;
}

const AGAIN_MS = 30_000;

export class MailQueue {
  private running: Promise<void> = Promise.resolve();
  private timer: NodeJS.Timeout | null = null;
  private readonly transport: ReturnType<typeof nodemailer.createTransport> | null;

  /**
   * Without a mail server mails stay readable in the outbox: a demo's. Elsewhere none is written then, and links are
   * handed over.
   */
  constructor(
    private readonly db: Db,
    private readonly mailing: Mailing | null,
    private readonly log: Logger,
  ) {
    this.transport = mailing === null ? null : nodemailer.createTransport(mailing.smtp);
  }

  /** Looks at what waits now, and again from time to time while something does. */
  wake(): void {
    this.running = this.running
      .then(() => this.drain())
      .catch((error: unknown) => this.log.error({ error }, 'mails were not sent'));
  }

  start(): void {
    this.wake();
    this.timer = setInterval(() => this.wake(), AGAIN_MS);
    this.timer.unref();
  }

  /** Resolves when everything that could be sent by now was. */
  idle(): Promise<void> {
    return this.running;
  }

  async stop(): Promise<void> {
    if (this.timer !== null) clearInterval(this.timer);
    await this.running;
    this.transport?.close();
  }

  private async drain(): Promise<void> {
    while (await this.sendOne());
  }

  private async sendOne(): Promise<boolean> {
    return transaction(this.db, async (client) => {
      const mail = await nextMail(client);
      if (mail === null) return false;
      if (this.transport === null || this.mailing === null) {
        await settleMail(client, mail.id, { state: 'kept' });
        return true;
      }
      try {
        await this.transport.sendMail({
          from: this.mailing.from,
          to: mail.recipient,
          subject: mail.subject,
          text: mail.body,
        });
        await settleMail(client, mail.id, { state: 'sent' });
      } catch (error) {
        this.log.warn({ mail: mail.id, code: codeOf(error) }, 'a mail was not sent');
        await settleMail(client, mail.id, {
          state: 'failed',
          said: error instanceof Error ? error.message : codeOf(error),
        });
      }
      return true;
    });
  }
}
