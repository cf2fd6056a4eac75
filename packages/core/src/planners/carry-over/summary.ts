/** A plan as it is told to whoever asked: the lines that are shown, and what all of them come to. */

import type { OrderFault } from '../../change/fault';
import { orderChanges } from '../../change/order';
import { nameOf } from '../../listing/entry';
import { frameless } from '../../name/frames';
import { type Carried, type CarriedFolder, type CarryItem, isBrought } from './given';

export interface CarrySummary
  extends Pick<Carried, 'documents' | 'byHand' | 'needed' | 'referring' | 'outside' | 'words'> {
  readonly items: readonly CarryRow[];
  readonly all: number;
  /** Files of the source, each frame counted. */
  readonly allFiles: number;
  readonly folders: readonly CarriedFolder[];
  /** Files, and their bytes, that are brought. */
  readonly files: number;
  readonly bytes: number;
  /** Files that were to come and cannot: their names, their places. */
  readonly hindered: number;
  /** Files that are called alike in both: programs that have both open mix them up. */
  readonly sameNames: number;
  readonly families: readonly FamilyTotal[];
  /** How many there are of each list, of which the first are told. */
  readonly totals: Readonly<Record<'documents' | 'byHand' | 'needed' | 'referring' | 'outside', number>>;
  readonly orderFaults: readonly OrderFault[];
}

/** A file, or frames of one sequence that become the same. */
export interface CarryRow extends Omit<CarryItem, 'run'> {
  readonly frames: number;
  /** Of a sequence the names of its first frame. */
  readonly first: { readonly from: string; readonly to: string } | null;
}

export interface FamilyTotal {
  /** `null` for files of no family. */
  readonly family: string | null;
  readonly files: number;
  readonly bytes: number;
}

/** Of each list. */
const MOST_TOLD = 1000;
const MOST_FAULTS = 20;

export function carrySummary(carried: Carried, mostLines: number): CarrySummary {
  const { items, folders, words } = carried;
  const brought = items.filter(isBrought);
  const rows = rowsOf(items);
  const lists = (['documents', 'byHand', 'needed', 'referring', 'outside'] as const).map(
    (list) => [list, carried[list].length] as const,
  );
  return {
    items: rows.slice(0, mostLines),
    all: rows.length,
    allFiles: items.length,
    folders: folders.slice(0, mostLines),
    words,
    files: brought.length,
    bytes: brought.reduce((sum, { size }) => sum + size, 0),
    hindered: items.filter((item) => item.comes && !isBrought(item)).length,
    sameNames: brought.filter(({ by }) => by === 'same').length,
    families: familiesOf(brought),
    documents: carried.documents.slice(0, MOST_TOLD),
    byHand: carried.byHand.slice(0, MOST_TOLD),
    needed: carried.needed.slice(0, MOST_TOLD),
    referring: carried.referring.slice(0, MOST_TOLD),
    outside: carried.outside.slice(0, MOST_TOLD),
    totals: Object.fromEntries(lists) as Record<(typeof lists)[number][0], number>,
    orderFaults: orderChanges(carried.changes).faults.slice(0, MOST_FAULTS),
  };
}

/** Paths of sequences have `#` for their frames. */
function rowsOf(items: readonly CarryItem[]): readonly CarryRow[] {
  const rows = new Map<string, CarryRow>();
  for (const { run, ...item } of items) {
    const to = run === null ? item.to : frameless(item.to);
    const key = run === null ? item.from : JSON.stringify([run, to, item.comes, item.by, item.fault?.code, item.clash]);
    const known = rows.get(key);
    const size = item.size + (known?.size ?? 0);
    const modified = Math.max(item.modified, known?.modified ?? 0);
    const first = known?.first ?? (run === null ? null : { from: nameOf(item.from), to: nameOf(item.to) });
    rows.set(key, { ...item, from: run ?? item.from, to, size, modified, first, frames: 1 + (known?.frames ?? 0) });
  }
  return [...rows.values()];
}

/** The largest first. */
export function familiesOf(items: readonly Pick<CarryItem, 'family' | 'size'>[]): readonly FamilyTotal[] {
  const out = new Map<string | null, { family: string | null; files: number; bytes: number }>();
  for (const { family, size } of items) {
    const total = out.get(family) ?? { family, files: 0, bytes: 0 };
    total.files += 1;
    total.bytes += size;
    out.set(family, total);
  }
  return [...out.values()].sort((a, b) => b.bytes - a.bytes);
}
