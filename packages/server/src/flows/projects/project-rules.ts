/**
 * What a project is by its rules, now and after a change: compiled rules to plan with, and what stands in its own folder for it.
 */

import type { ProjectShape, ReshapeAsked } from '@nesting/contract';
import type { CheckInput } from '@nesting/core/project';
import { type Convention, type OwnRules, type Template, withConventions, withOwnRules } from '@nesting/core/template';
import type { Client } from '../../db/client';
import { readRegisters } from '../../db/queries/house/registers';
import { conventionEditions, conventionsOf } from '../../db/queries/rules/conventions';
import { readEdition } from '../../db/queries/rules/templates';
import { Refused } from '../world';

/** The rules of a shape as they hold for one project. */
export async function rulesOf(client: Client, shape: ProjectShape, own: OwnRules): Promise<Template> {
  const edition = await readEdition(client, shape.template, shape.edition);
  if (edition === null) throw new Refused('no-template');
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

/** Rules of a project in plain data, as processes that plan are given them. */
export async function rulesInput(client: Client, shape: ProjectShape, own: OwnRules): Promise<CheckInput> {
  return { template: await rulesOf(client, shape, own), values: shape.values, registers: await readRegisters(client) };
}
