/** Projects, their folders, names and checks. */
import { askNameSchema, folderQuerySchema, lookSchema, namesQuerySchema, startSchema } from '@nesting/contract';
import { inside, listFolder } from '@nesting/disk';
import { z } from 'zod';
import { checksOfProject, readCheck, readFindings, readFolders } from '../../db/queries/checks';
import { listProjects, readProject } from '../../db/queries/projects';
import { askName } from '../../flows/ask-name';
import { checkProject } from '../../flows/check-project';
import { namesIn } from '../../flows/conventions';
import { lookAtTarget, startProject } from '../../flows/start-project';
import { projectListing } from '../../flows/listings';
import { Refused } from '../../flows/world';
import { ALL, bodyOf, checked, COORDINATOR, found, idOf, type Route, WORKING } from '../route';

export const PROJECTS: readonly Route[] = [
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
