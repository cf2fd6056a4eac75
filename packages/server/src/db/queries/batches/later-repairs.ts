/** Plans that begin at an hour. */
import type { LaterRepair, RepairAsked } from '@nesting/contract';
import type { Client } from '../../client';

/** By finding, where what it is about was to come to be. */
export type Shown = Readonly<Record<string, string | null>>;

export interface NewLater {
  readonly id: string;
  readonly project: string;
  readonly person: string;
  readonly asked: RepairAsked;
  readonly shown: Shown;
  /** ISO 8601. */
  readonly beginsAt: string;
}

export async function insertLater(client: Client, later: NewLater): Promise<void> {
  await client.query(
    'insert into later_repair (id, project_id, person_id, asked, shown, begins_at) values ($1, $2, $3, $4, $5, $6)',
    [later.id, later.project, later.person, JSON.stringify(later.asked), JSON.stringify(later.shown), later.beginsAt],
  );
}

/** Those of a project that wait, the next one first. */
export async function listLater(client: Client, project: string): Promise<LaterRepair[]> {
  const { rows } = await client.query<Omit<LaterRepair, 'beginsAt'> & { readonly beginsAt: Date }>(
    `select l.id, p.name "by", l.begins_at "beginsAt", (select count(*)::int from jsonb_object_keys(l.shown)) findings
       from later_repair l join person p on p.id = l.person_id
       where l.project_id = $1 and l.state = 'waiting' order by l.begins_at`,
    [project],
  );
  return rows.map(({ beginsAt, ...row }) => ({ ...row, beginsAt: beginsAt.toISOString() }));
}

/** Whether it waited still; of one person's alone where that is given. */
export async function dropLater(client: Client, project: string, id: string, person: string | null): Promise<boolean> {
  const { rowCount } = await client.query(
    `update later_repair set state = 'dropped'
       where id = $1 and project_id = $2 and state = 'waiting' and ($3::text is null or person_id = $3)`,
    [id, project, person],
  );
  return rowCount === 1;
}

export interface DueLater {
  readonly id: string;
  readonly project: string;
  readonly person: string;
  readonly asked: RepairAsked;
  readonly shown: Shown;
}

/** Minutes after which one that was begun and came to nothing is begun again: a crash left it. */
const AGAIN = 10;

/** The next one whose hour has come: for one of the servers that look. */
export async function takeDueLater(client: Client): Promise<DueLater | null> {
  const { rows } = await client.query<DueLater>(
    `update later_repair set state = 'begun', begun_at = clock_timestamp()
       where id = (
         select id from later_repair
           where begins_at <= clock_timestamp()
             and (state = 'waiting' or (state = 'begun' and begun_at < clock_timestamp() - $1 * interval '1 minute'))
           order by begins_at limit 1 for update skip locked)
       returning id, project_id project, person_id person, asked, shown`,
    [AGAIN],
  );
  return rows[0] ?? null;
}

export async function endLater(client: Client, id: string, said: string): Promise<void> {
  await client.query("update later_repair set state = 'over', said = $2 where id = $1", [id, said]);
}
