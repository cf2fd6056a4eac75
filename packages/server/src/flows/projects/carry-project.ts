/**
 * A project is carried over: to one that is started for it, to one that is there, or to its own next revision. It is
 * planned on what lies on the disk now, looked at, and planned again by the batch that carries it out.
 */
import { createHash, randomUUID } from 'node:crypto';
import {
  type ApplyCarry,
  type CARRY_FORMS,
  type CarriedHere,
  type CarryAsked,
  type CarryBatchAsked,
  type CarryHere,
  type CarryPlan,
  type Me,
  type StartGiven,
  wayOf,
} from '@nesting/contract';
import { HOME } from '@nesting/core/change';
import { nextEntry } from '@nesting/core/lists';
import { type ListField, revisionList } from '@nesting/core/name';
import type { CarryWay, Revision } from '@nesting/core/planners';
import type { CheckInput } from '@nesting/core/project';
import { expandTemplate } from '@nesting/core/template';
import { placeWords } from '@nesting/core/words';
import type { PlannedCarry, Where } from '@nesting/disk';
import type { BatchRoot } from '../../db/queries/batches/batches';
import { recordActivity } from '../../db/queries/house/activity';
import { readRegisters } from '../../db/queries/house/registers';
import { readProject, readShape } from '../../db/queries/projects/projects';
import { untilAskerLeaves } from '../../request-context';
import { askBatch } from '../batches/ask-batch';
import type { Asker, Prepared, Project } from '../batches/prepared';
import { neighbourRoot } from '../batches/roots';
import { compileRules, mountsOf, wholePathsOf } from '../checks/check-project';
import { stateOfVolume } from '../house/volumes';
import { Refused, type World } from '../world';
import { readyVolume } from './claim-start';
import { grownBy, growTo, pathsMadeBy } from './growth';
import { type Judged, liveFolder, printedPlan } from './reshape-project';
import { planStart, startProject } from './start-project';
import { inOneTree, startSteps } from './write-start';

/** Lines a plan shows. */
const MOST_LINES = 5000;

/** Where it is carried to. */
interface Aim {
  readonly rules: CheckInput;
  /** Its whole paths, for those of the source; `null` where nobody knows them. */
  readonly rootsFor: (source: readonly string[]) => readonly string[] | null;
  /** `null` where it is not there yet. */
  readonly into: Where | null;
  readonly place: { readonly volume: string; readonly folder: string };
  /** What is made for it beforehand. */
  readonly made: number;
  /** Of a revision: how the project grows by its entry. */
  readonly growth: { readonly judged: Judged; readonly revision: Revision } | null;
}

type Target = CarryAsked['target'];

async function aimOf(world: World, me: Asker, source: Project, target: Target): Promise<Aim> {
  switch (target.kind) {
    case 'new':
      return newAim(world, target.start);
    case 'here':
      return hereAim(world, target);
    case 'there':
      return aimAt(world, source, target.project);
    case 'revision':
      return revisionAim(world, me, source, target);
  }
}

async function newAim(world: World, start: StartGiven): Promise<Aim> {
  const { base } = await readyVolume(world, start.volume);
  const { template, expansion } = await planStart(world, start, { project: randomUUID(), prefix: `${base}/` });
  const place = { volume: start.volume, folder: expansion.rootName };
  const { roots, prefix } = await wholePathsOf(world, place);
  const registers = await readRegisters(world.db);
  const rules = { template, values: expansion.values.values, registers, prefix, now: Date.now() };
  const made = expansion.folders + expansion.files;
  return { rules, rootsFor: () => roots, into: null, place, made, growth: null };
}

/** On somebody's computer all of it lies in one place. */
async function hereAim(world: World, { start, path }: CarryHere['target']): Promise<Aim> {
  const { template, expansion } = await planStart(world, inOneTree(start), { project: randomUUID(), prefix: '' });
  const folder = expansion.rootName;
  const base = path.replace(/[\\/]+$/, '');
  const prefix = base === '' ? 0 : base.length + 1;
  const registers = await readRegisters(world.db);
  return {
    rules: { template, values: expansion.values.values, registers, prefix, now: Date.now() },
    rootsFor: (source) => (base === '' ? null : source.map(() => `${base}/${folder}`)),
    into: null,
    place: { volume: '', folder },
    made: expansion.folders + expansion.files,
    growth: null,
  };
}

