/**
 * What a package's job does: it is written, or, where it was begun before, gone on with; or it is read again. Called as
 * often as one likes: under a lease, and by what stands in the row.
 */
import { codeOf } from '@nesting/core/change';
import type { AcceptedFinding } from '@nesting/core/report';
import { DiskError, type PackProgress } from '@nesting/disk';
import { releaseBytes } from '../../db/queries/batches/space';
import { listExceptions } from '../../db/queries/checks/accepted';
import { recordActivity } from '../../db/queries/house/activity';
import { readRegisters } from '../../db/queries/house/registers';
import {
  askDueProofs,
  endPackage,
  finishPackage,
  holdPackage,
  type PackageJob,
  packagesLeft,
  readPackageJob,
  setPackageProgress,
  shelveProject,
  storeContents,
} from '../../db/queries/projects/packages';
import { readProject } from '../../db/queries/projects/projects';
import { heartbeat } from '../../jobs/heartbeat';
import { onBehalfOf } from '../../request-context';
import { reserveOn } from '../batches/space';
import { compileRules } from '../checks/check-project';
import { projectWhere, whereOf } from '../place';
import { Refused, type World } from '../world';
import { carryAct } from './archive';
import { isDatabaseAway, pathOf, refusalOf } from './trouble';

/** Days after which a finished package is read again by itself. */
const PROVED_EVERY = 91;

/** Packages that are to be written or read, and that nobody is at. */
export async function wakePackages(world: World): Promise<void> {
  await askDueProofs(world.db, PROVED_EVERY);
  for (const id of await packagesLeft(world.db)) await world.packages.add(id);
}

export async function runPackage(world: World, id: string): Promise<void> {
  const lease = await world.leases.take(id);
  if (lease === null) return;
  try {
    const job = await readPackageJob(world.db, id);
    if (job === null) return;
    await onBehalfOf(job.request, async () => {
      if (['queued', 'packing', 'proving'].includes(job.state)) await make(world, job, lease.lost);
      else if (job.act !== null) await carryAct(world, job, job.act, lease.lost);
    });
  } catch (error) {
    // A server that is stopped, or that could not renew: others go on with it.
    if (!lease.lost.aborted) throw error;
  } finally {
    await lease.release();
  }
  // What was asked for while somebody was at it.
  if ((await packagesLeft(world.db)).includes(id)) await world.packages.add(id);
}

async function make(world: World, job: PackageJob, lost: AbortSignal): Promise<void> {
  const { db } = world;
  const stop = new AbortController();
  const at: { progress: PackProgress } = { progress: { stage: 'packing', files: 0, bytes: 0 } };
  const say = () => {
    const { stage, files, bytes } = at.progress;
    return setPackageProgress(db, job.id, { state: stage, files, bytes });
  };
  const quiet = heartbeat(say, stop);
  try {
    if (job.isStopAsked) throw new DiskError({ code: 'STOPPED', message: '', path: '', detail: '' });
    const task = await taskOf(world, job);
    const outcome = await world.disks.run('packProject', task, {
      signal: stop.signal,
      lost,
      told: (progress) => {
        at.progress = progress;
      },
    });
    if (outcome.state === 'waits') await holdPackage(db, job.id, outcome.notPacked);
    else {
      await storeContents(db, job.id, await contentsOf(world, job));
      if (job.purpose === 'archive') await shelveProject(db, job.id, job.project);
      await finishPackage(db, job.id, outcome.packed);
      // A log that stays does no harm.
      const log = { where: task.target, into: job.folder, name: job.name };
      await world.disks.run('forgetLog', log).catch(() => undefined);
      await recordActivity(db, 'project-packed', null, job.project, {
        ...{ files: outcome.packed.files, name: job.name, volume: job.volume, recipient: job.asked.recipient },
      });
    }
  } catch (error) {
    if (isDatabaseAway(error) || lost.aborted) throw error;
    if (stop.signal.aborted || codeOf(error) === 'STOPPED') await endPackage(db, job.id, 'stopped', null);
    else await fail(world, job, error);
  } finally {
    quiet();
    if (!lost.aborted) await releaseBytes(db, job.id);
  }
}

async function taskOf(world: World, job: PackageJob) {
  const { asked, volume, folder, name, shown } = job;
  const project = await readProject(world.db, job.project);
  if (project === null) throw new Refused('no-project');
  const { where, mounts, input, roots } = await compileRules(world, job.project);
  const target = await projectWhere(world, { volume, folder: '' });
  const planning = {
    where,
    mounts,
    rules: input,
    selection: asked.selection,
    kind: asked.kind,
    roots,
    must: [],
    mostLines: 0,
  };
  const { most } = await world.disks.run('planPack', planning);
  await reserveOn(world, job.id, volume, most);
  const registers = await readRegisters(world.db);
  const { number, title, client } = project.values;
  return {
    ...planning,
    ...{ target, into: folder, name, isSideBySide: asked.isSideBySide, project: job.project, shown },
    accepted: await acceptedIn(world, job.project),
    settings: project.settings,
    mayLeaveOut: job.mayLeaveOut,
    about: {
      ...{ number: String(number ?? ''), title: String(title ?? '') },
      client: registers.clients.find(({ code }) => code === client)?.name ?? String(client ?? ''),
      folder: project.folder.split('/').at(-1) ?? '',
      ...{ recipient: asked.recipient, note: asked.note, at: job.at.toISOString(), by: job.by },
    },
  };
}

async function acceptedIn(world: World, project: string): Promise<readonly AcceptedFinding[]> {
  const rows = await listExceptions(world.db, project);
  return rows.flatMap(({ state, rule, path, accepted: { reason, by, until } }) =>
    state === 'holds' && rule !== null && path !== null ? [{ rule, path, reason, by, until: until ?? '' }] : [],
  );
}

/** Its list of contents, read from it: what is found in it later is what is there. */
function contentsOf(world: World, { volume, folder, name, asked }: PackageJob) {
  const where = whereOf(world, { volume, folder: '' });
  if (where === null) throw new Refused('no-volume', { volume });
  const top = name.replace(/\.zip$/i, '');
  const [form, root] =
    asked.kind === 'zip' ? (['sums', top] as const) : (['bag', asked.kind === 'bag' ? '' : top] as const);
  return world.disks.run('contentsOfPackage', { where, path: pathOf({ folder, name }), form, root });
}

async function fail(world: World, { id, volume, folder, name }: PackageJob, error: unknown): Promise<void> {
  const refused = refusalOf(error, { volume, path: pathOf({ folder, name }) });
  await endPackage(world.db, id, 'failed', (refused ?? new Refused('not-begun')).told);
  if (refused === null) throw error;
}
