/**
 * What an installation is given by hand, until its screens can: people, templates and lists. Only the database is
 * needed.
 *   person NAME EMAIL INITIALS ROLE   (the password is the first line of standard input)
 *   template FILE                     (with the starter files beside it)
 *   registers FILE
 *   backup FILE, restore FILE
 */

import { readFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseMeanings, parseRegisters, parseTemplate, ROLES } from '@nesting/contract';
import { codeOf } from '@nesting/core/change';
import { backup, restore, Unusable } from './backup';
import { type Db, openDb, sqlFault, transaction } from './db/client';
import { migrate } from './db/migrate';
import { insertEdition, insertPerson, upsertRegisters } from './db/queries/house/install';
import { readMeanings } from './db/queries/house/marks';
import { addMeanings, settleTemplate } from './flows/rules/settled-marks';
import { startersBeside } from './flows/rules/take-template';
import { Refused } from './flows/world';
import { hashPassword } from './sign-in/password';

async function main([what = '', ...args]: readonly string[]): Promise<string> {
  const url = process.env.NESTING_DATABASE;
  if (!url) throw new Unusable('NESTING_DATABASE is not set: the address of the database, postgres://…');
  const db = openDb(url, 2);
  try {
    const migrations = fileURLToPath(new URL('./migrations', import.meta.url));
    if (what === 'backup') return backup(url, args[0] ?? '');
    if (what === 'restore') return await restore(db, url, migrations, args[0] ?? '');
    await migrate(db, url, migrations);
    if (what === 'person') return await person(db, args);
    if (what === 'template') return await template(db, args[0] ?? '');
    if (what === 'registers') return await registers(db, args[0] ?? '');
    throw new Unusable(
      'say what: person NAME EMAIL INITIALS ROLE, template FILE, registers FILE, backup FILE, or restore FILE',
    );
  } finally {
    await db.end();
  }
}

async function person(db: Db, [name, email, initials, given]: readonly string[]): Promise<string> {
  const role = ROLES.find((r) => r === given);
  if (!name || !email || !initials || !role)
    throw new Unusable(`write: person NAME EMAIL INITIALS ROLE, with a role of ${ROLES.join(', ')}`);
  const password = readFileSync(0, 'utf8').split('\n')[0] ?? '';
  if (password.length < 12)
    throw new Unusable('the first line of standard input is the password: at least 12 characters');
  await transaction(db, async (client) =>
    insertPerson(client, { name, email, initials, role, hash: await hashPassword(password) }),
  );
  return `${name} may sign in as ${role}`;
}

async function template(db: Db, file: string): Promise<string> {
  const parsed = parseTemplate(readFileSync(file, 'utf8'), file);
  if (!parsed.ok) throw new Unusable(parsed.faults[0]);
  const theirs = parseMeanings(readFileSync(file, 'utf8'), file);
  if (!theirs.ok) throw new Unusable(theirs.faults[0]);
  const edition = await transaction(db, async (client) => {
    const { thing, meanings } = settleTemplate(parsed.value, theirs.value, await readMeanings(client, true));
    await addMeanings(client, [meanings]);
    return insertEdition(client, thing, startersBeside(dirname(file), parsed.value));
  });
  return `${parsed.value.name}, edition ${edition}, is in force`;
}

async function registers(db: Db, file: string): Promise<string> {
  const parsed = parseRegisters(readFileSync(file, 'utf8'), file);
  if (!parsed.ok) throw new Unusable(parsed.faults[0]);
  await transaction(db, (client) => upsertRegisters(client, parsed.value));
  return 'the lists are taken in; people are added one by one';
}

function lastWords(error: unknown): string {
  const constraint = sqlFault(error)?.constraint ?? '';
  if (constraint === 'template_edition_pkey')
    return 'this edition is in force already, and editions never change: raise the number';
  if (constraint.startsWith('person_'))
    return 'somebody has this e-mail address or these initials already, or the initials are no capitals';
  if (error instanceof Unusable || error instanceof Refused) return error.message;
  return codeOf(error);
}

main(process.argv.slice(2)).then(
  (said) => process.stdout.write(`${said}\n`),
  (error: unknown) => {
    process.stderr.write(`nesting: ${lastWords(error)}\n`);
    process.exitCode = 2;
  },
);
