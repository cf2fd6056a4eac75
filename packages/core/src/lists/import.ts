/** A table somebody gives → what it would do to a list, line by line, before anything is done. */
import { undefused } from '../text/csv';
import {
  type CellFault,
  type Cells,
  COLUMNS,
  cellFaults,
  foldKey,
  keyColumn,
  type ListEntry,
  type ListName,
  tidyCells,
} from './columns';

export type TableFault = {
  readonly code: 'no-header' | 'column-missing' | 'too-many-rows';
  readonly params: Readonly<Record<string, string | number>>;
};

export interface ImportRow {
  /** Line of the table, the header being the first. */
  readonly line: number;
  readonly key: string;
  readonly state: 'new' | 'changed' | 'same' | 'refused';
  readonly cells: Cells;
  /** Of changed ones, the columns that become otherwise, with what stands there now. */
  readonly was: Cells;
  readonly faults: readonly CellFault[];
}

export interface ImportPlan {
  readonly rows: readonly ImportRow[];
  /** Headings that are no column of the list: they are left out. */
  readonly unknown: readonly string[];
  readonly faults: readonly TableFault[];
}

/** Lines of one table: far more than any house has clients. */
const MOST_IMPORTED = 20_000;

export function planImport(
  list: ListName,
  existing: readonly ListEntry[],
  table: readonly (readonly string[])[],
): ImportPlan {
  const [header, ...body] = table;
  if (header === undefined) return { rows: [], unknown: [], faults: [{ code: 'no-header', params: {} }] };
  if (body.length > MOST_IMPORTED)
    return {
      rows: [],
      unknown: [],
      faults: [{ code: 'too-many-rows', params: { most: MOST_IMPORTED, found: body.length } }],
    };
  const columns = header.map((heading) => columnOf(list, heading));
  const missing = COLUMNS[list].filter((c) => c.required && !columns.includes(c.key));
  if (missing.length > 0)
    return {
      rows: [],
      unknown: [],
      faults: missing.map((c) => ({
        code: missing.length === COLUMNS[list].length ? 'no-header' : 'column-missing',
        params: { column: c.label },
      })),
    };
  const known = new Map(existing.map((e) => [foldKey(e.key), e]));
  const seen = new Map<string, number>();
  const rows = body.flatMap((line, i): ImportRow[] =>
    line.every((c) => c.trim() === '') ? [] : [rowOf(list, i + 2, cellsOf(line, columns), columns, known, seen)],
  );
  return { rows, unknown: header.filter((h, i) => columns[i] === null && h.trim() !== ''), faults: [] };
}

/** By label or key, whatever the case. */
function columnOf(list: ListName, heading: string): string | null {
  const text = undefused(heading).trim().toLowerCase();
  return COLUMNS[list].find((c) => c.key.toLowerCase() === text || c.label.toLowerCase() === text)?.key ?? null;
}

function cellsOf(line: readonly string[], columns: readonly (string | null)[]): Cells {
  const cells: Record<string, string> = {};
  for (const [i, key] of columns.entries()) if (key !== null) cells[key] = undefused(line[i] ?? '');
  return cells;
}

function rowOf(
  list: ListName,
  line: number,
  given: Cells,
  columns: readonly (string | null)[],
  known: ReadonlyMap<string, ListEntry>,
  seen: Map<string, number>,
): ImportRow {
  const tidy = tidyCells(list, given);
  const key = tidy[keyColumn(list).key] ?? '';
  const was = known.get(foldKey(key));
  // Columns the table does not have keep what is there; the key is written as the list has it.
  const cells: Cells =
    was === undefined
      ? tidy
      : {
          ...was.cells,
          ...Object.fromEntries(Object.entries(tidy).filter(([k]) => columns.includes(k))),
          [keyColumn(list).key]: was.key,
        };
  const faults: CellFault[] = [...cellFaults(list, cells)];
  const first = seen.get(foldKey(key));
  if (key !== '' && first !== undefined)
    faults.push({
      code: 'entry-double',
      column: keyColumn(list).key,
      params: { column: keyColumn(list).label, found: key, line: first },
    });
  else seen.set(foldKey(key), line);
  const changed =
    was === undefined ? [] : COLUMNS[list].filter((c) => (was.cells[c.key] ?? '') !== (cells[c.key] ?? ''));
  const state = faults.length > 0 ? 'refused' : was === undefined ? 'new' : changed.length > 0 ? 'changed' : 'same';
  return {
    line,
    key,
    state,
    cells,
    was: Object.fromEntries(changed.map((c) => [c.key, was?.cells[c.key] ?? ''])),
    faults,
  };
}

/** A list as a table, the header first. */
export const tableOf = (list: ListName, entries: readonly ListEntry[]): string[][] => [
  COLUMNS[list].map((c) => c.label),
  ...entries.map((e) => COLUMNS[list].map((c) => e.cells[c.key] ?? '')),
];
