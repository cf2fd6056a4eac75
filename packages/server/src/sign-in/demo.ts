/**
 * The demo's one-click sign-in. Off unless the configuration asks for it, and then on this machine alone (see
 * config.ts).
 */
import type { Entrance } from '@nesting/contract';
import type { Db } from '../db/client';
import { Refused, type World } from '../flows/world';
import { requestAddress } from '../request-context';
import { withAddress } from './attempts';
import type { Auth } from './auth';
import { enter } from './sign-in';

/** Known to everybody: demo people exist in a demo's own database only. */
export const DEMO_PASSWORD = 'tallow-street-demo';

export async function demoPeople(db: Db): Promise<Entrance['people']> {
  const result = await db.query<Entrance['people'][number]>(
    "select initials, name, role, does from person where not retired order by array_position(array['coordinator', 'artist', 'lead'], role), name",
  );
  return result.rows;
}

export async function signInAsDemo(world: World, auth: Auth, initials: string, headers: Headers): Promise<Response> {
  if (!world.config.demo) throw new Refused('not-found');
  const person = await world.db.query<{ email: string }>(
    'select email from person where initials = $1 and not retired',
    [initials],
  );
  const email = person.rows[0]?.email;
  if (email === undefined) throw new Refused('no-person');
  const response = await enter(auth, { email, password: DEMO_PASSWORD }, withAddress(headers, requestAddress() ?? ''));
  if (!response.ok) throw new Refused('sign-in-wrong');
  return response;
}
