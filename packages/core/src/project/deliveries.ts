/** What a template says must be delivered: what is expected where, for each entry and by which day, and whether it is there. */
import { grouped } from '../grouped';
import { type FolderListing, join } from '../listing/entry';
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

/**
 * The files they came as, the newest of several; what is not there is absent. Files of no bytes are none. Each folder is
 * listed and read once, however many entries are due in it.
 */
export function deliveredAs(
  rules: ProjectRules,
  due: readonly DueDelivery[],
  list: (folder: string) => FolderListing | null,
): ReadonlyMap<DueDelivery, string> {
  const out = new Map<DueDelivery, string>();
  for (const [, alike] of grouped(due, ({ line, delivery }) => `${line.key}\0${JSON.stringify(delivery)}`)) {
    const [first] = alike;
    if (first === undefined) continue;
    const came = arrivalsOf(rules, first, list(first.line.path));
    // The newest stand first: of one entry it is the one that is found.
    const said = new Map([...came].reverse().flatMap((one) => (one.entry === null ? [] : [[one.entry, one] as const])));
    const unsaid = came.filter(({ entry }) => entry === null);
    for (const one of alike) {
      const newest = one.entry === null ? came[0] : (said.get(squash(one.entry)) ?? holding(unsaid, one.entry));
      if (newest !== undefined) out.set(one, join(one.line.path, newest.name));
    }
  }
  return out;
}

interface Arrival {
  readonly name: string;
  /** The entry that its name says by its convention; `null` where none says it. */
  readonly entry: string | null;
  readonly words: string;
}

/** Files that a delivery may have come as, the newest first. */
function arrivalsOf(
  rules: ProjectRules,
  { line, delivery }: DueDelivery,
  listing: FolderListing | null,
): readonly Arrival[] {
  const by = rules.conventionsIn(line).find(({ convention }) => convention.id === delivery.convention);
  const files = (listing?.files ?? []).filter(
    ({ name, size }) =>
      size > 0 &&
      (delivery.family === undefined || rules.familyOf(name) === delivery.family) &&
      !rules.isGenerated(name) &&
      rules.planned(join(line.path, name))?.kind !== 'file',
  );
  return [...files]
    .sort((a, b) => b.modified - a.modified)
    .flatMap(({ name }): Arrival[] => {
      if (delivery.convention === undefined) return [{ name, entry: null, words: wordsOf(name) }];
      const reading = by === undefined ? null : readName(by.strict, name, by.bound);
      if (reading === null) return [];
      const said = delivery.onePer === undefined ? undefined : ownValue(reading, delivery.onePer.as);
      return [{ name, entry: said === undefined ? null : squash(String(said)), words: wordsOf(name) }];
    });
}

function holding(arrivals: readonly Arrival[], entry: string): Arrival | undefined {
  const wanted = wordsOf(entry);
  return arrivals.find(({ words }) => words.includes(wanted));
}

/** Case and separators aside, and whole. */
const wordsOf = (text: string): string =>
  ` ${text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== '')
    .join(' ')} `;
