/** Packages and the links that open them. */
import type { ApplyPack, PackageRow } from '@nesting/contract';
import type { Verdict } from '@nesting/core/package';
import { type Told, toldWords } from '@nesting/core/words';
import type { NotPacked, Packed } from '@nesting/disk';
import type { Client } from '../../client';

export interface PackageToMake {
  readonly id: string;
  readonly project: string;
  readonly person: string;
  readonly asked: ApplyPack;
  /** With its ending. */
  readonly name: string;
  readonly files: number;
  readonly bytes: number;
  readonly request: string | null;
}

/** @throws where another has its place, or its id */
export async function insertPackage(client: Client, made: PackageToMake): Promise<void> {
  const { id, project, person, asked, name, files, bytes, request } = made;
  await client.query(
    `insert into package (id, project_id, kind, purpose, asked, shown, volume, folder, name, state, files, bytes, request, asked_by)
       values ($1, $2, $3, $4, $5, $6, $7, $8, $9, 'queued', $10, $11, $12, $13)`,
    [
      ...[id, project, asked.kind, asked.purpose, JSON.stringify(asked), asked.fingerprint],
      ...[asked.volume, asked.folder, name, files, bytes, request, person],
    ],
  );
}

/** What is done with a package that is finished. */
export type PackageAct =
  | { readonly kind: 'prove' }
  | { readonly kind: 'free'; readonly person: string }
  | { readonly kind: 'back'; readonly person: string; readonly volume: string }
  | { readonly kind: 'part'; readonly person: string; readonly volume: string; readonly within: string };

/** What a job needs. */
export interface PackageJob {
  readonly id: string;
  readonly project: string;
  readonly asked: ApplyPack;
  readonly shown: string | null;
  readonly volume: string;
  readonly folder: string;
  readonly name: string;
  readonly state: PackageRow['state'];
  readonly mayLeaveOut: boolean;
  readonly isStopAsked: boolean;
  readonly act: PackageAct | null;
  readonly purpose: PackageRow['purpose'];
  /** The original was freed, and the project not brought back since. */
  readonly isAlone: boolean;
  readonly request: string | null;
  readonly at: Date;
  readonly by: string;
}

export async function readPackageJob(client: Client, id: string): Promise<PackageJob | null> {
  const { rows } = await client.query<PackageJob>(
    `select k.id, k.project_id "project", k.asked, k.shown, k.volume, k.folder, k.name, k.state, k.may_leave_out "mayLeaveOut",
       k.stop_asked "isStopAsked", k.act, k.purpose, k.freed_at is not null and (k.back_at is null or k.back_at < k.freed_at) "isAlone", k.request, k.asked_at "at", coalesce(p.name, '') "by"
     from package k left join person p on p.id = k.asked_by where k.id = $1`,
    [id],
  );
  return rows[0] ?? null;
}

/** Those that are to be done and that nobody is at. */
export async function packagesLeft(client: Client): Promise<string[]> {
  const { rows } = await client.query<{ id: string }>(
    `select k.id from package k left join lease l on l.work = k.id and l.until > clock_timestamp()
     where (k.state in ('queued', 'packing', 'proving') or k.act is not null) and l.work is null`,
  );
  return rows.map((row) => row.id);
}

/** Finished ones that were not read for so many days. */
export async function askDueProofs(client: Client, days: number): Promise<void> {
  await client.query(
    `update package set act = '{"kind":"prove"}'
     where state = 'done' and act is null and coalesce(proved_at, ended_at) < clock_timestamp() - $1 * interval '1 day'`,
    [days],
  );
}

/** Says how far it is; resolves to whether it is to stop. */
export async function setPackageProgress(
  client: Client,
  id: string,
  at: { readonly state: 'packing' | 'proving'; readonly files: number; readonly bytes: number },
): Promise<boolean> {
  const { rows } = await client.query<{ stop: boolean }>(
    `update package set state = $2, done_files = $3, done_bytes = $4, shown = null
     where id = $1 and state in ('queued', 'packing', 'proving') returning stop_asked "stop"`,
    [id, at.state, at.files, at.bytes],
  );
  return rows[0]?.stop ?? true;
}

