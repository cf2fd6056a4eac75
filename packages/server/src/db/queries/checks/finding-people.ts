/** Whose a finding is: given by hand, or by the initials in a name. */
import type { FindingCounts, PersonFindings, StoredFinding, WhoRow } from '@nesting/contract';
import { findingWords } from '@nesting/core/words';
import type { Client } from '../../client';
import { FROM, HOLDS, TO, WEIGHT_PLACE } from './findings';

export async function giveFindings(
  client: Client,
  project: string,
  ids: readonly string[],
  by: string,
  given: {
    readonly person?: string | null;
    readonly note?: string | undefined;
    /** Nobody else's are taken from them. */
    readonly onlyOf?: string;
  },
): Promise<number> {
  const result = await client.query(
    `insert into finding_mark (project_id, finding_id, person_id, note, by)
     select $1, f.id, $3, coalesce($4, ''), $5 from finding f where f.project_id = $1 and f.until_at is null and f.id = any($2)
     on conflict (project_id, finding_id) do update set person_id = case when $6 and ($7::text is null or finding_mark.person_id is null or finding_mark.person_id = $7) then excluded.person_id else finding_mark.person_id end, note = coalesce($4, finding_mark.note), by = excluded.by, at = clock_timestamp()`,
    [project, ids, given.person ?? null, given.note ?? null, by, given.person !== undefined, given.onlyOf ?? null],
  );
  return result.rowCount ?? 0;
}

/** How many of these findings somebody else has to put right, given or by name. */
export async function findingsOfOthers(
  client: Client,
  project: string,
  ids: readonly string[],
  initials: string,
): Promise<number> {
  const { rows } = await client.query<{ n: number }>(
    `select count(*)::int n from ${FROM}
     where f.project_id = $1 and f.until_at is null and f.id = any($2) and ${TO} <> $3`,
    [project, ids, initials],
  );
  return rows[0]?.n ?? 0;
}

/** Who has what to put right, over all projects that are worked on. */
export async function whoHasWhat(client: Client): Promise<WhoRow[]> {
  const result = await client.query<WhoRow>(
    `select t.initials, coalesce(p.name, '') "name", t.projects, t.must, t.should, t.note from (
       select ${TO} initials, count(distinct f.project_id)::int projects, count(*) filter (where f.weight = 'must')::int must, count(*) filter (where f.weight = 'should')::int should, count(*) filter (where f.weight = 'note')::int note
       from ${FROM} join project j on j.id = f.project_id where f.until_at is null and not ${HOLDS} and j.state in ('running', 'waiting') group by 1) t
     left join person p on p.initials = t.initials order by t.initials nulls last`,
  );
  return result.rows;
}

/** Lines of one person in one project: more are a number. */
const LINES_EACH = 200;

export async function findingsOfPerson(client: Client, initials: string): Promise<PersonFindings['projects']> {
  const result = await client.query<{
    project: string;
    number: string;
    title: string;
    weight: keyof FindingCounts;
    body: StoredFinding;
  }>(
    `select j.id project, j.number, j.title, f.weight, f.body from ${FROM} join project j on j.id = f.project_id
     where f.until_at is null and not ${HOLDS} and ${TO} = $1 and j.state in ('running', 'waiting') order by j.number desc, ${WEIGHT_PLACE}, f.path`,
    [initials],
  );
  const projects = new Map<
    string,
    {
      id: string;
      number: string;
      title: string;
      counts: { must: number; should: number; note: number };
      findings: PersonFindings['projects'][number]['findings'][number][];
      more: number;
    }
  >();
  for (const { project, number, title, weight, body } of result.rows) {
    const known = projects.get(project) ?? {
      id: project,
      number,
      title,
      counts: { must: 0, should: 0, note: 0 },
      findings: [],
      more: 0,
    };
    projects.set(project, known);
    known.counts[weight]++;
    if (known.findings.length < LINES_EACH)
      known.findings.push({
        rule: body.rule,
        weight,
        path: body.path,
        message: findingWords(body),
        suggestion: body.suggestion?.name ?? null,
      });
    else known.more++;
  }
  return [...projects.values()];
}
