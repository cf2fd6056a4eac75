/**
 * Findings of a project: kept from the check that first saw them to the one that did not, filtered, counted, accepted,
 * given to people.
 */
import {
  type Accepted,
  type FindingFacet,
  type FindingGroup,
  type FindingList,
  type FindingQuery,
  type FindingRow,
  type FindingView,
  type FolderSign,
  type KeptFinding,
  MOST_RELATED,
  type StoredFinding,
} from '@nesting/contract';
import { type Finding, RULE_CODES, RULES, type RuleCode, textHash } from '@nesting/core/check';
import { findingWords } from '@nesting/core/words';
import type { Client } from '../../client';
import { copyRows } from '../../copy';

/** What came and went. Everything is compared in the database: two round trips and one COPY, however many they are. */
export async function storeFindings(
  client: Client,
  project: string,
  at: Date,
  findings: readonly Finding[],
): Promise<{ readonly appeared: number; readonly solved: number }> {
  await client.query(
    `create temp table incoming (id text primary key, rule text, weight text, path text collate "C", person text,
         modified bigint, print bigint, body jsonb) on commit drop`,
  );
  await copyRows(
    client,
    'incoming (id, rule, weight, path, person, modified, print, body)',
    findings.map((f) => {
      const body = JSON.stringify(rowOf(f));
      return [f.id, f.rule, f.weight, f.path, f.person, Math.round(f.modified), textHash(body), body];
    }),
  );
  await client.query('analyze incoming');
  const solved = await client.query(
    `update finding f set until_at = $2
       where f.project_id = $1 and f.until_at is null and not exists (select from incoming i where i.id = f.id)`,
    [project, at],
  );
  await client.query(
    `update finding f set rule = i.rule, weight = i.weight, path = i.path, person = i.person, modified = i.modified, print = i.print, body = i.body from incoming i
     where f.project_id = $1 and f.until_at is null and f.id = i.id and (f.print, f.modified, f.person) is distinct from (i.print, i.modified, i.person)`,
    [project],
  );
  const appeared = await client.query(
    `insert into finding (project_id, id, rule, weight, path, person, modified, print, body, since_at)
     select $1, i.id, i.rule, i.weight, i.path, i.person, i.modified, i.print, i.body, $2 from incoming i where not exists (select from finding f where f.project_id = $1 and f.until_at is null and f.id = i.id)`,
    [project, at],
  );
  // What was solved long ago is told by counts alone.
  await client.query("delete from finding where project_id = $1 and until_at < $2::timestamptz - interval '90 days'", [
    project,
    at,
  ]);
  return { appeared: appeared.rowCount ?? 0, solved: solved.rowCount ?? 0 };
}

const rowOf = ({ modified: _modified, person: _person, ...finding }: Finding): StoredFinding => ({
  ...finding,
  related: finding.related.slice(0, MOST_RELATED),
});

/** With its sentence: what is stored is what it is made from. */
export const withWords = (stored: StoredFinding): FindingRow => ({ ...stored, message: findingWords(stored) });

/**
 * Whether a finding `f` is accepted by its exception `e`: until its day is over, and of a baseline until it is touched.
 */
export const HOLDS =
  '(e.finding_id is not null and (e.until is null or e.until >= current_date) and (not e.baseline or f.modified <= e.modified))';

/** Paths with findings that must be put right, and that nobody accepted. */
export async function mustPaths(client: Client, project: string): Promise<string[]> {
  const { rows } = await client.query<{ path: string }>(
    `select f.path from finding f left join exception e on e.project_id = f.project_id and e.finding_id = f.id
       where f.project_id = $1 and f.until_at is null and f.weight = 'must' and not ${HOLDS}`,
    [project],
  );
  return rows.map(({ path }) => path);
}

export const FROM = `finding f
  left join exception e on e.project_id = f.project_id and e.finding_id = f.id
  left join finding_mark m on m.project_id = f.project_id and m.finding_id = f.id
  left join person g on g.id = m.person_id`;

