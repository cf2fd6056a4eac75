/** A plan as it is told to whoever asked: the lines that are shown, and what all of them come to. */

import type { OrderFault } from '../../change/fault';
import { orderChanges } from '../../change/order';
import { type Carried, type CarriedFolder, type CarryItem, isBrought } from './given';

export interface CarrySummary
  extends Pick<Carried, 'documents' | 'byHand' | 'needed' | 'referring' | 'outside' | 'words'> {
  readonly items: readonly CarryItem[];
  readonly all: number;
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
  const lists = (['documents', 'byHand', 'needed', 'referring', 'outside'] as const).map(
    (list) => [list, carried[list].length] as const,
  );
  return {
    items: items.slice(0, mostLines),
    all: items.length,
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

/** The largest first. */
function familiesOf(items: readonly CarryItem[]): readonly FamilyTotal[] {
  const out = new Map<string | null, { family: string | null; files: number; bytes: number }>();
  for (const { family, size } of items) {
    const total = out.get(family) ?? { family, files: 0, bytes: 0 };
    total.files += 1;
    total.bytes += size;
    out.set(family, total);
  }
  return [...out.values()].sort((a, b) => b.bytes - a.bytes);
}
