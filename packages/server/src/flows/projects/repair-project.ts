/**
 * Findings of a project are put right: planned on what lies on the disk now, looked at, and planned again by the batch
 * that carries it out.
 */
import {
  type Me,
  type MentionedReply,
  MOST_REPAIRED,
  type PlanForm,
  type RepairAsked,
  type RepairPlan,
} from '@nesting/contract';
import { type Content, HOME, isNew } from '@nesting/core/change';
import type { RuleCode } from '@nesting/core/check';
import type { DocumentFacts, ToRepair } from '@nesting/core/planners';
import { base64 } from '@nesting/core/text';
import { placeWords, wordsFor } from '@nesting/core/words';
import type { NeighbourTask, PlannedRepair, Where } from '@nesting/disk';
import { readMemory } from '../../db/queries/checks/checks';
import { findingsToRepair } from '../../db/queries/checks/findings';
import { readListings, readReferences } from '../../db/queries/checks/kept';
import { readRegisters } from '../../db/queries/house/registers';
import { type PlacedProject, projectsNamed, readProject, readShape } from '../../db/queries/projects/projects';
import { readStarters } from '../../db/queries/rules/templates';
import { untilAskerLeaves } from '../../request-context';
import type { Asker, Prepared, Project } from '../batches/prepared';
import { neighbourRoot, neighboursIn } from '../batches/roots';
import { compileRules } from '../checks/check-project';
import { Refused, type World } from '../world';
import { contentBytes, contentsOf } from './contents';
import { liveFolder, printedPlan } from './reshape-project';

interface Planned {
  readonly project: Project;
  readonly where: Where;
  /** By which it was planned, milliseconds since 1970. */
  readonly now: number;
  /** Whether whoever asks may carry it out. */
  readonly mayApply: boolean;
  readonly plan: PlannedRepair;
}

interface Wanted {
  readonly withChanges: boolean;
  readonly mostLines?: number;
  /** Bytes of other programs' documents; none are searched where it is absent. */
  readonly mostSearched?: number;
}

async function plan(
  world: World,
  me: Asker,
  id: string,
  asked: RepairAsked,
  { withChanges, mostLines = MOST_REPAIRED, mostSearched }: Wanted,
): Promise<Planned> {
  const project = await readProject(world.db, id);
  if (project === null) throw new Refused('no-project');
  const where = await liveFolder(world, project);
  const { mounts, input, roots } = await compileRules(world, id);
  // What is lately written is judged by one clock, when it is looked at and when it is done.
  const now = asked.now ?? input.now ?? 0;
  const findings = await findingsToRepair(world.db, id, { ...asked, most: MOST_REPAIRED });
  const neighbours = me.role === 'coordinator' ? await neighboursFor(world, id, findings) : [];
  const task = {
    where,
    mounts,
    rules: { ...input, now },
    findings,
    answers: asked.answers,
    from: asked.from,
    roots,
    documents: await documentsOf(world, id),
    neighbours,
    listings: findings.some(({ rule }) => SEARCHED.has(rule)) ? await readListings(world.db, id) : [],
    mostLines,
    withChanges,
    mostSearched: mostSearched ?? null,
  };
  const mayApply = me.role !== 'artist' || isOwn(project, me.initials, findings);
  return { project, where, now, mayApply, plan: await world.disks.run('planRepair', task, untilAskerLeaves()) };
}

/** Running projects that names of these findings may belong to. */
async function neighboursFor(world: World, id: string, findings: readonly ToRepair[]): Promise<NeighbourTask[]> {
  const foreign = findings.filter(({ rule }) => rule === 'foreign-project');
  const named = (param: string) => [...new Set(foreign.map(({ params }) => String(params[param] ?? '')))];
  if (foreign.length === 0) return [];
  const projects = await projectsNamed(world.db, { not: id, numbers: named('number'), clients: named('client') });
  return (await Promise.all(projects.map((project) => asNeighbour(world, project)))).flat();
}

/** One that cannot be reached takes nothing. */
async function asNeighbour(world: World, project: PlacedProject): Promise<NeighbourTask[]> {
  try {
    const { where, input } = await compileRules(world, project.id);
    return [{ root: neighbourRoot(project), where, rules: input }];
  } catch (error) {
    if (error instanceof Refused) return [];
    throw error;
  }
}

/** What the last check read out of documents; `null` where none has kept anything. */
async function documentsOf(world: World, project: string): Promise<readonly DocumentFacts[] | null> {
  return (await readMemory(world.db, project)) === null ? null : readReferences(world.db, project);
}

