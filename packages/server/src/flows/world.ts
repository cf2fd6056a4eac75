/** What every flow works with. `flows/` is the one place where core, database and disk meet. */
import type { Disks } from '@nesting/disk';
import type PgBoss from 'pg-boss';
import type { Config } from '../config';
import type { Db } from '../db/client';
import type { ChangePoller } from '../jobs/change-poller';
import type { Endings } from '../jobs/endings';
import type { JobQueue } from '../jobs/job-queue';
import type { Leases } from '../jobs/leases';
import type { MailQueue } from '../jobs/mail-queue';
import type { QueueDb } from '../jobs/queue-db';
import type { VolumeIdentities } from '../jobs/volume-identities';

export interface World {
  /** All work on disks, in processes of its own. */
  readonly disks: Disks;
  readonly config: Config;
  readonly db: Db;
  /** Jobs of every kind are kept there. */
  readonly boss: PgBoss;
  readonly queueDb: QueueDb;
  readonly checks: JobQueue;
  readonly batches: JobQueue;
  /** Batches that end in this process. */
  readonly endings: Endings;
  readonly changePoller: ChangePoller;
  readonly mails: MailQueue;
  /** Starts and batches that this server is at. */
  readonly leases: Leases;
  readonly identities: VolumeIdentities;
}

/** What is said where the database went away in the middle of something: nothing that is not known. */
export const notKnown = (): Refused =>
  new Refused(
    503,
    'not-known',
    'The database went away while this was done. Whether it was done is being found out, and settles by itself once the database is back. Asking again is safe: the same request is never done twice.',
  );

/**
 * Something the server does not do: what happened, what was not done, what to do. Carries the HTTP status it is told
 * with.
 */
export class Refused extends Error {
  constructor(
    readonly status: RefusedStatus,
    readonly code: string,
    message: string,
  ) {
    super(message);
  }

  /** As it is kept until who asked is told. */
  get told(): Told {
    const { status, code, message } = this;
    return { status, code, message };
  }
}

const STATUSES = [400, 401, 403, 404, 409, 410, 422, 429, 503, 507] as const;
type RefusedStatus = (typeof STATUSES)[number];

interface Told {
  readonly status: number;
  readonly code: string;
  readonly message: string;
}

export const refusedWith = ({ status, code, message }: Told): Refused =>
  new Refused(STATUSES.find((one) => one === status) ?? 409, code, message);
