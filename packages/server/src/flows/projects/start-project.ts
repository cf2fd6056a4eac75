/**
 * A template and values become a project: judged anew here, claimed in the database, written beside its place on the
 * volume, and moved
 * into it whole. A start that fails leaves neither a number used nor a folder behind; one that a crash cut short is
 * settled at the next boot.
 */

import { randomUUID } from 'node:crypto';
import {
  type Look,
  type Making,
  type ProjectRow,
  parseMarker,
  type StartGiven,
  type StartRequest,
  startSchema,
} from '@nesting/contract';
import { coded } from '@nesting/core';
import type { Change, NewContent } from '@nesting/core/change';
import type { Registers } from '@nesting/core/name';
import { redirectedChanges, startChanges } from '@nesting/core/planners';
import { type Expansion, expandTemplate, type Template, withConventions } from '@nesting/core/template';
import { DiskError, type StartOutcome, type Where } from '@nesting/disk';
import { type Client, transaction } from '../../db/client';
import { releaseBytes } from '../../db/queries/batches/space';
import { recordActivity } from '../../db/queries/house/activity';
import { heldByOther, reservedFor } from '../../db/queries/house/numbers';
import { readRegisters } from '../../db/queries/house/registers';
import {
  finishStart,
  isStarting,
  listUnstarted,
  type NewProject,
  projectsAt,
  readProject,
  readProjectRow,
  removeUnstarted,
} from '../../db/queries/projects/projects';
import { conventionsOf } from '../../db/queries/rules/conventions';
import { readEdition, readStarters } from '../../db/queries/rules/templates';
import { reserveForStart } from '../batches/space';
import { checkProject } from '../checks/check-project';
import { freeNumber, noteOfNumber } from '../house/numbers';
import { isThere, stateOfVolume } from '../house/volumes';
import { takeUp, underLease } from '../once';
import { hindranceAt, reached, whereOf } from '../place';
import { Refused, type World } from '../world';
import { claim, giveUp, readyVolume } from './claim-start';
import { contentBytes, contentsOf, requireOrder } from './contents';

/** A start judged: what would be written, and the bytes of it. */
export interface Planned {
  readonly template: Template;
  readonly expansion: Expansion;
  readonly editions: NewProject['conventions'];
  readonly changes: readonly Change[];
  readonly bytesOf: (content: NewContent) => Uint8Array;
  /** What is made on other volumes. */
  readonly away: readonly { readonly volume: string; readonly changes: readonly Change[] }[];
}

/**
 * `prefix` is what stands before the project's folder where it is written. Nothing that the screen refuses is written
 * from here.
 */
export async function planStart(
  world: World,
  request: StartGiven,
  { project, prefix }: { readonly project: string; readonly prefix: string },
): Promise<Planned> {
  const { db } = world;
  const edition = await readEdition(db, request.template, request.edition);
  const { bodies, editions } = await conventionsOf(db, request.template);
  // A project keeps the conventions that are in force on the day it is started.
  const conventional = edition && withConventions(edition, bodies);
  if (conventional === null) throw new Refused('no-template');
  const template =
    Object.keys(request.adjusted).length === 0 ? conventional : { ...conventional, adjusted: request.adjusted };
  const expansion = judged(template, request, await readRegisters(db), prefix);
  const starters = await readStarters(db, request.template, request.edition);
  const started = new Date().toISOString();
  const changes = requireOrder(startChanges({ template, expansion, project, started, settings: request.settings }));
  const filling = { values: expansion.values.values, fields: template.fields, registers: expansion.registers };
  const bytesOf = (content: NewContent) => contentBytes(content, starters, filling);
  const away = [...redirectedChanges(expansion)].map(([volume, those]) => ({ volume, changes: requireOrder(those) }));
  // Every file must be there before anything is claimed.
  for (const those of [changes, ...away.map((one) => one.changes)]) contentsOf(those, bytesOf);
  return { template, expansion, editions, changes, bytesOf, away };
}

/** Starts that are being written, by their projects' ids. */
const making = new Map<string, Making>();

export const makingOf = (key: string): Making | null => making.get(key) ?? null;

/**
 * `cancel` is heard while it is written: then all of it is taken back. A request with a key is done once, however often
 * it is asked.
 */
export async function startProject(
  world: World,
  person: string,
  given: StartRequest,
  cancel?: AbortSignal,
): Promise<ProjectRow> {
  const request = startSchema.parse(given);
  const before = request.key === undefined ? null : await startedBefore(world, request.key, request);
  if (before !== null) return before;
  const id = request.key ?? randomUUID();
  try {
    return await underLease(world, id, ({ lost }) => start(world, person, { id, request, cancel, lost }));
  } finally {
    making.delete(id);
  }
}

/** What became of a start that was asked for by the same key; `null` where nothing is there of it. */
async function startedBefore(world: World, key: string, request: StartGiven): Promise<ProjectRow | null> {
  const known = await readProjectRow(world.db, key);
  if (known === null) return null;
  if (known.number !== String(request.values.number)) throw new Refused('key-used');
  if (known.state !== 'starting') return known;
  await underLease(world, key, () => settleStart(world, known));
  return readProjectRow(world.db, key);
}

