/**
 * A process that does checks and nothing else: one by its id, or whatever comes until it is ended. For other machines
 * that see the same volumes.
 */
import { pino } from 'pino';
import { buildPaths } from './build-paths';
import { configOf } from './config';
import { runCheck } from './flows/checks/check-project';
import { closeWorld, openWorld } from './serve';

async function main(): Promise<void> {
  const log = pino({ level: process.env.NESTING_LOG ?? 'info' });
  const [only] = process.argv.slice(2);
  const config = configOf(process.env, buildPaths(import.meta.url));
  const world = await openWorld({ ...config, worksChecks: only === undefined }, log);
  process.stdout.write('Ready for checks.\n');
  if (only !== undefined) {
    await runCheck(world, only);
    await closeWorld(world);
    return;
  }
  const end = () => void closeWorld(world).then(() => process.exit(0));
  process.on('SIGINT', end);
  process.on('SIGTERM', end);
}

main().catch((error: unknown) => {
  process.stderr.write(`nesting: ${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
});
