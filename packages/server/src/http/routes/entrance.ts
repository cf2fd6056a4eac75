/** Before sign-in, and who one is. */
import type { Entrance } from '@nesting/contract';
import { z } from 'zod';
import { demoPeople, signInAsDemo } from '../../sign-in/demo';
import { ALL, checked, type Route } from '../route';

export const ENTRANCE: readonly Route[] = [
  {
    method: 'GET', path: '/api/entrance', roles: 'anyone',
    handle: async ({ c, world }) => c.json({ demo: world.config.demo, people: world.config.demo ? await demoPeople(world.db) : [] } satisfies Entrance),
  },
  { method: 'POST', path: '/api/demo/sign-in', roles: 'anyone', handle: async ({ c, world, auth }) => signInAsDemo(world, auth, checked(await c.req.json().catch(() => null), z.object({ initials: z.string().max(4) })).initials, c.req.raw) },
  { method: 'GET', path: '/api/auth/*', roles: 'anyone', handle: ({ c, auth }) => auth.handler(c.req.raw) },
  { method: 'POST', path: '/api/auth/*', roles: 'anyone', handle: ({ c, auth }) => auth.handler(c.req.raw) },
  { method: 'GET', path: '/api/me', roles: ALL, handle: ({ c, me }) => c.json(me) },
];
