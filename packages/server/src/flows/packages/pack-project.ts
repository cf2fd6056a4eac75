/** What goes into a package is shown; the package is asked for, and a job makes it. */
import { randomUUID } from 'node:crypto';
import type { ApplyPack, Me, PackAsked, PackageRow, PackPlan } from '@nesting/contract';
import { join, relPathOf } from '@nesting/core/listing';
import type { PackageKind } from '@nesting/core/package';
import type { PlannedPack } from '@nesting/disk';
import { sqlFault } from '../../db/client';
import { mustPaths } from '../../db/queries/checks/findings';
import {
  askPackageStop,
  deletePackage,
  insertPackage,
  listPackages,
  readPackageJob,
  resumePackage,
} from '../../db/queries/projects/packages';
import { placedProjects, readProject } from '../../db/queries/projects/projects';
import { requestId, untilAskerLeaves } from '../../request-context';
import type { Project } from '../batches/prepared';
import { compileRules } from '../checks/check-project';
import { projectWhere } from '../place';
import { readyVolume } from '../projects/claim-start';
import { liveFolder } from '../projects/reshape-project';
import { Refused, type World } from '../world';

/** Lines that a plan shows. */
const MOST_LINES = 20_000;

interface Planned {
  readonly project: Project;
  readonly plan: PlannedPack;
}

async function planned(world: World, id: string, { selection, kind }: PackAsked): Promise<Planned> {
  const project = await readProject(world.db, id);
  if (project === null) throw new Refused('no-project');
  await liveFolder(world, project);
  const { where, mounts, input, roots } = await compileRules(world, id);
  const must = await mustPaths(world.db, id);
  const task = { where, mounts, rules: input, selection, kind, roots, must, mostLines: MOST_LINES };
  const plan = await world.disks.run('planPack', task, untilAskerLeaves());
  if (selection.document !== null && plan.files === 0) throw new Refused('no-document', { path: selection.document });
  return { project, plan };
}

export async function planPack(world: World, id: string, asked: PackAsked): Promise<PackPlan> {
  const { project, plan } = await planned(world, id, asked);
  return { ...plan, name: `${project.folder.split('/').at(-1)}_${new Date().toISOString().slice(0, 10)}` };
}

const ENDINGS: Readonly<Record<PackageKind, string>> = { zip: '.zip', bag: '', 'bag-zip': '.zip' };

/** The same key asked again finds what the first one made. */
export async function applyPack(world: World, me: Me, id: string, asked: ApplyPack): Promise<PackageRow> {
  const key = asked.key ?? randomUUID();
  const known = await readPackageJob(world.db, key);
  if (known !== null) {
    if (known.project !== id) throw new Refused('key-used');
    return rowOf(world, key);
  }
  if (!relPathOf(asked.folder).ok) throw new Refused('path-refused');
  const { plan } = await planned(world, id, asked);
  if (plan.fingerprint !== asked.fingerprint) throw new Refused('package-changed');
  if (plan.files === 0) throw new Refused('nothing-to-pack');
  await readyVolume(world, asked.volume);
  await requireOutside(world, asked);
  const name = `${asked.name.replace(/\.zip$/i, '')}${ENDINGS[asked.kind]}`;
  const { files, bytes } = plan;
  try {
    await insertPackage(world.db, {
      id: key,
      project: id,
      person: me.id,
      asked,
      name,
      files,
      bytes,
      request: requestId(),
    });
  } catch (error) {
    const constraint = sqlFault(error)?.constraint;
    if (constraint === 'package_place_once')
      throw new Refused('package-there', { volume: asked.volume, path: join(asked.folder, name) });
    if (constraint !== 'package_pkey') throw error;
  }
  await world.packages.add(key);
  return rowOf(world, key);
}

/** A package lies in no project: its check would find it, and the next package would hold it. */
async function requireOutside(world: World, { volume, folder, name }: ApplyPack): Promise<void> {
  const isWithin = (path: string, outer: string) => path === outer || path.startsWith(`${outer}/`);
  for (const project of await placedProjects(world.db))
    if (project.volume === volume && isWithin(join(folder, name), project.folder))
      throw new Refused('package-in-project', { number: project.number });
}

async function rowOf(world: World, id: string): Promise<PackageRow> {
  const [row] = await listPackages(world.db, { id });
  if (row === undefined) throw new Refused('no-package');
  return row;
}

export async function stopPackage(world: World, id: string): Promise<void> {
  await requirePackage(world, id);
  if (!(await askPackageStop(world.db, id))) throw new Refused('package-over');
}

export async function goOnWithPackage(world: World, id: string, mayLeaveOut: boolean): Promise<void> {
  await requirePackage(world, id);
  if (!(await resumePackage(world.db, id, mayLeaveOut))) throw new Refused('package-over');
  await world.packages.add(id);
}

/** What was written of it goes first: a row that is gone could not say where it lies. */
export async function dropPackage(world: World, id: string): Promise<void> {
  const job = await readPackageJob(world.db, id);
  if (job === null) throw new Refused('no-package');
  if (!['waits', 'stopped', 'failed'].includes(job.state)) throw new Refused('package-under-way');
  const lease = await world.leases.take(id);
  if (lease === null) throw new Refused('package-under-way');
  try {
    const where = await projectWhere(world, { volume: job.volume, folder: '' });
    await world.disks.run('dropPart', { where, into: job.folder, name: job.name });
    if (!(await deletePackage(world.db, id))) throw new Refused('package-under-way');
  } finally {
    await lease.release();
  }
}

async function requirePackage(world: World, id: string): Promise<void> {
  if ((await readPackageJob(world.db, id)) === null) throw new Refused('no-package');
}
