/**
 * The queue's connections. Its library says what became of a job without waiting for the answer: where the database is
 * away just then, the error would be nobody's and end the program, and the job would never end. So that is said again
 * until the database hears it, or this server closes.
 */
import type { QueryResult } from 'pg';
import { type Db, isAway, openDb } from '../db/client';

/** The ends of jobs, by how their statements read. */
const ENDS = /WITH (?:results AS \(\s*UPDATE|deleted_jobs AS)/;

/** Milliseconds between two tries. */
const AGAIN_MS = 500;

const nothing = (rows: QueryResult['rows']): QueryResult => ({ command: '', rowCount: 0, oid: 0, fields: [], rows });

export class QueueDb {
  private readonly pool: Db;
  private readonly asked = new Set<Promise<QueryResult>>();
  private isClosed = false;

  constructor(databaseUrl: string) {
    this.pool = openDb(databaseUrl, 3);
  }

  async executeSql(text: string, values: unknown[]): Promise<QueryResult> {
    const asking = this.ask(text, values);
    this.asked.add(asking);
    try {
      return await asking;
    } finally {
      this.asked.delete(asking);
    }
  }

  /** What is asked after it is answered by nothing: the library still asks a little when it is stopped. */
  async close(): Promise<void> {
    this.isClosed = true;
    await Promise.allSettled(this.asked);
    await this.pool.end();
  }

  private async ask(text: string, values: unknown[]): Promise<QueryResult> {
    const isEnd = ENDS.test(text);
    while (!this.isClosed) {
      try {
        return await this.pool.query(text, values);
      } catch (error) {
        if (!isEnd || !isAway(error)) throw error;
      }
      await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
    }
    return nothing(isEnd ? [{ count: 0 }] : []);
  }
}
