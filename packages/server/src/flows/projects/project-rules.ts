/**
 * What a project is by its rules, now and after a change: compiled rules to plan with, and what stands in its own folder for it.
 */

import { existsSync, readFileSync } from 'node:fs';
import type { ProjectShape, ReshapeAsked } from '@nesting/contract';
import type { Change } from '@nesting/core/change';
import type { Registers } from '@nesting/core/name';
import { ownFiles } from '@nesting/core/planners';
import { OWN_FOLDER } from '@nesting/core/project';
import {
  type Convention,
  expandTemplate,
  type OwnRules,
  type Template,
  withConventions,
  withOwnRules,
} from '@nesting/core/template';
import { inside } from '@nesting/disk';
import type { Client } from '../../db/client';
import { conventionEditions, conventionsOf } from '../../db/queries/rules/conventions';
import { readEdition } from '../../db/queries/rules/templates';
import { Refused } from '../world';

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
export function ownChanges(
  root: string,
  project: { readonly id: string; readonly startedAt: string },
  template: Template,
  values: ProjectShape['values'],
  registers: Registers,
): Change[] {
  const expansion = expandTemplate(template, values, registers);
  return ownFiles({ template, expansion, project: project.id, started: project.startedAt }).flatMap(
    ({ path, text }): Change[] => {
      const at = inside(root, path);
      const there = at.ok && existsSync(at.value);
      if (there && readFileSync(at.value, 'utf8') === text) return [];
      return [{ key: path, what: 'file', before: there ? path : null, after: path, content: { kind: 'text', text } }];
    },
  );
}

/** Changes of Nesting's own: never shown as lines, and never undone by themselves. */
export const isOwnChange = (change: Change): boolean => change.key.startsWith(`${OWN_FOLDER}/`);
