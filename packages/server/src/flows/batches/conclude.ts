/** The disk is done: the project's folder has its name, and its row takes its shape. */
import { randomUUID } from 'node:crypto';
import type { BatchAsked, ProjectShape } from '@nesting/contract';
import { type Change, HOME, isShown } from '@nesting/core/change';
import { told } from '@nesting/core/words';
import { type Client, transaction } from '../../db/client';
import { endBatch, insertBatch, readBatchJob } from '../../db/queries/batches/batches';
import { type ActivityCode, recordActivity } from '../../db/queries/house/activity';
import { recordFormerNames } from '../../db/queries/projects/former-names';
import { noteBrought } from '../../db/queries/projects/intakes';
import { type PlacedProject, projectsIn, readProjectRow, writeShape } from '../../db/queries/projects/projects';
import { checkChanged } from '../checks/check-project';
import { renumber } from '../house/numbers';
import { whereOf } from '../place';
import { asksForLists } from '../projects/checksums';
import { takeProposal } from '../projects/proposals';
import type { World } from '../world';
import { neighbourRoot, neighboursIn } from './roots';
import { noteKept } from './set-aside';

interface ToConclude {
  readonly id: string;
  readonly project: string;
  readonly what: string;
  readonly from: ProjectShape;
  readonly to: ProjectShape;
  readonly person: string | null;
  readonly undoes: string | null;
  /** What it changed on the disk. */
  readonly changes: readonly Change[];
}

interface Hindrance {
  readonly system: string;
  readonly path: string;
}

/** Paused where the folder cannot have its name. */
export async function conclude(world: World, batch: ToConclude, volume: string): Promise<void> {
  const { id, project, what, from, to, person, undoes, changes } = batch;
  const shown = changes.filter(isShown).length;
  const neighbours = await projectsIn(world.db, neighboursIn(changes));
  const hindered = from.folder === to.folder ? null : await renameFolder(world, volume, from.folder, to.folder);
  if (hindered !== null) {
    return endBatch(world.db, id, { state: 'paused', changes: shown, because: told('name-left', hindered) });
  }
  const isListed = what === 'intake' && (await asksForLists(world, { project, batch: id, volume, shape: to }));
  await transaction(world.db, async (client) => {
    await writeShape(client, project, to);
    const [was, now] = [String(from.values.number), String(to.values.number)];
    if (was !== now) await renumber(client, { project, person, volume, folder: from.folder, was, now });
    await endBatch(client, id, { state: 'done', changes: shown });
    await recordFormerNames(client, { project, batch: id, undoes }, changes);
    const asked = (await readBatchJob(client, id))?.job.asked;
    if (asked?.kind === 'repair' && asked.proposal !== undefined)
      await takeProposal(world, client, asked.proposal, { batch: id, by: person });
    const folder = from.folder === to.folder ? {} : { folder: `${from.folder} → ${to.folder}` };
    const carried = await carriedParams(client, asked, changes);
    if (asked?.kind === 'intake') await noteBrought(client, { project, ...asked.asked });
    const params = { what, changes: shown, batch: id, ...folder, ...carried };
    await recordActivity(client, actOf(what, undoes), person, project, params, `project:${project}`);
    for (const neighbour of neighbours) await recordPassed(client, neighbour, batch);
    if (isListed) await askForLists(world, client, batch);
  });
  world.mails.wake();
  if (isListed) world.batches.wake();
  await noteKept(world, project, id, undoes);
  // Its rules are what they were: only folders that were touched have anything new to say.
  await checkChanged(world, project, person, what === 'repair' ? 'quick' : 'whole');
  for (const { id: neighbour } of neighbours) await checkChanged(world, neighbour, person, 'quick');
}

/** In the transaction that ends what brought it: neither is there without the other. */
async function askForLists(world: World, client: Client, { id, project, person, to }: ToConclude): Promise<void> {
  if (person === null) return;
  const lists = randomUUID();
  await insertBatch(client, {
    ...{ id: lists, project, what: 'checksums', person, undoes: null, shape: to },
    asked: { kind: 'checksums', batch: id },
  });
  await world.batches.add(lists, client);
}

function actOf(what: string, undoes: string | null): ActivityCode {
  if (undoes !== null) return 'batch-undone';
  if (what === 'carry') return 'files-carried';
  if (what === 'intake') return 'files-brought';
  if (what === 'checksums') return 'checksums-laid';
  return what === 'repair' ? 'project-repaired' : 'project-reshaped';
}

/** Of files that came from elsewhere: how many, and from where. */
async function carriedParams(client: Client, asked: BatchAsked | null | undefined, changes: readonly Change[]) {
  if (asked?.kind !== 'carry' && asked?.kind !== 'intake') return {};
  const files = changes.filter(
    ({ entry, before, after }) => entry === 'file' && before?.root !== HOME && after?.root === HOME,
  ).length;
  if (asked.kind === 'intake') return { files, from: asked.asked.folder || asked.asked.volume };
  const { source, revision } = asked.asked;
  const from = revision === null ? await readProjectRow(client, source) : null;
  return {
    files,
    number: from?.number ?? '',
    revision: revision === null ? '' : (revision.now ?? 'the next revision'),
  };
}

/** Files that came from this project, or went back to it, stand in the activity of the other one as well. */
function recordPassed(
  client: Client,
  neighbour: PlacedProject,
  { id, project, person, from, undoes, changes }: ToConclude,
) {
  const root = neighbourRoot(neighbour);
  const passed = changes.filter((c) => c.entry === 'file' && neighboursIn([c])[0]?.root === root).length;
  const params = { number: String(from.values.number ?? ''), files: passed, batch: id };
  const act = undoes === null ? 'files-arrived' : 'files-went-back';
  return recordActivity(client, act, person, neighbour.id, params, `project:${project}`);
}

/** Batches of the first form left that to this. Why not, or `null`; what has the name already is done. */
async function renameFolder(world: World, volume: string, from: string, to: string): Promise<Hindrance | null> {
  const where = whereOf(world, { volume, folder: '' });
  if (where === null) return { system: 'ENOENT', path: from };
  const renamed = await world.disks.run('renameFolder', { where, from, to });
  return renamed === 'done' || renamed === 'already' ? null : { system: renamed.code, path: renamed.path };
}
