/**
 * Loose files are brought into a project. The heap is looked through once, and what its files tell is kept; the plan is
 * made of that and of what lies in the project now, as often as somebody says something else, and again by the batch
 * that carries it out.
 */
import { createHash, randomUUID } from 'node:crypto';
import type {
  ApplyIntake,
  BatchAnswer,
  HeapPlace,
  HeapReading,
  INTAKE_FORMS,
  IntakeAsked,
  IntakeBatchAsked,
  IntakePlan,
  Me,
} from '@nesting/contract';
import { nameOf } from '@nesting/core/listing';
import { withEntries } from '@nesting/core/planners';
import { ProjectRules } from '@nesting/core/project';
import { pairsCsv, pairsOtio } from '@nesting/core/report';
import { placeWords } from '@nesting/core/words';
import type { LooseRead, PlannedIntake, Where } from '@nesting/disk';
import { readReferences } from '../../db/queries/checks/kept';
import { keepIntake, latestIntake, readDoubles, readIntakeRow } from '../../db/queries/projects/intakes';
import { placedProjects, readProject, readShape } from '../../db/queries/projects/projects';
import { untilAskerLeaves } from '../../request-context';
import { askBatch } from '../batches/ask-batch';
import type { Asker, Prepared, Project } from '../batches/prepared';
import { neighbourRoot } from '../batches/roots';
import { compileRules, mountsOf } from '../checks/check-project';
import { packed, unpacked } from '../checks/packed';
import { stateOfVolume } from '../house/volumes';
import { projectWhere, whereOf } from '../place';
import { Refused, type World } from '../world';
import { readyVolume } from './claim-start';
import { grownBy, growTo, pathsMadeBy } from './growth';
import { type Judged, liveFolder, printedPlan } from './reshape-project';

/** Lines that a plan shows, and files that could not be looked at. */
const MOST_LINES = 20_000;
const MOST_UNSEEN = 200;
/** Bytes of a file that is looked at or listened to. */
const MOST_SHOWN = 64 * 2 ** 20;
/** Bytes in which a photograph has a small picture of itself. */
const HEAD = 256 * 1024;

/** A heap is none of the house's projects, nor a part of one, nor what holds them. */
export async function heapWhere(world: World, place: HeapPlace): Promise<Where> {
  for (const { volume, folder, number } of await placedProjects(world.db))
    if (volume === place.volume && (isWithin(place.folder, folder) || isWithin(folder, place.folder)))
      throw new Refused('heap-in-project', { number });
  return projectWhere(world, place);
}

const isWithin = (path: string, folder: string): boolean =>
  folder === '' || path === folder || path.startsWith(`${folder}/`);

async function projectOf(world: World, id: string): Promise<{ project: Project; where: Where }> {
  const project = await readProject(world.db, id);
  if (project === null) throw new Refused('no-project');
  return { project, where: await liveFolder(world, project) };
}

export async function readIntake(world: World, id: string, place: HeapPlace): Promise<void> {
  const { project, where } = await projectOf(world, id);
  const heap = await heapWhere(world, place);
  const known = await unpacked<LooseRead>(await latestIntake(world.db, place.volume, place.folder));
  const mounts = await mountsOf(world, project);
  const task = { where: heap, known: known?.files ?? [], into: where, mounts };
  const key = readingKey(id, place);
  try {
    const told = (progress: HeapReading) => void reading.set(key, progress);
    const found = await world.disks.run('readLoose', task, { ...untilAskerLeaves(), told });
    await keepIntake(world.db, { project: id, ...place }, await packed(found));
  } finally {
    reading.delete(key);
  }
}

/** How far heaps are looked through that somebody waits for. */
const reading = new Map<string, HeapReading>();
const readingKey = (project: string, { volume, folder }: HeapPlace): string => `${project} ${volume}/${folder}`;

