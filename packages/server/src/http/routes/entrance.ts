/** Before sign-in, and who one is. */

import { ALL, ENDPOINTS, type Entrance, openApiOf } from '@nesting/contract';
import { Remembered } from '@nesting/core';
import { z } from 'zod';
import { anybody } from '../../db/queries/people/access';
import { mailsGoOut } from '../../flows/people/access';
import { limited, withAddress } from '../../sign-in/attempts';
import { demoPeople, signInAsDemo } from '../../sign-in/demo';
import { requestAddress } from '../request-context';
import { checked, type Route } from '../route';

/** Says nothing that the screens do not say: what there is to ask for, and what comes back. */
const documents = new Remembered((table: typeof ENDPOINTS) => openApiOf(table, '0.1.0'));

export const ENTRANCE: readonly Route[] = [
  {
    method: 'GET',
    path: '/api/openapi.json',
    roles: 'anyone',
    handle: ({ c }) => c.json(documents.of(ENDPOINTS)),
  },
  {
    method: 'GET',
    path: '/api/entrance',
    roles: 'anyone',
    handle: async ({ c, world }) =>
      c.json({
        demo: world.config.demo,
        empty: !(await anybody(world.db)),
        mails: mailsGoOut(world),
        people: world.config.demo ? await demoPeople(world.db) : [],
      } satisfies Entrance),
  },
  {
    method: 'POST',
    path: '/api/demo/sign-in',
    roles: 'anyone',
    handle: async ({ c, world, auth }) =>
      signInAsDemo(
        world,
        auth,
        checked(await c.req.json().catch(() => null), z.object({ initials: z.string().max(4) })).initials,
        c.req.raw,
      ),
  },
  // Of all the sign-in library can do, these two alone are open.
  {
    method: 'POST',
    path: '/api/auth/sign-in/email',
    roles: 'anyone',
    handle: async ({ c, world, auth }) => {
      const given = z.object({ email: z.string().max(200) }).safeParse(
        await c.req.raw
          .clone()
          .json()
          .catch(() => null),
      );
      return limited(world, given.success ? given.data.email : '', requestAddress() ?? '', () =>
        auth.handler(new Request(c.req.raw, { headers: withAddress(c.req.raw.headers, requestAddress() ?? '') })),
      );
    },
  },
  { method: 'POST', path: '/api/auth/sign-out', roles: 'anyone', handle: ({ c, auth }) => auth.handler(c.req.raw) },
  { method: 'GET', path: '/api/me', roles: ALL, handle: ({ c, me }) => c.json(me) },
];
