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
import { grouped } from '../grouped';
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
  const pairs = new Pairs([...left], [...right]);
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

class Pairs {
  private readonly found: Pair[] = [];
  private lefts: readonly ReadItem[];
  private rights: readonly ReadItem[];

  constructor(lefts: readonly ReadItem[], rights: readonly ReadItem[]) {
    this.lefts = lefts;
    this.rights = rights;
  }

  /** Two are one where each is the only one of its side with this key. */
  match(evidence: Evidence, keyOf: (item: ReadItem, side: 'left' | 'right') => string | null): void {
    const lefts = onlyOnes(this.lefts, (item) => keyOf(item, 'left'));
    const rights = onlyOnes(this.rights, (item) => keyOf(item, 'right'));
    for (const [key, left] of lefts) {
      const right = rights.get(key);
      if (left !== null && right !== undefined && right !== null) this.found.push({ left, right, evidence });
    }
    this.leave();
  }

  /** Of what is left of each chain the newest on both sides. */
  matchChains(): void {
    const [lefts, rights] = [newestOf(this.lefts), newestOf(this.rights)];
    for (const [key, left] of lefts) {
      const right = rights.get(key);
      if (right !== undefined) this.found.push({ left, right, evidence: 'version' });
    }
    this.leave();
  }

  rows(isSame: (left: SideItem, right: SideItem) => boolean | null): ComparedRow[] {
    const rows: ComparedRow[] = this.found.map(({ left, right, evidence }) => {
      const same = evidence === 'content' ? true : isSame(left, right);
      const state = same !== true ? 'changed' : left.path === right.path ? 'same' : 'renamed';
      return { state, evidence, isUnread: same === null, left: shown(left), right: shown(right) };
    });
    const alone = { evidence: null, isUnread: false } as const;
    for (const left of this.lefts) rows.push({ ...alone, state: 'only-left', left: shown(left), right: null });
    for (const right of this.rights) rows.push({ ...alone, state: 'only-right', left: null, right: shown(right) });
    const keyed = rows.map((row) => ({ row, key: `${(row.left ?? row.right)?.path} ${row.left === null ? 1 : 0}` }));
    return keyed.sort((a, b) => (a.key < b.key ? -1 : a.key > b.key ? 1 : 0)).map(({ row }) => row);
  }

  private leave(): void {
    const [lefts, rights] = [new Set(this.found.map((p) => p.left)), new Set(this.found.map((p) => p.right))];
    this.lefts = this.lefts.filter((item) => !lefts.has(item));
    this.rights = this.rights.filter((item) => !rights.has(item));
  }
}

/** `null` for a key that several have. */
function onlyOnes(items: readonly ReadItem[], keyOf: (item: ReadItem) => string | null): Map<string, ReadItem | null> {
  const out = new Map<string, ReadItem | null>();
  for (const item of items) {
    const key = keyOf(item);
    if (key !== null) out.set(key, out.has(key) ? null : item);
  }
  return out;
}

function newestOf(items: readonly ReadItem[]): ReadonlyMap<string, ReadItem> {
  const chains = grouped(
    items.filter((item) => item.chain !== null),
    (item) => item.chain?.key ?? '',
  );
  const versionOf = (item: ReadItem): number => item.chain?.version ?? 0;
  return new Map([...chains].map(([key, all]) => [key, all.reduce((a, b) => (versionOf(b) > versionOf(a) ? b : a))]));
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
