/** The form of the two lists: `== TITLE`, then a line for each case, `#` in front of a remark. */

export interface Sort {
  readonly title: string;
  readonly lines: readonly string[];
}

export function sortsIn(text: string): Sort[] {
  const sorts: { title: string; lines: string[] }[] = [];
  for (const line of text.split('\n')) {
    if (line.startsWith('# ') || line === '#' || line === '') continue;
    if (line.startsWith('== ')) sorts.push({ title: line.slice(3), lines: [] });
    else sorts.at(-1)?.lines.push(line);
  }
  return sorts;
}

/** By turns, and each sort the other way round, so that no place in a list belongs to one half. */
export const halved = (sort: number, line: number): 'tune' | 'measure' =>
  (sort + line) % 2 === 0 ? 'tune' : 'measure';

export const unescaped = (text: string): string =>
  text.replace(/\\u([0-9A-F]{4})/g, (_, code: string) => String.fromCharCode(Number.parseInt(code, 16)));
