import { parse } from 'csv-parse/browser/esm/sync';

/** Rows by the names of their columns, in small letters. A quote that is never closed is taken for a letter. */
export function readCsv(text: string, delimiter: string): Readonly<Record<string, string>>[] {
  const options = {
    delimiter,
    columns: (head: string[]) => head.map((name) => name.trim().toLowerCase()),
    bom: true,
    relax_quotes: true,
    relax_column_count: true,
    skip_empty_lines: true,
  };
  try {
    return parse<Record<string, string>>(text, options);
  } catch {
    return parse<Record<string, string>>(text, { ...options, quote: null });
  }
}
