/** Whether a card may be erased: what of a heap was brought, and in how many places it still stands. */
import type { HeapCopiesTold, HeapPlace } from '@nesting/contract';
import { HOME } from '@nesting/core/change';
import type { HeapCopy } from '@nesting/core/planners';
import type { JournalPage } from '@nesting/disk';
import { batchRoots, intakesFrom, type StoredBatch } from '../../db/queries/batches/batches';
import { readProject } from '../../db/queries/projects/projects';
import { untilAskerLeaves } from '../../request-context';
import { whereOfBatch } from '../batches/batch-page';
import { neighbourRoot, whereOfRoots } from '../batches/roots';
import { compileRules, mountsOf } from '../checks/check-project';
import { whereOf } from '../place';
import type { World } from '../world';
import { heapWhere } from './intake-project';

/** Changes that are looked through: the same card is not brought oftener. */
const MOST_BATCHES = 20;

/** By what their journals proved, and by what lies there now. */
export async function readHeapCopies(world: World, id: string, place: HeapPlace): Promise<HeapCopiesTold> {
  const heap = await heapWhere(world, place);
  const batches = await intakesFrom(world.db, place, MOST_BATCHES);
  const places: Awaited<ReturnType<typeof placesOf>> = [];
  // One after another: journals may be long, and others look at the disks too.
  for (const batch of batches) places.push(...(await placesOf(world, batch, place)));
  const { input } = await compileRules(world, id);
  const asked = { where: heap, rules: input, places };
  const found = places.length === 0 ? null : await world.disks.run('copiesOfHeap', asked, untilAskerLeaves());
  const [last] = batches;
  return {
    copies: found,
    last: last === undefined ? null : { at: last.endedAt ?? last.at, by: last.by },
  };
}

async function placesOf(world: World, batch: StoredBatch, heap: HeapPlace) {
  const project = await readProject(world.db, batch.project);
  const where = project === null ? null : await whereOfBatch(world, project.volume, batch);
  if (project === null || where === null) return [];
  const roots = await batchRoots(world.db, batch.id);
  const others = whereOfRoots(world, roots);
  const journal = await world.disks.run(
    'journalPage',
    { where, others, id: batch.id, withUndo: false },
    untilAskerLeaves(),
  );
  if (journal === null) return [];
  const from = neighbourRoot(heap);
  const own = { volume: project.volume, where, mounts: await mountsOf(world, project) };
  const doubles = roots.flatMap(({ root, volume, folder }) => {
    const at = whereOf(world, { volume, folder });
    return at === null || root === from ? [] : [{ root, place: { volume, where: at, mounts: [] } }];
  });
  return [{ root: HOME as string, place: own }, ...doubles].map(({ root, place }) => ({
    ...place,
    copies: copiesIn(journal, from, root),
  }));
}

/** What it copied from the heap to a root, and nobody took back. */
const copiesIn = ({ changes, undone, proved }: JournalPage, from: string, to: string): HeapCopy[] =>
  changes.flatMap(({ id, after, content }) => {
    const sha256 = Object.hasOwn(proved, id) ? proved[id] : undefined;
    if (content?.kind !== 'copy' || content.from.root !== from || after?.root !== to) return [];
    if (sha256 === undefined || content.expects === undefined || undone.has(id)) return [];
    return [{ path: content.from.path, ...content.expects, to: after.path, sha256 }];
  });
