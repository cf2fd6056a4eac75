import { elementAt } from '../element';
/** Numbers by the million, eight bytes each: what a check must remember of every file without keeping its name. */

/** Values in the order of the folders they are from. Plain data: it crosses from worker to worker. */
export interface Table {
  readonly values: Float64Array;
  /** For each folder, where its values end. */
  readonly ends: Int32Array;
}

export class TableMaker {
  private held = new Float64Array(256);
  private length = 0;
  private readonly ends: number[] = [];

  push(value: number): void {
    if (this.length === this.held.length) {
      const larger = new Float64Array(this.held.length * 2);
      larger.set(this.held);
      this.held = larger;
    }
    this.held[this.length++] = value;
  }

  /** All values of one folder are in. */
  close(): void {
    this.ends.push(this.length);
  }

  table(): Table {
    return { values: this.held.slice(0, this.length), ends: Int32Array.from(this.ends) };
  }
}

export function joinTables(tables: readonly Table[]): Table {
  const values = new Float64Array(tables.reduce((n, t) => n + t.values.length, 0));
  const ends = new Int32Array(tables.reduce((n, t) => n + t.ends.length, 0));
  let [at, row] = [0, 0];
  for (const table of tables) {
    values.set(table.values, at);
    for (const end of table.ends) ends[row++] = end + at;
    at += table.values.length;
  }
  return { values, ends };
}

/** Of these folders only, in their order. */
export function pickRows(table: Table, rows: readonly number[]): Table {
  const start = (row: number) => (row === 0 ? 0 : elementAt(table.ends, row - 1));
  const values = new Float64Array(rows.reduce((n, row) => n + elementAt(table.ends, row) - start(row), 0));
  const ends = new Int32Array(rows.length);
  let at = 0;
  rows.forEach((row, i) => {
    values.set(table.values.subarray(start(row), table.ends[row]), at);
    at += elementAt(table.ends, row) - start(row);
    ends[i] = at;
  });
  return { values, ends };
}

/** The folder a value is from. */
export function rowOf({ ends }: Table, place: number): number {
  let [low, high] = [0, ends.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (elementAt(ends, middle) > place) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Places whose values stand more than once, grouped by value; places in ascending order. */
export function repeatedIn(values: Float64Array): number[][] {
  const sorted = Float64Array.from(values).sort();
  const twice = new Set<number>();
  for (let i = 1; i < sorted.length; i++) if (sorted[i] === sorted[i - 1]) twice.add(elementAt(sorted, i));
  if (twice.size === 0) return [];
  const groups = new Map<number, number[]>();
  for (let i = 0; i < values.length; i++) {
    const value = elementAt(values, i);
    if (!twice.has(value)) continue;
    const known = groups.get(value);
    if (known) known.push(i);
    else groups.set(value, [i]);
  }
  return [...groups.values()];
}
