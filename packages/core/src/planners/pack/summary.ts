/** What goes into a package as it is told to whoever asked: the lines that are shown, and what all of them come to. */
import type { PackageKind } from '../../package/layout';
import { type FamilyTotal, familiesOf } from '../carry-over/summary';
import type { PackItem, Packing, Stays } from './pack';

/** A file, or the frames of one sequence that go or stay alike. */
export interface PackRow extends Pick<PackItem, 'size' | 'modified' | 'family' | 'stays'> {
  /** From the project's root; of a sequence with `#` for its frame. */
  readonly path: string;
  readonly frames: number;
}

export interface StayTotal {
  readonly stays: Stays;
  readonly files: number;
  readonly bytes: number;
}

export interface PackSummary extends Pick<Packing, 'needed' | 'outside'> {
  readonly items: readonly PackRow[];
  readonly all: number;
  readonly files: number;
  readonly bytes: number;
  /** Of what goes, the largest first. */
  readonly families: readonly FamilyTotal[];
  readonly staying: readonly StayTotal[];
  /** How many there are of each list, of which the first are told. */
  readonly totals: Readonly<Record<'needed' | 'outside', number>>;
}

/** Of each list. */
const MOST_TOLD = 1000;

export function packSummary({ items, needed, outside }: Packing, mostLines: number): PackSummary {
  const going = items.filter(({ stays }) => stays === null);
  const rows = rowsOf(items);
  return {
    items: rows.slice(0, mostLines),
    all: rows.length,
    files: going.length,
    bytes: going.reduce((sum, { size }) => sum + size, 0),
    families: familiesOf(going),
    staying: stayTotals(items),
    needed: needed.slice(0, MOST_TOLD),
    outside: outside.slice(0, MOST_TOLD),
    totals: { needed: needed.length, outside: outside.length },
  };
}

function rowsOf(items: readonly PackItem[]): readonly PackRow[] {
  const rows = new Map<string, PackRow>();
  for (const { path, run, size, modified, family, stays } of items) {
    const key = run === null ? path : `${run}\0${stays}`;
    const known = rows.get(key);
    rows.set(key, {
      path: run ?? path,
      size: size + (known?.size ?? 0),
      modified: Math.max(modified, known?.modified ?? 0),
      family,
      stays,
      frames: 1 + (known?.frames ?? 0),
    });
  }
  return [...rows.values()];
}

function stayTotals(items: readonly PackItem[]): readonly StayTotal[] {
  const out = new Map<Stays, { stays: Stays; files: number; bytes: number }>();
  for (const { stays, size } of items) {
    if (stays === null) continue;
    const total = out.get(stays) ?? { stays, files: 0, bytes: 0 };
    total.files += 1;
    total.bytes += size;
    out.set(stays, total);
  }
  return [...out.values()].sort((a, b) => b.bytes - a.bytes);
}

/** Bytes that a package takes at most: what is in it, and what stands around each file. */
export function packageBytes(kind: PackageKind, items: readonly Pick<PackItem, 'path' | 'size' | 'stays'>[]): number {
  let bytes = 0;
  // Names stand twice in a zip, in UTF-8 up to three bytes a letter, and once more in each list.
  for (const { path, size, stays } of items)
    if (stays === null) bytes += size + (kind === 'bag' ? 0 : AROUND_ENTRY) + 4 * 3 * path.length + AROUND_LINE;
  return bytes;
}

/** Both headers of an entry with all their fields, and the lines of the lists. */
const AROUND_ENTRY = 160;
const AROUND_LINE = 200;
