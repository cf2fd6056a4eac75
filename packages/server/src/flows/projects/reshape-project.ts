/**
 * A project grows, changes or takes another edition. It is planned on what lies on the disk now, looked at, and planned
 * again by the batch that carries it out.
 */
import { createHash } from 'node:crypto';
import type { Me, PlanForm, ProjectShape, ReshapeAsked, ReshapePlan } from '@nesting/contract';
import { type Change, type Content, isNew, type NewContent, orderChanges } from '@nesting/core/change';
import { projectFolderChange, type Reshape } from '@nesting/core/planners';
import { nameFaults } from '@nesting/core/portable';
import { changesCsv, changesJson, changesPowerShell, changesSh, changesText } from '@nesting/core/report';
import { type Expansion, expandTemplate, type Template } from '@nesting/core/template';
import { base64 } from '@nesting/core/text';
import { placeWords, wordsFor } from '@nesting/core/words';
import type { Where } from '@nesting/disk';
import { reservedFor } from '../../db/queries/house/numbers';
import { readRegisters } from '../../db/queries/house/registers';
import { projectsAt, readProject, readShape } from '../../db/queries/projects/projects';
import { readStarters } from '../../db/queries/rules/templates';
import { untilAskerLeaves } from '../../http/request-context';
import type { Asker, Prepared, Project } from '../batches/prepared';
import { hindranceAt, projectWhere, volumeRoot } from '../place';
import { Refused, type World } from '../world';
import { requireArtistMay } from './artist-permissions';
import { contentBytes, contentsOf } from './contents';
import { ownChanges, rulesOf, shapeAsked } from './project-rules';

/** A change judged: what it does, and the bytes of it. */
export interface Reshaping {
  readonly project: Project;
  readonly where: Where;
  readonly from: ProjectShape;
  readonly to: ProjectShape;
  readonly plan: Reshape;
  readonly changes: readonly Change[];
  readonly expansion: Expansion;
  readonly folder: ReshapePlan['folder'];
  readonly refused: readonly string[];
  readonly fingerprint: string;
  readonly bytesOf: (content: NewContent) => Uint8Array;
}

/** Lines a plan shows: beyond these nobody reads on, and the counts say the rest. */
const MOST_LINES = 5000;

export async function planReshape(world: World, me: Me, id: string, asked: ReshapeAsked): Promise<ReshapePlan> {
  const { plan, folder, refused, fingerprint, expansion } = await judge(world, me, id, asked);
  const counts: Partial<Record<Reshape['lines'][number]['sign'], number>> = {};
  for (const line of plan.lines) counts[line.sign] = (counts[line.sign] ?? 0) + line.count;
  return {
    lines: plan.lines.slice(0, MOST_LINES),
    all: plan.lines.length,
    counts,
    kept: plan.kept,
    folder,
    refused,
    fingerprint,
    longest: expansion.longest,
    budget: expansion.budget,
  };
}

/** The project's folder, as it may be worked in. */
async function liveFolder(
  world: World,
  project: { readonly volume: string; readonly folder: string; readonly state: string },
): Promise<Where> {
  if (project.state === 'starting' || project.state === 'failed' || project.state === 'packed')
    throw new Refused(409, 'not-running', 'This project has no folder to be changed just now.');
  return projectWhere(world, project, 'Nothing was changed.');
}

async function judge(world: World, me: Asker, id: string, asked: ReshapeAsked): Promise<Reshaping> {
  const { db } = world;
  const project = await readProject(db, id);
  const from = project === null ? null : await readShape(db, id);
  if (project === null || from === null) throw new Refused(404, 'not-found', 'There is no such project.');
  if (project.version !== asked.version)
    throw new Refused(
      409,
      'project-changed',
      `Somebody else changed ${project.number} since you opened it. Nothing was changed; look at it anew.`,
    );
  const where = await liveFolder(world, project);
  const registers = await readRegisters(db);
  const wished = await shapeAsked(db, from, asked);
  const after = await rulesOf(db, wished, project.own);
  if (me.role === 'artist') requireArtistMay(project.body, from, wished, asked, registers);
  const prefix = `${volumeRoot(world, project.volume)}/`;
  const expansion = expandTemplate(after, wished.values, registers, { prefix });
  const before = expandTemplate(project.body, project.values, registers);
  const asking = untilAskerLeaves();
  const task = {
    where,
    before: { template: project.body, values: project.values, registers },
    after: { template: after, values: wished.values, registers },
    renamed: asked.renamed,
    extra: asked.extra,
    keep: asked.keep,
  };
  const plan = await world.disks.run('planOnDisk', task, asking);
  // A folder with a name of its own, as an adopted one has, keeps it.
  const named =
    !asked.keepFolder && from.folder.split('/').at(-1) === before.rootName && expansion.rootName !== before.rootName;
  const above = from.folder.slice(0, from.folder.lastIndexOf('/') + 1);
  const folder = named ? { from: from.folder, to: `${above}${expansion.rootName}` } : null;
  const to: ProjectShape = { ...wished, values: expansion.values.values, folder: folder?.to ?? from.folder };
  const own = await ownChanges(world, where, project, after, to.values);
  const renamed = folder === null ? [] : [projectFolderChange(folder.from, folder.to)];
  const changes = [...plan.changes, ...own, ...renamed];
  const refused = await refusals(world, project, asked, to, folder, expansion, changes, after);
  const fingerprint = createHash('sha256')
    .update(JSON.stringify([to, plan.changes]))
    .digest('hex');
  const starters = await readStarters(db, to.template, to.edition);
  const bytesOf = (content: NewContent): Uint8Array => contentBytes(content, starters, after, expansion);
  return { project, where, from, to, plan, changes, expansion, folder, refused, fingerprint, bytesOf };
}

