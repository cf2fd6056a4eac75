/** Forward migrations, numbered, each in its transaction; refused when the database is newer than the program. */
import { readdirSync } from 'node:fs';
import { runner } from 'node-pg-migrate';
import type { Db } from './client';

export class DatabaseNewer extends Error {}

export async function migrate(db: Db, url: string, folder: string): Promise<number> {
  const known = new Set(
    readdirSync(folder)
      .filter((f) => f.endsWith('.sql'))
      .map((f) => f.replace(/\.sql$/, '')),
  );
  const exists = await db.query<{ there: string | null }>("select to_regclass('migration')::text as there");
  if (exists.rows[0]?.there) {
    const run = await db.query<{ name: string }>('select name from migration');
    const newer = run.rows.find((row) => !known.has(row.name));
    if (newer) throw new DatabaseNewer(`the database is newer than this program: it has ${newer.name}`);
  }
  const done = await runner({
    databaseUrl: url,
    dir: folder,
    direction: 'up',
    migrationsTable: 'migration',
    count: Number.POSITIVE_INFINITY,
    singleTransaction: false,
    log: () => undefined,
  });
  return done.length;
}
