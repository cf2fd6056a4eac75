/**
 * A project's folder is walked, judged and looked into by processes of their own, under a job that anybody may take over; what
 * was found is stored in one transaction.
 */

import { createHash, randomUUID } from 'node:crypto';
import { SYSTEMS } from '@nesting/contract';
import type { Values } from '@nesting/core/name';
import { type CheckInput, pathOn } from '@nesting/core/project';
import { expandTemplate, type Template } from '@nesting/core/template';
import { DiskError, type FileFacts, type Gathered, type Mount, type Seen, type Where } from '@nesting/disk';
import { sqlFault } from '../../db/client';
import {
  askAgain,
  cancelledCheck,
  checksWantedAgain,
  dueProjects,
  failCheck,
  insertCheck,
  keepGathered,
  openCheck,
  readGathered,
  readMemory,
  resumeCheck,
  setCheckProgress,
  silentChecks,
  stopCheck,
  takeUpCheck,
  takeWantedAgain,
} from '../../db/queries/checks/checks';
import { readRegisters } from '../../db/queries/house/registers';
import { readPrefixes } from '../../db/queries/house/volumes';
import { readProject } from '../../db/queries/projects/projects';
import { heartbeat } from '../../jobs/heartbeat';
import { onBehalfOf } from '../../request-context';
import { diskRefusal, projectWhere, volumeRoot, whereOf } from '../place';
import { Refused, type World } from '../world';
import { packed, unpacked } from './packed';
import { storeCheck } from './store-check';

/** Named in what is remembered: another form of it is not read. */
const MEMORY_FORM = 3;

/** Queues a check; one that waits or runs already is given instead. */
export async function checkProject(
  world: World,
  project: string,
  person: string | null,
  what: 'whole' | 'quick' = 'whole',
): Promise<string> {
  const open = await openCheck(world.db, project);
  if (open !== null) return open;
  const id = randomUUID();
  try {
    await insertCheck(world.db, id, project, person, what);
  } catch (error) {
    // Somebody asked at the same moment: theirs is this one too.
    const other = sqlFault(error)?.constraint === 'check_run_open' ? await openCheck(world.db, project) : null;
    if (other === null) throw error;
    return other;
  }
  await world.checks.add(id);
  return id;
}

/** After a change: one that runs has seen what was before, and is done once more. */
export async function checkChanged(
  world: World,
  project: string,
  person: string | null,
  what: 'whole' | 'quick' = 'whole',
): Promise<void> {
  if (!(await askAgain(world.db, project))) await checkProject(world, project, person, what);
}

export async function cancelCheck(world: World, id: string): Promise<void> {
  if (!(await stopCheck(world.db, id))) throw new Refused('check-over');
}

/** A cancelled check goes on where it was. */
export async function goOnWithCheck(world: World, id: string): Promise<void> {
  if ((await resumeCheck(world.db, id)) === null) throw new Refused('cannot-go-on');
  await world.checks.add(id);
}

/** What holds all the same where a project cannot be checked. */
const LAST_STANDS = 'The findings of the last check still stand.';

/** Projects whose time has come, and checks whose worker fell silent. */
export async function takeOverSilentChecks(world: World): Promise<void> {
  for (const project of await dueProjects(world.db)) await checkProject(world, project, null);
  for (const id of await silentChecks(world.db, world.config.leaseMs)) await world.checks.add(id);
  for (const id of await checksWantedAgain(world.db)) await againIfWanted(world, id);
}

/**
 * What a job does. Called once more for a check whose worker was killed; does nothing for one that is done or in good
 * hands.
 */
export async function runCheck(world: World, id: string): Promise<void> {
  const { db, config } = world;
  const runner = randomUUID();
  const taken = await takeUpCheck(db, id, runner, config.leaseMs);
  if (taken === null) return;
  try {
    await onBehalfOf(taken.request, () => check(world, { id, runner, ...taken }));
  } catch (error) {
    const refused = error instanceof DiskError ? diskRefusal(error) : error instanceof Refused ? error : null;
    const why = error instanceof Error ? error.message : 'unknown';
    await failCheck(
      db,
      id,
      runner,
      refused === null ? `The check ended early: ${why}.` : `${refused.message} ${LAST_STANDS}`,
    );
    if (refused === null) throw error;
  } finally {
    await againIfWanted(world, id);
  }
}

async function againIfWanted(world: World, id: string): Promise<void> {
  const project = await takeWantedAgain(world.db, id);
  if (project !== null) await checkProject(world, project, null);
}

interface Taken {
  readonly id: string;
  readonly runner: string;
  readonly project: string;
  readonly what: 'whole' | 'quick';
}

