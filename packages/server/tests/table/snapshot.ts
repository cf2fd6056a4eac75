/** What is in the database and on a volume, to see that a refusal left it as it was. */
import { createHash } from 'node:crypto';
import { lstatSync, readdirSync } from 'node:fs';
import path from 'node:path';
import type { TestWorld } from '../world';

/** Noted of whoever asks, and of what a check has seen: when they were last there, and that they tried. */
const APART = ['session', 'sign_in_attempt', 'verification', 'access_key', 'check_memory'];

/** A change that was refused stays in the database until who asked was told; a knock at the door is written down. */
const EXCEPT: Readonly<Record<string, string>> = {
  batch: " where not (r.state = 'refused' and r.told)",
  activity: " where r.what <> 'sign-in-refused'",
};

export interface Snapshot {
  /** By table. */
  readonly hashes: ReadonlyMap<string, string>;
  readonly volume: string;
}

export async function snapshotOf({ world: { db }, studio }: TestWorld): Promise<Snapshot> {
  const { rows: tables } = await db.query<{ name: string }>(
    `select table_name as name from information_schema.tables
       where table_schema = 'public' and table_type = 'BASE TABLE' and table_name <> all($1)`,
    [APART],
  );
  const of = ({ name }: { name: string }) =>
    `select '${name}' as name,
       (select md5(coalesce(string_agg(r::text, '|' order by r::text), '')) from ${name} r${EXCEPT[name] ?? ''}) as hash`;
  const { rows } = await db.query<{ name: string; hash: string }>(tables.map(of).join(' union all '));
  return { hashes: new Map(rows.map(({ name, hash }) => [name, hash])), volume: treeOf(studio) };
}

/** Names of what is otherwise. */
export const differencesOf = (before: Snapshot, after: Snapshot): string[] => [
  ...[...after.hashes].filter(([name, hash]) => before.hashes.get(name) !== hash).map(([name]) => name),
  ...(before.volume === after.volume ? [] : ['the volume']),
];

function treeOf(folder: string): string {
  const hash = createHash('sha256');
  const walk = (at: string) => {
    for (const name of readdirSync(at).sort()) {
      const whole = path.join(at, name);
      const entry = lstatSync(whole);
      hash.update(`${whole}|${entry.isDirectory() ? '' : `${entry.size}|${entry.mtimeMs}`}\n`);
      if (entry.isDirectory()) walk(whole);
    }
  };
  walk(folder);
  return hash.digest('hex');
}
