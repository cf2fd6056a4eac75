import type { PlannedLine } from '../../template/expand';
import { dayOf } from '../days';
import type { CheckGround } from '../ground';
import type { EndCase, Found, Rule } from '../rule';

/**
 * A folder that should hold something by now: so many days after the project's date, or after its own where it has one.
 * Starter files do not count.
 */
export const emptyFolder: Rule = {
  code: 'empty-folder',
  scope: 'end',
  judge: ({ ground, rows, part, unread }: EndCase) => {
    const due = ground.expansion.lines.filter((line) => isDue(ground, line));
    if (due.length === 0) return [];
    const starters = new Map<string, number>();
    for (const { row } of part.starters) {
      const path = part.rows[row]?.path ?? '';
      starters.set(path, (starters.get(path) ?? 0) + 1);
    }
    return due.flatMap((line): Found[] => {
      const own = rows.filter((row) => row.path === line.path || row.path.startsWith(`${line.path}/`));
      if (
        own.length === 0 ||
        unread.some((path) => path.startsWith(`${line.path}/`)) ||
        own.some((row) => row.files > (starters.get(row.path) ?? 0))
      )
        return [];
      return [
        { path: line.path, subject: line.key, params: { name: line.name, days: line.folder?.filledWithinDays ?? 0 } },
      ];
    });
  },
};

function isDue(ground: CheckGround, line: PlannedLine): boolean {
  const days = line.folder?.filledWithinDays;
  if (days === undefined || line.kind !== 'folder' || ground.now === undefined) return false;
  const date = ground.datedFolder(line)?.date ?? ground.expansion.values.values.date;
  return typeof date === 'string' && ground.now - dayOf(date) > days * 86_400_000;
}
