/** People and their access. */
import {
  ALL,
  acceptSchema,
  COORDINATOR,
  changePasswordSchema,
  forgotSchema,
  inviteSchema,
  newKeySchema,
  savePersonSchema,
  tokenSchema,
} from '@nesting/contract';
import { recordActivity } from '../../db/queries/house/activity';
import { endSession, listKeys, listPeople, listSessions } from '../../db/queries/people/access';
import {
  acceptLink,
  changePassword,
  comeBack,
  dropKey,
  forgot,
  invite,
  inviteAgain,
  leave,
  lookAtLink,
  makeKey,
  savePerson,
} from '../../flows/people/access';
import { Refused } from '../../flows/world';
import { bodyOf, idOf, type Route, wordOf } from '../route';

export const PEOPLE: readonly Route[] = [
  {
    method: 'GET',
    path: '/api/people',
    roles: COORDINATOR,
    handle: async ({ c, world }) => c.json(await listPeople(world.db)),
  },
  {
    method: 'POST',
    path: '/api/people',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => c.json(await invite(world, me, await bodyOf(c, inviteSchema)), 201),
  },
  {
    method: 'PUT',
    path: '/api/people/:id',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      const { version, ...person } = await bodyOf(c, savePersonSchema);
      await savePerson(world, me.id, wordOf(c), person, version);
      return c.body(null, 204);
    },
  },
  {
    method: 'POST',
    path: '/api/people/:id/link',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => c.json(await inviteAgain(world, me, wordOf(c))),
  },
  {
    method: 'POST',
    path: '/api/people/:id/leave',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => {
      await leave(world, me.id, wordOf(c));
      return c.body(null, 204);
    },
  },
  {
    method: 'POST',
    path: '/api/people/:id/return',
    roles: COORDINATOR,
    handle: async ({ c, world, me }) => c.json(await comeBack(world, me, wordOf(c))),
  },

  {
    method: 'POST',
    path: '/api/access/link',
    roles: 'anyone',
    handle: async ({ c, world }) => c.json(await lookAtLink(world, (await bodyOf(c, tokenSchema)).token)),
  },
  {
    method: 'POST',
    path: '/api/access/accept',
    roles: 'anyone',
    handle: async ({ c, world }) => {
      const { token, password, first } = await bodyOf(c, acceptSchema);
      return c.json({ email: await acceptLink(world, token, password, first) });
    },
  },
  {
    method: 'POST',
    path: '/api/access/forgot',
    roles: 'anyone',
    handle: async ({ c, world }) => {
      await forgot(world, (await bodyOf(c, forgotSchema)).email);
      return c.body(null, 204);
    },
  },

  {
    method: 'POST',
    path: '/api/me/password',
    roles: ALL,
    handle: async ({ c, world, me, session }) => {
      const { old, password } = await bodyOf(c, changePasswordSchema);
      await changePassword(world, me.id, old, password, session?.id ?? null);
      return c.body(null, 204);
    },
  },
  {
    method: 'GET',
    path: '/api/me/keys',
    roles: ALL,
    handle: async ({ c, world, me }) => c.json(await listKeys(world.db, me.id)),
  },
  {
    method: 'POST',
    path: '/api/me/keys',
    roles: ALL,
    handle: async ({ c, world, me, session }) => {
      // A key must not make keys: what leaks would never end.
      if (session === null) throw new Refused(403, 'by-key', 'Keys are made by people who are signed in.');
      const { name, days } = await bodyOf(c, newKeySchema);
      return c.json(await makeKey(world, me.id, name, days), 201);
    },
  },
  {
    method: 'DELETE',
    path: '/api/me/keys/:id',
    roles: ALL,
    handle: async ({ c, world, me }) => {
      await dropKey(world, me.id, idOf(c));
      return c.body(null, 204);
    },
  },
  {
    method: 'GET',
    path: '/api/me/sessions',
    roles: ALL,
    handle: async ({ c, world, me, session }) => c.json(await listSessions(world.db, me.id, session?.token ?? null)),
  },
  {
    method: 'DELETE',
    path: '/api/me/sessions/:id',
    roles: ALL,
    handle: async ({ c, world, me }) => {
      if (!(await endSession(world.db, me.id, wordOf(c))))
        throw new Refused(404, 'no-session', 'There is no such session.');
      await recordActivity(world.db, 'session-ended', me.id, null, {});
      return c.body(null, 204);
    },
  },
];
