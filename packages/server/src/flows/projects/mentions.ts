/** Documents that still name the project they were carried over from: a list that gets shorter as they are saved anew. */

import type { Mention } from '@nesting/disk';
import { readProject } from '../../db/queries/projects/projects';
import { untilAskerLeaves } from '../../request-context';
import { found, whereOfBatch } from '../batches/batch-page';
import { othersOf } from '../batches/roots';
import { compileRules, wholePathsOf } from '../checks/check-project';
import { Refused, type World } from '../world';

const MOST_TOLD = 1000;

/** None where the batch carried nothing over, or its journal is gone. */
export async function listMentions(world: World, id: string, batchId: string): Promise<readonly Mention[]> {
  const { batch, row } = await found(world, id, batchId);
  const { asked } = batch.job;
  if (asked?.kind !== 'carry' || asked.asked.revision !== null) return [];
  const source = await readProject(world.db, asked.asked.source);
  if (source === null) throw new Refused('no-project');
  const { where, mounts, input, roots } = await compileRules(world, id);
  const at = await whereOfBatch(world, row.volume, batch);
  const others = await othersOf(world, batchId);
  const journal =
    at === null ? null : await world.disks.run('journalPage', { where: at, others, id: batchId }, untilAskerLeaves());
  const copied = new Map(
    (journal?.changes ?? []).flatMap(({ after, content }) =>
      content?.kind === 'copy' && after !== null ? [[content.from.path, after.path] as const] : [],
    ),
  );
  const { roots: before } = await wholePathsOf(world, source);
  const task = { where, mounts, rules: input, roots: { source: before, target: roots }, copied };
  return (await world.disks.run('mentions', task, untilAskerLeaves())).slice(0, MOST_TOLD);
}
