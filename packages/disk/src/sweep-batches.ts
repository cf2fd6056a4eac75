/** Batches that ended long ago are cleared away: their journals, and what they kept so that they could be undone. */
import { FIRST_OUTCOMES, JOURNAL, KEPT } from '@nesting/core/change';
import { batchesIn, batchFolder, homeOf, openIn, readBatch } from './journal';
import { writtenAt } from './roots/own-files';
import type { Roots } from './roots/port';
import { removeTree } from './roots/remove-tree';
import type { Root } from './roots/root';
import { Tree } from './roots/tree';
import { listFolder } from './walk';

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
  for (const id of old) removeBatch(roots, id);
  return old;
}

/** These of its batches go, whenever they ended, with all they kept: they cannot be undone any more. Nothing while one is open. */
export function freeBatches(roots: Roots, ids: readonly string[]): string[] {
  const home = homeOf(roots);
  if (openIn(home) !== null) return [];
  // A crash may have left some of one, without its journal: that goes too, and what is gone is freed.
  const ended = ids.filter((id) => readBatch(home, id)?.ended !== null);
  for (const id of ended) removeBatch(roots, id);
  return ended;
}

function removeBatch(roots: Roots, id: string): void {
  const home = homeOf(roots);
  // Home last: what a crash leaves elsewhere is found by the journal once more.
  for (const root of [...roots.values()].filter((one) => one !== home).concat(home)) removeTree(root, batchFolder(id));
}

/** Files that a batch keeps so that it can be undone, and their bytes. */
export interface Kept {
  readonly id: string;
  readonly files: number;
  readonly bytes: number;
}

export function keptOf(roots: Roots, ids: readonly string[]): Kept[] {
  return ids.map((id) => {
    const sum = { id, files: 0, bytes: 0 };
    for (const root of roots.values()) countIn(Tree.of(root), `${batchFolder(id)}/${KEPT}`, sum);
    return sum;
  });
}

function countIn(tree: Tree, top: string, sum: { files: number; bytes: number }): void {
  const queue = [top];
  for (let path = queue.pop(); path !== undefined; path = queue.pop()) {
    const listing = listFolder(tree, path, () => undefined);
    for (const { size } of listing?.files ?? []) {
      sum.files++;
      sum.bytes += size;
    }
    for (const name of listing?.folders ?? []) queue.push(`${path}/${name}`);
  }
}

/** Milliseconds since 1970 of the last word in a batch's journal: its end, where it has one. */
const lastWritten = (home: Root, id: string): number =>
  Math.max(...[JOURNAL, FIRST_OUTCOMES].map((name) => writtenAt(home, `${batchFolder(id)}/${name}`) ?? 0));
