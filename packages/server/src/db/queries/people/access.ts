import type { KeyRow, LinkFound, PersonRow, Role, SessionRow } from '@nesting/contract';
import type { Client } from '../../client';

const PERSON = `select p.id, p.version, p.name, p.email, p.initials, p.role, p.does,
    case when p.retired then 'left' when exists (select from credential c where c.person_id = p.id and c.password is not null) then 'active' else 'invited' end as state,
    (select max(s.updated_at) from session s where s.person_id = p.id) as "lastSeen", (select count(*)::int from project j where j.started_by = p.id) as projects
  from person p`;

type Row = Omit<PersonRow, 'lastSeen'> & { lastSeen: Date | null };
const rowOf = (row: Row): PersonRow => ({ ...row, lastSeen: row.lastSeen?.toISOString() ?? null });

export async function listPeople(client: Client): Promise<PersonRow[]> {
  return (await client.query<Row>(`${PERSON} order by p.retired, lower(p.name)`)).rows.map(rowOf);
}

/** Somebody who works here, by initials. */
export async function personByInitials(
  client: Client,
  initials: string,
): Promise<{ readonly id: string; readonly name: string; readonly email: string } | null> {
  return (
    (
      await client.query<{ id: string; name: string; email: string }>(
        'select id, name, email from person where initials = $1 and not retired',
        [initials],
      )
    ).rows[0] ?? null
  );
}

export async function readPerson(client: Client, id: string): Promise<PersonRow | null> {
  const row = (await client.query<Row>(`${PERSON} where p.id = $1`, [id])).rows[0];
  return row === undefined ? null : rowOf(row);
}

export async function personByEmail(client: Client, email: string): Promise<PersonRow | null> {
  const row = (await client.query<Row>(`${PERSON} where p.email = lower($1)`, [email])).rows[0];
  return row === undefined ? null : rowOf(row);
}

export async function anybody(client: Client): Promise<boolean> {
  return (
    ((
      await client.query(
        `select from person p
           where role = 'coordinator' and not retired
             and exists (select from credential c where c.person_id = p.id and c.password is not null)
           limit 1`,
      )
    ).rowCount ?? 0) > 0
  );
}

export interface PersonGiven {
  readonly name: string;
  readonly email: string;
  readonly initials: string;
  readonly role: Role;
  readonly does: string;
}

/** Somebody who has no password yet. Fails by constraint where the address or initials are taken. */
export async function insertInvited(client: Client, id: string, p: PersonGiven): Promise<void> {
  await client.query(
    `insert into person (id, name, email, email_verified, initials, role, does)
       values ($1, $2, lower($3), true, $4, $5, $6)`,
    [id, p.name, p.email, p.initials, p.role, p.does],
  );
}

export async function updatePerson(client: Client, id: string, p: PersonGiven, version: number): Promise<boolean> {
  const result = await client.query(
    `update person set name = $3, email = lower($4), initials = $5, role = $6, does = $7, version = version + 1,
         updated_at = now()
       where id = $1 and version = $2`,
    [id, version, p.name, p.email, p.initials, p.role, p.does],
  );
  return (result.rowCount ?? 0) > 0;
}

/** Locked, so that two coordinators never take each other's right at once and leave nobody. */
export async function otherCoordinators(client: Client, id: string): Promise<number> {
  return (
    (
      await client.query(
        `select id from person p
           where role = 'coordinator' and not retired and id <> $1
             and exists (select from credential c where c.person_id = p.id and c.password is not null) for update`,
        [id],
      )
    ).rowCount ?? 0
  );
}

/** What somebody who leaves can no longer use: sessions, keys, links, and what they held. */
export async function endAccess(client: Client, id: string): Promise<string[]> {
  await client.query('delete from session where person_id = $1', [id]);
  await revokeKeys(client, id);
  await client.query('update access_link set used_at = clock_timestamp() where person_id = $1 and used_at is null', [
    id,
  ]);
  await client.query('delete from finding_link where person_id = $1', [id]);
  await client.query("update credential set password = null where person_id = $1 and provider_id = 'credential'", [id]);
  await client.query('delete from name_hold where person_id = $1', [id]);
  return (
    await client.query<{ number: string }>('delete from number_hold where person_id = $1 returning number', [id])
  ).rows.map((r) => r.number);
}

export async function revokeKeys(client: Client, person: string): Promise<void> {
  await client.query(
    'update access_key set revoked_at = clock_timestamp() where person_id = $1 and revoked_at is null',
    [person],
  );
}

export async function setRetired(client: Client, id: string, retired: boolean): Promise<void> {
  await client.query(
    `update person set retired = $2, left_at = case when $2 then clock_timestamp() end, version = version + 1
       where id = $1`,
    [id, retired],
  );
}

export async function insertLink(
  client: Client,
  hash: string,
  purpose: LinkFound['purpose'],
  person: string | null,
  by: string | null,
  minutes: number,
): Promise<void> {
  // A new link of a sort takes the place of the older ones.
  await client.query(
    `update access_link set used_at = clock_timestamp() where purpose = $1 and person_id is not distinct
       from $2 and used_at is null`,
    [purpose, person],
  );
  await client.query(
    `insert into access_link (hash, purpose, person_id, made_by, expires_at)
       values ($1, $2, $3, $4, clock_timestamp() + make_interval(mins => $5))`,
    [hash, purpose, person, by, minutes],
  );
}

export interface LinkRow {
  readonly purpose: LinkFound['purpose'];
  readonly person: string | null;
  readonly state: 'open' | 'used' | 'expired';
}