export async function finishPackage(client: Client, id: string, packed: Packed): Promise<void> {
  await client.query(
    `update package set state = 'done', files = $2, bytes = $3, done_files = $2, done_bytes = $3, size = $4, sha256 = $5,
       left_out = $6, not_packed = '[]', refusal = null, ended_at = clock_timestamp() where id = $1`,
    [id, packed.files, packed.bytes, packed.size, packed.sha256, JSON.stringify(packed.leftOut)],
  );
}

export async function holdPackage(client: Client, id: string, notPacked: readonly NotPacked[]): Promise<void> {
  await client.query(`update package set state = 'waits', shown = null, not_packed = $2 where id = $1`, [
    id,
    JSON.stringify(notPacked),
  ]);
}

export async function endPackage(
  client: Client,
  id: string,
  state: 'stopped' | 'failed',
  refusal: Told | null,
): Promise<void> {
  await client.query(
    `update package set state = $2, refusal = $3, stop_asked = false, ended_at = clock_timestamp() where id = $1`,
    [id, state, refusal === null ? null : JSON.stringify(refusal)],
  );
}

/** Whether it was under way. */
export async function askPackageStop(client: Client, id: string): Promise<boolean> {
  const { rowCount } = await client.query(
    `update package set stop_asked = true where id = $1 and state in ('queued', 'packing', 'proving')`,
    [id],
  );
  return rowCount === 1;
}

/** Whether there was something to go on with. */
export async function resumePackage(client: Client, id: string, mayLeaveOut: boolean): Promise<boolean> {
  const { rowCount } = await client.query(
    `update package set state = 'queued', stop_asked = false, refusal = null, ended_at = null,
       may_leave_out = may_leave_out or $2 where id = $1 and state in ('waits', 'stopped', 'failed')`,
    [id, mayLeaveOut],
  );
  return rowCount === 1;
}

/** Whether it was there, and nobody was at it. */
export async function deletePackage(client: Client, id: string): Promise<boolean> {
  const { rowCount } = await client.query(
    `delete from package where id = $1 and state in ('waits', 'stopped', 'failed')`,
    [id],
  );
  return rowCount === 1;
}

/** Whether it is finished, and nothing else is to be done with it. */
export async function askAct(client: Client, id: string, act: PackageAct): Promise<boolean> {
  const { rowCount } = await client.query(
    `update package set act = $2, act_refusal = null where id = $1 and state = 'done' and (act is null or act = $2)`,
    [id, JSON.stringify(act)],
  );
  return rowCount === 1;
}

export async function storeVerdict(client: Client, id: string, verdict: Verdict): Promise<void> {
  await client.query(`update package set proved_at = clock_timestamp(), verdict = $2 where id = $1`, [
    id,
    JSON.stringify(verdict),
  ]);
}

/** It was done, or why not. */
export async function endAct(client: Client, id: string, refusal: Told | null): Promise<void> {
  await client.query('update package set act = null, act_refusal = $2 where id = $1', [
    id,
    refusal === null ? null : JSON.stringify(refusal),
  ]);
}

/** Nothing is known of it any more: it could not be read. */
export async function forgetVerdict(client: Client, id: string): Promise<void> {
  await client.query('update package set proved_at = clock_timestamp(), verdict = null where id = $1', [id]);
}

/** What is in it, by folder. */
export async function storeContents(
  client: Client,
  id: string,
  folders: readonly { readonly path: string; readonly names: readonly string[] }[],
): Promise<void> {
  await client.query('delete from package_folder where package_id = $1', [id]);
  await client.query(
    `insert into package_folder (package_id, folder, names) select $1, * from unnest($2::text[], $3::text[])`,
    [id, folders.map(({ path }) => path), folders.map(({ names }) => names.join('/'))],
  );
}

/** The project went to the archive: once, whatever it was before is remembered. */
export async function shelveProject(client: Client, id: string, project: string): Promise<void> {
  await client.query(
    `update package set state_before = (select state from project where id = $2) where id = $1 and state_before is null`,
    [id, project],
  );
  await client.query(
    `update project set state = 'packed', state_at = clock_timestamp(), version = version + 1 where id = $1 and state <> 'packed'`,
    [project],
  );
}

