/**
 * Listings as text → folders and files: path lists, indented outlines, drawn trees, CSV with a `path` column, JSON
 * arrays.
 */
import { elementAt } from '../element';
import { readCsv } from '../text/read-csv';
import { type FolderListing, join, nameOf, parentOf } from './entry';

export interface PathLine {
  readonly path: string;
  /** `null` where the text does not say: then what holds something, or has no extension, is a folder. */
  readonly folder: boolean | null;
  readonly size: number;
  readonly modified: number;
}

export type ListingFormat = 'paths' | 'outline' | 'tree' | 'csv' | 'json';

export function parseListing(text: string): PathLine[] {
  switch (formatOfListing(text)) {
    case 'json':
      return parseJson(text);
    case 'csv':
      return parseCsv(text);
    case 'tree':
      return nested(text, (line) => {
        const m = /^((?:[│|]\s{3}|[│|] {2}\s|\s{4})*)(?:[├└|`]── ?|[|`+]-- ?)?(.*)$/u.exec(
          line.replaceAll('\u00a0', ' '),
        );
        const drawn = /[├└`|+][─-]{2}/.test(line);
        return { depth: drawn ? (m?.[1]?.length ?? 0) / 4 + 1 : 0, name: m?.[2] ?? line };
      });
    case 'outline':
      return nested(text, (line) => ({
        depth: /^[\t ]*/.exec(line)?.[0].replaceAll('\t', '    ').length ?? 0,
        name: line.trim(),
      }));
    case 'paths':
      return lines(text).map((line) => pathLine(line.replace(/^\.\//, '')));
  }
}

export function formatOfListing(text: string): ListingFormat {
  const trimmed = text.trimStart();
  // A name may begin with a brace too: JSON goes on with a quote, a bracket or an end.
  if (/^(?:\[\s*["{\]]|\{\s*["}])/.test(trimmed)) return 'json';
  const all = lines(text);
  if (all.some((line) => /[├└]──|[|`]-- /.test(line))) return 'tree';
  if (/^"?path"?[,;\t]/i.test(all[0] ?? '') || /[,;\t]"?path"?([,;\t]|$)/i.test(all[0] ?? '')) return 'csv';
  if (all.some((line) => /^[\t ]+\S/.test(line))) return 'outline';
  return 'paths';
}

const lines = (text: string): string[] =>
  text
    .replace(/^\ufeff/, '')
    .split(/\r?\n/)
    .filter((line) => line.trim() !== '');

function pathLine(path: string, size = 0, modified = 0, folder: boolean | null = null): PathLine {
  const ends = path.endsWith('/');
  return {
    path: path.replaceAll('\\', '/').replace(/\/+$/, '').replace(/^\/+/, ''),
    folder: ends ? true : folder,
    size,
    modified,
  };
}

/** Lines by their depth; depths need only grow where a line stands in the one above it. */
function nested(text: string, cut: (line: string) => { depth: number; name: string }): PathLine[] {
  const stack: { depth: number; path: string }[] = [];
  const out: PathLine[] = [];
  for (const line of lines(text)) {
    if (/^\d+ director(y|ies)/.test(line)) continue;
    const { depth, name } = cut(line);
    while (stack.length > 0 && elementAt(stack, stack.length - 1).depth >= depth) stack.pop();
    const above = stack[stack.length - 1]?.path ?? '';
    const bare = name.replace(/\/$/, '');
    const path = bare === '.' ? '' : join(above, bare);
    if (path !== '') out.push(pathLine(path, 0, 0, name.endsWith('/') ? true : null));
    stack.push({ depth, path });
  }
  return out;
}

function parseJson(text: string): PathLine[] {
  const data: unknown = JSON.parse(text);
  const all = Array.isArray(data) ? data : ((data as { entries?: unknown[] }).entries ?? []);
  return all.flatMap((item): PathLine[] => {
    if (typeof item === 'string') return [pathLine(item)];
    const entry = item as { path?: unknown; type?: unknown; size?: unknown; modified?: unknown };
    if (typeof entry.path !== 'string') return [];
    const modified = typeof entry.modified === 'string' ? Date.parse(entry.modified) : Number(entry.modified ?? 0);
    return [
      pathLine(
        entry.path,
        Number(entry.size ?? 0),
        Number.isFinite(modified) ? modified : 0,
        entry.type === undefined ? null : entry.type === 'folder',
      ),
    ];
  });
}

function parseCsv(text: string): PathLine[] {
  const head = lines(text)[0] ?? '';
  const delimiter = [',', ';', '\t'].find((m) => head.includes(m)) ?? ',';
  return readCsv(text, delimiter).flatMap((row): PathLine[] => {
    if (row.path === undefined || row.path === '') return [];
    const modified = Date.parse(row.modified ?? '');
    return [
      pathLine(
        row.path,
        Number(row.size ?? 0) || 0,
        Number.isFinite(modified) ? modified : 0,
        row.type === undefined || row.type === '' ? null : row.type === 'folder',
      ),
    ];
  });
}

/**
 * Path lines → folders with what is directly in them. A common root folder that all lines share can be taken off with
 * `root`.
 */
export function foldersFrom(paths: readonly PathLine[], root: string | null = null): FolderListing[] {
  const prefix = root === null ? '' : `${root}/`;
  const mine = paths
    .filter((p) => p.path !== '.' && p.path !== '' && p.path !== root && p.path.startsWith(prefix))
    .map((p) => ({ ...p, path: p.path.slice(prefix.length) }));
  const parents = new Set<string>();
  for (const { path } of mine)
    for (let at = parentOf(path); at !== '' && !parents.has(at); at = parentOf(at)) parents.add(at);
  const folders = new Set<string>(['', ...parents]);
  const files = new Map<string, PathLine>();
  for (const line of mine) {
    const isFolder = parents.has(line.path) || (line.folder ?? !nameOf(line.path).includes('.'));
    if (isFolder) folders.add(line.path);
    else files.set(line.path, line);
  }
  const out = new Map([...folders].map((path) => [path, emptyListing(path)]));
  for (const path of folders) if (path !== '') out.get(parentOf(path))?.folders.push(nameOf(path));
  for (const [path, line] of files)
    out.get(parentOf(path))?.files.push({ name: nameOf(path), size: line.size, modified: line.modified });
  return [...out.values()];
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

/** A folder whose content is found line by line. */
const emptyListing = (
  path: string,
): { path: string; folders: string[]; files: { name: string; size: number; modified: number }[]; others: [] } => ({
  path,
  folders: [],
  files: [],
  others: [],
});
