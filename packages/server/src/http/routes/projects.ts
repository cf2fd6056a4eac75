/** Projects, their folders, names and checks. */
import {
  askNameSchema,
  editProjectSchema,
  folderQuerySchema,
  lookSchema,
  namesQuerySchema,
  type ProjectPage,
  pinSchema,
  projectQuerySchema,
  SYSTEMS,
  startSchema,
  thereSchema,
  tickSchema,
  WRITTEN_AS,
} from '@nesting/contract';
import { SIGNPOST_FORMATS } from '@nesting/core/project';
import { z } from 'zod';
import { readPrefixes } from '../../db/queries/house/volumes';
import { markProject } from '../../db/queries/projects/project-edits';
import { listProjects, readProject } from '../../db/queries/projects/projects';
import { listProjectFolder, projectListing } from '../../flows/checks/listings';
import { askName } from '../../flows/names/ask-name';
import { volumeRoot } from '../../flows/place';
import { changeProject, signpostText, tick } from '../../flows/projects/project-life';
import { lookAtTarget, makingOf, pathsThere, startProject } from '../../flows/projects/start-project';
import { writeStart } from '../../flows/projects/write-start';
import { namesIn } from '../../flows/rules/conventions';
import { ALL, bodyOf, COORDINATOR, checked, found, idOf, type Route, WORKING, wordOf } from '../route';

export const PROJECTS: readonly Route[] = [
  {
    method: 'GET',
    path: '/api/projects',
    roles: ALL,
    handle: async ({ c, world, me }) =>
      c.json(await listProjects(world.db, me.id, checked(c.req.query(), projectQuerySchema))),
  },
  {
    method: 'POST',
    path: '/api/projects/write',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { name, type, body } = await writeStart(
        world,
        me.id,
        await bodyOf(c, startSchema),
        checked(c.req.query('as'), z.enum(WRITTEN_AS)),
      );
      return c.body(typeof body === 'string' ? body : Uint8Array.from(body), 200, {
        'content-type': type,
        'content-disposition': `attachment; filename="${encodeURIComponent(name)}"`,
      });
    },
  },
  {
    method: 'POST',
    path: '/api/projects/there',
    roles: COORDINATOR,
    handle: async ({ c, world }) => {
      const { volume, folder, paths } = await bodyOf(c, thereSchema);
      return c.json(await pathsThere(world, volume, folder, paths));
    },
  },
  {
    // For programs, by id or number: they find a project's folders wherever it is mounted.
    method: 'GET',
    path: '/api/signposts/:project',
    roles: ALL,
    handle: async ({ c, world }) =>
      c.text(
        await signpostText(
          world,
          wordOf(c, 'project'),
          checked(c.req.query('as') ?? 'json', z.enum(SIGNPOST_FORMATS)),
          checked(c.req.query('system') ?? 'linux', z.enum(SYSTEMS)),
        ),
      ),
  },
  {
    method: 'POST',
    path: '/api/projects',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) =>
      c.json(await startProject(world, me.id, await bodyOf(c, startSchema), c.req.raw.signal), 201),
  },
  {
    method: 'GET',
    path: '/api/projects/making/:key',
    roles: COORDINATOR,
    handle: ({ c }) => c.json(found(makingOf(c.req.param('key') ?? ''))),
  },
  {
    method: 'POST',
    path: '/api/projects/look',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { number, volume, folder } = await bodyOf(c, lookSchema);
      return c.json(await lookAtTarget(world, me.id, number, volume, folder));
    },
  },
  {
    method: 'GET',
    path: '/api/projects/:id',
    roles: ALL,
    handle: async ({ c, world, me }) => {
      const project = found(await readProject(world.db, idOf(c), me.id));
      const prefixes = (await readPrefixes(world.db)).get(project.volume) ?? { windows: '', macos: '', linux: '' };
      return c.json({
        ...project,
        prefixes,
        root: `${volumeRoot(world, project.volume) ?? project.volume}/${project.folder}`,
      } satisfies ProjectPage);
    },
  },
  {
    method: 'PUT',
    path: '/api/projects/:id',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      await changeProject(world, me.id, idOf(c), await bodyOf(c, editProjectSchema));
      return c.body(null, 204);
    },
  },
  {
    // What one looks at is one's own affair, whatever one's role.
    method: 'POST',
    path: '/api/me/projects/:id',
    roles: ALL,
    handle: async ({ c, world, me }) => {
      const { pinned } = await bodyOf(c, pinSchema.partial());
      found(await readProject(world.db, idOf(c)));
      await markProject(world.db, me.id, idOf(c), pinned ?? null);
      return c.body(null, 204);
    },
  },
  {
    method: 'POST',
    path: '/api/projects/:id/first-day/:place',
    roles: WORKING,
    handle: async ({ c, world, me }) => {
      const { done } = await bodyOf(c, tickSchema);
      await tick(world, me.id, idOf(c), Number(c.req.param('place')) || 0, done);
      return c.body(null, 204);
    },
  },
  {
    method: 'GET',
    path: '/api/projects/:id/folder',
    roles: ALL,
    handle: async ({ c, world }) => {
      const project = found(await readProject(world.db, idOf(c)));
      const { path } = checked(c.req.query(), folderQuerySchema);
      const listing = await listProjectFolder(world, project, path);
      return c.json({
        path,
        files: listing.files
          .slice(0, 2000)
          .map((f) => ({ name: f.name, size: f.size, modified: new Date(f.modified).toISOString() })),
      });
    },
  },
  {
    method: 'GET',
    path: '/api/projects/:id/listing',
    roles: COORDINATOR,
    handle: async ({ c, world }) => c.json(await projectListing(world, idOf(c))),
  },
  {
    method: 'GET',
    path: '/api/projects/:id/names',
    roles: ALL,
    handle: async ({ c, world }) =>
      c.json(await namesIn(world, idOf(c), checked(c.req.query(), namesQuerySchema).convention)),
  },
  {
    method: 'POST',
    path: '/api/projects/:id/names',
    roles: WORKING,
    handle: async ({ c, world, me }) => c.json(await askName(world, me, idOf(c), await bodyOf(c, askNameSchema))),
  },
];
