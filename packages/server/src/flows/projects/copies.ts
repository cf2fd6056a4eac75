/**
 * Two folders that say they are one project: side by side, and what becomes of the other one. No file of either is
 * touched.
 */
import { randomUUID } from 'node:crypto';
import type { CopyPlace, ProjectRow, ProjectShape } from '@nesting/contract';
import { parseMarker } from '@nesting/contract';
import type { Sizes, Where } from '@nesting/disk';
import { sqlFault, transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import { leaveCopy } from '../../db/queries/projects/copies';
import {
  insertProject,
  readProject,
  readProjectRow,
  readShape,
  removeUnstarted,
} from '../../db/queries/projects/projects';
import { untilAskerLeaves } from '../../request-context';
import { checkProject } from '../checks/check-project';
import { claimNumber, freeNumber } from '../house/numbers';
import { findProjects } from '../house/volumes';
import { underLease } from '../once';
import { reached } from '../place';
import { notKnown, Refused, type World } from '../world';
import { readyVolume } from './claim-start';
import { rulesInput } from './project-rules';
import { concludeStart } from './start-project';

const EXAMPLES = 8;

export async function compareCopies(world: World, project: string): Promise<CopyPlace[]> {
  const found = (await findProjects(world)).find((f) => f.project === project && f.state === 'copied');
  if (found === undefined) return [];
  const home = await world.disks.run(
    'sizesBelow',
    { where: await folderOf(world, found.was.volume, found.was.folder, project) },
    untilAskerLeaves(),
  );
  const places: CopyPlace[] = [placeOf(found.was, true, home, home)];
  for (const place of found.places) {
    const where = await folderOf(world, place.volume, place.folder, project);
    places.push(placeOf(place, false, await world.disks.run('sizesBelow', { where }, untilAskerLeaves()), home));
  }
  return places;
}

function placeOf(
  { volume, folder }: { readonly volume: string; readonly folder: string },
  home: boolean,
  here: Sizes,
  there: Sizes,
): CopyPlace {
  const only = [...here.sizes.keys()].filter((p) => !there.sizes.has(p));
  const differ = [...here.sizes]
    .filter(([p, size]) => there.sizes.has(p) && there.sizes.get(p) !== size)
    .map(([p]) => p);
  const lacks = [...there.sizes.keys()].filter((p) => !here.sizes.has(p));
  return {
    volume,
    folder,
    home,
    files: here.sizes.size,
    folders: here.folders - 1,
    bytes: here.bytes,
    newest: here.newest === 0 ? null : new Date(here.newest).toISOString(),
    only: only.length,
    differ: differ.length,
    lacks: lacks.length,
    examples: [...only, ...differ].sort().slice(0, EXAMPLES),
  };
}

/** A folder whose marker, looked at once more, says it is this project. */
async function folderOf(world: World, volume: string, folder: string, project: string): Promise<Where> {
  await readyVolume(world, volume);
  const where = await reached(world, { volume, folder });
  const text = where === null ? undefined : (await world.disks.run('marker', { where }))?.marker;
  const marker = text === undefined ? null : parseMarker(text);
  if (where === null || !marker?.ok || marker.value.project !== project)
    throw new Refused('not-there', { folder, volume });
  return where;
}

/** The copy gets a number and a row of its own; its marker follows. Its files keep the names they have. */
export async function ownCopy(
  world: World,
  person: { readonly id: string; readonly name: string },
  project: string,
  volume: string,
  folder: string,
  number: string,
): Promise<ProjectRow> {
  const [row, shape] = [await readProject(world.db, project), await readShape(world.db, project)];
  if (row === null || shape === null) throw new Refused('no-project');
  if (volume === row.volume && folder === row.folder) throw new Refused('is-original');
  const where = await folderOf(world, volume, folder, project);
  const id = randomUUID();
  const own: ProjectShape = { ...shape, values: { ...shape.values, number }, folder };
  const changes = await world.disks.run('ownChanges', {
    where,
    rules: await rulesInput(world.db, own, row.own),
    project: { id, startedAt: new Date().toISOString(), settings: row.settings },
  });
  await underLease(world, id, async ({ lost }) => {
    await claimRow(world, person.id, { id, number, row, shape: own, volume });
    const outcome = await world.disks
      .run(
        'applyBatch',
        {
          where,
          others: [],
          id: randomUUID(),
          what: 'adopt',
          by: person.name,
          at: new Date().toISOString(),
          undoes: null,
          changes,
          contents: new Map(),
        },
        { lost },
      )
      .catch(() => null);
    if (lost.aborted) throw notKnown();
    if (outcome?.state !== 'done') {
      await releaseRow(world, id, folder);
      throw new Refused('marker-failed');
    }
    await concludeStart(world, id, (client) =>
      recordActivity(client, 'copy-made-own', person.id, id, { volume, folder, number }, `project:${id}`),
    );
  });
  await checkProject(world, id, person.id);
  const made = await readProjectRow(world.db, id);
  if (made === null) throw new Refused('project-gone');
  return made;
}

interface CopyRow {
  readonly id: string;
  readonly number: string;
  readonly row: NonNullable<Awaited<ReturnType<typeof readProject>>>;
  readonly shape: ProjectShape;
  readonly volume: string;
}

/** Number and folder are the copy's before its disk is touched, in a transaction of its own: no disk holds a lock. */
async function claimRow(world: World, person: string, { id, number, row, shape, volume }: CopyRow): Promise<void> {
  const { folder, values, template, edition, conventions, adjusted } = shape;
  try {
    await transaction(world.db, async (client) => {
      await claimNumber(client, person, number, folder);
      await insertProject(client, {
        id,
        number,
        client: row.client,
        title: row.title,
        template,
        edition,
        conventions,
        values,
        volume,
        folder,
        person,
        adjusted,
        own: row.own,
        settings: row.settings,
      });
    });
  } catch (error) {
    const constraint = sqlFault(error)?.constraint;
    if (constraint === 'project_number_once') throw new Refused('number-taken', { number });
    if (constraint === 'project_folder_once') throw new Refused('folder-taken', { folder });
    throw error;
  }
}

async function releaseRow(world: World, id: string, folder: string): Promise<void> {
  await transaction(world.db, async (client) => {
    const number = await removeUnstarted(client, id);
    if (number !== null) await freeNumber(client, number, `${folder} could not be made a project of its own`);
  });
}

export async function leaveCopyAlone(
  world: World,
  person: string,
  project: string,
  volume: string,
  folder: string,
): Promise<void> {
  await folderOf(world, volume, folder, project);
  await transaction(world.db, async (client) => {
    await leaveCopy(client, project, volume, folder);
    await recordActivity(client, 'copy-left', person, project, { volume, folder }, `project:${project}`);
  });
}
