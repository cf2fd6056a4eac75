/** What becomes of a project after its start: its state, what its team should know, what is its own, its first day, its signposts. */
import type { EditProject, System } from '@nesting/contract';
import type { Registers } from '@nesting/core/name';
import { pathOn, printSignposts, type SignpostFormat, signpostsOf } from '@nesting/core/project';
import { expandTemplate, tidyOwn, withConventions } from '@nesting/core/template';
import { transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import { readRegisters } from '../../db/queries/house/registers';
import { readPrefixes } from '../../db/queries/house/volumes';
import { editProject, readOwnRulesBase, tickFirstDay } from '../../db/queries/projects/project-edits';
import { findProject, readProject } from '../../db/queries/projects/projects';
import { volumeRoot } from '../place';
import { Refused, type World } from '../world';

export async function changeProject(world: World, person: string, id: string, edit: EditProject): Promise<void> {
  await transaction(world.db, async (client) => {
    const before = await readProject(client, id);
    if (before === null) throw new Refused('no-project');
    const rules = edit.own === undefined ? null : await readOwnRulesBase(client, id);
    const own =
      edit.own === undefined || rules === null
        ? undefined
        : tidyOwn(withConventions(rules.body, rules.conventions), edit.own);
    const changed = await editProject(client, id, person, edit.version, { ...edit, ...(own !== undefined && { own }) });
    if (!changed) throw new Refused('project-changed', { number: before.number });
    const what = {
      ...(edit.state !== undefined && edit.state !== before.state && { state: `${before.state} → ${edit.state}` }),
      ...(edit.teamNote !== undefined && { 'team note': 'written' }),
      ...(own !== undefined && { own: Object.keys({ ...own.conventions, ...own.folders }).join(', ') || 'none' }),
      ...(edit.settings !== undefined && {
        settings: Object.entries(edit.settings)
          .map(([k, v]) => `${k} ${v}`)
          .join(', '),
      }),
    };
    if (Object.keys(what).length > 0)
      await recordActivity(client, 'project-changed', person, id, what, `project:${id}`);
  });
}

export async function tick(world: World, person: string, id: string, place: number, done: boolean): Promise<void> {
  if (!(await tickFirstDay(world.db, id, place, done ? person : null))) throw new Refused('no-line');
}

/** Signposts in a form programs read, by the project's id or number, with each system's own way to the volume. */
export async function signpostText(
  world: World,
  project: string,
  form: SignpostFormat,
  system: System,
): Promise<string> {
  const found = await findProject(world.db, project);
  const page = found === null ? null : await readProject(world.db, found);
  if (page === null) throw new Refused('no-project');
  const registers: Registers = await readRegisters(world.db);
  const signposts = signpostsOf(expandTemplate(page.body, page.values, registers));
  const prefixes = await readPrefixes(world.db);
  const prefixOf = (volume: string): string => {
    const prefix = prefixes.get(volume)?.[system] || (system === 'linux' ? (volumeRoot(world, volume) ?? '') : '');
    if (prefix === '') throw new Refused('prefix-missing', { system, volume });
    return prefix;
  };
  return printSignposts(form, signposts, (s) => pathOn(system, prefixOf(s.volume ?? page.volume), page.folder, s.path));
}
