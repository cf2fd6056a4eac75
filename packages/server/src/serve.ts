/** Puts the server together: database, migrations, what a crash left, the application, the address it listens at. */
import { readFileSync } from 'node:fs';
import { createServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import { serve } from '@hono/node-server';
import type { Logger } from 'pino';
import type { Config } from './config';
import { type Db, openDb } from './db/client';
import { migrate } from './db/migrate';
import { failOpenChecks } from './db/queries/checks';
import { settleBatches } from './flows/batches';
import { settleStarts } from './flows/start-project';
import type { World } from './flows/world';
import { makeApp } from './http/app';
import { CheckQueue } from './jobs/check-queue';
import { MailQueue } from './jobs/mail-queue';
import { makeAuth } from './sign-in/auth';

export interface Running {
  readonly world: World;
  readonly port: number;
  stop(): Promise<void>;
}

export async function openWorld(config: Config, log: Logger): Promise<World> {
  const db: Db = openDb(config.databaseUrl);
  await migrate(db, config.databaseUrl, config.migrations);
  const world: World = { config, db, checks: new CheckQueue(log), mails: new MailQueue(db, config.mail, log) };
  await failOpenChecks(db, 'The server stopped while this check ran. Check again.');
  await settleStarts(world);
  await settleBatches(world);
  return world;
}

export async function startServer(world: World, log: Logger): Promise<Running> {
  const { config } = world;
  world.mails.start();
  const app = makeApp(world, makeAuth(world.db, config), log);
  const tls = config.tls === null ? {} : { createServer, serverOptions: { cert: readFileSync(config.tls.cert), key: readFileSync(config.tls.key) } };
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
      await world.checks.idle();
      await world.mails.stop();
      await world.db.end();
    },
  };
}