export const TO = 'coalesce(g.initials, f.person)';

/** The last check of a project tells what still stands: accepted findings do not count. */
export async function recount(client: Client, project: string): Promise<void> {
  await client.query(
    `update check_run k set (must, should, note) = (
       select count(*) filter (where f.weight = 'must'), count(*) filter (where f.weight = 'should'), count(*) filter (where f.weight = 'note')
       from finding f left join exception e on e.project_id = f.project_id and e.finding_id = f.id where f.project_id = $1 and f.until_at is null and not ${HOLDS})
     where k.id = (select last_check from project where id = $1)`,
    [project],
  );
}

/** Exceptions that ended since: their findings count again. Gives how many projects that changed. */
export async function recountEnded(client: Client): Promise<number> {
  const ended = await client.query<{ id: string }>(
    'select distinct e.project_id id from exception e where e.until >= current_date - 2 and e.until < current_date',
  );
  for (const { id } of ended.rows) await recount(client, id);
  return ended.rows.length;
}

/** When the last whole check began, where there was one before it: what came later is new. */
async function newSince(client: Client, project: string): Promise<Date | null> {
  const rows = (
    await client.query<{ at: Date }>(
      `select started_at at from check_run where project_id = $1 and state = 'done' and what = 'whole'
         order by started_at desc limit 2`,
      [project],
    )
  ).rows;
  return rows.length < 2 ? null : (rows[0]?.at ?? null);
}

class Filter {
  readonly params: unknown[];
  private readonly parts: { readonly of: string; readonly sql: string }[] = [];

  constructor(
    project: string,
    private readonly since: Date | null,
  ) {
    this.params = [project];
  }

  add(of: string, sql: (place: string) => string, value: unknown): void {
    this.params.push(value);
    this.parts.push({ of, sql: sql(`$${this.params.length}`) });
  }

  view(view: FindingView): string {
    switch (view) {
      case 'open':
        return `f.until_at is null and not ${HOLDS}`;
      case 'accepted':
        return `f.until_at is null and ${HOLDS}`;
      case 'new':
        return this.since === null
          ? 'false'
          : `f.until_at is null and not ${HOLDS} and f.since_at >= '${this.since.toISOString()}'`;
      case 'solved':
        return this.since === null
          ? 'false'
          : `f.until_at >= '${this.since.toISOString()}' and not exists (select from finding o where o.project_id = f.project_id and o.id = f.id and o.until_at is null)`;
    }
  }

  /** One facet's own filter. */
  part(of: string): string {
    return this.parts.find((p) => p.of === of)?.sql ?? 'true';
  }

  where(view: FindingView): string {
    return ['f.project_id = $1', this.view(view), ...this.parts.map((p) => p.sql)].join(' and ');
  }
}

function filterOf(project: string, q: FindingQuery, since: Date | null): Filter {
  const filter = new Filter(project, since);
  if (q.rule !== undefined) filter.add('rule', (p) => `f.rule = ${p}`, q.rule);
  if (q.weight !== undefined) filter.add('weight', (p) => `f.weight = ${p}`, q.weight);
  if (q.folder !== undefined && q.folder !== '')
    filter.add('folder', (p) => `(f.path = ${p} or starts_with(f.path, ${p} || '/'))`, q.folder);
  if (q.person === '-') filter.add('person', () => `${TO} is null and $${filter.params.length} = '-'`, '-');
  else if (q.person !== undefined && q.person !== '')
    filter.add('person', (p) => `coalesce(${TO} = ${p}, false)`, q.person);
  if (q.find !== undefined && q.find !== '')
    filter.add('find', (p) => `position(lower(${p}) in lower(f.path)) > 0`, q.find);
  return filter;
}

