/** All projects at once: how findings and sizes went, what could be cleared, what was not looked at. */
import type { Overview } from '@nesting/contract';
import type { RuleCode } from '@nesting/core/check';
import type { Client } from '../../client';
import { HOLDS } from './findings';

const DAYS = 90;

/** Of each project the last check by the end of each day, summed. */
export async function readOverview(client: Client): Promise<Overview> {
  const days = await client.query<{ at: string; must: number; should: number; note: number; bytes: number }>(
    `select to_char(d.day, 'YYYY-MM-DD') at, coalesce(sum(k.must), 0)::int must, coalesce(sum(k.should), 0)::int should, coalesce(sum(k.note), 0)::int note, coalesce(sum(k.bytes), 0)::bigint bytes
     from generate_series(current_date - $1::int, current_date, interval '1 day') d(day)
     cross join project p
     join lateral (select must, should, note, bytes from check_run where project_id = p.id and state = 'done' and started_at < d.day + interval '1 day' order by started_at desc limit 1) k on true
     group by d.day order by d.day`,
    [DAYS],
  );
  const sizes = await client.query<{
    project: string;
    number: string;
    title: string;
    folder: string;
    family: string;
    bytes: number;
  }>(
    `select p.id project, p.number, p.title, s.key folder, f.key family, f.value::bigint bytes from project p join check_run k on k.id = p.last_check, jsonb_each(k.sizes) s, jsonb_each_text(s.value) f
     where f.value::bigint > 0 order by bytes desc limit 2000`,
  );
  const causes = await client.query<{ rule: RuleCode; count: number; projects: number }>(
    `select f.rule, count(*)::int count, count(distinct f.project_id)::int projects from finding f join project p on p.id = f.project_id left join exception e on e.project_id = f.project_id and e.finding_id = f.id
     where f.until_at is null and p.state in ('running', 'waiting') and not ${HOLDS} group by 1 order by 2 desc`,
  );
  const clearable = await client.query<{ project: string; number: string; title: string; bytes: number }>(
    `select p.id project, p.number, p.title, k.cleared bytes from project p
       join check_run k on k.id = p.last_check where k.cleared > 0 order by k.cleared desc limit 100`,
  );
  const unchecked = await client.query<{ project: string; number: string; title: string; at: Date | null }>(
    `select p.id project, p.number, p.title, k.ended_at at from project p left join check_run k on k.id = p.last_check
     where p.state in ('running', 'waiting') and (k.id is null or k.ended_at < clock_timestamp() - interval '7 days') order by k.ended_at nulls first limit 200`,
  );
  return {
    days: days.rows,
    sizes: sizes.rows,
    causes: causes.rows,
    clearable: clearable.rows,
    unchecked: unchecked.rows.map((r) => ({ ...r, at: r.at?.toISOString() ?? null })),
  };
}
