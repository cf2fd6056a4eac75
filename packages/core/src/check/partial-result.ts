/**
 * What one checker saw, folder by folder: plain data that crosses from worker to worker, is put together, and is kept
 * for the next quick check.
 */

import { elementAt, valueAt } from '../element';
import type { Finding } from './finding';
import { type FolderRow, type Gathered, tablesBy } from './gathered';
import { joinTables, pickRows } from './number-table';

export interface PartialResult extends Gathered {
  readonly findings: readonly { readonly row: number; readonly finding: Finding }[];
}

export function joinPartialResults(parts: readonly PartialResult[]): PartialResult {
  if (parts.length === 1) return elementAt(parts, 0);
  const before: number[] = [];
  let rows = 0;
  for (const part of parts) {
    before.push(rows);
    rows += part.rows.length;
  }
  const moved = <T extends { readonly row: number }>(of: (part: PartialResult) => readonly T[]): T[] =>
    parts.flatMap((part, i) =>
      before[i] === 0 ? of(part) : of(part).map((entry) => ({ ...entry, row: entry.row + elementAt(before, i) })),
    );
  return {
    rows: parts.flatMap((p) => p.rows),
    findings: moved((p) => p.findings),
    starters: moved((p) => p.starters),
    alone: moved((p) => p.alone),
    runs: moved((p) => p.runs),
    ...tablesBy((table) => joinTables(parts.map((p) => p[table]))),
  };
}

/** Of those folders only for which `keep` says so. */
export function keepRows(part: PartialResult, keep: (row: FolderRow) => boolean): PartialResult {
  const kept = part.rows.flatMap((row, i) => (keep(row) ? [i] : []));
  if (kept.length === part.rows.length) return part;
  const places = new Map(kept.map((row, i) => [row, i]));
  const only = <T extends { readonly row: number }>(all: readonly T[]): T[] =>
    all.flatMap((entry) => (places.has(entry.row) ? [{ ...entry, row: valueAt(places, entry.row) }] : []));
  return {
    rows: kept.map((i) => elementAt(part.rows, i)),
    findings: only(part.findings),
    starters: only(part.starters),
    alone: only(part.alone),
    runs: only(part.runs),
    ...tablesBy((table) => pickRows(part[table], kept)),
  };
}
