/** One pool; every query function receives its client, so that it runs inside or outside a transaction alike. */
import pg from 'pg';

export type Db = pg.Pool;
export type Client = Pick<pg.PoolClient, 'query'>;

// Counts and sizes stay exact below 2^53; timestamps cross the wire as ISO 8601.
pg.types.setTypeParser(pg.types.builtins.INT8, Number);

/** SQL of a moment as ISO 8601 in a text, for JSON that the database puts together. */
export const momentOf = (column: string): string =>
  `to_char(${column} at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;

export function openDb(url: string, max = 10): Db {
  // Our queries are short: compiling one takes longer than it saves.
  // Waiting for a connection counts too: hundreds who ask at once are served one after another, and not told that the
  // database is away.
  const pool = new pg.Pool({ connectionString: url, max, connectionTimeoutMillis: 30_000, options: '-c jit=off' });
  // An idle connection that the server closed is no reason to end the program: the next query says what is wrong.
  pool.on('error', () => undefined);
  // Nor is one that somebody holds and asks nothing of just then.
  pool.on('connect', (client) => void client.on('error', () => undefined));
  return pool;
}

export async function transaction<T>(db: Db, work: (client: Client) => Promise<T>): Promise<T> {
  const client = await db.connect();
  let broken: Error | undefined;
  try {
    await client.query('begin');
    const result = await work(client);
    await client.query('commit');
    return result;
  } catch (error) {
    await client.query('rollback').catch((failed: Error) => {
      broken = failed;
    });
    throw error;
  } finally {
    client.release(broken);
  }
}

/** SQLSTATE and constraint name: decisions go by them, never by a message's words. */
export function sqlFault(error: unknown): { readonly state: string; readonly constraint: string } | null {
  if (error instanceof pg.DatabaseError) return { state: error.code ?? '', constraint: error.constraint ?? '' };
  return null;
}

const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ENOENT',
  'EPIPE',
  'ECONNABORTED',
  'ETIMEDOUT',
  'EHOSTUNREACH',
  'ENETUNREACH',
  'ERR_STREAM_DESTROYED',
  'ERR_STREAM_WRITE_AFTER_END',
  '55000',
  '57P01',
  '57P02',
  '57P03',
  '08006',
  '08003',
  '53300',
]);

/** Whether an error says that the database went away, rather than that a query was wrong. */
export function isAway(error: unknown): boolean {
  const code = typeof error === 'object' && error !== null && 'code' in error ? String(error.code) : '';
  const message = typeof error === 'object' && error !== null && 'message' in error ? String(error.message) : '';
  return (
    AWAY.has(code) || /Connection terminated|is not queryable|timeout exceeded when trying to connect/.test(message)
  );
}
