/** Lists of checksums beside what was brought in: a change of its own after the one that brought it, undone with it. */
import type { BatchAsked, ProjectShape } from '@nesting/contract';
import type { Change } from '@nesting/core/change';
import { checksumLists } from '@nesting/core/planners';
import { ProjectRules } from '@nesting/core/project';
import type { Where } from '@nesting/disk';
import { readBatchRow } from '../../db/queries/batches/batches';
import { readProject, readShape } from '../../db/queries/projects/projects';
import type { Prepared } from '../batches/prepared';
import { reached } from '../place';
import { Refused, type World } from '../world';
import { rulesInput } from './project-rules';
import { liveFolder } from './reshape-project';

interface ToList {
  readonly project: string;
  /** The batch that brought it. */
  readonly batch: string;
  readonly where: Where;
  readonly shape: ProjectShape;
}

async function listsOf(world: World, { project, batch, where, shape }: ToList): Promise<readonly Change[]> {
  const row = await readProject(world.db, project);
  const brought = await readBatchRow(world.db, project, batch);
  const journal = await world.disks.run('journalPage', { where, others: [], id: batch, withUndo: false });
  if (row === null || brought === null || journal === null) return [];
  const rules = new ProjectRules(await rulesInput(world.db, shape, row.own));
  return checksumLists(rules, { changes: journal.changes, proved: journal.proved, at: brought.at });
}

/** Whether the template asks for a list of what a batch brought, by the shape that the project has then. */
export async function asksForLists(
  world: World,
  { volume, ...to }: Omit<ToList, 'where'> & { readonly volume: string },
): Promise<boolean> {
  const row = await readProject(world.db, to.project);
  // Most templates ask for none: then no journal is read.
  if (row === null || !JSON.stringify(row.body).includes('"checksums":true')) return false;
  const where = await reached(world, { volume, folder: to.shape.folder });
  // What cannot be read just now asks for nothing: what was brought is there all the same.
  return where !== null && (await listsOf(world, { ...to, where }).catch(() => [])).length > 0;
}

type ListsAsked = Extract<BatchAsked, { kind: 'checksums' }>;

export async function prepareChecksums(world: World, id: string, { batch }: ListsAsked): Promise<Prepared> {
  const project = await readProject(world.db, id);
  const shape = await readShape(world.db, id);
  if (project === null || shape === null) throw new Refused('no-project');
  const where = await liveFolder(world, project);
  const changes = await listsOf(world, { project: id, batch, where, shape });
  if (changes.length === 0) throw new Refused('nothing-to-bring');
  return { project, where, what: 'checksums', from: shape, to: shape, changes, contents: new Map() };
}
