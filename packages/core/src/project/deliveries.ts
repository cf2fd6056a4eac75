/** What a template says must be delivered: what is expected where, for each entry and by which day, and whether it is there. */
import { type FileEntry, type FolderListing, join } from '../listing/entry';
import { parseIso } from '../name/dates/dates';
import { squash } from '../name/mend/near';
import { readName } from '../name/read/read';
import { ownValue } from '../own-value';
import type { PlannedLine } from '../template/expansion';
import type { Delivery } from '../template/node';
import type { ProjectRules } from './rules';

export interface DueDelivery {
  /** Identity: its folder's, its place among that folder's deliveries, and its entry. */
  readonly key: string;
  readonly line: PlannedLine;
  readonly delivery: Delivery;
  /** `null` where it is due once. */
  readonly entry: string | null;
  /** ISO 8601; `null` where no day is known. */
  readonly by: string | null;
}

export function deliveriesOf(rules: ProjectRules): readonly DueDelivery[] {
  return rules.expansion.lines.flatMap((line) =>
    line.kind !== 'folder'
      ? []
      : (line.folder?.deliveries ?? []).flatMap((delivery, place) =>
          entriesFor(rules, line, delivery).map((entry) => ({
            ...{ key: `${line.key} ${place} ${entry ?? ''}`, line, delivery, entry },
            by: dayOf(rules, delivery),
          })),
        ),
  );
}

function entriesFor({ expansion }: ProjectRules, line: PlannedLine, { onePer }: Delivery): readonly (string | null)[] {
  if (onePer === undefined) return [null];
  // In a folder made for the entry itself it is due once.
  if (ownValue(line.entries, onePer.as) !== undefined) return [null];
  const list = expansion.values.lists.get(onePer.list);
  const outer = Object.values(line.entries).find((entry) => list?.by?.has(entry));
  return (outer === undefined ? list?.all : list?.by?.get(outer)) ?? [];
}

const DAY = 86_400_000;

function dayOf({ expansion }: ProjectRules, { due }: Delivery): string | null {
  const value = due === undefined ? undefined : ownValue(expansion.values.values, due.field);
  if (due === undefined || typeof value !== 'string' || parseIso(value) === null) return null;
  return new Date(Date.parse(`${value.slice(0, 10)}T00:00:00Z`) + due.days * DAY).toISOString().slice(0, 10);
}

/** Its day is over. */
export const isLate = ({ by }: DueDelivery, now: number): boolean =>
  by !== null && new Date(now).toISOString().slice(0, 10) > by;

/** The file it came as, the newest of several; `null` where none is there. Files of no bytes are none. */
export function deliveredAs(rules: ProjectRules, due: DueDelivery, listing: FolderListing | null): string | null {
  const found = (listing?.files ?? []).filter((file) => isDelivery(rules, due, file));
  const newest = found.reduce<FileEntry | null>(
    (best, file) => (best === null || file.modified > best.modified ? file : best),
    null,
  );
  return newest === null ? null : join(due.line.path, newest.name);
}

function isDelivery(rules: ProjectRules, { line, delivery, entry }: DueDelivery, { name, size }: FileEntry): boolean {
  if (size === 0 || rules.isGenerated(name) || rules.planned(join(line.path, name))?.kind === 'file') return false;
  if (delivery.family !== undefined && rules.familyOf(name) !== delivery.family) return false;
  const by = rules.conventionsIn(line).find(({ convention }) => convention.id === delivery.convention);
  if (delivery.convention !== undefined) {
    const reading = by === undefined ? null : readName(by.strict, name, by.bound);
    if (reading === null) return false;
    const value = delivery.onePer === undefined ? undefined : ownValue(reading, delivery.onePer.as);
    if (value !== undefined) return entry === null || squash(String(value)) === squash(entry);
  }
  return entry === null || holdsWords(name, entry);
}

/** Case and separators aside, and as whole words. */
function holdsWords(name: string, entry: string): boolean {
  const words = (text: string) =>
    text
      .toLowerCase()
      .split(/[^\p{L}\p{N}]+/u)
      .filter((word) => word !== '');
  return ` ${words(name).join(' ')} `.includes(` ${words(entry).join(' ')} `);
}
