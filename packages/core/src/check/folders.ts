/**
 * Folders that the plan lacks and folders it does not know, put together by meaning: a folder that is nearly an
 * expected one is misspelt, one that
 * is expected elsewhere is misplaced, by its name or by what is in it, and only what is left is missing or unplanned.
 * One cause is said once.
 */

import { distance } from 'fastest-levenshtein';
import { elementAt, present } from '../element';
import { grouped } from '../grouped';
import { join, nameOf, parentOf } from '../listing/entry';
import { daysMeant } from '../name/mend/days';
import { meaningOf } from '../portable/meaning';
import type { ProjectRules } from '../project/rules';
import type { PlannedLine } from '../template/expansion';
import { isExchanged } from '../text/exchanged';
import { assign } from './assign';
import type { FolderRow } from './gathered';

export interface FoldersSettled {
  readonly missing: readonly PlannedLine[];
  readonly misspelt: readonly { readonly row: FolderRow; readonly line: PlannedLine }[];
  /** `line` is where it belongs; `doubled` where it lies in itself. */
  readonly misplaced: readonly { readonly row: FolderRow; readonly line: PlannedLine; readonly doubled: boolean }[];
  readonly unplanned: readonly FolderRow[];
}

/** Letters that may differ, as a share of the longer name: one in four, two in seven. */
const NEAR = 0.3;

function farness(found: string, expected: string): number {
  const [a, b] = [meaningOf(found), meaningOf(expected)];
  if (a === b) return found.toLowerCase() === expected.toLowerCase() ? 0.01 : 0.05;
  if (isSameDay(found, expected)) return 0.05;
  const longer = Math.max(a.length, b.length);
  // Codes of one or two letters, and numbers, are other entries, and no slips.
  if (longer < 4 || /^\d+$/.test(a) || /^\d+$/.test(b) || digitsOf(a) !== digitsOf(b)) return 1;
  // Two letters exchanged are one slip.
  return (isExchanged(a, b) ? 1 : distance(a, b)) / longer;
}

/** One day, in any form people write days; the year of the expected one where none is said. */
function isSameDay(found: string, expected: string): boolean {
  if (!/\d{2}/.test(found) || !/\d{4}/.test(expected)) return false;
  const year = Number(/(?:19|20)\d{2}/.exec(expected)?.[0] ?? 0);
  const meant = new Set(daysMeant(expected, year));
  return meant.size > 0 && daysMeant(found, year).some((day) => meant.has(day));
}

/** `s01` and `s02` are two scenes, however near they are. */
const digitsOf = (name: string): string => name.replace(/\D+/g, ' ').trim();

export function settleFolders(
  rules: ProjectRules,
  rows: readonly FolderRow[],
  unread: readonly string[],
): FoldersSettled {
  const seen = new Set(rows.map((r) => r.path.normalize('NFC')));
  const is = (line: PlannedLine) =>
    seen.has(line.path.normalize('NFC')) || (unread.length > 0 && unread.some((path) => isWithin(line.path, path)));
  const byKey = new Map(rules.expansion.lines.map((line) => [line.key, line]));
  const folders = rules.expansion.lines.filter((line) => line.kind === 'folder' && line.parent !== null);
  const absent = folders.filter((line) => line.presence === 'always' && !is(line));
  const open = rows.filter((r) => r.state === 'unplanned');
  const taken = new Set<string>();
  const settled = new Set<FolderRow>();
  const misspelt = nearest(rules, absent, open, taken, settled);
  misspelt.push(...olderMisspelt(rules, open, seen, settled));
  const misplaced = displaced(rules, folders, absent, open, is, taken, settled);
  for (const { row, line } of byContents(rows, folders, absent, open, byKey, taken, settled)) {
    if (parentOf(row.path).normalize('NFC') === parentOf(line.path).normalize('NFC')) misspelt.push({ row, line });
    else misplaced.push({ row, line, doubled: false });
  }
  const missing = absent.filter(
    (line) =>
      !taken.has(line.key) &&
      (byKey.get(present(line.parent))?.parent === null ||
        seen.has((byKey.get(present(line.parent))?.path ?? '').normalize('NFC'))),
  );
  return { missing, misspelt, misplaced, unplanned: open.filter((r) => !settled.has(r)) };
}

/** The folder for older versions under nearly its name: no line of the plan, and expected all the same. */
function olderMisspelt(
  rules: ProjectRules,
  open: readonly FolderRow[],
  seen: ReadonlySet<string>,
  settled: Set<FolderRow>,
): { row: FolderRow; line: PlannedLine }[] {
  return open.flatMap((row) => {
    const above = rules.planned(parentOf(row.path));
    const name = above?.kind === 'folder' ? above.folder?.older?.folder : undefined;
    if (above === undefined || name === undefined || settled.has(row)) return [];
    const path = join(above.path, name);
    const own = nameOf(row.path);
    const isCutShort = own.length > 2 && name.toLowerCase().startsWith(own.toLowerCase());
    if (seen.has(path.normalize('NFC')) || (!isCutShort && farness(own, name) > NEAR)) return [];
    settled.add(row);
    return [{ row, line: { ...above, key: `${above.key}/older`, name, path } }];
  });
}