/** `null` where nobody looks through it, or nothing is known yet. */
export const readingOf = (id: string, place: HeapPlace): HeapReading | null =>
  reading.get(readingKey(id, place)) ?? null;

interface Planned {
  readonly project: Project;
  readonly where: Where;
  readonly heap: Where;
  readonly plan: PlannedIntake;
  readonly found: LooseRead;
  readonly readAt: Date;
  readonly growth: Judged | null;
  readonly fingerprint: string;
  readonly double: DoubleVolume | null;
}

interface DoubleVolume {
  readonly volume: string;
  readonly folder: '';
  readonly where: Where;
}

/** Where what is brought into a project is copied once more; `null` where its volume has no double. */
async function doubleOf(world: World, { volume }: Project, heap: string): Promise<DoubleVolume | null> {
  const double = (await readDoubles(world.db)).get(volume);
  // What lies there already is no second place.
  if (double === undefined || double === heap) return null;
  // An empty mount point is no second place.
  return { volume: double, folder: '', where: await readyVolume(world, double) };
}

/** What was read when it was looked through, with what is there now. */
async function planned(
  world: World,
  me: Asker,
  id: string,
  asked: IntakeAsked,
  withChanges: boolean,
): Promise<Planned> {
  const { project, where } = await projectOf(world, id);
  const { volume, folder, placed, pairing, isMove, isDoubled } = asked;
  const heap = await heapWhere(world, { volume, folder });
  const row = await readIntakeRow(world.db, { project: id, volume, folder });
  const found = await unpacked<LooseRead>(row?.found ?? null);
  if (row === null || found === null) throw new Refused('heap-unread');
  const { input, roots } = await compileRules(world, id);
  const double = isMove || !isDoubled ? null : await doubleOf(world, project, volume);
  const task = {
    ...{ where, input, files: found.files, same: found.same, placed, pairing, isMove, withChanges },
    double: double && { where: double.where, root: neighbourRoot(double), folder: project.folder },
    sourceName: nameOf(folder) || volume,
    ...{ documents: await readReferences(world.db, id), roots },
    root: neighbourRoot({ volume, folder }),
    mostLines: MOST_LINES,
  };
  const plan = await world.disks.run('planIntake', task, untilAskerLeaves());
  const values = withEntries(new ProjectRules(input), project.values, plan.entries);
  const growth = plan.entries.length === 0 ? null : await growTo(world, me, project, values);
  const fingerprint =
    growth === null
      ? plan.fingerprint
      : createHash('sha256').update(`${growth.fingerprint} ${plan.fingerprint}`).digest('hex');
  return { project, where, heap, plan, found, readAt: row.readAt, growth, fingerprint, double };
}

export async function planIntake(world: World, me: Me, id: string, asked: IntakeAsked): Promise<IntakePlan> {
  const { project, plan, found, readAt, growth, fingerprint, double } = await planned(world, me, id, asked, false);
  const { changes: _changes, orderFaults, doubleTaken, ...told } = plan;
  const { freeBytes } = await stateOfVolume(world, project.volume);
  const twin = double && { volume: double.volume, free: (await stateOfVolume(world, double.volume)).freeBytes };
  return {
    ...told,
    made: pathsMadeBy(growth).length,
    free: freeBytes,
    double: twin,
    readAt: readAt.toISOString(),
    unseen: found.unseen.slice(0, MOST_UNSEEN),
    isCut: found.isCut,
    refused: [
      ...(asked.isMove ? [] : [{ volume: project.volume, free: freeBytes }, ...(twin ? [twin] : [])]).flatMap(
        ({ volume, free }) => (free !== null && told.bytes > free ? [`${volume} has no room for it.`] : []),
      ),
      ...doubleTaken.map((at) => `${double?.volume} has ${at} already.`),
      ...orderFaults.map(({ at }) => `${placeWords(at)} would be wanted twice.`),
      ...(growth?.faults ?? []).map(({ at }) => `${at} cannot be made.`),
    ],
    fingerprint,
  };
}

