/**
 * Two projects side by side. What is on one side finds its counterpart on the other, surest evidence first:
 *
 * 1. the same path;
 * 2. the same meaning: folder, convention and values, whatever number, client and title the names carry;
 * 3. the same content, where only one item of each side has it;
 * 4. the newest version of the same chain.
 *
 * Then each pair is the same, renamed, or changed; what found none is on one side only.
 */
import type { ReadItem, SideItem } from './side';

export const COMPARED = ['same', 'renamed', 'changed', 'only-left', 'only-right'] as const;
export type Compared = (typeof COMPARED)[number];

export const EVIDENCE = ['path', 'meaning', 'content', 'version'] as const;
/** By what two items were found to be one. */
export type Evidence = (typeof EVIDENCE)[number];

export interface ComparedRow {
  readonly state: Compared;
  readonly evidence: Evidence | null;
  /** As large as its counterpart, and nobody looked into them: called changed, which is not known. */
  readonly isUnread: boolean;
  readonly left: SideItem | null;
  readonly right: SideItem | null;
}

export interface CompareGiven {
  readonly left: Iterable<ReadItem>;
  readonly right: Iterable<ReadItem>;
  /** Asked of pairs whose sizes and frames are the same; `null` where it is not known. */
  readonly sameContent: (left: SideItem, right: SideItem) => boolean | null;
  /** What tells a content where it is known; `null` where it is not. Items without bytes have none. */
  readonly contentOf: (side: 'left' | 'right', item: SideItem) => string | null;
}

/** In the order of paths, those of the left side before those of the right where both are one. */
export function compareSides({ left, right, sameContent, contentOf }: CompareGiven): ComparedRow[] {
  const pairs = new Pairs(left, right);
  pairs.match('path', (item) => item.path.normalize('NFC'));
  pairs.match('meaning', (item) => item.meaning.normalize('NFC'));
  pairs.match('content', (item, side) => (item.size === 0 ? null : contentOf(side, item)));
  pairs.matchChains();
  return pairs.rows((l, r) => (l.size !== r.size || l.frames !== r.frames ? false : sameContent(l, r)));
}

interface Pair {
  readonly left: ReadItem;
  readonly right: ReadItem;
  readonly evidence: Evidence;
}

/** An item that looks for its counterpart, until it has one. */
interface Seeking {
  readonly item: ReadItem;
  isFound: boolean;
}

/** The one of the left side with a key, and of the right; which there is none of, or several, finds no counterpart. */
interface Alike {
  readonly left: Seeking;
  right: Seeking | null;
  isAmbiguous: boolean;
}

class Pairs {
  private readonly found: Pair[] = [];
  private readonly sides: Readonly<Record<'left' | 'right', readonly Seeking[]>>;

  constructor(lefts: Iterable<ReadItem>, rights: Iterable<ReadItem>) {
    const seeking = (items: Iterable<ReadItem>) => Array.from(items, (item): Seeking => ({ item, isFound: false }));
    this.sides = { left: seeking(lefts), right: seeking(rights) };
  }

  /** Two are one where each is the only one of its side with this key. */
  match(evidence: Evidence, keyOf: (item: ReadItem, side: 'left' | 'right') => string | null): void {
    const alike = new Map<string, Alike>();
    for (const left of this.sides.left) {
      const key = left.isFound ? null : keyOf(left.item, 'left');
      if (key === null) continue;
      const known = alike.get(key);
      if (known === undefined) alike.set(key, { left, right: null, isAmbiguous: false });
      else known.isAmbiguous = true;
    }
    for (const right of this.sides.right) {
      const key = right.isFound ? null : keyOf(right.item, 'right');
      const known = key === null ? undefined : alike.get(key);
      if (known === undefined) continue;
      if (known.right === null) known.right = right;
      else known.isAmbiguous = true;
    }
    for (const { left, right, isAmbiguous } of alike.values())
      if (right !== null && !isAmbiguous) this.pair(left, right, evidence);
  }

  /** Of what is left of each chain the newest on both sides. */
  matchChains(): void {
    const [lefts, rights] = [newestOf(this.open('left')), newestOf(this.open('right'))];
    for (const [key, left] of lefts) {
      const right = rights.get(key);
      if (right !== undefined) this.pair(left, right, 'version');
    }
  }

  rows(isSame: (left: SideItem, right: SideItem) => boolean | null): ComparedRow[] {
    const rows: ComparedRow[] = this.found.map(({ left, right, evidence }) => {
      const same = evidence === 'content' ? true : isSame(left, right);
      const state = same !== true ? 'changed' : left.path === right.path ? 'same' : 'renamed';
      return { state, evidence, isUnread: same === null, left: shown(left), right: shown(right) };
    });
    const alone = { evidence: null, isUnread: false } as const;
    for (const { item } of this.open('left'))
      rows.push({ ...alone, state: 'only-left', left: shown(item), right: null });
    for (const { item } of this.open('right'))
      rows.push({ ...alone, state: 'only-right', left: null, right: shown(item) });
    return rows.sort(byPath);
  }

  private pair(left: Seeking, right: Seeking, evidence: Evidence): void {
    left.isFound = true;
    right.isFound = true;
    this.found.push({ left: left.item, right: right.item, evidence });
  }

  private open(side: 'left' | 'right'): readonly Seeking[] {
    return this.sides[side].filter((one) => !one.isFound);
  }
}

/** Where both have one path, what is on the left stands first. */
function byPath(a: ComparedRow, b: ComparedRow): number {
  const [one, other] = [(a.left ?? a.right)?.path ?? '', (b.left ?? b.right)?.path ?? ''];
  if (one !== other) return one < other ? -1 : 1;
  return Number(a.left === null) - Number(b.left === null);
}

function newestOf(all: readonly Seeking[]): ReadonlyMap<string, Seeking> {
  const versionOf = ({ item }: Seeking): number => item.chain?.version ?? 0;
  const out = new Map<string, Seeking>();
  for (const one of all) {
    const key = one.item.chain?.key;
    const known = key === undefined ? undefined : out.get(key);
    if (key !== undefined && (known === undefined || versionOf(one) > versionOf(known))) out.set(key, one);
  }
  return out;
}

const shown = ({ path, size, modified, frames, names }: SideItem): SideItem => ({
  path,
  size,
  modified,
  frames,
  names,
});

export interface ComparedSums {
  readonly counts: Readonly<Record<Compared, number>>;
  /** Bytes of the right side where it has the item, else of the left. */
  readonly bytes: Readonly<Record<Compared, number>>;
}

export function sumsOf(rows: readonly ComparedRow[]): ComparedSums {
  const none = () => ({ same: 0, renamed: 0, changed: 0, 'only-left': 0, 'only-right': 0 });
  const [counts, bytes] = [none(), none()];
  for (const { state, left, right } of rows) {
    counts[state]++;
    bytes[state] += (right ?? left)?.size ?? 0;
  }
  return { counts, bytes };
}

type ToldItem = Omit<SideItem, 'names'>;

/** A row as others are told of it: of a sequence without the names of its frames. */
export type ToldRow = Omit<ComparedRow, 'left' | 'right'> & {
  readonly left: ToldItem | null;
  readonly right: ToldItem | null;
};

export const toldRow = ({ left, right, ...row }: ComparedRow): ToldRow => ({
  ...row,
  left: toldItem(left),
  right: toldItem(right),
});

const toldItem = (item: SideItem | null): ToldItem | null =>
  item && { path: item.path, size: item.size, modified: item.modified, frames: item.frames };