const isWithin = (path: string, folder: string): boolean => path === folder || path.startsWith(`${folder}/`);

/** Beyond this many siblings the best pairs are taken one after another. */
const MOST_ASSIGNED = 100;

/** The best pairs among siblings; each folder and each expected one in one pair at most. */
function nearest(
  rules: ProjectRules,
  absent: readonly PlannedLine[],
  open: readonly FolderRow[],
  taken: Set<string>,
  settled: Set<FolderRow>,
): { row: FolderRow; line: PlannedLine }[] {
  const byParent = grouped(absent, (line) => present(line.parent));
  const found = grouped(open, (row) => rules.planned(parentOf(row.path))?.key ?? '');
  const pairs = [...found].flatMap(([parent, siblings]) => {
    const expected = byParent.get(parent) ?? [];
    if (expected.length === 0) return [];
    const rows = [...siblings].sort((a, b) => (a.path < b.path ? -1 : 1));
    const far = rows.map((row) => expected.map((line) => farness(nameOf(row.path), line.name)));
    const chosen = Math.max(rows.length, expected.length) <= MOST_ASSIGNED ? assign(far, NEAR) : oneByOne(far);
    return rows.flatMap((row, i) =>
      elementAt(chosen, i) < 0 ? [] : [{ row, line: elementAt(expected, elementAt(chosen, i)) }],
    );
  });
  for (const { row, line } of pairs) {
    taken.add(line.key);
    settled.add(row);
  }
  return pairs;
}

function oneByOne(far: readonly (readonly number[])[]): number[] {
  const pairs = far
    .flatMap((row, i) => row.flatMap((f, j) => (f <= NEAR ? [{ i, j, f }] : [])))
    .sort((a, b) => a.f - b.f || a.i - b.i || a.j - b.j);
  const [out, taken] = [far.map(() => -1), new Set<number>()];
  for (const { i, j } of pairs) {
    if (elementAt(out, i) >= 0 || taken.has(j)) continue;
    out[i] = j;
    taken.add(j);
  }
  return out;
}

/**
 * Folders of other names that hold what an absent one should: its files by their names, or two folders and most of
 * them.
 */
function byContents(
  rows: readonly FolderRow[],
  folders: readonly PlannedLine[],
  absent: readonly PlannedLine[],
  open: readonly FolderRow[],
  byKey: ReadonlyMap<string, PlannedLine>,
  taken: Set<string>,
  settled: Set<FolderRow>,
): { row: FolderRow; line: PlannedLine }[] {
  const left = open.filter((row) => !settled.has(row));
  if (left.length === 0 || absent.every((line) => taken.has(line.key))) return [];
  const below = grouped(rows, (row) => parentOf(row.path));
  const planned = grouped(folders, (line) => present(line.parent));
  return left.flatMap((row) => {
    const lacking = absent.filter((line) => !taken.has(line.key));
    const inside = (below.get(row.path) ?? []).map((r) => meaningOf(nameOf(r.path)));
    const alike = lacking.filter((line) => {
      const names = new Set((planned.get(line.key) ?? []).map((l) => meaningOf(l.name)));
      const both = inside.filter((name) => names.has(name)).length;
      return both >= 2 && both * 3 >= inside.length * 2 && both * 2 >= names.size;
    });
    const line = lacking.find((l) => l.key === row.meant) ?? (alike.length === 1 ? alike[0] : undefined);
    if (line === undefined || byKey.get(line.key) === undefined) return [];
    taken.add(line.key);
    settled.add(row);
    return [{ row, line }];
  });
}

type Displaced = FoldersSettled['misplaced'][number];

function displaced(
  rules: ProjectRules,
  folders: readonly PlannedLine[],
  absent: readonly PlannedLine[],
  open: readonly FolderRow[],
  is: (line: PlannedLine) => boolean,
  taken: Set<string>,
  settled: Set<FolderRow>,
): Displaced[] {
  const byMeaning = grouped(folders, (line) => meaningOf(line.name));
  return open.flatMap((row): Displaced[] => {
    if (settled.has(row)) return [];
    const name = meaningOf(nameOf(row.path));
    const parent = rules.planned(parentOf(row.path));
    if (parent !== undefined && name !== '' && meaningOf(parent.name) === name) {
      settled.add(row);
      return [{ row, line: parent, doubled: true }];
    }
    // Another spelling of what is there beside it is nobody's: it is expected nowhere else.
    const alike = (byMeaning.get(name) ?? []).filter((line) => line.parent !== parent?.key);
    const lacking = alike.filter((line) => !taken.has(line.key) && absent.includes(line));
    // An expected one that is lacking, or the only one of its name.
    const line =
      lacking.length === 1 ? lacking[0] : alike.length === 1 && is(elementAt(alike, 0)) ? alike[0] : undefined;
    if (line === undefined || name.length < 3) return [];
    taken.add(line.key);
    settled.add(row);
    return [{ row, line, doubled: false }];
  });
}
