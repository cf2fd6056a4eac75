/** A real installation: configuration by environment, one line on what is wrong, an orderly end. */
import { codeOf } from '@nesting/core/change';
import { buildPaths } from './build-paths';
import { configOf, Misconfigured } from './config';
import { isAway } from './db/client';
import { DatabaseNewer } from './db/migrate';
import { firstLink } from './flows/people/access';
import { openLog } from './log';
import { openWorld, startServer } from './serve';

async function main(): Promise<void> {
  const log = openLog(process.env.NESTING_LOG ?? 'info');
  const config = configOf(process.env, buildPaths(import.meta.url));
  const world = await openWorld(config, log);
  const running = await startServer(world, log);
  const first = await firstLink(world);
  if (first !== null)
    process.stdout.write(
      `Nobody coordinates yet. Whoever opens this link within a day becomes the first coordinator:\n${first}\n`,
    );
  log.info(`Nesting is at ${config.publicUrl}`);
  let ending = false;
  const end = () => {
    if (ending) return;
    ending = true;
    void running.stop().then(() => process.exit(0));
  };
  process.on('SIGINT', end);
  process.on('SIGTERM', end);
}

/** One line for what can be put right outside the program; everything else keeps its trace. */
function lastWords(error: unknown): string {
  if (error instanceof Misconfigured || error instanceof DatabaseNewer) return error.message;
  if (isAway(error)) return `the database cannot be reached (${codeOf(error)}): look at NESTING_DATABASE`;
  if (codeOf(error) === 'EADDRINUSE') return 'this port is taken: set NESTING_PORT to another';
  return error instanceof Error ? (error.stack ?? error.message) : String(error);
}

main().catch((error: unknown) => {
  process.stderr.write(`nesting: ${lastWords(error)}\n`);
  process.exit(1);
});
