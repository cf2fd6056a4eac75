import type { Client } from '../client';

/** How long a number is kept for somebody who fills in the form; renewed while the form is open. */
const HOLD_MINUTES = 30;

/**
 * Holds the next free number of a year for a person: their own hold is renewed, else the lowest number above all used ones that
 * nobody holds. The series' row is locked, so that two who ask at once are served one after the other.
 */
export async function holdNumber(client: Client, person: string, year: number): Promise<{ number: string; until: Date }> {
  const series = await client.query<{ digits: number }>("select digits from number_series where name = 'project' for update");
  const digits = series.rows[0]?.digits ?? 3;
  const head = String(year % 100).padStart(2, '0');
  await client.query('delete from number_hold where until < now()');
  const result = await client.query<{ number: string; until: Date }>(
    `with mine as (
       select number from number_hold where person_id = $1 and number like $2 || '%' and not exists (select from project p where p.number = number_hold.number) limit 1
     ), used as (
       select coalesce(max(substr(number, 3)::int), 0) as last from project where number ~ ('^' || $2 || '[0-9]{' || $3::text || '}$')
     ), free as (
       select n from used, generate_series(used.last + 1, used.last + 2 + (select count(*)::int from number_hold)) n
       where not exists (select from number_hold h where h.number = $2 || lpad(n::text, $3::int, '0')) order by n limit 1
     )
     insert into number_hold (number, person_id, until)
     select coalesce((select number from mine), (select $2 || lpad(n::text, greatest($3::int, length(n::text)), '0') from free)), $1, now() + make_interval(mins => $4)
     on conflict (number) do update set until = excluded.until
     returning number, until`,
    [person, head, digits, HOLD_MINUTES],
  );
  return result.rows[0] as { number: string; until: Date };
}

export async function giveBackNumber(client: Client, person: string, number: string): Promise<void> {
  await client.query('delete from number_hold where number = $1 and person_id = $2', [number, person]);
}

/** Who else holds this number now; `null` for nobody. */
export async function heldByOther(client: Client, person: string, number: string): Promise<string | null> {
  const result = await client.query<{ name: string }>('select p.name from number_hold h join person p on p.id = h.person_id where h.number = $1 and h.person_id <> $2 and h.until >= now()', [number, person]);
  return result.rows[0]?.name ?? null;
}
