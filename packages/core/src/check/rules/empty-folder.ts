import type { ProjectRules } from '../../project/rules';
import type { PlannedLine } from '../../template/expansion';
import { dayOf } from '../days';
import type { FolderRow } from '../gathered';
import { type EndCase, rule } from '../rule';

/**
 * A folder that should hold something by now: so many days after the project's date, or after its own where it has one,
 * and after it was made.
 * Starter files do not count.
 */
export const emptyFolder = rule({
  code: 'empty-folder',
  weight: 'note',
  about: 'folder',
  params: { name: 'text', days: 'count' },
  remedy: { act: 'accept' },
  end: ({ rules, rows, part, unread }: EndCase) => {
    const due = rules.expansion.lines.filter((line) => isDue(rules, line));
    if (due.length === 0) return [];
    const starters = new Map<string, number>();
    for (const { row } of part.starters) {
      const path = part.rows[row]?.path ?? '';
      starters.set(path, (starters.get(path) ?? 0) + 1);
    }
    return due.flatMap((line) => {
      const own = rows.filter((row) => row.path === line.path || row.path.startsWith(`${line.path}/`));
      if (
        own.length === 0 ||
        unread.some((path) => path.startsWith(`${line.path}/`)) ||
        own.some((row) => row.files > (starters.get(row.path) ?? 0)) ||
        isNew(rules, line, own)
      )
        return [];
      return [
        { path: line.path, subject: line.key, params: { name: line.name, days: line.folder?.filledWithinDays ?? 0 } },
      ];
    });
  },
});

/** It was made since: its days count from then, however long the day is past. */
const isNew = (rules: ProjectRules, line: PlannedLine, own: readonly FolderRow[]): boolean =>
  own.some(
    ({ changed }) =>
      changed !== undefined && (rules.now ?? 0) - changed <= (line.folder?.filledWithinDays ?? 0) * 86_400_000,
  );

function isDue(rules: ProjectRules, line: PlannedLine): boolean {
  const days = line.folder?.filledWithinDays;
  if (days === undefined || line.kind !== 'folder' || rules.now === undefined) return false;
  const date = rules.datedFolder(line)?.date ?? rules.expansion.values.values.date;
  return typeof date === 'string' && rules.now - dayOf(date) > days * 86_400_000;
}