export async function printIntake(
  world: World,
  me: Me,
  id: string,
  asked: IntakeAsked,
  as: (typeof INTAKE_FORMS)[number],
): Promise<{ readonly name: string; readonly type: string; readonly body: string }> {
  const { project, plan } = await planned(world, me, id, asked, true);
  if (as === 'pairs') return { name: `${project.number}-pairs.csv`, type: 'text/csv', body: pairsCsv(plan.pairs) };
  if (as === 'otio') {
    const body = pairsOtio(plan.pairs, plan.items);
    return { name: `${project.number}-pairs.otio`, type: 'application/json', body };
  }
  return printedPlan(`${project.number}-intake`, as, { shown: plan.changes, all: [], base64Of: () => '' });
}

export async function applyIntake(
  world: World,
  me: Me,
  id: string,
  { fingerprint, key = randomUUID(), ...asked }: ApplyIntake,
  wait: number,
): Promise<BatchAnswer> {
  const to = { id: key, project: id, what: 'intake', undoes: null };
  return askBatch(world, me, { ...to, asked: { kind: 'intake', asked, fingerprint } }, wait);
}

/** What was shown, and nothing else: the plan is made again, and refused where it is another one. */
export async function prepareIntake(
  world: World,
  me: Asker,
  id: string,
  { asked, fingerprint }: { readonly asked: IntakeBatchAsked; readonly fingerprint: string },
): Promise<Prepared> {
  const { project, where, plan, growth, double, ...made } = await planned(world, me, id, asked, true);
  const shape = await readShape(world.db, id);
  if (shape === null) throw new Refused('no-project');
  if (made.fingerprint !== fingerprint) throw new Refused('disk-changed');
  const [fault] = plan.orderFaults;
  if (fault !== undefined)
    throw new Refused('plan-refused', { at: placeWords(fault.at), because: { code: fault.code, params: {} } });
  const [taken] = plan.doubleTaken;
  if (taken !== undefined)
    throw new Refused('plan-refused', {
      at: `${double?.volume}/${taken}`,
      because: { code: 'name-taken', params: {} },
    });
  if (plan.files === 0) throw new Refused('nothing-to-bring');
  const grown = await grownBy(world, growth);
  const { volume, folder } = asked;
  return {
    ...{ project, where, what: 'intake', from: shape, to: growth?.to ?? shape },
    changes: [...grown.changes, ...plan.changes],
    contents: grown.contents,
    neighbours: [
      { root: neighbourRoot({ volume, folder }), volume, folder },
      ...(double === null ? [] : [{ root: neighbourRoot(double), volume: double.volume, folder: double.folder }]),
    ],
  };
}

/** Only what was looked through is shown. */
export async function looseFile(
  world: World,
  id: string,
  { path, part, volume, folder }: HeapPlace & { readonly path: string; readonly part: 'whole' | 'head' },
): Promise<{ readonly name: string; readonly bytes: Uint8Array }> {
  await projectOf(world, id);
  await heapWhere(world, { volume, folder });
  const row = await readIntakeRow(world.db, { project: id, volume, folder });
  const found = await unpacked<LooseRead>(row?.found ?? null);
  const where = whereOf(world, { volume, folder });
  if (found === null || where === null) throw new Refused('heap-unread');
  const file = found.files.find((one) => one.path === path);
  if (file === undefined) throw new Refused('file-gone', { path });
  const isWhole = part === 'whole' || file.size <= HEAD;
  if (isWhole && file.size > MOST_SHOWN) throw new Refused('file-not-shown', { path });
  const bytes = isWhole
    ? await world.disks.run('bytesOfFile', { where, path, most: MOST_SHOWN }, untilAskerLeaves())
    : await world.disks.run('stretchOfFile', { where, path, from: 0, to: HEAD }, untilAskerLeaves());
  if (bytes === null) throw new Refused('file-gone', { path });
  return { name: nameOf(path), bytes };
}
