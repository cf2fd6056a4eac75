/** Folders taken in as projects, and copies of a project's folder. */
import { adoptSchema, COORDINATOR, copyPlaceSchema, fitSchema, ownCopySchema } from '@nesting/contract';
import { adoptFolder, fitFolder } from '../../flows/projects/adopt';
import { compareCopies, leaveCopyAlone, ownCopy } from '../../flows/projects/copies';
import { bodyOf, idOf, type Route } from '../route';

export const ADOPTING: readonly Route[] = [
  {
    method: 'POST',
    path: '/api/adopt/fits',
    roles: COORDINATOR,
    handle: async ({ c, world }) => {
      const { volume, folder, values } = await bodyOf(c, fitSchema);
      return c.json(await fitFolder(world, volume, folder, values));
    },
  },
  {
    method: 'POST',
    path: '/api/adopt',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => c.json(await adoptFolder(world, me.id, await bodyOf(c, adoptSchema)), 201),
  },
  {
    method: 'GET',
    path: '/api/projects/:id/copies',
    roles: COORDINATOR,
    handle: async ({ c, world }) => c.json(await compareCopies(world, idOf(c))),
  },
  {
    method: 'POST',
    path: '/api/projects/:id/copies/own',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { volume, folder, number } = await bodyOf(c, ownCopySchema);
      return c.json(await ownCopy(world, me, idOf(c), volume, folder, number), 201);
    },
  },
  {
    method: 'POST',
    path: '/api/projects/:id/copies/leave',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { volume, folder } = await bodyOf(c, copyPlaceSchema);
      await leaveCopyAlone(world, me.id, idOf(c), volume, folder);
      return c.body(null, 204);
    },
  },
];
