/**
 * A project grows, changes or takes another edition. It is planned on what lies on the disk now, looked at, and planned
 * again by the batch that carries it out.
 */
import { createHash } from 'node:crypto';
import type { Me, PlanForm, ProjectShape, ReshapeAsked, ReshapePlan } from '@nesting/contract';
import { coded, type Params } from '@nesting/core';
import { type Change, type Content, isNew, type NewContent, orderChanges } from '@nesting/core/change';
import { projectFolderChange } from '@nesting/core/planners';
import { nameFaults } from '@nesting/core/portable';
import { changesCsv, changesJson, changesPowerShell, changesSh, changesText } from '@nesting/core/report';
import type { Template } from '@nesting/core/template';
import { base64 } from '@nesting/core/text';
import { placeWords, type RefusalParams, wordsFor } from '@nesting/core/words';
import type { PlannedReshape, Where } from '@nesting/disk';
import { reservedFor } from '../../db/queries/house/numbers';
import { readRegisters } from '../../db/queries/house/registers';
import { projectsAt, readProject, readShape } from '../../db/queries/projects/projects';
import { readStarters } from '../../db/queries/rules/templates';
import { untilAskerLeaves } from '../../request-context';
import type { Asker, Prepared, Project } from '../batches/prepared';
import { hindranceAt, projectWhere, volumeRoot } from '../place';
import { Refused, type World } from '../world';
import { requireArtistMay } from './artist-permissions';
import { contentBytes, contentsOf } from './contents';
import { rulesOf, shapeAsked } from './project-rules';

/** A change judged: what it makes of the project, and whether that may be. */
export interface Judged {
  readonly project: Project;
  readonly where: Where;
  readonly from: ProjectShape;
  readonly to: ProjectShape;
  /** The rules it is to have. */
  readonly after: Template;
  readonly plan: PlannedReshape;
  readonly folder: ReshapePlan['folder'];
  readonly faults: readonly PlanFault[];
  readonly fingerprint: string;
}

/** Lines a plan shows. */
const MOST_LINES = 5000;

export async function planReshape(world: World, me: Me, id: string, asked: ReshapeAsked): Promise<ReshapePlan> {
  const { plan, folder, faults, fingerprint } = await judgeReshape(world, me, { id, asked, withChanges: false });
  const { lines, all, counts, kept, longest, budget } = plan;
  return { lines, all, counts, kept, folder, refused: faults.map(faultWords), fingerprint, longest, budget };
}

/** The project's folder, as it may be worked in. */
export async function liveFolder(
  world: World,
  project: { readonly volume: string; readonly folder: string; readonly state: string },
): Promise<Where> {
  if (project.state === 'starting' || project.state === 'failed' || project.state === 'packed')
    throw new Refused('not-running');
  return projectWhere(world, project);
}

/** What stands against it, and at which line or field. */
type PlanFault = RefusalParams<'plan-refused'>;

interface ToJudge {
  readonly id: string;
  readonly asked: ReshapeAsked;
  /** Whether the plan is to be carried out or written, and not only looked at. */
  readonly withChanges: boolean;
}

export async function judgeReshape(world: World, me: Asker, { id, asked, withChanges }: ToJudge): Promise<Judged> {
  const { db } = world;
  const project = await readProject(db, id);
  const from = project === null ? null : await readShape(db, id);
  if (project === null || from === null) throw new Refused('no-project');
  if (project.version !== asked.version) throw new Refused('project-changed', { number: project.number });
  const where = await liveFolder(world, project);
  const registers = await readRegisters(db);
  const wished = await shapeAsked(db, from, asked);
  const after = await rulesOf(db, wished, project.own);
  if (me.role === 'artist') requireArtistMay(project.body, from, wished, asked, registers);
  const task = {
    where,
    before: { template: project.body, values: project.values, registers },
    after: { template: after, values: wished.values, registers },
    prefix: `${volumeRoot(world, project.volume)}/`,
    renamed: asked.renamed,
    extra: asked.extra,
    keep: asked.keep,
    project: { id, startedAt: project.startedAt, settings: project.settings },
    mostLines: MOST_LINES,
    withChanges,
  };
  const plan = await world.disks.run('planReshape', task, untilAskerLeaves());
  const folder = asked.keepFolder ? null : folderRenamed(from.folder, plan.rootNames);
  const to: ProjectShape = { ...wished, values: plan.values, folder: folder?.to ?? from.folder };
  const fingerprint = createHash('sha256')
    .update(JSON.stringify([to, plan.fingerprint]))
    .digest('hex');
  const judged = { project, where, from, to, after, plan, folder, fingerprint };
  return { ...judged, faults: await faultsOf(world, judged, asked) };
}

/** A folder with a name of its own, as an adopted one has, keeps it. */
function folderRenamed(from: string, rootNames: PlannedReshape['rootNames']): ReshapePlan['folder'] {
  const { before, after } = rootNames;
  const isRenamed = from.split('/').at(-1) === before && after !== before;
  return isRenamed ? { from, to: `${from.slice(0, from.lastIndexOf('/') + 1)}${after}` } : null;
}

