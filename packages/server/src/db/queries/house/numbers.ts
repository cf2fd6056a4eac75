import type { NumberEventCode, NumberLine } from '@nesting/contract';
import { elementAt } from '@nesting/core';
import type { NumberSeries } from '@nesting/core/numbers';
import type { Client } from '../../client';

/** Locked until the transaction ends: whoever counts is served one after another. */
export async function lockSeries(client: Client): Promise<NumberSeries & { version: number }> {
  return elementAt(
    (
      await client.query<NumberSeries & { version: number }>(
        "select pattern, reset, start, kinds, version from number_series where name = 'project' for update",
      )
    ).rows,
    0,
  );
}

export async function readSeries(client: Client): Promise<NumberSeries & { version: number }> {
  return elementAt(
    (
      await client.query<NumberSeries & { version: number }>(
        "select pattern, reset, start, kinds, version from number_series where name = 'project'",
      )
    ).rows,
    0,
  );
}

export async function updateSeries(client: Client, series: NumberSeries, version: number): Promise<boolean> {
  const result = await client.query(
    `update number_series set pattern = $1, reset = $2, start = $3, kinds = $4, version = version + 1
       where name = 'project' and version = $5`,
    [series.pattern, series.reset, series.start, JSON.stringify(series.kinds), version],
  );
  // Counted anew from what is there, by the new pattern.
  await client.query('delete from number_counter');
  return (result.rowCount ?? 0) > 0;
}

export async function readCounter(client: Client, scope: string): Promise<number | null> {
  return (
    (await client.query<{ last: number }>('select last from number_counter where scope = $1', [scope])).rows[0]?.last ??
    null
  );
}

export async function writeCounter(client: Client, scope: string, last: number): Promise<void> {
  await client.query(
    `insert into number_counter (scope, last) values ($1, $2) on conflict (scope) do update
       set last = greatest(number_counter.last, excluded.last)`,
    [scope, last],
  );
}

export async function allNumbers(client: Client): Promise<string[]> {
  return (await client.query<{ number: string }>('select number from project')).rows.map((r) => r.number);
}

export interface NumberEvent {
  readonly number: string;
  readonly scope: string;
  readonly n: number;
  readonly what: NumberEventCode;
  readonly person: string | null;
  readonly why?: string;
}

export async function recordNumbers(client: Client, events: readonly NumberEvent[]): Promise<void> {
  if (events.length === 0) return;
  await client.query(
    `insert into number_event (number, scope, n, what, person_id, why) select number, scope, n, what, person,
         coalesce(why, '')
       from jsonb_to_recordset($1) as given(number text, scope text, n int, what text, person text, why text)`,
    [JSON.stringify(events)],
  );
}

/** Numbers of a scope that were given out and came back, the lowest first: they are offered again. */
export async function returnedNumbers(client: Client, scope: string): Promise<{ number: string; n: number }[]> {
  const result = await client.query<{ number: string; n: number }>(
    `select number, n from (select distinct on (number) number, n, what from number_event where scope = $1 order by number, id desc) last
     where what in ('given-back', 'expired', 'freed', 'released') and not exists (select from project p where p.number = last.number)
       and not exists (select from number_hold h where h.number = last.number) and not exists (select from number_reserved r where r.number = last.number)
     order by n limit 5`,
    [scope],
  );
  return result.rows;
}

/** Whether a number belongs to a project, is held or reserved. */
export async function isTaken(client: Client, number: string): Promise<boolean> {
  const result = await client.query<{ taken: boolean }>(
    `select exists(select from project where number = $1) or exists(select from number_hold where number = $1)
         or exists(select from number_reserved where number = $1) as taken`,
    [number],
  );
  return result.rows[0]?.taken ?? false;
}

/** How long a number is kept for somebody who fills in the form; renewed while the form is open. */
const HOLD_MINUTES = 30;

/** Held for this person from now; `null` where somebody else holds it. */
export async function putHold(client: Client, number: string, person: string): Promise<Date> {
  const result = await client.query<{ until: Date }>(
    `insert into number_hold (number, person_id, until)
       values ($1, $2, clock_timestamp() + make_interval(mins => $3)) on conflict (number) do update
       set until = excluded.until where number_hold.person_id = excluded.person_id returning until`,
    [number, person, HOLD_MINUTES],
  );
  const row = result.rows[0];
  if (row === undefined) throw new Error('the number is held by somebody else');
  return row.until;
}