async function check(world: World, taken: Taken): Promise<void> {
  const { config, db, disks } = world;
  const { id, runner } = taken;
  const { where, mounts, input, roots, rules } = await compileRules(world, taken.project);
  const from = await unpacked<Gathered>(await readGathered(db, id));
  const memory = await readMemory(db, taken.project);
  const remembered = memory?.rules === rules ? memory : null;
  const since = taken.what === 'quick' && from === null ? await unpacked<Seen>(remembered?.part ?? null) : null;
  // What stands in a file does not hang on the rules.
  const known = await unpacked<readonly FileFacts[]>(memory?.looked ?? null);
  const abort = new AbortController();
  const at: CheckProgress = { files: 0, folders: 0, stage: 'walking' };
  const quiet = heartbeat(() => setCheckProgress(db, id, runner, at.files, at.folders, at.stage), abort);
  try {
    const task = {
      where,
      mounts,
      input,
      fingerprint: rules,
      helper: config.diskProgram?.href ?? null,
      contents: { roots, known: known ?? [] },
      gatherEvery: config.gatherEvery,
      ...(since !== null && { since }),
      ...(from !== null && { from }),
    };
    const outcome = await disks.run('check', task, {
      signal: abort.signal,
      told: async (told) => {
        if (told.kind === 'progress') Object.assign(at, told);
        else await keepGathered(db, id, runner, await packed(told.gathered));
      },
    });
    if (outcome.cancelled) await cancelledCheck(db, id, runner);
    else
      await storeCheck(
        world,
        // Where whole paths lead hangs on where the project lies, which is among the rules.
        { id, runner, project: taken.project, rules, roots, known: remembered === null ? null : known },
        outcome,
      );
  } finally {
    quiet();
  }
}

interface CheckProgress {
  readonly files: number;
  readonly folders: number;
  readonly stage: 'walking' | 'reading';
}

/** Where its folder would be; nothing is looked at. */
function configuredWhere(
  world: World,
  { volume, folder }: { readonly volume: string; readonly folder: string },
): Where {
  const where = whereOf(world, { volume, folder });
  if (where === null) throw new Refused('no-volume', { volume });
  return where;
}

/** A project's rules and its folder, as a check goes by them: with its folder there, unless that does not matter. */
export async function compileRules(
  world: World,
  projectId: string,
  { isThere = true }: { readonly isThere?: boolean } = {},
): Promise<{
  readonly where: Where;
  readonly mounts: readonly Mount[];
  readonly input: CheckInput;
  readonly roots: string[];
  readonly rules: string;
}> {
  const project = await readProject(world.db, projectId);
  if (project === null) throw new Refused('no-project');
  const where = isThere ? await projectWhere(world, project) : configuredWhere(world, project);
  const registers = await readRegisters(world.db);
  const { roots, prefix } = await wholePathsOf(world, project);
  const { body: template, values, settings } = project;
  const standing = { template, values, settings, registers, prefix };
  return {
    where,
    mounts: await mountsOf(world, project),
    input: { ...standing, now: Date.now() },
    roots,
    rules: createHash('sha256')
      .update(`${MEMORY_FORM}${JSON.stringify({ ...standing, roots })}`)
      .digest('hex'),
  };
}

/** Whole paths of a folder on each system, and the length of what stands before its name on the one with the longest. */
export async function wholePathsOf(
  world: World,
  { volume, folder }: { readonly volume: string; readonly folder: string },
): Promise<{ readonly roots: string[]; readonly prefix: number }> {
  const prefixes = (await readPrefixes(world.db)).get(volume);
  const elsewhere = SYSTEMS.flatMap((system) =>
    prefixes?.[system] ? [pathOn(system, prefixes[system], folder, '')] : [],
  );
  const prefix = Math.max(0, ...elsewhere.map((whole) => whole.length - folder.length));
  return { roots: [`${volumeRoot(world, volume) ?? ''}/${folder}`, ...elsewhere], prefix };
}

/** Folders of a project that were redirected, where their volume can be reached. */
export async function mountsOf(
  world: World,
  project: { readonly body: Template; readonly values: Values; readonly folder: string },
): Promise<(Mount & { readonly volume: string })[]> {
  if (!Object.values(project.body.adjusted ?? {}).some((a) => a.volume !== undefined)) return [];
  const { lines } = expandTemplate(project.body, project.values, await readRegisters(world.db));
  return lines.flatMap((line) => {
    const volume = project.body.adjusted?.[line.key]?.volume;
    if (line.kind !== 'folder' || volume === undefined) return [];
    const where = whereOf(world, { volume, folder: project.folder });
    return where === null ? [] : [{ path: line.path, where, volume }];
  });
}
