/** Ways of carrying a project over that are kept with a template. */
import type { KeptWay } from '@nesting/contract';
import type { Client } from '../../client';

/** In the order of their names. */
export async function listWays(client: Client, template: string): Promise<KeptWay[]> {
  const { rows } = await client.query<Omit<KeptWay, 'at'> & { readonly at: Date }>(
    `select w.name, w.way, coalesce(p.name, '') "by", w.at
       from carry_way w left join person p on p.id = w.person_id
       where w.template_id = $1 order by w.name`,
    [template],
  );
  return rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() }));
}

export interface WayToKeep extends Pick<KeptWay, 'name' | 'way'> {
  readonly template: string;
  readonly person: string;
}

/** In place of one of that name. */
export async function keepWay(client: Client, { template, name, way, person }: WayToKeep): Promise<void> {
  await client.query(
    `insert into carry_way (template_id, name, way, person_id) values ($1, $2, $3, $4)
       on conflict (template_id, name)
       do update set way = excluded.way, person_id = excluded.person_id, at = clock_timestamp()`,
    [template, name, JSON.stringify(way), person],
  );
}

/** Whether there was one. */
export async function dropWay(client: Client, template: string, name: string): Promise<boolean> {
  const { rowCount } = await client.query('delete from carry_way where template_id = $1 and name = $2', [
    template,
    name,
  ]);
  return (rowCount ?? 0) > 0;
}
