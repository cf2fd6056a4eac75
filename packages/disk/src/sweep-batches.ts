/** Batches that ended long ago are cleared away: their journals, and what they kept so that they could be undone. */
import { FIRST_OUTCOMES, JOURNAL } from '@nesting/core/change';
import { batchesIn, batchFolder, homeOf, openIn, readBatch } from './journal';
import { writtenAt } from './roots/own-files';
import type { Roots } from './roots/port';
import { removeTree } from './roots/remove-tree';
import type { Root } from './roots/root';

/**
 * Nothing while a batch is open: it may be one that undoes an old one. What other roots keep of a batch goes with it.
 *
 * @param before - milliseconds since 1970: what ended before goes
 * @returns ids of the batches that cannot be undone any more
 */
export function sweepOldBatches(roots: Roots, before: number): string[] {
  const home = homeOf(roots);
  if (openIn(home) !== null) return [];
  const old = batchesIn(home).filter((id) => lastWritten(home, id) < before && readBatch(home, id)?.ended);
  // Home last: what a crash leaves elsewhere is found by the journal once more.
  for (const id of old)
    for (const root of [...roots.values()].filter((one) => one !== home).concat(home))
      removeTree(root, batchFolder(id));
  return old;
}

/** Milliseconds since 1970 of the last word in a batch's journal: its end, where it has one. */
const lastWritten = (home: Root, id: string): number =>
  Math.max(...[JOURNAL, FIRST_OUTCOMES].map((name) => writtenAt(home, `${batchFolder(id)}/${name}`) ?? 0));