export async function markFreed(client: Client, id: string, bytes: number): Promise<void> {
  await client.query('update package set freed_at = clock_timestamp(), freed_bytes = $2 where id = $1', [id, bytes]);
}

/** The project lies there again, and is what it was. */
export async function markBack(
  client: Client,
  id: string,
  { project, volume, folder }: { readonly project: string; readonly volume: string; readonly folder: string },
): Promise<void> {
  await client.query('update package set back_at = clock_timestamp() where id = $1', [id]);
  await client.query(
    `update project set volume = $2, folder = $3, state_at = clock_timestamp(), version = version + 1,
       state = coalesce((select nullif(state_before, 'packed') from package where id = $4), 'closed') where id = $1`,
    [project, volume, folder, id],
  );
}

/** Whether a change of a project is under way, or stopped half way: it may write there still. */
export async function isBeingChanged(client: Client, project: string): Promise<boolean> {
  const { rowCount } = await client.query(
    `select 1 from batch where project_id = $1 and state in ('running', 'paused') limit 1`,
    [project],
  );
  return (rowCount ?? 0) > 0;
}

/** Files that changes of a project keep so that they can be undone: they lie in its own folder alone. */
export async function filesSetAside(client: Client, project: string): Promise<number> {
  const { rows } = await client.query<{ files: number }>(
    'select coalesce(sum(kept_files), 0)::int "files" from batch where project_id = $1 and kept_files > 0 and swept_at is null',
    [project],
  );
  return rows[0]?.files ?? 0;
}

export interface FoundInPackage {
  readonly id: string;
  readonly number: string;
  readonly title: string;
  readonly package: string;
  readonly path: string;
}

/** Files of projects that lie in the archive alone, by a part of their name. */
export async function findInPackages(client: Client, find: string, most: number): Promise<FoundInPackage[]> {
  const { rows } = await client.query<FoundInPackage>(
    `select k.id, j.number, j.title, k.name "package", case when f.folder = '' then n.name else f.folder || '/' || n.name end "path"
     from package_folder f join package k on k.id = f.package_id join project j on j.id = k.project_id,
       lateral unnest(string_to_array(f.names, '/')) n(name)
     where k.purpose = 'archive' and k.state = 'done' and j.state = 'packed' and f.names ilike $1 and n.name ilike $1
     order by k.asked_at desc, f.folder, n.name limit $2`,
    [`%${find.replace(/[\\%_]/g, '\\$&')}%`, most],
  );
  return rows;
}

export async function readVerdict(client: Client, id: string): Promise<{ readonly verdict: Verdict | null } | null> {
  const { rows } = await client.query<{ verdict: Verdict | null }>('select verdict from package where id = $1', [id]);
  return rows[0] ?? null;
}

interface StoredRow
  extends Omit<PackageRow, 'at' | 'endedAt' | 'provedAt' | 'freedAt' | 'backAt' | 'failure' | 'actFailure' | 'size'> {
  readonly at: Date;
  readonly endedAt: Date | null;
  readonly provedAt: Date | null;
  readonly refusal: Told | null;
  readonly freedAt: Date | null;
  readonly backAt: Date | null;
  readonly actRefusal: Told | null;
  readonly size: string | null;
}

const LINKS = `coalesce((select json_agg(json_build_object('id', n.id, 'until', to_char(n.expires_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'),
    'hasWord', n.word_hash is not null, 'opened', n.opened,
    'lastAt', to_char(n.last_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'), 'by', coalesce(m.name, '')) order by n.made_at)
  from package_link n left join person m on m.id = n.made_by where n.package_id = k.id and n.expires_at > clock_timestamp()), '[]')`;

