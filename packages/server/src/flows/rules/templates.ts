/**
 * A template's way from a draft to an edition in force, in and out of files; what a draft would mean for projects that
 * run.
 */

import type { TemplateImpactRow } from '@nesting/contract';
import { coded } from '@nesting/core';
import { lineImpact } from '@nesting/core/impact';
import { ProjectRules } from '@nesting/core/project';
import {
  diagnoseTemplate,
  type LooseTemplate,
  normaliseTemplate,
  starterPaths,
  type Template,
  withConventions,
  withOwnRules,
} from '@nesting/core/template';
import { transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import { readRegisters } from '../../db/queries/house/registers';
import { readProject } from '../../db/queries/projects/projects';
import { adoptConventions } from '../../db/queries/rules/conventions';
import {
  copyStarters,
  discardTemplateDraft,
  insertTemplateDraft,
  projectsOnEarlier,
  putDraftStarter,
  putTemplateInForce,
  readTemplateDraft,
  saveTemplateDraft,
  templateIdsLike,
} from '../../db/queries/rules/template-drafts';
import { readStarters } from '../../db/queries/rules/templates';
import { Refused, type World } from '../world';
import { draftNotLookedAt, keptDraft } from './drafts';
import { freeSlug } from './slug';

export interface NewTemplate {
  readonly template: LooseTemplate;
  readonly starters: readonly { readonly path: string; readonly base64: string }[];
  readonly from?: { readonly template: string; readonly edition: number } | undefined;
}

/** The screens have pages of these names among the templates. */
const PAGES = ['derive', 'take-in'];

/**
 * A new template as a draft: written from nothing, doubled, derived or taken in from a file. Its id is its own,
 * whatever the file says.
 */
export async function newTemplate(world: World, person: string, asked: NewTemplate): Promise<{ id: string }> {
  const normal = normaliseTemplate(asked.template);
  return transaction(world.db, async (client) => {
    const id = await freeSlug(normal.name, 'template', (wanted) => templateIdsLike(client, wanted), PAGES);
    const { edition: _edition, ...bare } = normal;
    await insertTemplateDraft(client, { ...bare, id }, person);
    for (const { path, base64 } of asked.starters)
      await putDraftStarter(client, id, path, Buffer.from(base64, 'base64'));
    if (asked.from)
      for (const [path, bytes] of await readStarters(client, asked.from.template, asked.from.edition))
        await putDraftStarter(client, id, path, bytes);
    await recordActivity(client, 'template-drafted', person, null, { template: id });
    return { id };
  });
}

export async function keepTemplate(
  world: World,
  person: string,
  id: string,
  template: Template,
  version: number,
): Promise<{ version: number }> {
  return keptDraft(() => saveTemplateDraft(world.db, { ...template, id }, version, person), 'no-template');
}

export async function dropTemplateDraft(world: World, person: string, id: string): Promise<void> {
  await transaction(world.db, (client) => discardTemplateDraft(client, id));
  await recordActivity(world.db, 'template-draft-discarded', person, null, { template: id });
}

/** The draft becomes the next edition, with its starter files; every file it names must be there. */
export async function publishTemplate(
  world: World,
  person: string,
  id: string,
  version: number,
  said: string,
): Promise<{ edition: number }> {
  const draft = await readTemplateDraft(world.db, id);
  if (draft === null || draft.version !== version) throw draftNotLookedAt();
  const studio = await readRegisters(world.db);
  const [fault] = diagnoseTemplate(draft.template, studio);
  if (fault) throw new Refused('draft-unusable', { at: fault.node ?? '', because: coded(fault) });
  return transaction(world.db, async (client) => {
    const put = await putTemplateInForce(client, id, version, said, person);
    if (put === null) throw draftNotLookedAt();
    const paths = starterPaths(put.template);
    const copied = new Set(await copyStarters(client, id, put.edition, paths));
    const absent = paths.find((path) => !copied.has(path));
    if (absent !== undefined) throw new Refused('starter-missing', { path: absent });
    await adoptConventions(client, put.template);
    await recordActivity(client, 'template-in-force', person, null, { template: id, edition: put.edition, said });
    return { edition: put.edition };
  });
}

/** What each running project would gain, lose and have renamed, by the lines of its plan before and after. */
export async function templateImpact(world: World, id: string, template: Template): Promise<TemplateImpactRow[]> {
  const registers = await readRegisters(world.db);
  const rows: TemplateImpactRow[] = [];
  for (const projectId of await projectsOnEarlier(world.db, id)) {
    const project = await readProject(world.db, projectId);
    if (project === null) continue;
    const before = new ProjectRules({ template: project.body, values: project.values, registers });
    // The edition as this project would have it: what it left out or calls its own stays so.
    const next = { ...withOwnRules(withConventions(template, {}), project.own), adjusted: project.body.adjusted ?? {} };
    const after = new ProjectRules({ template: next, values: project.values, registers });
    rows.push({
      project: { id: project.id, number: project.number, folder: project.folder, edition: project.template.edition },
      ...lineImpact({ before, after }),
    });
    await new Promise((resolve) => setImmediate(resolve));
  }
  return rows;
}
