/**
 * Checks: asked for, stopped, gone on with; their findings, what people do with them, and what they come to over all
 * projects.
 */
import {
  acceptFindingsSchema,
  askCheckSchema,
  baselineSchema,
  findingQuerySchema,
  giveSchema,
  handInSchema,
  scheduleSchema,
  unacceptSchema,
} from '@nesting/contract';
import { z } from 'zod';
import { listExceptions } from '../../db/queries/checks/accepted';
import { checksOfProject, readCheck, readFolders, setSchedule } from '../../db/queries/checks/checks';
import { whoHasWhat } from '../../db/queries/checks/finding-people';
import { findingsByFolder, listFindings } from '../../db/queries/checks/findings';
import { listHandedIn, readHandedIn } from '../../db/queries/checks/handed-in';
import { readOverview } from '../../db/queries/checks/overview';
import { readProject } from '../../db/queries/projects/projects';
import { cancelCheck, checkProject, goOnWithCheck } from '../../flows/checks/check-project';
import {
  accept,
  baseline,
  give,
  handIn,
  linkTo,
  listOf,
  look,
  openLink,
  REPORT_FORMS,
  report,
  sendList,
  unaccept,
} from '../../flows/checks/findings';
import { Refused } from '../../flows/world';
import { ALL, bodyOf, COORDINATOR, checked, found, idOf, LOOKING, type Route, WORKING, wordOf } from '../route';

export const CHECKS: readonly Route[] = [
  {
    method: 'POST',
    path: '/api/projects/:id/checks',
    roles: WORKING,
    handle: async ({ c, world, me }) => {
      const project = found(await readProject(world.db, idOf(c)));
      if (project.state === 'starting' || project.state === 'failed' || project.state === 'packed')
        throw new Refused(409, 'not-running', 'This project has no folder to be checked just now.');
      const { what } = await bodyOf(c, askCheckSchema);
      return c.json(found(await readCheck(world.db, await checkProject(world, project.id, me.id, what))), 202);
    },
  },
  {
    method: 'GET',
    path: '/api/projects/:id/checks',
    roles: ALL,
    handle: async ({ c, world }) => c.json(await checksOfProject(world.db, idOf(c))),
  },
  {
    method: 'POST',
    path: '/api/checks/:id/stop',
    roles: WORKING,
    handle: async ({ c, world }) => {
      await cancelCheck(world, idOf(c));
      return c.body(null, 204);
    },
  },
  {
    method: 'POST',
    path: '/api/checks/:id/go-on',
    roles: WORKING,
    handle: async ({ c, world }) => {
      await goOnWithCheck(world, idOf(c));
      return c.body(null, 204);
    },
  },
  {
    method: 'POST',
    path: '/api/me/projects/:id/look',
    roles: ALL,
    handle: async ({ c, world }) => c.json(await look(world, idOf(c))),
  },
  {
    method: 'PUT',
    path: '/api/projects/:id/schedule',
    roles: COORDINATOR,
    handle: async ({ c, world }) => {
      const { every } = await bodyOf(c, scheduleSchema);
      if (!(await setSchedule(world.db, idOf(c), every))) found(null);
      return c.body(null, 204);
    },
  },
  {
    method: 'GET',
    path: '/api/projects/:id/folders',
    roles: ALL,
    handle: async ({ c, world }) => c.json(await readFolders(world.db, idOf(c))),
  },
  {
    method: 'GET',
    path: '/api/projects/:id/findings',
    roles: ALL,
    handle: async ({ c, world }) =>
      c.json(await listFindings(world.db, idOf(c), checked(c.req.query(), findingQuerySchema))),
  },
  {
    method: 'GET',
    path: '/api/projects/:id/findings/by-folder',
    roles: ALL,
    handle: async ({ c, world }) => c.json(await findingsByFolder(world.db, idOf(c))),
  },
  {
    method: 'GET',
    path: '/api/projects/:id/findings/report',
    roles: ALL,
    handle: async ({ c, world }) => {
      const { name, type, text } = await report(world, idOf(c), checked(c.req.query('as'), z.enum(REPORT_FORMS)));
      return c.body(text, 200, {
        'content-type': type,
        'content-disposition': `attachment; filename="${encodeURIComponent(name)}"`,
      });
    },
  },
  {
    method: 'POST',
    path: '/api/projects/:id/findings/accept',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) =>
      c.json({ count: await accept(world, me.id, idOf(c), await bodyOf(c, acceptFindingsSchema)) }),
  },
  {
    method: 'POST',
    path: '/api/projects/:id/findings/count-again',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) =>
      c.json({ count: await unaccept(world, me.id, idOf(c), (await bodyOf(c, unacceptSchema)).ids) }),
  },
  {
    method: 'POST',
    path: '/api/projects/:id/findings/give',
    roles: WORKING,
    handle: async ({ c, world, me }) => c.json({ count: await give(world, me, idOf(c), await bodyOf(c, giveSchema)) }),
  },
  {
    method: 'POST',
    path: '/api/projects/:id/baseline',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) =>
      c.json({ count: await baseline(world, me.id, idOf(c), (await bodyOf(c, baselineSchema)).reason) }),
  },
  {
    method: 'GET',
    path: '/api/exceptions',
    roles: ALL,
    handle: async ({ c, world }) =>
      c.json(await listExceptions(world.db, checked(c.req.query('project') ?? null, z.uuid().nullable()))),
  },
  {
    method: 'POST',
    path: '/api/projects/:id/handed-in',
    roles: WORKING,
    handle: async ({ c, world, me }) =>
      c.json(
        {
          id: await handIn(world, me.id, found(await readProject(world.db, idOf(c))).id, await bodyOf(c, handInSchema)),
        },
        201,
      ),
  },
  {
    method: 'GET',
    path: '/api/projects/:id/handed-in',
    roles: ALL,
    handle: async ({ c, world }) => c.json(await listHandedIn(world.db, idOf(c))),
  },
  {
    method: 'GET',
    path: '/api/handed-in/:id',
    roles: ALL,
    handle: async ({ c, world }) => c.json(found(await readHandedIn(world.db, idOf(c)))),
  },
  {
    method: 'GET',
    path: '/api/who',
    roles: LOOKING,
    handle: async ({ c, world }) => c.json(await whoHasWhat(world.db)),
  },
  {
    method: 'GET',
    path: '/api/who/:id',
    roles: LOOKING,
    handle: async ({ c, world }) => c.json(await listOf(world, wordOf(c))),
  },
  {
    method: 'GET',
    path: '/api/me/findings',
    roles: ALL,
    handle: async ({ c, world, me }) => c.json(await listOf(world, me.initials)),
  },
  {
    method: 'POST',
    path: '/api/who/:id/send',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => c.json({ sent: await sendList(world, me, wordOf(c)) }),
  },
  {
    method: 'POST',
    path: '/api/who/:id/link',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => c.json({ link: await linkTo(world, me.id, wordOf(c)) }),
  },
  {
    method: 'POST',
    path: '/api/yours',
    roles: 'anyone',
    handle: async ({ c, world }) =>
      c.json(await openLink(world, (await bodyOf(c, z.object({ secret: z.string().min(20).max(100) }))).secret)),
  },
  {
    method: 'GET',
    path: '/api/overview',
    roles: LOOKING,
    handle: async ({ c, world }) => c.json(await readOverview(world.db)),
  },
];