/** The newest first; of one project, or of all. */
export async function listPackages(
  client: Client,
  { project, id }: { readonly project?: string | undefined; readonly id?: string | undefined },
): Promise<PackageRow[]> {
  const { rows } = await client.query<StoredRow>(
    `select k.id, k.project_id "project", j.number, j.title, k.kind, k.purpose, k.volume,
       case when k.folder = '' then k.name else k.folder || '/' || k.name end "path",
       k.asked ->> 'recipient' "recipient", k.asked ->> 'note' "note", k.state, k.files, k.bytes::float8 "bytes", k.done_files "doneFiles",
       k.done_bytes::float8 "doneBytes", k.size, k.sha256, k.left_out "leftOut", k.not_packed "notPacked", k.refusal, coalesce(p.name, '') "by",
       k.asked_at "at", k.ended_at "endedAt", k.proved_at "provedAt", (k.verdict ->> 'isWhole')::boolean "isWhole",
       k.act ->> 'kind' "act", k.act_refusal "actRefusal", k.freed_at "freedAt", k.back_at "backAt", ${LINKS} "links"
     from package k join project j on j.id = k.project_id left join person p on p.id = k.asked_by
     where ($1::uuid is null or k.project_id = $1) and ($2::uuid is null or k.id = $2)
     order by k.asked_at desc limit 1000`,
    [project ?? null, id ?? null],
  );
  return rows.map(({ at, endedAt, provedAt, freedAt, backAt, refusal, actRefusal, size, ...row }) => ({
    ...row,
    size: size === null ? null : Number(size),
    at: at.toISOString(),
    endedAt: endedAt?.toISOString() ?? null,
    provedAt: provedAt?.toISOString() ?? null,
    failure: refusal === null ? '' : toldWords(refusal),
    freedAt: freedAt?.toISOString() ?? null,
    backAt: backAt?.toISOString() ?? null,
    actFailure: actRefusal === null ? '' : toldWords(actRefusal),
  }));
}

export interface LinkToMake {
  readonly id: string;
  readonly packageId: string;
  readonly hash: string;
  readonly passHash: string;
  readonly wordHash: string | null;
  readonly person: string;
  /** The last day on which it opens, in UTC. */
  readonly until: string;
}

export async function insertPackageLink(client: Client, link: LinkToMake): Promise<void> {
  await client.query(
    `insert into package_link (id, package_id, hash, pass_hash, word_hash, made_by, expires_at)
       values ($1, $2, $3, $4, $5, $6, ($7::date + 1)::timestamp at time zone 'UTC')`,
    [link.id, link.packageId, link.hash, link.passHash, link.wordHash, link.person, link.until],
  );
}

/** Whether it was open. */
export async function endPackageLink(client: Client, packageId: string, id: string): Promise<boolean> {
  const { rowCount } = await client.query('delete from package_link where package_id = $1 and id = $2', [
    packageId,
    id,
  ]);
  return rowCount === 1;
}

export interface FoundLink {
  readonly id: string;
  readonly packageId: string;
  readonly wordHash: string | null;
  readonly until: Date;
}

export async function linkByHash(client: Client, hash: string): Promise<FoundLink | null> {
  const { rows } = await client.query<FoundLink>(
    `select n.id, n.package_id "packageId", n.word_hash "wordHash", n.expires_at "until" from package_link n
       join package k on k.id = n.package_id where n.hash = $1 and n.expires_at > clock_timestamp() and k.state = 'done'`,
    [hash],
  );
  return rows[0] ?? null;
}

/** The package that is fetched by a pass; counted where it is fetched from its beginning. */
export async function packageByPass(
  client: Client,
  hash: string,
  isBegun: boolean,
): Promise<{
  readonly id: string;
  readonly volume: string;
  readonly folder: string;
  readonly name: string;
  readonly size: number;
} | null> {
  const { rows } = await client.query<{ id: string; volume: string; folder: string; name: string; size: string }>(
    `update package_link n set opened = opened + $2::int, last_at = clock_timestamp() from package k
       where n.pass_hash = $1 and n.expires_at > clock_timestamp() and k.id = n.package_id and k.state = 'done' and k.size is not null
       returning k.id, k.volume, k.folder, k.name, k.size`,
    [hash, isBegun ? 1 : 0],
  );
  const row = rows[0];
  return row === undefined ? null : { ...row, size: Number(row.size) };
}
