/**
 * What one checker saw, folder by folder: plain data that crosses from worker to worker, is put together, and is kept
 * for the next quick check.
 */

import { elementAt, valueAt } from '../element';
import type { Finding } from './finding';
import { joinTables, pickRows, type Table } from './number-table';

/** One folder: counts for the map of the project, and what only the whole can judge. */
export interface FolderRow {
  readonly path: string;
  readonly files: number;
  readonly bytes: number;
  /** Newest file's time, milliseconds since 1970; 0 for none. */
  readonly newest: number;
  readonly state: 'planned' | 'free' | 'unplanned' | 'inside-unplanned';
  /** The folder's own time, where the source says it. */
  readonly changed?: number;
  /** Something in it was still settling: it is looked at again. */
  readonly settling?: boolean;
  /** Bytes by family; files of none under an empty name. */
  readonly families: Readonly<Record<string, number>>;
  /** Of an unplanned folder: the key of the planned one that what is in it belongs to. */
  readonly meant?: string;
  /** Of a folder inside a dated one: files dated before it, of another day by their names, and of its day. */
  readonly dates?: {
    readonly key: string;
    readonly before: number;
    readonly other: number;
    readonly right: number;
    readonly found: string;
  };
}

/** A side file whose document is not beside it. */
export interface AloneSide {
  readonly row: number;
  readonly name: string;
  readonly modified: number;
  readonly stem: string;
  readonly families: readonly string[];
}

/** A sequence as one item. */
export interface RunMark {
  readonly row: number;
  readonly head: string;
  readonly tail: string;
  readonly frames: number;
  readonly bytes: number;
}

export interface PartialResult {
  readonly rows: readonly FolderRow[];
  readonly findings: readonly { readonly row: number; readonly finding: Finding }[];
  /** Keys of planned files that are there. */
  readonly starters: readonly { readonly row: number; readonly key: string }[];
  readonly alone: readonly AloneSide[];
  readonly runs: readonly RunMark[];
  /** Sizes of single files. */
  readonly sizes: Table;
  /** Hashes of names that are right where they are; of a sequence its name without the frame. */
  readonly names: Table;
  /** Hashes of family and stem of each document that may have side files. */
  readonly documents: Table;
  /** Hashes of what is versioned, and beside each its version. */
  readonly chains: Table;
  readonly versions: Table;
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
    ...(Object.fromEntries(TABLES.map((table) => [table, joinTables(parts.map((p) => p[table]))])) as Tables),
  };
}

const TABLES = ['sizes', 'names', 'documents', 'chains', 'versions'] as const;
type Tables = Pick<PartialResult, (typeof TABLES)[number]>;

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
    ...(Object.fromEntries(TABLES.map((table) => [table, pickRows(part[table], kept)])) as Tables),
  };
}
