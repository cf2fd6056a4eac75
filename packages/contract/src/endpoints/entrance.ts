/** Before one is signed in, and who one is. */
import { z } from 'zod';
import { endpoint } from '../endpoint';
import { ALL } from '../roles';
import { entranceSchema, meSchema } from '../wire';

/** Whatever the library that signs people in tells of them: the screens ask for `me`. */
const signedIn = { signsIn: z.looseObject({}) } as const;

export const ENTRANCE_ENDPOINTS = {
  describe: endpoint({
    method: 'GET',
    path: '/api/openapi.json',
    does: 'Gives this document',
    roles: 'anyone',
    whose: 'house',
    // Its form is the OpenAPI standard's.
    reply: { json: z.looseObject({ openapi: z.literal('3.1.0') }) },
  }),
  entrance: endpoint({
    method: 'GET',
    path: '/api/entrance',
    does: 'Says what the sign-in page has to know',
    roles: 'anyone',
    whose: 'house',
    reply: { json: entranceSchema },
  }),
  demoSignIn: endpoint({
    method: 'POST',
    path: '/api/demo/sign-in',
    does: 'Signs in as somebody of the demo, in a demo alone',
    roles: 'anyone',
    whose: 'own',
    body: z.object({ initials: z.string().max(4) }),
    reply: signedIn,
    refuses: ['no-person', 'sign-in-wrong'],
  }),
  signIn: endpoint({
    method: 'POST',
    path: '/api/auth/sign-in/email',
    does: 'Signs in by address and password',
    roles: 'anyone',
    whose: 'own',
    body: z.object({ email: z.string().max(200), password: z.string().max(128) }),
    reply: signedIn,
    refuses: ['sign-in-wrong', 'too-many-sign-ins'],
  }),
  signOut: endpoint({
    method: 'POST',
    path: '/api/auth/sign-out',
    does: 'Ends the session it is asked in',
    roles: 'anyone',
    whose: 'own',
    reply: signedIn,
  }),
  me: endpoint({
    method: 'GET',
    path: '/api/me',
    does: 'Says who one is, and what one may do',
    roles: ALL,
    whose: 'own',
    reply: { json: meSchema },
  }),
} as const;