async function refusals(
  world: World,
  project: Project,
  asked: ReshapeAsked,
  to: ProjectShape,
  folder: ReshapePlan['folder'],
  expansion: Expansion,
  changes: readonly Change[],
  after: Template,
): Promise<string[]> {
  const out = expansion.diagnostics
    .filter((d) => d.weight === 'refused')
    .slice(0, 20)
    .map((d) => `${d.line ?? d.field ?? ''}: ${wordsFor(d.code, d.params)}`);
  const number = String(to.values.number ?? '');
  if (number === '') out.push('A project needs a number.');
  if (number !== project.number && (await projectsAt(world.db, number, '', '')).number)
    out.push(`The number ${number} belongs to another project.`);
  const kept = number === project.number ? null : await reservedFor(world.db, number, project.id);
  if (kept !== null) out.push(`The number ${number} is reserved: ${kept}`);
  if (folder !== null) {
    const hindrance = await hindranceAt(world, { volume: project.volume, folder: folder.to });
    const onlyCase = folder.to.toLowerCase() === folder.from.toLowerCase();
    if ((hindrance === null || hindrance === 'path-link') && !onlyCase)
      out.push(`A folder ${folder.to} is there already on ${project.volume}.`);
  }
  for (const { name } of asked.extra)
    if (nameFaults(name, after.checks?.profiles ?? ['windows', 'macos']).some((f) => f.weight === 'refused'))
      out.push(`${name} is no name for a file.`);
  for (const fault of orderChanges(changes).faults.slice(0, 20))
    out.push(`${placeWords(fault.at)}: ${wordsFor(fault.code, {})}`);
  return out;
}

/** What it is about, for lists of batches. */
const aboutOf = ({ from, to, plan }: Reshaping): string =>
  from.template !== to.template || from.edition !== to.edition
    ? 'edition'
    : plan.lines.some((l) => l.sign === 'renamed')
      ? 'change'
      : 'grow';

/** What was shown, and nothing else: the plan is made again, and refused where it is another one. */
export async function prepareReshape(
  world: World,
  me: Asker,
  project: string,
  { asked, fingerprint }: { readonly asked: ReshapeAsked; readonly fingerprint: string },
): Promise<Prepared> {
  const reshaping = await judge(world, me, project, asked);
  if (reshaping.refused.length > 0)
    throw new Refused(422, 'plan-refused', `${reshaping.refused[0]} Nothing was changed.`);
  if (reshaping.fingerprint !== fingerprint)
    throw new Refused(
      409,
      'disk-changed',
      'The disk or the rules changed since this plan was shown. Nothing was changed; the plan is made anew.',
    );
  const { where, from, to, changes, bytesOf } = reshaping;
  const contents = contentsOf(changes, bytesOf);
  return { project: reshaping.project, where, what: aboutOf(reshaping), from, to, changes, contents };
}

export async function printReshape(
  world: World,
  me: Me,
  id: string,
  asked: ReshapeAsked,
  as: PlanForm,
): Promise<{ readonly name: string; readonly text: string }> {
  const { changes, plan, project, bytesOf } = await judge(world, me, id, asked);
  const base64Of = (content: Content) => base64(isNew(content) ? bytesOf(content) : new Uint8Array());
  // The folder itself is renamed by whoever runs a script in it.
  const inFolder = changes.filter(({ subject }) => subject.kind !== 'project');
  const name = `${project.number}-plan`;
  switch (as) {
    case 'text':
      return { name: `${name}.txt`, text: changesText(plan.changes) };
    case 'csv':
      return { name: `${name}.csv`, text: changesCsv(plan.changes) };
    case 'json':
      return { name: `${name}.json`, text: changesJson(plan.changes) };
    case 'sh':
      return { name: `${name}.sh`, text: changesSh(orderChanges(inFolder).steps, base64Of) };
    case 'powershell':
      return { name: `${name}.ps1`, text: `\ufeff${changesPowerShell(orderChanges(inFolder).steps, base64Of)}` };
  }
}
