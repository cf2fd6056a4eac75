/** Two projects side by side, for a table and for programs. */
import type { ComparedRow, SideItem } from '../compare/index';
import { csv } from '../text/csv';

type Told = Pick<ComparedRow, 'state' | 'evidence' | 'isUnread'> & {
  readonly left: Omit<SideItem, 'names'> | null;
  readonly right: Omit<SideItem, 'names'> | null;
};

const cellsOf = (item: Told['left']): string[] =>
  item === null
    ? ['', '', '', '']
    : [item.path, String(item.size), new Date(item.modified).toISOString(), String(item.frames)];

export const comparedCsv = (rows: readonly Told[]): string =>
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

export const comparedJson = (rows: readonly Told[]): string => `${JSON.stringify({ rows }, null, 2)}\n`;
