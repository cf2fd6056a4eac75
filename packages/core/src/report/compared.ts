/** Two projects side by side, for a table and for programs. */
import type { ToldRow } from '../compare/index';
import { csv } from '../text/csv';

const cellsOf = (item: ToldRow['left']): string[] =>
  item === null
    ? ['', '', '', '']
    : [item.path, String(item.size), new Date(item.modified).toISOString(), String(item.frames)];

export const comparedCsv = (rows: readonly ToldRow[]): string =>
  csv([
    [
      'state',
      'by',
      ...['left', 'right'].flatMap((side) => [side, `${side} bytes`, `${side} written`, `${side} files`]),
    ],
    ...rows.map((r) => [
      r.state,
      r.isUnread ? 'not read' : (r.evidence ?? ''),
      ...cellsOf(r.left),
      ...cellsOf(r.right),
    ]),
  ]);

export const comparedJson = (rows: readonly ToldRow[]): string => `${JSON.stringify({ rows }, null, 2)}\n`;
