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
import type { Cancellation, MakingStep, NewContent } from '@nesting/core/change';
import { join } from '@nesting/core/listing';
import type { Registers } from '@nesting/core/name';
import { MARKER_PATH, makingSteps, redirectedChanges, startChanges } from '@nesting/core/planners';
import { type Expansion, expandTemplate, fillText, type Template, withConventions } from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';
import {
  addToFolder,
  inside,
  readMarker,
  type StartOutcome,
  standingIn,
  startOnDisk,
  sweep,
  takeBackAdd,
  takeBackStart,
  volumeState,
} from '@nesting/disk';
import { sqlFault, transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import { heldByOther, reservedFor } from '../../db/queries/house/numbers';
import { readRegisters } from '../../db/queries/house/registers';
import { insertFirstDay } from '../../db/queries/projects/project-edits';
import {
  insertProject,
  listUnstarted,
  type NewProject,
  projectsAt,
  readProject,
  removeUnstarted,
  setProjectState,
} from '../../db/queries/projects/projects';
import { conventionsOf } from '../../db/queries/rules/conventions';
import { readEdition, readStarters } from '../../db/queries/rules/templates';
import { checkProject } from '../checks/check-project';
import { claimNumber, freeNumber, noteOfNumber } from '../house/numbers';
import { folderAt, volumeRoot } from '../place';
import { Refused, type World } from '../world';

/** A start judged: what would be written, and the bytes of it. */
export interface Planned {
  readonly template: Template;
  readonly expansion: Expansion;
  readonly editions: NewProject['conventions'];
  readonly stepsFor: (project: string, started: string) => MakingStep[];
  readonly bytesOf: (content: NewContent) => Uint8Array;
  /** What is made on other volumes. */
  readonly away: readonly { readonly volume: string; readonly steps: readonly MakingStep[] }[];
}

/**
 * `prefix` is what stands before the project's folder where it is written. Nothing that the screen refuses is written
 * from here.
 */
export async function planStart(world: World, request: StartGiven, prefix: string): Promise<Planned> {
  const { db } = world;
  const edition = await readEdition(db, request.template, request.edition);
  const { bodies, editions } = await conventionsOf(db, request.template);
  // A project keeps the conventions that are in force on the day it is started.
  const conventional = edition && withConventions(edition, bodies);
  if (conventional === null) throw new Refused(404, 'no-template', 'This edition of the template does not exist.');
  const template =
    Object.keys(request.adjusted).length === 0 ? conventional : { ...conventional, adjusted: request.adjusted };
  const expansion = judged(template, request, await readRegisters(db), prefix);
  const starters = await readStarters(db, request.template, request.edition);
  const stepsFor = (project: string, started: string) =>
    makingSteps(startChanges({ template, expansion, project, started }));
  const bytes = (content: NewContent) => contentBytes(content, starters, template, expansion);
  // Every file must be there before anything is claimed.
  for (const step of stepsFor('', '')) if (step.do === 'write' && step.content.kind === 'kept') bytes(step.content);
  const away = [...redirectedChanges(expansion)].map(([volume, changes]) => ({ volume, steps: makingSteps(changes) }));
  for (const { steps } of away) for (const step of steps) if (step.do === 'write') bytes(step.content);
  return { template, expansion, editions, stepsFor, bytesOf: bytes, away };
}

/** Starts that are being written, by what their askers call them. */
const making = new Map<string, Making>();

export const makingOf = (watch: string): Making | null => making.get(watch) ?? null;

/** `cancel` is heard while it is written: then all of it is taken back. */
export async function startProject(
  world: World,
  person: string,
  given: StartRequest,
  cancel?: Cancellation,
): Promise<ProjectRow> {
  try {
    return await start(world, person, given, cancel);
  } finally {
    if (given.watch !== undefined) making.delete(given.watch);
  }
}

async function start(world: World, person: string, given: StartRequest, cancel?: Cancellation): Promise<ProjectRow> {
  const { db } = world;
  const request = startSchema.parse(given);
  const parent = readyVolume(world, request.volume);
  const { template, expansion, editions, stepsFor, bytesOf, away } = await planStart(world, request, `${parent}/`);
  const others = away.map((a) => ({ ...a, parent: readyVolume(world, a.volume) }));
  if (others.some((o) => o.volume === request.volume))
    throw new Refused(
      422,
      'same-volume',
      `${request.volume} is the project's own volume: nothing is redirected to it. Nothing was written.`,
    );
  const folder = expansion.rootName;
  if (request.into) refuseProjectsFolder(parent, folder);
  const id = await claim(world, person, request, expansion, editions, template.setup?.firstDay ?? []);
  const plan = {
    parent,
    folder,
    project: id,
    steps: stepsFor(id, new Date().toISOString()),
    bytesOf,
    ...(cancel && { cancel }),
    progress: (done: number, all: number) =>
      void (request.watch !== undefined && making.set(request.watch, { done, all })),
  };
  // Other volumes first: the project itself is there only when all of it is.
  for (const [i, other] of others.entries()) {
    const made = await startOnDisk({ parent: other.parent, folder, project: id, steps: other.steps, bytesOf });
    if (made.ok) continue;
    for (const before of others.slice(0, i))
      await takeBackStart({ parent: before.parent, folder, steps: before.steps });
    return giveUp(world, person, id, other.volume, folder, made);
  }
  const outcome = request.into ? await addToFolder(plan) : await startOnDisk(plan);
  if (!outcome.ok) {
    const stayed = [];
    for (const other of others)
      stayed.push(...(await takeBackStart({ parent: other.parent, folder, steps: other.steps })));
    return giveUp(world, person, id, request.volume, folder, { ...outcome, stayed: [...outcome.stayed, ...stayed] });
  }
  await setProjectState(db, id, 'running');
  await recordActivity(
    db,
    'project-started',
    person,
    id,
    { folder, volume: request.volume, folders: expansion.folders, files: expansion.files },
    `project:${id}`,
  );
  await checkProject(world, id, person);
  const project = await readProject(db, id);
  if (project === null) throw new Refused(404, 'no-project', 'The project was made and is gone again.');
  return project;
}

/** A folder that is there is added to only where it is nobody's project. */
function refuseProjectsFolder(parent: string, folder: string): void {
  const root = inside(parent, folder);
  if (!root.ok) throw new Refused(409, 'no-folder', `There is no folder ${folder} to add to. Nothing was written.`);
  if (readMarker(root.value) !== null)
    throw new Refused(409, 'folder-taken', `${folder} is another project's folder. Nothing was written.`);
}

/** Which of the planned paths are in a folder that is there already. */
export function pathsThere(world: World, volume: string, folder: string, paths: readonly string[]): string[] {
  return standingIn(readyVolume(world, volume), folder, paths);
}

function judged(template: Template, request: StartGiven, registers: Registers, prefix: string): Expansion {
  const expansion = expandTemplate(template, request.values, registers, { prefix });
  const refused = expansion.diagnostics.find((d) => d.weight === 'refused');
  if (refused)
    throw new Refused(
      422,
      'plan-refused',
      `${refused.line ?? refused.field ?? ''}: ${wordsFor(refused.code, refused.params)} Nothing was written.`.trim(),
    );
  const number = expansion.values.values.number;
  if (typeof number !== 'string' || number === '')
    throw new Refused(422, 'number-missing', 'A project needs a number. Nothing was written.');
  return expansion;
}

export function readyVolume(world: World, name: string): string {
  const root = volumeRoot(world, name);
  if (root === undefined) throw new Refused(404, 'no-volume', `No volume is called ${name}. Nothing was written.`);
  const { state } = volumeState(root);
  if (state === 'missing')
    throw new Refused(
      503,
      'volume-missing',
      `The volume ${name} cannot be reached: it is not mounted, or its folder is gone. Nothing was written.`,
    );
  if (state === 'read-only')
    throw new Refused(
      409,
      'volume-read-only',
      `The volume ${name} is read-only. Nothing was written; give the server the right to write there, or take another volume.`,
    );
  return root;
}

/**
 * What a file is made with: a text as it is, a starter file from beside its template, filled in where it asks for it.
 */
export function contentBytes(
  content: NewContent,
  starters: ReadonlyMap<string, Uint8Array>,
  template: Template,
  expansion: Expansion,
): Uint8Array {
  if (content.kind === 'text') return Buffer.from(content.text);
  const fill = content.key.startsWith('fill:');
  const bytes = starters.get(fill ? content.key.slice(5) : content.key);
  if (bytes === undefined)
    throw new Refused(
      422,
      'starter-missing',
      `The starter file ${content.key.replace(/^fill:/, '')} is not kept with the template. Nothing was written.`,
    );
  return fill
    ? Buffer.from(
        fillText(Buffer.from(bytes).toString('utf8'), expansion.values.values, template.fields, expansion.registers),
      )
    : bytes;
}

/**
 * The project's row holds its number and folder before anything is written; constraints decide between two who ask at
 * once.
 */
export async function claim(
  world: World,
  person: string,
  request: StartGiven,
  expansion: Expansion,
  conventions: NewProject['conventions'],
  firstDay: readonly string[],
  folder = expansion.rootName,
): Promise<string> {
  const values = expansion.values.values;
  const number = String(values.number);
  const id = randomUUID();
  try {
    await transaction(world.db, async (client) => {
      await claimNumber(client, person, number, folder);
      await insertProject(client, {
        id,
        number,
        client: typeof values.client === 'string' ? values.client : null,
        title: typeof values.title === 'string' ? values.title : '',
        template: request.template,
        edition: request.edition,
        conventions,
        values,
        volume: request.volume,
        folder,
        person,
        adjusted: request.adjusted,
        own: {},
        settings: request.settings,
      });
      await insertFirstDay(client, id, firstDay);
    });
  } catch (error) {
    const constraint = sqlFault(error)?.constraint;
    if (constraint === 'project_number_once')
      throw new Refused(
        409,
        'number-taken',
        `The number ${number} belongs to another project by now. Nothing was written; take the next number.`,
      );
    if (constraint === 'project_folder_once')
      throw new Refused(
        409,
        'folder-taken',
        `Another project lies in ${folder} on ${request.volume}. Nothing was written.`,
      );
    throw error;
  }
  return id;
}

export async function giveUp(
  world: World,
  person: string,
  id: string,
  volume: string,
  folder: string,
  outcome: Extract<StartOutcome, { ok: false }>,
): Promise<never> {
  await transaction(world.db, async (client) => {
    const number = await removeUnstarted(client, id);
    if (number !== null) await freeNumber(client, number, `the start of ${folder} failed`);
    await recordActivity(client, 'start-failed', person, null, { folder, volume, code: outcome.code, at: outcome.at });
  });
  const left =
    outcome.stayed.length === 0
      ? 'Nothing was left behind.'
      : `These could not be taken back: ${outcome.stayed.slice(0, 5).join(', ')}.`;
  const where = outcome.at === '' ? '' : ` at ${outcome.at}`;
  switch (outcome.code) {
    case 'EEXIST':
      throw new Refused(409, 'folder-exists', `A folder ${folder} exists already on ${volume}. ${left}`);
    case 'CANCELLED':
      throw new Refused(409, 'cancelled', `Stopped before it was made. ${left}`);
    case 'ENOSPC':
    case 'EDQUOT':
      throw new Refused(
        507,
        'volume-full',
        `The volume ${volume} is full${where}. ${left} Make room, or take another volume.`,
      );
    case 'EROFS':
    case 'EACCES':
    case 'EPERM':
      throw new Refused(409, 'volume-read-only', `The volume ${volume} may not be written to${where}. ${left}`);
    case 'ENOENT':
      throw new Refused(503, 'volume-missing', `The volume ${volume} went away${where}. ${left}`);
    default:
      throw new Refused(409, 'write-failed', `Writing failed${where} (${outcome.code}). ${left}`);
  }
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
  const found = folder === '' || folder.includes('/') ? null : folderAt(world, { volume, folder });
  // A link of that name stands in the way as well as a folder does.
  const folderOnDisk = found !== null && (found.ok || found.faults[0]?.code === 'path-link');
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
    const parent = volumeRoot(world, volume);
    if (parent !== undefined) await takeBackStart({ parent, folder, steps: makingSteps(changes) });
  }
}

