/** Every route of the server, with the roles that may use it. */
import { archiveSchema, askNameSchema, effectSchema, type Entrance, folderQuerySchema, holdSchema, lookSchema, namesQuerySchema, newConventionSchema, newTemplateSchema, putInForceSchema, putTemplateInForceSchema, ROLES, saveDraftSchema, saveTemplateSchema, startSchema, templateEffectSchema, type VolumeRow } from '@nesting/contract';
import { inside, listFolder, volumeState } from '@nesting/disk';
import { z } from 'zod';
import { transaction } from '../db/client';
import { checksOfProject, readCheck, readFindings, readFolders } from '../db/queries/checks';
import { listConventions } from '../db/queries/conventions';
import { giveBackNumber, holdNumber } from '../db/queries/numbers';
import { listProjects, readProject } from '../db/queries/projects';
import { readRegisters } from '../db/queries/registers';
import { listEditions, putDraftStarter, readDraftStarter, setArchived } from '../db/queries/template-drafts';
import { listTemplates } from '../db/queries/templates';
import { recordActivity } from '../db/queries/activity';
import { dropTemplateDraft, exportTemplate, importZip, keepTemplate, type NewTemplate, newTemplate, projectListing, publishTemplate, templateEffect } from '../flows/templates';
import { relPathOf } from '@nesting/core';
import { askName } from '../flows/ask-name';
import { checkProject } from '../flows/check-project';
import { dropDraft, effectOf, keepDraft, namesIn, newConvention, publishConvention } from '../flows/conventions';
import { lookAtTarget, startProject } from '../flows/start-project';
import { Refused } from '../flows/world';
import { demoPeople, signInAsDemo } from '../sign-in/demo';
import { bodyOf, checked, idOf, type Route, wordOf } from './route';

const ALL = ROLES;
const COORDINATOR = ['coordinator'] as const;
const WORKING = ['coordinator', 'artist'] as const;

const found = <T>(value: T | null): T => {
  if (value === null) throw new Refused(404, 'not-found', 'There is nothing at this address.');
  return value;
};

