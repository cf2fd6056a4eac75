/** Who may come in: the first coordinator, invitations, forgotten and changed passwords, leavers, keys for scripts. */
import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { changePasswordSchema, Invite, Invited, LinkFound, PersonRow } from '@nesting/contract';
import type { z } from 'zod';
import { type Client, sqlFault, transaction } from '../../db/client';
import { recordActivity } from '../../db/queries/house/activity';
import {
  anybody,
  countAttempt,
  endAccess,
  insertInvited,
  insertKey,
  insertLink,
  otherCoordinators,
  type PersonGiven,
  passwordOf,
  personByEmail,
  readLink,
  readPerson,
  revokeKey,
  revokeKeys,
  setPassword,
  setRetired,
  spendLink,
  updatePerson,
} from '../../db/queries/people/access';
import { hashPassword, verifyPassword } from '../../sign-in/password';
import { subjectOf } from '../house/lists';
import { freeNumber } from '../house/numbers';
import { Refused, type World } from '../world';

export const hashOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');
const secretOf = (): string => randomBytes(24).toString('base64url');

const MINUTES: Readonly<Record<LinkFound['purpose'], number>> = { first: 60 * 24, invite: 60 * 24 * 7, reset: 60 };

/** The secret stands behind the hash sign: servers and proxies on the way never see it. */
async function linkFor(
  client: Client,
  world: World,
  purpose: LinkFound['purpose'],
  person: string | null,
  by: string | null,
): Promise<string> {
  const secret = secretOf();
  await insertLink(client, hashOf(secret), purpose, person, by, MINUTES[purpose]);
  return `${world.config.publicUrl}/welcome#${secret}`;
}

/** Where nobody can sign in yet: a link for the first coordinator, for whoever reads the server's own output. */
export async function firstLink(world: World): Promise<string | null> {
  if (await anybody(world.db)) return null;
  return transaction(world.db, (client) => linkFor(client, world, 'first', null, null));
}

export const mailsGoOut = (world: World): boolean => world.config.mail !== null || world.config.demo;

/** `null` where a mail was written; else the link itself, to be handed over. */
async function sendLink(
  client: Client,
  world: World,
  to: { name: string; email: string },
  link: string,
  words: { subject: string; lines: readonly string[] },
): Promise<string | null> {
  if (!mailsGoOut(world)) return link;
  await world.mails.write(client, {
    recipient: to.email,
    subject: words.subject,
    body: [`Dear ${to.name},`, '', ...words.lines, '', link, '', 'The link works once.'].join('\n'),
  });
  return null;
}

const inviting = (by: string) => ({
  subject: 'Your way into Nesting',
  lines: [
    `${by} has invited you to Nesting, where projects of the studio are started, named and kept in order. Choose a password within seven days:`,
  ],
});

async function guarded<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    const { state, constraint } = sqlFault(error) ?? { state: '', constraint: '' };
    if (state === '23505')
      throw new Refused('person-there', { by: constraint.includes('email') ? 'email' : 'initials' });
    throw error;
  }
}

export async function invite(world: World, by: { id: string; name: string }, given: Invite): Promise<Invited> {
  const id = randomUUID();
  const link = await guarded(() =>
    transaction(world.db, async (client) => {
      await insertInvited(client, id, given);
      await recordActivity(
        client,
        'person-invited',
        by.id,
        null,
        { name: given.name, role: given.role },
        subjectOf('people', given.initials),
      );
      return sendLink(client, world, given, await linkFor(client, world, 'invite', id, by.id), inviting(by.name));
    }),
  );
  world.mails.wake();
  return { id, link };
}

/** A link once more: an invitation for who has no password yet, else one to choose a new password. */
export async function inviteAgain(world: World, by: { id: string; name: string }, id: string): Promise<Invited> {
  const link = await transaction(world.db, async (client) => {
    const person = await present(client, id);
    if (person.state === 'left') throw new Refused('person-left', { name: person.name });
    const purpose = person.state === 'invited' ? 'invite' : 'reset';
    await recordActivity(
      client,
      purpose === 'invite' ? 'person-invited' : 'reset-asked',
      by.id,
      null,
      { name: person.name, role: person.role },
      subjectOf('people', person.initials),
    );
    return sendLink(
      client,
      world,
      person,
      await linkFor(client, world, purpose, id, by.id),
      purpose === 'invite' ? inviting(by.name) : resetting,
    );
  });
  world.mails.wake();
  return { id, link };
}

const resetting = {
  subject: 'A new password for Nesting',
  lines: [
    'Somebody, most likely you, asked for a new password. Choose it within an hour; if it was not you, leave this mail alone:',
  ],
};

async function present(client: Client, id: string): Promise<PersonRow> {
  const person = await readPerson(client, id);
  if (person === null) throw new Refused('no-person');
  return person;
}

/** Always answered alike, whoever asks and whoever exists. */
export async function forgot(world: World, email: string): Promise<void> {
  if ((await countAttempt(world.db, `forgot:${email.toLowerCase()}`, 60)) > 5) return;
  await transaction(world.db, async (client) => {
    const person = await personByEmail(client, email);
    if (person === null || person.state !== 'active') return;
    await recordActivity(
      client,
      'reset-asked',
      person.id,
      null,
      { name: person.name },
      subjectOf('people', person.initials),
    );
    // Without mail nobody gets the link: a coordinator gives one.
    if (mailsGoOut(world))
      await sendLink(client, world, person, await linkFor(client, world, 'reset', person.id, null), resetting);
  });
  world.mails.wake();
}

