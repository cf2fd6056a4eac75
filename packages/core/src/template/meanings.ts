/** What the house means by each mark, and how the marks of rules from elsewhere become the house's own. */
import { type FolderNode, MARKS, type Mark } from './node';

/** In the house's words; a mark without words is free. */
export type Meanings = Readonly<Partial<Record<Mark, string>>>;

export interface SettledMarks {
  /** The house's mark for each of theirs; `null` where none was free. */
  readonly marks: ReadonlyMap<Mark, Mark | null>;
  /** What the house's marks mean that are used now: those it had, and those it gets. */
  readonly meanings: Meanings;
}

const sameWords = (a: string | undefined, b: string): boolean =>
  a !== undefined && a.trim().toLowerCase() === b.trim().toLowerCase();

/**
 * Maps marks by what they mean: to the mark with the same words; else to the same mark, where the house has no words
 * for it; else to the first free one. A mark that comes without words stays as it is. What the house has never changes.
 */
export function settleMarks(used: ReadonlySet<Mark>, theirs: Meanings, ours: Meanings): SettledMarks {
  const marks = new Map<Mark, Mark | null>();
  const known: Partial<Record<Mark, string>> = { ...ours };
  /** Used without words: it stays as it is, and no other mark is mapped to it. */
  const stays = (mark: Mark): boolean => used.has(mark) && theirs[mark] === undefined;
  const isFree = (mark: Mark): boolean => known[mark] === undefined && !stays(mark);
  for (const mark of MARKS) {
    if (!used.has(mark)) continue;
    const words = theirs[mark];
    const there = words === undefined ? mark : MARKS.find((m) => sameWords(known[m], words));
    const given = there ?? (isFree(mark) ? mark : MARKS.find(isFree)) ?? null;
    if (given !== null && words !== undefined && isFree(given)) known[given] = words.trim();
    marks.set(mark, given);
  }
  return { marks, meanings: only(known, new Set([...marks.values()].filter((m) => m !== null))) };
}

/** The meanings of some marks. */
export const only = (meanings: Meanings, marks: ReadonlySet<Mark>): Meanings =>
  Object.fromEntries(
    MARKS.flatMap((mark) => (marks.has(mark) && meanings[mark] !== undefined ? [[mark, meanings[mark]]] : [])),
  );

export function marksIn(folders: readonly FolderNode[]): Set<Mark> {
  const used = new Set<Mark>();
  const walk = (node: FolderNode): void => {
    if (node.mark !== undefined) used.add(node.mark);
    node.folders?.forEach(walk);
  };
  folders.forEach(walk);
  return used;
}

/** The folder with its marks replaced; without one where none was free. */
export function withMarks(node: FolderNode, marks: SettledMarks['marks']): FolderNode {
  const { mark, folders, ...others } = node;
  const given = mark === undefined ? null : (marks.get(mark) ?? null);
  return {
    ...others,
    ...(given === null ? {} : { mark: given }),
    ...(folders === undefined ? {} : { folders: folders.map((f) => withMarks(f, marks)) }),
  };
}
