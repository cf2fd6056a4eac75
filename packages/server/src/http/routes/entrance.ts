/** Before sign-in, and who one is. */

import { ENDPOINTS, ENTRANCE_ENDPOINTS, openApiOf } from '@nesting/contract';
import { Remembered } from '@nesting/core';
import { anybody } from '../../db/queries/people/access';
import { mailsGoOut } from '../../flows/people/access';
import { demoPeople, signInAsDemo } from '../../sign-in/demo';
import { signIn } from '../../sign-in/sign-in';
import { routesOf } from '../handlers';

/** Says nothing that the screens do not say: what there is to ask for, and what comes back. */
const documents = new Remembered((table: typeof ENDPOINTS) => openApiOf(table, '0.1.0'));

// Of all that the sign-in library can do, signing in and out alone are open.
export const ENTRANCE = routesOf(ENTRANCE_ENDPOINTS, {
  describe: () => documents.of(ENDPOINTS),
  entrance: async ({ world }) => ({
    demo: world.config.demo,
    empty: !(await anybody(world.db)),
    mails: mailsGoOut(world),
    people: world.config.demo ? await demoPeople(world.db) : [],
  }),
  demoSignIn: ({ world, auth, body, raw }) => signInAsDemo(world, auth, body.initials, raw.headers),
  signIn: ({ world, auth, body, raw }) => signIn(world, auth, body, raw.headers),
  signOut: ({ auth, raw }) => auth.api.signOut({ headers: raw.headers, asResponse: true }),
  me: ({ me }) => me,
});
