/**
 * Documents that still name the project they were carried over from, or the places that a change moved things away
 * from: a list that gets shorter as they are saved anew.
 */
import { movedBy } from '@nesting/core/planners';
import type { Mention } from '@nesting/disk';
import type { StoredBatch } from '../../db/queries/batches/batches';
import { readProject } from '../../db/queries/projects/projects';
import { untilAskerLeaves } from '../../request-context';
import { found, whereOfBatch } from '../batches/batch-page';
import type { Project } from '../batches/prepared';
import { othersOf } from '../batches/roots';
import { compileRules, wholePathsOf } from '../checks/check-project';
import { Refused, type World } from '../world';

const MOST_TOLD = 1000;

/** None where the batch moved nothing, or its journal is gone. */
export async function listMentions(world: World, id: string, batchId: string): Promise<readonly Mention[]> {
  const { batch, row } = await found(world, id, batchId);
  const mentions = isCarriedOver(batch) ? await ofOldProject(world, batch, row) : await ofOldPlaces(world, batch, row);
  return mentions.slice(0, MOST_TOLD);
}

const isCarriedOver = ({ job: { asked } }: Pick<StoredBatch, 'job'>): boolean =>
  asked?.kind === 'carry' && asked.asked.revision === null;

async function journalOf(world: World, batch: StoredBatch, { volume }: Project) {
  const where = await whereOfBatch(world, volume, batch);
  const others = await othersOf(world, batch.id);
  return where === null
    ? null
    : world.disks.run('journalPage', { where, others, id: batch.id, withUndo: false }, untilAskerLeaves());
}

async function ofOldProject(world: World, batch: StoredBatch, row: Project): Promise<readonly Mention[]> {
  const { asked } = batch.job;
  const source = asked?.kind === 'carry' ? await readProject(world.db, asked.asked.source) : null;
  if (source === null) throw new Refused('no-project');
  const { where, mounts, input, roots } = await compileRules(world, batch.project);
  const journal = await journalOf(world, batch, row);
  const copied = new Map(
    (journal?.changes ?? []).flatMap(({ after, content }) =>
      content?.kind === 'copy' && after !== null ? [[content.from.path, after.path] as const] : [],
    ),
  );
  const { roots: before } = await wholePathsOf(world, source);
  const task = { where, mounts, rules: input, roots: { source: before, target: roots }, copied };
  return world.disks.run('mentions', task, untilAskerLeaves());
}

/** Lines that were taken back are where they were. */
async function ofOldPlaces(world: World, batch: StoredBatch, row: Project): Promise<readonly Mention[]> {
  const journal = batch.state === 'done' ? await journalOf(world, batch, row) : null;
  const moved = movedBy((journal?.changes ?? []).filter(({ id }) => journal?.undone.has(id) === false));
  if (moved.length === 0) return [];
  const { where, mounts, input, roots } = await compileRules(world, batch.project);
  return world.disks.run('oldPlaces', { where, mounts, rules: input, roots, moved }, untilAskerLeaves());
}
