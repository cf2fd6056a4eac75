/**
 * Bytes of a table somebody gives → its cells: whatever the separator, whether UTF-8, UTF-16 or an older Western
 * encoding.
 */
import { parse } from 'csv-parse/browser/esm/sync';

export interface Table {
  readonly cells: readonly (readonly string[])[];
  readonly separator: string;
  readonly encoding: string;
}

/** Larger tables are no lists of a house. */
export const MOST_TABLE_BYTES = 20 * 1024 * 1024;

/** `null` where it is no table. */
export function readTable(bytes: Uint8Array): Table | null {
  const { text, encoding } = decoded(bytes);
  if (text.includes('\0')) return null;
  const separator = separatorOf(text);
  try {
    // Cells of some lines may be missing or too many: what is looked at is told line by line.
    const cells = parse(text, {
      delimiter: separator,
      relax_column_count: true,
      relax_quotes: true,
      skip_empty_lines: false,
      bom: true,
    });
    return { cells, separator, encoding };
  } catch {
    return null;
  }
}

function decoded(bytes: Uint8Array): { text: string; encoding: string } {
  if (bytes[0] === 0xff && bytes[1] === 0xfe)
    return { text: new TextDecoder('utf-16le').decode(bytes), encoding: 'UTF-16' };
  if (bytes[0] === 0xfe && bytes[1] === 0xff)
    return { text: new TextDecoder('utf-16be').decode(bytes), encoding: 'UTF-16' };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch {
    return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'Windows-1252' };
  }
}

/** The one the first line has most of, outside quotes. */
function separatorOf(text: string): string {
  const first = text.slice(0, text.search(/[\r\n]|$/)).replace(/"[^"]*"/g, '');
  return [',', ';', '\t', '|'].map((s) => ({ s, n: first.split(s).length })).sort((a, b) => b.n - a.n)[0]?.s ?? ',';
}