async function faultsOf(
  world: World,
  { project, to, folder, plan, after }: Omit<Judged, 'faults'>,
  asked: ReshapeAsked,
): Promise<PlanFault[]> {
  const out: PlanFault[] = plan.refused.map((d) => ({ at: d.line ?? d.field ?? '', because: coded(d) }));
  const add = (code: string, params: Params = {}) => out.push({ at: '', because: { code, params } });
  const number = String(to.values.number ?? '');
  if (number === '') add('number-missing');
  if (number !== project.number && (await projectsAt(world.db, number, '', '')).number) add('number-taken', { number });
  const why = number === project.number ? null : await reservedFor(world.db, number, project.id);
  if (why !== null) add('number-reserved', { number, why });
  if (folder !== null) {
    const hindrance = await hindranceAt(world, { volume: project.volume, folder: folder.to });
    const onlyCase = folder.to.toLowerCase() === folder.from.toLowerCase();
    if ((hindrance === null || hindrance === 'path-link') && !onlyCase)
      add('folder-there', { folder: folder.to, volume: project.volume });
  }
  for (const { name } of asked.extra)
    if (nameFaults(name, after.checks?.profiles ?? ['windows', 'macos']).some((f) => f.weight === 'refused'))
      add('no-file-name', { name });
  for (const { at, code } of plan.orderFaults) out.push({ at: placeWords(at), because: { code, params: {} } });
  return out;
}

const faultWords = ({ at, because }: PlanFault): string =>
  `${at === '' ? '' : `${at}: `}${wordsFor(because.code, because.params)}`;

/** What it is about, for lists of batches. */
const aboutOf = ({ from, to, plan }: Judged): string =>
  from.template !== to.template || from.edition !== to.edition
    ? 'edition'
    : plan.counts.renamed === undefined
      ? 'grow'
      : 'change';

export async function bytesOfReshape(
  world: World,
  { to, after, plan }: Judged,
): Promise<(content: NewContent) => Uint8Array> {
  const starters = await readStarters(world.db, to.template, to.edition);
  return (content) => contentBytes(content, starters, { ...plan, fields: after.fields });
}

/** What was shown, and nothing else: the plan is made again, and refused where it is another one. */
export async function prepareReshape(
  world: World,
  me: Asker,
  project: string,
  { asked, fingerprint }: { readonly asked: ReshapeAsked; readonly fingerprint: string },
): Promise<Prepared> {
  const judged = await judgeReshape(world, me, { id: project, asked, withChanges: true });
  const [fault] = judged.faults;
  if (fault !== undefined) throw new Refused('plan-refused', fault);
  if (judged.fingerprint !== fingerprint) throw new Refused('disk-changed');
  const { where, from, to, plan, folder } = judged;
  const renamed = folder === null ? [] : [projectFolderChange(folder.from, folder.to)];
  const changes = [...plan.changes, ...plan.own, ...renamed];
  const contents = contentsOf(changes, await bytesOfReshape(world, judged));
  return { project: judged.project, where, what: aboutOf(judged), from, to, changes, contents };
}

export async function printReshape(
  world: World,
  me: Me,
  id: string,
  asked: ReshapeAsked,
  as: PlanForm,
): Promise<{ readonly name: string; readonly type: string; readonly body: string }> {
  const judged = await judgeReshape(world, me, { id, asked, withChanges: true });
  const { plan, project } = judged;
  const bytesOf = await bytesOfReshape(world, judged);
  const base64Of = (content: Content) => base64(isNew(content) ? bytesOf(content) : new Uint8Array());
  // The folder itself is renamed by whoever runs a script in it.
  const inFolder = [...plan.changes, ...plan.own];
  return printedPlan(`${project.number}-plan`, as, { shown: plan.changes, all: inFolder, base64Of });
}

interface ToPrint {
  /** What is listed; scripts do all of it. */
  readonly shown: readonly Change[];
  readonly all: readonly Change[];
  readonly base64Of: (content: Content) => string;
}

/** A plan for people, for a table, or for a shell. */
export function printedPlan(
  name: string,
  as: PlanForm,
  { shown, all, base64Of }: ToPrint,
): { readonly name: string; readonly type: string; readonly body: string } {
  const type = 'text/plain; charset=utf-8';
  switch (as) {
    case 'text':
      return { type, name: `${name}.txt`, body: changesText(shown) };
    case 'csv':
      return { type, name: `${name}.csv`, body: changesCsv(shown) };
    case 'json':
      return { type, name: `${name}.json`, body: changesJson(shown) };
    case 'sh':
      return { type, name: `${name}.sh`, body: changesSh(orderChanges(all).steps, base64Of) };
    case 'powershell':
      return { type, name: `${name}.ps1`, body: `\ufeff${changesPowerShell(orderChanges(all).steps, base64Of)}` };
  }
}
