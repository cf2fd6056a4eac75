/** Rows into a table by COPY: as fast as the database's own client loads them. */

import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { elementAt } from '@nesting/core';
import type pg from 'pg';
import { from } from 'pg-copy-streams';
import type { Client } from './client';

type Cell = string | number | boolean | Date | null;

const ESCAPES: Readonly<Record<string, string>> = { '\\': '\\\\', '\n': '\\n', '\r': '\\r', '\t': '\\t' };

/** The text form of COPY. A character that no text of the database can hold is left out. */
function cellText(cell: Cell): string {
  if (cell === null) return '\\N';
  if (typeof cell === 'string')
    return /[\\\n\r\t\0]/.test(cell) ? cell.replaceAll('\0', '').replace(/[\\\n\r\t]/g, (c) => ESCAPES[c] ?? c) : cell;
  return cell instanceof Date ? cell.toISOString() : String(cell);
}

/** Rows in one piece of text: many small ones cost more than they carry. */
const PIECE = 500;

function* pieces(rows: readonly (readonly Cell[])[]): Generator<string> {
  for (let i = 0; i < rows.length; i += PIECE) {
    let text = '';
    for (let r = i; r < Math.min(i + PIECE, rows.length); r++)
      text += `${elementAt(rows, r).map(cellText).join('\t')}\n`;
    yield text;
  }
}

/** `into` is a table with its columns. Runs inside the client's transaction. */
export async function copyRows(client: Client, into: string, rows: readonly (readonly Cell[])[]): Promise<void> {
  if (rows.length === 0) return;
  const stream = (client as pg.PoolClient).query(from(`copy ${into} from stdin`));
  await pipeline(Readable.from(pieces(rows)), stream);
}
