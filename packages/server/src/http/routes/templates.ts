/** Templates: written, put in force, taken in and out. */

import {
  ALL,
  archiveSchema,
  COORDINATOR,
  newTemplateSchema,
  putTemplateInForceSchema,
  saveTemplateSchema,
  templateImpactSchema,
} from '@nesting/contract';
import { LIMITS } from '@nesting/core';
import { relPathOf } from '@nesting/core/listing';
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
import {
  dropTemplateDraft,
  keepTemplate,
  type NewTemplate,
  newTemplate,
  publishTemplate,
  templateImpact,
} from '../../flows/rules/templates';
import { Refused } from '../../flows/world';
import { asFile, bodyOf, found, type Route, wordOf } from '../route';

export const TEMPLATES: readonly Route[] = [
  {
    method: 'GET',
    path: '/api/templates',
    roles: ALL,
    handle: async ({ c, world }) => c.json(await listTemplates(world.db)),
  },
  {
    method: 'POST',
    path: '/api/templates',
    roles: COORDINATOR,
    // Files written by hand lack ids: they are given as on every import.
    handle: async ({ c, world, me }) =>
      c.json(await newTemplate(world, me.id, (await bodyOf(c, newTemplateSchema)) as unknown as NewTemplate), 201),
  },
  {
    method: 'PUT',
    path: '/api/templates/:id/draft',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { template, version } = await bodyOf(c, saveTemplateSchema);
      return c.json(await keepTemplate(world, me.id, wordOf(c), template, version));
    },
  },
  {
    method: 'DELETE',
    path: '/api/templates/:id/draft',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      await dropTemplateDraft(world, me.id, wordOf(c));
      return c.body(null, 204);
    },
  },
  {
    method: 'GET',
    path: '/api/templates/:id/editions',
    roles: ALL,
    handle: async ({ c, world }) => c.json(await listEditions(world.db, wordOf(c))),
  },
  {
    method: 'POST',
    path: '/api/templates/:id/editions',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { version, said } = await bodyOf(c, putTemplateInForceSchema);
      return c.json(await publishTemplate(world, me.id, wordOf(c), version, said), 201);
    },
  },
  {
    method: 'POST',
    path: '/api/templates/:id/impact',
    roles: COORDINATOR,
    handle: async ({ c, world }) =>
      c.json(await templateImpact(world, wordOf(c), (await bodyOf(c, templateImpactSchema)).template)),
  },
  {
    method: 'POST',
    path: '/api/templates/:id/archive',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { archived } = await bodyOf(c, archiveSchema);
      if (!(await setArchived(world.db, wordOf(c), archived)))
        throw new Refused(404, 'no-template', 'There is no such template.');
      await recordActivity(world.db, 'template-archived', me.id, null, {
        template: wordOf(c),
        archived: archived ? 1 : 0,
      });
      return c.body(null, 204);
    },
  },
  {
    method: 'GET',
    path: '/api/templates/:id/starter',
    most: LIMITS.starterBytes,
    roles: ALL,
    handle: async ({ c, world }) => {
      return asFile(c, found(await readDraftStarter(world.db, wordOf(c), c.req.query('path') ?? '')));
    },
  },
  {
    method: 'GET',
    path: '/api/templates/:id/starters',
    roles: ALL,
    handle: async ({ c, world }) => c.json(await listDraftStarters(world.db, wordOf(c))),
  },
  {
    method: 'DELETE',
    path: '/api/templates/:id/starter',
    most: LIMITS.starterBytes,
    roles: COORDINATOR,
    handle: async ({ c, world }) => {
      await dropDraftStarter(world.db, wordOf(c), c.req.query('path') ?? '');
      return c.body(null, 204);
    },
  },
  {
    method: 'PUT',
    path: '/api/templates/:id/starter',
    most: LIMITS.starterBytes,
    roles: COORDINATOR,
    handle: async ({ c, world }) => {
      const path = relPathOf(c.req.query('path') ?? '');
      if (!path.ok || path.value === '')
        throw new Refused(400, 'path-refused', 'A starter file needs a path inside the template.');
      // The draft itself is sent a moment later than its file: only the template must be there.
      if (!(await listTemplates(world.db)).some((t) => t.id === wordOf(c)))
        throw new Refused(404, 'no-template', 'There is no such template.');
      await putDraftStarter(world.db, wordOf(c), path.value, new Uint8Array(await c.req.arrayBuffer()));
      return c.body(null, 204);
    },
  },
];