export const ROUTES: readonly Route[] = [
  {
    method: 'GET', path: '/api/entrance', roles: 'anyone',
    handle: async ({ c, world }) => c.json({ demo: world.config.demo, people: world.config.demo ? await demoPeople(world.db) : [] } satisfies Entrance),
  },
  { method: 'POST', path: '/api/demo/sign-in', roles: 'anyone', handle: async ({ c, world, auth }) => signInAsDemo(world, auth, checked(await c.req.json().catch(() => null), z.object({ initials: z.string().max(4) })).initials, c.req.raw) },
  { method: 'GET', path: '/api/auth/*', roles: 'anyone', handle: ({ c, auth }) => auth.handler(c.req.raw) },
  { method: 'POST', path: '/api/auth/*', roles: 'anyone', handle: ({ c, auth }) => auth.handler(c.req.raw) },
  { method: 'GET', path: '/api/me', roles: ALL, handle: ({ c, me }) => c.json(me) },

  { method: 'GET', path: '/api/templates', roles: ALL, handle: async ({ c, world }) => c.json(await listTemplates(world.db)) },
  {
    method: 'POST', path: '/api/templates', roles: COORDINATOR,
    // Files written by hand lack ids: they are given as on every import.
    handle: async ({ c, world, me }) => c.json(await newTemplate(world, me.id, (await bodyOf(c, newTemplateSchema)) as unknown as NewTemplate), 201),
  },
  { method: 'POST', path: '/api/templates/zip', roles: COORDINATOR, handle: async ({ c, world, me }) => c.json(await importZip(world, me.id, new Uint8Array(await c.req.arrayBuffer())), 201) },
  {
    method: 'PUT', path: '/api/templates/:id/draft', roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { template, version } = await bodyOf(c, saveTemplateSchema);
      return c.json(await keepTemplate(world, me.id, wordOf(c), template, version));
    },
  },
  {
    method: 'DELETE', path: '/api/templates/:id/draft', roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      await dropTemplateDraft(world, me.id, wordOf(c));
      return c.body(null, 204);
    },
  },
  { method: 'GET', path: '/api/templates/:id/editions', roles: ALL, handle: async ({ c, world }) => c.json(await listEditions(world.db, wordOf(c))) },
  {
    method: 'POST', path: '/api/templates/:id/editions', roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { version, said } = await bodyOf(c, putTemplateInForceSchema);
      return c.json(await publishTemplate(world, me.id, wordOf(c), version, said), 201);
    },
  },
  { method: 'POST', path: '/api/templates/:id/effect', roles: COORDINATOR, handle: async ({ c, world }) => c.json(await templateEffect(world, wordOf(c), (await bodyOf(c, templateEffectSchema)).template)) },
  {
    method: 'POST', path: '/api/templates/:id/archive', roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { archived } = await bodyOf(c, archiveSchema);
      if (!(await setArchived(world.db, wordOf(c), archived))) throw new Refused(404, 'no-template', 'There is no such template.');
      await recordActivity(world.db, 'template-archived', me.id, null, { template: wordOf(c), archived: archived ? 1 : 0 });
      return c.body(null, 204);
    },
  },
  {
    method: 'GET', path: '/api/templates/:id/starter', roles: ALL,
    handle: async ({ c, world }) => {
      const bytes = found(await readDraftStarter(world.db, wordOf(c), c.req.query('path') ?? ''));
      // Never opened by the browser as what it says it is.
      return c.body(Uint8Array.from(bytes), 200, { 'content-type': 'application/octet-stream', 'content-disposition': 'attachment' });
    },
  },
  {
    method: 'PUT', path: '/api/templates/:id/starter', roles: COORDINATOR,
    handle: async ({ c, world }) => {
      const path = relPathOf(c.req.query('path') ?? '');
      if (!path.ok || path.value === '') throw new Refused(400, 'path-refused', 'A starter file needs a path inside the template.');
      // The draft itself is sent a moment later than its file: only the template must be there.
      if (!(await listTemplates(world.db)).some((t) => t.id === wordOf(c))) throw new Refused(404, 'no-template', 'There is no such template.');
      await putDraftStarter(world.db, wordOf(c), path.value, new Uint8Array(await c.req.arrayBuffer()));
      return c.body(null, 204);
    },
  },
  {
    method: 'GET', path: '/api/templates/:id/export', roles: ALL,
    handle: async ({ c, world }) => {
      const edition = c.req.query('edition');
      const { name, bytes } = await exportTemplate(world, wordOf(c), edition === undefined ? null : Number(edition));
      return c.body(Uint8Array.from(bytes), 200, { 'content-type': 'application/zip', 'content-disposition': `attachment; filename="${encodeURIComponent(name)}"` });
    },
  },
  { method: 'GET', path: '/api/conventions', roles: ALL, handle: async ({ c, world }) => c.json(await listConventions(world.db)) },
  {
    method: 'POST', path: '/api/conventions', roles: COORDINATOR,
    handle: async ({ c, world, me }) => c.json(await newConvention(world, me.id, (await bodyOf(c, newConventionSchema)).convention), 201),
  },
  {
    method: 'PUT', path: '/api/conventions/:id/draft', roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { convention, version } = await bodyOf(c, saveDraftSchema);
      return c.json(await keepDraft(world, me.id, wordOf(c), convention, version));
    },
  },
  {
    method: 'DELETE', path: '/api/conventions/:id/draft', roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      await dropDraft(world, me.id, wordOf(c));
      return c.body(null, 204);
    },
  },
  {
    method: 'POST', path: '/api/conventions/:id/editions', roles: COORDINATOR,
    handle: async ({ c, world, me }) => c.json(await publishConvention(world, me.id, wordOf(c), (await bodyOf(c, putInForceSchema)).version), 201),
  },
  { method: 'POST', path: '/api/conventions/:id/effect', roles: COORDINATOR, handle: async ({ c, world }) => c.json(await effectOf(world, wordOf(c), (await bodyOf(c, effectSchema)).convention)) },
  { method: 'GET', path: '/api/registers', roles: ALL, handle: async ({ c, world }) => c.json(await readRegisters(world.db)) },
  {
    method: 'GET', path: '/api/volumes', roles: ALL,
    handle: ({ c, world }) => c.json([...world.config.volumes].map(([name, root]): VolumeRow => ({ name, root, ...volumeState(root) }))),
  },

  {
    method: 'POST', path: '/api/numbers/hold', roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { year } = await bodyOf(c, holdSchema);
      const hold = await transaction(world.db, (client) => holdNumber(client, me.id, year));
      return c.json({ number: hold.number, until: hold.until.toISOString() });
    },
  },
  {
    method: 'DELETE', path: '/api/numbers/hold/:number', roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      await giveBackNumber(world.db, me.id, c.req.param('number') ?? '');
      return c.body(null, 204);
    },
  },

  { method: 'GET', path: '/api/projects', roles: ALL, handle: async ({ c, world }) => c.json(await listProjects(world.db)) },
  {
    method: 'POST', path: '/api/projects', roles: COORDINATOR,
    handle: async ({ c, world, me }) => c.json(await startProject(world, me.id, await bodyOf(c, startSchema)), 201),
  },
  {
    method: 'POST', path: '/api/projects/look', roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { number, volume, folder } = await bodyOf(c, lookSchema);
      return c.json(await lookAtTarget(world, me.id, number, volume, folder));
    },
  },
  {
    method: 'GET', path: '/api/projects/:id', roles: ALL,
    handle: async ({ c, world }) => {
      const project = found(await readProject(world.db, idOf(c)));
      return c.json({ ...project, root: `${world.config.volumes.get(project.volume) ?? project.volume}/${project.folder}` });
    },
  },
  {
    method: 'GET', path: '/api/projects/:id/folder', roles: ALL,
    handle: async ({ c, world }) => {
      const project = found(await readProject(world.db, idOf(c)));
      const { path } = checked(c.req.query(), folderQuerySchema);
      const root = inside(world.config.volumes.get(project.volume) ?? '', project.folder);
      const folder = root.ok ? inside(root.value, path) : root;
      if (!root.ok || !folder.ok) {
        const code = folder.ok ? '' : folder.faults[0]?.code;
        if (code === 'path-refused') throw new Refused(400, 'path-refused', 'This path leads out of the project.');
        throw new Refused(404, code ?? 'not-found', code === 'path-link' ? 'This is a link, and links are not followed.' : 'This folder is not on the disk.');
      }
      const listing = listFolder(root.value, path, () => undefined);
      if (listing === null) throw new Refused(404, 'not-readable', 'This folder cannot be read.');
      return c.json({ path, files: listing.files.slice(0, 2000).map((f) => ({ name: f.name, size: f.size, modified: new Date(f.modified).toISOString() })) });
    },
  },
  { method: 'GET', path: '/api/projects/:id/listing', roles: COORDINATOR, handle: async ({ c, world }) => c.json(await projectListing(world, idOf(c))) },
  { method: 'GET', path: '/api/projects/:id/names', roles: ALL, handle: async ({ c, world }) => c.json(await namesIn(world, idOf(c), checked(c.req.query(), namesQuerySchema).convention)) },
  { method: 'POST', path: '/api/projects/:id/names', roles: WORKING, handle: async ({ c, world, me }) => c.json(await askName(world, me, idOf(c), await bodyOf(c, askNameSchema))) },
  {
    method: 'POST', path: '/api/projects/:id/checks', roles: WORKING,
    handle: async ({ c, world, me }) => {
      const project = found(await readProject(world.db, idOf(c)));
      if (project.state !== 'running') throw new Refused(409, 'not-running', 'This project is not running.');
      return c.json(found(await readCheck(world.db, await checkProject(world, project.id, me.id))), 202);
    },
  },
  { method: 'GET', path: '/api/projects/:id/checks', roles: ALL, handle: async ({ c, world }) => c.json(await checksOfProject(world.db, idOf(c))) },
  {
    method: 'GET', path: '/api/checks/:id/findings', roles: ALL,
    handle: async ({ c, world }) => {
      const { after, limit } = checked(c.req.query(), z.object({ after: z.coerce.number().int().default(-1), limit: z.coerce.number().int().min(1).max(5000).default(1000) }));
      return c.json(await readFindings(world.db, idOf(c), after, limit));
    },
  },
  { method: 'GET', path: '/api/checks/:id/folders', roles: ALL, handle: async ({ c, world }) => c.json(await readFolders(world.db, idOf(c))) },
];