async function aimAt(world: World, source: Project, id: string): Promise<Aim> {
  const project = await readProject(world.db, id);
  if (project === null) throw new Refused('no-project');
  if (id === source.id) throw new Refused('carry-into-itself');
  const into = await liveFolder(world, project);
  const { input, roots } = await compileRules(world, id);
  const { volume, folder } = project;
  return { rules: input, rootsFor: () => roots, into, place: { volume, folder }, made: 0, growth: null };
}

async function revisionAim(
  world: World,
  me: Asker,
  project: Project,
  { was, now: wished }: { readonly was: string; readonly now: string | null },
): Promise<Aim> {
  const into = await liveFolder(world, project);
  const { input, roots } = await compileRules(world, project.id);
  const shape = await readShape(world.db, project.id);
  const field = revisionList(project.body.fields);
  const entries = field === undefined ? [] : entriesOf(input, field);
  const now =
    field === undefined ? null : (wished ?? nextEntry(field.of, entries, new Date().toISOString().slice(0, 10)));
  if (field === undefined || shape === null || now === null || !entries.includes(was))
    throw new Refused('no-revisions', { number: project.number });
  const values = { ...shape.values, [field.key]: [...entries, now] };
  const judged = await growTo(world, me, project, values);
  const { volume, folder } = project;
  return {
    rules: { ...input, template: judged.after, values: judged.to.values },
    rootsFor: () => roots,
    into,
    place: { volume, folder },
    made: judged.plan.changes.length,
    growth: { judged, revision: { as: field.revisions, was, now } },
  };
}

const entriesOf = ({ template, values, registers }: CheckInput, { key }: ListField): readonly string[] =>
  expandTemplate(template, values, registers).values.lists.get(key)?.all ?? [];

interface Planned {
  readonly source: Project;
  readonly plan: PlannedCarry;
  /** Folders of the source, as the batch knows them. */
  readonly from: readonly BatchRoot[];
  readonly fingerprint: string;
}

interface ToPlan {
  readonly aim: Aim;
  readonly way: CarryWay;
  readonly picked: CarryAsked['picked'];
  readonly withChanges: boolean;
}

async function planFrom(world: World, source: Project, { aim, way, picked, withChanges }: ToPlan): Promise<Planned> {
  const where = await liveFolder(world, source);
  const { input, roots } = await compileRules(world, source.id);
  const mounts = (await mountsOf(world, source)).map((mount) => ({
    ...mount,
    root: neighbourRoot({ volume: mount.volume, folder: source.folder }),
  }));
  // Of a revision it lies in the same folder.
  const root = aim.growth === null ? neighbourRoot(source) : HOME;
  const plan = await world.disks.run(
    'planCarry',
    {
      ...{ where, mounts, root, way, picked, withChanges },
      ...{ source: input, target: aim.rules, into: aim.into, startersCome: false, mostLines: MOST_LINES },
      revision: aim.growth?.revision ?? null,
      made: pathsMadeBy(aim.growth?.judged ?? null),
      roots: { source: roots, target: aim.rootsFor(roots) },
    },
    untilAskerLeaves(),
  );
  const from = [
    ...(aim.growth === null ? [{ root, volume: source.volume, folder: source.folder }] : []),
    ...mounts.map((mount) => ({ root: mount.root, volume: mount.volume, folder: source.folder })),
  ];
  return { source, plan, from, fingerprint: fingerprintOf(aim, plan) };
}

const fingerprintOf = ({ growth }: Aim, { fingerprint }: PlannedCarry): string =>
  growth === null
    ? fingerprint
    : createHash('sha256').update(`${growth.judged.fingerprint} ${fingerprint}`).digest('hex');

async function planned(world: World, me: Asker, id: string, asked: CarryAsked, withChanges: boolean) {
  const source = await readProject(world.db, id);
  if (source === null) throw new Refused('no-project');
  const aim = await aimOf(world, me, source, asked.target);
  return { aim, ...(await planFrom(world, source, { aim, way: wayOf(asked.way), picked: asked.picked, withChanges })) };
}

export async function planCarry(world: World, me: Me, id: string, asked: CarryAsked): Promise<CarryPlan> {
  const { aim, plan, fingerprint } = await planned(world, me, id, asked, false);
  const { changes: _changes, orderFaults, ...told } = plan;
  const freeBytes = aim.place.volume === '' ? null : (await stateOfVolume(world, aim.place.volume)).freeBytes;
  return {
    ...told,
    into: aim.place,
    now: aim.growth?.revision.now ?? null,
    made: aim.made,
    free: freeBytes,
    refused: [
      ...(freeBytes !== null && told.bytes > freeBytes ? [`${aim.place.volume} has no room for it.`] : []),
      ...orderFaults.map(({ at }) => `${placeWords(at)} would be wanted twice.`),
      ...(aim.growth?.judged.faults ?? []).map(({ at }) => `${at} cannot be made.`),
    ],
    fingerprint,
  };
}