export async function readLink(client: Client, hash: string): Promise<LinkRow | null> {
  const result = await client.query<LinkRow>(
    `select purpose, person_id as person, case when used_at is not null
         then 'used' when expires_at < clock_timestamp() then 'expired' else 'open' end as state
       from access_link where hash = $1`,
    [hash],
  );
  return result.rows[0] ?? null;
}

/** Uses a link up; `false` where somebody did already, or it is over. */
export async function spendLink(client: Client, hash: string): Promise<boolean> {
  return (
    ((
      await client.query(
        `update access_link set used_at = clock_timestamp()
           where hash = $1 and used_at is null and expires_at >= clock_timestamp()`,
        [hash],
      )
    ).rowCount ?? 0) > 0
  );
}

/** The person's password from now on; every session ends but the one named. */
export async function setPassword(
  client: Client,
  person: string,
  hash: string,
  keepSession: string | null,
): Promise<void> {
  await client.query(
    `insert into credential (id, account_id, provider_id, person_id, password) values (gen_random_uuid()::text, $1, 'credential', $1, $2)
     on conflict (provider_id, account_id) do update set password = excluded.password, updated_at = now()`,
    [person, hash],
  );
  await client.query('delete from session where person_id = $1 and id is distinct from $2', [person, keepSession]);
}

export async function passwordOf(client: Client, person: string): Promise<string | null> {
  return (
    (
      await client.query<{ password: string | null }>(
        "select password from credential where person_id = $1 and provider_id = 'credential'",
        [person],
      )
    ).rows[0]?.password ?? null
  );
}

export async function insertKey(
  client: Client,
  key: { id: string; person: string; name: string; head: string; hash: string; days: number | null },
): Promise<void> {
  await client.query(
    `insert into access_key (id, person_id, name, head, hash, expires_at)
       values ($1, $2, $3, $4, $5, clock_timestamp() + make_interval(days => $6))`,
    [key.id, key.person, key.name, key.head, key.hash, key.days],
  );
}

export async function listKeys(client: Client, person: string): Promise<KeyRow[]> {
  const result = await client.query<{
    id: string;
    name: string;
    head: string;
    made_at: Date;
    expires_at: Date | null;
    last_used_at: Date | null;
  }>(
    `select id, name, head, made_at, expires_at, last_used_at from access_key
       where person_id = $1 and revoked_at is null order by made_at desc`,
    [person],
  );
  return result.rows.map((r) => ({
    id: r.id,
    name: r.name,
    head: r.head,
    madeAt: r.made_at.toISOString(),
    expiresAt: r.expires_at?.toISOString() ?? null,
    lastUsedAt: r.last_used_at?.toISOString() ?? null,
  }));
}

export async function revokeKey(client: Client, person: string, id: string): Promise<boolean> {
  return (
    ((
      await client.query(
        'update access_key set revoked_at = clock_timestamp() where id = $1 and person_id = $2 and revoked_at is null',
        [id, person],
      )
    ).rowCount ?? 0) > 0
  );
}

/** Whose key this is, where it still opens anything; its use is noted once a minute. */
export async function personOfKey(
  client: Client,
  hash: string,
): Promise<{ id: string; name: string; initials: string; role: Role } | null> {
  const result = await client.query<{
    key: string;
    id: string;
    name: string;
    initials: string;
    role: Role;
    stale: boolean;
  }>(
    `select k.id as key, p.id, p.name, p.initials, p.role, k.last_used_at is null or k.last_used_at < clock_timestamp() - interval '1 minute' as stale
     from access_key k join person p on p.id = k.person_id where k.hash = $1 and k.revoked_at is null and (k.expires_at is null or k.expires_at > clock_timestamp()) and not p.retired`,
    [hash],
  );
  const row = result.rows[0];
  if (row?.stale) await client.query('update access_key set last_used_at = clock_timestamp() where id = $1', [row.key]);
  return row ?? null;
}

export async function listSessions(client: Client, person: string, token: string | null): Promise<SessionRow[]> {
  const result = await client.query<{
    id: string;
    created_at: Date;
    updated_at: Date;
    ip_address: string | null;
    user_agent: string | null;
    here: boolean;
  }>(
    `select id, created_at, updated_at, ip_address, user_agent, token is not distinct from $2 as here from session
       where person_id = $1 and expires_at > now() order by updated_at desc`,
    [person, token],
  );
  return result.rows.map((r) => ({
    id: r.id,
    since: r.created_at.toISOString(),
    lastSeen: r.updated_at.toISOString(),
    from: r.ip_address ?? '',
    browser: r.user_agent ?? '',
    here: r.here,
  }));
}

export async function endSession(client: Client, person: string, id: string): Promise<boolean> {
  return ((await client.query('delete from session where id = $1 and person_id = $2', [id, person])).rowCount ?? 0) > 0;
}

/** Counts an attempt in its window; answers how many there were with it. */
export async function countAttempt(client: Client, key: string, minutes: number): Promise<number> {
  const result = await client.query<{ count: number }>(
    `insert into sign_in_attempt as a (key) values ($1)
     on conflict (key) do update set count = case when a.since < clock_timestamp() - make_interval(mins => $2) then 1 else a.count + 1 end, since = case when a.since < clock_timestamp() - make_interval(mins => $2) then clock_timestamp() else a.since end
     returning count`,
    [key, minutes],
  );
  return result.rows[0]?.count ?? 1;
}

export async function forgetAttempts(client: Client, keys: readonly string[]): Promise<void> {
  await client.query('delete from sign_in_attempt where key = any($1)', [keys]);
}
