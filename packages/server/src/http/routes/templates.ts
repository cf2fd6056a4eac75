/** Templates: written, put in force, taken out. */
import { TEMPLATE_ENDPOINTS } from '@nesting/contract';
import { nameOf, relPathOf } from '@nesting/core/listing';
import { recordActivity } from '../../db/queries/house/activity';
import {
  dropDraftStarter,
  listDraftStarters,
  listEditions,
  putDraftStarter,
  readDraftStarter,
  setArchived,
} from '../../db/queries/rules/template-drafts';
import { listTemplates } from '../../db/queries/rules/templates';
import { templateFile } from '../../flows/rules/rule-file';
import {
  dropTemplateDraft,
  keepTemplate,
  type NewTemplate,
  newTemplate,
  publishTemplate,
  templateImpact,
} from '../../flows/rules/templates';
import { Refused } from '../../flows/world';
import { bytesOf, routesOf, somebodysFile, zipped } from '../handlers';
import { found } from '../route';

const noTemplate = (): Refused => new Refused('no-template');

export const TEMPLATES = routesOf(TEMPLATE_ENDPOINTS, {
  listTemplates: ({ world }) => listTemplates(world.db),
  // Files written by hand lack ids: they are given as on every import.
  newTemplate: ({ world, me, body }) => newTemplate(world, me.id, body as unknown as NewTemplate),
  keepTemplate: ({ world, me, params, body }) => keepTemplate(world, me.id, params.id, body.template, body.version),
  discardTemplate: ({ world, me, params }) => dropTemplateDraft(world, me.id, params.id),
  listEditions: ({ world, params }) => listEditions(world.db, params.id),
  putTemplateInForce: ({ world, me, params, body }) =>
    publishTemplate(world, me.id, params.id, body.version, body.said),
  templateImpact: ({ world, params, body }) => templateImpact(world, params.id, body.template),
  archiveTemplate: async ({ world, me, params: { id: template }, body: { archived } }) => {
    if (!(await setArchived(world.db, template, archived))) throw noTemplate();
    const params = { template, archived: archived ? 1 : 0 };
    await recordActivity(world.db, 'template-archived', me.id, null, params);
  },
  listStarters: ({ world, params }) => listDraftStarters(world.db, params.id),
  readStarter: async ({ world, params, query: { path } }) =>
    somebodysFile(nameOf(path), found(await readDraftStarter(world.db, params.id, path))),
  putStarter: async ({ world, params, query, body }) => {
    const path = relPathOf(query.path);
    if (!path.ok || path.value === '') throw new Refused('starter-path');
    // The draft itself is sent a moment later than its file: only the template must be there.
    if (!(await listTemplates(world.db)).some((t) => t.id === params.id)) throw noTemplate();
    await putDraftStarter(world.db, params.id, path.value, await bytesOf(body));
  },
  dropStarter: ({ world, params, query }) => dropDraftStarter(world.db, params.id, query.path),
  exportTemplate: async ({ world, params, query }) =>
    zipped(await templateFile(world, params.id, query.edition ?? null)),
});