interface ToStart {
  readonly id: string;
  readonly request: StartGiven;
  readonly cancel: AbortSignal | undefined;
  /** Aborted when somebody else may be at it. */
  readonly lost: AbortSignal;
}

async function start(world: World, person: string, to: ToStart): Promise<ProjectRow> {
  const { id, request } = to;
  const where = await readyVolume(world, request.volume);
  const planned = await planStart(world, request, { project: id, prefix: `${where.base}/` });
  const { template, expansion, editions } = planned;
  const others = await placesElsewhere(world, request.volume, planned);
  const folder = expansion.rootName;
  if (request.into) await refuseProjectsFolder(world, request.volume, folder);
  await reserveAll(world, id, request.volume, planned);
  try {
    await claim(world, person, { id, request, expansion, editions, firstDay: template.setup?.firstDay ?? [], folder });
    await writeAll(world, person, { ...to, planned, where, others });
  } finally {
    await releaseBytes(world.db, id);
  }
  const { folders, files } = expansion;
  const params = { folder, volume: request.volume, folders, files };
  await concludeStart(world, id, (client) =>
    recordActivity(client, 'project-started', person, id, params, `project:${id}`),
  );
  await checkProject(world, id, person);
  const project = await readProjectRow(world.db, id);
  if (project === null) throw new Refused('project-gone');
  return project;
}

async function reserveAll(world: World, id: string, volume: string, planned: Planned): Promise<void> {
  const { changes, away, bytesOf } = planned;
  for (const one of [{ volume, changes }, ...away]) await reserveForStart(world, id, one.volume, one.changes, bytesOf);
}

/** The disk is done: the project runs, and what was done is recorded with it. */
export async function concludeStart(
  world: World,
  id: string,
  record: (client: Client) => Promise<unknown>,
): Promise<void> {
  await transaction(world.db, async (client) => {
    // Whoever took it over meanwhile has done so already.
    if (await finishStart(client, id)) await record(client);
  });
}

interface Elsewhere {
  readonly volume: string;
  readonly where: Where;
  readonly changes: readonly Change[];
}

async function placesElsewhere(world: World, own: string, { away }: Planned): Promise<Elsewhere[]> {
  if (away.some((a) => a.volume === own)) throw new Refused('same-volume', { volume: own });
  return Promise.all(away.map(async (a) => ({ ...a, where: await readyVolume(world, a.volume) })));
}

interface ToWrite extends ToStart {
  readonly planned: Planned;
  readonly where: Where;
  readonly others: readonly Elsewhere[];
}

/** Everything that a start makes, or nothing of it. Other volumes first: the project is there when all of it is. */
async function writeAll(world: World, person: string, to: ToWrite): Promise<void> {
  const { id, request, planned, where, others, cancel, lost } = to;
  const folder = planned.expansion.rootName;
  const taskOf = (at: Where, changes: readonly Change[]) => ({
    where: at,
    folder,
    project: id,
    changes,
    contents: contentsOf(changes, planned.bytesOf),
  });
  const made: Elsewhere[] = [];
  const unmakeOthers = async (): Promise<string[]> => {
    const stayed = [];
    for (const other of made)
      stayed.push(...(await world.disks.run('unstart', { where: other.where, folder, changes: other.changes })));
    return stayed;
  };
  for (const other of others) {
    const outcome = await onDisk(world.disks.run('start', taskOf(other.where, other.changes), { lost }), lost);
    if (outcome.ok) made.push(other);
    else if (outcome.code === 'DISK-ENDED') return foundOut(world, id, request.volume, folder);
    else {
      await unmakeOthers();
      return giveUp(world, person, id, other.volume, folder, outcome);
    }
  }
  const outcome = await onDisk(
    world.disks.run(request.into ? 'addTo' : 'start', taskOf(where, planned.changes), {
      signal: cancel,
      lost,
      told: (progress) => void making.set(id, progress),
    }),
    lost,
  );
  if (outcome.ok) return;
  if (outcome.code === 'DISK-ENDED') return foundOut(world, id, request.volume, folder);
  const stayed = [...outcome.stayed, ...(await unmakeOthers())];
  return giveUp(world, person, id, request.volume, folder, { ...outcome, stayed });
}

/** The process that wrote it ended in the middle: the disk tells whether it was made, and what is left is taken back. */
export async function foundOut(world: World, id: string, volume: string, folder: string): Promise<void> {
  await settleStart(world, { id, volume, folder });
  if ((await readProject(world.db, id)) === null) throw new Refused('disk-ended');
}

