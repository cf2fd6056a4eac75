/** What came back is held against what was sent. */
import type { CameBack } from '@nesting/contract';
import { RETURNED } from '@nesting/core/package';
import { readPackageJob } from '../../db/queries/projects/packages';
import { untilAskerLeaves } from '../../request-context';
import { projectWhere } from '../place';
import { Refused, type World } from '../world';
import { pathOf } from './trouble';

/** Rows that are told at once, and places that could not be read. */
const MOST_ROWS = 5000;
const MOST_UNSEEN = 200;

export async function compareReturned(
  world: World,
  id: string,
  { volume, folder }: { readonly volume: string; readonly folder: string },
): Promise<CameBack> {
  const job = await readPackageJob(world.db, id);
  if (job === null) throw new Refused('no-package');
  if (job.state !== 'done') throw new Refused('package-not-done');
  const where = await projectWhere(world, { volume: job.volume, folder: '' });
  const back = await projectWhere(world, { volume, folder });
  const task = { where, path: pathOf(job), back };
  const found = await world.disks.run('compareReturned', task, untilAskerLeaves());
  if (found === null) throw new Refused('package-not-whole');
  const counts = Object.fromEntries(
    RETURNED.map((state) => [state, found.rows.filter((row) => row.state === state).length]),
  ) as CameBack['counts'];
  return { rows: found.rows.slice(0, MOST_ROWS), counts, unseen: found.unseen.slice(0, MOST_UNSEEN) };
}
