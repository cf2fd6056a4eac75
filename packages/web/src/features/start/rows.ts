/** A table of starts → rows that are judged one by one: the good ones can go on without the others. */
import type { Value } from '@nesting/core/name';
import type { Expander, Template } from '@nesting/core/template';
import { wordsFor } from '@nesting/core/words';

export interface StartRow {
  /** Line of the table, the header being the first. */
  readonly line: number;
  readonly values: Readonly<Record<string, Value>>;
  readonly title: string;
  /** What hinders it, in words; none where it can go on. */
  readonly faults: readonly string[];
  readonly folders: number;
}

/** Starts of one table. */
const MOST_STARTS = 500;

export interface StartTable {
  readonly rows: readonly StartRow[];
  readonly unknown: readonly string[];
  readonly fault: string | null;
}

/** Columns by a field's label or name; `number` is a number written by hand. */
export function startRows(expander: Expander, template: Template, table: readonly (readonly string[])[]): StartTable {
  const [header = [], ...body] = table;
  const keyOf = (heading: string): string | null => {
    const text = heading.trim().toLowerCase();
    if (text === 'number') return 'number';
    return (
      template.fields.find((f) => f.key.toLowerCase() === text || (f.label ?? '').toLowerCase() === text)?.key ?? null
    );
  };
  const keys = header.map(keyOf);
  if (!keys.some((k) => k !== null))
    return { rows: [], unknown: [], fault: 'The first line must name what is asked for: its fields, by their labels.' };
  if (body.length > MOST_STARTS)
    return { rows: [], unknown: [], fault: `There are ${body.length} lines; ${MOST_STARTS} are started at once.` };
  const rows = body.flatMap((cells, i): StartRow[] => {
    if (cells.every((c) => c.trim() === '')) return [];
    const values = Object.fromEntries(
      keys.flatMap((key, k) => (key === null || !cells[k]?.trim() ? [] : [[key, cells[k].trim()]])),
    );
    // A number is held only when a row is started: until then any will do for judging the names.
    const expansion = expander.expand({ number: '00000', ...values });
    const faults = [
      ...new Set(expansion.diagnostics.filter((d) => d.weight === 'refused').map((d) => wordsFor(d.code, d.params))),
    ];
    return [{ line: i + 2, values, title: String(values.title ?? ''), faults, folders: expansion.folders }];
  });
  return { rows, unknown: header.filter((h, i) => keys[i] === null && h.trim() !== ''), fault: null };
}