export async function lookAtLink(world: World, token: string): Promise<LinkFound> {
  const link = await readLink(world.db, hashOf(token));
  if (link === null) throw new Refused('no-link');
  if (link.state !== 'open') throw new Refused(link.state === 'used' ? 'link-used' : 'link-expired');
  const person = link.person === null ? null : await readPerson(world.db, link.person);
  return { purpose: link.purpose, name: person?.name ?? '', email: person?.email ?? '' };
}

/**
 * Chooses the password a link was for; the first coordinator says who they are. Answers the address to sign in with.
 */
export async function acceptLink(
  world: World,
  token: string,
  password: string,
  first: Pick<PersonGiven, 'name' | 'email' | 'initials'> | undefined,
): Promise<string> {
  const found = await lookAtLink(world, token);
  const hash = await hashPassword(password);
  return guarded(() =>
    transaction(world.db, async (client) => {
      // Two who use one link at once: the row decides.
      if (!(await spendLink(client, hashOf(token)))) throw new Refused('link-used');
      const link = await readLink(client, hashOf(token));
      let id = link?.person ?? null;
      if (found.purpose === 'first') {
        if (first === undefined) throw new Refused('first-missing');
        if (await anybody(client)) throw new Refused('first-there');
        id = randomUUID();
        await insertInvited(client, id, { ...first, role: 'coordinator', does: '' });
      }
      const person = await present(client, id ?? '');
      if (person.state === 'left') throw new Refused('no-link');
      await setPassword(client, person.id, hash, null);
      await revokeKeys(client, person.id);
      await recordActivity(
        client,
        'link-accepted',
        person.id,
        null,
        { purpose: found.purpose, name: person.name },
        subjectOf('people', person.initials),
      );
      return person.email;
    }),
  );
}

/** Every other session ends, and every key unless it is kept: whoever had the old password is out. */
export async function changePassword(
  world: World,
  person: string,
  { old, password, keepKeys }: z.output<typeof changePasswordSchema>,
  session: string,
): Promise<void> {
  const kept = await passwordOf(world.db, person);
  if ((await countAttempt(world.db, `change:${person}`, 15)) > 10) throw new Refused('too-many-tries');
  if (kept === null || !(await verifyPassword({ hash: kept, password: old }))) throw new Refused('password-wrong');
  const hash = await hashPassword(password);
  await transaction(world.db, async (client) => {
    await setPassword(client, person, hash, session);
    if (!keepKeys) await revokeKeys(client, person);
    await recordActivity(client, 'password-changed', person, null, { keysKept: keepKeys ? 1 : 0 });
  });
}

export async function savePerson(
  world: World,
  by: string,
  id: string,
  given: PersonGiven,
  version: number,
): Promise<void> {
  await guarded(() =>
    transaction(world.db, async (client) => {
      const before = await present(client, id);
      if (given.initials !== before.initials && (before.state !== 'invited' || before.projects > 0))
        throw new Refused('initials-used', { initials: before.initials });
      if (before.role === 'coordinator' && given.role !== 'coordinator') await needAnother(client, before);
      if (!(await updatePerson(client, id, given, version))) throw new Refused('person-changed', { name: before.name });
      const keys = (['name', 'email', 'initials', 'role', 'does'] as const).filter((k) => before[k] !== given[k]);
      const pick = (p: PersonGiven) => Object.fromEntries(keys.map((k) => [k, p[k]]));
      if (keys.length > 0)
        await recordActivity(
          client,
          'person-changed',
          by,
          null,
          { key: before.initials, was: pick(before), now: pick(given) },
          subjectOf('people', given.initials),
        );
    }),
  );
}

async function needAnother(client: Client, person: PersonRow): Promise<void> {
  if ((await otherCoordinators(client, person.id)) === 0) throw new Refused('last-coordinator', { name: person.name });
}

/** Access ends at once; what they did stays theirs. */
export async function leave(world: World, by: string, id: string): Promise<void> {
  await transaction(world.db, async (client) => {
    const person = await present(client, id);
    if (person.state === 'left') throw new Refused('person-gone', { name: person.name });
    if (person.role === 'coordinator') await needAnother(client, person);
    await setRetired(client, id, true);
    for (const number of await endAccess(client, id)) await freeNumber(client, number, `${person.name} left`);
    await recordActivity(client, 'person-left', by, null, { name: person.name }, subjectOf('people', person.initials));
  });
}

/** Somebody who left comes back by a new link: nothing that was theirs before opens anything. */
export async function comeBack(world: World, by: { id: string; name: string }, id: string): Promise<Invited> {
  await transaction(world.db, async (client) => {
    const person = await present(client, id);
    if (person.state !== 'left') throw new Refused('not-left', { name: person.name });
    // Once more: of a version before, something may have been left open.
    await endAccess(client, id);
    await setRetired(client, id, false);
    await recordActivity(
      client,
      'person-returned',
      by.id,
      null,
      { name: person.name },
      subjectOf('people', person.initials),
    );
  });
  return inviteAgain(world, by, id);
}

/** How a key begins, so that it is found where it should not lie. */
const KEY_HEAD = 'nest_';

/** The key itself is told this once. */
export async function makeKey(
  world: World,
  person: string,
  name: string,
  days: number | null,
): Promise<{ key: string }> {
  const key = `${KEY_HEAD}${secretOf()}`;
  await transaction(world.db, async (client) => {
    await insertKey(client, { id: randomUUID(), person, name, head: key.slice(0, 10), hash: hashOf(key), days });
    await recordActivity(client, 'key-made', person, null, { name });
  });
  return { key };
}

export async function dropKey(world: World, person: string, id: string): Promise<void> {
  await transaction(world.db, async (client) => {
    if (!(await revokeKey(client, person, id))) throw new Refused('no-key');
    await recordActivity(client, 'key-revoked', person, null, { key: id });
  });
}
