/** CSV as RFC 4180 has it. Cells that a spreadsheet would run as formulas are defused by an apostrophe in front. */
export function csv(rows: readonly (readonly (string | number | null)[])[]): string {
  return rows.map((row) => `${row.map(cell).join(',')}\r\n`).join('');
}

function cell(value: string | number | null): string {
  if (typeof value === 'number') return String(value);
  const text = value ?? '';
  const safe = defused(text);
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/** One that looks defused already gets an apostrophe too, so that taking one off gives back what was there. */
export const defused = (text: string): string => (/^'*[=+\-@\t\r]/.test(text) ? `'${text}` : text);
export const undefused = (cell: string): string => (/^'+[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell);
