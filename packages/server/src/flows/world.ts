/** What every flow works with. `flows/` is the one place where core, database and disk meet. */
import { type RefusalStatus, statusOf } from '@nesting/contract';
import { type RefusalCode, type RefusalGiven, type RefusalParams, refusalWords, type Told } from '@nesting/core/words';
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
  readonly packages: JobQueue;
  /** Batches that end in this process. */
  readonly endings: Endings;
  readonly changePoller: ChangePoller;
  readonly mails: MailQueue;
  /** Starts and batches that this server is at. */
  readonly leases: Leases;
  readonly identities: VolumeIdentities;
}

/**
 * Something the server does not do: a code, and what its words are made from. Carries the HTTP status it is told with.
 */
export class Refused<C extends RefusalCode = RefusalCode> extends Error {
  readonly params: RefusalParams<C>;

  constructor(
    readonly code: C,
    ...given: RefusalGiven<C>
  ) {
    const params = (given[0] ?? {}) as RefusalParams<C>;
    super(refusalWords(code, params));
    this.params = params;
  }

  get status(): RefusalStatus {
    return statusOf(this.code);
  }

  /** As it is kept until who asked is told. */
  get told(): Told {
    return { code: this.code, params: Object(this.params) as object };
  }
}

/** A refusal that was kept, told at last. */
export const retold = (kept: Told): Refused =>
  kept.message === undefined
    ? new Refused(kept.code as 'not-begun', ...([kept.params] as unknown as []))
    : new Refused('told-before', { sentence: kept.message });

/** What is said where the database went away in the middle of something: nothing that is not known. */
export const notKnown = (): Refused => new Refused('not-known');
