/** Ways that are kept with a template: of carrying a project over, and of packing one. */
import type { KeptPackWay, KeptWay } from '@nesting/contract';
import type { Client } from '../../client';

/** Of what they are, and what is kept of each. */
export interface KeptWays {
  readonly carry: KeptWay;
  readonly pack: KeptPackWay;
}
export type KeptSort = keyof KeptWays;

/** In the order of their names. */
export async function listWays<What extends KeptSort>(
  client: Client,
  what: What,
  template: string,
): Promise<KeptWays[What][]> {
  const { rows } = await client.query<Omit<KeptWays[What], 'at'> & { readonly at: Date }>(
    `select w.name, w.way, coalesce(p.name, '') "by", w.at
       from kept_way w left join person p on p.id = w.person_id
       where w.template_id = $1 and w.what = $2 order by w.name`,
    [template, what],
  );
  // As it was kept, with its time as text.
  return rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() }) as unknown as KeptWays[What]);
}

export interface OfWay {
  readonly what: KeptSort;
  readonly template: string;
  readonly name: string;
}

/** In place of one of that name. */
export async function keepWay(
  client: Client,
  { what, template, name }: OfWay,
  { way, person }: { readonly way: object; readonly person: string },
): Promise<void> {
  await client.query(
    `insert into kept_way (template_id, what, name, way, person_id) values ($1, $2, $3, $4, $5)
       on conflict (template_id, what, name)
       do update set way = excluded.way, person_id = excluded.person_id, at = clock_timestamp()`,
    [template, what, name, JSON.stringify(way), person],
  );
}

/** Whether there was one. */
export async function dropWay(client: Client, { what, template, name }: OfWay): Promise<boolean> {
  const { rowCount } = await client.query('delete from kept_way where template_id = $1 and what = $2 and name = $3', [
    template,
    what,
    name,
  ]);
  return (rowCount ?? 0) > 0;
}
