/** A convention's way from a draft to an edition in force; what a draft would do to the files of running projects. */
import type { ConventionImpact, ImpactRow, ProjectNames } from '@nesting/contract';
import { type Coded, coded } from '@nesting/core';
import { NameImpactCounter } from '@nesting/core/impact';
import {
  compileConvention,
  type Field,
  mergeRegisters,
  NO_REGISTERS,
  parsePattern,
  type Registers,
  readName,
} from '@nesting/core/name';
import { ProjectRules } from '@nesting/core/project';
import { type Convention, ownRegisters, type Template, withConventions } from '@nesting/core/template';
import { transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import { readRegisters } from '../../db/queries/house/registers';
import { readProject } from '../../db/queries/projects/projects';
import {
  discardDraft,
  freeId,
  insertConvention,
  listConventions,
  projectsUsing,
  putInForce,
  readDraft,
  saveDraft,
} from '../../db/queries/rules/conventions';
import { listTemplates } from '../../db/queries/rules/templates';
import { untilAskerLeaves } from '../../request-context';
import { projectWhere, reached } from '../place';
import { Refused, type World } from '../world';
import { draftNotLookedAt, keptDraft } from './drafts';
import { slugOf } from './slug';

/** A new convention, as a draft; its id is its name in plain words, with a number where that is taken. */
export async function newConvention(
  world: World,
  person: string,
  convention: Omit<Convention, 'id'>,
): Promise<{ id: string }> {
  return transaction(world.db, async (client) => {
    const id = await freeId(client, slugOf(convention.name, 'convention'));
    await insertConvention(client, { ...convention, id }, person);
    await recordActivity(client, 'convention-drafted', person, null, { convention: id });
    return { id };
  });
}

export async function keepDraft(
  world: World,
  person: string,
  id: string,
  convention: Convention,
  version: number,
): Promise<{ version: number }> {
  return keptDraft(() => saveDraft(world.db, { ...convention, id }, version, person), 'convention-gone');
}

export async function dropDraft(world: World, person: string, id: string): Promise<void> {
  await discardDraft(world.db, id);
  await recordActivity(world.db, 'convention-draft-discarded', person, null, { convention: id });
}

/** The draft becomes the next edition: for projects started from now on; running ones keep theirs. */
export async function publishConvention(
  world: World,
  person: string,
  id: string,
  version: number,
): Promise<{ edition: number }> {
  const draft = await readDraft(world.db, id);
  if (draft === null || draft.version !== version) throw draftNotLookedAt();
  const hindrance = hindranceOf(draft.convention, await contextOf(world, id));
  if (hindrance !== null) throw new Refused('draft-unusable', { at: '', because: coded(hindrance) });
  const edition = await transaction(world.db, async (client) => {
    const put = await putInForce(client, id, version, person);
    if (put !== null)
      await recordActivity(client, 'convention-in-force', person, null, { convention: id, edition: put });
    return put;
  });
  if (edition === null) throw draftNotLookedAt();
  return { edition };
}

interface Context {
  readonly fields: readonly Field[];
  readonly registers: Registers;
}

/** The fields a convention may lean on: those of the first template that uses it. */
async function contextOf({ db }: World, id: string): Promise<Context> {
  const [rows, templates, studio] = await Promise.all([listConventions(db), listTemplates(db), readRegisters(db)]);
  const used = rows.find((r) => r.id === id)?.usedIn[0]?.template;
  const template = templates.find((t) => t.id === used)?.template;
  return {
    fields: template === undefined ? [] : fieldsOfTemplate(template),
    registers: template === undefined ? studio : mergeRegisters(ownRegisters(template), studio),
  };
}

/** A template's fields, the entries of its lists by the names they go by in folders. */
function fieldsOfTemplate(template: Template): Field[] {
  const entries = template.fields.flatMap((f): Field[] =>
    f.type === 'list' ? [{ key: f.key.replace(/s$/, ''), ...f.of }] : [],
  );
  return [...entries, ...template.fields];
}

function hindranceOf(convention: Convention, context: Context): Coded | null {
  const pattern = parsePattern(convention.pattern);
  if (!pattern.ok) return pattern.faults[0] ?? null;
  const compiled = compileConvention(pattern.value, {
    fields: [...(convention.fields ?? []), ...context.fields],
    registers: mergeRegisters(NO_REGISTERS, context.registers),
    families: convention.families,
  });
  if (!compiled.ok) return compiled.faults[0] ?? null;
  const follows = (name: string): boolean => readName(compiled.value, name) !== null;
  const broken = (convention.good ?? []).find((name) => !follows(name));
  if (broken !== undefined) return { code: 'good-breaks', params: { name: broken } };
  const passing = (convention.bad ?? []).find(follows);
  return passing === undefined ? null : { code: 'bad-follows', params: { name: passing } };
}

/** Names looked at for one answer: beyond them the rest is counted as not looked at. */
const MOST_NAMES = 500_000;

/** Each running project's files before and after, by their names alone. Gives way to other requests between folders. */
export async function impactOf(world: World, id: string, convention: Convention): Promise<ConventionImpact> {
  const registers = await readRegisters(world.db);
  const projects: ImpactRow[] = [];
  let names = 0;
  for (const { project: projectId, local } of await projectsUsing(world.db, id)) {
    const project = await readProject(world.db, projectId);
    if (project === null) continue;
    const input = { template: project.body, values: project.values, registers };
    const before = new ProjectRules(input);
    const after = new ProjectRules({ ...input, template: withConventions(project.body, { [local]: convention }) });
    const counter = new NameImpactCounter({ before, after }, local);
    const lines = [...counter.lines()];
    const where = await reached(world, project);
    const found =
      where === null
        ? []
        : await world.disks.run('namesInEach', { where, paths: lines.map((line) => line.path) }, untilAskerLeaves());
    let trouble = where === null ? `The folder cannot be reached on ${project.volume}.` : null;
    for (const [i, line] of lines.entries()) {
      if (names > MOST_NAMES) trouble = 'Not all of it was looked at: there are too many files.';
      if (trouble !== null) break;
      const { files = [] } = found[i] ?? {};
      names += files.length;
      counter.folder(line, files);
      await new Promise((resolve) => setImmediate(resolve));
    }
    projects.push({
      ...counter.outcome(),
      project: { id: project.id, number: project.number, folder: project.folder },
      trouble,
    });
  }
  return { projects, names };
}

/** Names shown of one project: the screen tries them one by one. */
const MOST_SHOWN = 2000;

/** The names that are there in the folders where a convention holds. */
export async function namesIn(world: World, projectId: string, convention: string): Promise<ProjectNames> {
  const project = await readProject(world.db, projectId);
  if (project === null) throw new Refused('no-project');
  const uses = await projectsUsing(world.db, convention);
  const locals = new Set(uses.filter((u) => u.project === projectId).map((u) => u.local));
  const rules = new ProjectRules({
    template: project.body,
    values: project.values,
    registers: await readRegisters(world.db),
  });
  const where = await projectWhere(world, project);
  const lines = rules.expansion.lines.filter(
    (line) => line.kind === 'folder' && line.rules.conventions?.some((local) => locals.has(local)),
  );
  const found = await world.disks.run(
    'namesInEach',
    { where, paths: lines.map((line) => line.path) },
    untilAskerLeaves(),
  );
  const names = new Set<string>();
  let more = 0;
  for (const [i, line] of lines.entries())
    for (const name of found[i]?.files ?? []) {
      if (!rules.conventionsFor(line, name).some((c) => locals.has(c.convention.id))) continue;
      if (names.size < MOST_SHOWN) names.add(name);
      else more++;
    }
  return { names: [...names], more };
}
