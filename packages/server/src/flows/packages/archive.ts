/**
 * What becomes of a finished package: it is read again; the original is freed, where the package is whole and holds all
 * there is; the project is brought back from it.
 */
import { type BringPart, markerSchema, type ProjectPage, parseRegisters, parseTemplate } from '@nesting/contract';
import { codeOf } from '@nesting/core/change';
import { nameOf } from '@nesting/core/listing';
import { NO_REGISTERS } from '@nesting/core/name';
import { ownFiles } from '@nesting/core/planners';
import type { ReadPackage } from '@nesting/core/report';
import { expandTemplate } from '@nesting/core/template';
import type { LookedAt } from '@nesting/disk';
import { recordActivity } from '../../db/queries/house/activity';
import {
  askAct,
  endAct,
  filesSetAside,
  forgetVerdict,
  isBeingChanged,
  markBack,
  markFreed,
  type PackageAct,
  type PackageJob,
  readPackageJob,
  storeVerdict,
} from '../../db/queries/projects/packages';
import { readProject } from '../../db/queries/projects/projects';
import { checkProject, compileRules, mountsOf } from '../checks/check-project';
import { type Place, projectWhere } from '../place';
import { readyVolume } from '../projects/claim-start';
import { Refused, type World } from '../world';
import { isDatabaseAway, pathOf, refusalOf } from './trouble';

type Whose = { readonly id: string };

async function ask(world: World, id: string, act: PackageAct): Promise<void> {
  const job = await readPackageJob(world.db, id);
  if (job === null) throw new Refused('no-package');
  if (act.kind !== 'prove' && job.state === 'done' && job.purpose !== 'archive') throw new Refused('not-archived');
  if (!(await askAct(world.db, id, act))) throw new Refused('package-not-done');
  await world.packages.add(id);
}

export const provePackage = (world: World, id: string): Promise<void> => ask(world, id, { kind: 'prove' });

/** For good. Who does it has written the project's number. */
export async function freeOriginal(world: World, me: Whose, id: string, number: string): Promise<void> {
  const job = await readPackageJob(world.db, id);
  const project = job === null ? null : await readProject(world.db, job.project);
  if (job === null || project === null) throw new Refused('no-package');
  if (number.trim() !== project.number) throw new Refused('number-other', { number: number.trim() });
  if (project.state !== 'packed') throw new Refused('not-archived');
  await ask(world, id, { kind: 'free', person: me.id });
}

export async function bringBack(world: World, me: Whose, id: string, volume: string): Promise<void> {
  await readyVolume(world, volume);
  await ask(world, id, { kind: 'back', person: me.id, volume });
}

/** The project stays where it is: what is taken out is a folder of loose files, to be looked at or brought in. */
export async function bringPart(world: World, me: Whose, id: string, { volume, within }: BringPart): Promise<void> {
  await readyVolume(world, volume);
  await ask(world, id, {
    kind: 'part',
    person: me.id,
    volume,
    within: within
      .split('/')
      .filter((name) => name !== '')
      .join('/'),
  });
}

/** What a job does. Whatever is asked for, the package is read from end to end first. */
export async function carryAct(world: World, job: PackageJob, act: PackageAct, lost: AbortSignal): Promise<void> {
  try {
    const { verdict, read } = await lookedAt(world, job, lost);
    if (act.kind !== 'prove' && !verdict.isWhole) throw new Refused('package-not-whole');
    if (act.kind === 'free') await free(world, job, read, act.person);
    if (act.kind === 'back') await back(world, job, read, act);
    if (act.kind === 'part') await part(world, job, read, act);
    await endAct(world.db, job.id, null);
  } catch (error) {
    if (isDatabaseAway(error) || lost.aborted) throw error;
    const refused = refusalOf(error, { volume: job.volume, path: pathOf(job) });
    await endAct(world.db, job.id, (refused ?? new Refused('not-begun')).told);
    if (refused === null) throw error;
  }
}

async function lookedAt(world: World, job: PackageJob, lost: AbortSignal): Promise<LookedAt> {
  try {
    const where = await projectWhere(world, { volume: job.volume, folder: '' });
    const found = await world.disks.run('lookAtPackage', { where, path: pathOf(job) }, { lost });
    const { isOuterRight: _, ...verdict } = found.verdict;
    await storeVerdict(world.db, job.id, verdict);
    return found;
  } catch (error) {
    if (!isDatabaseAway(error) && !lost.aborted) await forgetVerdict(world.db, job.id);
    throw error;
  }
}