export async function holdsOf(client: Client, person: string): Promise<string[]> {
  return (
    await client.query<{ number: string }>(
      `select number from number_hold h
         where person_id = $1 and not exists (select from project p where p.number = h.number) order by number`,
      [person],
    )
  ).rows.map((r) => r.number);
}

/** Takes a hold away; `false` where the person has none on it. */
export async function dropHold(client: Client, person: string, number: string): Promise<boolean> {
  return (
    ((await client.query('delete from number_hold where number = $1 and person_id = $2', [number, person])).rowCount ??
      0) > 0
  );
}

export async function dropExpired(client: Client): Promise<{ number: string; person: string }[]> {
  return (
    await client.query<{ number: string; person: string }>(
      'delete from number_hold where until < clock_timestamp() returning number, person_id as person',
    )
  ).rows;
}

/** Who else holds this number now; `null` for nobody. */
export async function heldByOther(client: Client, person: string, number: string): Promise<string | null> {
  const result = await client.query<{ name: string }>(
    `select p.name from number_hold h join person p on p.id = h.person_id
       where h.number = $1 and h.person_id <> $2 and h.until >= now()`,
    [number, person],
  );
  return result.rows[0]?.name ?? null;
}

/** Why a number is kept; `null` where it is not, or where it is kept for this project. */
export async function reservedFor(
  client: Client,
  number: string,
  project: string | null = null,
): Promise<string | null> {
  const result = await client.query<{ why: string }>(
    `select why from number_reserved where number = $1 and project_id is distinct
       from coalesce($2::uuid, gen_random_uuid())`,
    [number, project],
  );
  return result.rows[0]?.why ?? null;
}

/** Fails by constraint where it is reserved already. */
export async function insertReserved(client: Client, number: string, why: string, person: string): Promise<void> {
  await client.query('insert into number_reserved (number, why, person_id) values ($1, $2, $3)', [number, why, person]);
}

/** A number that this project had, for as long as nobody releases it. */
export async function keepStood(
  client: Client,
  { number, why, person, project }: { number: string; why: string; person: string | null; project: string },
): Promise<void> {
  await client.query(
    `insert into number_reserved (number, why, person_id, project_id) values ($1, $2, $3, $4)
       on conflict (number) do nothing`,
    [number, why, person, project],
  );
}

export async function deleteReserved(client: Client, number: string): Promise<boolean> {
  return ((await client.query('delete from number_reserved where number = $1', [number])).rowCount ?? 0) > 0;
}

export async function listReserved(
  client: Client,
): Promise<{ number: string; why: string; by: string | null; at: string }[]> {
  const result = await client.query<{ number: string; why: string; by: string | null; at: Date }>(
    `select r.number, r.why, p.name as by, r.at from number_reserved r left join person p on p.id = r.person_id
       order by r.number`,
  );
  return result.rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}

export async function scopesThere(client: Client): Promise<string[]> {
  return (
    await client.query<{ scope: string }>(
      'select scope from number_counter union select distinct scope from number_event order by 1 desc',
    )
  ).rows.map((r) => r.scope);
}

type Known = Pick<NumberLine, 'what' | 'project' | 'by' | 'at' | 'why'> & {
  readonly number: string;
  readonly held: boolean;
  readonly reserved: string | null;
};

/** What is known of these numbers: their project, hold and reservation, and what happened to them last. */
export async function knownNumbers(client: Client, numbers: readonly string[]): Promise<Map<string, Known>> {
  const result = await client.query<{
    number: string;
    project: string | null;
    folder: string | null;
    holder: string | null;
    reserved: string | null;
    what: NumberEventCode | null;
    by: string | null;
    at: Date | null;
    why: string | null;
  }>(
    `select w.number, j.id as project, j.folder, hp.name as holder, r.why as reserved, e.what, ep.name as by, e.at, e.why
     from unnest($1::text[]) w(number)
     left join project j on j.number = w.number
     left join number_hold h on h.number = w.number left join person hp on hp.id = h.person_id
     left join number_reserved r on r.number = w.number
     left join lateral (select what, person_id, at, why from number_event where number = w.number order by id desc limit 1) e on true
     left join person ep on ep.id = e.person_id`,
    [numbers],
  );
  return new Map(
    result.rows.map((r): [string, Known] => [
      r.number,
      {
        number: r.number,
        project: r.project === null ? null : { id: r.project, folder: r.folder ?? '' },
        held: r.holder !== null,
        reserved: r.reserved,
        what: r.what,
        by: r.holder ?? r.by,
        at: r.at?.toISOString() ?? null,
        why: r.why ?? '',
      },
    ]),
  );
}
