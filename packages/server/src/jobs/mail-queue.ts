/**
 * Sends what waits in the outbox: by SMTP where that is configured; in a demo mails stay in the outbox and are read
 * there.
 */
import { codeOf } from '@nesting/core/change';
import nodemailer from 'nodemailer';
import type PgBoss from 'pg-boss';
import type { Logger } from 'pino';
import { type Client, type Db, transaction } from '../db/client';
import { freshMails, insertMail, lockMail, MOST_TRIES, type NewMail, settleMail } from '../db/queries/house/mails';
import { JobQueue } from './job-queue';

export interface Mailing {
  readonly smtp: string;
  readonly from: string;
}

const MAILS = { name: 'mail', pollSeconds: 5, expireInHours: 1, retries: MOST_TRIES - 1, retrySeconds: 30, atOnce: 1 };

export class MailQueue {
  private readonly queue: JobQueue;
  private readonly transport: ReturnType<typeof nodemailer.createTransport> | null;

  /**
   * Without a mail server mails stay readable in the outbox: a demo's. Elsewhere none is written then, and links are
   * handed over.
   */
  constructor(
    private readonly db: Db,
    private readonly mailing: Mailing | null,
    boss: PgBoss,
    log: Logger,
  ) {
    this.transport = mailing === null ? null : nodemailer.createTransport(mailing.smtp);
    this.queue = new JobQueue(db, boss, MAILS, log);
  }

  /** Mails of an earlier program wait without a job: they are given one. */
  async start(): Promise<void> {
    await this.queue.start((id) => this.send(id));
    for (const id of await freshMails(this.db)) await this.queue.add(id);
  }

  /** Written in the transaction that gives rise to it: it goes out when that has ended, and only then. */
  async write(client: Client, mail: NewMail): Promise<void> {
    await this.queue.add(await insertMail(client, mail), client);
  }

  /** After a transaction in which mails were written: they need not wait for the clock. */
  wake(): void {
    this.queue.wake();
  }

  /** Resolves when everything that could be sent by now was. */
  idle(): Promise<void> {
    return this.queue.idle();
  }

  close(): void {
    this.transport?.close();
  }

  /** Throws where it is to be tried again. */
  private async send(id: string): Promise<void> {
    const again = await transaction(this.db, (client) => this.sendLocked(client, id));
    if (again !== null) throw again;
  }

  private async sendLocked(client: Client, id: string): Promise<unknown> {
    const mail = await lockMail(client, id);
    if (mail === null) return null;
    if (this.transport === null || this.mailing === null) {
      await settleMail(client, id, { state: 'kept' });
      return null;
    }
    try {
      const { recipient: to, subject, body: text } = mail;
      await this.transport.sendMail({ from: this.mailing.from, to, subject, text });
      await settleMail(client, id, { state: 'sent' });
      return null;
    } catch (error) {
      const said = error instanceof Error ? error.message : codeOf(error);
      await settleMail(client, id, { state: 'failed', said });
      return error;
    }
  }
}
