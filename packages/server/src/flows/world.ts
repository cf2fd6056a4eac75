/** What every flow works with. `flows/` is the one place where core, database and disk meet. */
import type { DiskReads } from '@nesting/disk';
import type PgBoss from 'pg-boss';
import type { Config } from '../config';
import type { Db } from '../db/client';
import type { ChangePoller } from '../jobs/change-poller';
import type { JobQueue } from '../jobs/job-queue';
import type { MailQueue } from '../jobs/mail-queue';

export interface World {
  /** Looks at disks beside the thread that answers requests. */
  readonly reads: DiskReads;
  readonly config: Config;
  readonly db: Db;
  /** Jobs of every kind are kept there. */
  readonly boss: PgBoss;
  readonly checks: JobQueue;
  readonly changePoller: ChangePoller;
  readonly mails: MailQueue;
}

/**
 * Something the server does not do: what happened, what was not done, what to do. Carries the HTTP status it is told
 * with.
 */
export class Refused extends Error {
  constructor(
    readonly status: 400 | 401 | 403 | 404 | 409 | 410 | 422 | 429 | 503 | 507,
    readonly code: string,
    message: string,
  ) {
    super(message);
  }
}
