/** People and their access. */
import { PEOPLE_ENDPOINTS } from '@nesting/contract';
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
import { routesOf } from '../handlers';

export const PEOPLE = routesOf(PEOPLE_ENDPOINTS, {
  listPeople: ({ world }) => listPeople(world.db),
  invite: ({ world, me, body }) => invite(world, me, body),
  savePerson: ({ world, me, params, body: { version, ...person } }) =>
    savePerson(world, me.id, params.id, person, version),
  linkPerson: ({ world, me, params }) => inviteAgain(world, me, params.id),
  leavePerson: ({ world, me, params }) => leave(world, me.id, params.id),
  returnPerson: ({ world, me, params }) => comeBack(world, me, params.id),
  lookAtLink: ({ world, body }) => lookAtLink(world, body.token),
  acceptLink: async ({ world, body: { token, password, first } }) => ({
    email: await acceptLink(world, token, password, first),
  }),
  forgot: ({ world, body }) => forgot(world, body.email),
  changePassword: ({ world, me, body, session }) => {
    if (session === null) throw new Refused('by-key');
    return changePassword(world, me.id, body, session.id);
  },
  listKeys: ({ world, me }) => listKeys(world.db, me.id),
  makeKey: ({ world, me, session, body: { name, days } }) => {
    // A key must not make keys: what leaks would never end.
    if (session === null) throw new Refused('by-key');
    return makeKey(world, me.id, name, days);
  },
  dropKey: ({ world, me, params }) => dropKey(world, me.id, params.id),
  listSessions: ({ world, me, session }) => listSessions(world.db, me.id, session?.token ?? null),
  endSession: async ({ world, me, params }) => {
    if (!(await endSession(world.db, me.id, params.id))) throw new Refused('no-session');
    await recordActivity(world.db, 'session-ended', me.id, null, {});
  },
});
