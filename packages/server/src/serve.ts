/** Puts the server together: database, migrations, what a crash left, the application, the address it listens at. */
import { readFileSync } from 'node:fs';
import { createServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import { serve } from '@hono/node-server';
import { Disks } from '@nesting/disk';
import type { Logger } from 'pino';
import type { Config } from './config';
import { type Db, openDb } from './db/client';
import { migrate } from './db/migrate';
import { recountEnded } from './db/queries/checks/findings';
import { runBatch, wakeBatches } from './flows/batches/run-batch';
import { sweepBatches } from './flows/batches/sweep';
import { runCheck, takeOverSilentChecks } from './flows/checks/check-project';
import { runPackage, wakePackages } from './flows/packages/run-package';
import { beginDueRepairs } from './flows/projects/later-repair';
import { settleStarts } from './flows/projects/start-project';
import { sweepUploads } from './flows/projects/uploads';
import type { World } from './flows/world';
import { makeApp } from './http/app';
import { ChangePoller } from './jobs/change-poller';
import { Endings } from './jobs/endings';
import { BATCHES, CHECKS, JobQueue, openBoss, PACKAGES } from './jobs/job-queue';
import { Leases } from './jobs/leases';
import { MailQueue } from './jobs/mail-queue';
import { QueueDb } from './jobs/queue-db';
import { VolumeIdentities } from './jobs/volume-identities';
import { makeAuth } from './sign-in/auth';

export interface Running {
  readonly world: World;
  readonly port: number;
  stop(): Promise<void>;
}

export async function openWorld(config: Config, log: Logger): Promise<World> {
  const db: Db = openDb(config.databaseUrl);
  await migrate(db, config.databaseUrl, config.migrations);
  const queueDb = new QueueDb(config.databaseUrl);
  const boss = openBoss(queueDb, log);
  const world: World = {
    config,
    db,
    disks: new Disks(config.diskProgram),
    boss,
    queueDb,
    checks: new JobQueue(db, boss, CHECKS, log),
    batches: new JobQueue(db, boss, BATCHES, log),
    packages: new JobQueue(db, boss, PACKAGES, log),
    endings: new Endings(),
    changePoller: new ChangePoller(),
    mails: new MailQueue(db, config.mail, boss, log),
    identities: new VolumeIdentities(db),
    leases: new Leases(config.databaseUrl, config.leaseMs),
  };
  await world.identities.refresh();
  await boss.start();
  await world.checks.start(config.worksChecks ? (id) => runCheck(world, id) : null);
  await world.mails.start();
  return world;
}

/** Milliseconds between two looks at what is due. */
const TICK = 15_000;

/** Starts and batches that nobody is at any more: a crash, or a database that went away, left them. */
export async function settleLost(world: World): Promise<void> {
  await settleStarts(world);
  await wakeBatches(world);
}

/**
 * Looks now and then whether a project's time has come, an exception has ended, a worker fell silent, or something was
 * left half done. First when the server answers: nothing is settled by one that does not.
 */
function startTicking(world: World, log: Logger): NodeJS.Timeout {
  const look = () =>
    void world.identities
      .refresh()
      .then(() => settleLost(world))
      .then(() => takeOverSilentChecks(world))
      .then(() => sweepBatches(world, Date.now()))
      .then(() => sweepUploads(world))
      .then(() => wakePackages(world))
      .then(() => recountEnded(world.db))
      .catch((error: unknown) => log.warn({ error }, 'what is due was not looked at'));
  // What it does may take a while, and hold up nothing.
  const begin = () =>
    void beginDueRepairs(world).catch((error: unknown) => log.warn({ error }, 'what was to begin was not begun'));
  const both = () => {
    look();
    begin();
  };
  both();
  return setInterval(both, TICK).unref();
}

/** Everything put down in order: jobs under way end, what waits stays in the queue, the database is let go. */
export async function closeWorld(world: World): Promise<void> {
  await world.boss.stop({ graceful: true, wait: true, timeout: 30_000 });
  world.mails.close();
  // Work on disks ends before it is waited for: a walk may take minutes.
  world.leases.letGo();
  await world.disks.close();
  await world.leases.close();
  await world.queueDb.close();
  await world.db.end();
}

/** Only by a server that answers: nothing on a disk is begun or settled by one that does not. */
export async function workBatches(world: World): Promise<void> {
  const { worksBatches } = world.config;
  await world.batches.start(worksBatches ? (id) => runBatch(world, id) : null);
  await world.packages.start(worksBatches ? (id) => runPackage(world, id) : null);
}

export async function startServer(world: World, log: Logger): Promise<Running> {
  const { config } = world;
  const app = makeApp(world, makeAuth(world.db, config), log);
  const tls =
    config.tls === null
      ? {}
      : { createServer, serverOptions: { cert: readFileSync(config.tls.cert), key: readFileSync(config.tls.key) } };
  const server = await new Promise<ReturnType<typeof serve>>((resolve, reject) => {
    const made = serve({ fetch: app.fetch, hostname: config.host, port: config.port, ...tls }, () => resolve(made));
    made.once('error', reject);
  });
  await workBatches(world);
  const ticking = startTicking(world, log);
  return {
    world,
    port: (server.address() as AddressInfo).port,
    stop: async () => {
      await new Promise<void>((resolve) => {
        server.close(() => resolve());
        if ('closeAllConnections' in server) server.closeAllConnections();
      });
      clearInterval(ticking);
      await closeWorld(world);
    },
  };
}
