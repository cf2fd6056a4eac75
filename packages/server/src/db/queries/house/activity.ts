import type { ActivityPage, ActivityQuery, ActivityRow } from '@nesting/contract';
import type { Params } from '@nesting/core';
import { requestAddress, requestId } from '../../../request-context';
import type { Client } from '../../client';

export const ACTIVITY = [
  'project-started',
  'start-failed',
  'start-taken-back',
  'convention-drafted',
  'convention-in-force',
  'convention-draft-discarded',
  'template-drafted',
  'template-in-force',
  'template-draft-discarded',
  'template-archived',
  'rules-taken-in',
  'block-shared',
  'block-in-force',
  'block-draft-discarded',
  'entry-added',
  'entry-changed',
  'entry-deleted',
  'entries-merged',
  'list-imported',
  'meaning-changed',
  'series-changed',
  'number-reserved',
  'number-released',
  'person-invited',
  'person-changed',
  'person-left',
  'person-returned',
  'link-accepted',
  'reset-asked',
  'password-changed',
  'key-made',
  'key-revoked',
  'session-ended',
  'sign-in-refused',
  'prefixes-changed',
  'volume-taken-up',
  'project-relinked',
  'project-reshaped',
  'project-repaired',
  'files-carried',
  'files-brought',
  'checksums-laid',
  'project-packed',
  'original-freed',
  'project-back',
  'part-back',
  'inbox-changed',
  'double-changed',
  'files-arrived',
  'files-went-back',
  'repair-proposed',
  'proposal-taken',
  'proposal-refused',
  'space-freed',
  'batch-undone',
  'batch-taken-back',
  'batch-closed',
  'project-adopted',
  'copy-made-own',
  'copy-left',
  'project-changed',
  'start-written',
  'carried-here',
  'backup-restored',
  'findings-accepted',
  'findings-unaccepted',
  'baseline-made',
  'findings-given',
  'check-handed-in',
  'list-sent',
] as const;
export type ActivityCode = (typeof ACTIVITY)[number];

/** `subject` is what it was done to, such as `clients:qht`: its history is asked for by it. */
export async function recordActivity(
  client: Client,
  what: ActivityCode,
  person: string | null,
  project: string | null,
  params: Params | Readonly<Record<string, unknown>>,
  subject: string | null = null,
): Promise<void> {
  await client.query(
    `insert into activity (person_id, what, project_id, params, subject, asked_from, request)
       values ($1, $2, $3, $4, $5, $6, $7)`,
    [person, what, project, JSON.stringify(params), subject, requestAddress(), requestId()],
  );
}

interface Row extends Omit<ActivityRow, 'at' | 'project'> {
  at: Date;
  project_id: string | null;
  folder: string | null;
}

/** A page by key, the newest first; every filter is an index's. */
export async function readActivity(client: Client, q: ActivityQuery, limit: number): Promise<ActivityPage> {
  const values: unknown[] = [];
  const where: string[] = [];
  const add = (sql: string, value: unknown) => {
    values.push(value);
    where.push(sql.replaceAll('?', `$${values.length}`));
  };
  if (q.before !== undefined) add('a.id < ?', q.before);
  if (q.person) add('a.person_id = ?', q.person);
  if (q.what) add('a.what = ?', q.what);
  if (q.subject) add('a.subject = ?', q.subject);
  if (q.since) add('a.at >= ?::date', q.since);
  if (q.until) add("a.at < ?::date + interval '1 day'", q.until);
  const words = (q.text ?? '').toLowerCase().match(/[\p{L}\p{N}]+/gu);
  if (words)
    add(
      "a.words @@ to_tsquery('simple', ?)",
      words
        .slice(0, 10)
        .map((w) => `${w}:*`)
        .join(' & '),
    );
  // Picked by themselves first: joined before they are limited, a rare word would read every row.
  const result = await client.query<Row>(
    `with picked as materialized (select a.* from activity a ${where.length > 0 ? `where ${where.join(' and ')}` : ''} order by a.id desc limit ${limit + 1})
     select a.id, a.at, p.name as by, a.what, a.subject, a.project_id, j.folder, a.asked_from as "from", a.request, a.params
     from picked a left join person p on p.id = a.person_id left join project j on j.id = a.project_id order by a.id desc`,
    values,
  );
  return {
    rows: result.rows.slice(0, limit).map(({ project_id, folder, at, ...row }) => ({
      ...row,
      at: at.toISOString(),
      project: project_id === null ? null : { id: project_id, folder: folder ?? '' },
    })),
    more: result.rows.length > limit,
  };
}