/** The registry's order is that of causes; what is bound later keeps its place in the list. */
const RULE_PLACE = `array_position(array[${RULE_CODES.map((code) => `'${code}'`).join(',')}], f.rule)`;
export const WEIGHT_PLACE = "case f.weight when 'must' then 0 when 'should' then 1 else 2 end";
const ORDERS: Readonly<Record<FindingGroup, string>> = {
  cause: `${RULE_PLACE}, f.path, f.id`,
  // As the index has it; what is equal so far is put in order whole.
  folder: 'left(f.path, 500), f.path, f.rule, f.id',
  none: 'left(f.path, 500), f.path, f.rule, f.id',
  person: `${TO} nulls last, f.path, f.rule, f.id`,
  weight: `${WEIGHT_PLACE}, f.path, f.rule, f.id`,
};

interface Kept {
  body: StoredFinding;
  since_at: Date;
  until_at: Date | null;
  reason: string | null;
  by: string | null;
  at: Date | null;
  until: string | null;
  baseline: boolean | null;
  holds: boolean;
  to: string | null;
  given: boolean;
  note: string | null;
}

const KEPT = `f.body, f.since_at, f.until_at, e.reason, a.initials "by", e.at, to_char(e.until, 'YYYY-MM-DD') "until", e.baseline, ${HOLDS} holds, ${TO} "to", g.id is not null given, m.note`;

export async function listFindings(client: Client, project: string, q: FindingQuery): Promise<FindingList> {
  const since = await newSince(client, project);
  const filter = filterOf(project, q, since);
  const { params } = filter;
  const asked = client.query<Kept>(
    `select ${KEPT} from ${FROM} left join person a on a.id = e.person_id where ${filter.where(q.view)}
       order by ${ORDERS[q.group]} offset ${q.from} limit ${q.limit}`,
    params,
  );
  // Later pages are rows alone: what there is was counted with the first.
  const counting =
    q.from > 0
      ? null
      : client.query<Counted>(
          `with base as materialized (
       select f.rule, f.weight, ${TO} person, split_part(f.path, '/', 1) top, ${VIEWS.map((v) => `${filter.view(v)} "${v}"`).join(', ')}, ${FACETS.map((of) => `${filter.part(of)} m_${of}`).join(', ')}
       from ${FROM} where f.project_id = $1)
     select grouping(rule, weight, person, top)::int g, rule, weight, person, top, min(weight) heaviest,
       ${VIEWS.map((v) => `count(*) filter (where "${v}" and ${FACETS.map((of) => `m_${of}`).join(' and ')})::int "${v}"`).join(', ')},
       ${FACETS.map(
         (own) =>
           `count(*) filter (where "${q.view}" and ${FACETS.filter((of) => of !== own)
             .map((of) => `m_${of}`)
             .join(' and ')})::int n_${own}`,
       ).join(', ')}
     from base group by grouping sets ((rule), (weight), (person), (top), ())`,
          params,
        );
  const [rows, counted] = await Promise.all([asked, counting]);
  const of = (g: number) => counted?.rows.filter((r) => r.g === g) ?? [];
  const whole = of(15)[0];
  const most = (all: FindingFacet[]) =>
    all
      .filter((f) => f.count > 0)
      .sort((a, b) => b.count - a.count || (a.key < b.key ? -1 : 1))
      .slice(0, MOST_FACETS);
  const weightOf = (weight: string) => of(11).find((r) => r.weight === weight)?.n_weight ?? 0;
  return {
    rows: rows.rows.map((row) => keptOf(row, since)),
    total: whole?.[q.view] ?? 0,
    views: { open: whole?.open ?? 0, new: whole?.new ?? 0, accepted: whole?.accepted ?? 0, solved: whole?.solved ?? 0 },
    rules: of(7)
      .filter((r) => r.n_rule > 0)
      .map((r) => ({ key: r.rule as RuleCode, count: r.n_rule, weight: r.heaviest ?? 'note' }))
      .sort((a, b) => RULE_CODES.indexOf(a.key) - RULE_CODES.indexOf(b.key)),
    weights: { must: weightOf('must'), should: weightOf('should'), note: weightOf('note') },
    people: most(of(13).map((r) => ({ key: r.person ?? '-', count: r.n_person }))),
    folders: most(of(14).map((r) => ({ key: r.top ?? '', count: r.n_folder }))),
  };
}

