/**
 * Listings as text → folders and files: path lists, indented outlines, drawn trees, CSV with a `path` column, JSON
 * arrays.
 */
import { elementAt } from '../element';
import { readCsv } from '../text/read-csv';
import { join } from './entry';

export interface PathLine {
  readonly path: string;
  /** `null` where the text does not say: then what holds something, or has no extension, is a folder. */
  readonly folder: boolean | null;
  readonly size: number;
  readonly modified: number;
}

export type ListingFormat = 'paths' | 'outline' | 'tree' | 'csv' | 'json';

/** @throws SyntaxError where the text is JSON and no listing */
export function parseListing(text: string): PathLine[] {
  const format = formatOfListing(text);
  if (format === 'json') return parseJson(text);
  if (format === 'csv') return parseCsv(text);
  const all = lines(text);
  switch (format) {
    case 'tree':
      return nested(all, (line) => {
        const m = /^((?:[│|]\s{3}|[│|] {2}\s|\s{4})*)(?:[├└|`]── ?|[|`+]-- ?)?(.*)$/u.exec(
          line.replaceAll('\u00a0', ' '),
        );
        const drawn = /[├└`|+][─-]{2}/.test(line);
        return { depth: drawn ? (m?.[1]?.length ?? 0) / 4 + 1 : 0, name: m?.[2] ?? line };
      });
    case 'outline':
      return nested(all, (line) => ({
        depth: /^[\t ]*/.exec(line)?.[0].replaceAll('\t', '    ').length ?? 0,
        name: line.trim(),
      }));
    case 'paths': {
      // A backslash is a letter where paths are parted by strokes.
      const isWindows = !isParted(text);
      return all.map((line) => pathLine(isWindows ? line.replaceAll('\\', '/') : line));
    }
  }
}

export function formatOfListing(text: string): ListingFormat {
  const start = text.slice(0, MOST_HEAD).trimStart();
  // A name may begin with a brace too: JSON goes on with a quote, a bracket or an end.
  if (/^(?:\ufeff)?(?:\[\s*["{[\]]|\{\s*["}])/.test(start)) return 'json';
  if (DRAWN.some((mark) => text.includes(mark))) return 'tree';
  const head = /[^\r\n]*/.exec(start.replace(/^\ufeff/, ''))?.[0] ?? '';
  if (/^"?path"?[,;\t]/i.test(head) || /[,;\t]"?path"?([,;\t]|$)/i.test(head)) return 'csv';
  return isIndented(text) ? 'outline' : 'paths';
}

/** Searched for as they are: a listing may be of a hundred megabytes. */
const DRAWN = ['├──', '└──', '|-- ', '`-- '];
const INDENTED = ['\n ', '\n\t', '\r ', '\r\t'];

/** So much of a text tells what it begins with. */
const MOST_HEAD = 4096;

/** Some lines stand further in, and it is not whole paths of which some begin with a blank. */
function isIndented(text: string): boolean {
  if (!INDENTED.some((start) => `\n${text.slice(0, 1)}`.includes(start) || text.includes(start))) return false;
  const asked = lines(text.slice(0, 1 << 20));
  const paths = asked.filter((line) => /[^/]\/[^/]/.test(line)).length;
  return paths * 2 < asked.length;
}

function lines(text: string): string[] {
  const all = text.startsWith('\ufeff') ? text.slice(1) : text;
  // A carriage return alone ends a line where nothing else does.
  return all.split(all.includes('\n') ? /\r?\n/ : /\r/).filter((line) => line.trim() !== '');
}

/** Whether paths are parted by strokes: else a backslash parts them. */
export const isParted = (text: string): boolean => text.includes('/');

function pathLine(written: string, size = 0, modified = 0, folder: boolean | null = null): PathLine {
  const path = pathIn(written);
  return { path, folder: written.endsWith('/') ? true : folder, size, modified };
}

/** From the folder the listing was made in: without `./` in front, without strokes at its ends or twice. */
export function pathIn(path: string): string {
  const [first, last] = [path.charCodeAt(0), path.charCodeAt(path.length - 1)];
  if (first !== 46 && first !== 47 && last !== 47 && !path.includes('//')) return path;
  return path
    .replace(/^\.(?:\/+|$)/, '')
    .replace(/\/{2,}/g, '/')
    .replace(/^\/|\/$/g, '');
}

/** Lines by their depth; depths need only grow where a line stands in the one above it. */
function nested(all: readonly string[], cut: (line: string) => { depth: number; name: string }): PathLine[] {
  const stack: { depth: number; path: string }[] = [];
  const out: PathLine[] = [];
  for (const line of all) {
    if (/^\d+ director(y|ies)/.test(line)) continue;
    const { depth, name } = cut(line);
    while (stack.length > 0 && elementAt(stack, stack.length - 1).depth >= depth) stack.pop();
    const above = stack[stack.length - 1]?.path ?? '';
    const own = pathIn(name);
    const path = own === '.' || own === '' ? above : join(above, own);
    if (path !== above) out.push({ path, folder: name.endsWith('/') ? true : null, size: 0, modified: 0 });
    stack.push({ depth, path });
  }
  return out;
}

function parseJson(text: string): PathLine[] {
  const data: unknown = JSON.parse(text.replace(/^\ufeff/, ''));
  const all = Array.isArray(data) ? data : isObject(data) && Array.isArray(data.entries) ? data.entries : null;
  const found = (all ?? []).flatMap((item: unknown): PathLine[] => {
    if (typeof item === 'string') return [jsonLine(item)];
    if (!isObject(item) || typeof item.path !== 'string') return [];
    const { path, size, modified, type } = item;
    return [jsonLine(path, count(size), timeOf(modified), type === undefined ? null : type === 'folder')];
  });
  if (all === null || (all.length > 0 && found.length === 0)) throw new SyntaxError('no paths in this JSON');
  return found;
}

const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null;

const jsonLine = (path: string, size = 0, modified = 0, folder: boolean | null = null): PathLine =>
  pathLine(path.includes('/') ? path : path.replaceAll('\\', '/'), size, modified, folder);

const count = (value: unknown): number => (Number.isFinite(Number(value)) ? Math.max(0, Number(value)) : 0);

function timeOf(value: unknown): number {
  const time = typeof value === 'string' ? Date.parse(value) : Number(value ?? 0);
  return Number.isFinite(time) ? time : 0;
}

function parseCsv(text: string): PathLine[] {
  const head = /[^\r\n]*/.exec(text.slice(0, MOST_HEAD))?.[0] ?? '';
  const delimiter = [',', ';', '\t'].find((m) => head.includes(m)) ?? ',';
  return readCsv(text, delimiter).flatMap((row): PathLine[] => {
    if (row.path === undefined || row.path === '') return [];
    const modified = Date.parse(row.modified ?? '');
    return [
      jsonLine(
        row.path,
        count(row.size),
        Number.isFinite(modified) ? modified : 0,
        row.type === undefined || row.type === '' ? null : row.type === 'folder',
      ),
    ];
  });
}

/**
 * The folder that all lines stand in, where there is one: listings made from outside a project carry its name in front.
 */
export function commonRoot(paths: readonly PathLine[]): string | null {
  const tops = new Set(
    paths.filter((p) => p.path !== '.' && p.path !== '').map((p) => elementAt(p.path.split('/'), 0)),
  );
  return tops.size === 1 ? elementAt([...tops], 0) : null;
}
