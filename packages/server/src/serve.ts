/** Puts the server together: database, migrations, what a crash left, the application, the address it listens at. */
import { readFileSync } from 'node:fs';
import { createServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import { serve } from '@hono/node-server';
import { DiskReads } from '@nesting/disk';
import type { Logger } from 'pino';
import type { Config } from './config';
import { type Db, openDb } from './db/client';
import { migrate } from './db/migrate';
import { recountEnded } from './db/queries/checks/findings';
import { runCheck, takeOverSilentChecks } from './flows/checks/check-project';
import { settleBatches } from './flows/projects/settle-batch';
import { settleStarts } from './flows/projects/start-project';
import type { World } from './flows/world';
import { makeApp } from './http/app';
import { ChangePoller } from './jobs/change-poller';
import { CHECKS, JobQueue, openBoss } from './jobs/job-queue';
import { MailQueue } from './jobs/mail-queue';
import { makeAuth } from './sign-in/auth';

export interface Running {
  readonly world: World;
  readonly port: number;
  stop(): Promise<void>;
}

/** `settling` takes up what a crash of this very server left: not for one of several workers. */
export async function openWorld(config: Config, log: Logger, settling = true): Promise<World> {
  const db: Db = openDb(config.databaseUrl);
  await migrate(db, config.databaseUrl, config.migrations);
  const boss = openBoss(config.databaseUrl, log);
  const world: World = {
    config,
    db,
    reads: new DiskReads(config.readWorker),
    boss,
    checks: new JobQueue(db, boss, CHECKS, log),
    changePoller: new ChangePoller(),
    mails: new MailQueue(db, config.mail, boss, log),
  };
  await boss.start();
  await world.checks.start(config.worksChecks ? (id) => runCheck(world, id) : null);
  await world.mails.start();
  if (settling) {
    await settleStarts(world);
    await settleBatches(world);
  }
  return world;
}

/** Milliseconds between two looks at what is due. */
const TICK = 15_000;

/** Looks now and then whether a project's time has come, an exception has ended, or a worker fell silent. */
function startTicking(world: World, log: Logger): NodeJS.Timeout {
  const look = () =>
    void takeOverSilentChecks(world)
      .then(() => recountEnded(world.db))
      .catch((error: unknown) => log.warn({ error }, 'what is due was not looked at'));
  look();
  return setInterval(look, TICK).unref();
}

/** Everything put down in order: jobs under way end, what waits stays in the queue, the database is let go. */
export async function closeWorld(world: World): Promise<void> {
  await world.boss.stop({ graceful: true, wait: true, timeout: 30_000 });
  world.mails.close();
  await world.reads.close();
  await world.db.end();
}

export async function startServer(world: World, log: Logger): Promise<Running> {
  const { config } = world;
  const ticking = startTicking(world, log);
  const app = makeApp(world, makeAuth(world.db, config), log);
  const tls =
    config.tls === null
      ? {}
      : { createServer, serverOptions: { cert: readFileSync(config.tls.cert), key: readFileSync(config.tls.key) } };
  const server = await new Promise<ReturnType<typeof serve>>((resolve, reject) => {
    const made = serve({ fetch: app.fetch, hostname: config.host, port: config.port, ...tls }, () => resolve(made));
    made.once('error', reject);
  });
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