async function free(world: World, job: PackageJob, read: ReadPackage | null, person: string): Promise<void> {
  const project = await readProject(world.db, job.project);
  // Somebody took it up again meanwhile: then it is no original to be freed.
  if (project === null || project.state !== 'packed' || read === null) throw new Refused('not-archived');
  const { volume, folder } = project;
  const files = await filesSetAside(world.db, project.id);
  if (files > 0) throw new Refused('still-set-aside', { files });
  if (await isBeingChanged(world.db, project.id)) throw new Refused('batch-open');
  const where = await projectWhere(world, { volume, folder: '' });
  const mounts = await mountsOf(world, project);
  const { input } = await compileRules(world, job.project, { isThere: false });
  const freed = await world.disks.run('freeOriginal', {
    where,
    folder,
    mounts,
    rules: input,
    packed: read,
    id: job.id,
  });
  if (freed.state === 'differs') throw new Refused('not-in-package', { path: freed.path, count: freed.count });
  await markFreed(world.db, job.id, freed.bytes);
  await recordActivity(world.db, 'original-freed', person, job.project, { bytes: freed.bytes, name: job.name, folder });
}

interface BackAct {
  readonly person: string;
  readonly volume: string;
}

async function back(
  world: World,
  job: PackageJob,
  read: ReadPackage | null,
  { person, volume }: BackAct,
): Promise<void> {
  const project = await readProject(world.db, job.project);
  if (project === null || read === null) throw new Refused('not-archived');
  const where = await projectWhere(world, { volume: job.volume, folder: '' });
  const into = await projectWhere(world, { volume, folder: '' });
  const { folder } = project;
  if (!job.isAlone) throw new Refused('back-taken', { folder, volume: project.volume });
  try {
    const task = { where, path: pathOf(job), read, into, folder, own: ownOf(read, project), id: job.id };
    await world.disks.run('unpackPackage', task);
  } catch (error) {
    if (codeOf(error) !== 'EEXIST') throw error;
    // An earlier try may have ended before it was noted.
    if (!(await isItThere(world, { volume, folder }, job.project))) throw new Refused('back-taken', { folder, volume });
  }
  await markBack(world.db, job.id, { project: job.project, volume, folder });
  await recordActivity(world.db, 'project-back', person, job.project, { volume, folder, name: job.name });
  await checkProject(world, job.project, person);
}

async function part(
  world: World,
  job: PackageJob,
  read: ReadPackage | null,
  { person, volume, within }: BackAct & { readonly within: string },
): Promise<void> {
  const project = await readProject(world.db, job.project);
  if (project === null || read === null) throw new Refused('not-archived');
  const isPart = (path: string) => path === within || path.startsWith(`${within}/`);
  const files = read.files.filter(({ path }) => isPart(path));
  if (files.length === 0) throw new Refused('file-gone', { path: within });
  const only = { ...read, files, record: { ...read.record, emptyFolders: read.record.emptyFolders.filter(isPart) } };
  const folder = `${nameOf(project.folder)}_${nameOf(within)}`;
  const where = await projectWhere(world, { volume: job.volume, folder: '' });
  const into = await projectWhere(world, { volume, folder: '' });
  try {
    const task = { where, path: pathOf(job), read: only, into, folder, own: [], id: job.id };
    await world.disks.run('unpackPackage', task);
  } catch (error) {
    if (codeOf(error) === 'EEXIST') throw new Refused('part-taken', { folder, volume });
    throw error;
  }
  const params = { volume, folder, within, files: files.length, name: job.name };
  await recordActivity(world.db, 'part-back', person, job.project, params);
}

/** Whether what stands there says that it is this project. */
async function isItThere(world: World, place: Place, project: string): Promise<boolean> {
  const texts = await world.disks.run('marker', { where: await projectWhere(world, place) });
  if (texts === null) return false;
  try {
    const marker = markerSchema.safeParse(JSON.parse(texts.marker));
    return marker.success && marker.data.project === project;
  } catch {
    return false;
  }
}

/** Its marker and its rules, as a start writes them. */
function ownOf(
  { record, template: text, registers: known }: ReadPackage,
  { id: project, settings }: Pick<ProjectPage, 'id' | 'settings'>,
): ReturnType<typeof ownFiles> {
  const template = parseTemplate(text);
  if (!template.ok) throw new Refused('not-archived');
  const parsed = known === '' ? null : parseRegisters(known);
  const registers = parsed?.ok ? parsed.value : NO_REGISTERS;
  const expansion = expandTemplate(template.value, record.values, registers);
  return ownFiles({ template: template.value, expansion, project, settings, started: record.at });
}