/** Starts a crash cut short: those whose folder took its place are finished, the others are taken back. */
export async function settleStarts(world: World): Promise<void> {
  for (const start of await listUnstarted(world.db)) {
    const root = volumeRoot(world, start.volume);
    // A volume that is away tells nothing: looked at again at the next boot.
    if (root === undefined || volumeState(root).state === 'missing') continue;
    const marker = inside(root, join(start.folder, MARKER_PATH)).ok
      ? readMarker(join(root, start.folder))?.marker
      : undefined;
    if (marker?.includes(start.id)) await setProjectState(world.db, start.id, 'running');
    // A copy that was to be a project of its own still says it is the other one: only its row was made.
    else if (marker !== undefined && parseMarker(marker).ok) await removeStart(world, start);
    else {
      for (const other of world.config.volumes.values())
        if (volumeState(other).state !== 'missing') sweep(other, (project) => project === start.id);
      const added = inside(root, start.folder);
      if (added.ok) await takeBackAdd(added.value, start.id);
      await takeBackElsewhere(world, start.id, start.folder);
      await removeStart(world, start);
    }
  }
}

async function removeStart(world: World, start: Awaited<ReturnType<typeof listUnstarted>>[number]): Promise<void> {
  await transaction(world.db, async (client) => {
    const number = await removeUnstarted(client, start.id);
    if (number !== null) await freeNumber(client, number, `the start of ${start.folder} was cut short`);
    await recordActivity(client, 'start-taken-back', null, null, { folder: start.folder, volume: start.volume });
  });
}