/** A volume that went away is an outcome like any other; a lease that was lost is none, as somebody else may be at it. */
export async function onDisk<T extends { readonly ok: boolean }>(
  work: Promise<T>,
  lost: AbortSignal,
): Promise<T | Extract<StartOutcome, { ok: false }>> {
  try {
    return await work;
  } catch (error) {
    if (!(error instanceof DiskError) || lost.aborted) throw error;
    return { ok: false, code: error.code === 'root-missing' ? 'ENOENT' : error.code, at: '', stayed: [] };
  }
}

/** A folder that is there is added to only where it is nobody's project. */
async function refuseProjectsFolder(world: World, volume: string, folder: string): Promise<void> {
  const where = await reached(world, { volume, folder });
  if (where === null) throw new Refused('no-folder', { folder, volume });
  if ((await world.disks.run('marker', { where })) !== null) throw new Refused('folder-taken', { folder });
}

/** Which of the planned paths are in a folder that is there already. */
export async function pathsThere(
  world: World,
  volume: string,
  folder: string,
  paths: readonly string[],
): Promise<string[]> {
  await readyVolume(world, volume);
  const where = await reached(world, { volume, folder });
  return where === null ? [] : world.disks.run('pathsThere', { where, paths });
}

function judged(template: Template, request: StartGiven, registers: Registers, prefix: string): Expansion {
  const expansion = expandTemplate(template, request.values, registers, { prefix });
  const refused = expansion.diagnostics.find((d) => d.weight === 'refused');
  if (refused) throw new Refused('plan-refused', { at: refused.line ?? refused.field ?? '', because: coded(refused) });
  const number = expansion.values.values.number;
  if (typeof number !== 'string' || number === '') throw new Refused('number-missing');
  return expansion;
}

/** What stands in the way of a start, for the screen while the form is filled in. */
export async function lookAtTarget(
  world: World,
  person: string,
  number: string,
  volume: string,
  folder: string,
): Promise<Look> {
  const taken = await projectsAt(world.db, number, volume, folder);
  const isName = folder !== '' && !folder.includes('/');
  const hindrance = isName ? await hindranceAt(world, { volume, folder }) : 'path-missing';
  // A link of that name stands in the way as well as a folder does.
  const folderOnDisk = hindrance === null || hindrance === 'path-link';
  return {
    numberTaken: taken.number,
    folderTaken: taken.folder,
    folderOnDisk,
    numberHeldBy: await heldByOther(world.db, person, number),
    numberReserved: await reservedFor(world.db, number),
    numberNote: await noteOfNumber(world, number),
  };
}

/** Folders that a start cut short had made on other volumes. */
async function takeBackElsewhere(world: World, id: string, folder: string): Promise<void> {
  const row = await readProject(world.db, id);
  if (row === null || Object.values(row.adjusted).every((a) => a.volume === undefined)) return;
  for (const [volume, changes] of redirectedChanges(
    expandTemplate(row.body, row.values, await readRegisters(world.db)),
  )) {
    const where = whereOf(world, { volume, folder: '' });
    if (where !== null) await world.disks.run('unstart', { where, folder, changes });
  }
}

/** Starts that nobody is at any more: those whose folder took its place are finished, the others are taken back. */
export async function settleStarts(world: World): Promise<void> {
  for (const start of await listUnstarted(world.db)) {
    // A volume that is away tells nothing: looked at again later.
    if (!isThere(await stateOfVolume(world, start.volume))) continue;
    // One folder that cannot be read hinders no other.
    await takeUp(world, start.id, () => settleStart(world, start)).catch((error: unknown) => {
      if (!(error instanceof DiskError)) throw error;
    });
  }
}

type Unstarted = Pick<Awaited<ReturnType<typeof listUnstarted>>[number], 'id' | 'volume' | 'folder'>;

async function settleStart(world: World, start: Unstarted): Promise<void> {
  // It may have ended between the list and the lease: then nothing of it is taken back.
  if (!(await isStarting(world.db, start.id))) return;
  const where = await reached(world, start);
  const marker = where === null ? undefined : (await world.disks.run('marker', { where }))?.marker;
  if (marker?.includes(start.id)) {
    if (await finishStart(world.db, start.id)) await checkProject(world, start.id, null);
    return;
  }
  // A copy that was to be a project of its own still says it is the other one: only its row was made.
  if (marker === undefined || !parseMarker(marker).ok) {
    for (const volume of world.config.volumes.keys()) {
      const at = whereOf(world, { volume, folder: '' });
      if (at !== null && isThere(await stateOfVolume(world, volume)))
        await world.disks.run('sweepStart', { where: at, project: start.id });
    }
    if (where !== null) await world.disks.run('unadd', { where, project: start.id });
    await takeBackElsewhere(world, start.id, start.folder);
  }
  await removeStart(world, start);
}

async function removeStart(world: World, start: Unstarted): Promise<void> {
  await transaction(world.db, async (client) => {
    const number = await removeUnstarted(client, start.id);
    if (number !== null) await freeNumber(client, number, `the start of ${start.folder} was cut short`);
    await recordActivity(client, 'start-taken-back', null, null, { folder: start.folder, volume: start.volume });
  });
}