const VIEWS = ['open', 'new', 'accepted', 'solved'] as const;
const FACETS = ['rule', 'weight', 'folder', 'person', 'find'] as const;
/** Folders and people shown: more are found by their paths. */
const MOST_FACETS = 200;

/** One group of one facet; `g` says which: bits of those that are not grouped by. */
type Counted = Record<FindingView | `n_${(typeof FACETS)[number]}`, number> & {
  readonly g: number;
  readonly rule: string | null;
  readonly weight: string | null;
  readonly person: string | null;
  readonly top: string | null;
  readonly heaviest: string | null;
};

function keptOf(row: Kept, since: Date | null): KeptFinding {
  const accepted: Accepted | null =
    row.holds && row.reason !== null
      ? {
          reason: row.reason,
          by: row.by ?? '',
          at: row.at?.toISOString() ?? '',
          until: row.until,
          baseline: row.baseline === true,
        }
      : null;
  return {
    ...withWords(row.body),
    since: row.since_at.toISOString(),
    isNew: since !== null && row.until_at === null && row.since_at >= since,
    solvedAt: row.until_at?.toISOString() ?? null,
    accepted,
    to: row.to,
    given: row.given,
    note: row.note ?? '',
  };
}

/** Every finding that stands, as the reports print them. */
export async function openFindings(client: Client, project: string, accepted = false): Promise<KeptFinding[]> {
  const rows = await client.query<Kept>(
    `select ${KEPT} from ${FROM} left join person a on a.id = e.person_id where f.project_id = $1 and f.until_at is null ${accepted ? '' : `and not ${HOLDS}`} order by f.path, f.rule, f.id`,
    [project],
  );
  return rows.rows.map((row) => keptOf(row, null));
}

/** Which findings are to be put right: these, or all that stand of a rule, in a folder, of a person. */
export interface RepairChoice {
  readonly ids: readonly string[] | null;
  readonly rule: string | null;
  readonly folder: string | null;
  readonly person: string | null;
  readonly most: number;
}

/** In the order of causes. What is accepted is left, unless it is named. */
export async function findingsToRepair(
  client: Client,
  project: string,
  { ids, rule, folder, person, most }: RepairChoice,
): Promise<(StoredFinding & { readonly to: string | null })[]> {
  const rows = await client.query<{ body: StoredFinding; to: string | null }>(
    `select f.body, ${TO} "to" from ${FROM} where f.project_id = $1 and f.until_at is null
       and case when $2::text[] is null then not ${HOLDS} else f.id = any($2) end
       and ($3::text is null or f.rule = $3) and ($4::text is null or f.path = $4 or starts_with(f.path, $4 || '/'))
       and ($5::text is null or coalesce(${TO} = $5, false))
     order by ${ORDERS.cause} limit $6`,
    [project, ids, rule, folder, person, most],
  );
  return rows.rows.map(({ body, to }) => ({ ...body, to }));
}

/** Of what is about a folder the path is the folder's own. */
const ABOUT_FOLDERS = `f.rule in (${RULES.flatMap((r) => (r.about === 'folder' ? [`'${r.code}'`] : [])).join(', ')})`;

/** Where findings lie, for the map of a project: by folder and weight. */
export async function findingsByFolder(client: Client, project: string): Promise<FolderSign[]> {
  const result = await client.query<FolderSign>(
    `select case when ${ABOUT_FOLDERS} then f.path else regexp_replace(f.path, '/?[^/]*$', '') end path, f.rule, f.weight, count(*)::int count
     from finding f left join exception e on e.project_id = f.project_id and e.finding_id = f.id where f.project_id = $1 and f.until_at is null and not ${HOLDS} group by 1, 2, 3`,
    [project],
  );
  return result.rows;
}
