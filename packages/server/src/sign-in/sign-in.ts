/** Signing in by address and password. */
import { personByEmail } from '../db/queries/people/access';
import { Refused, type World } from '../flows/world';
import { requestAddress } from '../request-context';
import { limited, withAddress } from './attempts';
import type { Auth } from './auth';

/** Nobody has it: what is asked for takes as long as for somebody, and is answered alike. */
const NOBODYS = 'nobody@nowhere.invalid';

export async function signIn(
  world: World,
  auth: Auth,
  { email, password }: { readonly email: string; readonly password: string },
  headers: Headers,
): Promise<Response> {
  const address = requestAddress() ?? '';
  const response = await limited(world, email, address, async () => {
    const person = await personByEmail(world.db, email.trim());
    const known = person === null || person.state === 'left' ? NOBODYS : person.email;
    return enter(auth, { email: known, password }, withAddress(headers, address));
  });
  // The library hides why it failed: who leaves at this very moment is refused by the database.
  if (response.status >= 500 && (await personByEmail(world.db, email.trim()))?.state !== 'left')
    throw new Error(`signing in failed with ${response.status}`);
  if (!response.ok) throw new Refused('sign-in-wrong');
  return response;
}

export function enter(
  auth: Auth,
  body: { readonly email: string; readonly password: string },
  headers: Headers,
): Promise<Response> {
  return auth.api.signInEmail({ body, headers, asResponse: true });
}
