/** Findings that somebody accepted: why, by whom, until when. */
import type { ExceptionRow, StoredFinding } from '@nesting/contract';
import type { RuleCode } from '@nesting/core/check';
import { findingWords } from '@nesting/core/words';
import type { Client } from '../../client';
import { HOLDS } from './findings';

export async function acceptFindings(
  client: Client,
  project: string,
  ids: readonly string[],
  person: string,
  reason: string,
  until: string | null,
): Promise<number> {
  const result = await client.query(
    `insert into exception (project_id, finding_id, reason, person_id, until)
     select $1, f.id, $3, $4, $5::date from finding f where f.project_id = $1 and f.until_at is null and f.id = any($2)
     on conflict (project_id, finding_id) do update set reason = excluded.reason, person_id = excluded.person_id, until = excluded.until, at = clock_timestamp(), baseline = false`,
    [project, ids, reason, person, until],
  );
  return result.rowCount ?? 0;
}

export async function unacceptFindings(client: Client, project: string, ids: readonly string[]): Promise<number> {
  return (
    (await client.query('delete from exception where project_id = $1 and finding_id = any($2)', [project, ids]))
      .rowCount ?? 0
  );
}

/** Everything that stands is accepted as it is today. */
export async function makeBaseline(client: Client, project: string, person: string, reason: string): Promise<number> {
  const result = await client.query(
    `insert into exception (project_id, finding_id, reason, person_id, baseline, modified)
     select $1, f.id, $2, $3, true, f.modified from finding f left join exception e on e.project_id = f.project_id and e.finding_id = f.id where f.project_id = $1 and f.until_at is null and not ${HOLDS}
     on conflict (project_id, finding_id) do update set reason = excluded.reason, person_id = excluded.person_id, until = null, at = clock_timestamp(), baseline = true, modified = excluded.modified`,
    [project, reason, person],
  );
  return result.rowCount ?? 0;
}

export async function listExceptions(client: Client, project: string | null): Promise<ExceptionRow[]> {
  const result = await client.query<{
    id: string;
    project: string;
    number: string;
    title: string;
    rule: RuleCode | null;
    path: string | null;
    body: StoredFinding | null;
    reason: string;
    by: string | null;
    at: Date;
    until: string | null;
    baseline: boolean;
    state: ExceptionRow['state'];
  }>(
    `select e.finding_id id, p.id project, p.number, p.title, f.rule, f.path, f.body, e.reason, a.initials "by", e.at, to_char(e.until, 'YYYY-MM-DD') "until", e.baseline,
       case when e.until < current_date then 'ended' when f.id is null then 'gone' when e.baseline and f.modified > e.modified then 'touched' else 'holds' end state
     from exception e join project p on p.id = e.project_id left join finding f on f.project_id = e.project_id and f.id = e.finding_id and f.until_at is null left join person a on a.id = e.person_id
     where $1::uuid is null or e.project_id = $1 order by e.until nulls last, p.number desc, f.path limit 5000`,
    [project],
  );
  return result.rows.map((r) => ({
    id: r.id,
    project: { id: r.project, number: r.number, title: r.title },
    rule: r.rule,
    path: r.path,
    message: r.body === null ? '' : findingWords(r.body),
    state: r.state,
    accepted: { reason: r.reason, by: r.by ?? '', at: r.at.toISOString(), until: r.until, baseline: r.baseline },
  }));
}
