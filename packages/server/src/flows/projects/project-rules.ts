/**
 * What a project is by its rules, now and after a change: compiled rules to plan with, and what stands in its own folder for it.
 */

import type { ProjectShape, ReshapeAsked } from '@nesting/contract';
import type { Change } from '@nesting/core/change';
import { ownFileChange, ownFiles } from '@nesting/core/planners';
import {
  type Convention,
  expandTemplate,
  type OwnRules,
  type Template,
  withConventions,
  withOwnRules,
} from '@nesting/core/template';
import type { Where } from '@nesting/disk';
import type { Client } from '../../db/client';
import { readRegisters } from '../../db/queries/house/registers';
import { conventionEditions, conventionsOf } from '../../db/queries/rules/conventions';
import { readEdition } from '../../db/queries/rules/templates';
import { Refused, type World } from '../world';

/** The rules of a shape as they hold for one project. */
export async function rulesOf(client: Client, shape: ProjectShape, own: OwnRules): Promise<Template> {
  const edition = await readEdition(client, shape.template, shape.edition);
  if (edition === null)
    throw new Refused(404, 'no-template', 'This edition of the template does not exist. Nothing was changed.');
  const bodies: Record<string, Convention> = await conventionEditions(client, shape.conventions);
  const body = withOwnRules(withConventions(edition, bodies), own);
  return Object.keys(shape.adjusted).length === 0 ? body : { ...body, adjusted: shape.adjusted };
}

/**
 * The shape that is asked for. Another edition or template brings the conventions that are in force now; the same keeps
 * those it was started with.
 */
export async function shapeAsked(client: Client, now: ProjectShape, asked: ReshapeAsked): Promise<ProjectShape> {
  const same = now.template === asked.template && now.edition === asked.edition;
  const conventions = same ? now.conventions : (await conventionsOf(client, asked.template)).editions;
  return {
    template: asked.template,
    edition: asked.edition,
    conventions,
    values: asked.values,
    adjusted: asked.adjusted,
    folder: now.folder,
  };
}

/** The marker and the rules in the project's own folder follow its shape; what is so already is left. */
export async function ownChanges(
  world: World,
  where: Where,
  project: { readonly id: string; readonly startedAt: string },
  template: Template,
  values: ProjectShape['values'],
): Promise<Change[]> {
  const expansion = expandTemplate(template, values, await readRegisters(world.db));
  const files = ownFiles({ template, expansion, project: project.id, started: project.startedAt });
  const texts = await world.disks.run('texts', { where, paths: files.map((f) => f.path), most: MOST_OWN });
  return files.flatMap(({ path, text }, i): Change[] => {
    const there = texts[i] ?? null;
    if (there === text) return [];
    return [ownFileChange(path, text, there === null ? null : path)];
  });
}

/** Bytes of a file of the program's own. */
const MOST_OWN = 64 * 2 ** 20;
