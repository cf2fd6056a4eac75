/** How much room changes need on the disks they write to, before any of them is done. */
import { type Change, type Content, isNew, type NewContent, type Patch } from './change';
import type { RootId } from './place';

/** Bytes that an entry takes at least, however small it is: a usual block of a file system. */
const BLOCK = 4096;

/**
 * Bytes by root, an upper bound: what gives way is kept, so nothing becomes free. Folders that cross to another file
 * system are counted without what is in them.
 *
 * @param newBytes - bytes of a content that is written anew
 */
export function bytesNeeded(
  changes: readonly Change[],
  newBytes: (content: NewContent) => number,
): ReadonlyMap<RootId, number> {
  const needed = new Map<RootId, number>();
  for (const change of changes) {
    const { after } = change;
    if (after === null) continue;
    const bytes = bytesOf(change, newBytes);
    if (bytes !== null)
      needed.set(after.root, (needed.get(after.root) ?? 0) + Math.max(1, Math.ceil(bytes / BLOCK)) * BLOCK);
  }
  return needed;
}

/** `null` where nothing is written: an entry that only takes another place on its file system. */
function bytesOf(
  { before, after, content, expects }: Change,
  newBytes: (content: NewContent) => number,
): number | null {
  if (content !== null) return bytesOfContent(content, expects?.size ?? 0, newBytes);
  return before !== null && before.root === after?.root ? null : (expects?.size ?? 0);
}

function bytesOfContent(content: Content, size: number, newBytes: (content: NewContent) => number): number | null {
  if (isNew(content)) return newBytes(content);
  switch (content.kind) {
    case 'copy':
      return sizeAfter(content.expects?.size ?? 0, content.patches);
    case 'rewritten':
      return sizeAfter(size, content.patches);
    case 'set-aside':
      return null;
  }
}

/** What patches make of a file of so many bytes. */
export const sizeAfter = (size: number, patches: readonly Patch[] = []): number =>
  patches.reduce((sum, { length, bytes }) => sum + base64Bytes(bytes) - length, size);

const base64Bytes = (text: string): number => (text.length / 4) * 3 - (text.match(/=*$/)?.[0].length ?? 0);