export async function printCarry(
  world: World,
  me: Me,
  id: string,
  asked: CarryAsked,
  as: (typeof CARRY_FORMS)[number],
): Promise<{ readonly name: string; readonly type: string; readonly body: string }> {
  const { source, plan } = await planned(world, me, id, asked, true);
  return printedPlan(`${source.number}-carried`, as, { shown: plan.changes, all: [], base64Of: () => '' });
}

/** What was shown, for a browser that writes it into a folder of its own computer; nothing is started here. */
export async function carryHere(world: World, me: Me, id: string, asked: CarryHere): Promise<CarriedHere> {
  const { plan, fingerprint } = await planned(world, me, id, asked, true);
  requireShown(plan, fingerprint, asked.fingerprint);
  const { folder, steps } = await startSteps(world, asked.target.start);
  const project = await readProject(world.db, id);
  await recordActivity(world.db, 'carried-here', me.id, id, {
    number: project?.number ?? '',
    folder,
    files: plan.files,
  });
  return { folder, start: steps, changes: plan.changes };
}

function requireShown({ files, orderFaults: [fault] }: PlannedCarry, fingerprint: string, shown: string): void {
  if (fingerprint !== shown) throw new Refused('disk-changed');
  if (fault !== undefined)
    throw new Refused('plan-refused', { at: placeWords(fault.at), because: { code: fault.code, params: {} } });
  if (files === 0) throw new Refused('nothing-to-carry');
}

/** The next project is started, where it is not there; then what was shown is brought into it by a batch. */
export async function applyCarry(
  world: World,
  me: Me,
  id: string,
  { target, way, picked, fingerprint, key = randomUUID() }: ApplyCarry,
  wait: number,
): Promise<{ readonly project: string; readonly batch: string; readonly isDone: boolean }> {
  const project = await projectOf(world, me, id, { target, way, picked }, fingerprint);
  const revision = target.kind === 'revision' ? { was: target.was, now: target.now } : null;
  const asked = { source: id, way, picked, revision };
  const to = { id: key, project, what: 'carry', undoes: null };
  const { batch, isDone } = await askBatch(world, me, { ...to, asked: { kind: 'carry', asked, fingerprint } }, wait);
  return { project, batch, isDone };
}

/** Nothing is started for a plan that is another one by now. */
async function projectOf(
  world: World,
  me: Me,
  id: string,
  asked: Pick<ApplyCarry, 'target' | 'way' | 'picked'>,
  fingerprint: string,
): Promise<string> {
  const { target } = asked;
  switch (target.kind) {
    case 'there':
      return target.project;
    case 'revision':
      return id;
    case 'new': {
      // Asked again after an answer that was lost: what was started then is gone on with.
      const { key } = target.start;
      if (key !== undefined && (await readProject(world.db, key)) !== null)
        return (await startProject(world, me.id, target.start)).id;
      const { plan, fingerprint: now } = await planned(world, me, id, asked, false);
      if (now !== fingerprint) throw new Refused('disk-changed');
      if (plan.files === 0) throw new Refused('nothing-to-carry');
      return (await startProject(world, me.id, target.start)).id;
    }
  }
}

/** What was shown, and nothing else: the plan is made again, and refused where it is another one. */
export async function prepareCarry(
  world: World,
  me: Asker,
  id: string,
  { asked, fingerprint }: { readonly asked: CarryBatchAsked; readonly fingerprint: string },
): Promise<Prepared> {
  const [source, project] = [await readProject(world.db, asked.source), await readProject(world.db, id)];
  const shape = await readShape(world.db, id);
  if (source === null || project === null || shape === null) throw new Refused('no-project');
  const aim =
    asked.revision === null ? await aimAt(world, source, id) : await revisionAim(world, me, project, asked.revision);
  const way = wayOf(asked.way);
  const carried = await planFrom(world, source, { aim, way, picked: asked.picked, withChanges: true });
  requireShown(carried.plan, carried.fingerprint, fingerprint);
  const grown = await grownBy(world, aim.growth?.judged ?? null);
  return {
    project,
    where: aim.into ?? (await liveFolder(world, project)),
    what: 'carry',
    from: shape,
    to: aim.growth?.judged.to ?? shape,
    changes: [...grown.changes, ...carried.plan.changes],
    contents: grown.contents,
    neighbours: carried.from,
  };
}
