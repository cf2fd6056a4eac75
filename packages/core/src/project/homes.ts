/**
 * Where a name belongs: the planned folder whose convention it follows. There may be tens of thousands of folders, and
 * a name is asked for by several rules.
 */

import { elementAt } from '../element';
import { grouped } from '../grouped';
import { extensionOf } from '../listing/extension';
import type { Reading } from '../name/pattern/field';
import { readName } from '../name/read/read';
import { ownValue } from '../own-value';
import type { PlannedLine } from '../template/expansion';
import { dateIn } from './days';
import type { FolderConvention } from './folder-convention';

/** Folders in which one convention holds, with the same entries in hand. */
interface Home {
  readonly id: string;
  readonly lines: PlannedLine[];
}

export class Homes {
  private readonly homes: readonly Home[];
  private readonly bounds = new Map<Home, ReadonlyMap<string, readonly PlannedLine[]>>();

  constructor(
    lines: readonly PlannedLine[],
    private readonly conventionsIn: (line: PlannedLine) => readonly FolderConvention[],
    private readonly dayOf: (line: PlannedLine) => string | null,
  ) {
    const homes = new Map<string, Home>();
    for (const line of lines) {
      if (line.kind !== 'folder' || (line.rules.holdsFolders && line.folder?.conventions === undefined)) continue;
      for (const id of line.rules.conventions ?? []) {
        const scope = `${id}|${Object.keys(line.entries).join(',')}`;
        const known = homes.get(scope) ?? { id, lines: [] };
        homes.set(scope, known);
        known.lines.push(line);
      }
    }
    this.homes = [...homes.values()];
  }

  /**
   * `null` where there is none, or more than one. A folder whose entries the name carries comes before one that asks for
   * none, and a dated one takes its own day alone.
   */
  of(name: string): PlannedLine | null {
    let found: PlannedLine[] = [];
    let most = -1;
    for (const home of this.homes) {
      // Compiled alike for all of them: one tells whether the name is of this convention at all.
      const first = this.conventionIn(elementAt(home.lines, 0), home.id);
      if (
        first === undefined ||
        (first.extensions !== null && !first.extensions.has(extensionOf(name, first.extensions)))
      )
        continue;
      const own = Object.fromEntries(
        Object.entries(first.bound).filter(([field]) => field === 'number' || field === 'client'),
      );
      const reading = readName(first.strict, name, own);
      if (reading === null) continue;
      const lines = this.linesBound(home, first).get(boundKey(first, reading)) ?? [];
      const ofDay = lines.filter((line) => this.isOfDay(line, first, reading));
      const carried = boundOf(first);
      if (ofDay.length === 0 || carried < most) continue;
      if (carried > most) found = [];
      most = carried;
      found.push(...ofDay);
    }
    const [only, second] = [...new Map(found.map((line) => [line.key, line])).values()];
    return second === undefined ? (only ?? null) : null;
  }

  private isOfDay(line: PlannedLine, by: FolderConvention, reading: Reading): boolean {
    const day = dateIn(by, reading);
    const own = day === null ? null : this.dayOf(line);
    return own === null || own === day;
  }

  private conventionIn(line: PlannedLine, id: string): FolderConvention | undefined {
    return this.conventionsIn(line).find((c) => c.convention.id === id);
  }

  /** The folders of a home by the entries their names must carry. */
  private linesBound(home: Home, first: FolderConvention): ReadonlyMap<string, readonly PlannedLine[]> {
    const known = this.bounds.get(home);
    if (known !== undefined) return known;
    const made = grouped(home.lines, (line) => boundKey(first, this.conventionIn(line, home.id)?.bound ?? {}));
    this.bounds.set(home, made);
    return made;
  }
}

/** How many entries of the folder its names carry. */
const boundOf = (by: FolderConvention): number =>
  Object.keys(by.bound).filter((field) => field !== 'number' && field !== 'client').length;

/** The values a name must carry in a folder, in the order of the convention's slots. */
function boundKey(by: FolderConvention, values: Reading): string {
  let key = '';
  for (const { field } of by.strict.slots)
    if (ownValue(by.bound, field) !== undefined) key += `${field}=${ownValue(values, field)}|`;
  return key;
}
