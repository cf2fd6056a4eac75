/** Dated folders and dated names, held against what is in them. */

import { join } from '../listing/entry';
import { isReal } from '../name/dates/dates';
import { dateIn } from '../project/days';
import type { ProjectRules } from '../project/rules';
import type { PlannedLine } from '../template/expansion';
import type { FolderRow } from './gathered';
import type { FolderItems } from './items';

const DAY = 86_400_000;
/** Clocks, time zones and nights that go on past midnight. */
const SLACK = 1.5 * DAY;

/** A date written anywhere in a name, year first. */
const WRITTEN = /(?<!\d)((?:19|20)\d\d)([-_.]?)(\d\d)\2(\d\d)(?!\d)/;

export const dayOf = (iso: string): number => Date.parse(`${iso.slice(0, 10)}T00:00:00Z`);

function writtenIn(name: string): string | null {
  const m = WRITTEN.exec(name);
  if (m === null) return null;
  const [year, month, day] = [Number(m[1]), Number(m[3]), Number(m[4])];
  return isReal({ year, month, day }) ? `${m[1]}-${m[3]}-${m[4]}` : null;
}

/** Dated after the file was last written: nobody can have made it then. */
export const isAhead = (iso: string, modified: number): boolean => modified > 0 && dayOf(iso) > modified + SLACK;

/** Other days in one folder that are told apart. */
const MOST_STRAYS = 20;

/** What the files of a folder inside a dated one say of its date. */
export function dayCounts(
  rules: ProjectRules,
  line: PlannedLine,
  folder: string,
  items: FolderItems,
): FolderRow['dates'] {
  const dated = rules.datedFolder(line);
  if (dated === null) return undefined;
  const strays = new Map<string, { path: string; date: string; count: number }>();
  const counts = { key: dated.key, before: 0, other: 0, right: 0, found: '' };
  const count = (name: string, modified: number, own: string | null) => {
    const date = own ?? writtenIn(name);
    if (date !== null && Math.abs(dayOf(date) - dayOf(dated.date)) > DAY) {
      counts.other++;
      if (counts.found === '') counts.found = date;
      const path = join(folder, name);
      const known = strays.get(date);
      strays.set(date, {
        path: known !== undefined && known.path < path ? known.path : path,
        date,
        count: (known?.count ?? 0) + 1,
      });
    } else if (date === null && isAhead(dated.date, modified)) {
      counts.before++;
      if (counts.found === '') counts.found = new Date(modified).toISOString().slice(0, 10);
    } else counts.right++;
  };
  for (const { file, by, reading } of items.read) count(file.name, file.modified, dateIn(by, reading));
  for (const { file } of items.open) count(file.name, file.modified, null);
  for (const file of items.cleared) count(file.name, file.modified, null);
  for (const run of items.runs) count(run.first, run.newest, dateIn(run.by, run.reading));
  if (counts.before + counts.other + counts.right === 0) return undefined;
  return strays.size === 0 ? counts : { ...counts, strays: [...strays.values()].slice(0, MOST_STRAYS) };
}
