import { randomUUID } from 'node:crypto';
import type { Role } from '@nesting/contract';
import type { Family, Registers } from '@nesting/core/name';
import type { Template } from '@nesting/core/template';
import type { Client } from '../../client';
import { adoptConventions } from '../rules/conventions';

const documentWord = ({ document }: Family): string => (document?.folder ? 'folder' : document?.stem ? 'stem' : '');

/**
 * A person who may sign in with a password, already hashed. Fails by constraint where the address or initials are
 * taken.
 */
export async function insertPerson(
  client: Client,
  person: { name: string; email: string; initials: string; role: Role; does?: string; hash: string },
): Promise<string> {
  const id = randomUUID();
  await client.query(
    'insert into person (id, name, email, email_verified, initials, role, does) values ($1, $2, $3, true, $4, $5, $6)',
    [id, person.name, person.email.toLowerCase(), person.initials, person.role, person.does ?? ''],
  );
  await client.query(
    "insert into credential (id, account_id, provider_id, person_id, password) values ($1, $2, 'credential', $2, $3)",
    [randomUUID(), id, person.hash],
  );
  return id;
}

/**
 * Puts an edition in force, with its starter files by their path. Fails where this edition exists: editions never
 * change.
 */
export async function insertEdition(
  client: Client,
  template: Template,
  starters: ReadonlyMap<string, Uint8Array>,
): Promise<number> {
  const edition = template.edition ?? 1;
  await client.query(
    'insert into template (id, name) values ($1, $2) on conflict (id) do update set name = excluded.name',
    [template.id, template.name],
  );
  await client.query('insert into template_edition (template_id, edition, body) values ($1, $2, $3)', [
    template.id,
    edition,
    JSON.stringify({ ...template, edition }),
  ]);
  for (const [path, bytes] of starters)
    await client.query('insert into starter_file (template_id, edition, path, bytes) values ($1, $2, $3, $4)', [
      template.id,
      edition,
      path,
      bytes,
    ]);
  await adoptConventions(client, template);
  return edition;
}

/** Adds house lists; entries that exist take the new words. People are added one by one, with their passwords. */
export async function upsertRegisters(client: Client, registers: Registers): Promise<void> {
  for (const c of registers.clients)
    await client.query(
      `insert into client (code, name, retired) values ($1, $2, $3) on conflict (code) do update
         set name = excluded.name, retired = excluded.retired`,
      [c.code, c.name, c.retired ?? false],
    );
  for (const [place, f] of registers.families.entries())
    await client.query(
      `insert into family (name, extensions, companions, place, document) values ($1, $2, $3, $4, $5)
         on conflict (name) do update set extensions = excluded.extensions, companions = excluded.companions, document = excluded.document`,
      [f.name, f.extensions, f.companions ?? [], place, documentWord(f)],
    );
  for (const a of registers.abbreviations)
    await client.query(
      'insert into abbreviation (short, long) values ($1, $2) on conflict (long) do update set short = excluded.short',
      [a.short, a.long],
    );
  for (const { path, name } of registers.libraries ?? [])
    await client.query(
      'insert into library (path, name) values ($1, $2) on conflict (path) do update set name = excluded.name',
      [path, name],
    );
  for (const word of registers.banned)
    await client.query('insert into banned_word (word) values ($1) on conflict do nothing', [word]);
}
