/** What files and folders were called before a change gave them another name. */
import type { FormerName } from '@nesting/contract';
import type { Change } from '@nesting/core/change';
import { nameOf } from '@nesting/core/listing';
import { placeWords } from '@nesting/core/words';
import type { Client } from '../../client';

interface OfBatch {
  readonly project: string;
  readonly batch: string;
  readonly undoes: string | null;
}

/** Of what was undone the old name is the name again. */
export async function recordFormerNames(
  client: Client,
  { project, batch, undoes }: OfBatch,
  changes: readonly Change[],
): Promise<void> {
  const renamed = changes.flatMap(({ before, after, subject }) => {
    if (before === null || after === null || subject.kind === 'project') return [];
    // What went to another project is looked for by the name it had here.
    const isSame = before.root === after.root && nameOf(before.path) === nameOf(after.path);
    return isSame ? [] : [{ before: placeWords(before), after: placeWords(after) }];
  });
  if (renamed.length === 0) return;
  if (undoes !== null) {
    const backs = renamed.map((r) => r.before);
    await client.query('delete from former_name where batch_id = $1 and after = any($2)', [undoes, backs]);
    return;
  }
  await client.query(
    `insert into former_name (project_id, batch_id, before, after)
       select $1, $2, r.before, r.after from unnest($3::text[], $4::text[]) as r (before, after)`,
    [project, batch, renamed.map((r) => r.before), renamed.map((r) => r.after)],
  );
}

/** Names that are looked through: older ones nobody remembers. */
const MOST_SOUGHT = 200_000;
const MOST_FOUND = 20;

const ROW = `json_build_object('id', p.id, 'number', p.number, 'title', p.title) project, f.before, f.after, f.batch_id batch, f.at
       from former_name f join project p on p.id = f.project_id`;

type Row = Omit<FormerName, 'at'> & { readonly at: Date };
const rowOf = (row: Row): FormerName => ({ ...row, at: row.at.toISOString() });

/** Whose old name holds these letters, the newest first. */
export async function findFormerNames(client: Client, find: string): Promise<FormerName[]> {
  const { rows } = await client.query<Row>(
    `select ${ROW} where f.id > (select coalesce(max(id), 0) - ${MOST_SOUGHT} from former_name)
         and position(lower($1) in lower(f.before)) > 0
         and position(lower($1) in lower(regexp_replace(f.before, '^.*/', ''))) > 0
       order by f.id desc limit ${MOST_FOUND}`,
    [find],
  );
  return rows.map(rowOf);
}

/** Days for which somebody is told what others renamed of theirs. */
const TOLD_DAYS = 30;
const MOST_TOLD = 200;

/** What others renamed lately of what carries somebody's initials as a part of its own, the newest first. */
export async function renamedOf(
  client: Client,
  { id, initials }: { readonly id: string; readonly initials: string },
): Promise<FormerName[]> {
  const { rows } = await client.query<Row>(
    `select ${ROW} join batch b on b.id = f.batch_id
       where f.at > clock_timestamp() - $3 * interval '1 day' and b.person_id is distinct from $1
         and $2 = any (regexp_split_to_array(regexp_replace(f.before, '^.*/', ''), '[^[:alnum:]]+'))
       order by f.id desc limit $4`,
    [id, initials, TOLD_DAYS, MOST_TOLD],
  );
  return rows.map(rowOf);
}
