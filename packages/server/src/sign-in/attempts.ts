/**
 * Guessing passwords is slow: by the hash, and by counting. A pair of account and address has ten tries in a quarter of
 * an hour, an address
 * sixty, an account from anywhere a hundred in an hour; a right password forgets the pair's tries. Counted in the
 * database, so that a
 * restart forgives nobody.
 */

import { elementAt } from '@nesting/core';
import { recordActivity } from '../db/queries/house/activity';
import { countAttempt, forgetAttempts } from '../db/queries/people/access';
import { Refused, type World } from '../flows/world';

/** Carries the address to the sign-in library, which keeps it with the session. */
export const ADDRESS_HEADER = 'x-nesting-address';

export function withAddress(headers: Headers, address: string): Headers {
  const own = new Headers(headers);
  own.delete(ADDRESS_HEADER);
  if (address !== '') own.set(ADDRESS_HEADER, address);
  return own;
}

const SHORT = 15;
const LONG = 60;

export async function limited(
  world: World,
  email: string,
  address: string,
  signIn: () => Promise<Response>,
): Promise<Response> {
  const account = email.trim().toLowerCase().slice(0, 200);
  const pair = `pair:${address} ${account}`;
  const counts = [
    await countAttempt(world.db, pair, SHORT),
    await countAttempt(world.db, `address:${address}`, SHORT),
    await countAttempt(world.db, `account:${account}`, LONG),
  ];
  const limits = [10, 60, 100];
  const over = counts.findIndex((count, i) => count > elementAt(limits, i));
  if (over >= 0) {
    // Told once for each window, not for each knock.
    if (counts[over] === elementAt(limits, over) + 1)
      await recordActivity(world.db, 'sign-in-refused', null, null, {
        account,
        why: ['account and address', 'address', 'account'][over] ?? '',
      });
    throw new Refused('too-many-sign-ins');
  }
  const response = await signIn();
  if (response.ok) await forgetAttempts(world.db, [pair]);
  return response;
}