/** Rules whose remedies look for a file by its name, wherever it lies. */
const SEARCHED: ReadonlySet<string> = new Set<RuleCode>(['absolute-reference', 'broken-reference']);

/** Artists put right what carries their initials or was given to them, where the template lets them. */
const isOwn = ({ body }: Project, initials: string, findings: readonly { readonly to: string | null }[]): boolean =>
  body.checks?.artistsMayRepair === true && findings.every(({ to }) => to === initials);

export async function planRepair(world: World, me: Me, id: string, asked: RepairAsked): Promise<RepairPlan> {
  const { plan: planned, now, mayApply } = await plan(world, me, id, asked, { withChanges: false });
  const { lines, all, counts, documents, byHand, entries, bytes, fingerprint, orderFaults } = planned;
  const refused = orderFaults.map(({ at, code }) => `${placeWords(at)}: ${wordsFor(code, {})}`);
  return { lines, all, counts, documents, byHand, entries, bytes, fingerprint, now, mayApply, refused };
}

/** Bytes of other programs' documents that are read without being asked to: a second's work. */
const SEARCHED_AT_ONCE = 256 * 2 ** 20;

export async function mentionsIn(
  world: World,
  me: Me,
  id: string,
  { isAll, ...asked }: RepairAsked & { readonly isAll: boolean },
): Promise<MentionedReply> {
  const mostSearched = isAll ? Number.MAX_SAFE_INTEGER : SEARCHED_AT_ONCE;
  const { plan: planned } = await plan(world, me, id, asked, { withChanges: false, mostLines: 0, mostSearched });
  return planned.mentioned ?? { files: 0, bytes: 0, isSearched: false, references: [] };
}

/** Every line of a plan that whoever asks may carry out. */
export async function planLines(
  world: World,
  me: Asker,
  id: string,
  asked: RepairAsked,
): Promise<Pick<PlannedRepair, 'lines' | 'fingerprint'> & { readonly now: number }> {
  const { project, mayApply, now, plan: planned } = await plan(world, me, id, asked, { withChanges: false });
  if (!mayApply) throw new Refused('not-yours-to-repair', { number: project.number });
  return { lines: planned.lines, fingerprint: planned.fingerprint, now };
}

/** What was shown, and nothing else: the plan is made again, and refused where it is another one. */
export async function prepareRepair(
  world: World,
  me: Asker,
  id: string,
  { asked, fingerprint }: { readonly asked: RepairAsked; readonly fingerprint: string },
): Promise<Prepared> {
  const { project, where, mayApply, plan: planned } = await plan(world, me, id, asked, { withChanges: true });
  if (!mayApply) throw new Refused('not-yours-to-repair', { number: project.number });
  const [fault] = planned.orderFaults;
  if (fault !== undefined)
    throw new Refused('plan-refused', { at: placeWords(fault.at), because: { code: fault.code, params: {} } });
  if (planned.fingerprint !== fingerprint) throw new Refused('disk-changed');
  if (planned.changes.length === 0) throw new Refused('nothing-to-repair');
  const shape = await readShape(world.db, id);
  if (shape === null) throw new Refused('no-project');
  const contents = contentsOf(planned.changes, await bytesFor(world, project));
  const { changes } = planned;
  const neighbours = neighboursIn(changes);
  return { project, where, what: 'repair', from: shape, to: shape, changes, contents, neighbours };
}

async function bytesFor(world: World, project: Project) {
  const starters = await readStarters(world.db, project.template.id, project.template.edition);
  const registers = await readRegisters(world.db);
  const filling = { values: project.values, fields: project.body.fields, registers };
  return (content: Parameters<typeof contentBytes>[0]) => contentBytes(content, starters, filling);
}

export async function printRepair(
  world: World,
  me: Me,
  id: string,
  asked: RepairAsked,
  as: PlanForm,
): Promise<{ readonly name: string; readonly type: string; readonly body: string }> {
  const { project, plan: planned } = await plan(world, me, id, asked, { withChanges: true });
  const bytesOf = await bytesFor(world, project);
  const base64Of = (content: Content) => base64(isNew(content) ? bytesOf(content) : new Uint8Array());
  // A script runs in the project's own folder.
  const inFolder = planned.changes.filter(({ before, after }) => (after ?? before)?.root === HOME);
  return printedPlan(`${project.number}-put-right`, as, { shown: planned.changes, all: inFolder, base64Of });
}
