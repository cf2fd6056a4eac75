/** Listings as text, each form such that `parseListing` reads it back. */
import { csv } from '../text/csv';
import { nameOf } from './entry';
import type { ListingFormat, PathLine } from './text';

/** Lines whose folders come before what is in them. Folders end in `/`, so that an empty one is told from a file. */
export function printListing(lines: readonly PathLine[], form: ListingFormat): string {
  switch (form) {
    case 'paths':
      return lines.map((l) => `${l.path}${l.folder ? '/' : ''}\n`).join('');
    case 'outline':
      return lines.map((l) => `${'  '.repeat(depthOf(l))}${nameOf(l.path)}${l.folder ? '/' : ''}\n`).join('');
    case 'tree':
      return tree(lines);
    case 'csv':
      return csv([
        ['path', 'type', 'size', 'modified'],
        ...lines.map((l) => [
          l.path,
          l.folder ? 'folder' : 'file',
          String(l.size),
          l.modified === 0 ? '' : new Date(l.modified).toISOString(),
        ]),
      ]);
    case 'json':
      return `${JSON.stringify(
        lines.map((l) => ({
          path: l.path,
          type: l.folder ? 'folder' : 'file',
          ...(l.size > 0 && { size: l.size }),
          ...(l.modified > 0 && { modified: new Date(l.modified).toISOString() }),
        })),
        null,
        1,
      )}\n`;
  }
}

const depthOf = (line: PathLine): number => line.path.split('/').length - 1;

/** As drawn by hand: `├── ` for one with others below it, `└── ` for the last. */
function tree(lines: readonly PathLine[]): string {
  const last = new Map<string, string>();
  for (const l of lines) last.set(l.path.slice(0, Math.max(0, l.path.lastIndexOf('/'))), l.path);
  return `.\n${lines
    .map((l) => {
      const parts = l.path.split('/');
      const bars = parts
        .slice(0, -1)
        .map((_, i) => (last.get(parts.slice(0, i).join('/')) === parts.slice(0, i + 1).join('/') ? '    ' : '│   '));
      return `${bars.join('')}${last.get(parts.slice(0, -1).join('/')) === l.path ? '└── ' : '├── '}${parts.at(-1)}${l.folder ? '/' : ''}\n`;
    })
    .join('')}`;
}
